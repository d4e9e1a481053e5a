"""What children do in the tests of their limits."""

import os
import signal
import time
from pathlib import Path

from brevin.core.errors import ClipUnusable


def counts(told, most: int) -> list[int]:
    for i in range(most):
        told(f"counting {i + 1}", (i + 1) / most)
    return list(range(most))


def eats_memory(told, path: str) -> int:
    held = []
    for _ in range(200):
        held.append(bytearray(os.urandom(1 << 20)) * 8)
    return len(held)


def writes_much(told, path: str) -> int:
    signal.signal(signal.SIGXFSZ, signal.SIG_DFL)
    with Path(path).open("wb") as file:
        for _ in range(64):
            file.write(bytes(1 << 20))
            file.flush()
    return 0


def never_ends(told, path: str) -> int:
    while True:
        pass


def sleeps(told, path: str) -> int:
    time.sleep(60)
    return 0


def fails(told) -> float:
    return 1 / 0


def crashes(told) -> None:
    os.kill(os.getpid(), signal.SIGSEGV)


def refuses(told) -> None:
    raise ClipUnusable("too_far", trunk_px=12)


def sees(told, key: str) -> dict[str, object]:
    """Whether the environment holds what was put there after the helper began, and how many sockets are open."""
    links = [str(fd.readlink()) for fd in Path("/proc/self/fd").iterdir() if fd.exists()]
    return {"secret": "BREVIN_SECRET_OF_A_TEST" in os.environ, "sockets": sum(link.startswith("socket:") for link in links)}
