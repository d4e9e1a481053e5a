"""Students with their groups, exemptions and consent."""

from collections.abc import Mapping, Sequence
from datetime import date
from typing import cast

from brevin.core.errors import InvalidInput
from brevin.core.kinds import PURPOSES, Instrument, Purpose
from brevin.store import backups, programmes
from brevin.store.database import db, now
from brevin.store.models import Consent, GroupStudent, Programme, Student, StudentGroup
from brevin.store.records import ConsentRecord, NoConsent, NotThere, ProgrammeRecord, StudentRecord
from brevin.store.scope import Scope

FILMING: Purpose = "filming"
LYING: Purpose = "lying"
USUAL: tuple[Purpose, ...] = ("filming", "keeping")  # what a letter asks for at least
Holding = Mapping[Purpose, Mapping[int, date]]
"""Last day of consent that holds today, by purpose and student."""
NO_CONSENT: Holding = {FILMING: {}, LYING: {}}


def add_group(scope: Scope, name: str) -> int:
    """A new group of the programme; returns its key."""
    with db.connection_context():
        return int(StudentGroup.create(programme=scope.programme, name=name).id)


def add_student(scope: Scope, *, name: str, instrument: Instrument, note: str = "", group_id: int | None = None) -> StudentRecord:
    """A new student, without consent. Raises NotThere where the group is not of the programme."""
    with db.connection_context(), db.atomic():
        row = Student.create(programme=scope.programme, name=name, instrument=instrument, note=note)
        if group_id is not None:
            if not StudentGroup.select().where((StudentGroup.id == group_id) & scope.sees(StudentGroup.programme)).exists():
                raise NotThere(str(group_id))
            GroupStudent.create(group=group_id, student=row)
        return student_record(row, NO_CONSENT)


def give_consent(scope: Scope, student_id: int, *, given_by: str, from_day: date, until_day: date, purposes: Sequence[Purpose] = USUAL) -> None:
    """Put a guardian's consent on record. Raises NotThere, InvalidInput(bad_days) where it ends before it begins."""
    if until_day < from_day:
        raise InvalidInput("bad_days", wanted="a last day that is not before the first")
    with db.connection_context():
        _row(scope, student_id)
        for purpose in purposes:
            Consent.create(student=student_id, purpose=purpose, given_by=given_by, from_day=from_day, until_day=until_day)


def refuse_consent(scope: Scope, student_id: int, *, given_by: str, purposes: Sequence[Purpose]) -> None:
    """Put a guardian's no on record: a word that holds on no day, so that nobody is asked again. What held until now ends. Raises NotThere."""
    withdraw_consent(scope, student_id, purposes)
    with db.connection_context():
        day = _today(programmes.programme(Scope(_row(scope, student_id).programme_id)))
        for purpose in purposes:
            Consent.create(student=student_id, purpose=purpose, given_by=given_by, from_day=day, until_day=day, withdrawn_on=day)


def withdraw_consent(scope: Scope, student_id: int, purposes: Sequence[Purpose] = PURPOSES) -> None:
    """End the consents of a student, from today of the programme on. Raises NotThere."""
    with db.connection_context():
        row = _row(scope, student_id)
        day = _today(programmes.programme(Scope(row.programme_id)))
        Consent.update(withdrawn_on=day).where((Consent.student == student_id) & Consent.purpose.in_(list(purposes)) & Consent.withdrawn_on.is_null()).execute()
        backups.deleted(scope)


def student(scope: Scope, student_id: int) -> StudentRecord:
    """One student. Raises NotThere."""
    with db.connection_context():
        row = _row(scope, student_id)
        return student_record(row, to_film(scope, [row.id]))


def known(scope: Scope, student_id: int) -> bool:
    """Whether there is such a student."""
    with db.connection_context():
        return Student.select(Student.id).where((Student.id == student_id) & scope.sees(Student.programme)).exists()


def may_film(scope: Scope, student_id: int) -> StudentRecord:
    """The student, if a consent holds today. Raises NoConsent, NotThere."""
    found = student(scope, student_id)
    if found.may_film_until is None:
        raise NoConsent(str(student_id))
    return found


def students(scope: Scope) -> list[StudentRecord]:
    """All who are still here, by name."""
    with db.connection_context():
        rows = list(Student.select().where(Student.left_on.is_null() & scope.sees(Student.programme)).order_by(Student.name))
        holding = to_film(scope, [row.id for row in rows])
        return [student_record(row, holding) for row in rows]


def may(scope: Scope, student_id: int, purpose: Purpose) -> bool:
    """Whether a consent to this holds today."""
    with db.connection_context():
        return student_id in consents(scope, [student_id], purpose)


def consents(scope: Scope, student_ids: Sequence[int], purpose: Purpose) -> Mapping[int, date]:
    """Last day of consent to a purpose that holds today, by student; one query. "Today" is the programme's. Needs an open connection."""
    return _holding(scope, student_ids, [purpose])[purpose]


def to_film(scope: Scope, student_ids: Sequence[int]) -> Holding:
    """The same of all that is asked before somebody is filmed: to film, and to lie down for it. One query. Needs an open connection."""
    return _holding(scope, student_ids, [FILMING, LYING])


def _holding(scope: Scope, student_ids: Sequence[int], purposes: Sequence[Purpose]) -> Holding:
    rows = (
        Consent.select(Consent, Student.id, Student.programme, Programme.id, Programme.time_zone)
        .join(Student)
        .join(Programme)
        .where((Consent.student.in_(list(student_ids) or [0])) & Consent.purpose.in_(list(purposes)) & scope.sees(Student.programme))
    )
    found: dict[Purpose, dict[int, date]] = {purpose: {} for purpose in purposes}
    for row in rows:
        if _holds(row, _today_in(row.student.programme.time_zone)):
            until = found[cast(Purpose, row.purpose)]
            until[row.student_id] = max(row.until_day, until.get(row.student_id, row.until_day))
    return found


def consent_records(scope: Scope, student_ids: Sequence[int]) -> dict[int, list[ConsentRecord]]:
    """The newest word of each family for each purpose, by student; one query. Needs an open connection."""
    rows = Consent.select().join(Student).where(Consent.student.in_(list(student_ids) or [0]) & scope.sees(Student.programme)).order_by(Consent.id)
    newest = {(row.student_id, row.purpose): row for row in rows}
    found: dict[int, list[ConsentRecord]] = {}
    for (student_id, purpose), row in newest.items():
        word = ConsentRecord(cast(Purpose, purpose), row.given_by, row.from_day, row.until_day, row.withdrawn_on)
        found.setdefault(student_id, []).append(word)
    return found


def _holds(row: Consent, today: date) -> bool:
    return bool(row.from_day <= today <= row.until_day and (row.withdrawn_on is None or row.withdrawn_on > today))


def _today(found: ProgrammeRecord) -> date:
    return now().astimezone(found.zone).date()


def _today_in(time_zone: str) -> date:
    return _today(ProgrammeRecord(id=0, name="", time_zone=time_zone))


def _row(scope: Scope, student_id: int) -> Student:
    row = Student.get_or_none((Student.id == student_id) & scope.sees(Student.programme))
    if row is None:
        raise NotThere(str(student_id))
    return row


def student_record(row: Student, holding: Holding) -> StudentRecord:
    """A row as a record. holding: of ``to_film``."""
    return StudentRecord(
        id=row.id, programme_id=row.programme_id, name=row.name, instrument=cast(Instrument, row.instrument), note=row.note, exempt=tuple(row.exempt or ()),
        may_film_until=holding[FILMING].get(row.id), may_lie=row.id in holding[LYING],
    )  # fmt: skip
