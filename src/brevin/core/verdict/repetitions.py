"""Correct repetitions of a card over weeks, and after how many of them a skill usually holds in this class: under that, more of the same."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from statistics import median

NEXT, HELD = 5, 4  # it holds where so many of so many tries after it are correct too
LEAST_STUDENTS = 3  # from whom "usually" is said


@dataclass(frozen=True)
class Done:
    """One student's read try of the card. correct: no fault was left to speak of."""

    student_id: int
    made_at: datetime
    correct: bool


@dataclass(frozen=True)
class Repetitions:
    """correct, tries: of one student up to a moment; holds_after: the median number of correct ones after which it held, None where it held with too few."""

    correct: int
    tries: int
    holds_after: int | None


def repetitions(done: Iterable[Done], *, student_id: int, until: datetime) -> Repetitions:
    """Counted over every student's tries of one card. Source: own."""
    of_student: dict[int, list[Done]] = {}
    for one in sorted(done, key=lambda one: one.made_at):
        of_student.setdefault(one.student_id, []).append(one)
    own = [one for one in of_student.get(student_id, ()) if one.made_at <= until]
    held = [after for tries in of_student.values() if (after := _held_after([one.correct for one in tries])) is not None]
    return Repetitions(sum(one.correct for one in own), len(own), round(median(held)) if len(held) >= LEAST_STUDENTS else None)


def _held_after(correct: Sequence[bool]) -> int | None:
    """How many correct tries it took until most of the next ones were correct too; None where that was not seen yet."""
    for i, good in enumerate(correct[:-NEXT]):
        if good and sum(correct[i + 1 : i + 1 + NEXT]) >= HELD:
            return sum(correct[: i + 1])
    return None
