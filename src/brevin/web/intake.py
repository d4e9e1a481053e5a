"""Taking a clip in: streamed to disk in pieces, with its checksum, whole or not at all."""

import hashlib
import os
import re
import uuid
from pathlib import Path
from typing import IO

from brevin.core.errors import ClipUnusable
from brevin.edge.clip_work import PROBE_LIMITS, looked_over
from brevin.edge.limited import Children, Died
from brevin.store.records import ClipRecord

PIECE_BYTES = 1 << 20
MEGABYTE = 1_000_000
KNOWN_ENDINGS = {".mp4", ".mov", ".m4v", ".webm", ".mkv", ".avi", ".mjpeg", ".mjpg", ".3gp", ".ts"}


def take_in(
    stream: IO[bytes], *, announced_bytes: int | None, file_name: str, folder: Path, most_mb: int, children: Children, sound_too: bool = False
) -> ClipRecord:
    """Write a clip below ``folder`` and look whether it is one.

    announced_bytes: what the sender said it would send; children: open the file in place of this process; sound_too: one without a picture is taken
    as well. Raises ClipUnusable: upload_cut_off, too_large, and those of ``edge.video.probe``; then nothing stays on disk.
    """
    if announced_bytes is not None and announced_bytes > most_mb * MEGABYTE:
        raise ClipUnusable("too_large", most_mb=most_mb)
    folder.mkdir(parents=True, exist_ok=True)
    name = uuid.uuid4().hex + _ending(file_name)
    unfinished = folder / f"{name}.part"
    try:
        checksum, size = _write(stream, unfinished, most_mb=most_mb)
        if announced_bytes is not None and size < announced_bytes:
            raise ClipUnusable("upload_cut_off")
        _looked_over(unfinished, children, sound_too=sound_too)
        unfinished.replace(folder / name)
    finally:
        unfinished.unlink(missing_ok=True)
    return ClipRecord(stored_name=name, original_name=_shown(file_name), sha256=checksum, size_bytes=size, playable_name="", playable_type="")


def _looked_over(path: Path, children: Children, *, sound_too: bool) -> None:
    """Open what was sent in a limited child. Raises ClipUnusable; a file that ends even the child is none that can be opened."""
    if path.stat().st_size == 0:
        raise ClipUnusable("empty_file")
    try:
        children.call(looked_over, str(path), limits=PROBE_LIMITS)
    except ClipUnusable as why:
        if not (sound_too and why.code == "sound_only"):
            raise
    except Died as why:
        raise ClipUnusable("not_a_video", detail=str(why)) from why


def _write(stream: IO[bytes], path: Path, *, most_mb: int) -> tuple[str, int]:
    digest, size = hashlib.sha256(), 0
    with path.open("xb") as file:
        while piece := _piece(stream):
            size += len(piece)
            if size > most_mb * MEGABYTE:
                raise ClipUnusable("too_large", most_mb=most_mb)
            digest.update(piece)
            file.write(piece)
        file.flush()
        os.fsync(file.fileno())
    return digest.hexdigest(), size


def _piece(stream: IO[bytes]) -> bytes:
    """The next piece; a connection that breaks ends the stream, and the length tells."""
    try:
        return stream.read(PIECE_BYTES)
    except OSError:
        return b""


def _ending(file_name: str) -> str:
    ending = Path(file_name).suffix.lower()
    return ending if ending in KNOWN_ENDINGS else ".clip"


def _shown(file_name: str) -> str:
    """The sender's name for the file, without folders and control characters."""
    return re.sub(r"[^\w .()-]", "_", Path(file_name.replace("\\", "/")).name)[:160] or "clip"
