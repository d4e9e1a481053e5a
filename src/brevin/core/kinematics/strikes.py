"""Whether a foot taps, when it strikes the floor, and how that lies against the beat. Shown, never judged: a tapping foot keeps the beat for many."""

import numpy as np

from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Withheld
from brevin.core.music.clicks import Beats
from brevin.core.track import Floats

LEAST_PCT = 1.5  # of trunk that heel or toes are seen to go up: less is a foot that lies still
TIMES_NOISE = 6.0  # and this far out of what the foot wanders by from picture to picture
REST_PERCENTILE, UP_PERCENTILE = 15.0, 92.0  # of a foot's height: on the floor, and up
UP_SHARE, DOWN_SHARE = 0.5, 0.2  # of the way up: above it the foot is up, below it it has struck
LEAST_STRIKES = 4  # of a clip: fewer are no tapping
BY_CHANCE = 6.0  # their number times that length squared (Rayleigh): strikes at any moments come so near together once in 400 clips
TOGETHER = 0.6  # length of the mean of the strikes' places within the beat, as arrows: below it they do not go with it; 0.6 is a spread of a sixth of a beat
ON_BEAT_BEATS = 0.25  # a strike so near a beat is that beat's
UNSURE_BEATS = 0.25  # half width from which it is not known whether the foot is with the beat, as where nobody heard it
STRIKE_S = 0.02  # standard error of one strike, and what all of a clip share: half a picture; own, measured on stand-in clips
LEAST_SEEN = 0.5  # of the pictures
LATE, ON_BEATS = "foot_late_s", "foot_on_beats"


def strikes_s(t_s: Floats, feet_pct: Floats) -> Floats | None:
    """When the foot that taps strikes the floor: [k], none where neither taps; None where no foot is seen.

    t_s: [n]; feet_pct: [n, 2, 2] how high heel and toes of left and right foot are over the room, percent of trunk, nan where not seen.
    Source: own.
    """
    heights = [height for foot in (0, 1) if len(feet_pct) and (height := _height(feet_pct[:, foot])) is not None]
    if not heights:
        return None
    return max((_strikes_s(t_s, height) for height in heights), key=len)


def _height(foot: Floats) -> Floats | None:
    """How high the part of a foot that moves more is over the other: [n]; alone where the other is not seen."""
    seen = np.isfinite(foot).mean(axis=0) >= LEAST_SEEN
    if not seen.any():
        return None
    if not seen.all():
        return foot[:, int(np.argmax(seen))]
    heel, toes = foot.T
    return toes - heel if np.nanstd(toes) >= np.nanstd(heel) else heel - toes


def _strikes_s(t_s: Floats, height: Floats) -> Floats:
    known = np.isfinite(height)
    t_s, height = t_s[known], height[known]
    if len(height) < LEAST_SEEN * len(known):
        return np.zeros(0)  # heel and toes were seen at different times
    rest, top = np.percentile(height, (REST_PERCENTILE, UP_PERCENTILE))
    noise = float(np.median(np.abs(np.diff(height))))
    if top - rest < max(LEAST_PCT, TIMES_NOISE * noise):
        return np.zeros(0)
    share = (height - rest) / (top - rest)
    found, up = [], False
    for i in range(1, len(share)):
        up = up or share[i] > UP_SHARE
        if up and share[i] <= DOWN_SHARE:
            found.append(t_s[i - 1] + (share[i - 1] - DOWN_SHARE) / max(share[i - 1] - share[i], 1e-9) * (t_s[i] - t_s[i - 1]))
            up = False
    return np.array(found) if len(found) >= LEAST_STRIKES else np.zeros(0)


def against_beats(struck_s: Floats | None, beats: Beats, counted_s: tuple[float, float] | None, *, unseen: Withheld = "feet_unseen") -> list[Measure]:
    """How late the strikes are against the nearest beat (+ = late), and the share of the beats that have one. struck_s: as ``strikes_s``; counted_s: between
    which moments beats are counted, None where none are; unseen: why there are no strikes, where they are None.
    Seconds, and a share; no errors. Source: own, with directions within the beat as in circular statistics (Rayleigh)."""
    why = unseen if struck_s is None else _nothing(struck_s, beats, counted_s)
    if why is not None or struck_s is None or counted_s is None or beats.first_inhale_s is None or beats.beat_s is None:
        return [Measure(key, NotMeasured(why or "no_beats")) for key in (LATE, ON_BEATS)]
    beat_s, first_s = beats.beat_s, beats.first_inhale_s
    numbers = np.arange(np.ceil((counted_s[0] - first_s) / beat_s - ON_BEAT_BEATS), np.floor((counted_s[1] - first_s) / beat_s + ON_BEAT_BEATS) + 1.0)
    if not len(numbers):
        return [Measure(key, NotMeasured("no_beats")) for key in (LATE, ON_BEATS)]
    at = (struck_s - first_s) / beat_s
    at = at[(at > numbers[0] - 0.5) & (at < numbers[-1] + 0.5)]
    arrow = np.exp(2j * np.pi * at).mean() if len(at) else 0.0
    if abs(arrow) < TOGETHER or len(at) * abs(arrow) ** 2 < BY_CHANCE:
        return [Measure(key, NotMeasured("off_the_beat")) for key in (LATE, ON_BEATS)]
    late = float(np.angle(arrow)) / (2.0 * np.pi)
    apart = at - late - np.round(at - late)
    spread_s = beat_s * float(np.sqrt(np.mean(apart**2))) / np.sqrt(len(at))
    half_s = NORMAL_90 * float(np.hypot(np.hypot(spread_s, STRIKE_S), beats.residual_s or 0.0))
    if half_s > UNSURE_BEATS * beat_s:
        return [Measure(key, NotMeasured("too_unsure")) for key in (LATE, ON_BEATS)]
    struck = np.unique(np.round(at - late))
    share = float(np.isin(numbers, struck).mean())
    return [
        Measure(LATE, Amount(beat_s * late, half_s), samples=len(at)),
        Measure(ON_BEATS, Amount(share, NORMAL_90 * float(np.sqrt((share * (1.0 - share) + 1.0 / len(numbers)) / len(numbers)))), samples=len(numbers)),
    ]


def _nothing(struck_s: Floats, beats: Beats, counted_s: tuple[float, float] | None) -> Withheld | None:
    if not len(struck_s):
        return "not_tapped"
    return None if beats.first_inhale_s is not None and beats.beat_s is not None and counted_s is not None else "no_beats"
