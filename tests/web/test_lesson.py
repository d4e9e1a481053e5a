from brevin.store import lessons, people
from brevin.store.database import now
from tests.conftest import consent
from tests.web.test_takes import read, send


def lesson_with(*student_ids: int) -> int:
    lesson = lessons.add_lesson(title="Third lesson", group_name="Winds", starts_at=now(), minutes=40)
    for place, student_id in enumerate(student_ids, start=1):
        lessons.add_seat(lesson, student_id=student_id, place=place, minute=2.0 * place, card="4-0-6@84x3", position="seated", side="left")
    return lesson


def test_today_before_the_first_lesson(page) -> None:
    assert page("GET", "/api/today").json == {"lesson": None, "just_read": [], "last_time": {}}


def test_today_shows_chairs_in_order_with_consent_and_the_last_take(page, student, store) -> None:
    other = people.add_student(name="Bo Tarrant", instrument="tuba")
    lesson = lesson_with(student.id, other.id)
    take_id = send(page, student, lesson_id=lesson).json["id"]
    today = page("GET", "/api/today").json
    first, second = today["lesson"]["seats"]
    assert first["student"]["may_film_until"] and second["student"]["may_film_until"] is None
    assert first["take"]["id"] == take_id and second["take"] is None
    assert [t["id"] for t in today["just_read"]] == [take_id]


def test_last_time_is_the_newest_earlier_reading_of_those_who_wait(page, student, store) -> None:
    earlier = send(page, student).json["id"]
    read(earlier, store)
    lesson_with(student.id)
    assert page("GET", "/api/today").json["last_time"][str(student.id)]["id"] == earlier


def test_chairs_are_marked_by_the_page(page, student) -> None:
    lesson_with(student.id)
    seat = page("GET", "/api/today").json["lesson"]["seats"][0]
    assert page("PATCH", f"/api/seats/{seat['id']}", json={"away": "not_today"}).json == {"done": True}
    assert page("GET", "/api/today").json["lesson"]["seats"][0]["away"] == "not_today"
    assert page("PATCH", f"/api/seats/{seat['id']}", json={"away": "ill"}).json["code"] == "bad_request"
    assert page("PATCH", "/api/seats/999999", json={"away": ""}).json["code"] == "not_there"


def test_students_by_name(page) -> None:
    for name in ("Zed Arbour", "Amy Larkspur"):
        consent(people.add_student(name=name, instrument="flute").id)
    assert [s["name"] for s in page("GET", "/api/students").json["students"]] == ["Amy Larkspur", "Zed Arbour"]
    assert page("GET", "/api/students/999999/takes").json["code"] == "not_there"
