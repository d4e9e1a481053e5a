"""A folder that holds a backup: whose it is, what it says that it holds, and files that come and go in it whole."""

import contextlib
import hashlib
import os
from collections.abc import Iterable, Iterator
from datetime import datetime
from pathlib import Path
from typing import IO, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from brevin.store.backups import Place
from brevin.store.records import Folder, LetGo

SCHEMA = "brevin.backup/1"
KEY, MANIFEST, README = "backup.key", "manifest.json", "README.txt"
FILES = "files"
PIECE = 1 << 20
SAYS = """This folder is a backup of Brevin, made by ./brevin backup. It holds children's names and clips: keep it as you keep the data folder.

  ./brevin restore THIS-FOLDER --data NEW-FOLDER     puts it back
  ./brevin backup THIS-FOLDER --forget               deletes it, and it is not brought up to date any more

manifest.json  what is here, with sizes and SHA-256 sums; what it does not name is not part of the backup
*.sql.gz       the database, as SQL
files/         clips, and what was seen in them
"""


class BackupTrouble(RuntimeError):
    """A backup could not be made or put back; the message says what to do."""


class Listed(BaseModel):
    """A file of a backup. folder: of the data folder; "" is the data folder itself."""

    model_config = ConfigDict(frozen=True)
    folder: Folder | Literal[""]
    name: str = Field(pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]{0,120}$")
    size: int
    sha256: str

    @property
    def file(self) -> LetGo:
        """What it is among the files that takes and cards own. Raises ValueError for one of the data folder itself."""
        if self.folder == "":
            raise ValueError(self.name)
        return LetGo(self.folder, self.name)


class Manifest(BaseModel):
    """What a backup holds. migrations: of the tables in it; it is written last, so that what it names is there."""

    schema_name: Literal["brevin.backup/1"] = Field(alias="schema")
    made_at: datetime
    migrations: list[str]
    database: Listed
    files: list[Listed]

    @property
    def size(self) -> int:
        """Bytes of everything."""
        return self.database.size + sum(one.size for one in self.files)


class BackupFolder:
    """One folder, by its path."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def where(self, one: Listed | LetGo) -> Path:
        """The file in this folder."""
        return self.path / FILES / one.folder / one.name if one.folder else self.path / one.name

    @property
    def key(self) -> str | None:
        """Whose backup this is; None where it is nobody's."""
        try:
            return (self.path / KEY).read_text().strip()
        except (FileNotFoundError, NotADirectoryError):
            return None

    @property
    def manifest(self) -> Manifest | None:
        """What is here; None where no backup was ever whole. Raises BackupTrouble where it cannot be read."""
        try:
            return Manifest.model_validate_json((self.path / MANIFEST).read_bytes())
        except FileNotFoundError:
            return None
        except ValidationError as why:
            raise BackupTrouble(f"{self.path / MANIFEST} is damaged ({why.errors()[0]['msg']}): take another copy of this backup") from why

    def claim(self, key: str, *, replace: bool) -> None:
        """Make the folder ours. replace: also where it holds another's backup, which goes. Raises BackupTrouble where it is not ours to fill, OSError."""
        self.path.mkdir(parents=True, exist_ok=True)
        there = self.key
        if there is None and any(self.path.iterdir()):
            raise BackupTrouble(f"{self.path} holds other things: give a folder of its own, such as {self.path / 'brevin-backup'}")
        if there not in (None, key) and not replace:
            raise BackupTrouble(f"{self.path} holds the backup of another data folder: choose another folder, or let it go with --replace")
        if there not in (None, key):
            self.clear()
        _for_the_owner(self.path, 0o700)
        self.write(KEY, key)
        self.write(README, SAYS)

    def write(self, name: str, text: str) -> None:
        """A small file, whole or as it was."""
        with begun(self.path / name) as file:
            file.write(text.encode())

    def put(self, source: Path, one: LetGo | None) -> Listed:
        """Copy a file here; one: None for a file of the data folder itself. Raises OSError."""
        folder, name = ("", source.name) if one is None else (one.folder, one.name)
        listed = Listed(folder=folder, name=name, size=0, sha256="")
        size, sha256 = copied(source, self.where(listed))
        return listed.model_copy(update={"size": size, "sha256": sha256})

    def listed(self, path: Path) -> Listed:
        """A file at the top of this folder, as the manifest names it. Raises OSError."""
        with path.open("rb") as file:
            return Listed(folder="", name=path.name, size=path.stat().st_size, sha256=hashlib.file_digest(file, "sha256").hexdigest())

    def hold(self, manifest: Manifest) -> None:
        """Say what is here, and delete what is not said to be. Raises OSError."""
        self.write(MANIFEST, manifest.model_dump_json(by_alias=True, indent=1))
        self.drop_all_but([manifest.database, *manifest.files])

    def drop_all_but(self, kept: Iterable[Listed]) -> None:
        """Delete what a backup of these files does not hold. Raises OSError."""
        stay = {self.where(one) for one in kept} | {self.path / name for name in (KEY, MANIFEST, README)}
        for path in self._all():
            if path not in stay:
                path.unlink(missing_ok=True)

    def clear(self) -> None:
        """Delete the backup; what else is in the folder stays. The key goes last, so that a folder that was half cleared is still ours. Raises OSError."""
        for path in sorted(self._all(), key=lambda one: one.name == KEY):
            path.unlink(missing_ok=True)

    def _all(self) -> list[Path]:
        """Every file that a backup puts here."""
        tops = [path for name in (MANIFEST, README, KEY, "*.sql.gz", "*.toml", "*.part") for path in self.path.glob(name)]
        return [*tops, *(path for path in (self.path / FILES).rglob("*") if path.is_file())]


def _for_the_owner(path: Path, mode: int) -> None:
    """Nobody else of the machine reads it; a stick's own file system may know no owners."""
    with contextlib.suppress(PermissionError):
        path.chmod(mode)


def is_here(place: Place) -> bool:
    """Whether a backup's folder can be reached: a stick may not be plugged in, or fail, or another's may be in its stead."""
    try:
        return BackupFolder(Path(place.path)).key == place.key
    except (OSError, ValueError):
        return False


@contextlib.contextmanager
def begun(target: Path) -> Iterator[IO[bytes]]:
    """A file that is there once all of it is written and on the disk. Raises OSError."""
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_name(f"{target.name}.part")
    try:
        with part.open("wb") as file:
            _for_the_owner(part, 0o600)
            yield file
            file.flush()
            os.fsync(file.fileno())
        part.replace(target)
    finally:
        part.unlink(missing_ok=True)


def copied(source: Path, target: Path) -> tuple[int, str]:
    """Copy a file; its size and SHA-256 sum. Raises OSError."""
    digest, size = hashlib.sha256(), 0
    with source.open("rb") as read, begun(target) as file:
        while piece := read.read(PIECE):
            digest.update(piece)
            size += len(piece)
            file.write(piece)
    return size, digest.hexdigest()
