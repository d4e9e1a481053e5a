"""Lessons: the line of chairs."""

from datetime import datetime

from brevin.store import people, takes
from brevin.store.database import db
from brevin.store.models import Lesson, Seat, Student, Take
from brevin.store.records import LessonRecord, NotThere, SeatRecord, TakeRecord

AWAY = ("", "not_here", "not_today")


def add_lesson(*, title: str, group_name: str, starts_at: datetime, minutes: int) -> int:
    """A new lesson; returns its key."""
    with db.connection_context():
        return int(Lesson.create(title=title, group_name=group_name, starts_at=starts_at, minutes=minutes).id)


def add_seat(lesson_id: int, *, student_id: int, place: int, minute: float, card: str, position: str, side: str) -> None:
    """One more chair of a lesson."""
    with db.connection_context():
        Seat.create(lesson=lesson_id, student=student_id, place=place, minute=minute, card=card, position=position, side=side)


def last_lesson() -> LessonRecord | None:
    """The lesson that starts last."""
    with db.connection_context():
        row = Lesson.select().order_by(Lesson.starts_at.desc(), Lesson.id.desc()).first()
        return None if row is None else _record(row)


def set_away(seat_id: int, away: str) -> None:
    """Mark a chair as not here or not today, or take the mark back. No reason is asked. Raises NotThere, ValueError."""
    if away not in AWAY:
        raise ValueError(away)
    with db.connection_context():
        if Seat.get_or_none(Seat.id == seat_id) is None:
            raise NotThere(str(seat_id))
        Seat.update(away=away).where(Seat.id == seat_id).execute()


def _record(row: Lesson) -> LessonRecord:
    seats = list(Seat.select().where(Seat.lesson == row.id).order_by(Seat.place))
    students = {s.id: s for s in Student.select().where(Student.id.in_([seat.student_id for seat in seats] or [0]))}
    until = people.consents(list(students))
    newest = _newest(row.id)
    return LessonRecord(
        id=row.id, title=row.title, group_name=row.group_name, starts_at=row.starts_at, minutes=row.minutes,
        seats=tuple(
            SeatRecord(
                id=seat.id, place=seat.place, minute=seat.minute, card=seat.card, position=seat.position, side=seat.side, away=seat.away,
                student=people.student_record(students[seat.student_id], until), take=newest.get(seat.student_id),
            )
            for seat in seats
        ),
    )  # fmt: skip


def _newest(lesson_id: int) -> dict[int, TakeRecord]:
    rows = takes.records(list(Take.select().where(Take.lesson == lesson_id).order_by(Take.made_at)))
    return {take.student.id: take for take in rows}
