"""One process of a run that is started again when it dies, unless it dies over and over."""

import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

from brevin.ops.children import spawn
from brevin.ops.settings import ROOT, Settings

ENDS_WITHIN_S = 6.0
MOST_DEATHS, WITHIN_S = 5, 60.0  # so often in so long, and something is broken that starting again does not mend


class GivesUp(RuntimeError):
    """A process that dies over and over; the message says where its last words are."""


def reader_command(settings: Settings, readers: int) -> list[str]:
    """The process that reads clips."""
    return [sys.executable, "-m", "brevin.jobs.reader", str(settings.data), str(readers)]


class Service:
    """A named process of a run, its words in a log of the data folder. also: what its environment holds besides; behind: how far it gives
    way to the others."""

    def __init__(self, name: str, settings: Settings, command: Sequence[str], *, lan: bool, also: Mapping[str, str] | None = None, behind: int = 0) -> None:
        self.name = name
        self.log = settings.data / "logs" / f"{name}.log"
        self.process: subprocess.Popen[bytes] | None = None
        self._command, self._behind = command, behind
        self._died_at: list[float] = []
        self._environment = os.environ | {
            "BREVIN_DATA": str(settings.data), "PYTHONPATH": str(ROOT / "src"), "BREVIN_HTTPS": "1" if lan else "0",
            "GLOG_minloglevel": "2", "TF_CPP_MIN_LOG_LEVEL": "2", **(also or {}),
        }  # fmt: skip

    def start(self) -> None:
        """Start the process."""
        self.process = spawn(self._command, self.log, environment=self._environment, behind=self._behind)

    def check(self) -> None:
        """Raises GivesUp where the process has ended."""
        if self.process is not None and self.process.poll() is not None:
            raise GivesUp(f"the {self.name} process ended (exit {self.process.returncode}): {last_line(self.log)} (more in {self.log})")

    def revive(self, *, first: Callable[[], None] = lambda: None) -> None:
        """Start the process again if it ended, once all that it left behind is gone and ``first`` is done. Raises GivesUp."""
        if self.process is None or self.process.poll() is None:
            return
        now = time.monotonic()
        self._died_at = [at for at in self._died_at if now - at < WITHIN_S] + [now]
        if len(self._died_at) > MOST_DEATHS:
            self.check()
        print(f"start: the {self.name} process ended (exit {self.process.returncode}); it is started again", file=sys.stderr, flush=True)
        self.end()
        first()
        self.start()

    def end(self) -> None:
        """Ask the process and its children to end; after a while end them."""
        if self.process is None:
            return
        for kind, patience_s in ((signal.SIGTERM, ENDS_WITHIN_S), (signal.SIGKILL, 3.0)):
            try:
                os.killpg(self.process.pid, kind)
            except ProcessLookupError:
                break
            try:
                self.process.wait(patience_s)
            except subprocess.TimeoutExpired:
                continue
            if _group_gone(self.process.pid):
                return
        self.process.poll()


def _group_gone(group: int) -> bool:
    until = time.monotonic() + 2.0
    while time.monotonic() < until:
        try:
            os.killpg(group, 0)
        except (ProcessLookupError, PermissionError):
            return True
        time.sleep(0.05)
    return False


def last_line(path: Path) -> str:
    """The last thing a log says."""
    lines = path.read_text(errors="replace").strip().splitlines() if path.exists() else []
    return lines[-1][-300:] if lines else ""
