"""Care: what is due, and an instrument's own passport, to which its cards adapt."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import Amount, CareTask, InstrumentCard

OFTEN_DAYS = 7  # up to so many between two times a task is taken as due before it was ever logged


@dataclass(frozen=True)
class Passport:
    """What is known of one student's instrument. answers: to the card's own questions; shown: tasks and parts that the teacher has shown; own: the student's
    or the school's; number: the school's mark on it."""

    answers: Mapping[str, bool]
    shown: frozenset[str] = frozenset()
    size: str = ""
    number: str = ""
    own: bool = False


UNKNOWN = Passport({})


def fitted(card: InstrumentCard, passport: Passport) -> InstrumentCard:
    """The card as it holds for one instrument: steps, care and parts that it does not have fall away, what was shown is the student's. Idempotent."""
    answers = {entry.key: passport.answers.get(entry.key, entry.default) for entry in card.passport}
    steps = tuple(step for step in card.steps if not step.when or answers.get(step.when, False))
    return replace(
        card, steps=steps, use=tuple(key for key in card.use if key in {step.key for step in steps}),
        care=tuple(task for task in card.care if not task.when or answers.get(task.when, False)),
        parts=tuple(replace(part, rule="yours") if part.rule == "shown" and part.name in passport.shown else part for part in card.parts),
    )  # fmt: skip


def days_left(task: CareTask, last: date | None, today: date, *, every_days: int | None = None) -> int | None:
    """Days until it is due again, negative when over; of what is done each time 0 until it is done today, then 1; None where it was never logged, which is
    due as well. every_days: the programme's own interval."""
    if last is None:
        return None
    interval = task.every_days if every_days is None else every_days
    return max(interval, 1) - (today - last).days


def due(left: int | None, *, every_days: int) -> bool:
    """Whether something is to be done today. Of what was never logged only the frequent is: of the rest nobody knows."""
    return every_days <= OFTEN_DAYS if left is None else left <= 0


def asked_back(amount: Amount, value: float) -> bool:
    """Whether a student's own value lies outside the range in which nobody asks back. Raises InvalidInput(bad_value) for what cannot be one."""
    if not -1000.0 < value < 1000.0:
        raise InvalidInput("bad_value")
    return not amount.low <= value <= amount.high
