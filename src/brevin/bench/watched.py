"""What a measurement does to the program beside what it measures: how soon another page is answered, and how much memory is held."""

import contextlib
import threading
import time
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from brevin.bench.served import Client, Served

ASK_EVERY_S, WEIGH_EVERY_S = 0.1, 0.1
WEB, READER = "brevin.web.server", "brevin.jobs.reader"


@dataclass
class Watched:
    """peak_mb: largest sum over a process with its children; answered_ms: of the other page; unanswered: its requests that failed."""

    peak_mb: dict[str, float] = field(default_factory=lambda: {WEB: 0.0, READER: 0.0})
    answered_ms: list[float] = field(default_factory=list)
    unanswered: int = 0

    def within_ms(self, share: float) -> float:
        """Milliseconds within which this share of the other page's requests was answered."""
        return sorted(self.answered_ms)[min(int(share * len(self.answered_ms)), len(self.answered_ms) - 1)]


@contextmanager
def watched(server: Served) -> Iterator[Watched]:
    """Another page asks for today all the time, and the processes are weighed."""
    seen, over, other = Watched(), threading.Event(), Client(server.address)

    def ask() -> None:
        while not over.wait(ASK_EVERY_S):
            began = time.monotonic()
            try:
                other("GET", "/api/today")
                seen.answered_ms.append(1000 * (time.monotonic() - began))
            except OSError:
                seen.unanswered += 1

    def weigh() -> None:
        while not over.wait(WEIGH_EVERY_S):
            for name, held_mb in weights_mb(server.data).items():
                seen.peak_mb[name] = max(seen.peak_mb[name], held_mb)

    watchers = [threading.Thread(target=one) for one in (ask, weigh)]
    for one in watchers:
        one.start()
    try:
        yield seen
    finally:
        over.set()
        for one in watchers:
            one.join()


def weights_mb(data: Path) -> dict[str, float]:
    """Memory of a run's web and reader, each with its children; a page of it that several share is counted once."""
    parents, commands = _processes()
    held = dict.fromkeys((WEB, READER), 0.0)
    roots = {name: {pid for pid, command in commands.items() if name in command and _of_run(pid, command, data)} for name in held}
    for pid in parents:
        line = set(_line(pid, parents))
        for name, of_run in roots.items():
            if line & of_run:
                held[name] += _share_mb(pid)
    return held


def _processes() -> tuple[dict[int, int], dict[int, str]]:
    """Every process's parent and command."""
    parents, commands = {}, {}
    for place in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            commands[int(place.name)] = place.joinpath("cmdline").read_text().replace("\0", " ")
            parents[int(place.name)] = int(place.joinpath("stat").read_text().rsplit(")", 1)[1].split()[1])
    return parents, commands


def _line(pid: int, parents: Mapping[int, int]) -> Iterator[int]:
    """A process, its parent, and so on."""
    while pid in parents:
        yield pid
        pid = parents[pid]


def _of_run(pid: int, command: str, data: Path) -> bool:
    with contextlib.suppress(OSError):
        return str(data) in command or f"BREVIN_DATA={data}".encode() in Path(f"/proc/{pid}/environ").read_bytes()
    return False


def _share_mb(pid: int) -> float:
    with contextlib.suppress(OSError, StopIteration, ValueError):
        lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
        return int(next(line for line in lines if line.startswith("Pss:")).split()[1]) / 1000
    return 0.0
