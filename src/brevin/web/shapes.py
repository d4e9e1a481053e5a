"""From records to what goes over the wire; sentences are made here, from what is stored as codes."""

from dataclasses import asdict

from flask import Response
from pydantic import BaseModel

from brevin.core.plan.roster import Chair, Changes, Known, Row
from brevin.core.verdict.headline import headline_cue, headline_words
from brevin.core.verdict.reasons import REASONS
from brevin.core.verdict.wording import reason_sentence
from brevin.store.records import (
    CheckRecord,
    HeadlineRecord,
    LessonRecord,
    MemberRecord,
    ProgrammeRecord,
    ResultRecord,
    SeatRecord,
    StudentRecord,
    TakeRecord,
)
from brevin.web.list_schemas import ChairOut, ListLeft, ListOut, ListRow, SitsOf
from brevin.web.schemas import CardOut, CheckOut, ClipOut, HeadlineOut, InFrontOut, LessonOut, PersonOut, ProgrammeOut, ResultOut, SeatOut, StudentOut, TakeOut


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as the response of a route."""
    return Response(model.model_dump_json(), status=status, mimetype="application/json")


def student_out(record: StudentRecord) -> StudentOut:
    """A student."""
    return StudentOut(
        id=record.id, name=record.name, instrument=record.instrument, note=record.note, exempt=list(record.exempt), may_film_until=record.may_film_until,
        may_lie=record.may_lie,
    )  # fmt: skip


def check_out(record: CheckRecord) -> CheckOut:
    """A check with its card."""
    check = record.check
    return CheckOut(
        id=record.id, name=check.name, kind=check.kind, card=CardOut(**asdict(check.card)) if check.card else None, view=check.view, position=check.position,
        instrument=check.instrument, with_instrument=check.with_instrument, asks=check.asks,
        full_breath=check.full_breath, countin_words=list(check.countin_words), contrast=check.contrast,
        sets=[CardOut(**asdict(card)) for card in check.sets], shown=f"/api/cards/shown/{check.shown}" if check.shown else "",
        taught=dict(check.taught), notes=check.notes, dynamic=check.dynamic, articulation=check.articulation,
    )  # fmt: skip


def take_out(record: TakeRecord) -> TakeOut:
    """A take; the clip's address only once a browser can play it."""
    clip = record.clip
    shown = None
    if clip is not None:
        as_kept = f"?for={clip.blurred_for}" if clip.others_blurred else ""  # blurred for somebody else it is another film
        shown = ClipOut(
            original_name=clip.original_name, size_bytes=clip.size_bytes, url=f"/api/takes/{record.id}/clip{as_kept}" if clip.playable_name else None,
            type=clip.playable_type or "video/mp4", others_blurred=clip.others_blurred,
            coming=clip.blurred_for is None,
        )  # fmt: skip
    return TakeOut(
        id=record.id, student=student_out(record.student), made_at=record.made_at, check=check_out(record.asked), instrument=record.asked.check.instrument,
        try_number=record.try_number, state=record.state, stage=record.stage, progress=record.progress, reason_code=record.reason_code,
        reason_text=reason_sentence(record.reason_code, record.reason_facts) if record.reason_code in REASONS else "", clip=shown,
        stills=f"/api/takes/{record.id}/stills" if record.shows_stills else None,
        judged_anew=bool(record.evidence_name), headline=_headline(record.headline), felt=record.felt, filmed=record.sent_as is not None,
    )  # fmt: skip


def _headline(record: HeadlineRecord | None) -> HeadlineOut | None:
    if record is None:
        return None
    line, cue = record.line, record.line.cue
    return HeadlineOut(
        state=line.state, words=headline_words(line), cue=headline_cue(line), cue_criterion=cue.criterion if cue else "", cue_side=cue.side if cue else None,
        hidden=line.hidden, report_version=record.report_version,
    )  # fmt: skip


def seat_out(record: SeatRecord) -> SeatOut:
    """A chair."""
    return SeatOut(
        id=record.id, place=record.place, minute=record.minute, check=check_out(record.asked), side=record.side, away=record.away,
        student=student_out(record.student), take=take_out(record.take) if record.take else None, rest_s=record.rest_s,
    )  # fmt: skip


def lesson_out(record: LessonRecord, *, of: str) -> LessonOut:
    """A lesson with its chairs. of: the session whose chair in front is told."""
    return LessonOut(
        id=record.id,
        title=record.title,
        group_name=record.group_name,
        starts_at=record.starts_at,
        minutes=record.minutes,
        seat_now=InFrontOut(**vars(record.seats_now[of])) if of in record.seats_now else None,
        seats=[seat_out(s) for s in record.seats],
    )


def in_the_room(lesson: LessonOut) -> LessonOut:
    """A lesson as the class may see it: who is filmed or not yet; no verdict, no exemption, no note."""
    return lesson.model_copy(update={"seats": [_in_the_room(seat) for seat in lesson.seats]})


def _in_the_room(seat: SeatOut) -> SeatOut:
    return seat.model_copy(update={"student": _named(seat.student), "take": seat.take and take_in_the_room(seat.take)})


def take_in_the_room(take: TakeOut) -> TakeOut:
    """A take as the class may see it: that it is there, and how far it is."""
    quiet = {"headline": None, "reason_code": "", "reason_text": "", "felt": "", "clip": None, "stills": None}
    return take.model_copy(update=quiet | {"student": _named(take.student)})


def _named(pupil: StudentOut) -> StudentOut:
    return pupil.model_copy(update={"note": "", "exempt": []})


def list_out(found: Changes, chairs: list[list[Chair]]) -> ListOut:
    """What a class list would change. chairs: the band with it."""
    return ListOut(
        new=[_list_row(row) for row in found.new], changed=[_list_row(one.row, one.student) for one in found.changed],
        elsewhere=[_list_row(one.row, one.student) for one in found.elsewhere],
        left=[ListLeft(id=one.id, name=one.name, instrument=one.instrument) for one in found.left],
        unreadable=[_list_row(row) for row in found.unreadable],
        unseated=[_list_row(row).model_copy(update={"said": row.sits_said}) for row in found.unseated],
        twice=[_list_row(row) for row in found.twice], same=found.same, chairs=[[ChairOut(**vars(one)) for one in row] for row in chairs],
    )  # fmt: skip


def _list_row(row: Row, student: Known | None = None) -> ListRow:
    """A row, with the student it would change."""
    sits = None if row.sits is None else SitsOf(**vars(row.sits))
    found = ListRow(number=row.number, name=row.name, instrument=row.instrument, said=row.said, note=row.note, sits=sits)
    return found if student is None else found.model_copy(update={"id": student.id, "was": student.instrument})


def programme_out(record: ProgrammeRecord) -> ProgrammeOut:
    """A programme."""
    return ProgrammeOut(id=record.id, name=record.name, time_zone=record.time_zone)


def person_out(record: MemberRecord) -> PersonOut:
    """A member."""
    return PersonOut(login=record.person.login, name=record.person.name, role=record.role)


def result_out(record: ResultRecord) -> ResultOut:
    """One verdict of one take."""
    return ResultOut(
        take_id=record.take_id, criterion=record.key, instrument=record.instrument, made_at=record.made_at, state=record.state or "unreadable",
        value=record.value,
        half_width=record.half_width, steady_breaths=record.steady_breaths, counted_breaths=record.counted_breaths, overruled=record.overruled,
    )  # fmt: skip
