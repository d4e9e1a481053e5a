"""The class as a whole: what a list changes of it, who was seen when, how they sit, and consent for many at once."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any, cast

from peewee import JOIN, fn

from brevin.core.kinds import PURPOSES, Instrument, Purpose, State
from brevin.core.plan.seating import Here, Rows, Sits, changed, seated
from brevin.store import changes, seats, students, takes
from brevin.store.database import db, now
from brevin.store.models import AskedCheck, Clip, GroupStudent, Student, StudentGroup, Take, VerdictRow
from brevin.store.records import ConsentRecord, NotThere, StudentRecord
from brevin.store.scope import Scope

EVERYBODY = "Everybody"
WORST_FIRST: tuple[State, ...] = ("work", "watch", "unreadable", "steady")


@dataclass(frozen=True)
class NewStudent:
    name: str
    instrument: Instrument
    note: str = ""
    sits: Sits | None = None


@dataclass(frozen=True)
class ClassChanges:
    """What is to be changed, all of it or nothing. edit: who is to be called, or to play, or to be noted otherwise; instruments: by student; leave: who goes;
    back: who comes back; drop: who was added by mistake and has no take; sits: who gets which chair; rows: how everybody sat before, who is not in it
    sits down by the instrument."""

    add: Sequence[NewStudent] = ()
    edit: dict[int, NewStudent] = field(default_factory=dict)
    instruments: dict[int, Instrument] = field(default_factory=dict)
    leave: Sequence[int] = ()
    back: Sequence[int] = ()
    drop: Sequence[int] = ()
    sits: dict[int, Sits] = field(default_factory=dict)
    rows: Sequence[Sequence[int]] = ()


@dataclass(frozen=True)
class Member:
    """A student of the class. seen_at: when the last reading was made; takes: how many there are."""

    student: StudentRecord
    seen_at: datetime | None
    state: State | None
    takes: int
    consents: tuple[ConsentRecord, ...] = ()


def members(scope: Scope) -> list[Member]:
    """Everybody who is here, by name; the same number of queries whatever their number."""
    here = students.students(scope)
    with db.connection_context():
        own = Take.select(Take.student, fn.MAX(Take.made_at).alias("at"), fn.COUNT(Take.id).alias("takes")).where(
            scope.sees(Take.programme) & (Take.state == "read")
        )
        seen = {row["student"]: (row["at"], int(row["takes"])) for row in cast(Any, own.group_by(Take.student).dicts())}
        states = _last_states(scope)
        words = students.consent_records(scope, [one.id for one in here])
    return [_member(one, seen.get(one.id, (None, 0)), states.get(one.id), words.get(one.id, [])) for one in here]


def _member(one: StudentRecord, seen: tuple[datetime | None, int], state: State | None, words: list[ConsentRecord]) -> Member:
    return Member(one, seen[0], state, seen[1], tuple(words))


def _last_states(scope: Scope) -> dict[int, State]:
    """The worst verdict of each student's last reading; a drill is practice, often wrong on purpose, and tells nothing of who needs to be seen."""
    drills = Take.select(Take.id).join(AskedCheck).where(AskedCheck.name.startswith("drill") & scope.sees(Take.programme))
    counted = scope.sees(VerdictRow.programme) & VerdictRow.take.not_in(drills)
    last = VerdictRow.select(VerdictRow.student, fn.MAX(VerdictRow.made_at).alias("at")).where(counted).group_by(VerdictRow.student)
    newest = last.alias("newest")
    rows: Any = (
        VerdictRow.select(VerdictRow.student, VerdictRow.state)
        .join(newest, on=((VerdictRow.student == newest.c.student_id) & (VerdictRow.made_at == newest.c.at)))
        .tuples()
    )
    found: dict[int, State] = {}
    for student_id, state in rows:
        found[student_id] = min(found.get(student_id, state), state, key=WORST_FIRST.index)
    return found


