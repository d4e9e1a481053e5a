"""The list of files that are to go, and which files belong to somebody. Deleting a row and listing its files is one transaction; the files go after it."""

from collections.abc import Iterable
from typing import cast

from brevin.store.database import db
from brevin.store.house_models import FileToGo
from brevin.store.models import Clip, CountCardRow, Take
from brevin.store.records import Folder, LetGo
from brevin.store.scope import Scope


def let_go(scope: Scope, files: Iterable[LetGo]) -> None:
    """Put files on the list. Needs an open connection; belongs into the transaction that makes them nobody's."""
    for file in files:
        FileToGo.insert(folder=file.folder, name=file.name).on_conflict_ignore().execute()


def to_go(scope: Scope) -> list[LetGo]:
    """What still has to go. The list belongs to the house."""
    with db.connection_context():
        return [LetGo(cast(Folder, row.folder), row.name) for row in FileToGo.select().order_by(FileToGo.id)]


def gone(scope: Scope, file: LetGo) -> None:
    """Take a file off the list: it is deleted."""
    with db.connection_context():
        FileToGo.delete().where((FileToGo.folder == file.folder) & (FileToGo.name == file.name)).execute()


def unseen(scope: Scope) -> set[LetGo]:
    """Clips that were not looked at for others in the picture yet: they are given to nobody."""
    with db.connection_context():
        rows = Clip.select(Clip.stored_name, Clip.playable_name).join(Take).where(Clip.blurred_for.is_null() & scope.sees(Take.programme))
        return {LetGo("clips", name) for row in rows for name in (row.stored_name, row.playable_name) if name}


def owned(scope: Scope) -> set[LetGo]:
    """Every file that belongs to a take or a card."""
    with db.connection_context():
        clips = Clip.select(Clip.stored_name, Clip.playable_name).join(Take).where(scope.sees(Take.programme))
        takes = Take.select(Take.evidence_name, Take.stills_name).where(scope.sees(Take.programme))
        shown = CountCardRow.select(CountCardRow.shown_name).where((CountCardRow.shown_name != "") & scope.sees(CountCardRow.programme))
        kept = {LetGo("clips", name) for row in clips for name in (row.stored_name, row.playable_name) if name}
        kept |= {LetGo("clips", row.shown_name) for row in shown}
        return kept | {LetGo("evidence", name) for row in takes for name in (row.evidence_name, row.stills_name) if name}
