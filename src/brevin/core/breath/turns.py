"""The moment a region leaves rest or fullness, or comes to it: a hinge fitted to the trace around the turn.

Model: a movement comes to rest, its speed falling evenly over an ease; it rests for a while, or not at all; at the turn the next one leaves
the rest, its speed growing evenly over an ease. Both are fitted together, in turns, so that the end of the one is not taken for the start of
the other. An ease is a share of its movement's own time, near the usual one unless the trace says otherwise. Only the last part of the movement
before and the first of the one after are looked at, so that a gulp or a thin tail has its own turn and not that of the rest of it. The model is
smoothed as the trace was, so that smoothing moves no turn. The turn is where the squared misfit is least; its interval holds all turns whose
misfit is not clearly worse. Source: own.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.breath.hinge import EASES, STEP_S, USUAL, Before, Course, fit, fit_both, moved
from brevin.core.filters import GRID_HZ
from brevin.core.track import Floats

EASE_BEFORE_S = 0.4  # of what dies away into the turn where no movement before it is seen
BEFORE_LEAST = 0.25  # of the half movement after: what came down less than this is no movement before
REACH_BEFORE = 0.20  # share of the movement before that is looked at
BEFORE_S = 0.7  # of rest looked at before the turn
BEFORE_LEVEL = 0.06  # of the excursion: above it the samples belong to the movement before
REACH_LEAVING, REACH_ARRIVING, REACH_MOST = 0.35, 0.25, 0.45  # share of the excursion the hinge is fitted to, more where the trace is noisier
REACH_LETTING_GO = 0.30  # the same of an exhale's start: an exhale is long, and does not keep its pace as an inhale does
EASE_LETTING_GO_S = 1.0  # usual ease of an exhale's start, at most: air is let go no slower the longer one blows; own, shows in ./brevin bench accuracy
EASE_TO_REST_S = 0.4  # the same of an exhale's end that a rest follows: what is told longer is the coder's, that goes on; own, over stills that rest on empty
REACH_NOISE = 8.0  # times the noise that the reach stands out of it
FOOT_S, FOOT_CLIMB = 1.2, 0.25  # longest rest walked back over; share of the half rise that counts as another movement
FOOT_RIPPLE, RIPPLE_NOISE = 0.2, 5.0  # of the half rise, or times the noise where that is more: less is a ripple on the way, no other movement
FOOT_REST_S, FOOT_LEVEL = 0.5, 0.02  # a level kept so long, within this share of the half rise, is the rest the movement leaves
ROUGH_LEVEL = 0.04  # of the excursion: the turn is looked for around the last moment below it
ROUGH_NOISE, ROUGH_MOST = 2.0, 0.2  # times the noise, where that is more; and at most this
EARLIER_S, LATER_S = 1.5, 0.15  # and this far before and after
UNSEEN_PCT = 0.05  # of trunk: a movement so small is not in the coded picture yet; own, shows in ./brevin bench accuracy
STEADY_EASE_S = 0.45  # ease of a steady movement, at most
PACE = 2.0  # times the way from a quarter to a half of the movement
NORMAL_90 = 2.71  # likelihood ratio of a 90 % interval, one parameter
LEAST_HALF_WIDTH_S = 0.10  # key pictures of a coded clip come about this far apart in what they can tell; own, shows in ./brevin bench accuracy


@dataclass(frozen=True)
class Turn:
    """A moment with the half width of its 90 % interval, seconds."""

    t_s: float
    half_width_s: float


def leaving(
    t_s: Floats, values: Floats, *, from_i: int, middle_i: int, noise: float = 0.0, least_reach: float | None = None, steady: bool = False,
    hidden: float = 0.0, fading: bool = False, held: bool = False, lasts_s: float = 0.0, ease_most_s: float = np.inf,
) -> Turn:  # fmt: skip
    """When the rise that passes its half at ``middle_i`` began, looked for from ``from_i`` on.

    values: rising, any unit; noise: the trace's own standard deviation, same unit; steady: the movement is taken to keep its pace from its
    first quarter to its half, and to leave the last level kept for a while, so that a ripple or fidgeting before it is not its start;
    hidden: movement that does not show at first, same unit; fading: the trace hardly tells where in a thin stretch the turn is, and the least misfit
    lies in it by chance: the middle of all that fits is the turn; held: what is left is a level that wanders within the noise, of which the extreme is chance;
    ease_most_s: how long the usual ease is, at most.
    """
    middle_i = min(max(middle_i, 0), len(t_s) - 1)
    window = slice(min(max(from_i, 0), middle_i), middle_i + 1)
    time, height = t_s[window], values[window]
    if len(time) < 5:
        return Turn(float(time[0]), 0.2)
    lowest = _foot(time, height, rest_s=FOOT_REST_S if steady or held else FOOT_S, kept_within=ROUGH_NOISE * noise if held else 0.0, noise=noise)
    excursion = max(2.0 * (float(height[-1]) - float(height[lowest])), 1e-9)
    done = (height - height[lowest]) / excursion
    reach = float(np.clip(REACH_NOISE * noise / excursion, REACH_LEAVING if least_reach is None else least_reach, REACH_MOST))
    end = lowest + max(_first_above(done[lowest:], reach), 4)
    end = min(end, len(time) - 1)
    level = float(np.clip(ROUGH_NOISE * noise / excursion, ROUGH_LEVEL, ROUGH_MOST))
    rough = lowest + _last_below(done[lowest : end + 1], level)
    eases_s = _eases_s(time, done, lowest, lasts_s)
    eases_s = [ease_s * min(1.0, ease_most_s / eases_s[USUAL]) for ease_s in eases_s]
    earliest_s = _earliest_s(time, done, lowest) if steady else float(time[0])
    rough_s = max(float(time[rough]), earliest_s)
    first = max(_rest_from(done, rough, max(level, BEFORE_LEVEL)), int(np.searchsorted(time, min(rough_s, float(time[rough])) - BEFORE_S - EARLIER_S)))
    before = _before(time, height, lowest)
    first = first if before is None else min(first, before.first)
    found = _hinge(
        time[first : end + 1],
        done[first : end + 1],
        rough_s=rough_s,
        earliest_s=earliest_s,
        eases_s=eases_s,
        before=before,
        noise=noise / excursion,
        fading=fading,
    )
    pace = 0.5 * excursion / max(float(time[-1]) - found.t_s, 1.0 / GRID_HZ)
    return Turn(found.t_s - min(hidden / pace, EARLIER_S), float(np.hypot(found.half_width_s, min(UNSEEN_PCT / pace, EARLIER_S))))


def _earliest_s(time: Floats, done: Floats, lowest: int) -> float:
    """A movement that keeps its pace began at most this early: twice the way back from its quarter that lies between quarter and half, and an ease."""
    quarter = time[min(lowest + _first_above(done[lowest:], 0.25), len(time) - 1)]
    return float(quarter - PACE * (time[-1] - quarter) - STEADY_EASE_S)


def _eases_s(time: Floats, done: Floats, lowest: int, lasts_s: float = 0.0) -> list[float]:
    """How long the speed may have grown: shares of the movement's time, which follows from its pace between quarter and half."""
    quarter = _level_s(time, done, lowest, 0.25)
    pace = 0.25 / max(_level_s(time, done, lowest, 0.5) - quarter, 1.0 / GRID_HZ)
    return [ease * lasts_s if lasts_s else ease / (1.0 - ease) / pace for ease in EASES]


