"""What keeps a breath from being judged that the pictures would let be: it was not followed, or it does not stand out of what shows it. And advice on it.

A belly that is not seen stops it all, but for shoulders that rise: these are seen as from the front, and times and shoulders are told.
"""

from collections.abc import Callable, Sequence

import numpy as np

from brevin.core import gate
from brevin.core.breath.breaths import BreathTurns, inhales_of
from brevin.core.breath.unrest import unrest
from brevin.core.evidence import Followed
from brevin.core.report import Reason

TOLD_PCT = 1.2  # of trunk: shoulders that rise so far in an inhale tell breaths of which no belly is seen
LEAST_WHOLE = 2  # breaths of a trunk that sank: one alone may be what the sinking moved; own
RESTLESS, LAID_TO_IT = "restless_behind", frozenset(("outline_lost", "breath_faint", "no_breathing"))  # what a room that moves does to an edge before it
FAINT_NOTED, FAINT_MOST = 0.04, 0.07  # of an inhale's size, that is unrest: said from here, refused from here; docs/gate.md


def unreadable_breath(who: Followed, turns: Sequence[BreathTurns], stops: Sequence[Reason], sunk: Callable[[], bool]) -> list[Reason]:
    """Why a breath that was looked for from the side cannot be judged. stops: what the pictures say; sunk: whether the trunk is another at the end."""
    moved = who.traces
    unseen = not moved.seen["abdomen"]
    few = sum(one.whole for one in turns) < LEAST_WHOLE
    if (unseen and (not by_shoulders(who, turns) or _lost_in_it(who, sunk))) or (few and sunk()):
        return [_belly_unseen(who, sunk)]
    if stops:
        return []
    if moved.sway_pct > gate.SWAY_MOST_PCT:
        return [gate.reason("player_moving")]
    if turns and (unrest(moved, inhales_of(turns)) or 0.0) <= FAINT_MOST:
        return []
    return [gate.reason("trunk_covered" if moved.behind else "breath_faint" if turns else "no_breathing")]


def with_notes(stops: Sequence[Reason], advice: Sequence[Reason], notes: Sequence[Reason]) -> tuple[list[Reason], list[Reason]]:
    """What stops a breath and what is only advice, with what the edge noticed: where much moves behind the player, an edge that is lost or a breath that is
    faint is laid to that, and not to the child."""
    restless = [note for note in notes if note.code == RESTLESS]
    if not restless:
        return [*stops], [*notes, *advice]
    kept, said = ([one for one in some if one.code not in LAID_TO_IT] for some in (stops, advice))
    stopped = restless if len(kept) < len(stops) else []
    return kept + stopped, [*(note for note in notes if note not in stopped), *said]


def by_shoulders(who: Followed, turns: Sequence[BreathTurns]) -> bool:
    """Whether of a breath the times and the shoulders alone are told: from the front, and where no belly is seen and the shoulders rise in the inhales, the
    middle one of them, as they do not when an instrument is brought up."""
    moved, inhales = who.traces, inhales_of(turns)
    if who.view == "front" or moved.seen["abdomen"] or not moved.seen["shoulder"] or not inhales:
        return who.view == "front"
    rises = np.diff(np.interp(np.array(inhales), moved.t_s, moved.shoulder), axis=1)
    return bool(np.median(rises) >= TOLD_PCT)


def _belly_unseen(who: Followed, sunk: Callable[[], bool]) -> Reason:
    if who.traces.behind:
        return gate.reason("trunk_covered")
    return gate.reason("trunk_sank" if sunk() else "outline_lost" if who.traces.lost >= gate.MOST_LOST else "trunk_covered")


def _lost_in_it(who: Followed, sunk: Callable[[], bool]) -> bool:
    """Whether what was followed was lost as the trunk sank: where the sinking was undone it was not."""
    return not len(who.sunk) and sunk()


def breath_advice(who: Followed, turns: Sequence[BreathTurns], sunk: Callable[[], bool]) -> list[Reason]:
    """What makes the numbers of a breath less sure."""
    seen, moved = who.traces.seen, who.traces
    unsure = seen["abdomen"] and (not seen["chest"] or max(moved.model["chest"], moved.covered) > gate.CHEST_UNSURE)
    covered = [gate.reason("trunk_sank" if _lost_in_it(who, sunk) else "chest_covered")] if unsure else []
    covered += [_belly_unseen(who, lambda: _lost_in_it(who, sunk))] if not seen["abdomen"] and by_shoulders(who, turns) else []
    covered += [gate.reason("trunk_covered")] if seen["abdomen"] and moved.behind else []
    return covered + ([gate.reason("breath_faint")] if FAINT_NOTED < (unrest(moved, inhales_of(turns)) or 0.0) <= FAINT_MOST else [])
