"""The moment a region leaves rest or fullness, or comes to it: a hinge fitted to the trace around the turn.

Model: a straight line before the turn, after it ``k (t - turn) ** p`` with p of 1, 1.5 or 2, since breath starts gently.
The turn is where the squared misfit is least; its interval holds all turns whose misfit is not clearly worse. Source: own.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.filters import GRID_HZ
from brevin.core.track import Floats

POWERS = (1.0, 1.5, 2.0)
BEFORE_S = 0.7  # of rest looked at before the turn
BEFORE_LEVEL = 0.15  # of the excursion to the middle: above it the samples belong to the movement before
REACH = 0.40  # the hinge is fitted until this share of the excursion is done
STEP_S = 0.02
CORRELATED = 4.0  # samples that share the kernel of the smoothing count as one
NORMAL_90 = 2.71  # likelihood ratio of a 90 % interval, one parameter
LEAST_HALF_WIDTH_S = 0.04  # one video frame at 25 Hz


@dataclass(frozen=True)
class Turn:
    """A moment with the half width of its 90 % interval, seconds."""

    t_s: float
    half_width_s: float


def leaving(t_s: Floats, values: Floats, *, from_i: int, middle_i: int) -> Turn:
    """When the rise that passes ``middle_i`` began, looked for from ``from_i`` on. values: rising, normalised to the excursion."""
    window = slice(from_i, middle_i + 1)
    time, height = t_s[window], values[window]
    if len(time) < 5:
        return Turn(float(time[0]), 0.2)
    base, top = float(height.min()), float(height[-1])
    done = (height - base) / max(top - base, 1e-9)
    lowest = int(np.argmin(done))
    end = lowest + _first_above(done[lowest:], REACH * 2.0)  # the middle is at half of the whole excursion
    rough = lowest + _last_below(done[lowest : end + 1], 0.08)
    first = max(_rest_from(done, rough), int(np.searchsorted(time, time[rough] - BEFORE_S)))
    return _hinge(time[first : end + 1], height[first : end + 1], rough_s=float(time[rough]))


def _rest_from(done: Floats, rough: int) -> int:
    """Where the rest before the turn begins: after the last sample of the movement before it."""
    moving = np.flatnonzero(done[:rough] > BEFORE_LEVEL)
    return int(moving[-1]) + 1 if len(moving) else 0


def arriving(t_s: Floats, values: Floats, *, middle_i: int, to_i: int) -> Turn:
    """When the rise that passes ``middle_i`` came to rest, looked for until ``to_i``: the same hinge in a mirror."""
    turned_t, turned_v = -t_s[::-1], -values[::-1]
    last = len(t_s) - 1
    found = leaving(turned_t, turned_v, from_i=last - to_i, middle_i=last - middle_i)
    return Turn(-found.t_s, found.half_width_s)


def _first_above(done: Floats, level: float) -> int:
    above = np.flatnonzero(done >= level)
    return max(int(above[0]) if len(above) else len(done) - 1, 4)


def _last_below(done: Floats, level: float) -> int:
    below = np.flatnonzero(done <= level)
    return int(below[-1]) if len(below) else 0


def _hinge(time: Floats, height: Floats, *, rough_s: float) -> Turn:
    tried = np.arange(max(time[0], rough_s - 0.5), min(time[-1] - 2.5 / GRID_HZ, rough_s + 0.15) + 1e-9, STEP_S)
    if len(time) < 5 or not len(tried):
        return Turn(rough_s, 0.2)
    misfit = np.array([[_misfit(time, height, turn, power) for turn in tried] for power in POWERS])
    best = np.unravel_index(int(np.argmin(misfit)), misfit.shape)
    least = float(misfit[best])
    per_sample = least / max(len(time) - 4, 1) + 1e-7
    profile = misfit.min(axis=0)
    inside = tried[profile <= least + NORMAL_90 * per_sample * CORRELATED]
    half = max(0.5 * float(inside[-1] - inside[0]), LEAST_HALF_WIDTH_S)
    return Turn(float(tried[best[1]]), half)


def _misfit(time: Floats, height: Floats, turn: float, power: float) -> float:
    after = np.maximum(time - turn, 0.0) ** power
    design = np.column_stack([np.ones_like(time), np.minimum(time - turn, 0.0), after])
    solved, *_ = np.linalg.lstsq(design, height, rcond=None)
    if solved[2] <= 0:
        return float(((height - height.mean()) ** 2).sum())
    return float(((height - design @ solved) ** 2).sum())
