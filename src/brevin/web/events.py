"""The stream that tells open pages what happens."""

from collections.abc import Iterator

from flask import Response, current_app

from brevin.store import programmes
from brevin.store.records import NotThere
from brevin.store.scope import Scope
from brevin.web.auth import scope
from brevin.web.feed import Feed, Listening, TooMany, as_event
from brevin.web.problems import Refused
from brevin.web.routes import routes_of

routes = routes_of("events", __name__, below="/api/events")
AGAIN_MS = 2000  # after which a page that lost the line asks again


@routes.get("")
def stream() -> Response:
    """Changes of the programme as server-sent events, until the page goes away or the person is no member any more."""
    feed: Feed = current_app.config["FEED"]
    seen = scope()
    try:
        lines = feed.listen(seen.programme)
    except TooMany as why:
        raise Refused("too_many_pages", 503) from why
    response = Response(_events(lines, seen), mimetype="text/event-stream")
    response.call_on_close(lines.close)
    response.headers["Cache-Control"] = "no-store"
    response.headers["X-Accel-Buffering"] = "no"
    return response


def _events(lines: Listening, seen: Scope) -> Iterator[str]:
    yield f"retry: {AGAIN_MS}\n\n"
    for line in lines:
        if line is None and not _still_member(seen):
            return
        yield as_event(line)


def _still_member(seen: Scope) -> bool:
    try:
        programmes.membership(seen)
    except NotThere:
        return False
    return True
