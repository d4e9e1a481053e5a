"""Live: a camera's pictures are looked at as they come, and forgotten. Filming goes on without it."""

import json
import threading
from typing import Any

from flask import Response, current_app, request

from brevin.core.verdict.ready_words import READY
from brevin.edge import talk
from brevin.edge.limited import Children, Died
from brevin.edge.live_work import LIVE_LIMITS, watch
from brevin.ops.settings import ROOT, model_path
from brevin.web.live_schemas import FaceOut, LiveQuery, MirrorOut, ReadyLine, ReadyOut, ReadyQuery
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.shapes import answer

routes = routes_of("live", __name__, below="/api/live")
MOST_BYTES = 400_000  # of one picture
BEGINS_WITHIN_S, ANSWERS_WITHIN_S = 20.0, 10.0  # a second network may have to be loaded for an answer, on a busy machine
TURN_WITHIN_S = 1.0  # for the pictures of others
IDLE_S = 90.0  # then the child that watches ends
DEATHS_UNSAID = 1  # in a row: one alone is begun anew without a word


class Watcher:
    """The one child that looks at live pictures; begun when it is first asked, ended when nobody asks any more."""

    def __init__(self, children: Children) -> None:
        self._children = children
        self._turn = threading.Lock()
        self._talk: talk.Talk | None = None
        self._idle: threading.Timer | None = None
        self._died = 0  # times since it last answered

    def ask(self, question: dict[str, object], picture: bytes) -> dict[str, Any] | None:
        """What the child says of a picture; None where it has no time for it: it answers somebody else, only begins, or ended and is begun with the next
        picture. Raises Refused(live_busy) where it ends again and again."""
        if not self._turn.acquire(timeout=TURN_WITHIN_S):
            return None
        try:
            if self._idle is not None:
                self._idle.cancel()
            found = self._answer(question, picture)
            self._idle = threading.Timer(IDLE_S, self._rest)
            self._idle.daemon = True
            self._idle.start()
        finally:
            self._turn.release()
        return found

    def _answer(self, question: dict[str, object], picture: bytes) -> dict[str, Any] | None:
        within_s = BEGINS_WITHIN_S if self._talk is None else ANSWERS_WITHIN_S
        self._talk = self._talk or talk.begin(self._children, watch, str(model_path(ROOT)), limits=LIVE_LIMITS)
        try:
            found: dict[str, Any] = json.loads(self._talk.ask(json.dumps(question).encode(), picture, within_s=within_s))
        except Died as why:
            self._end()
            self._died += 1
            if self._died > DEATHS_UNSAID:
                raise Refused("live_busy", 503) from why
            return None
        self._died = 0
        return found

    def _rest(self) -> None:
        with self._turn:
            self._end()

    def _end(self) -> None:
        if self._talk is not None:
            self._talk.end()
        self._talk = None


@routes.post("/ready", responses={200: ReadyOut}, description="The body is one picture, JPEG.")
def ready(query: ReadyQuery) -> Response:
    """Whether filming now would give a readable clip: light, player, camera. The picture is not kept."""
    found = _asked({"kind": "ready", "camera": query.camera, "t_s": query.t_s, "wanted": query.wanted, "held": query.held}) or {"lines": []}
    return answer(ReadyOut(lines=[ReadyLine(**one, **READY[one["code"]]._asdict()) for one in found["lines"]]))


@routes.post("/mirror", responses={200: MirrorOut}, description="The body is one picture, JPEG.")
def mirror(query: LiveQuery) -> Response:
    """The three lanes of the last seconds. Neither picture nor lanes are kept."""
    return answer(MirrorOut(**_mirrored("mirror", query)))


@routes.post("/face", responses={200: FaceOut}, description="The body is one picture, JPEG.")
def face(query: LiveQuery) -> Response:
    """Where eyes and mouth are, for the middle line over the mirror. Neither picture nor places are kept."""
    return answer(FaceOut(**_mirrored("face", query)))


def _mirrored(kind: str, query: LiveQuery) -> dict[str, Any]:
    """What a mirror saw, with the words for the time until it does."""
    found = _asked({"kind": kind, "camera": query.camera, "t_s": query.t_s}) or {"state": "looking"}
    state = found.pop("state")
    return {"state": "seen" if state == "seen" else "wait", **READY.get(state, READY["looking"])._asdict(), **found}


def _asked(question: dict[str, object]) -> dict[str, Any] | None:
    picture = request.stream.read(MOST_BYTES + 1)
    if len(picture) > MOST_BYTES:
        raise Refused("too_large", 413)
    watcher: Watcher = current_app.config["WATCHER"]
    found = watcher.ask(question, picture)
    if found and "refused" in found:
        raise Refused(found["refused"], 422)
    return found
