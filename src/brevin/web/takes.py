"""Takes: send a clip, watch it being read, see the report, change it by hand, delete."""

import contextlib
import json
from dataclasses import replace

from flask import Response, current_app, request, send_from_directory

from brevin.core.edited import Edits, MovedTurn, TappedLine
from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.plan.check import Check, from_document
from brevin.core.verdict.wording import with_sentences
from brevin.edge.growing import Growing, growing
from brevin.edge.pictures import picture
from brevin.jobs.judging import ReadAgain, facts_of, judge_anew
from brevin.ops import files as sweeping
from brevin.ops.settings import Settings
from brevin.store import chairs, readings, reports, students, takes
from brevin.store.records import ClipRecord, NotThere, StudentRecord, TakeRecord
from brevin.store.scope import HOUSE
from brevin.web.auth import member, scope
from brevin.web.edit_schemas import EditsIn
from brevin.web.intake import take_in
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, FeltIn, MoveIn, NewTake, ReportOut, StillPath, TakeList, TakeOut, TakePath
from brevin.web.shapes import answer, take_in_the_room, take_out

routes = routes_of("takes", __name__, below="/api/takes")


def _settings() -> Settings:
    settings: Settings = current_app.config["BREVIN"]
    return settings


@routes.get("", responses={200: TakeList})
def all_takes() -> Response:
    """The newest takes."""
    return answer(TakeList(takes=[take_out(record) for record in takes.latest(scope())]))


@routes.post("", responses={201: TakeOut}, description="The body is the clip itself, streamed.")
def new_take(query: NewTake) -> Response:
    """Take a clip in and let it be read. A recording that came already is answered with its take."""
    if query.sent_as and (known := takes.sent(scope(), query.sent_as)):
        return answer(_seen(known))
    student = _filmed(query.student_id)
    check = _asked_of(query, student)
    settings = _settings()
    grown = _came(query, student)
    clip = _taken_in(query, check, settings, grown)
    try:
        record = takes.add(
            scope(), student_id=query.student_id, lesson_id=query.lesson_id, check=check, clip=clip, first_inhale_s=query.first_inhale_s,
            sent_as=query.sent_as, felt=query.felt,
        )  # fmt: skip
    except Exception:
        if grown is not None:
            grown.drop()
        (settings.clips / clip.stored_name).unlink(missing_ok=True)  # consent withdrawn meanwhile, or the database away: nothing half-written
        if query.sent_as and (known := takes.sent(scope(), query.sent_as)):
            return answer(_seen(known))  # it came twice at once
        raise
    if grown is not None:
        grown.end(settings.clips / clip.stored_name)
    return answer(_seen(record), 201)


def _filmed(student_id: int) -> StudentRecord:
    """Who was filmed. Raises NoConsent; Refused(student_gone) for one who was erased, so that nothing stays in a browser; NotThere for anybody else's."""
    try:
        return students.may_film(scope(), student_id)
    except NotThere:
        if not students.known(HOUSE, student_id):
            raise Refused("student_gone", 410) from None
        raise


def _came(query: NewTake, student: StudentRecord) -> Growing | None:
    """What came of the clip while it was filmed, if that is to be taken; else it goes. Raises Refused(piece_misplaced) where it is not all."""
    if query.sent_as is None:
        return None
    found = growing(_settings().filming, programme_id=student.programme_id, student_id=student.id, key=query.sent_as)
    if query.came_bytes is not None and found and found[0].size == query.came_bytes:
        return found[0]
    for one in found:
        one.drop()
    if query.came_bytes is not None:
        raise Refused("piece_misplaced", 409)
    return None


def _seen(record: TakeRecord) -> TakeOut:
    """A take as whoever films may see it."""
    return take_in_the_room(take_out(record)) if member().role == "phone" else take_out(record)


def _asked_of(query: NewTake, student: StudentRecord) -> Check:
    """What the clip was filmed for: a set of the chair's card, or what is said with the clip."""
    if query.seat_id is None:
        return _check(query, student)
    try:
        asked = chairs.seat_check(scope(), query.seat_id, student_id=student.id, asked_id=query.asked_id).of_set(query.set_number)
        return replace(asked, with_instrument=asked.with_instrument and not query.without_it, view="front" if query.from_front else asked.view)
    except InvalidInput as why:
        raise Refused("bad_card", 422) from why


def _check(query: NewTake, student: StudentRecord) -> Check:
    """The check that a clip was filmed for; its instrument is the student's."""
    document = {
        "kind": query.kind, "card": query.card, "view": query.view, "position": query.position, "instrument": student.instrument,
        "with_instrument": query.with_instrument,
    }  # fmt: skip
    try:
        return from_document(document)
    except InvalidInput as why:
        raise Refused("bad_card", 422) from why


