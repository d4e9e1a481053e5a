"""Starting processes that end with us: even when we are killed, none of them stays behind."""

import ctypes
import os
import signal
import subprocess
from collections.abc import Mapping, Sequence
from pathlib import Path

from brevin.ops.settings import ROOT

PR_SET_PDEATHSIG = 1  # Linux: the signal a process gets when its parent dies
_libc = ctypes.CDLL(None, use_errno=True)


def spawn(command: Sequence[str], log: Path, *, environment: Mapping[str, str] | None = None) -> "subprocess.Popen[bytes]":
    """A process in a group of its own, its words in ``log``, told to end when this one is gone."""
    log.parent.mkdir(parents=True, exist_ok=True)
    with log.open("ab") as words:
        return subprocess.Popen(
            list(command), stdin=subprocess.DEVNULL, stdout=words, stderr=words, env=dict(environment or os.environ), cwd=ROOT,
            start_new_session=True, preexec_fn=_end_with_parent,  # noqa: PLW1509 (one system call, no locks)
        )  # fmt: skip


def _end_with_parent() -> None:
    _libc.prctl(PR_SET_PDEATHSIG, signal.SIGTERM)
