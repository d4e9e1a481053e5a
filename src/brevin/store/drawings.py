"""What teachers draw on a clip: circles, arrows and notes, each at one moment. They stay with the take, and go with it."""

from dataclasses import dataclass
from typing import Literal, cast

from brevin.core.errors import InvalidInput
from brevin.store import changes
from brevin.store.database import db, now
from brevin.store.records import TakeRecord
from brevin.store.said_models import DrawingRow
from brevin.store.scope import Scope

Shape = Literal["circle", "arrow", "note"]
MOST = 30  # of one take: more hide the child


@dataclass(frozen=True)
class Drawn:
    """At one moment, in the clip's pixels. circle: from its middle to a place on it; arrow: from its tail to its tip; note: at a place, with its words."""

    shape: Shape
    t_s: float
    at_px: tuple[float, float]
    to_px: tuple[float, float]
    words: str = ""


@dataclass(frozen=True)
class DrawingRecord:
    id: int
    drawn: Drawn


def drawings(scope: Scope, take: TakeRecord) -> list[DrawingRecord]:
    """What was drawn on a take's clip, in the order of the clip."""
    with db.connection_context():
        rows = DrawingRow.select().where((DrawingRow.take == take.id) & scope.sees(DrawingRow.programme)).order_by(DrawingRow.t_s, DrawingRow.id)
        return [
            DrawingRecord(row.id, Drawn(cast(Shape, row.shape), row.t_s, (row.x_px, row.y_px), (row.to_x_px, row.to_y_px), row.words)) for row in rows
        ]  # fmt: skip


def draw(scope: Scope, take: TakeRecord, drawn: Drawn) -> int:
    """Keep a drawing; returns its id. Raises InvalidInput(bad_drawing) for one too many, and for a note without words."""
    if drawn.shape == "note" and not drawn.words:
        raise InvalidInput("bad_drawing", wanted="a note with words in it")
    (x_px, y_px), (to_x_px, to_y_px) = drawn.at_px, drawn.to_px
    with db.connection_context(), db.atomic():
        if DrawingRow.select().where(DrawingRow.take == take.id).count() >= MOST:
            raise InvalidInput("bad_drawing", wanted=f"{MOST} drawings at most on one clip")
        row = DrawingRow.create(
            **take.columns, shape=drawn.shape, t_s=drawn.t_s, x_px=x_px, y_px=y_px, to_x_px=to_x_px, to_y_px=to_y_px, words=drawn.words,
            by=scope.person_id, said_at=now(),
        )  # fmt: skip
        changes.note(scope, take.programme_id, "said", take.id)
    return int(row.id)


def rub_out(scope: Scope, take: TakeRecord, drawing_id: int) -> None:
    """Take a drawing away; one that is gone already stays so."""
    with db.connection_context(), db.atomic():
        DrawingRow.delete().where((DrawingRow.id == drawing_id) & (DrawingRow.take == take.id) & scope.sees(DrawingRow.programme)).execute()
        changes.note(scope, take.programme_id, "said", take.id)
