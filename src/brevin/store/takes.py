"""Takes with their clips, as pages see them: taken in, listed, changed by hand, moved to their right student, deleted."""

import dataclasses
from collections.abc import Sequence
from datetime import datetime
from typing import Any, cast

from peewee import JOIN, Expression, Tuple, Value, fn

from brevin.core.edited import Edits, MovedTurn, TappedLine
from brevin.core.errors import InvalidInput
from brevin.core.kinds import FELT, Felt
from brevin.core.plan.check import Check, from_document
from brevin.core.verdict import rules as ruling
from brevin.store import backups, changes, checks, files, reports, rulebook, students
from brevin.store.database import db, now
from brevin.store.models import AskedCheck, Clip, Lesson, Seat, Student, Take
from brevin.store.records import CheckRecord, ClipRecord, HeadlineRecord, LetGo, NoConsent, NotThere, StudentRecord, TakeRecord, TakeState
from brevin.store.scope import Scope

MOST_LISTED = 500


def add(
    scope: Scope, *, student_id: int, lesson_id: int | None, check: Check, clip: ClipRecord, first_inhale_s: float | None = None,
    made_at: datetime | None = None, sent_as: str | None = None, felt: Felt = "",
) -> TakeRecord:  # fmt: skip
    """A new take with its clip, waiting to be read: both or neither. Its rules are resolved now. made_at: now where it is not said; sent_as: of a
    recording that must not become two takes.

    Raises NoConsent (to filming, or to lying down), NotThere; peewee.IntegrityError where the recording was sent already.
    """
    student = may_be_filmed(scope, student_id, check)
    asked = checks.same(scope, check)
    rules = rulebook.rules_for(scope, student, check)
    with db.connection_context(), db.atomic():
        _lesson(scope, lesson_id)
        take = Take.create(
            programme=student.programme_id, student=student.id, filmed_by=scope.person_id, lesson=lesson_id, asked=asked.id,
            first_inhale_s=first_inhale_s, rules=ruling.to_document(rules), try_number=_tries(student_id, lesson_id, asked.id) + 1, made_at=made_at or now(),
            sent_as=sent_as, felt=felt,
        )  # fmt: skip
        Clip.create(take=take, **vars(clip))
        changes.note(scope, student.programme_id, "take", take.id)
    return take_record(scope, take.id)


def may_be_filmed(scope: Scope, student_id: int, check: Check) -> StudentRecord:
    """The student, where a clip for this check may be made. Raises NoConsent (to filming, or to lying down), NotThere."""
    student = students.may_film(scope, student_id)
    if not student.may_be_asked(check):
        raise NoConsent("lying")
    return student


def sent(scope: Scope, sent_as: str) -> TakeRecord | None:
    """The take that a recording became; None before it was sent."""
    with db.connection_context():
        found = records(scope, Take.sent_as == sent_as)
    return found[0] if found else None


def _lesson(scope: Scope, lesson_id: int | None) -> None:
    """Raises NotThere for a lesson of somebody else's."""
    if lesson_id is not None and not Lesson.select().where((Lesson.id == lesson_id) & scope.sees(Lesson.programme)).exists():
        raise NotThere(str(lesson_id))


def _tries(student_id: int, lesson_id: int | None, asked_id: int) -> int:
    """Tries of one check together so far: takes of this lesson that have a clip or were read. The student's row is held until the new one stands."""
    if lesson_id is None:
        return 0
    Student.select(Student.id).where(Student.id == student_id).for_update().get()
    tries = Take.select().where((Take.student == student_id) & (Take.lesson == lesson_id) & (Take.asked == asked_id) & (Take.attempts >= 0))
    return int(tries.where((Take.state != "failed") | (Take.evidence_name != "")).count())


