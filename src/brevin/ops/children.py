"""Starting processes that end with us: even when we are killed, none of them stays behind."""

import contextlib
import ctypes
import os
import signal
import subprocess
from collections.abc import Mapping, Sequence
from pathlib import Path

from brevin.ops.settings import ROOT

BEHIND = 5  # niceness of what can wait a little: pages, the live view and the browser that films come first, and the last clip is read all the same
PR_SET_PDEATHSIG = 1  # Linux: the signal a process gets when its parent dies
_libc = ctypes.CDLL(None, use_errno=True)


def spawn(command: Sequence[str], log: Path, *, environment: Mapping[str, str] | None = None, behind: int = 0) -> "subprocess.Popen[bytes]":
    """A process in a session of its own, its words in ``log``, told to end when this one is gone. behind: how far its session gives way to everything else on
    the machine, as niceness."""
    log.parent.mkdir(parents=True, exist_ok=True)
    with log.open("ab") as words:
        process = subprocess.Popen(
            list(command), stdin=subprocess.DEVNULL, stdout=words, stderr=words, env=dict(environment or os.environ), cwd=ROOT,
            start_new_session=True, preexec_fn=_end_with_parent,  # noqa: PLW1509 (one system call, no locks)
        )  # fmt: skip
    if behind:
        _give_way(process.pid, behind)
    return process


def _give_way(pid: int, behind: int) -> None:
    """Where Linux shares time out by session first (autogroup, usual on a desktop), the niceness of a process counts within its own session alone: two
    sessions get equal shares, whatever runs in them."""
    with contextlib.suppress(OSError):  # it ended at once, or this Linux knows no such groups
        Path(f"/proc/{pid}/autogroup").write_text(str(behind))


def _end_with_parent() -> None:
    _libc.prctl(PR_SET_PDEATHSIG, signal.SIGTERM)
