"""A clip that is looked at while it is filmed: its pieces are appended to one file as they come, and a file beside it tells that the last has come."""

import time
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import IO

from brevin.core.errors import ClipUnusable

AGAIN_S = 0.05  # after the last byte that is there
STALLED_S = 15.0  # without a new byte: a page sends every second, so it is gone
ENDING = ".growing"


@dataclass(frozen=True)
class Growing:
    """path: what has come so far; its name says whose it is, ``PROGRAMME-STUDENT-KEY.VIEW.growing``. ended: once it is there, nothing more comes, and it
    holds the path of the whole clip."""

    path: Path

    @property
    def key(self) -> str:
        """The recording's own name in the browser it is filmed in."""
        return self.path.name.split(".")[0].split("-", 2)[2]

    @property
    def view(self) -> str:
        """From which side it is filmed, where the check says so, else auto."""
        return self.path.name.split(".")[1]

    @property
    def ended(self) -> Path:
        """The file that tells the end."""
        return self.path.with_suffix(".ended")

    def end(self, whole: Path) -> None:
        """Tell that ``whole`` is what came, byte for byte."""
        unfinished = self.ended.with_suffix(".part")
        unfinished.write_text(str(whole))
        unfinished.replace(self.ended)
        if not self.path.exists():  # nobody read it
            self.drop()

    def whole(self) -> Path:
        """The whole clip, waited for. Raises ClipUnusable(upload_cut_off) where it does not come."""
        for _ in self.waited():
            if self.ended.exists():
                break
        return Path(self.ended.read_text())

    def waited(self) -> Iterator[None]:
        """Comes round once a moment, while there is hope. Raises ClipUnusable(upload_cut_off)."""
        size, until = -1, 0.0
        while (now := self.size) is not None:
            if now != size:
                size, until = now, time.monotonic() + STALLED_S
            if time.monotonic() > until:
                break
            yield
            time.sleep(AGAIN_S)
        raise ClipUnusable("upload_cut_off")

    @property
    def size(self) -> int | None:
        """Bytes that have come; None once it was dropped."""
        try:
            return self.path.stat().st_size
        except FileNotFoundError:
            return None

    def drop(self) -> None:
        """Delete it; whoever reads it ends."""
        for path in (self.path, self.ended):
            path.unlink(missing_ok=True)


def begun(folder: Path, programme_id: int, student_id: int, key: str, view: str) -> Growing:
    """A new one, of which nothing has come yet."""
    return Growing(folder / f"{programme_id}-{student_id}-{key}.{view}{ENDING}")


def growing(folder: Path, *, programme_id: int | None = None, student_id: int | None = None, key: str | None = None) -> list[Growing]:
    """Those that grow now, or have ended and are still read."""
    named = [("*" if part is None else str(part)) for part in (programme_id, student_id, key)]
    return [Growing(path) for path in sorted(folder.glob(f"{'-'.join(named)}.*{ENDING}"))]


class Pieces:
    """What a decoder reads of a growing clip: it waits for what has not come yet."""

    def __init__(self, growing: Growing) -> None:
        self._growing = growing
        self._file: IO[bytes] = growing.path.open("rb")

    def read(self, size: int) -> bytes:
        """Up to ``size`` bytes, none at the end. Raises ClipUnusable(upload_cut_off) where no more comes."""
        for _ in self._growing.waited():
            ended = self._growing.ended.exists()  # looked at before the bytes are: none come after it
            if (piece := self._file.read(size)) or ended:
                return piece
        return b""

    def close(self) -> None:
        """Let go of the file."""
        self._file.close()
