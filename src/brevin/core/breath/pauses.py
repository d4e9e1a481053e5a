"""Fullness and the exhale's start: a pause between them, one turn, or two readings that contradict each other."""

import numpy as np

from brevin.core.breath.turns import Turn

MEET = 1.65  # times both half widths: end and leave nearer than that are one turn, as in a breath without a pause
CROSSED = 0.25  # what fullness counts where it was read after the exhale's start: the last of several turns errs late; own, shows in ./brevin bench accuracy
MET_NARROWER = 0.9  # times the wider of the two: the half width where they meet
APART = 0.71  # of the time between them, at least: a pause that cannot be told may be as long, and each end of it is unsure by its share of that (root half)
HOLD_WIDER = 1.2  # times: a start after a held breath, whose level wanders meanwhile; own, shows in ./brevin bench accuracy


def met(end: Turn, leave: Turn, unseen_s: float = 0.0, *, alone: bool = False) -> tuple[Turn, Turn]:
    """Fullness and the exhale's start; one turn where no pause can be told between them: the mean weighted by how sure each is. Where they were read crossed by
    more than they are unsure, one of them is wrong, and the turn is the surer one. unseen_s: how much longer a region that is not seen, or hardly, may go on
    filling: a pause that it could fill is none, fullness lies at the exhale's start, and that start is as sure as it was. alone: fullness is told by one
    region, and so much less sure where the two meet."""
    gap_s, joint_s = leave.t_s - end.t_s, float(np.hypot(end.half_width_s, leave.half_width_s))
    if gap_s >= MEET * joint_s + unseen_s:
        return Turn(end.t_s, end.half_width_s + unseen_s), Turn(leave.t_s, HOLD_WIDER * leave.half_width_s)
    if gap_s >= MEET * joint_s:
        return Turn(leave.t_s, max(end.half_width_s + unseen_s, gap_s)), leave
    if alone:
        return met(Turn(end.t_s, end.half_width_s + unseen_s), leave)
    surer, other = sorted((end, leave), key=lambda turn: turn.half_width_s)
    if gap_s < -joint_s:
        turn = Turn(surer.t_s, max(surer.half_width_s, min(0.5 * abs(gap_s), other.half_width_s)))
        return turn, turn
    sure = (CROSSED if gap_s < 0.0 else 1.0) / end.half_width_s**2, 1.0 / leave.half_width_s**2
    t_s = (sure[0] * end.t_s + sure[1] * leave.t_s) / sum(sure)
    turn = Turn(t_s, max(MET_NARROWER * other.half_width_s, APART * abs(gap_s)))
    return Turn(turn.t_s, turn.half_width_s + unseen_s), turn


def uncrossed(first: Turn, second: Turn) -> tuple[Turn, Turn]:
    """Two turns in their order; where they were read crossed, both stand between the two readings and may lie at either."""
    gap_s = first.t_s - second.t_s
    if gap_s <= 0:
        return first, second
    between = Turn(0.5 * (first.t_s + second.t_s), max(first.half_width_s, second.half_width_s, 0.5 * gap_s))
    return between, between