def _level_s(time: Floats, done: Floats, lowest: int, level: float) -> float:
    i = lowest + _first_above(done[lowest:], level - 1e-9)
    if i == lowest or done[i] <= done[i - 1]:
        return float(time[i])
    return float(time[i - 1] + np.clip((level - done[i - 1]) / (done[i] - done[i - 1]), 0.0, 1.0) * (time[i] - time[i - 1]))


def arriving(
    t_s: Floats, values: Floats, *, middle_i: int, to_i: int, noise: float = 0.0, fading: bool = False, lasts_s: float = 0.0, rests: bool = False
) -> Turn:  # fmt: skip
    """When the rise that passes its half at ``middle_i`` came to rest, looked for until ``to_i``: the same hinge in a mirror. fading: as in ``leaving``;
    rests: a rest is known to follow, whose level wanders, and to which a coder goes on for a while after the movement is over."""
    last = len(t_s) - 1
    back_s, back = -t_s[::-1], -values[::-1]
    found = leaving(
        back_s, back, from_i=last - to_i, middle_i=last - middle_i, noise=noise, least_reach=REACH_ARRIVING, fading=fading, held=rests or not fading,
        lasts_s=lasts_s, ease_most_s=EASE_TO_REST_S if rests else np.inf,
    )  # fmt: skip
    return Turn(-found.t_s, found.half_width_s)


