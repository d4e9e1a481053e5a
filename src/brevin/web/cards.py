"""The ladder of count cards."""

from flask import Response, current_app, request, send_from_directory

from brevin.core.errors import InvalidInput
from brevin.core.plan.check import Check, from_document
from brevin.core.plan.limits import MOST_IN_A_ROW, REST_S
from brevin.edge.clip_work import SHOW_LIMITS, made_playable
from brevin.edge.limited import Children
from brevin.ops import files as sweeping
from brevin.ops.settings import Settings
from brevin.store import cards
from brevin.store.records import CardRecord, CheckRecord
from brevin.web.auth import scope
from brevin.web.card_schemas import CardIn, CardPath, EmptyIn, LadderCard, LadderOut, ShownPath, ShownQuery
from brevin.web.intake import take_in
from brevin.web.problems import SENTENCES, Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done
from brevin.web.shapes import answer, check_out

MOST_SHOWN_MB, LONGEST_SHOWN_S = 200, 60.0
routes = routes_of("cards", __name__, below="/api/cards")


def _out(record: CardRecord) -> LadderCard:
    lasts_s = sum(card.lasts_s for card in record.check.cards)
    return LadderCard(
        id=record.id, rung=record.rung, title=record.title, check=check_out(CheckRecord(0, record.check)), lasts_s=lasts_s, students=record.students
    )


@routes.get("", responses={200: LadderOut})
def ladder() -> Response:
    """The programme's cards from the first rung on."""
    found = [_out(one) for one in cards.cards(scope())]
    return answer(LadderOut(cards=found, empty_allowed=cards.empty_allowed(scope()), most_in_a_row=MOST_IN_A_ROW, rest_s=REST_S))


@routes.post("", responses={201: LadderCard})
def new_card(body: CardIn) -> Response:
    """One more card."""
    return answer(_put(None, body), 201)


@routes.put("/<int:card_id>", responses={200: LadderCard})
def change_card(path: CardPath, body: CardIn) -> Response:
    """Another card in the place of one."""
    return answer(_put(path.card_id, body))


@routes.delete("/<int:card_id>", responses={200: Done})
def delete_card(path: CardPath) -> Response:
    """Delete a card; takes made of it keep what they were asked."""
    cards.delete(scope(), path.card_id)
    return answer(Done(done=True))


@routes.put("/empty", responses={200: Done})
def allow_empty(body: EmptyIn) -> Response:
    """Switch cards that ask to stay empty on or off."""
    cards.allow_empty(scope(), body.allowed)
    return answer(Done(done=True))


@routes.post("/<int:card_id>/shown", responses={200: LadderCard}, description="The body is the clip itself, streamed.")
def show(path: CardPath, query: ShownQuery) -> Response:
    """The teacher's own demonstration for a card, a clip or sound alone: no child in it."""
    cards.card(scope(), path.card_id)
    settings: Settings = current_app.config["BREVIN"]
    children: Children = current_app.config["CHILDREN"]
    taken = take_in(
        request.stream, announced_bytes=request.content_length, file_name=query.file_name, folder=settings.clips,
        most_mb=MOST_SHOWN_MB, children=children, sound_too=True,
    )  # fmt: skip
    original = settings.clips / taken.stored_name
    try:
        made = children.call(made_playable, str(original), LONGEST_SHOWN_S, limits=SHOW_LIMITS)
        card = cards.show(scope(), path.card_id, made["name"], made["type"])
    except Exception:
        original.unlink(missing_ok=True)
        raise
    if made["name"] != taken.stored_name:
        original.unlink(missing_ok=True)  # the copy that a browser plays is all that is needed
    sweeping.work_off(settings)
    return answer(_out(card))


@routes.delete("/<int:card_id>/shown", responses={200: LadderCard})
def hide(path: CardPath) -> Response:
    """Take a card's demonstration away."""
    found = cards.show(scope(), path.card_id, "", "")
    sweeping.work_off(current_app.config["BREVIN"])
    return answer(_out(found))


@routes.get("/shown/<name>")
def shown(path: ShownPath) -> Response:
    """A demonstration, in byte ranges."""
    name, kind = cards.shown(scope(), path.name)
    response = send_from_directory(current_app.config["BREVIN"].clips, name, mimetype=kind, conditional=True)
    response.headers["Cache-Control"] = "private, no-store"
    return response


def _put(card_id: int | None, body: CardIn) -> LadderCard:
    try:
        return _out(cards.put(scope(), card_id, rung=body.rung, title=body.title.strip(), check=_check(body)))
    except InvalidInput as why:
        code = why.code if why.code in SENTENCES else "bad_card"
        raise Refused(code, 422, SENTENCES[code].format(**why.facts)) from why


def _check(body: CardIn) -> Check:
    return from_document(body.model_dump(exclude={"rung", "title"}))
