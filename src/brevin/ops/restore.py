"""A backup put back into a new data folder, whole or not at all."""

import shutil
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from brevin.ops import dump
from brevin.ops import files as sweeping
from brevin.ops import settings as known
from brevin.ops.backup_folder import BackupFolder, BackupTrouble, Listed, Manifest, copied
from brevin.ops.mariadb import MariaDb
from brevin.ops.only_run import connect, migrated
from brevin.store import database, students
from brevin.store.scope import HOUSE


@dataclass(frozen=True)
class Restored:
    """What a data folder holds after it. made_at: the moment of the backup; missing: files that takes name and that the backup does not hold."""

    made_at: datetime
    students: int
    files: int
    missing: int


def restore(source: Path, data: Path) -> Restored:
    """Make a data folder from a backup. Raises BackupTrouble, DatabaseTrouble, OSError; then nothing is where it should have been made."""
    folder = BackupFolder(source)
    manifest = folder.manifest
    if manifest is None:
        raise BackupTrouble(f"{source} holds no backup that is whole" + (": it was never finished" if folder.key else ""))
    _fits(manifest, data)
    unfinished = data.with_name(f"{data.name}.restoring")
    shutil.rmtree(unfinished, ignore_errors=True)
    try:
        unfinished.mkdir(parents=True, mode=0o700)
        found = _put_back(folder, manifest, unfinished)
        if data.exists():
            data.rmdir()
        unfinished.rename(data)
        return found
    finally:
        shutil.rmtree(unfinished, ignore_errors=True)


def _fits(manifest: Manifest, data: Path) -> None:
    """Raises BackupTrouble where the backup cannot go there."""
    if data.exists() and (not data.is_dir() or any(data.iterdir())):
        raise BackupTrouble(f"{data} is not empty: a backup is put back into a new folder, ./brevin restore … --data NEW, and nothing is overwritten")
    newer = set(manifest.migrations) - {path.stem for path in database.MIGRATIONS.glob("0*.py")}
    if newer:
        raise BackupTrouble(f"this backup was made by a newer release ({max(newer)}): update Brevin first")


def _put_back(folder: BackupFolder, manifest: Manifest, data: Path) -> Restored:
    packed = data / manifest.database.name
    for one in (manifest.database, *manifest.files):
        _checked(folder, one, data / one.folder / one.name)
    settings = known.load(data)
    for needed in (settings.clips, settings.evidence):
        needed.mkdir(exist_ok=True)
    server = MariaDb(settings)
    try:
        server.start()
        connect(settings)
        dump.load(settings, packed)
        migrated(settings)
        return Restored(manifest.made_at, len(students.students(HOUSE)), len(manifest.files), len(sweeping.missing(settings)))
    finally:
        packed.unlink(missing_ok=True)
        database.db.close_all()
        server.stop()


def _checked(folder: BackupFolder, one: Listed, place: Path) -> None:
    """One file of the backup in its place. Raises BackupTrouble where it is not what was put there."""
    try:
        found = copied(folder.where(one), place)
    except FileNotFoundError as why:
        raise BackupTrouble(f"{folder.where(one)} is missing: the backup was not copied whole") from why
    if found != (one.size, one.sha256):
        raise BackupTrouble(f"{folder.where(one)} is damaged: take another copy of this backup")
