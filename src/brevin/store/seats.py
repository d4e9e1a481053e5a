"""How a programme's band sits: kept as one document, so that it changes whole."""

from brevin.core.plan.seating import Here, Rows, seated
from brevin.store.models import Programme
from brevin.store.records import NotThere
from brevin.store.scope import Scope


def rows(scope: Scope, here: Here, *, to_change: bool = False) -> Rows:
    """Everybody of the class on a chair. to_change: nobody else changes it until this transaction ends. Needs an open connection. Raises NotThere."""
    asked = Programme.select(Programme.id, Programme.seating).where(Programme.id == scope.programme)
    row = (asked.for_update() if to_change else asked).first()
    if row is None:
        raise NotThere(str(scope.programme_id))
    return seated(row.seating or [], here)


def keep(scope: Scope, wanted: Rows) -> None:
    """Seat them so from now on. Needs an open connection."""
    Programme.update(seating=[list(row) for row in wanted]).where(Programme.id == scope.programme).execute()
