"""A backup: one folder that holds the house as it is now, brought up to date each time. What was deleted here goes there as well, so it keeps no past."""

import contextlib
import fcntl
import secrets
import shutil
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

from brevin.ops import dump
from brevin.ops.backup_folder import SCHEMA, BackupFolder, BackupTrouble, Listed, Manifest, begun
from brevin.ops.settings import FILE, Settings
from brevin.store import backups, database, files
from brevin.store.records import LetGo
from brevin.store.scope import HOUSE

SPARE_BYTES = 64 << 20  # room for the database's part of the next backup beside the last one's


def make(settings: Settings, path: Path, *, replace: bool = False) -> Manifest:
    """Bring the backup in a folder up to date, or make the first. The last one stands until this one is whole, but for what was deleted since. The models are
    bound to the database. Raises BackupTrouble, OSError."""
    if settings.data.resolve() in (path.resolve(), *path.resolve().parents) or path.resolve() in settings.data.resolve().parents:
        raise BackupTrouble(f"{path} and the data folder lie in each other: a backup stands apart, best on another disk")
    with _alone(settings):
        known, folder = backups.place(HOUSE, str(path)), BackupFolder(path)
        if known is not None and known.made_at is not None and folder.key is None:
            raise BackupTrouble(f"the backup that was made in {path} is not there: plug its disk in, or let go of it with --forget")
        key = known.key if known else secrets.token_hex(16)
        folder.claim(key, replace=replace)
        backups.add(HOUSE, str(path), key)
        return _filled(settings, folder)


def forget(settings: Settings, path: Path) -> None:
    """Delete the backup in a folder, which is not brought up to date any more. Raises BackupTrouble where it is not ours, OSError."""
    known, folder = backups.place(HOUSE, str(path)), BackupFolder(path)
    if known is None:
        raise BackupTrouble(f"{path} is not known to hold a backup of {settings.data}; known are: {', '.join(_known()) or 'none'}")
    with _alone(settings):
        if folder.key == known.key:
            folder.clear()
        backups.forget(HOUSE, str(path))


def _known() -> list[str]:
    return [one.path for one in backups.places(HOUSE)]


@contextlib.contextmanager
def _alone(settings: Settings) -> Iterator[None]:
    """One backup of a data folder at a time. Raises BackupTrouble where another is being made."""
    with (settings.data / "backup.lock").open("w") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as why:
            raise BackupTrouble("a backup is being made at this moment; try again in a minute") from why
        yield


def _filled(settings: Settings, folder: BackupFolder) -> Manifest:
    wanted = _wanted()
    held = _kept(folder, wanted)
    _room(settings, folder, wanted - held.keys())
    there = _copied(settings, folder, wanted, held)
    path = str(folder.path)
    knows, at = backups.deletions(HOUSE), database.now()
    stored = _dumped(settings, folder, at)
    late = _copied(settings, folder, _wanted(), there)  # what came while the rest was copied, without what went
    own = [folder.put(settings.data / FILE, None)] if (settings.data / FILE).exists() else []
    made = Manifest(schema=SCHEMA, made_at=at, migrations=database.migrations(), database=stored, files=[*own, *late.values()])
    folder.hold(made)
    backups.made(HOUSE, path, at=at, knows=knows, files=len(late), size_bytes=made.size)
    return made


def _kept(folder: BackupFolder, wanted: set[LetGo]) -> dict[LetGo, Listed]:
    """The files of the last backup that are wanted still. What was deleted here goes from it first, also where the next cannot be made; the rest stands.
    One that cannot be read is made anew whole."""
    try:
        last = folder.manifest
    except BackupTrouble:
        last = None
    if last is None:
        folder.drop_all_but([])
        return {}
    last = last.model_copy(update={"files": [one for one in last.files if folder.where(one).is_file() and (not one.folder or one.file in wanted)]})
    folder.hold(last)
    return {one.file: one for one in last.files if one.folder}


def _wanted() -> set[LetGo]:
    """What belongs into a backup: every file of a take or a card, but for clips whose others in the picture nobody looked for yet."""
    return files.owned(HOUSE) - files.unseen(HOUSE)


def _room(settings: Settings, folder: BackupFolder, new: set[LetGo]) -> None:
    """Raises BackupTrouble where what is new has no room."""
    sizes = [path.stat().st_size for one in new if (path := settings.folder(one.folder) / one.name).exists()]
    short = sum(sizes) + SPARE_BYTES - shutil.disk_usage(folder.path).free
    if short > 0:
        raise BackupTrouble(f"there is no room for the backup in {folder.path}: {short / 1e6:.0f} MB are missing. The last one stands as it was")


def _copied(settings: Settings, folder: BackupFolder, wanted: set[LetGo], held: dict[LetGo, Listed]) -> dict[LetGo, Listed]:
    """The wanted files that are in the backup now. A file is never written anew under its name, so what is held once is not read again; what was deleted
    meanwhile is in none."""
    there = {}
    for one in sorted(wanted, key=lambda file: (file.folder, file.name)):
        source = settings.folder(one.folder) / one.name
        if one in held:
            there[one] = held[one]
        elif source.exists():
            there[one] = folder.put(source, one)
    return there


def _dumped(settings: Settings, folder: BackupFolder, at: datetime) -> Listed:
    path = folder.path / f"brevin-{at:%Y%m%dT%H%M%S%f}.sql.gz"
    with begun(path) as file:
        dump.write(settings, file)
    return folder.listed(path)
