"""The next lesson: who needs a look, and who is filmed when."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from brevin.core.plan.check import Check
from brevin.core.plan.rota import Due, Rota, rota
from brevin.store import changes, classes, lessons, students
from brevin.store.database import db, now
from brevin.store.scope import Scope

DAY_S = 86_400.0


def due(scope: Scope, asked: Mapping[int, Check]) -> list[Due]:
    """How long ago those were seen who may be filmed for what is asked of them, by name."""
    at = now()
    return [
        Due(one.student.id, None if one.seen_at is None else (at - one.seen_at).total_seconds() / DAY_S, one.state)
        for one in classes.members(scope)
        if one.student.id in asked and one.student.may_be_asked(asked[one.student.id])
    ]


@dataclass(frozen=True)
class LessonWish:
    """What a lesson is to be. each_min: minutes a student takes; before_min, after_min: what the class does together; group_id: whose lesson, None =
    everybody's."""

    title: str
    starts_at: datetime
    side: str
    minutes: int
    each_min: float
    before_min: float
    after_min: float
    group_id: int | None = None


def plan_lesson(scope: Scope, asked: Mapping[int, Check], wish: LessonWish) -> Rota:
    """A new lesson with its chairs in the order of need. asked: of each student. Returns who sits where and who
    has to wait for the next. Raises ValueError, NotThere."""
    found = rota(due(scope, asked), minutes=wish.minutes, each_min=wish.each_min, before_min=wish.before_min, after_min=wish.after_min)
    instruments = {one.id: one.instrument for one in students.students(scope)}
    with db.connection_context(), db.atomic():
        group = classes.everybody(scope) if wish.group_id is None else wish.group_id
        lesson = lessons.add_lesson(scope, title=wish.title, group_id=group, starts_at=wish.starts_at, minutes=wish.minutes)
        for place, (student_id, minute) in enumerate(found.placed, start=1):
            check = replace(asked[student_id], instrument=instruments[student_id])
            lessons.add_seat(scope, lesson, student_id=student_id, place=place, minute=minute, check=check, side=wish.side)
        changes.note(scope, scope.programme, "lesson", str(lesson))
    return found
