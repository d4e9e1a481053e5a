"""What helps with a fault: the equipment first, then one drill; and what fits a student, kept and shown when they are next on the chair."""

from flask import Response

from brevin.core.verdict import help as helping
from brevin.core.verdict.help import Part
from brevin.core.verdict.wording import line_words
from brevin.core.verdict.words import CRITERIA
from brevin.store import instruments, students, takes
from brevin.store.instruments import ValueRecord
from brevin.web.auth import scope
from brevin.web.helps_schemas import DrillOut, FitIn, FitOut, FitRange, FitsOut, HelpPart, HelpQuery, HelpsOut
from brevin.web.problems import SENTENCES, Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, StudentPath, TakePath
from brevin.web.shapes import answer

routes = routes_of("helps", __name__, below="/api")


@routes.get("/takes/<take_id>/help", responses={200: HelpsOut})
def help_of(path: TakePath, query: HelpQuery) -> Response:
    """What of seat, stand and instrument to look at for a fault of this take, with what fitted before, and the drill for it."""
    take = takes.take_record(scope(), path.take_id)
    keys = helping.equipment(query.criterion, query.side, take.asked.check.instrument, take.asked.check.position)
    kept = {one.key: one for one in instruments.values(scope(), [take.student.id])}
    drill, words = helping.drill(query.criterion, query.side), CRITERIA[query.criterion]
    parts = [_part(key, helping.PARTS[key], kept.get(key)) for key in keys]
    fault = line_words(query.criterion, query.side)
    return answer(HelpsOut(fault=fault, parts=parts, drill=DrillOut(**vars(drill)), again=words.title))


@routes.get("/students/<int:student_id>/fits", responses={200: FitsOut})
def fits_of(path: StudentPath) -> Response:
    """What fits a student: chair, stand, strap."""
    students.student(scope(), path.student_id)
    own = {one.key: one.value for one in instruments.values(scope(), [path.student_id])}
    return answer(FitsOut(fits=[FitOut(key=key, title=part.title, value=value, unit=fit.unit) for key, part, fit, value in helping.on_record(own)]))


@routes.put("/students/<int:student_id>/fits", responses={200: Done})
def keep_fit(path: StudentPath, body: FitIn) -> Response:
    """Keep what fitted, or take it back."""
    part = helping.PARTS.get(body.key)
    if part is None or part.fit is None:
        raise Refused("bad_request", 422)
    if body.value is not None and not helping.may_be(body.key, body.value):
        fit = part.fit
        raise Refused("no_such_fit", 422, SENTENCES["no_such_fit"].format(title=part.title, low=f"{fit.low:g}", high=f"{fit.high:g}", unit=fit.unit))
    instruments.keep_value(scope(), path.student_id, body.key, body.value)
    return answer(Done(done=True))


def _part(key: str, part: Part, kept: ValueRecord | None) -> HelpPart:
    fit = FitRange(**vars(part.fit)) if part.fit else None
    known = (kept.value, kept.at, kept.by) if kept else (None, None, "")
    return HelpPart(key=key, title=part.title, look=part.look, fit=fit, value=known[0], kept_at=known[1], by=known[2])
