"""The click track in a clip's sound, and the beat on which the first inhale is due."""

from dataclasses import dataclass

import numpy as np

from brevin.core.kinds import GridSource
from brevin.core.music.onsets import HOP_S, onset_curve
from brevin.core.plan.card import CountCard
from brevin.core.track import Floats, Sound

LEAST_CLICKS = 4  # fewer lie on a line by chance
LEAST_SOUND_S = 2.0  # less holds no grid
TEMPO_SLACK = 0.02  # a metronome app may run this much off the card
STANDS_OUT = 4.0  # grid strength over that of other phases: below it there is no click track
ON_LINE_S, ON_LINE_SHARE = 0.006, 0.65  # clicks this near their common line, and how many must be: talk has peaks too, but not in line
AROUND_BEATS, ON_PLACE_S = 0.35, 0.03  # around a place of the grid: what a click there must stand out of, less the place itself
BACKGROUND_PCT, STANDS_TIMES = 95.0, 1.5  # percentile of what is around: a click stands this many times over it
PLACES_HELD = 0.6  # share of the grid's places that must hold a click: of a grid at 4/3 of the click's tempo every third does
TEMPI_BPM = (40.0, 144.0)  # of any card: other tempi that clicks may have
FIRST_CLICK = 0.25  # a click of at least this share of the usual strength can be the first


@dataclass(frozen=True)
class Onsets:
    """What is kept of a clip's sound for its beats. rise: [k] rise of loudness in the click band, one value per ``HOP_S``, 0 and up; starts_s: of the first,
    on the clip's clock; tempi_bpm: of a click track, whatever the card: one or none; None where nobody listened for it yet."""

    rise: Floats
    starts_s: float
    tempi_bpm: tuple[float, ...] | None = None


@dataclass(frozen=True)
class Beats:
    """The beat grid. first_inhale_s: due time of the card's first inhale; source: clicks, recorded, fitted or None; times in seconds."""

    tempo_bpm: float | None
    first_inhale_s: float | None
    source: GridSource | None
    residual_s: float | None
    clicks_s: tuple[float, ...] = ()

    @property
    def beat_s(self) -> float | None:
        """Length of a beat, seconds."""
        return None if self.tempo_bpm is None else 60.0 / self.tempo_bpm


NO_BEATS = Beats(tempo_bpm=None, first_inhale_s=None, source=None, residual_s=None)


def heard(sound: Sound | None) -> Onsets | None:
    """The onsets of a sound; None where there is none, or too little for a grid."""
    if sound is None or len(sound.samples) < LEAST_SOUND_S * sound.rate_hz:
        return None
    rise = onset_curve(sound)
    return Onsets(rise=rise, starts_s=sound.starts_s, tempi_bpm=_tempi(rise))


def from_clicks(onsets: Onsets | None, card: CountCard | None) -> Beats:
    """Beats of the click track, when there is a card to say its tempo; ``NO_BEATS`` where none stands out.

    A grid over the whole clip is fitted to the onset curve, so that clicks under a tone still count; the first click is the first
    place on the grid with a click of its own. Source: own.
    """
    if onsets is None or card is None:
        return NO_BEATS
    curve = onsets.rise
    beat_s, phase_s, strength = _grid(curve, card.beat_s)
    if strength < STANDS_OUT:
        return NO_BEATS
    places = np.arange(phase_s, len(curve) * HOP_S, beat_s)
    heights = _at(curve, places)
    first = _first(heights)
    times = _peaks(curve, places[first:])
    if len(times) < LEAST_CLICKS:
        return NO_BEATS
    beat_s, first_s, off = _line(times)
    if (off < ON_LINE_S).mean() < ON_LINE_SHARE or _held(curve, places[first:], beat_s) < PLACES_HELD:
        return NO_BEATS
    return Beats(
        tempo_bpm=60.0 / beat_s,
        first_inhale_s=first_s + card.countin_beats * beat_s + onsets.starts_s,
        source="clicks",
        residual_s=float(np.median(off)),
        clicks_s=tuple(float(t + onsets.starts_s) for t in times),
    )


