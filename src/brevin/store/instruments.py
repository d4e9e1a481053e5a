"""Each student's own instrument: its passport, own values, care, repairs; and what a programme changed at the bench."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from peewee import fn

from brevin.core.handling.care import UNKNOWN, Passport
from brevin.store import bench_models as rows
from brevin.store import changes
from brevin.store.database import db, now
from brevin.store.models import Person, Programme, Student
from brevin.store.records import NotThere
from brevin.store.scope import Scope


@dataclass(frozen=True)
class Logged:
    """A care task that was done for a student's instrument. by: "" where they have left."""

    student_id: int
    task: str
    at: datetime
    by: str


@dataclass(frozen=True)
class RepairRecord:
    """What needs somebody who repairs instruments; done_at: when it was seen to."""

    id: int
    student_id: int
    what: str
    said_at: datetime
    done_at: datetime | None
    by: str


@dataclass(frozen=True)
class ValueRecord:
    """A student's own value of a step."""

    student_id: int
    key: str
    value: float
    at: datetime
    by: str


def passports(scope: Scope, students: Sequence[int]) -> dict[int, Passport]:
    """What is known of these students' instruments; of who has no row nothing is known."""
    with db.connection_context():
        own = scope.sees(rows.Passport.programme) & rows.Passport.student.in_(list(students) or [0])
        known = {
            row.student_id: Passport(row.answers, frozenset(row.shown), row.size, row.number, row.own) for row in rows.Passport.select().where(own)
        }  # fmt: skip
    return {student: known.get(student, UNKNOWN) for student in students}


def keep_passport(scope: Scope, student_id: int, passport: Passport) -> None:
    """Write an instrument's passport anew. Raises NotThere."""
    with db.connection_context(), db.atomic():
        programme_id = _programme(scope, student_id)
        rows.Passport.delete().where(rows.Passport.student == student_id).execute()
        rows.Passport.create(
            programme=programme_id, student=student_id, answers=dict(passport.answers), shown=sorted(passport.shown), size=passport.size,
            number=passport.number, own=passport.own, at=now(), by=scope.person_id,
        )  # fmt: skip
        changes.note(scope, programme_id, "care", str(student_id))


def values(scope: Scope, students: Sequence[int]) -> list[ValueRecord]:
    """These students' own values."""
    with db.connection_context():
        own = scope.sees(rows.OwnValue.programme) & rows.OwnValue.student.in_(list(students) or [0])
        found = rows.OwnValue.select(rows.OwnValue, Person).left_outer_join(Person).where(own)
        return [ValueRecord(row.student_id, row.key, row.value, row.at, row.by.name if row.by else "") for row in found]


def keep_value(scope: Scope, student_id: int, key: str, value: float | None) -> None:
    """Keep a student's own value of a step; None takes it back. Raises NotThere."""
    with db.connection_context(), db.atomic():
        programme_id = _programme(scope, student_id)
        rows.OwnValue.delete().where((rows.OwnValue.student == student_id) & (rows.OwnValue.key == key)).execute()
        if value is not None:
            rows.OwnValue.create(programme=programme_id, student=student_id, key=key, value=value, at=now(), by=scope.person_id)


def last_care(scope: Scope, students: Sequence[int]) -> dict[tuple[int, str], datetime]:
    """When each task was done last, by student and task."""
    with db.connection_context():
        own = scope.sees(rows.CareDone.programme) & rows.CareDone.student.in_(list(students) or [0])
        newest = rows.CareDone.select(rows.CareDone.student, rows.CareDone.task, fn.MAX(rows.CareDone.at).alias("at")).where(own)
        grouped = newest.group_by(rows.CareDone.student, rows.CareDone.task)
        return {(row["student"], row["task"]): row["at"] for row in cast(Any, grouped.dicts())}


def care_log(scope: Scope, students: Sequence[int]) -> list[Logged]:
    """Everything that was logged of these students' instruments, the oldest first."""
    with db.connection_context():
        own = scope.sees(rows.CareDone.programme) & rows.CareDone.student.in_(list(students) or [0])
        found = rows.CareDone.select(rows.CareDone, Person).left_outer_join(Person).where(own).order_by(rows.CareDone.at)
        return [Logged(row.student_id, row.task, row.at, row.by.name if row.by else "") for row in found]


def log_care(scope: Scope, students: Sequence[int], task: str, *, at: datetime | None = None) -> str:
    """Log a task for several at once, all or none; returns what takes it back. Raises NotThere."""
    batch = uuid.uuid4().hex
    with db.connection_context(), db.atomic():
        for student_id in students:
            programme_id = _programme(scope, student_id)
            rows.CareDone.create(programme=programme_id, student=student_id, task=task, batch=batch, at=at or now(), by=scope.person_id)
        if students:
            changes.note(scope, programme_id, "care", task)
    return batch


def undo_care(scope: Scope, batch: str) -> None:
    """Take back what one tap logged. Raises NotThere."""
    with db.connection_context(), db.atomic():
        own = (rows.CareDone.batch == batch) & scope.sees(rows.CareDone.programme)
        first = rows.CareDone.select().where(own).first()
        if first is None:
            raise NotThere(batch)
        rows.CareDone.delete().where(own).execute()
        changes.note(scope, first.programme_id, "care", "")


def repairs(scope: Scope, students: Sequence[int]) -> list[RepairRecord]:
    """What needs or needed a technician, the newest first."""
    with db.connection_context():
        own = scope.sees(rows.Repair.programme) & rows.Repair.student.in_(list(students) or [0])
        found = rows.Repair.select(rows.Repair, Person).left_outer_join(Person).where(own).order_by(rows.Repair.id.desc())
        return [RepairRecord(row.id, row.student_id, row.what, row.at, row.done_at, row.by.name if row.by else "") for row in found]


def report_repair(scope: Scope, student_id: int, what: str) -> None:
    """Put something on the technician's list. Raises NotThere."""
    with db.connection_context(), db.atomic():
        programme_id = _programme(scope, student_id)
        rows.Repair.create(programme=programme_id, student=student_id, what=what, at=now(), by=scope.person_id)
        changes.note(scope, programme_id, "care", "")


def repaired(scope: Scope, repair_id: int, *, done: bool) -> None:
    """It was seen to, or that is taken back. Raises NotThere."""
    with db.connection_context():
        own = (rows.Repair.id == repair_id) & scope.sees(rows.Repair.programme)
        if not rows.Repair.select().where(own).exists():
            raise NotThere(str(repair_id))
        rows.Repair.update(done_at=now() if done else None).where(own).execute()


def bench_rules(scope: Scope) -> dict[str, Any]:
    """What the programme changed at the bench: gates, ways, intervals."""
    with db.connection_context():
        row = Programme.get_by_id(scope.programme)
        return dict(row.bench or {})


def keep_bench_rules(scope: Scope, rules: Mapping[str, Any]) -> None:
    """Change what the programme does otherwise at the bench."""
    with db.connection_context(), db.atomic():
        Programme.update(bench=dict(rules)).where(Programme.id == scope.programme).execute()
        changes.note(scope, scope.programme, "care", "rules")


def _programme(scope: Scope, student_id: int) -> int:
    """The programme of a student, who is held until the transaction ends: two who write at once write one after the other. Raises NotThere."""
    row = Student.select().where((Student.id == student_id) & scope.sees(Student.programme)).for_update().first()
    if row is None:
        raise NotThere(str(student_id))
    return int(row.programme_id)