def _foot(time: Floats, height: Floats, *, rest_s: float, kept_within: float, noise: float) -> int:
    """Lowest place before the rise, walking back from its middle: not further than ``FOOT_S`` past the lowest so far, nor past a level kept for
    ``rest_s``, nor back up the movement before. kept_within: a level that changes by no more is kept."""
    lowest = kept = len(time) - 1
    ripple = max(FOOT_RIPPLE * float(height[-1] - height.min()), RIPPLE_NOISE * noise)
    for i in range(len(time) - 1, -1, -1):
        if height[i] < height[lowest]:
            lowest = i
        if height[i] < height[kept] - max(FOOT_LEVEL * (height[-1] - height[i]), kept_within):
            kept = i
        climbed = height[i] - height[lowest] > max(FOOT_CLIMB * (height[-1] - height[lowest]), ripple)
        if time[lowest] - time[i] > FOOT_S or time[kept] - time[i] > rest_s or (climbed and i < lowest):
            break
    return lowest


def _first_above(done: Floats, level: float) -> int:
    above = np.flatnonzero(done >= level)
    return int(above[0]) if len(above) else len(done) - 1


def _last_below(done: Floats, level: float) -> int:
    below = np.flatnonzero(done <= level)
    return int(below[-1]) if len(below) else 0


def _rest_from(done: Floats, rough: int, level: float) -> int:
    """Where the rest before the turn begins: after the last sample of the movement before it."""
    moving = np.flatnonzero(done[:rough] > level)
    return int(moving[-1]) + 1 if len(moving) else 0


def _before(time: Floats, height: Floats, lowest: int) -> Before | None:
    """The movement before, looked at backwards from the rest; None where what came down is none."""
    way = height[lowest::-1] - height[lowest]
    if lowest < 5 or way[-1] <= max(BEFORE_LEAST * (height[-1] - height[lowest]), 1e-9):
        return None
    left = way / (2.0 * way[-1])  # the window begins at its middle
    reach = max(_first_above(left, REACH_BEFORE), 4)
    rough = lowest - _last_below(left[: reach + 1], ROUGH_LEVEL)
    return Before(max(lowest - reach, 0), float(time[rough]), _eases_s(-time[lowest::-1], left, 0))


def _hinge(time: Floats, height: Floats, *, rough_s: float, earliest_s: float, eases_s: list[float], before: Before | None, noise: float, fading: bool) -> Turn:
    tried = np.arange(max(time[0], rough_s - EARLIER_S, earliest_s), min(time[-1] - 1.5 / GRID_HZ, rough_s + LATER_S) + 1e-9, STEP_S)
    if len(time) < 5 or not len(tried):
        return Turn(rough_s, 0.2)
    after = Course(moved(eases_s, time[None, :] - tried[:, None]), height)
    if before is None:
        found = fit(after, Course(moved([EASE_BEFORE_S], tried[:, None] - time[None, :])[0], height), noise=noise)
    else:
        found = fit_both(after, tried, time, before, height=height, noise=noise)
    best = found.best
    inside = tried[found.misfit.min(axis=0) <= found.misfit[best] + NORMAL_90 * found.unit]
    half = max(0.5 * float(inside[-1] - inside[0]), LEAST_HALF_WIDTH_S)
    if fading:
        return Turn(0.5 * float(inside[0] + inside[-1]), half)
    return Turn(float(tried[best[1]]) + STEP_S * _between(found.misfit[best[0]], best[1]), half)


def _between(misfit: Floats, best: int) -> float:
    """How far from the best place tried the least misfit lies, steps: the bottom of the parabola through it and its neighbours."""
    if not 0 < best < len(misfit) - 1:
        return 0.0
    before, here, after = misfit[best - 1 : best + 2]
    bend = before - 2.0 * here + after
    return float(np.clip(0.5 * (before - after) / bend, -0.5, 0.5)) if bend > 0 else 0.0
