"""Logs that stay small: what is older than the last pieces goes, so that a program that runs for years fills no disk and keeps no old names."""

import os
from pathlib import Path

MOST_BYTES = 5_000_000  # of a log; the one before it is kept beside it
KEPT = ".1"


def keep_small(folder: Path, *, most_bytes: int = MOST_BYTES) -> None:
    """Every log that has grown too large becomes the older one and begins anew. It is emptied in place: whoever writes to it holds it open to append."""
    for log in folder.glob("*.log"):
        if log.stat().st_size > most_bytes:
            older = log.with_name(log.name + KEPT)
            older.write_bytes(log.read_bytes()[-most_bytes:])
            older.chmod(0o600)
            os.truncate(log, 0)
