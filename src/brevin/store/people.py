"""Teachers, students and consent."""

from collections.abc import Iterable, Sequence
from datetime import date

from argon2 import PasswordHasher
from argon2.exceptions import VerifyMismatchError

from brevin.store.database import db, now
from brevin.store.models import Consent, Student, Teacher
from brevin.store.records import NotThere, StudentRecord, TeacherRecord

FILMING = "filming"
_hasher = PasswordHasher()
_nobody = _hasher.hash("nobody")  # checked where the name is unknown, so that both answers take as long


def add_teacher(*, login: str, name: str, role: str, password: str) -> TeacherRecord:
    """A new person who may sign in. role: teacher or assistant. Raises peewee.IntegrityError where the login is taken."""
    with db.connection_context():
        row = Teacher.create(login=login, name=name, role=role, password_hash=_hasher.hash(password))
        return _teacher(row)


def set_password(login: str, password: str) -> None:
    """Replace a password. Raises NotThere."""
    with db.connection_context():
        if not Teacher.update(password_hash=_hasher.hash(password)).where(Teacher.login == login).execute():
            raise NotThere(login)


def sign_in(login: str, password: str) -> TeacherRecord | None:
    """The teacher whose name and password fit, else None."""
    with db.connection_context():
        row = Teacher.get_or_none((Teacher.login == login) & (Teacher.active == True))  # noqa: E712 (an SQL expression)
    try:
        _hasher.verify(row.password_hash if row else _nobody, password)
    except VerifyMismatchError:
        return None
    return _teacher(row) if row else None


def teacher(teacher_id: int) -> TeacherRecord | None:
    """An active teacher by key."""
    with db.connection_context():
        row = Teacher.get_or_none((Teacher.id == teacher_id) & (Teacher.active == True))  # noqa: E712
        return _teacher(row) if row else None


def teachers() -> list[TeacherRecord]:
    """Everyone who may sign in."""
    with db.connection_context():
        return [_teacher(row) for row in Teacher.select().where(Teacher.active == True).order_by(Teacher.name)]  # noqa: E712


def _teacher(row: Teacher) -> TeacherRecord:
    return TeacherRecord(id=row.id, login=row.login, name=row.name, role=row.role)


def add_student(*, name: str, instrument: str, note: str = "") -> StudentRecord:
    """A new student, without consent."""
    with db.connection_context():
        row = Student.create(name=name, instrument=instrument, note=note)
        return student_record(row, {})


def give_consent(student_id: int, *, given_by: str, from_day: date, until_day: date) -> None:
    """Put a guardian's consent to filming on record."""
    with db.connection_context():
        Consent.create(student=student_id, purpose=FILMING, given_by=given_by, from_day=from_day, until_day=until_day)


def withdraw_consent(student_id: int, *, on: date) -> None:
    """End every consent of a student to filming."""
    with db.connection_context():
        Consent.update(withdrawn_on=on).where((Consent.student == student_id) & (Consent.purpose == FILMING)).execute()


def student(student_id: int) -> StudentRecord:
    """One student. Raises NotThere."""
    with db.connection_context():
        row = Student.get_or_none(Student.id == student_id)
        if row is None:
            raise NotThere(str(student_id))
        return student_record(row, consents([row.id]))


def students() -> list[StudentRecord]:
    """All who are still here, by name."""
    with db.connection_context():
        rows = list(Student.select().where(Student.left_on.is_null()).order_by(Student.name))
        until = consents([row.id for row in rows])
        return [student_record(row, until) for row in rows]


def consents(student_ids: Sequence[int]) -> dict[int, date]:
    """Last day of consent to filming that holds today, by student. Needs an open connection."""
    today = now().date()
    rows = Consent.select().where(
        (Consent.student.in_(list(student_ids) or [0]))
        & (Consent.purpose == FILMING)
        & (Consent.from_day <= today)
        & (Consent.until_day >= today)
        & (Consent.withdrawn_on.is_null() | (Consent.withdrawn_on > today))
    )
    return _latest((row.student_id, row.until_day) for row in rows)


def _latest(pairs: Iterable[tuple[int, date]]) -> dict[int, date]:
    found: dict[int, date] = {}
    for key, day in pairs:
        found[key] = max(day, found.get(key, day))
    return found


def student_record(row: Student, until: dict[int, date]) -> StudentRecord:
    """A row as a record. until: of ``consents``."""
    return StudentRecord(id=row.id, name=row.name, instrument=row.instrument, note=row.note, may_film_until=until.get(row.id))
