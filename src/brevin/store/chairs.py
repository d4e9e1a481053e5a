"""One chair of a lesson: who is not there, what is asked, what was counted on it."""

from dataclasses import asdict, replace
from typing import Any, cast, get_args

from brevin.core.kinds import Instrument
from brevin.core.plan.check import Check
from brevin.core.plan.limits import Run, joined
from brevin.store import changes, checks, resting
from brevin.store.database import db, now
from brevin.store.models import Lesson, Seat, Student
from brevin.store.records import Away, NotThere
from brevin.store.scope import Scope


def set_away(scope: Scope, seat_id: int, away: Away) -> None:
    """Mark a chair as not here or not today, or take the mark back. No reason is asked. Raises NotThere, ValueError."""
    if away not in get_args(Away):
        raise ValueError(away)
    with db.connection_context(), db.atomic():
        _change(scope, _chair(scope, seat_id), {"away": away})


def note_counted(scope: Scope, seat_id: int, *, breaths: int, lasted_s: float) -> None:
    """The student on a chair has just breathed so many counted breaths without a clip: they count for the rest as a clip's do. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = _chair(scope, seat_id, held=True)
        run = joined(resting.counted_run(row.counted), Run(now(), breaths, lasted_s))
        _change(scope, row, {"counted": asdict(run) | {"ended_at": run.ended_at.isoformat()}})


def give_card(scope: Scope, seat_id: int, check: Check) -> None:
    """Ask this of the student on a chair, with the instrument that is theirs, instead of what was planned. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = _chair(scope, seat_id)
        asked = checks.same(scope, replace(check, instrument=cast(Instrument, row.student.instrument)))
        _change(scope, row, {"asked": asked.id})


def seat_check(scope: Scope, seat_id: int, *, student_id: int, asked_id: int | None = None) -> Check:
    """What a chair asks of its student, or asked when the count began: asked_id, where it has been given another card since. Raises NotThere, also where
    somebody else sits there."""
    with db.connection_context():
        row = _chair(scope, seat_id)
        found = checks.check_records(scope, [asked_id or row.asked_id])
        if row.student_id != student_id or not found:
            raise NotThere(str(seat_id))
        return next(iter(found.values())).check


def _chair(scope: Scope, seat_id: int, *, held: bool = False) -> Seat:
    """held: until the transaction ends nobody else changes it."""
    rows = Seat.select(Seat, Lesson, Student).join(Lesson).switch(Seat).join(Student).where((Seat.id == seat_id) & scope.sees(Lesson.programme))
    row: Seat | None = (rows.for_update() if held else rows).first()
    if row is None:
        raise NotThere(str(seat_id))
    return row


def _change(scope: Scope, row: Seat, fields: dict[str, Any]) -> None:
    Seat.update(**fields).where(Seat.id == row.id).execute()
    changes.note(scope, row.lesson.programme_id, "lesson", str(row.lesson_id))
