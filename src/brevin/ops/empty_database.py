"""An empty database folder: made by Debian's tool once for a server's version and copied from then on, since making it takes longer than starting."""

import hashlib
import os
import shutil
import subprocess
from collections.abc import Mapping, Sequence
from pathlib import Path

from brevin.ops.settings import ROOT

KEPT = ROOT / ".build"


class DatabaseTrouble(RuntimeError):
    """The database did not come up or go down; the message says what to do."""


def empty_folder(target: Path, *, user: Sequence[str], environment: Mapping[str, str]) -> None:
    """Make an empty data folder, whole or not at all; it holds no account with a password yet. user: switches of the tool. Raises DatabaseTrouble."""
    unfinished = target.with_name("mariadb.part")
    shutil.rmtree(unfinished, ignore_errors=True)
    known = known_empty()
    if known.exists():
        _copy(known, unfinished)
    else:
        _make(unfinished, user, environment)
        _keep(unfinished, known)
    unfinished.rename(target)


def _make(folder: Path, user: Sequence[str], environment: Mapping[str, str]) -> None:
    tool = program("mariadb-install-db", "/usr/bin/mariadb-install-db")
    command = [tool, "--no-defaults", "--auth-root-authentication-method=normal", "--skip-test-db", f"--datadir={folder}", *user]
    done = subprocess.run(command, capture_output=True, text=True, env=dict(environment))
    if done.returncode:
        raise DatabaseTrouble(f"the database folder could not be made: {done.stderr.strip()[-400:]}")


def known_empty() -> Path:
    """Where an empty data folder of this server's version is kept, for this user."""
    said = subprocess.run([program("mariadbd", "/usr/sbin/mariadbd"), "--version"], capture_output=True, text=True, check=True).stdout
    return KEPT / f"mariadb-{hashlib.sha256(said.encode()).hexdigest()[:12]}-{os.geteuid()}"


def _copy(source: Path, target: Path) -> None:
    """The same folder again; what is empty in its files takes no room. Raises DatabaseTrouble."""
    done = subprocess.run(["cp", "-a", "--sparse=always", str(source), str(target)], capture_output=True, text=True)
    if done.returncode:
        raise DatabaseTrouble(f"the database folder could not be made: {done.stderr.strip()[-400:]}")


def _keep(made: Path, known: Path) -> None:
    """For the next data folder. Where it cannot be kept, that one is made anew."""
    part = known.with_name(f"{known.name}.{os.getpid()}.part")
    try:
        known.parent.mkdir(parents=True, exist_ok=True)
        _copy(made, part)
        part.rename(known)
    except (OSError, DatabaseTrouble):  # another was quicker, or nothing may be written there
        shutil.rmtree(part, ignore_errors=True)


def program(name: str, usual: str) -> str:
    """Where one of the server's programs is. Raises DatabaseTrouble."""
    found = shutil.which(name) or (usual if Path(usual).exists() else None)
    if found is None:
        raise DatabaseTrouble("MariaDB is not installed: run ./start as root once, or apt-get install mariadb-server")
    return found
