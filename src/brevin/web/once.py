"""What was done is done once: who asks again under the same name, since the answer got lost, is given the same answer.

Held by the web process: an answer that was lost together with the process is not known any more.
"""

import threading
import time
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass
from typing import NamedTuple

from flask import Response, current_app, session
from flask.typing import ResponseReturnValue

from brevin.web.problems import Refused

HEADER = "Idempotency-Key"
LONGEST_NAME = 64
KEPT_S = 600.0  # in which a clip on a slow line has been sent anew; an answer may hold a student's name
MOST_KEPT, MOST_BYTES = 300, 16_384
UNDER_WAY_S = 15.0  # for which a second asks waits for the first


class Asked(NamedTuple):
    """Who asks for what. name: chosen by the page, new for every press of a hand."""

    programme: int
    person: int
    path: str
    name: str


@dataclass(frozen=True)
class _Answer:
    body: bytes
    status: int
    mimetype: str
    kept_at: float


class Once:
    """The newest answers to what was asked for under a name."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._asked: OrderedDict[Asked, Future[_Answer | None]] = OrderedDict()

    def answered(self, asked: Asked, do: Callable[[], ResponseReturnValue]) -> ResponseReturnValue:
        """What ``do`` answers, done by the first who asks. What is refused, or signs somebody in, may be done again. Raises Refused (under_way) where the first
        is still at it after ``UNDER_WAY_S``."""
        own: Future[_Answer | None] = Future()
        with self._lock:
            self._forget()
            first = self._asked.setdefault(asked, own)
        if first is own:
            return self._first(asked, own, do)
        try:
            known = first.result(UNDER_WAY_S)
        except TimeoutError as why:
            raise Refused("under_way", 409) from why
        return self.answered(asked, do) if known is None else Response(known.body, known.status, mimetype=known.mimetype)

    def _first(self, asked: Asked, own: "Future[_Answer | None]", do: Callable[[], ResponseReturnValue]) -> ResponseReturnValue:
        known = None
        try:
            response = current_app.make_response(do())
            known = _kept(response)
            return response
        finally:
            if known is None:
                with self._lock:
                    self._asked.pop(asked, None)
            own.set_result(known)

    def _forget(self) -> None:
        """Lets go of what is old or too much, from the oldest on; what is under way stays."""
        for asked, one in list(self._asked.items()):
            if not one.done():
                continue
            known = one.result()
            if known and time.monotonic() - known.kept_at < KEPT_S and len(self._asked) <= MOST_KEPT:
                return
            del self._asked[asked]


def _kept(response: Response) -> _Answer | None:
    if response.status_code >= 300 or session.modified or not response.is_sequence:
        return None
    body = response.get_data()
    return _Answer(body, response.status_code, response.mimetype or "", time.monotonic()) if len(body) <= MOST_BYTES else None
