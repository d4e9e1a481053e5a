"""What of a breath may go on where it is not seen: a chest behind a sleeve, a breath that is in the shoulders, and an exhale that goes on slowly.

Source: own, over the clips of docs/hold.md.
"""

import numpy as np

from brevin.core.breath.cycles import LEAST_SWING_PCT, LIFTED_PCT, Swing
from brevin.core.breath.turns import Turn
from brevin.core.filters import GRID_HZ, spread
from brevin.core.kinematics.sleeves import AS_FAR
from brevin.core.kinematics.traces import Traces
from brevin.core.track import Floats

LEAST_AFTER = 3  # samples after an end that tell anything
UNSEEN_FILLING = 0.25  # of the inhale: how much later than the seen region an unseen one may be full, or earlier one may have begun
ROUGH_CHEST = 0.3  # model error of a chest that is followed at a few places of the flank
CARRIES_PCT, CARRIES_TIMES = 1.5, 2.0  # percent of trunk, and times the belly's travel: shoulders that rise so far tell when a hidden chest fills
STILL_SHARE, STILL_NOISE, DONE_SHARE = 0.06, 1.5, 0.02  # of the fall, and times the noise, that is left at an end; and with how much left it is over; own
LET_GO = 0.36  # of an exhale: one of which half is out before was let go at once; own
UNTOLD_NOISE = 2.0  # times the noise: what is left of an exhale and is less is not told from a rest
GOES_ALONG = 0.5  # correlation with what is seen of the trunk: what goes against it is another thing, or told elsewhere (cycles.py)


def goes_on(traces: Traces, regions: dict[str, Floats], swing: Swing) -> float:
    """Share of what is seen of the inhale by which it may go on unseen: with one region alone as long as another may; a chest that is followed, but behind
    a sleeve or at a few places of the flank, the more, the less it goes beside the belly, and not where it goes half as far. regions: percent of trunk."""
    if len(regions) == 1:
        return UNSEEN_FILLING / (1.0 - UNSEEN_FILLING)
    if traces.model["chest"] < ROUGH_CHEST and not traces.covered:
        return 0.0
    abdomen, chest = (abs(float(regions[name][swing.peak] - regions[name][swing.trough])) for name in ("abdomen", "chest"))
    return UNSEEN_FILLING * max(1.0 - chest / max(AS_FAR * abdomen, 1e-9), 0.0)


def may_last(end: Turn, t_s: Floats, values: Floats, noise: float, *, top_i: int, to_i: int) -> Turn:
    """An exhale's end, unsure as far as it still goes on: one that is let go at once has most of the air out early, and its last part goes slowly, long after
    the fall that was found. values: + = inhale; top_i, to_i: where it is fullest, and the middle of the next inhale."""
    at = int(np.searchsorted(t_s, end.t_s))
    after = values[at : to_i + 1]
    if len(after) < LEAST_AFTER:
        return end
    lowest = float(after.min())
    fall, left = float(values[top_i]) - lowest, float(after[0]) - lowest
    if left <= max(STILL_SHARE * fall, STILL_NOISE * noise):
        return end
    over_s = float(t_s[at + int(np.flatnonzero(after > lowest + DONE_SHARE * fall)[-1])])
    return Turn(end.t_s, max(end.half_width_s, over_s - end.t_s))


def let_go(leave: Turn, end: Turn, half_s: float) -> bool:
    """Whether an exhale was let go at once, half of it out by half_s: what is left goes slowly."""
    return half_s - leave.t_s < LET_GO * (end.t_s - leave.t_s)


def untold_s(leave: Turn, end: Turn, t_s: Floats, values: Floats, noise: float) -> float:
    """How long the last of an exhale takes that is too little to be told from a rest, at the pace of its second half. values: + = inhale."""
    middle_s = 0.5 * (leave.t_s + end.t_s)
    half, last = np.interp([middle_s, end.t_s], t_s, values)
    pace = float(half - last) / max(end.t_s - middle_s, 1.0 / GRID_HZ)
    return min(UNTOLD_NOISE * noise / pace, end.t_s - leave.t_s) if pace > 0.0 else 0.0


def until_the_next(end: Turn, slow_s: float, starts: Turn | None) -> Turn:
    """The end of an exhale whose last may go on for slow_s unseen. It is unsure by as much; where the next inhale starts before, it lies between both."""
    rest_s = np.inf if starts is None else max(starts.t_s - end.t_s, 0.0)
    if rest_s > slow_s:
        return Turn(end.t_s, float(np.hypot(end.half_width_s, slow_s)))
    return Turn(end.t_s + 0.5 * rest_s, max(end.half_width_s, 0.5 * rest_s))


def lifted(traces: Traces) -> bool:
    """Whether the breath is in the shoulders, far more than in a belly that hardly moves, and no chest is seen well enough to tell when."""
    if not traces.seen["shoulder"] or (traces.timed["chest"] and traces.model["chest"] < ROUGH_CHEST):
        return False
    belly_pct = spread(traces.abdomen)
    least_pct = LIFTED_PCT if belly_pct < LEAST_SWING_PCT else CARRIES_PCT  # where the belly shows no breath, shoulders that say which way is in show it
    return spread(traces.shoulder) >= max(least_pct, CARRIES_TIMES * belly_pct) and _go_along(traces)


def begins_in_shoulders(traces: Traces) -> bool:
    """Whether shoulders that rise tell, as a belly does, when an inhale begins: where no chest does, one that fills before the belly raises them."""
    return traces.seen["shoulder"] and not traces.timed["chest"] and spread(traces.shoulder) >= LIFTED_PCT and _go_along(traces)


def _go_along(traces: Traces) -> bool:
    """Whether the shoulders move with what is seen of the trunk."""
    trunk = traces.abdomen + traces.chest
    return bool(np.ptp(trunk) > 0.0 and np.corrcoef(traces.shoulder, trunk)[0, 1] > GOES_ALONG)
