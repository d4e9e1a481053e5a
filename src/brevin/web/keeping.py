"""How long clips and stills are kept."""

from flask import Response, current_app

from brevin.ops import files as sweeping
from brevin.store import keeping
from brevin.web.auth import scope
from brevin.web.keeping_schemas import KeepIn, KeepOut, LetGoOut
from brevin.web.routes import routes_of
from brevin.web.shapes import answer

OFFERED_DAYS = (7, 28, 91, 365)  # a week, four weeks, a term, a year
routes = routes_of("keeping", __name__, below="/api/keeping")


@routes.get("", responses={200: KeepOut})
def kept() -> Response:
    """How long they are kept, and how many takes' are older than each time that is offered."""
    older = keeping.older(scope(), OFFERED_DAYS)
    return answer(KeepOut(days=keeping.keep_days(scope()), offered=[{"days": days, "older": count} for days, count in older.items()]))


@routes.put("", responses={200: LetGoOut})
def keep(body: KeepIn) -> Response:
    """Another time to keep them. What is older goes at once; readings and evidence stay."""
    keeping.set_keep_days(scope(), body.days)
    gone = keeping.let_go(scope())
    sweeping.work_off(current_app.config["BREVIN"])
    return answer(LetGoOut(gone=gone))
