"""The programme's rules: how it teaches, its own layer and those of its instruments."""

from flask import Response
from flask_openapi3 import APIBlueprint

from brevin.core.kinds import INSTRUMENTS
from brevin.core.verdict.rules import LIMITS
from brevin.core.verdict.schools import QUESTIONS, SCHOOLS, STRICTNESS, USUAL, Method, method_from, strict_limits
from brevin.store import rulebook
from brevin.web.auth import scope
from brevin.web.method_schemas import MethodIn, MethodOut, SchoolsOut
from brevin.web.schemas import Done, RulesIn, RulesOut
from brevin.web.shapes import answer

routes = APIBlueprint("rules", __name__, url_prefix="/api/rules")


@routes.get("", responses={200: RulesOut})
def rules() -> Response:
    """What the programme changes of the starting values."""
    own: dict[str, dict[str, object]] = {name: document for name in INSTRUMENTS if (document := rulebook.rules_document(scope(), instrument=name))}
    return answer(RulesOut(programme=rulebook.rules_document(scope()), instruments=own))


@routes.put("", responses={200: Done})
def change_rules(body: RulesIn) -> Response:
    """Replace one layer; takes judged from now on follow it."""
    rulebook.change_rules(scope(), body.document, instrument=body.instrument)
    return answer(Done(done=True))


@routes.get("/method", responses={200: MethodOut})
def method() -> Response:
    """How the programme teaches: five questions with their schools, what was answered, how strictly it judges."""
    found = rulebook.method(scope())
    how = found or Method()
    still = "shoulders_still.steady"
    rises = {one: strict_limits(one).get(still, LIMITS[still].value) for one in STRICTNESS}
    questions = [SchoolsOut(question=one, schools=list(SCHOOLS[one]), usual=USUAL[one]) for one in QUESTIONS]
    return answer(MethodOut(asked=found is not None, answers=dict(how.answers), strictness=how.strictness, questions=questions, shoulders_pct=rises))


@routes.put("/method", responses={200: Done})
def teach(body: MethodIn) -> Response:
    """Answer some of the questions, or all; takes judged from now on follow."""
    rulebook.teach(scope(), method_from(body.model_dump()))
    return answer(Done(done=True))
