"""Takes with their clips and reports, and the lease that makes one worker at a time responsible for a reading."""

import uuid
from collections.abc import Sequence
from datetime import datetime, timedelta

from brevin.store import people
from brevin.store.database import db, now
from brevin.store.models import Clip, Report, Student, Take
from brevin.store.records import ClipRecord, HeadlineRecord, NewReport, NoConsent, NotThere, ReportRecord, TakeRecord

LEASE = timedelta(seconds=45)  # a worker that is silent for this long has died
MOST_ATTEMPTS = 2  # a clip that ended two workers is not tried a third time


def may_film(student_id: int) -> None:
    """Raises NoConsent where no consent holds today, NotThere where there is no such student."""
    if people.student(student_id).may_film_until is None:
        raise NoConsent(str(student_id))


def add(
    *, student_id: int, teacher_id: int | None, lesson_id: int | None, card: str, clip: ClipRecord, first_inhale_s: float | None = None,
    made_at: datetime | None = None,
) -> TakeRecord:  # fmt: skip
    """A new take with its clip, waiting to be read: both or neither. made_at: now where it is not said. Raises NoConsent, NotThere."""
    may_film(student_id)
    with db.connection_context(), db.atomic():
        student = Student.get_by_id(student_id)
        tries = Take.select().where((Take.student == student_id) & (Take.lesson == lesson_id) & (Take.card == card)).count() if lesson_id else 0
        take = Take.create(
            student=student, teacher=teacher_id, lesson=lesson_id, card=card, first_inhale_s=first_inhale_s, instrument=student.instrument,
            try_number=tries + 1, made_at=made_at or now(),
        )  # fmt: skip
        Clip.create(take=take, **vars(clip))
    return take_record(take.id)


def add_refused(*, student_id: int, teacher_id: int | None, lesson_id: int | None, card: str, code: str, text: str) -> None:
    """Keep on record that a clip was sent and could not be taken in, and why; no file belongs to it. Raises NotThere."""
    instrument = people.student(student_id).instrument
    with db.connection_context():
        Take.create(
            student=student_id, teacher=teacher_id, lesson=lesson_id, card=card, instrument=instrument, state="failed", stage="failed",
            reason_code=code, reason_text=text[:400],
        )  # fmt: skip


def take_record(take_id: str) -> TakeRecord:
    """One take. Raises NotThere."""
    with db.connection_context():
        row = Take.get_or_none(Take.id == take_id)
        if row is None:
            raise NotThere(take_id)
        return records([row])[0]


def latest(limit: int) -> list[TakeRecord]:
    """The newest takes first."""
    with db.connection_context():
        return records(list(Take.select().order_by(Take.made_at.desc()).limit(limit)))


def since(moment: datetime, limit: int) -> list[TakeRecord]:
    """Takes made after a moment, the newest first."""
    with db.connection_context():
        return records(list(Take.select().where(Take.made_at >= moment).order_by(Take.made_at.desc()).limit(limit)))


def of_student(student_id: int) -> list[TakeRecord]:
    """A student's takes, newest first."""
    with db.connection_context():
        return records(list(Take.select().where(Take.student == student_id).order_by(Take.made_at.desc())))


def records(rows: Sequence[Take]) -> list[TakeRecord]:
    """Rows as records, with few queries. Needs an open connection."""
    ids = [row.id for row in rows] or [""]
    students = {s.id: s for s in Student.select().where(Student.id.in_([row.student_id for row in rows] or [0]))}
    until = people.consents(list(students))
    clips = {c.take_id: c for c in Clip.select().where(Clip.take.in_(ids))}
    heads = _headlines(ids)
    return [
        TakeRecord(
            id=row.id, student=people.student_record(students[row.student_id], until), made_at=row.made_at, card=row.card,
            first_inhale_s=row.first_inhale_s,
            instrument=row.instrument, try_number=row.try_number, state=row.state, stage=row.stage, progress=row.progress,
            reason_code=row.reason_code, reason_text=row.reason_text, attempts=row.attempts,
            clip=_clip(clips.get(row.id)), headline=heads.get(row.id),
        )
        for row in rows
    ]  # fmt: skip


def _clip(row: Clip | None) -> ClipRecord | None:
    if row is None:
        return None
    return ClipRecord(row.stored_name, row.original_name, row.sha256, row.size_bytes, row.playable_name, row.playable_type)


def _headlines(ids: Sequence[str]) -> dict[str, HeadlineRecord]:
    """The newest report's line of each take that has one."""
    rows = Report.select(Report.take, Report.version, Report.state, Report.words, Report.cue).where(Report.take.in_(ids)).order_by(Report.version)
    return {row.take_id: HeadlineRecord(row.state, row.words, row.cue, row.version) for row in rows}


