"""Files that are to go, and files that are nobody's: worked off at once, again at start, and shown by ``./brevin check``."""

from collections.abc import Iterable
from typing import get_args

from brevin.ops.settings import Settings
from brevin.store import files
from brevin.store.records import Folder, LetGo
from brevin.store.scope import HOUSE

FOLDERS: tuple[Folder, ...] = get_args(Folder)


def work_off(settings: Settings) -> int:
    """Delete every file on the list; what cannot be deleted now stays on it. Returns how many went."""
    went = 0
    for file in files.to_go(HOUSE):
        try:
            (settings.folder(file.folder) / file.name).unlink(missing_ok=True)
        except OSError:  # held or not writable now: it stays on the list
            continue
        files.gone(HOUSE, file)
        went += 1
    return went


def drop_unowned(settings: Settings, made: Iterable[LetGo]) -> None:
    """Delete files that were made for a take and that no take came to own, with what was begun of them."""
    owned = files.owned(HOUSE)
    for file in made:
        if file not in owned:
            for name in (file.name, f"{file.name}.part"):
                (settings.folder(file.folder) / name).unlink(missing_ok=True)


def orphans(settings: Settings) -> list[LetGo]:
    """Files below the folders that belong to no take and are not on the list; unfinished ones too."""
    kept = files.owned(HOUSE) | set(files.to_go(HOUSE))
    there = [LetGo(folder, path.name) for folder in FOLDERS for path in sorted(settings.folder(folder).glob("*")) if path.is_file()]
    return [file for file in there if file not in kept]


def missing(settings: Settings) -> list[LetGo]:
    """Files that a take says it has and that are not there."""
    return sorted((f for f in files.owned(HOUSE) if not (settings.folder(f.folder) / f.name).exists()), key=lambda f: (f.folder, f.name))


def sweep(settings: Settings) -> int:
    """At start, while nobody sends or reads: delete what is nobody's. Returns how many files went."""
    found = orphans(settings)
    for file in found:
        (settings.folder(file.folder) / file.name).unlink(missing_ok=True)
    return len(found) + work_off(settings)
