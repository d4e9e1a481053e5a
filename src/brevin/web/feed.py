"""What is told to open pages: one thread reads the list of changes, each page of that programme has a line of its own."""

import json
import logging
import queue
import threading

from peewee import DatabaseError, InterfaceError

from brevin.store import benches, changes, takes
from brevin.store.records import ChangeRecord, NotThere
from brevin.store.scope import HOUSE
from brevin.web.bench_shapes import run_out

LOOK_EVERY_S = 0.25  # for changes, while a page listens
LOOKING_WITHIN_S = 1.0  # a page is told to look at all by then, even where the database does not answer
HEARTBEAT_S = 10.0  # a line that says nothing, so that a page that went away is noticed
LATE = 100  # changes that may come before one that has a number and is not there yet: its transaction lasted longer
MOST_LISTENERS = 40  # each holds a thread of the web process
MOST_WAITING = 200  # lines a page may be behind; more, and it is told to look at everything anew
log = logging.getLogger("brevin.feed")
Line = dict[str, object]


class TooMany(Exception):
    """No room for another listener."""


class Feed:
    """Its thread is there while somebody listens."""

    def __init__(self) -> None:
        self._listeners: dict[int, tuple[int, queue.Queue[Line]]] = {}
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None
        self._number = 0
        self._woken = threading.Event()
        self.looking = threading.Event()

    def wake(self) -> None:
        """Something was just changed here: look at once, not at the next turn."""
        self._woken.set()

    def listen(self, programme_id: int) -> "Listening":
        """What happens in a programme from now on; None as a heartbeat. Raises TooMany."""
        with self._lock:
            if len(self._listeners) >= MOST_LISTENERS:
                raise TooMany
            self._number += 1
            key, line = self._number, queue.Queue[Line](MOST_WAITING)
            self._listeners[key] = (programme_id, line)
            if self._thread is None:
                self.looking.clear()
                self._thread = threading.Thread(target=self._run, name="feed", daemon=True)
                self._thread.start()
        return Listening(self, key, line)

    def leave(self, key: int) -> None:
        """One page hears no more. With the last one nobody looks for changes."""
        with self._lock:
            self._listeners.pop(key, None)
        self.wake()

    def _over(self) -> bool:
        with self._lock:
            if self._listeners:
                return False
            self._thread = None
            return True

    def _run(self) -> None:
        heard: set[int] | None = None
        silent = False
        while not self._over():
            try:
                if heard is None:
                    last = changes.last(HOUSE)
                    heard = set(range(last - LATE, last + 1))
                    self.looking.set()
                found = [one for one in changes.after(HOUSE, max(heard) - LATE) if one.id not in heard]
                if found:
                    heard |= {one.id for one in found}
                    heard &= set(range(max(heard) - LATE, max(heard) + 1))
                    self._tell(found)
                silent = False
            except (DatabaseError, InterfaceError):  # it is being started again
                if not silent:
                    log.warning("the database does not answer")
                silent = True
            except Exception:  # noqa: BLE001 (a thread that ends here would leave every page unheard)
                log.exception("changes could not be told")
            self._woken.wait(LOOK_EVERY_S)
            self._woken.clear()

    def _tell(self, found: list[ChangeRecord]) -> None:
        lines = {(change.programme_id, change.kind, change.ref): _line(change) for change in found}
        with self._lock:
            for programme_id, line in self._listeners.values():
                for (programme, _, _), content in lines.items():
                    if programme == programme_id:
                        _put(line, content)


class Listening:
    """The line of one page. Gives its place back when it is closed, also where nobody ever read of it (as when only the head was asked)."""

    def __init__(self, feed: Feed, key: int, line: "queue.Queue[Line]") -> None:
        self._feed, self._key, self._line = feed, key, line
        self._first = True

    def __iter__(self) -> "Listening":
        return self

    def __next__(self) -> Line | None:
        """The next thing to tell. First that all is to be looked at, once changes are being looked for, so that none falls between."""
        if self._first:
            self._first = False
            self._feed.looking.wait(LOOKING_WITHIN_S)
            return {"kind": "all"}
        try:
            return self._line.get(timeout=HEARTBEAT_S)
        except queue.Empty:
            return None

    def close(self) -> None:
        """The page is gone."""
        self._feed.leave(self._key)


def _line(change: ChangeRecord) -> Line:
    """A change as a page hears it; of a take how far it is, of a section where it stands, so that no page has to ask."""
    if change.kind == "said":
        return {"kind": "said", "id": change.ref}
    if change.kind not in ("take", "bench"):
        return {"kind": change.kind}
    try:
        if change.kind == "bench":
            return {"kind": "bench", "run": run_out(benches.run(HOUSE, int(change.ref))).model_dump(mode="json")}
        take = takes.take_record(HOUSE, change.ref)
    except NotThere:
        return {"kind": "take", "id": change.ref, "state": "gone"} if change.kind == "take" else {"kind": "all"}
    version = take.headline.report_version if take.headline else 0
    return {"kind": "take", "id": take.id, "state": take.state, "stage": take.stage, "progress": take.progress, "report_version": version}


def _put(line: "queue.Queue[Line]", content: Line) -> None:
    try:
        line.put_nowait(content)
    except queue.Full:
        while not line.empty():
            line.get_nowait()
        line.put_nowait({"kind": "all"})


def as_event(line: Line | None) -> str:
    """The line on the wire."""
    return ": still here\n\n" if line is None else f"data: {json.dumps(line)}\n\n"
