"""What a clip's coding leaves of slow movement: a coder that has to save repeats a place until it has gone far enough, so that movement comes late.

The age of the picture: while a strip of the outline moves, how long ago its place was last told anew.
"""

import numpy as np

from brevin.core import filters
from brevin.core.track import Floats, Strips

SAME_PCT = 0.004  # of trunk: a strip that has gone less since its place was last told was repeated
WINDOW_S = 0.6  # in which a strip's speed is taken
FAST = 0.5  # of its fastest: there it moves
LEAST_TRAVEL = 0.5  # of the farthest strip's: those that move with the breath


def stale_s(front: Strips, free: np.ndarray, t_s: Floats) -> float:
    """Mean age of the picture while the trunk's outline moves, seconds, median over its strips; 0 where too few are free. free: [k] of its strips; t_s: [n]."""
    if free.sum() < 2 or len(t_s) < 3:
        return 0.0
    travel = front.travel_pct[:, free]
    spread = np.array([filters.spread(one) for one in travel.T])
    travel = travel[:, spread >= LEAST_TRAVEL * spread.max()]
    told_s = _told_s(travel, t_s)
    before, after = (np.clip(np.searchsorted(t_s, t_s + half), 0, len(t_s) - 1) for half in (-0.5 * WINDOW_S, 0.5 * WINDOW_S))
    speed = np.abs(travel[after] - travel[before])
    moves = speed > FAST * np.quantile(speed, 0.95, axis=0)
    ages = [float((t_s[own] - told[own]).mean()) for told, own in zip(told_s.T, moves.T, strict=True) if own.any()]
    return float(np.median(ages)) if ages else 0.0


def _told_s(travel: Floats, t_s: Floats) -> Floats:
    """When the place of each strip was last told anew, at each moment: [n, k]. travel: [n, k]. What adds up is told, however small its steps."""
    place, told = travel[0], np.full(travel.shape[1], t_s[0])
    found = np.empty_like(travel)
    for i, moment_s in enumerate(t_s):
        anew = np.abs(travel[i] - place) >= SAME_PCT
        place, told = np.where(anew, travel[i], place), np.where(anew, moment_s, told)
        found[i] = told
    return found
