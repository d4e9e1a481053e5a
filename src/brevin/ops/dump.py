"""The database as SQL, out and in, by MariaDB's own programs."""

import contextlib
import gzip
import os
import subprocess
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import IO

from brevin.ops.backup_folder import PIECE, BackupTrouble
from brevin.ops.empty_database import program
from brevin.ops.mariadb import PROGRAM, SCHEMAS
from brevin.ops.settings import Settings

(SCHEMA,) = SCHEMAS
OF_THIS_RUN = ("signed_in", "one_time", "backup_place", "deletion")
"""Who is signed in, codes that open once, where backups are and what they know of: rows that hold for one data folder alone."""


def write(settings: Settings, file: IO[bytes]) -> None:
    """The database as it is at this moment, gzipped. Raises BackupTrouble, OSError."""
    ways = ["--single-transaction", "--no-tablespaces", "--hex-blob", "--default-character-set=utf8mb4", "--max-allowed-packet=64M"]
    ways += [f"--ignore-table-data={SCHEMA}.{table}" for table in OF_THIS_RUN]
    with _client(settings, "mariadb-dump", *ways, SCHEMA) as run, gzip.open(file, "wb", compresslevel=6) as packed:
        assert run.stdout is not None
        while piece := run.stdout.read(PIECE):
            packed.write(piece)


def load(settings: Settings, path: Path) -> None:
    """Fill an empty database. Raises BackupTrouble, OSError."""
    ways = ["--sandbox", "--local-infile=0", "--default-character-set=utf8mb4", "--max-allowed-packet=64M"]  # SQL, and no command of the program itself
    with _client(settings, "mariadb", *ways, SCHEMA) as run, gzip.open(path, "rb") as packed:
        assert run.stdin is not None
        with contextlib.suppress(BrokenPipeError):  # it ended: what it says is told below
            while piece := packed.read(PIECE):
                run.stdin.write(piece)


@contextlib.contextmanager
def _client(settings: Settings, name: str, *ways: str) -> "Iterator[subprocess.Popen[bytes]]":
    """One of MariaDB's programs, signed in as our own account; its password stands in no list of processes. Raises BackupTrouble where it fails."""
    with _signing(settings) as signing, tempfile.TemporaryFile() as words:
        command = [program(name, f"/usr/bin/{name}"), f"--defaults-file={signing}", *ways]
        with subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=words) as run:
            try:
                yield run
                if run.stdin is not None:
                    with contextlib.suppress(BrokenPipeError):
                        run.stdin.close()
                code = run.wait()
            finally:
                run.kill()
        if code:
            words.seek(0)
            raise BackupTrouble(f"the database did not go along: {words.read().decode(errors='replace').strip()[-300:]}")


@contextlib.contextmanager
def _signing(settings: Settings) -> Iterator[Path]:
    """The file that such a program signs in with, for as long as it runs; one that a kill left is written over."""
    path = settings.data / "client.cnf"
    password = settings.values["db_password"].replace("\\", "\\\\").replace('"', '\\"')
    with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
        file.write(f'[client]\nuser={PROGRAM}\npassword="{password}"\nsocket="{settings.socket}"\n')
    try:
        yield path
    finally:
        path.unlink(missing_ok=True)
