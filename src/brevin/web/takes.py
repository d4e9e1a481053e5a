"""Takes: send a clip, watch it being read, see the report, delete."""

from typing import Any

from apiflask import APIBlueprint
from flask import Response, current_app, request, send_from_directory

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.plan.card import parse, short_name
from brevin.core.verdict.words import reason_text
from brevin.ops.settings import Settings
from brevin.store import takes
from brevin.store.records import ClipRecord, NotThere
from brevin.web.auth import teacher
from brevin.web.intake import take_in
from brevin.web.problems import Refused
from brevin.web.schemas import Done, NewTake, ReportOut, TakeList, TakeOut
from brevin.web.shapes import take_out

routes = APIBlueprint("takes", __name__, url_prefix="/api/takes", tag="takes")
NEWEST = 60


def _settings() -> Settings:
    settings: Settings = current_app.config["BREVIN"]
    return settings


def _send(take_id: str) -> None:
    current_app.config["SEND"](take_id)


@routes.get("")
@routes.output(TakeList)
def all_takes() -> TakeList:
    """The newest takes."""
    return TakeList(takes=[take_out(record) for record in takes.latest(NEWEST)])


@routes.post("")
@routes.input(NewTake, location="query")
@routes.output(TakeOut, status_code=201)
@routes.doc(description="The body is the clip itself, streamed.")
def new_take(query_data: NewTake) -> TakeOut:
    """Take a clip in and let it be read."""
    card = _card(query_data.card)
    takes.may_film(query_data.student_id)
    settings = _settings()
    clip = _taken_in(query_data, card, settings)
    try:
        record = takes.add(
            student_id=query_data.student_id, teacher_id=teacher().id, lesson_id=query_data.lesson_id, card=card, clip=clip,
            first_inhale_s=query_data.first_inhale_s,
        )  # fmt: skip
    except Exception:
        (settings.clips / clip.stored_name).unlink(missing_ok=True)  # consent withdrawn meanwhile, or the database away: nothing half-written
        raise
    _send(record.id)
    return take_out(record)


def _taken_in(asked: NewTake, card: str, settings: Settings) -> ClipRecord:
    """The clip on disk; a refusal is kept on record with its reason before it goes back."""
    try:
        return take_in(
            request.stream, announced_bytes=request.content_length, file_name=asked.file_name, folder=settings.clips,
            most_mb=settings.number("most_upload_mb"),
        )  # fmt: skip
    except ClipUnusable as why:
        takes.add_refused(
            student_id=asked.student_id, teacher_id=teacher().id, lesson_id=asked.lesson_id, card=card, code=why.code,
            text=reason_text(why.code, why.facts),
        )  # fmt: skip
        raise


def _card(text: str) -> str:
    if not text:
        return ""
    try:
        return short_name(parse(text))
    except InvalidInput as why:
        raise Refused("bad_card", 422) from why


@routes.get("/<take_id>")
@routes.output(TakeOut)
def one_take(take_id: str) -> TakeOut:
    """One take with its progress."""
    return take_out(takes.take_record(take_id))


@routes.get("/<take_id>/report")
@routes.output(ReportOut)
def report_of(take_id: str) -> Any:
    """The newest report."""
    found = takes.report(take_id)
    if found is None:
        raise NotThere(take_id)
    response = Response(found.document, mimetype="application/json")
    response.headers["X-Report-Version"] = str(found.version)
    return response


@routes.get("/<take_id>/clip")
def clip_of(take_id: str) -> Response:
    """The clip in a form a browser plays, in byte ranges."""
    clip = takes.take_record(take_id).clip
    if clip is None or not clip.playable_name:
        raise NotThere(take_id)
    response = send_from_directory(_settings().clips, clip.playable_name, mimetype=clip.playable_type, conditional=True)
    response.headers["Cache-Control"] = "private, no-store"
    return response


@routes.post("/<take_id>/read-again")
@routes.output(TakeOut)
def read_again(take_id: str) -> TakeOut:
    """Read once more; the older report stays on record."""
    record = takes.read_again(take_id)
    _send(record.id)
    return take_out(record)


@routes.delete("/<take_id>")
@routes.output(Done)
def delete(take_id: str) -> Done:
    """Delete a take, its clip files and its reports."""
    for name in takes.delete(take_id):
        (_settings().clips / name).unlink(missing_ok=True)
    return Done(done=True)
