"""Finding breaths in the traces: rises and falls first, each of their four turns refined after.

No resting-breath assumptions: an inhale may last 0.2 s, an exhale 20 s, a pause any time. Source: own.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.breath.way_in import ByCount, nothing_counted
from brevin.core.track import Floats

LEAST_SWING_PCT = 0.45  # of trunk: smaller movement is no breath anyone can see
SWING_SHARE = 0.35  # of the clip's usual swing: smaller ripples are no breaths
NOISE_TIMES = 8.0  # a swing stands this far out of the trace's own noise
SHORTEST_INHALE_S = 0.15
LIFTED_PCT, ALIKE = 1.0, 0.8  # of trunk, that shoulders travel, and how like the belly's course theirs is, from which they say which way is in


@dataclass(frozen=True)
class Swing:
    """One rise and the fall after it on the breath signal, as positions on the grid.

    trough, peak: before and at the top of the rise; next_trough: end of the fall; cut: the clip begins or ends inside it.
    """

    trough: int
    peak: int
    next_trough: int
    cut_at_start: bool
    cut_at_end: bool


def breath_signal(
    abdomen: Floats, chest: Floats, shoulder: Floats, *, seen: dict[str, bool], by_count: ByCount = nothing_counted, sleeve: bool = False
) -> tuple[Floats, tuple[float, float]]:
    """The direction in which abdomen and chest move most together, + = inhale; returns the signal [m] and its two weights.

    Where they go against each other (a belly that goes in while the ribs rise, or an arm that is followed as the chest), the inhale is where the shoulders
    rise, or, where these do not say, as the count says, or, where that says nothing either, the one that moves more, or, where both nearly cancel, the chest;
    the belly where what is followed as the chest may be a sleeve.
    A belly alone goes in with the inhale where the shoulders say so, or a little of them and the count together.
    """
    if not seen["abdomen"]:
        return chest, (0.0, 1.0)
    lifted = _with_shoulders(abdomen, shoulder, LIFTED_PCT) if seen["shoulder"] else 0.0
    if not seen["chest"]:
        against = seen["shoulder"] and _with_shoulders(abdomen, shoulder, LEAST_SWING_PCT) == by_count(abdomen) == -1.0
        way = lifted or (-1.0 if against else 1.0)
        return way * abdomen, (way, 0.0)
    both = np.column_stack([_high_pass(abdomen), _high_pass(chest)])
    values, vectors = np.linalg.eigh(both.T @ both)
    direction = vectors[:, int(np.argmax(values))]
    together = direction.sum()
    sign = np.sign(together) if abs(together) > 0.35 else np.sign(direction[0] if sleeve else direction[1])
    if direction[0] * direction[1] < 0.0:
        sign = lifted * np.sign(direction[0]) or by_count(both @ direction) or sign
    direction = direction * (sign or 1.0)
    return both @ direction, (float(direction[0]), float(direction[1]))


def _with_shoulders(abdomen: Floats, shoulder: Floats, least_pct: float) -> float:
    """1 where the belly goes out as the shoulders rise, -1 where it goes in, 0 where they rise less than that, or neither is clear."""
    one, other = _high_pass(abdomen), _high_pass(shoulder)
    size = float(np.linalg.norm(one) * np.linalg.norm(other))
    if size == 0.0 or filters.spread(other) <= least_pct or abs(float(one @ other)) < ALIKE * size:
        return 0.0
    return float(np.sign(one @ other))


def _high_pass(values: Floats) -> Floats:
    """Takes away a straight drift over the whole clip: a slow slide of the shirt or of the seat."""
    x = np.linspace(-1.0, 1.0, len(values))
    slope = np.polynomial.polynomial.polyfit(x, values, 1)
    return values - np.polynomial.polynomial.polyval(x, slope)


def swings(signal: Floats, *, noise: float) -> list[Swing]:
    """Rises and falls of at least the least swing, in order. noise: the signal's own, same unit."""
    least = max(LEAST_SWING_PCT, SWING_SHARE * filters.spread(signal), NOISE_TIMES * noise)
    if filters.spread(signal) < least:
        return []
    turns = _turns(signal, least)
    return _paired(signal, turns)


def _turns(signal: Floats, least: float) -> list[tuple[int, int]]:
    """Alternating extremes as (position, +1 top or -1 bottom): a turn counts once the signal has come back by ``least``."""
    turns: list[tuple[int, int]] = []
    low = high = 0
    going = 0
    for i, value in enumerate(signal):
        low = i if value < signal[low] else low
        high = i if value > signal[high] else high
        if going >= 0 and signal[high] - value > least:
            turns.append((high, 1))
            going, low = -1, i
        elif going <= 0 and value - signal[low] > least:
            turns.append((low, -1))
            going, high = 1, i
    if going > 0:
        turns.append((high, 1))
    elif going < 0:
        turns.append((low, -1))
    return turns


def _paired(signal: Floats, turns: list[tuple[int, int]]) -> list[Swing]:
    found: list[Swing] = []
    last = len(signal) - 1
    for k, (place, kind) in enumerate(turns):
        if kind != 1:
            continue
        before = turns[k - 1][0] if k else 0
        after = turns[k + 1][0] if k + 1 < len(turns) else last
        found.append(Swing(trough=before, peak=place, next_trough=after, cut_at_start=k == 0, cut_at_end=k + 1 >= len(turns)))
    return [swing for swing in found if swing.peak - swing.trough >= SHORTEST_INHALE_S * filters.GRID_HZ]
