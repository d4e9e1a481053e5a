"""Where backups of the house are, and which of them still hold what was deleted here: a withdrawal reaches the backups, too."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from brevin.store.database import db, now
from brevin.store.house_models import BackupPlace, Deletion
from brevin.store.scope import Scope

EVERY = timedelta(days=1)


@dataclass(frozen=True)
class Place:
    """A folder that holds a backup. made_at: the moment that it holds, None before the first is whole; behind: something was deleted after it."""

    path: str
    key: str
    made_at: datetime | None
    files: int
    size_bytes: int
    behind: bool

    @property
    def due(self) -> bool:
        """Whether it is to be made anew."""
        return self.behind or self.made_at is None or self.made_at < now() - EVERY


def places(scope: Scope) -> list[Place]:
    """Every folder that is known to hold a backup. They are of the house."""
    with db.connection_context():
        gone = Deletion.select().count()
        return [
            Place(row.path, row.key, row.made_at, row.files, row.size_bytes, behind=row.knows != gone) for row in BackupPlace.select().order_by(BackupPlace.id)
        ]


def place(scope: Scope, path: str) -> Place | None:
    """What is known of one folder."""
    return next((one for one in places(scope) if one.path == path), None)


def add(scope: Scope, path: str, key: str) -> None:
    """One more folder that is to hold a backup; the one that is known already stays as it is."""
    with db.connection_context():
        BackupPlace.get_or_create(path=path, defaults={"key": key})


def deletions(scope: Scope) -> int:
    """How often something was deleted or withdrawn until now: a backup that begins after it knows of all of them, and is behind where there are more."""
    with db.connection_context():
        return int(Deletion.select().count())


def made(scope: Scope, path: str, *, at: datetime, knows: int, files: int, size_bytes: int) -> None:
    """The folder holds the house as it was at this moment. knows: what ``deletions`` said before."""
    with db.connection_context():
        BackupPlace.update(made_at=at, knows=knows, files=files, size_bytes=size_bytes).where(BackupPlace.path == path).execute()


def forget(scope: Scope, path: str) -> None:
    """The folder holds no backup any more."""
    with db.connection_context():
        BackupPlace.delete().where(BackupPlace.path == path).execute()


def deleted(scope: Scope) -> None:
    """Something was deleted or withdrawn: every backup is behind until it is made anew. Needs an open connection; belongs into the transaction that deletes."""
    Deletion.create()
