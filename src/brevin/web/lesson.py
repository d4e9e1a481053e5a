"""Today: the lesson's line of chairs, what was just read, who is here."""

from datetime import timedelta

from flask import Response

from brevin.edge.calendars import Entry, calendar_of
from brevin.store import cards, chairs, lessons
from brevin.store.database import now
from brevin.store.records import LessonRecord, SeatRecord, TodayRecord
from brevin.web.at_once import AtOnce
from brevin.web.auth import member, scope, session_of
from brevin.web.lesson_schemas import CountedIn, InFrontIn, LessonPath, OrderIn, SeatCard, SeatChange, SeatPath
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, InFrontOut, TodayOut
from brevin.web.shapes import answer, in_the_room, lesson_out, take_out

routes = routes_of("lesson", __name__, below="/api")
JUST_NOW = timedelta(hours=12)  # a day of lessons
_todays: AtOnce[int | None, TodayRecord] = AtOnce()
"""By programme: what is read of it does not depend on who asks."""


@routes.get("/today", responses={200: TodayOut})
def today() -> Response:
    """Everything the Today page shows."""
    own = scope()
    found = _todays.made(own.programme, lambda: lessons.today(own, since=now() - JUST_NOW))
    lesson = lesson_out(found.lesson, of=session_of()) if found.lesson else None
    if member().role == "phone":
        return answer(TodayOut(lesson=lesson and in_the_room(lesson), just_read=[], last_time={}, usual_read_s=0.0))
    return answer(
        TodayOut(
            lesson=lesson,
            just_read=[take_out(record) for record in found.just_made],
            last_time={student_id: take_out(record) for student_id, record in found.last_time.items()},
            usual_read_s=found.usual_read_s,
        )
    )


@routes.put("/lessons/<int:lesson_id>/order", responses={200: Done})
def reorder(path: LessonPath, body: OrderIn) -> Response:
    """The chairs in another order."""
    try:
        lessons.reorder(scope(), path.lesson_id, body.seat_ids)
    except ValueError as why:
        raise Refused("order_old", 409) from why
    return answer(Done(done=True))


@routes.put("/lessons/<int:lesson_id>/front", responses={200: InFrontOut})
def put_in_front(path: LessonPath, body: InFrontIn) -> Response:
    """This chair is in front now, on this page and the phones that film for it."""
    return answer(InFrontOut(**vars(lessons.put_in_front(scope(), path.lesson_id, body.seat_id, of=session_of()))))


@routes.get("/rota.ics")
def calendar() -> Response:
    """Lessons of now and of the weeks to come, with who is filmed when: first names only, since calendars are shared."""
    found = lessons.coming(scope(), since=now() - JUST_NOW)
    entries = [Entry(f"lesson-{one.id}@brevin", one.title, one.starts_at, one.minutes, tuple(_line(one, seat) for seat in one.seats)) for one in found]
    response = Response(calendar_of(entries, name=member().programme.name, made_at=now()), mimetype="text/calendar")
    response.headers["Content-Disposition"] = "attachment; filename=rota.ics"
    return response


def _line(lesson: LessonRecord, seat: SeatRecord) -> str:
    at = (lesson.starts_at + timedelta(minutes=seat.minute)).astimezone(member().programme.zone)
    return f"{at:%H:%M} {seat.student.name.split()[0]}, {seat.student.instrument.replace('_', ' ')}, {seat.asked.check.name}"


@routes.put("/seats/<int:seat_id>/counted", responses={200: Done})
def note_counted(path: SeatPath, body: CountedIn) -> Response:
    """Breaths counted in the mirror: they count for the student's rest, and nothing else of them is kept."""
    chairs.note_counted(scope(), path.seat_id, breaths=body.breaths, lasted_s=body.lasted_s)
    return answer(Done(done=True))


@routes.put("/seats/<int:seat_id>/card", responses={200: Done})
def give_card(path: SeatPath, body: SeatCard) -> Response:
    """Another card of the ladder for this chair alone."""
    chairs.give_card(scope(), path.seat_id, cards.card(scope(), body.card_id).check)
    return answer(Done(done=True))


@routes.patch("/seats/<int:seat_id>", responses={200: Done})
def change_seat(path: SeatPath, body: SeatChange) -> Response:
    """Not here, not today, or back again."""
    chairs.set_away(scope(), path.seat_id, body.away)
    return answer(Done(done=True))