def change(scope: Scope, asked: ClassChanges) -> list[int]:
    """Change the class: all of it or nothing. Returns the keys of who was added. Raises NotThere."""
    touched = [*asked.edit, *asked.instruments, *asked.leave, *asked.back, *asked.drop, *asked.sits]
    with db.connection_context(), db.atomic():
        before = _plays(scope)
        sat = seats.rows(scope, before, to_change=True)
        known = {row.id for row in Student.select(Student.id).where(Student.id.in_(touched or [0]) & scope.sees(Student.programme))}
        if set(touched) - known:
            raise NotThere(str(sorted(set(touched) - known)))
        group = everybody(scope)
        added = []
        for one in asked.add:
            row = Student.create(programme=scope.programme, name=one.name, instrument=one.instrument, note=one.note)
            GroupStudent.create(group=group, student=row)
            added.append(int(row.id))
        for student_id, one in asked.edit.items():
            Student.update(name=one.name, instrument=one.instrument, note=one.note).where(Student.id == student_id).execute()
        for student_id, instrument in asked.instruments.items():
            Student.update(instrument=instrument).where(Student.id == student_id).execute()
        Student.update(left_on=now().date()).where(Student.id.in_(list(asked.leave) or [0])).execute()
        Student.update(left_on=None).where(Student.id.in_(list(asked.back) or [0])).execute()
        with_takes = Take.select(Take.student).where(Take.student.in_(list(asked.drop) or [0]))
        Student.delete().where(Student.id.in_(list(asked.drop) or [0]) & Student.id.not_in(with_takes)).execute()
        _seat(scope, asked, added, sat, before)
        changes.note(scope, scope.programme, "lesson", "")
    return added


def _plays(scope: Scope) -> dict[int, Instrument]:
    """Who is here, by name, and what they play."""
    rows = Student.select(Student.id, Student.instrument).where(Student.left_on.is_null() & scope.sees(Student.programme)).order_by(Student.name)
    return {row.id: cast(Instrument, row.instrument) for row in rows}


def _seat(scope: Scope, asked: ClassChanges, added: Sequence[int], sat: Rows, before: Here) -> None:
    """Seat them as a change has it; a class in which nobody was moved goes on sitting by its instruments. sat: how they sat before it."""
    here = _plays(scope)
    wished = asked.sits | {one: new.sits for one, new in zip(added, asked.add, strict=True) if new.sits}
    up = [one for one, plays in here.items() if before.get(one, plays) != plays]
    if asked.rows:
        seats.keep(scope, seated(asked.rows, here))
    elif wished or (up and sat != seated([], before)):
        seats.keep(scope, changed(sat, here, up=up, wished={one: sits for one, sits in wished.items() if one in here}))


def rows(scope: Scope, here: Sequence[Member]) -> Rows:
    """How the class sits. here: everybody of it."""
    with db.connection_context():
        return seats.rows(scope, {one.student.id: one.student.instrument for one in here})


def everybody(scope: Scope) -> int:
    """The group that a class without groups is: made when it is first asked for. Needs an open connection."""
    row = StudentGroup.select().where(scope.sees(StudentGroup.programme)).order_by(StudentGroup.id).first()
    return int(row.id if row else StudentGroup.create(programme=scope.programme, name=EVERYBODY).id)


def give_consents(
    scope: Scope, student_ids: Sequence[int], *, given_by: str, from_day: date, until_day: date, purposes: Sequence[Purpose] = students.USUAL,
    refused: Sequence[Purpose] = (),
) -> None:  # fmt: skip
    """The letters are back: the same answer for many. refused: what they said no to, which ends what held. Raises NotThere, InvalidInput(bad_days); then
    nobody's is on record."""
    with db.connection_context(), db.atomic():
        for student_id in student_ids:
            students.give_consent(scope, student_id, given_by=given_by, from_day=from_day, until_day=until_day, purposes=purposes)
            for purpose in refused:
                withdraw(scope, student_id, purpose)
            students.refuse_consent(scope, student_id, given_by=given_by, purposes=refused)
        changes.note(scope, scope.programme, "lesson", "")


def withdraw(scope: Scope, student_id: int, purpose: Purpose = students.FILMING) -> int:
    """A family takes its consent back. To filming: to all that hangs on it, too. Without the consent to film or to keep, every clip and still of the
    student goes at once. Returns how many. Raises NotThere."""
    with db.connection_context(), db.atomic():
        students.withdraw_consent(scope, student_id, PURPOSES if purpose == students.FILMING else [purpose])
        whose = (Take.student == student_id) & scope.sees(Take.programme)
        shown = Clip.id.is_null(False) | (Take.stills_name != "")
        films = Take.select(Take.id).join(Clip, JOIN.LEFT_OUTER, on=(Clip.take == Take.id)).where(whose & shown)
        own = [row.id for row in films] if purpose in students.USUAL else []
        for take_id in own:
            takes.drop_clip(scope, take_id)
        changes.note(scope, scope.programme, "lesson", "")
    return len(own)
