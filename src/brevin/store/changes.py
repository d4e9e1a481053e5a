"""What open pages are to know. A row is added with every change; the web process tells it to the pages of that programme."""

from datetime import timedelta
from typing import cast

from brevin.store.database import db, now
from brevin.store.house_models import PageChange
from brevin.store.records import ChangeKind, ChangeRecord
from brevin.store.scope import Scope

KEPT = timedelta(minutes=10)


def note(scope: Scope, programme_id: int, kind: ChangeKind, ref: str) -> None:
    """Say that something changed. Needs an open connection; belongs into the transaction of the change."""
    PageChange.create(programme=programme_id, kind=kind, ref=ref)


def after(scope: Scope, change_id: int) -> list[ChangeRecord]:
    """Changes after one, the oldest first."""
    with db.connection_context():
        rows = PageChange.select().where((PageChange.id > change_id) & scope.sees(PageChange.programme)).order_by(PageChange.id)
        return [ChangeRecord(row.id, row.programme, cast(ChangeKind, row.kind), row.ref) for row in rows]


def last(scope: Scope) -> int:
    """Number of the newest change, 0 before the first."""
    with db.connection_context():
        row = PageChange.select(PageChange.id).where(scope.sees(PageChange.programme)).order_by(PageChange.id.desc()).first()
        return int(row.id) if row else 0


def forget_old(scope: Scope) -> None:
    """Drop what every page has heard long ago."""
    with db.connection_context():
        PageChange.delete().where((PageChange.at < now() - KEPT) & scope.sees(PageChange.programme)).execute()
