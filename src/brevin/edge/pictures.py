"""Pictures kept of a clip: one for every look at its key points while it is read, and of these the few moments that a report shows as stills.

Each file is a zip of JPEGs, a picture named by its moment in milliseconds.
"""

import contextlib
import zipfile
from collections.abc import Callable, Iterable
from pathlib import Path
from types import TracebackType

import numpy as np
from numpy.typing import NDArray

SEEN, KEPT = ".seen.zip", ".stills.zip"  # instead of the evidence's own ending: while it is read, and afterwards
QUALITY = 88  # lips and fingertips are looked at enlarged


class Pictures:
    """A file that takes every picture as it is seen. ``keep`` is called from one thread at a time. A disk without room costs the pictures, not the reading."""

    def __init__(self, path: Path) -> None:
        self._zip = zipfile.ZipFile(path, "w")
        self._room = True

    def keep(self, t_s: float, rgb: NDArray[np.uint8]) -> None:
        """Put one picture into it. rgb: [height, width, 3]."""
        import cv2  # here: the web server shows pictures, makes none, and is kept small

        if not self._room:
            return
        _, jpeg = cv2.imencode(".jpg", cv2.cvtColor(rgb, cv2.COLOR_RGB2BGR), [cv2.IMWRITE_JPEG_QUALITY, QUALITY])
        try:
            self._zip.writestr(_entry(_named(milliseconds(t_s))), jpeg.tobytes())
        except OSError:
            self._room = False

    def __enter__(self) -> "Pictures":
        return self

    def __exit__(self, kind: type[BaseException] | None, why: BaseException | None, trace: TracebackType | None) -> None:
        with contextlib.suppress(OSError):
            self._zip.close()


def milliseconds(t_s: float) -> int:
    """The moment that names a picture, rounded as the page rounds it."""
    return int(1000.0 * t_s + 0.5)


def pick(seen: Path, kept: Path, moments_s: Iterable[float]) -> bool:
    """Keep the pictures of some moments in a file of their own, whole or not at all; whether there were any, and room for them."""
    wanted, unfinished = {_named(milliseconds(t_s)) for t_s in moments_s}, kept.with_name(kept.name + ".part")
    try:
        with zipfile.ZipFile(seen) as every:
            found = {name: every.read(name) for name in every.namelist() if name in wanted}
        if found:
            with zipfile.ZipFile(unfinished, "w") as file:
                for name, jpeg in sorted(found.items()):
                    file.writestr(_entry(name), jpeg)
            unfinished.replace(kept)
    except (OSError, zipfile.BadZipFile):
        unfinished.unlink(missing_ok=True)
        return False
    return bool(found)


def changed(kept: Path, change: Callable[[NDArray[np.uint8], float], None]) -> None:
    """Change every picture of a file, whole or not at all. change: in place, with its moment."""
    unfinished = kept.with_name(kept.name + ".part")
    try:
        with zipfile.ZipFile(kept) as before, zipfile.ZipFile(unfinished, "w") as after:
            for name in before.namelist():
                after.writestr(_entry(name), _changed(before.read(name), change, _moment_s(name)))
        unfinished.replace(kept)
    finally:
        unfinished.unlink(missing_ok=True)


def _changed(jpeg: bytes, change: Callable[[NDArray[np.uint8], float], None], t_s: float) -> bytes:
    import cv2  # here: the web server shows pictures, makes none, and is kept small

    rgb = np.ascontiguousarray(cv2.imdecode(np.frombuffer(jpeg, np.uint8), 1)[:, :, ::-1])
    change(rgb, t_s)
    return bytes(cv2.imencode(".jpg", rgb[:, :, ::-1], [cv2.IMWRITE_JPEG_QUALITY, QUALITY])[1])


def picture(kept: Path, at_ms: int) -> bytes | None:
    """The JPEG of a moment; None where there is none, or the file is gone or damaged."""
    try:
        with zipfile.ZipFile(kept) as file:
            return file.read(_named(at_ms))
    except (OSError, KeyError, zipfile.BadZipFile):
        return None


def _entry(name: str) -> zipfile.ZipInfo:
    """Without the hour: of the same pictures the same file is made."""
    return zipfile.ZipInfo(name)


def _moment_s(name: str) -> float:
    return int(name.partition(".")[0]) / 1000.0


def _named(at_ms: int) -> str:
    return f"{at_ms:07d}.jpg"
