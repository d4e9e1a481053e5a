"""What a try at a note sounded like: a suggestion beside the teacher's own ear, never a verdict.

Per hop the level over the room's and how alike the sound is to itself one period later (normalised
autocorrelation; source: McLeod and Wyvill 2005, own limits).
Invariances: loudness of the whole, the sampling rate above twice the highest tone.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import Outcome
from brevin.core.track import Floats

HOP_S, WINDOW_S = 0.01, 0.05
SHAKE_S = 0.025  # over which the level is taken for its shaking: a gurgle is left in it, the lowest tone's own period is not
LOWEST_HZ, HIGHEST_HZ = 40.0, 3200.0  # of what is looked for as a tone
LOUD_DB = 9.0  # over the room's own level
PITCHED = 0.82  # likeness one period later, of a tone
LEAST_S = 0.12  # of sound; less is nothing
TONE_SHARE = 0.35  # of the sounding time that has a pitch; less is air
TOO_HIGH = 1.6  # times the note that is asked for: a squeak, or too high
ROUGH_HZ = (7.0, 45.0)  # in which gurgling shakes the level
ROUGH_DB = 2.2  # standard deviation of the level in that band
THIN_DB = 16.0  # over the room's level; softer tones are thin
LEAST_SHAKEN_S, EDGE_HOPS = 0.3, 5  # of tone that shaking is looked for in; hops at its ends that are left out
TOGETHER = 100  # hops worked out at once: a long tone takes no more memory than a short one
FLOOR_SHARE, FLOOR_S = 0.15, 0.3  # of the hops are taken as the room's own, and no more than so long: a long tone leaves little of the room


@dataclass(frozen=True)
class Heard:
    """air_s, tone_s: how long each lasted; hz: the tone's median, None without one; like: what it is most like."""

    air_s: float
    tone_s: float
    hz: float | None
    like: Outcome


def heard(samples: Floats, rate_hz: float, *, wanted_hz: float | None) -> Heard:
    """What was heard. samples: (n,), mono, full scale 1, the room's own sound before or after the try among it; wanted_hz: the note that is asked for.
    Raises InvalidInput(too_short) for less than a third of a second."""
    if len(samples) < rate_hz / 3:
        raise InvalidInput("too_short", seconds=len(samples) / rate_hz)
    level_db, likeness, hz = _hops(samples, rate_hz)
    floor_db = float(np.quantile(level_db, min(FLOOR_SHARE, FLOOR_S / (HOP_S * len(level_db)))))
    loud = level_db > floor_db + LOUD_DB
    tone = loud & (likeness > PITCHED)
    air_s, tone_s = float(np.sum(loud & ~tone) * HOP_S), float(np.sum(tone) * HOP_S)
    pitch = float(np.median(hz[tone])) if tone.any() else None
    return Heard(air_s, tone_s, pitch, _like(air_s, tone_s, pitch, wanted_hz, level_db[tone] - floor_db, _rough_db(samples, rate_hz, tone)))


def _like(air_s: float, tone_s: float, hz: float | None, wanted_hz: float | None, over_db: Floats, rough_db: float) -> Outcome:
    if air_s + tone_s < LEAST_S:
        return "nothing"
    if hz is None or tone_s < TONE_SHARE * (air_s + tone_s):
        short = hz is not None and wanted_hz is not None and hz > TOO_HIGH * wanted_hz and tone_s >= LEAST_S / 2
        return "squeak" if short else "only_air"
    if wanted_hz is not None and hz > TOO_HIGH * wanted_hz:
        return "squeak"
    if rough_db > ROUGH_DB:
        return "gurgling"
    return "thin" if float(np.median(over_db)) < THIN_DB else "note"


def _hops(samples: Floats, rate_hz: float) -> tuple[Floats, Floats, Floats]:
    """Level in dB, likeness and frequency of each hop."""
    size, step = int(WINDOW_S * rate_hz), int(HOP_S * rate_hz)
    starts = np.arange(0, len(samples) - size, step)
    parts = [_some_hops(samples[starts[i : i + TOGETHER, None] + np.arange(size)], rate_hz) for i in range(0, len(starts), TOGETHER)]
    level_db, likeness, hz = (np.concatenate(one) for one in zip(*parts, strict=True))
    return level_db, likeness, hz


def _some_hops(windows: Floats, rate_hz: float) -> tuple[Floats, Floats, Floats]:
    size = windows.shape[1]
    windows = windows - windows.mean(axis=1, keepdims=True)
    power = np.mean(windows**2, axis=1)
    spectrum = np.fft.rfft(windows, n=2 * size, axis=1)
    alike = np.fft.irfft(np.abs(spectrum) ** 2, axis=1)[:, :size]
    squares = np.cumsum(windows**2, axis=1)
    whole = squares[:, -1:]
    lags = np.arange(size)
    heads = squares[:, np.maximum(size - 1 - lags, 0)]
    tails = whole - np.concatenate([np.zeros((len(windows), 1)), squares[:, :-1]], axis=1)
    likeness = 2 * alike / np.maximum(heads + tails, 1e-12)
    best = [_period(row, rate_hz) for row in likeness]
    return 10 * np.log10(power + 1e-12), np.array([one[0] for one in best]), np.array([one[1] for one in best])


def _period(likeness: Floats, rate_hz: float) -> tuple[float, float]:
    """The first lag whose likeness comes near the greatest, with its frequency: a longer one is a multiple of the period."""
    low, high = max(2, int(rate_hz / HIGHEST_HZ)), min(len(likeness) - 2, int(rate_hz / LOWEST_HZ))
    part = likeness[low:high]
    below = np.flatnonzero(part < 0.5)
    if not len(below):  # as slow as the window: no tone
        return 0.0, 0.0
    part = np.where(np.arange(len(part)) < below[0], 0.0, part)
    tops = np.flatnonzero((part[1:-1] >= part[:-2]) & (part[1:-1] > part[2:])) + 1
    if not len(tops):
        return 0.0, 0.0
    top = int(tops[np.flatnonzero(part[tops] >= 0.93 * part[tops].max())[0]])
    before, here, after = part[top - 1 : top + 2]
    shift = 0.5 * (before - after) / (before - 2 * here + after)
    return float(here), float(rate_hz / (low + top + shift))


def _rough_db(samples: Floats, rate_hz: float, tone: np.ndarray) -> float:
    """How much the level of the sounding part shakes in the band of gurgling."""
    if np.sum(tone) * HOP_S < LEAST_SHAKEN_S:
        return 0.0
    hann = np.hanning(int(SHAKE_S * rate_hz))
    power = np.convolve(samples**2, hann / hann.sum(), mode="same")
    step, late = int(HOP_S * rate_hz), int(WINDOW_S * rate_hz / 2)
    first, last = np.flatnonzero(tone)[[0, -1]]
    level_db = 10 * np.log10(power[late + first * step : late + last * step + 1 : step] + 1e-12)
    middle = level_db[EDGE_HOPS:-EDGE_HOPS] - level_db[EDGE_HOPS:-EDGE_HOPS].mean()
    spectrum = np.fft.rfft(middle)
    hz = np.fft.rfftfreq(len(middle), HOP_S)
    spectrum[(hz < ROUGH_HZ[0]) | (hz > ROUGH_HZ[1])] = 0
    return float(np.std(np.fft.irfft(spectrum, n=len(middle))))