def add_refused(scope: Scope, *, student_id: int, lesson_id: int | None, check: Check, code: str, facts: dict[str, float | str]) -> None:
    """Keep on record that a clip was sent and could not be taken in, and why; no file belongs to it. Raises NotThere."""
    student = students.student(scope, student_id)
    asked = checks.same(scope, check)
    with db.connection_context(), db.atomic():
        _lesson(scope, lesson_id)
        take = Take.create(
            programme=student.programme_id, student=student_id, filmed_by=scope.person_id, lesson=lesson_id, asked=asked.id, state="failed", stage="failed",
            reason_code=code, reason_facts=facts,
        )  # fmt: skip
        changes.note(scope, student.programme_id, "take", take.id)


def take_record(scope: Scope, take_id: str) -> TakeRecord:
    """One take. Raises NotThere."""
    with db.connection_context():
        found = records(scope, Take.id == take_id)
    if not found:
        raise NotThere(take_id)
    return found[0]


def _row(scope: Scope, take_id: str) -> Take:
    row = Take.get_or_none((Take.id == take_id) & scope.sees(Take.programme))
    if row is None:
        raise NotThere(take_id)
    return row


def latest(scope: Scope, limit: int = MOST_LISTED) -> list[TakeRecord]:
    """The newest takes first."""
    with db.connection_context():
        return records(scope, Value(1) == 1, limit=limit)


def of_student(scope: Scope, student_id: int) -> list[TakeRecord]:
    """A student's takes, newest first."""
    with db.connection_context():
        return records(scope, Take.student == student_id)


def of_today(scope: Scope, *, lesson_id: int, waiting: Sequence[int], since: datetime) -> list[TakeRecord]:
    """Everything Today shows, newest first: the lesson's takes, those made since a moment, and of each waiting student the newest that was read. The same
    number of queries whatever their number."""
    read = (Take.state == "read") & Take.student.in_(list(waiting) or [0]) & scope.sees(Take.programme)
    newest = Take.select(Take.student, fn.MAX(Take.made_at)).where(read).group_by(Take.student)
    with db.connection_context():
        shown = (Take.lesson == lesson_id) | (Take.made_at >= since) | ((Take.state == "read") & Tuple(Take.student, Take.made_at).in_(newest))
        return records(scope, shown)


def records(scope: Scope, where: Expression, *, limit: int | None = None) -> list[TakeRecord]:
    """The takes of a scope under a condition, newest first: three queries whatever their number. Needs an open connection."""
    joined = (
        Take.select(Take, Student, AskedCheck, Clip)
        .join(Student)
        .switch(Take)
        .join(AskedCheck)
        .switch(Take)
        .join(Clip, JOIN.LEFT_OUTER, on=(Clip.take == Take.id), attr="filmed")
    )
    rows = list(joined.where(where & scope.sees(Take.programme)).order_by(Take.made_at.desc(), Take.id.desc()).limit(limit))
    holding = students.to_film(scope, [row.student.id for row in rows])
    heads = reports.headlines(scope, [row.id for row in rows])
    return [_record(row, holding, heads.get(row.id)) for row in rows]


def _record(row: Take, holding: students.Holding, head: HeadlineRecord | None) -> TakeRecord:
    clip: Clip | None = getattr(row, "filmed", None)
    return TakeRecord(
        id=row.id, programme_id=row.programme_id, student=students.student_record(row.student, holding), lesson_id=row.lesson_id,
        made_at=row.made_at,
        asked=CheckRecord(row.asked.id, from_document(row.asked.document)), first_inhale_s=row.first_inhale_s,
        rules=ruling.from_document(row.rules or {}), edits=edits_from(row.edits), try_number=row.try_number, state=cast(TakeState, row.state),
        stage=row.stage, progress=row.progress, reason_code=row.reason_code, reason_facts=row.reason_facts or {}, attempts=row.attempts,
        clip=_clip(clip if clip is not None and clip.id is not None else None), evidence_name=row.evidence_name,
        stills_name=row.stills_name, headline=head,
        felt=cast(Felt, row.felt), sent_as=row.sent_as,
    )  # fmt: skip


