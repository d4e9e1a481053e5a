"""The fit behind a turn: one movement that leaves a rest, beside one that came to it, by least squares over where and how gently they do.

Model: a movement's speed grows evenly over an ease and then stays; one that comes to rest is the same, looked at backwards. An ease is a share of its
movement's own time, near the usual one unless the trace says otherwise. The model is smoothed as the trace was, so that smoothing moves no turn.
Source: own.
"""

from dataclasses import dataclass

import numpy as np
from numpy.lib.stride_tricks import as_strided
from numpy.typing import NDArray

from brevin.core.filters import SMOOTH_S, gaussian
from brevin.core.track import Floats

EASES = (0.03, 0.07, 0.11, 0.15, 0.19, 0.23, 0.28, 0.36, 0.45)  # shares of a movement's time over which its speed grows
EASE_USUAL, EASE_SPREAD = 0.20, 0.08  # what a smooth movement has; own, after Flash and Hogan 1985: the share is the same at every speed
USUAL = int(np.argmin(np.abs(np.array(EASES) - EASE_USUAL)))  # which of them is the usual one
STEP_S = 0.02
ROUNDS = 2  # of fitting the one beside the other
BEFORE_EARLIER_S, BEFORE_LATER_S = 0.5, 1.2  # around about where it rests: looked for there
CORRELATED = 6.0  # samples that share what is wrong with a trace, its smoothing and its wander, count as one; own, shows in ./brevin bench accuracy
LEAST_RIDGE = 1e-6  # keeps the fit solvable where a part of the model is not in the window

_FINE_S = 0.005
_SINCE_S = np.arange(-4.0, 12.0, _FINE_S)
_GROWN = gaussian(0.5 * np.maximum(_SINCE_S, 0.0) ** 2, SMOOTH_S / _FINE_S)  # way of a speed that grows from 0 s on, smoothed as traces are


@dataclass(frozen=True)
class Before:
    """The movement that comes to rest before the turn: the first sample to look at, about when it rests, how long its speed may fall."""

    first: int
    rough_s: float
    eases_s: list[float]


class Course:
    """How far a movement has gone, for every ease and turn, with the sums that fitting it to a trace needs, each about its mean. gone: [eases, turns, n]."""

    def __init__(self, gone: Floats, height: Floats) -> None:
        samples = gone.shape[-1]
        each = np.full(samples, 1.0 / samples)
        self.gone, self.height = gone, height - height.mean()
        sums = _along(gone, np.column_stack([each, self.height]))
        self.mean, self.with_height = sums[..., 0], sums[..., 1]
        self.square = samples * (_along(gone**2, each) - self.mean**2) + LEAST_RIDGE


@dataclass(frozen=True)
class Fit:
    """How well a movement fits with every ease and turn: misfit [eases, turns] with what an unusual ease costs; unit: what of it counts as one."""

    misfit: Floats
    unit: float

    @property
    def best(self) -> tuple[int, int]:
        """Ease and turn that fit best."""
        ease, turn = np.unravel_index(int(np.argmin(self.misfit)), self.misfit.shape)
        return int(ease), int(turn)


def fit_both(after: Course, tried: Floats, time: Floats, before: Before, *, height: Floats, noise: float) -> Fit:
    """The movement after the turn beside the one before it, each fitted with the other as it stands."""
    rests = np.arange(max(time[0], before.rough_s - BEFORE_EARLIER_S), min(time[-1], before.rough_s + BEFORE_LATER_S), STEP_S)
    gone = moved(before.eases_s, rests[:, None] - time[None, :])
    resting = Course(gone, height)
    found = fit(after, Course(gone[USUAL, np.argmin(np.abs(rests - before.rough_s))], height), noise=noise)
    rest = None
    for _ in range(ROUNDS):
        turn, before_it = found.best, rest
        rest = fit(resting, Course(after.gone[turn], height), noise=noise, usable=rests <= tried[turn[1]] + 1e-9).best
        if rest == before_it:
            break
        found = fit(after, Course(gone[rest], height), noise=noise, usable=tried >= rests[rest[1]] - 1e-9)
    return found


def moved(eases_s: list[float], since_s: Floats) -> Floats:
    """How far a movement of each ease has gone, smoothed as the trace was, per speed: [eases, *since_s.shape]. Its speed grows evenly, then stays.

    since_s: [turns, n], along both axes whole steps of ``STEP_S`` apart, as turns tried and samples are, so that each value is worked out once.
    """
    first_s = float(since_s.min())
    each_s = first_s + STEP_S * np.arange(round((float(since_s.max()) - first_s) / STEP_S) + 1)
    grown = np.interp(each_s, _SINCE_S, _GROWN)
    ways = np.stack([(grown - np.interp(each_s - ease, _SINCE_S, _GROWN)) / ease for ease in eases_s])
    start, turn, sample = (round(float(by) / STEP_S) for by in (since_s[0, 0] - first_s, since_s[-1, 0] - since_s[0, 0], since_s[0, -1] - since_s[0, 0]))
    turns, samples = since_s.shape
    along = (ways.strides[0], ways.strides[1] * (turn // max(turns - 1, 1)), ways.strides[1] * (sample // max(samples - 1, 1)))
    return np.ascontiguousarray(as_strided(ways[:, start:], (len(eases_s), turns, samples), along))


def fit(movement: Course, beside: Course, *, noise: float, usable: NDArray[np.bool_] | None = None) -> Fit:
    """Level, the movement looked for and the one beside it by least squares. Going back counts as no fit, nor does a turn that is not usable."""
    height, with_beside = movement.height, _products(movement, beside)
    all_of_it = float(height @ height)
    apart = np.maximum(beside.square * movement.square - with_beside**2, LEAST_RIDGE**2)
    speed = (beside.square * movement.with_height - with_beside * beside.with_height) / apart
    other = (movement.square * beside.with_height - with_beside * movement.with_height) / apart
    left = np.maximum(all_of_it - speed * movement.with_height - other * beside.with_height, 0.0)
    going = speed > 0
    if usable is not None and usable.any():
        going &= usable
    misfit: Floats = np.where(going, left, all_of_it + 1.0)
    unit = CORRELATED * (max(float(misfit.min()) / max(len(height) - 4, 1), noise**2) + 1e-6)
    return Fit(misfit + unit * ((np.array(EASES) - EASE_USUAL) / EASE_SPREAD)[:, None] ** 2, unit)


def _products(movement: Course, beside: Course) -> Floats:
    """Sums of products along the last axis, about both means: [eases, turns]."""
    gone, other = movement.gone, beside.gone
    products: Floats = _along(gone, other) if other.ndim == 1 else np.einsum("etn,tn->et", gone, other)
    return products - gone.shape[-1] * movement.mean * beside.mean


def _along(gone: Floats, columns: Floats) -> Floats:
    """Sums of products along the last axis with one column [n] or several [n, k]: one product of matrices, far faster than numpy's own over three axes."""
    products: Floats = (gone.reshape(-1, gone.shape[-1]) @ columns).reshape((*gone.shape[:-1], *columns.shape[1:]))
    return products
