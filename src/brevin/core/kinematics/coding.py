"""What a clip's coding leaves of slow movement: a coder that has to save repeats a place until it has gone far enough, so that movement comes late.

The age of the picture: while a strip of the outline moves, how long ago its place was last told anew. And what a repeated place did meanwhile, as far as it
can be told from where it was found again: between two tellings it went on, and before the first it set in.
"""

from dataclasses import replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from brevin.core import filters
from brevin.core.kinematics.outline import free_outline
from brevin.core.track import Floats, Sighting, Strips

SAME_PCT = 0.004  # of trunk: a strip that has gone less since its place was last told was repeated
WINDOW_S = 0.6  # in which a strip's speed is taken
FAST = 0.5  # of its fastest: there it moves
LEAST_TRAVEL = 0.5  # of the farthest strip's: those that move with the breath
FRESH_S = 0.04  # age of the picture, seconds, up to which nothing comes late
REPEATED_S = 0.09  # from here on a place that stays is a repeated one
COMES_S = 0.2  # in which a place that is told anew arrives: pictures between two that were coded by themselves are mixed of both
LEAST_STEP_PCT = 0.02  # of trunk: a shorter one says nothing of how far a place goes untold
FEW_STEPS = 4  # fewer say nothing
FARTHEST = 0.9  # of these steps are shorter than what a place goes untold
LEAST_SHARE = 0.5  # of that way: what went less was told at once
PACE_S = 0.5  # after it has arrived: the pace it had
GOES_ON = 0.3  # of a step: what goes less in that time is no movement that came late
SET_IN = 2.0  # who sets out evenly faster has half the pace he arrives with
SET_IN_MOST_S = 1.0  # before it arrived: a coder keeps nothing back for longer

Run = tuple[int, int]  # the picture that told a place, and the last that repeated it


class Told(NamedTuple):
    """How a clip told where its strips stand: travel_pct: [n, k], as it shows; at: [n, k], the picture that told each place."""

    travel_pct: Floats
    at: NDArray[np.int64]


def told(front: Strips) -> Told:
    """Which picture told each strip's place as it stands. What adds up is told, however small its steps."""
    travel = front.travel_pct
    at = np.zeros(travel.shape, np.int64)
    place, last = travel[:1], np.zeros((1, travel.shape[1]), np.int64)
    for i in range(len(travel)):
        anew = np.abs(travel[i : i + 1] - place) >= SAME_PCT
        place, last = np.where(anew, travel[i : i + 1], place), np.where(anew, i, last)
        at[i] = last
    return Told(travel, at)


def stale_s(shown: Told, free: NDArray[np.bool_], t_s: Floats) -> float:
    """Mean age of the picture while the outline moves, seconds, median over its strips; 0 where too few are free. free: [k] of the strips; t_s: [n]."""
    if free.sum() < 2 or len(t_s) < 3:
        return 0.0
    travel, told_s = shown.travel_pct[:, free], t_s[shown.at[:, free]]
    spread = np.array([filters.spread(one) for one in travel.T])
    far = spread >= LEAST_TRAVEL * spread.max()
    travel, told_s = travel[:, far], told_s[:, far]
    before, after = (np.clip(np.searchsorted(t_s, t_s + half), 0, len(t_s) - 1) for half in (-0.5 * WINDOW_S, 0.5 * WINDOW_S))
    speed = np.abs(travel[after] - travel[before])
    moves = speed > FAST * np.quantile(speed, 0.95, axis=0)
    ages = [float((t_s[own] - one[own]).mean()) for one, own in zip(told_s.T, moves.T, strict=True) if own.any()]
    return float(np.median(ages)) if ages else 0.0


def caught_up(sighting: Sighting) -> tuple[Sighting, float]:
    """The same sighting, its front as it went while its places were repeated, and how old the picture was (``stale_s``; 0 from the front). A clip in which no
    place lags behind a movement is left as it is."""
    assert (front := sighting.front) is not None
    shown, t_s = told(front), sighting.t_s
    old_s = 0.0 if sighting.view == "front" else stale_s(shown, free_outline(front, sighting.arms_pct), t_s)
    if old_s < FRESH_S:
        return sighting, old_s
    runs = [_repeated(one, t_s) for one in shown.at.T]
    steps = [_steps(values, own, t_s) for values, own in zip(front.travel_pct.T, runs, strict=True)]
    went = [
        _went(values, own, float(np.quantile(step, FARTHEST)), t_s) if len(step) >= FEW_STEPS else values
        for values, own, step in zip(front.travel_pct.T, runs, steps, strict=True)
    ]
    return replace(sighting, front=replace(front, travel_pct=np.array(went).T.reshape(front.travel_pct.shape))), old_s


def _repeated(told_at: NDArray[np.int64], t_s: Floats) -> list[Run]:
    first = np.flatnonzero(told_at == np.arange(len(told_at)))
    last = np.append(first[1:], len(told_at)) - 1
    return [(int(a), int(b)) for a, b in zip(first, last, strict=True) if t_s[b] - t_s[a] >= REPEATED_S]


def _steps(values: Floats, runs: list[Run], t_s: Floats) -> Floats:
    """How far a strip goes from one repeated place to the next in the midst of a movement: the same way as before, and at once."""
    if len(runs) < 3:
        return np.zeros(0)
    first, last = np.array(runs).T
    step = np.diff(values[first])
    counts = (t_s[first[1:]] - t_s[last[:-1]] <= COMES_S) & (np.abs(step) > LEAST_STEP_PCT)
    return np.asarray(np.abs(step[1:])[counts[1:] & counts[:-1] & (step[1:] * step[:-1] > 0)])


def _went(values: Floats, runs: list[Run], untold: float, t_s: Floats) -> Floats:
    """One strip as it went. From the last run back, so that a pace is that of what is put right already. values: [n], percent of trunk; untold: how far it
    goes before it is told, the same unit; t_s: [n]."""
    found = values.copy()
    until = [first for first, _ in runs[1:]] + [len(values) - 1]  # the next run, or the end
    for (first, last), then in reversed(list(zip(runs, until, strict=False))):
        arrived = min(then, int(np.searchsorted(t_s, t_s[last] + COMES_S)), len(values) - 1)
        if arrived <= last:
            continue
        way = np.sign(values[arrived] - values[first])
        far = way * (values[last + 1 : arrived + 1] - values[first])
        if way == 0 or far.max() < LEAST_SHARE * untold:
            continue
        there = last + 1 + int(np.argmax(far >= min(untold, far.max())))
        step = way * min(way * (values[there] - values[first]), untold)
        if (set_in := _set_in(found, (first, last), there, step, t_s)) is not None:
            found[first:there] = values[first] + set_in
    return found


def _set_in(found: Floats, run: Run, there: int, step: float, t_s: Floats) -> Floats | None:
    """What a repeated place did until it had gone a step at picture ``there``, percent; None where it did not go on, or began no earlier than it shows."""
    first, last = run
    later = min(int(np.searchsorted(t_s, t_s[there] + PACE_S)), len(found) - 1)
    pace = (found[later] - found[there]) / max(t_s[later] - t_s[there], 1e-3)
    if pace * PACE_S * np.sign(step) < GOES_ON * abs(step):
        return None
    begins_s = max(t_s[first], t_s[there] - SET_IN * step / pace, t_s[there] - SET_IN_MOST_S)
    if begins_s >= t_s[last]:
        return None
    share = np.clip((t_s[first:there] - begins_s) / (t_s[there] - begins_s), 0.0, 1.0)
    return np.asarray(step * (share if begins_s == t_s[first] else share**SET_IN))  # in the midst of a movement it went on all the time
