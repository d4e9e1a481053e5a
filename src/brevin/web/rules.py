"""The programme's rules: how it teaches, its own layer and those of its instruments."""

from dataclasses import replace

from flask import Response

from brevin.core.kinds import INSTRUMENTS
from brevin.core.verdict.criteria import CRITERIA as TABLE
from brevin.core.verdict.rules import LIMITS
from brevin.core.verdict.schools import FINER, QUESTIONS, SCHOOLS, STRICTNESS, USUAL, Method, strict_limits
from brevin.core.verdict.words import CRITERIA
from brevin.jobs import trying
from brevin.store import rulebook
from brevin.web.auth import scope
from brevin.web.method_schemas import ChangedOut, FlipOut, JudgedRowOut, JudgedRowsOut, MethodIn, MethodOut, PreviewOut, SchoolsOut, Way, WayOut
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, RulesIn, RulesOut
from brevin.web.shapes import answer

routes = routes_of("rules", __name__, below="/api/rules")
MOST_SHOWN = 60  # takes by name; the number says how many more there are


@routes.get("", responses={200: RulesOut})
def rules() -> Response:
    """What the programme changes of the starting values."""
    own: dict[str, dict[str, object]] = {name: document for name in INSTRUMENTS if (document := rulebook.rules_document(scope(), instrument=name))}
    return answer(RulesOut(programme=rulebook.rules_document(scope()), instruments=own))


@routes.put("", responses={200: Done})
def change_rules(body: RulesIn) -> Response:
    """Replace one layer; takes judged from now on follow it, and those stored whose verdicts change by it are judged anew."""
    with trying.followed(scope()):
        rulebook.change_rules(scope(), body.document, instrument=body.instrument)
    return answer(Done(done=True))


@routes.get("/rows", responses={200: JudgedRowsOut})
def judged_rows() -> Response:
    """Every row that is judged, in the order of the table: what a student may be exempt from."""
    return answer(JudgedRowsOut(rows=[JudgedRowOut(criterion=row.key, title=CRITERIA[row.key].title, unit=row.unit, area=row.area) for row in TABLE]))


@routes.get("/method", responses={200: MethodOut})
def method() -> Response:
    """How the programme teaches: five questions and two finer ones with their schools, what was answered, how strictly it judges."""
    found = rulebook.method(scope())
    how = found or Method()
    still = "shoulders_still.steady"
    rises = {one: strict_limits(one).get(still, LIMITS[still].value) for one in STRICTNESS}
    questions = [SchoolsOut(question=one, schools=list(SCHOOLS[one]), usual=USUAL[one], finer=one in FINER) for one in QUESTIONS]
    return answer(
        MethodOut(
            asked=found is not None, answers=dict(how.answers), strictness=how.strictness, order=list(how.order), questions=questions, shoulders_pct=rises
        )
    )


@routes.put("/method", responses={200: Done})
def teach(body: MethodIn) -> Response:
    """Answer some of the questions, or all; takes judged from now on follow, and those stored whose verdicts change by it are judged anew."""
    with trying.followed(scope()):
        rulebook.teach(scope(), body.model_dump(exclude_none=True))
    return answer(Done(done=True))


@routes.get("/method/preview", responses={200: PreviewOut})
def preview() -> Response:
    """Which of the stored takes would change their verdict if another school were followed, or more or less strictly judged."""
    how = rulebook.method(scope()) or Method()
    trial = trying.Trial(scope())
    others = [Way(question=one, school=school) for one in QUESTIONS for school in SCHOOLS[one] if school != how.answers.get(one, USUAL[one])]
    others += [Way(strictness=one) for one in STRICTNESS if one != how.strictness]
    ways = [_tried(way, trial.taught(_taught_as(way, how))) for way in others]
    return answer(PreviewOut(takes=trial.takes, overruled=trial.overruled, ways=ways))


def _taught_as(way: Way, how: Method) -> Method:
    if way.strictness is not None:
        return replace(how, strictness=way.strictness)
    assert way.question is not None and way.school is not None
    return replace(how, answers={**how.answers, way.question: way.school})


def _tried(way: Way, changed: list[trying.Changed]) -> WayOut:
    return WayOut(**way.model_dump(), count=len(changed), changed=changed_out(changed))


def changed_out(changed: list[trying.Changed]) -> list[ChangedOut]:
    """The newest takes that would change, as they are shown."""
    return [_changed(one) for one in changed[:MOST_SHOWN]]


def _changed(one: trying.Changed) -> ChangedOut:
    take = one.take
    flips = [FlipOut(**vars(flip), title=CRITERIA[flip.criterion].title) for flip in one.flips]
    return ChangedOut(take_id=take.take_id, student=take.student_name, instrument=take.ground.check.instrument, made_at=take.made_at, flips=flips)
