"""Today: the lesson's line of chairs, what was just read, who is here."""

from datetime import timedelta

from flask import Response
from flask_openapi3 import APIBlueprint

from brevin.store import lessons
from brevin.store.database import now
from brevin.web.auth import scope
from brevin.web.schemas import Done, SeatChange, SeatPath, TodayOut
from brevin.web.shapes import answer, lesson_out, take_out

routes = APIBlueprint("lesson", __name__, url_prefix="/api")
JUST_NOW = timedelta(hours=12)  # a day of lessons


@routes.get("/today", responses={200: TodayOut})
def today() -> Response:
    """Everything the Today page shows."""
    found = lessons.today(scope(), since=now() - JUST_NOW)
    return answer(
        TodayOut(
            lesson=lesson_out(found.lesson) if found.lesson else None,
            just_read=[take_out(record) for record in found.just_made],
            last_time={student_id: take_out(record) for student_id, record in found.last_time.items()},
            usual_read_s=found.usual_read_s,
        )
    )


@routes.patch("/seats/<int:seat_id>", responses={200: Done})
def change_seat(path: SeatPath, body: SeatChange) -> Response:
    """Not here, not today, or back again."""
    lessons.set_away(scope(), path.seat_id, body.away)
    return answer(Done(done=True))