def claim(take_id: str) -> str | None:
    """Take a waiting take for reading; returns the lease's token, None where someone else has it or it is done."""
    token = uuid.uuid4().hex
    with db.connection_context():
        changed = (
            Take.update(state="reading", lease_token=token, lease_until=now() + LEASE, attempts=Take.attempts + 1, stage="starting", progress=0.0)
            .where((Take.id == take_id) & (Take.state == "queued"))
            .execute()
        )
    return token if changed else None


def report_progress(take_id: str, token: str, *, stage: str, progress: float) -> bool:
    """Heartbeat with what is going on; False where the lease has gone to another worker or the take is deleted."""
    with db.connection_context():
        held = (Take.id == take_id) & (Take.lease_token == token) & (Take.state == "reading")
        Take.update(stage=stage, progress=progress, lease_until=now() + LEASE).where(held).execute()
        return bool(Take.select().where(held).count())


def finish(take_id: str, token: str, *, report: NewReport, playable: tuple[str, str]) -> bool:
    """Store a report as the next version, if the lease still holds. playable: file a browser plays and its type."""
    with db.connection_context(), db.atomic():
        changed = (
            Take.update(state="read", stage="read", progress=1.0, lease_until=None, reason_code="", reason_text="")
            .where((Take.id == take_id) & (Take.lease_token == token) & (Take.state == "reading"))
            .execute()
        )
        if not changed:
            return False
        version = Report.select().where(Report.take == take_id).count() + 1
        Report.create(take=take_id, version=version, **vars(report))
        Clip.update(playable_name=playable[0], playable_type=playable[1]).where(Clip.take == take_id).execute()
        return True


def fail(take_id: str, token: str, *, code: str, text: str) -> None:
    """End a reading with a reason, if the lease still holds."""
    with db.connection_context():
        Take.update(state="failed", stage="failed", lease_until=None, reason_code=code, reason_text=text[:400]).where(
            (Take.id == take_id) & (Take.lease_token == token)
        ).execute()


def put_back_expired(*, code: str, text: str) -> list[str]:
    """Takes whose worker died wait again; after the last attempt they fail with the reason. Returns the ids of all that wait."""
    with db.connection_context(), db.atomic():
        dead = (Take.state == "reading") & (Take.lease_until < now())
        Take.update(state="failed", stage="failed", lease_until=None, reason_code=code, reason_text=text).where(
            dead & (Take.attempts >= MOST_ATTEMPTS)
        ).execute()
        Take.update(state="queued", stage="waiting", lease_until=None, lease_token="").where(dead).execute()
        return [row.id for row in Take.select(Take.id).where(Take.state == "queued").order_by(Take.made_at)]


def free_leases() -> None:
    """At start nobody reads: what a stopped run had begun waits again, and the stop was not the clip's fault."""
    with db.connection_context():
        Take.update(state="queued", stage="waiting", progress=0.0, attempts=0, lease_until=None, lease_token="").where(Take.state == "reading").execute()


def read_again(take_id: str) -> TakeRecord:
    """Put a take back to be read once more. Raises NotThere, also where it has no clip."""
    if take_record(take_id).clip is None:
        raise NotThere(take_id)
    with db.connection_context():
        Take.update(state="queued", stage="waiting", progress=0.0, attempts=0, lease_token="", reason_code="", reason_text="").where(
            (Take.id == take_id) & (Take.state.in_(["read", "failed"]))
        ).execute()
    return take_record(take_id)


def report(take_id: str) -> ReportRecord | None:
    """The newest report of a take. Raises NotThere for a take that is none."""
    take_record(take_id)
    with db.connection_context():
        row = Report.select().where(Report.take == take_id).order_by(Report.version.desc()).first()
        if row is None:
            return None
        return ReportRecord(
            take_id=take_id, version=row.version, made_at=row.made_at, software_version=row.software_version,
            thresholds_id=row.thresholds_id, profile_id=row.profile_id, readable=bool(row.readable), document=row.document,
        )  # fmt: skip


def delete(take_id: str) -> list[str]:
    """Delete a take with its clip and reports; returns the names of the files that are now nobody's. Raises NotThere."""
    with db.connection_context(), db.atomic():
        clip = Clip.get_or_none(Clip.take == take_id)
        names = [] if clip is None else [name for name in (clip.stored_name, clip.playable_name) if name]
        if not Take.delete().where(Take.id == take_id).execute():
            raise NotThere(take_id)
        return sorted(set(names))


def known_files() -> set[str]:
    """Every clip file that belongs to a take."""
    with db.connection_context():
        return {name for row in Clip.select() for name in (row.stored_name, row.playable_name) if name}