def _clip(row: Clip | None) -> ClipRecord | None:
    if row is None:
        return None
    return ClipRecord(row.stored_name, row.original_name, row.sha256, row.size_bytes, row.playable_name, row.playable_type, row.blurred_for)


def edits_from(document: dict[str, Any] | None) -> Edits:
    """Edits as they were stored."""
    kept = dict(document or {})
    turns = [MovedTurn(**turn) for turn in kept.pop("turns", [])]
    line = kept.pop("line", None)
    return Edits(**kept, turns=turns, line=TappedLine(**line) if isinstance(line, dict) else None)


def move(scope: Scope, take_id: str, student_id: int) -> TakeRecord:
    """This was someone else's clip: the take with all that hangs on it goes to another student of the programme, and is a try of what that student's
    own chair asks. Raises NotThere, NoConsent."""
    with db.connection_context(), db.atomic():
        row = _row(scope, take_id)
        other = may_be_filmed(scope, student_id, from_document(row.asked.document))
        asked = _asked_of(scope, row, other)
        number = _tries(student_id, row.lesson_id, asked) + 1 if row.student_id != student_id else row.try_number
        Take.update(student=student_id, asked=asked, try_number=number).where(Take.id == take_id).execute()
        reports.move_rows(scope, take_id, student_id)
        changes.note(scope, row.programme_id, "lesson", str(row.lesson_id or ""))
        changes.note(scope, row.programme_id, "take", take_id)
    return take_record(scope, take_id)


def _asked_of(scope: Scope, row: Take, other: StudentRecord) -> int:
    """What a take would have been asked of another student: their chair's check in the same lesson, else the same check with their instrument."""
    seat = Seat.get_or_none((Seat.lesson == row.lesson_id) & (Seat.student == other.id))
    if seat is not None:
        return int(seat.asked_id)
    check = from_document(row.asked.document)
    if check.instrument == row.student.instrument:
        check = dataclasses.replace(check, instrument=other.instrument)
    return checks.same(scope, check).id


def say_felt(scope: Scope, take_id: str, felt: Felt) -> TakeRecord:
    """What the student said before the reading was there. Raises NotThere, InvalidInput(bad_felt) for an answer to another question."""
    take = take_record(scope, take_id)
    if felt and felt not in FELT[take.asked.check.asks]:
        raise InvalidInput("bad_felt", wanted=", ".join(FELT[take.asked.check.asks]))
    with db.connection_context(), db.atomic():
        Take.update(felt=felt).where(Take.id == take_id).execute()
        changes.note(scope, take.programme_id, "said", take_id)
    return take_record(scope, take_id)


def drop_clip(scope: Scope, take_id: str) -> None:
    """Every picture of a take goes, clip and stills; evidence and reports stay. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = _row(scope, take_id)
        files.let_go(scope, _pictures(row))
        Take.update(stills_name="").where(Take.id == take_id).execute()
        Clip.delete().where(Clip.take == take_id).execute()
        backups.deleted(scope)
        changes.note(scope, row.programme_id, "take", take_id)


def _pictures(row: Take) -> list[LetGo]:
    clip = Clip.get_or_none(Clip.take == row.id)
    films = [] if clip is None else [LetGo("clips", name) for name in {clip.stored_name, clip.playable_name} if name]
    return films + [LetGo("evidence", name) for name in (row.stills_name,) if name]


def delete(scope: Scope, take_id: str) -> None:
    """Delete a take with its reports and rows, and put its clip, copy, stills and evidence on the list of files that are to go. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = _row(scope, take_id)
        kept = [LetGo("evidence", row.evidence_name)] if row.evidence_name else []
        files.let_go(scope, [*_pictures(row), *kept])
        Take.delete().where(Take.id == take_id).execute()
        backups.deleted(scope)
        changes.note(scope, row.programme_id, "take", take_id)
