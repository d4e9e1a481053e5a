"""One program at a time starts a data folder's database: a run, or a command while nothing runs."""

import contextlib
import fcntl
from collections.abc import Iterator
from typing import IO

from brevin.ops.mariadb import MariaDb
from brevin.ops.settings import Settings
from brevin.store import database


def only_run(settings: Settings) -> IO[str]:
    """Hold the data folder, which is made where it is not there. Raises OSError where another holds it."""
    settings.data.mkdir(parents=True, exist_ok=True)
    settings.data.chmod(0o700)  # names, clips and logs of children: nobody else of this machine reads them
    file = (settings.data / "start.lock").open("w")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError as why:
        file.close()
        raise OSError(f"Brevin is already running on {settings.data}; stop it first, or choose another folder with --data") from why
    return file


@contextlib.contextmanager
def database_of(settings: Settings) -> Iterator[None]:
    """The models bound to the folder's database, which is started for as long as this lasts where nothing runs. Raises DatabaseTrouble."""
    try:
        held = only_run(settings)
    except OSError:
        connect(settings)
        yield
        return
    server = MariaDb(settings)
    try:
        server.start()
        migrated(settings)
        yield
    finally:
        server.stop()
        held.close()


def migrated(settings: Settings) -> None:
    """The tables as this release has them, and the models bound to them as the program's own account."""
    database.connect(socket=str(settings.socket), password=settings.values["db_password"], user="root", connections=2)
    database.migrate()  # the tables' shape is changed by root, who may also do away with what an older release kept beside them
    connect(settings)


def connect(settings: Settings) -> None:
    """Bind the models to the folder's database, which runs."""
    database.connect(socket=str(settings.socket), password=settings.values["db_password"], connections=4)
