"""Backups that are due while Brevin runs: once a day, and within a minute after something was deleted here, wherever the backup's folder is there."""

import contextlib
import os
import subprocess
import sys
import threading
import time
from collections.abc import Iterator

from peewee import DatabaseError, InterfaceError

from brevin.ops.backup_folder import is_here
from brevin.ops.children import BEHIND, spawn
from brevin.ops.service import last_line
from brevin.ops.settings import ROOT, Settings
from brevin.store import backups
from brevin.store.backups import Place
from brevin.store.scope import HOUSE

LOOK_EVERY_S = 30.0
EACH_S = 0.5  # after the one that is being made
AGAIN_AFTER_S = 600.0  # where it failed: a full disk or a wrong folder does not mend itself by the minute


class Due:
    """Makes them, one after the other, each in a process of its own."""

    def __init__(self, settings: Settings) -> None:
        self.log = settings.data / "logs" / "backup.log"
        self._settings = settings
        self._looked_at = float("-inf")
        self._tried: dict[str, float] = {}
        self._running: tuple[str, subprocess.Popen[bytes]] | None = None  # the folder's path, and who fills it
        self._over = threading.Event()

    def begin(self) -> None:
        """Look now and then, until ``stop``: beside whoever looks after the other processes, since a disk that fails may hold up who asks for it."""
        threading.Thread(target=self._go_on, daemon=True).start()

    def _go_on(self) -> None:
        while not self._over.wait(EACH_S):
            with contextlib.suppress(DatabaseError, InterfaceError):  # away, and started again by others
                self.look()

    def look(self) -> None:
        """Begin the next that is due. Raises peewee's errors where the database is away."""
        if self._running is not None:
            self._hear(*self._running)
        elif time.monotonic() > self._looked_at + LOOK_EVERY_S:
            self._looked_at = time.monotonic()
            place = next(self._due(), None)
            if place is not None:
                self._tried[place.path] = time.monotonic()
                command = [sys.executable, "-m", "brevin.cli", "backup", place.path, "--data", str(self._settings.data)]
                environment = os.environ | {"PYTHONPATH": str(ROOT / "src")}
                self._running = place.path, spawn(["nice", *command], self.log, environment=environment, behind=BEHIND)

    def _due(self) -> Iterator[Place]:
        """A folder that is away, such as a stick that is not plugged in, waits until it is there."""
        for place in backups.places(HOUSE):
            waits = time.monotonic() - self._tried.get(place.path, float("-inf")) < AGAIN_AFTER_S
            if place.due and not waits and is_here(place):
                yield place

    def _hear(self, path: str, running: "subprocess.Popen[bytes]") -> None:
        if running.poll() is None:
            return
        self._running = None
        if running.returncode:
            print(f"start: a backup was not made: {last_line(self.log)}", file=sys.stderr, flush=True)
        else:
            self._tried.pop(path, None)

    def stop(self) -> None:
        """End what is being made; the last one stands."""
        self._over.set()
        running = self._running  # the thread that looks may hear of its end meanwhile
        if running is not None:
            running[1].terminate()
            running[1].wait()
