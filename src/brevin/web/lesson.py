"""Today: the lesson's line of chairs, what was just read, who is here; and the list of students."""

from datetime import timedelta

from apiflask import APIBlueprint

from brevin.store import lessons, people, takes
from brevin.store.database import now
from brevin.store.records import LessonRecord
from brevin.web.schemas import Done, SeatChange, StudentList, TakeList, TakeOut, TodayOut
from brevin.web.shapes import lesson_out, student_out, take_out

routes = APIBlueprint("lesson", __name__, url_prefix="/api", tag="lesson")
JUST_READ = 12
JUST_NOW = timedelta(hours=12)  # a day of lessons


@routes.get("/today")
@routes.output(TodayOut)
def today() -> TodayOut:
    """Everything the Today page shows."""
    lesson = lessons.last_lesson()
    return TodayOut(
        lesson=lesson_out(lesson) if lesson else None,
        just_read=[take_out(record) for record in takes.since(now() - JUST_NOW, JUST_READ)],
        last_time=_last_time(lesson) if lesson else {},
    )


def _last_time(lesson: LessonRecord) -> dict[int, TakeOut]:
    """The newest earlier take of those who still have to be filmed."""
    found: dict[int, TakeOut] = {}
    for seat in lesson.seats:
        if seat.take is None:
            earlier = [t for t in takes.of_student(seat.student.id) if t.state == "read"]
            if earlier:
                found[seat.student.id] = take_out(earlier[0])
    return found


@routes.patch("/seats/<int:seat_id>")
@routes.input(SeatChange)
@routes.output(Done)
def change_seat(seat_id: int, json_data: SeatChange) -> Done:
    """Not here, not today, or back again."""
    lessons.set_away(seat_id, json_data.away)
    return Done(done=True)


@routes.get("/students")
@routes.output(StudentList)
def all_students() -> StudentList:
    """Everyone in the programme."""
    return StudentList(students=[student_out(record) for record in people.students()])


@routes.get("/students/<int:student_id>/takes")
@routes.output(TakeList)
def takes_of(student_id: int) -> TakeList:
    """A student's takes, newest first."""
    people.student(student_id)
    return TakeList(takes=[take_out(record) for record in takes.of_student(student_id)])