def _taken_in(asked: NewTake, check: Check, settings: Settings, grown: Growing | None) -> ClipRecord:
    """The clip on disk; a refusal is kept on record with its reason before it goes back."""
    size = request.content_length if grown is None else asked.came_bytes
    try:
        with contextlib.nullcontext(request.stream) if grown is None else grown.path.open("rb") as stream:
            return take_in(
                stream, announced_bytes=size, file_name=asked.file_name, folder=settings.clips, most_mb=settings.number("most_upload_mb"),
                children=current_app.config["CHILDREN"],
            )  # fmt: skip
    except ClipUnusable as why:
        if grown is not None:
            grown.drop()
        takes.add_refused(
            scope(), student_id=asked.student_id, lesson_id=asked.lesson_id, check=check, code=why.code, facts=facts_of(why.facts)
        )  # fmt: skip
        raise


@routes.get("/<take_id>", responses={200: TakeOut})
def one_take(path: TakePath) -> Response:
    """One take with its progress."""
    return answer(take_out(takes.take_record(scope(), path.take_id)))


@routes.get("/<take_id>/report", responses={200: ReportOut})
def report_of(path: TakePath) -> Response:
    """The newest report, with its sentences."""
    found = reports.newest(scope(), path.take_id)
    if found is None:
        raise NotThere(path.take_id)
    response = Response(json.dumps(with_sentences(json.loads(found.document))), mimetype="application/json")
    response.headers["X-Report-Version"] = str(found.version)
    return response


@routes.get("/<take_id>/clip")
def clip_of(path: TakePath) -> Response:
    """The clip in a form a browser plays, in byte ranges; not for a student whose consent has ended."""
    take = takes.take_record(scope(), path.take_id)
    if take.clip is None or not take.clip.playable_name:
        raise NotThere(path.take_id)
    students.may_film(scope(), take.student.id)
    response = send_from_directory(_settings().clips, take.clip.playable_name, mimetype=take.clip.playable_type, conditional=True)
    response.headers["Cache-Control"] = "private, no-store"
    return response


@routes.get("/<take_id>/stills/<int:at_ms>")
def still_of(path: StillPath) -> Response:
    """The picture of a moment that the report shows as a still; not for a student whose consent has ended."""
    take = takes.take_record(scope(), path.take_id)
    students.may_film(scope(), take.student.id)
    jpeg = picture(_settings().evidence / take.stills_name, path.at_ms) if take.shows_stills else None
    if jpeg is None:
        raise NotThere(path.take_id)
    response = Response(jpeg, mimetype="image/jpeg")
    response.headers["Cache-Control"] = "private, no-store"
    return response


@routes.post("/<take_id>/read-again", responses={200: TakeOut})
def read_again(path: TakePath) -> Response:
    """Read once more; the older report stays on record."""
    students.may_film(scope(), takes.take_record(scope(), path.take_id).student.id)
    return answer(take_out(readings.read_again(scope(), path.take_id)))


@routes.put("/<take_id>/edits", responses={200: TakeOut})
def edit(path: TakePath, body: EditsIn) -> Response:
    """Move turns or beat one, say where the instrument is, or read someone else in the picture: the take is judged anew without its clip."""
    line = TappedLine(body.line.t_s, list(body.line.near_px), list(body.line.far_px)) if body.line else None
    turns = [MovedTurn(**turn.model_dump()) for turn in body.turns]
    edits = Edits(player=body.player, first_inhale_s=body.first_inhale_s, turns=turns, line=line)
    try:
        return answer(take_out(judge_anew(scope(), path.take_id, _settings(), edits=edits)))
    except ReadAgain as why:
        raise Refused("read_again", 409) from why
    except InvalidInput as why:
        raise Refused("bad_edit", 422) from why


@routes.put("/<take_id>/felt", responses={200: TakeOut})
def say_felt(path: TakePath, body: FeltIn) -> Response:
    """What the student says it felt like, before the reading is there."""
    return answer(_seen(takes.say_felt(scope(), path.take_id, body.felt)))


@routes.post("/<take_id>/move", responses={200: TakeOut})
def move(path: TakePath, body: MoveIn) -> Response:
    """This was someone else's clip: it goes to another student, and is judged anew by their rules."""
    record = takes.move(scope(), path.take_id, body.student_id)
    if record.state == "read":
        with contextlib.suppress(ReadAgain):  # what was read stands until the clip is read again
            record = judge_anew(scope(), path.take_id, _settings())
    return answer(take_out(record))


@routes.delete("/<take_id>", responses={200: Done})
def delete(path: TakePath) -> Response:
    """Delete a take, its clip files, what was kept of them, and its reports."""
    takes.delete(scope(), path.take_id)
    sweeping.work_off(_settings())
    return answer(Done(done=True))
