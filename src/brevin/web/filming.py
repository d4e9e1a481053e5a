"""What is being filmed in the page, piece by piece while it is filmed: the reading begins with the first and is done soon after the last.

The pieces are a loan. The page keeps them until their take is there, and sends the clip whole where a piece went missing.
"""

import fcntl

from flask import Response, current_app, request

from brevin.edge.growing import Growing, begun, growing
from brevin.ops.settings import Settings
from brevin.store import chairs, takes
from brevin.store.records import NoConsent, NotThere
from brevin.web.auth import scope
from brevin.web.filming_schemas import FilmingPath, PieceIn, PiecesOut
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done
from brevin.web.shapes import answer

routes = routes_of("filming", __name__, below="/api/filming")
MOST_PIECE_BYTES = 8_000_000  # a second of film is one megabyte
MOST_AT_ONCE = 4  # in a programme: a room films one or two
MEGABYTE = 1_000_000


@routes.post("/<key>", responses={200: PiecesOut}, description="The body is the piece itself.")
def add_piece(path: FilmingPath, query: PieceIn) -> Response:
    """Take the next piece of a recording that goes on. What came of one that may not be filmed any more is deleted."""
    try:
        check = chairs.seat_check(scope(), query.seat_id, student_id=query.student_id, asked_id=query.asked_id).of_set(query.set_number)
        student = takes.may_be_filmed(scope(), query.student_id, check)
    except NoConsent:
        _let_go(path.key)
        raise
    folder = _settings().filming
    known = growing(folder, programme_id=student.programme_id, student_id=student.id, key=path.key)
    if not known and (query.at or len(growing(folder, programme_id=student.programme_id)) >= MOST_AT_ONCE):
        raise Refused("piece_misplaced", 409)
    one = known[0] if known else begun(folder, student.programme_id, student.id, path.key, check.view)
    return answer(PiecesOut(size_bytes=_appended(one, query.at)))


def _appended(one: Growing, at: int) -> int:
    """Size after the request's piece. Raises Refused(piece_misplaced, too_large) where it does not follow what is there, or did not come whole."""
    piece = request.stream.read(MOST_PIECE_BYTES + 1)
    if at + len(piece) > _settings().number("most_upload_mb") * MEGABYTE or len(piece) > MOST_PIECE_BYTES:
        raise Refused("too_large", 413)
    if len(piece) != request.content_length or one.ended.exists():
        raise Refused("piece_misplaced", 409)
    one.path.parent.mkdir(parents=True, exist_ok=True)
    with one.path.open("ab") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        if file.tell() != at:
            raise Refused("piece_misplaced", 409)
        file.write(piece)
    return at + len(piece)


@routes.delete("/<key>", responses={200: Done})
def let_go(path: FilmingPath) -> Response:
    """The count was lost: what came is deleted, and was no try."""
    if not _let_go(path.key):
        raise NotThere(path.key)
    return answer(Done(done=True))


def _let_go(key: str) -> bool:
    """Whether there was anything of it."""
    found = growing(_settings().filming, programme_id=scope().programme, key=key)
    for one in found:
        one.drop()
    return bool(found)


def _settings() -> Settings:
    settings: Settings = current_app.config["BREVIN"]
    return settings
