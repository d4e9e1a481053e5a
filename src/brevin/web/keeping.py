"""How long clips and stills are kept, and where backups of them are."""

from flask import Response, current_app

from brevin.ops import files as sweeping
from brevin.ops.backup_folder import is_here
from brevin.store import backups, keeping
from brevin.store.backups import Place
from brevin.store.scope import HOUSE
from brevin.web.auth import scope
from brevin.web.keeping_schemas import BackupOut, KeepIn, KeepOut, LetGoOut
from brevin.web.routes import routes_of
from brevin.web.shapes import answer

OFFERED_DAYS = (7, 28, 91, 365)  # a week, four weeks, a term, a year
routes = routes_of("keeping", __name__, below="/api/keeping")


@routes.get("", responses={200: KeepOut})
def kept() -> Response:
    """How long they are kept, how many takes' are older than each time that is offered, and the house's backups."""
    older = keeping.older(scope(), OFFERED_DAYS)
    offered = [{"days": days, "older": count} for days, count in older.items()]
    return answer(KeepOut(days=keeping.keep_days(scope()), offered=offered, backups=[_shown(place) for place in backups.places(HOUSE)]))


@routes.put("", responses={200: LetGoOut})
def keep(body: KeepIn) -> Response:
    """Another time to keep them. What is older goes at once; readings and evidence stay."""
    keeping.set_keep_days(scope(), body.days)
    gone = keeping.let_go(scope())
    sweeping.work_off(current_app.config["BREVIN"])
    return answer(LetGoOut(gone=gone))


def _shown(place: Place) -> BackupOut:
    return BackupOut(path=place.path, made_at=place.made_at, behind=place.behind, here=is_here(place))
