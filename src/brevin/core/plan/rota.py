"""Who is filmed in what order in the minutes there are: those never seen first, then the longest ago, among these who had something to work on."""

from collections.abc import Sequence
from dataclasses import dataclass

from brevin.core.kinds import State

NEVER_DAYS = 10_000.0  # who was never seen is put before everybody


@dataclass(frozen=True)
class Due:
    """A student who may be filmed. seen_days: since the last reading, None = never; state: of the last reading."""

    student_id: int
    seen_days: float | None
    state: State | None = None


@dataclass(frozen=True)
class Rota:
    """placed: student and minute; left: those for whom there is no time, in the order in which they come next time."""

    placed: list[tuple[int, float]]
    left: list[int]


WORSE: dict[State | None, int] = {"work": 0, "unreadable": 1, "watch": 2, "steady": 3, None: 4}


def by_need(due: Sequence[Due]) -> list[Due]:
    """Those never seen, then the longest ago by whole days, then the worst last state; else as they were given."""
    return sorted(due, key=lambda one: (-(NEVER_DAYS if one.seen_days is None else float(int(one.seen_days))), WORSE[one.state]))


def rota(due: Sequence[Due], *, minutes: float, each_min: float, before_min: float, after_min: float) -> Rota:
    """As many as fit between what the class does together before and after, one after another. Raises ValueError on lengths that are none."""
    if min(minutes, each_min) <= 0 or min(before_min, after_min) < 0:
        raise ValueError("lengths of a lesson are above nought")
    fit = max(int((minutes - before_min - after_min) / each_min + 1e-9), 0)
    ordered = [one.student_id for one in by_need(due)]
    return Rota([(student_id, before_min + place * each_min) for place, student_id in enumerate(ordered[:fit])], ordered[fit:])
