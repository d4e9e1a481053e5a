"""When an exhale begins and ends: all that falls in it as one, unless two of three see it begin together and the third at another time."""

import numpy as np

from brevin.core.breath.around import Around, carrying, crossing, joint_of
from brevin.core.breath.hidden import let_go, may_last
from brevin.core.breath.pauses import MEET
from brevin.core.breath.starts import HIDDEN_PCT
from brevin.core.breath.turns import EASE_LETTING_GO_S, REACH_LETTING_GO, Turn, arriving, leaving
from brevin.core.track import Floats

VOTES = 3  # of which two can agree against one


def exhale(carriers: dict[str, Floats], around: Around) -> tuple[Turn, Turn]:
    """When all that falls begins to fall, and when it has come to rest. carriers: traces by name, [n] each."""
    leave = _leave(*joint_of(without_odd_one(carriers, around), around), around)
    return leave, exhale_end(leave, carriers, around)


def exhale_end(leave: Turn, carriers: dict[str, Floats], around: Around, *, rests: bool = False) -> Turn:
    """When all that falls has come to rest. leave: the exhale's start; rests: a rest is known to follow."""
    joint, noise = joint_of(carriers, around)
    _, fall, _, _ = around.own(joint)
    end = arriving(around.t_s, -joint, middle_i=fall, to_i=around.to_i, noise=noise, fading=True, rests=rests)
    if let_go(leave, end, float(around.t_s[fall])):  # the pace between its quarter and half says nothing of how long it takes
        end = arriving(around.t_s, -joint, middle_i=fall, to_i=around.to_i, noise=noise, fading=True, rests=rests, lasts_s=end.t_s - leave.t_s)
    return may_last(end, around.t_s, joint, noise, top_i=around.swing.peak, to_i=around.to_i)


def without_odd_one(carriers: dict[str, Floats], around: Around) -> dict[str, Floats]:
    """The carriers without one that sees the exhale begin at another time than the two others, which agree, by far more than they are unsure: in a held breath
    an arm sinks with what is followed as the chest, or a shirt slides."""
    signs = carrying(carriers, around)
    if len(signs) < VOTES:
        return carriers
    leaves = {name: _leave(sign * carriers[name], around.noise[name], around) for name, sign in signs.items()}
    for odd, seen in leaves.items():
        one, other = (leaves[name] for name in leaves if name != odd)
        if _apart(one, other) <= 1.0 and min(_apart(seen, one), _apart(seen, other)) > MEET:
            return {name: values for name, values in carriers.items() if name != odd}
    return carriers


def _apart(one: Turn, other: Turn) -> float:
    """How far two turns lie from each other, times both half widths."""
    return abs(one.t_s - other.t_s) / float(np.hypot(one.half_width_s, other.half_width_s))


def _leave(values: Floats, noise: float, around: Around) -> Turn:
    """When what is full begins to fall."""
    _, fall, _, top = around.own(values)
    from_i = min(crossing(values, around.swing.trough, top), fall - 1)
    return leaving(
        around.t_s, -values, from_i=from_i, middle_i=fall, noise=noise, hidden=HIDDEN_PCT, least_reach=REACH_LETTING_GO, ease_most_s=EASE_LETTING_GO_S
    )
