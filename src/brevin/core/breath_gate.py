"""What keeps a breath from being judged that the pictures would let be: it was not followed, or it does not stand out of what shows it. And advice on it."""

from collections.abc import Callable, Sequence

from brevin.core import gate
from brevin.core.breath.breaths import BreathTurns, inhales_of
from brevin.core.breath.unrest import unrest
from brevin.core.evidence import Followed
from brevin.core.report import Reason

FAINT_NOTED, FAINT_MOST = 0.04, 0.07  # of an inhale's size, that is unrest: said from here, refused from here; docs/gate.md


def unreadable_breath(who: Followed, turns: Sequence[BreathTurns], stops: Sequence[Reason], sunk: Callable[[], bool]) -> list[Reason]:
    """Why a breath that was looked for from the side cannot be judged. stops: what the pictures say; sunk: whether the trunk is another at the end."""
    moved = who.traces
    if not moved.seen["abdomen"] or (not any(one.whole for one in turns) and sunk()):
        return [gate.reason("trunk_sank" if sunk() else "outline_lost" if moved.lost >= gate.MOST_LOST else "trunk_covered")]
    if stops:
        return []
    if moved.sway_pct > gate.SWAY_MOST_PCT:
        return [gate.reason("player_moving")]
    if not turns:
        return [gate.reason("no_breathing")]
    return [gate.reason("breath_faint")] if (unrest(moved, inhales_of(turns)) or 0.0) > FAINT_MOST else []


def breath_advice(who: Followed, turns: Sequence[BreathTurns], sunk: Callable[[], bool]) -> list[Reason]:
    """What makes the numbers of a breath less sure."""
    seen, moved = who.traces.seen, who.traces
    unsure = seen["abdomen"] and (not seen["chest"] or max(moved.model["chest"], moved.covered) > gate.CHEST_UNSURE)
    covered = [gate.reason("trunk_sank" if sunk() else "chest_covered")] if unsure else []
    return covered + ([gate.reason("breath_faint")] if FAINT_NOTED < (unrest(moved, inhales_of(turns)) or 0.0) <= FAINT_MOST else [])
