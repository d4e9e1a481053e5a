"""The programme's rules: its own layer and those of its instruments."""

from flask import Response
from flask_openapi3 import APIBlueprint

from brevin.core.kinds import INSTRUMENTS
from brevin.store import programmes
from brevin.web.auth import scope
from brevin.web.schemas import Done, RulesIn, RulesOut
from brevin.web.shapes import answer

routes = APIBlueprint("rules", __name__, url_prefix="/api/rules")


@routes.get("", responses={200: RulesOut})
def rules() -> Response:
    """What the programme changes of the starting values."""
    own: dict[str, dict[str, object]] = {name: document for name in INSTRUMENTS if (document := programmes.rules_document(scope(), instrument=name))}
    return answer(RulesOut(programme=programmes.rules_document(scope()), instruments=own))


@routes.put("", responses={200: Done})
def change_rules(body: RulesIn) -> Response:
    """Replace one layer; takes judged from now on follow it."""
    programmes.change_rules(scope(), body.document, instrument=body.instrument)
    return answer(Done(done=True))
