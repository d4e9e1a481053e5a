"""Circles, arrows and notes that a teacher draws on a clip."""

from flask import Response

from brevin.store import drawings, takes
from brevin.store.drawings import Drawn
from brevin.web.auth import scope
from brevin.web.drawing_schemas import DrawingIn, DrawingOut, DrawingPath, DrawingsOut, DrawnOut
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, TakePath
from brevin.web.shapes import answer

routes = routes_of("drawings", __name__, below="/api/takes")


@routes.get("/<take_id>/drawings", responses={200: DrawingsOut})
def drawings_of(path: TakePath) -> Response:
    """What was drawn on this take's clip."""
    kept = drawings.drawings(scope(), takes.take_record(scope(), path.take_id))
    return answer(DrawingsOut(drawings=[DrawingOut(id=one.id, **vars(one.drawn)) for one in kept]))


@routes.post("/<take_id>/drawings", responses={200: DrawnOut})
def draw(path: TakePath, body: DrawingIn) -> Response:
    """Draw on this take's clip."""
    drawn = Drawn(body.shape, body.t_s, body.at_px, body.to_px, " ".join(body.words.split()))
    return answer(DrawnOut(id=drawings.draw(scope(), takes.take_record(scope(), path.take_id), drawn)))


@routes.delete("/<take_id>/drawings/<int:drawing_id>", responses={200: Done})
def rub_out(path: DrawingPath) -> Response:
    """Take a drawing away."""
    drawings.rub_out(scope(), takes.take_record(scope(), path.take_id), path.drawing_id)
    return answer(Done(done=True))
