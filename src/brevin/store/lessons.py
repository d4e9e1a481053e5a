"""Lessons: the line of chairs."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import cast

from brevin.core.plan.check import Check, from_document
from brevin.core.plan.limits import MOST_IN_A_ROW, Run, efforts_of, rest_s
from brevin.store import changes, checks, readings, resting, students, takes
from brevin.store.database import db, now
from brevin.store.models import AskedCheck, Lesson, Seat, Student, StudentGroup
from brevin.store.records import Away, CheckRecord, Facing, InFront, LessonRecord, NotThere, SeatRecord, TakeRecord, TodayRecord
from brevin.store.scope import Scope

MOST_COMING = 100
MOST_SESSIONS = 12  # whose chair in front is remembered
EARLY = timedelta(minutes=30)  # before it begins a lesson is today's


def add_lesson(scope: Scope, *, title: str, group_id: int, starts_at: datetime, minutes: int) -> int:
    """A new lesson of a group; returns its key. Raises NotThere."""
    with db.connection_context():
        if not StudentGroup.select().where((StudentGroup.id == group_id) & scope.sees(StudentGroup.programme)).exists():
            raise NotThere(str(group_id))
        return int(Lesson.create(programme=scope.programme, title=title, group=group_id, starts_at=starts_at, minutes=minutes).id)


def add_seat(scope: Scope, lesson_id: int, *, student_id: int, place: int, minute: float, check: Check, side: str) -> None:
    """One more chair of a lesson. Raises NotThere."""
    asked = checks.same(scope, check)
    students.student(scope, student_id)
    with db.connection_context():
        if not Lesson.select().where((Lesson.id == lesson_id) & scope.sees(Lesson.programme)).exists():
            raise NotThere(str(lesson_id))
        Seat.create(lesson=lesson_id, student=student_id, place=place, minute=minute, asked=asked.id, side=side)


def today(scope: Scope, *, since: datetime) -> TodayRecord:
    """The lesson of now with its chairs, what was made since a moment, and the newest earlier reading of those who wait; the same number of
    queries whatever their number."""
    with db.connection_context():
        row = _lesson_now(scope)
        chairs = _chairs(row) if row else []
        pupils = [chair.student.id for chair in chairs]
        found = takes.of_today(scope, lesson_id=row.id if row else 0, waiting=pupils, since=since)
        holding = students.to_film(scope, pupils)
        group = StudentGroup.get_or_none(StudentGroup.id == row.group_id) if row else None
        usual_s = readings.usual_s(scope)
        lately = resting.together(scope, pupils, filmed=found, chairs=chairs)
    found = [take for take in found if not take.refused]
    newest_first = [take for take in found if row is not None and take.lesson_id == row.id]
    worst_first = sorted(newest_first, key=lambda take: (take.state != "failed", take.made_at))  # a try that failed hides no good one before it
    of_lesson = {take.student.id: take for take in worst_first}
    waiting = set(pupils) - set(of_lesson)
    return TodayRecord(
        lesson=_record(row, group.name if group else "", chairs, holding, of_lesson, lately) if row else None,
        just_made=tuple(take for take in found if take.made_at >= since),
        last_time={take.student.id: take for take in reversed(found) if take.student.id in waiting and take.state == "read"},
        usual_read_s=usual_s,
    )  # fmt: skip


def last_lesson(scope: Scope) -> LessonRecord | None:
    """The lesson that starts last."""
    return today(scope, since=now()).lesson


def _lesson_now(scope: Scope) -> Lesson | None:
    """The lesson that began last, or begins in a moment; before the first, the one that comes next."""
    own = Lesson.select().where(scope.sees(Lesson.programme))
    begun = own.where(Lesson.starts_at <= now() + EARLY).order_by(Lesson.starts_at.desc(), Lesson.id.desc()).first()
    found: Lesson | None = begun or own.order_by(Lesson.starts_at, Lesson.id).first()
    return found


def _chairs(row: Lesson) -> list[Seat]:
    joined = Seat.select(Seat, Student, AskedCheck).join(Student).switch(Seat).join(AskedCheck)
    return list(joined.where(Seat.lesson == row.id).order_by(Seat.place))


def away_now(scope: Scope) -> frozenset[int]:
    """Who is marked as away in the lesson of now."""
    with db.connection_context():
        row = _lesson_now(scope)
        return frozenset(seat.student_id for seat in Seat.select().where((Seat.lesson == row.id) & (Seat.away != ""))) if row else frozenset()


def reorder(scope: Scope, lesson_id: int, seat_ids: Sequence[int]) -> None:
    """The chairs of a lesson in another order; the minutes stay where they are, and who sits there changes. Raises NotThere, ValueError where the keys are
    not the lesson's chairs, each once."""
    with db.connection_context(), db.atomic():
        lesson = Lesson.get_or_none((Lesson.id == lesson_id) & scope.sees(Lesson.programme))
        if lesson is None:
            raise NotThere(str(lesson_id))
        rows = list(Seat.select().where(Seat.lesson == lesson_id).order_by(Seat.place).for_update())
        if sorted(seat_ids) != sorted(row.id for row in rows):
            raise ValueError("not the chairs of this lesson")
        minutes = [row.minute for row in rows]
        Seat.update(place=0 - Seat.place).where(Seat.lesson == lesson_id).execute()  # out of the way of those that come
        for place, (seat_id, minute) in enumerate(zip(seat_ids, minutes, strict=True), start=1):
            Seat.update(place=place, minute=minute).where(Seat.id == seat_id).execute()
        changes.note(scope, lesson.programme_id, "lesson", str(lesson_id))