def tempo_heard(onsets: Onsets | None) -> float | None:
    """The tempo of a click track, whatever the card: the fastest grid that holds clicks, since every second click makes a grid too. None where none is
    heard."""
    if onsets is None:
        return None
    return next(iter(_tempi(onsets.rise) if onsets.tempi_bpm is None else onsets.tempi_bpm), None)


def _tempi(curve: Floats) -> tuple[float, ...]:
    slowest, fastest = TEMPI_BPM
    for beat_s in 60.0 / np.exp(np.arange(np.log(fastest), np.log(slowest), -2 * TEMPO_SLACK)):
        found_s, phase_s, strength = _grid(curve, beat_s)
        if strength > STANDS_OUT:
            places = np.arange(phase_s, len(curve) * HOP_S, found_s)
            places = places[_first(_at(curve, places)) :]
            times = _peaks(curve, places)
            on_line = len(times) >= LEAST_CLICKS and (_line(times)[2] < ON_LINE_S).mean() >= ON_LINE_SHARE
            if on_line and _held(curve, places, found_s) >= PLACES_HELD:
                return (float(60.0 / found_s),)
    return ()


def _held(curve: Floats, places: Floats, beat_s: float) -> float:
    """Share of the places at which a click stands out of what is around it."""
    reach, own = int(AROUND_BEATS * beat_s / HOP_S), int(ON_PLACE_S / HOP_S)
    held = []
    for place, height in zip(places, _at(curve, places), strict=True):
        i = int(place / HOP_S)
        around = np.concatenate([curve[max(i - reach, 0) : max(i - own, 0)], curve[i + own : i + reach]])
        if len(around):
            held.append(height > STANDS_TIMES * float(np.percentile(around, BACKGROUND_PCT)))
    return float(np.mean(held)) if held else 0.0


def _line(times: Floats) -> tuple[float, float, Floats]:
    """Beat length, first click and every click's distance from their line; clicks that a tone hides are left out of the fit."""
    index = np.arange(len(times))
    use = np.ones(len(times), bool)
    for _ in range(3):
        beat_s, first_s = np.polyfit(index[use], times[use], 1)
        off = np.abs(times - first_s - beat_s * index)
        use = off <= max(3.0 * float(np.median(off)), HOP_S)
    return float(beat_s), float(first_s), off


def _grid(curve: Floats, beat_s: float) -> tuple[float, float, float]:
    """Best beat length near the asked one, its phase, and how far it stands out from the other phases."""
    best, rooted = (beat_s, 0.0, 0.0), np.sqrt(curve)
    for tried in beat_s * np.linspace(1 - TEMPO_SLACK, 1 + TEMPO_SLACK, 41):
        per_beat = tried / HOP_S
        beats = int(len(curve) / per_beat) - 1
        if beats < 3:
            continue
        rows = (np.arange(beats) * per_beat).astype(int)[:, None] + np.arange(int(per_beat))
        mean = (rooted[rows].sum(axis=0) / beats) ** 2
        top = int(np.argmax(mean))
        strength = float(mean[top] / (np.median(mean) + 1e-3))
        if strength > best[2]:
            best = (float(tried), top * HOP_S, strength)
    return best


def _at(curve: Floats, places: Floats) -> Floats:
    """Largest onset within 20 ms of each place."""
    reach = int(0.02 / HOP_S)
    middle = (places / HOP_S).astype(int)
    return np.array([curve[max(i - reach, 0) : i + reach + 1].max(initial=0.0) for i in middle])


def _peaks(curve: Floats, places: Floats) -> Floats:
    """Time of the largest onset within 20 ms of each place."""
    reach = int(0.02 / HOP_S)
    times = []
    for place in places:
        i = int(place / HOP_S)
        low = max(i - reach, 0)
        window = curve[low : i + reach + 1]
        times.append((low + int(np.argmax(window)) + 0.5) * HOP_S if len(window) and window.max() > 0 else place)
    return np.array(times)


def _first(heights: Floats) -> int:
    """First place with a click, followed by more: not a bump before the track begins."""
    usual = float(np.median(heights[heights > 0])) if (heights > 0).any() else 0.0
    loud = heights > FIRST_CLICK * usual
    for i in range(len(loud)):
        if loud[i] and loud[i : i + 4].mean() >= 0.75:
            return i
    return 0
