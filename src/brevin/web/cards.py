"""The ladder of count cards."""

from flask import Response
from flask_openapi3 import APIBlueprint

from brevin.core.errors import InvalidInput
from brevin.core.plan.check import Check, from_document
from brevin.core.plan.limits import MOST_IN_A_ROW, REST_S
from brevin.store import cards
from brevin.store.records import CardRecord, CheckRecord
from brevin.web.auth import scope
from brevin.web.card_schemas import CardIn, CardPath, EmptyIn, LadderCard, LadderOut
from brevin.web.problems import SENTENCES, Refused
from brevin.web.schemas import Done
from brevin.web.shapes import answer, check_out

routes = APIBlueprint("cards", __name__, url_prefix="/api/cards")


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


def _put(card_id: int | None, body: CardIn) -> LadderCard:
    try:
        return _out(cards.put(scope(), card_id, rung=body.rung, title=body.title.strip(), check=_check(body)))
    except InvalidInput as why:
        code = why.code if why.code in SENTENCES else "bad_card"
        raise Refused(code, 422, SENTENCES[code].format(**why.facts)) from why


def _check(body: CardIn) -> Check:
    return from_document(body.model_dump(include={"card", "position", "with_instrument", "asks", "countin_words", "full_breath", "contrast", "sets"}))
