"""Ticks: what a teacher saw on the still that no camera sees. They stay with the take, and go with it."""

from typing import cast

from brevin.core.errors import InvalidInput
from brevin.core.hold.ticks import TICKS, TickState
from brevin.store import changes
from brevin.store.database import db, now
from brevin.store.records import TakeRecord
from brevin.store.said_models import TickRow
from brevin.store.scope import Scope


def ticked(scope: Scope, take: TakeRecord) -> dict[str, TickState]:
    """What was ticked of a take, by item; what nobody looked at is left out."""
    with db.connection_context():
        rows = TickRow.select().where((TickRow.take == take.id) & scope.sees(TickRow.programme))
        return {row.item: cast(TickState, row.state) for row in rows}


def tick(scope: Scope, take: TakeRecord, item: str, state: TickState | None) -> None:
    """Put on record what was seen of one item; None takes it back. Raises InvalidInput(bad_tick) for one that the instrument has not."""
    known = [one.key for one in TICKS.get(take.asked.check.instrument, ())]
    if item not in known:
        raise InvalidInput("bad_tick", wanted="one of " + ", ".join(known))
    with db.connection_context(), db.atomic():
        TickRow.delete().where((TickRow.take == take.id) & (TickRow.item == item)).execute()
        if state is not None:
            TickRow.create(**take.columns, item=item, state=state, by=scope.person_id, said_at=now())
        changes.note(scope, take.programme_id, "said", take.id)
