"""A child process for every video that somebody sent: with limits on memory, time, files and file size, and nothing of ours in its memory.

The children are forked by a helper that was started with nothing but its imports (a "fork server"), so that they begin at once and hold no connection,
key or name. They answer in plain JSON; when whoever asked dies, they end.
"""

import contextlib
import ctypes
import json
import multiprocessing
import os
import resource
import signal
import sys
import threading
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from multiprocessing import forkserver
from multiprocessing.connection import Connection
from typing import Any

from brevin.core.errors import ClipUnusable

PR_SET_PDEATHSIG = 1  # Linux: the signal a process gets when its parent dies
SAY_EVERY_S = 0.1  # the same stage again
ENDED_WITHIN_S = 2.0  # after its answer, or a kill
MEGABYTE = 1_000_000

Told = Callable[[str, float], None]
Work = Callable[..., Any]
"""What runs in the child: takes ``told`` and plain arguments, gives plain JSON values. Must be importable by name."""


@dataclass(frozen=True)
class Limits:
    """memory_mb: of data; cpu_s, wall_s: of time; file_mb: largest file written; open_files: at once; behind: gives way to others by so much."""

    memory_mb: int
    cpu_s: int
    wall_s: float
    file_mb: int
    open_files: int = 64
    behind: int = 0


class Died(Exception):
    """The child ended without an answer: killed from outside, or by its own fault."""


class Children:
    """Starts limited children. preload: modules that the helper imports once; straight: forked from this process itself, for one that has nothing in its
    memory yet, such as a command."""

    def __init__(self, preload: Sequence[str] = (), *, straight: bool = False) -> None:
        self._context: Any = multiprocessing.get_context("fork" if straight else "forkserver")
        if not straight:
            self._context.set_forkserver_preload(list(preload))

    def warm(self) -> "Children":
        """Start the helper now, so that the first child has not to wait for its imports."""
        forkserver.ensure_running()
        return self

    def start(self, work: Work, *arguments: object, limits: Limits) -> "Child":
        """A child at work."""
        ours, theirs = self._context.Pipe()
        process = self._context.Process(target=_run, args=(theirs, work, arguments, limits), daemon=True)
        process.start()
        theirs.close()
        return Child(process, ours, time.monotonic() + limits.wall_s)

    def call(self, work: Work, *arguments: object, limits: Limits) -> Any:
        """The work's answer, waited for. Raises ClipUnusable (the work's own, or too_costly where a limit was reached), Died."""
        child = self.start(work, *arguments, limits=limits)
        try:
            while (answer := child.answer(wait_s=1.0)) is None:
                pass
        finally:
            child.kill()
        return answer.value


@dataclass(frozen=True)
class Answer:
    """What a child ended with."""

    value: Any


class Child:
    """One child at work."""

    def __init__(self, process: Any, pipe: Connection, until: float) -> None:
        self.process, self._pipe, self._until = process, pipe, until
        self.progress: tuple[str, float] | None = None

    @property
    def pipe(self) -> Connection:
        """Readable when the child has said something, or ended."""
        return self._pipe

    def answer(self, *, wait_s: float) -> Answer | None:
        """The child's answer, None while it works; what it said meanwhile is in ``progress``. Raises ClipUnusable, Died."""
        if self._pipe.poll(min(wait_s, max(self._until - time.monotonic(), 0.0))):
            return self._heard()
        if time.monotonic() > self._until:
            self.kill()
            raise ClipUnusable("too_costly")
        return None

    def _heard(self) -> Answer | None:
        try:
            kind, value = json.loads(self._pipe.recv_bytes())
        except (EOFError, OSError, ValueError):
            self.process.join(ENDED_WITHIN_S)
            if self.process.exitcode in (-signal.SIGXCPU, -signal.SIGXFSZ):
                raise ClipUnusable("too_costly") from None
            raise Died(f"exit {self.process.exitcode}") from None
        if kind == "progress":
            self.progress = (str(value[0]), float(value[1]))
            return None
        if kind == "unusable":
            raise ClipUnusable(value[0], **value[1])
        if kind == "failed":
            raise Died(value)
        return Answer(value)

    def rest(self, resting: bool) -> None:
        """Stand still, or go on: what it has begun stays as it is."""
        with contextlib.suppress(ProcessLookupError):  # it has ended: whoever hears it next is told so
            os.kill(self.process.pid, signal.SIGSTOP if resting else signal.SIGCONT)

    def kill(self) -> None:
        """End the child now."""
        if self.process.is_alive():
            self.process.kill()
        self.process.join(ENDED_WITHIN_S)
        self._pipe.close()


def _run(pipe: Connection, work: Work, arguments: Sequence[object], limits: Limits) -> None:
    """In the child: limits first, then the work, then its answer."""
    _limit(limits)
    threading.Thread(target=_end_with_asker, args=(pipe,), daemon=True).start()
    said = ("", 0.0)

    def told(stage: str, share: float) -> None:
        nonlocal said
        if stage != said[0] or time.monotonic() - said[1] > SAY_EVERY_S:
            said = (stage, time.monotonic())
            _say(pipe, "progress", [stage, share])

    try:
        _say(pipe, "done", work(told, *arguments))
    except ClipUnusable as why:
        _say(pipe, "unusable", [why.code, why.facts])
    except MemoryError:
        _say(pipe, "unusable", ["too_costly", {}])
    except Exception as error:  # noqa: BLE001 (whatever it is, the one who waits is told)
        _say(pipe, "unusable" if _out_of_memory(error) else "failed", ["too_costly", {}] if _out_of_memory(error) else f"{type(error).__name__}: {error}")
    finally:
        pipe.close()
        sys.stdout.flush()
        os._exit(0)


def _end_with_asker(pipe: Connection) -> None:
    """Nothing is ever sent to a child, so that its end of the line tells only one thing: whoever asked is gone."""
    pipe.poll(None)
    os._exit(1)


def _out_of_memory(error: Exception) -> bool:
    """Libraries say it in their own ways."""
    return "memory" in str(error).lower() or getattr(error, "errno", None) == 12


def _say(pipe: Connection, kind: str, value: object) -> None:
    pipe.send_bytes(json.dumps([kind, value]).encode())


def _limit(limits: Limits) -> None:
    os.nice(limits.behind)
    for signal_ in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(signal_, signal.SIG_DFL)
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGKILL)
    for kind, most in (
        (resource.RLIMIT_DATA, limits.memory_mb * MEGABYTE), (resource.RLIMIT_FSIZE, limits.file_mb * MEGABYTE),
        (resource.RLIMIT_NOFILE, limits.open_files), (resource.RLIMIT_CORE, 0),
    ):  # fmt: skip
        resource.setrlimit(kind, (most, most))
    resource.setrlimit(resource.RLIMIT_CPU, (limits.cpu_s, limits.cpu_s + 2))  # the first of the two says why, the second ends what does not listen