def put_in_front(scope: Scope, lesson_id: int, seat_id: int, *, of: str) -> InFront:
    """This chair is in front now on the screens of a session. Raises NotThere."""
    with db.connection_context(), db.atomic():
        if not Seat.select().join(Lesson).where((Seat.id == seat_id) & (Seat.lesson == lesson_id) & scope.sees(Lesson.programme)).exists():
            raise NotThere(str(seat_id))
        row = Lesson.select().where(Lesson.id == lesson_id).for_update().get()
        known = dict(row.seats_now or {})
        seat_before, number = known.pop(of, (0, 0))
        if seat_before == seat_id:
            return InFront(seat_id, number)
        latest = dict(list(known.items())[-MOST_SESSIONS:]) | {of: (seat_id, number + 1)}
        Lesson.update(seats_now=latest).where(Lesson.id == lesson_id).execute()
        changes.note(scope, row.programme_id, "lesson", str(lesson_id))
    return InFront(seat_id, number + 1)


def coming(scope: Scope, *, since: datetime) -> list[LessonRecord]:
    """Lessons that begin after a moment, the next first, with who sits when."""
    with db.connection_context():
        rows = list(Lesson.select().where(scope.sees(Lesson.programme) & (Lesson.starts_at >= since)).order_by(Lesson.starts_at).limit(MOST_COMING))
        return [_record(row, "", _chairs(row), students.NO_CONSENT, {}, {}) for row in rows]


def _rest_s(chair: Seat, lately: list[Run]) -> float:
    check = from_document(chair.asked.document)
    if check.card is None:
        return 0.0
    if not check.counts_breaths:  # breaths are counted in the mirror alone there, and how many is not known before
        return rest_s(lately, breaths=MOST_IN_A_ROW, at=now())
    return rest_s(lately, breaths=check.card.cycles, efforts=efforts_of(check.card), at=now())


def _record(
    row: Lesson,
    group_name: str,
    chairs: list[Seat],
    holding: students.Holding,
    of_lesson: dict[int, TakeRecord],
    lately: dict[int, list[Run]],
) -> LessonRecord:
    return LessonRecord(
        id=row.id, title=row.title, group_name=group_name, starts_at=row.starts_at, minutes=row.minutes,
        seats_now={of: InFront(*one) for of, one in (row.seats_now or {}).items()},
        seats=tuple(
            SeatRecord(
                id=chair.id, place=chair.place, minute=chair.minute, asked=CheckRecord(chair.asked.id, from_document(chair.asked.document)),
                side=cast(Facing, chair.side), away=cast(Away, chair.away),
                student=students.student_record(chair.student, holding), take=of_lesson.get(chair.student.id),
                rest_s=_rest_s(chair, lately.get(chair.student.id, [])),
            )
            for chair in chairs
        ),
    )  # fmt: skip
