"""Turns moved by hand: put in place of what was read, or refused where the order of a breath would break."""

from collections.abc import Sequence
from dataclasses import replace

from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.turns import Turn
from brevin.core.edited import MovedTurn
from brevin.core.errors import InvalidInput
from brevin.core.kinds import TURN_KINDS

SAME_TURN_S = 0.5  # a moved turn belongs to the nearest one read, within this
BY_HAND_S = 0.08  # half width of a turn that a person put there: two pictures; own


def with_moved(breaths: Sequence[BreathTurns], moved: Sequence[MovedTurn]) -> list[BreathTurns]:
    """The breaths with every moved turn in its new place. Raises InvalidInput(bad_edit) where none is near, or the turns would cross."""
    found = list(breaths)
    for one in moved:
        index = _nearest(found, one)
        found[index] = replace(found[index], **{one.turn: Turn(one.t_s, BY_HAND_S)})  # pyrefly: ignore[bad-argument-type]
        _check_order(found, index, one)
    return found


def _nearest(breaths: Sequence[BreathTurns], moved: MovedTurn) -> int:
    away = {i: abs(turn.t_s - moved.was_s) for i, b in enumerate(breaths) if (turn := getattr(b, moved.turn)) is not None}
    index = min(away, key=lambda i: away[i], default=None)
    if index is None or away[index] > SAME_TURN_S:
        raise InvalidInput("bad_edit", name=moved.turn, wanted=f"a turn that was read near {moved.was_s:.2f} s")
    return index


def _check_order(breaths: Sequence[BreathTurns], index: int, moved: MovedTurn) -> None:
    """The moved turn still lies between the turns before and after it."""
    order = [(i, kind, turn.t_s) for i, breath in enumerate(breaths) for kind in TURN_KINDS if (turn := getattr(breath, kind)) is not None]
    at = next(k for k, (i, kind, _) in enumerate(order) if (i, kind) == (index, moved.turn))
    before_s = order[at - 1][2] if at else float("-inf")
    after_s = order[at + 1][2] if at + 1 < len(order) else float("inf")
    if not before_s <= moved.t_s <= after_s:
        raise InvalidInput("bad_edit", name=moved.turn, wanted=f"a moment between {before_s:.2f} and {after_s:.2f} s")
