"""How much counted breathing in a row: after so many deep breaths a rest of ordinary breathing, whoever asks for them. Source: own starting values."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from brevin.core.errors import InvalidInput
from brevin.core.plan.card import CountCard

MOST_IN_A_ROW = 6  # counted breaths
REST_S = 30.0  # of ordinary breathing after them; as much in between begins the row anew


def check_limits(card: CountCard, *, empty_allowed: bool) -> None:
    """Raises InvalidInput: too_many_in_a_row, empty_off (staying empty is switched off unless the programme switched it on)."""
    if card.cycles > MOST_IN_A_ROW:
        raise InvalidInput("too_many_in_a_row", most=MOST_IN_A_ROW)
    if card.empty_beats and not empty_allowed:
        raise InvalidInput("empty_off")


@dataclass(frozen=True)
class Run:
    """Counted breaths without a rest in between. ended_at: when the last of them was out."""

    ended_at: datetime
    breaths: int
    lasted_s: float


def joined(before: Run | None, run: Run) -> Run:
    """Two runs as one where there was no rest between them, else the later one."""
    if before is None or run.ended_at - timedelta(seconds=run.lasted_s) - before.ended_at >= timedelta(seconds=REST_S):
        return run
    return Run(run.ended_at, before.breaths + run.breaths, (run.ended_at - before.ended_at).total_seconds() + before.lasted_s)


def rest_s(runs: Sequence[Run], wanted: int, *, at: datetime) -> float:
    """Seconds that a student still rests before ``wanted`` more breaths. runs: what the student did lately, in any order."""
    in_a_row, later_begin = 0, at
    for run in sorted(runs, key=lambda one: one.ended_at, reverse=True):
        if later_begin - run.ended_at >= timedelta(seconds=REST_S):
            break
        in_a_row += run.breaths
        later_begin = run.ended_at - timedelta(seconds=run.lasted_s)
    if not in_a_row or in_a_row + wanted <= MOST_IN_A_ROW:
        return 0.0
    last = max(run.ended_at for run in runs)
    return max(REST_S - (at - last).total_seconds(), 0.0)
