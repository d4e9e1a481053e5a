"""The line of chairs over the wire: in another order, and as a calendar."""

from datetime import timedelta

import pytest
from icalendar import Calendar

from brevin.core.plan.check import Check
from brevin.store import database, lessons, students


@pytest.fixture
def three(scope, student) -> int:
    """A lesson with three chairs, of now."""
    group = students.add_group(scope, "Winds")
    lesson = lessons.add_lesson(scope, title="Tuesday", group_id=group, starts_at=database.now(), minutes=40)
    everyone = [student.id] + [students.add_student(scope, name=name, instrument="alto_sax").id for name in ("Bo Later", "Cy Last")]
    for place, student_id in enumerate(everyone, start=1):
        lessons.add_seat(scope, lesson, student_id=student_id, place=place, minute=2.0 * place, check=Check(), side="right")
    return lesson


def line(page) -> list[tuple[int, str, int, float]]:
    return [(s["id"], s["student"]["name"], s["place"], s["minute"]) for s in page("GET", "/api/today").json["lesson"]["seats"]]


def test_chairs_change_places_and_the_minutes_stay(page, three: int) -> None:
    ids = [seat[0] for seat in line(page)]
    assert page("PUT", f"/api/lessons/{three}/order", json={"seat_ids": [ids[2], ids[0], ids[1]]}).json == {"done": True}
    assert [seat[1:] for seat in line(page)] == [("Cy Last", 1, 2.0), ("Ada Quillane", 2, 4.0), ("Bo Later", 3, 6.0)]


@pytest.mark.parametrize("wrong", [lambda ids: ids[:2], lambda ids: [*ids, ids[0]], lambda ids: [*ids[:2], 999_999]])
def test_an_order_of_other_chairs_changes_nothing(page, three: int, wrong) -> None:
    before = line(page)
    refused = page("PUT", f"/api/lessons/{three}/order", json={"seat_ids": wrong([seat[0] for seat in before])})
    assert (refused.status_code, refused.json["code"]) == (409, "order_old") and line(page) == before


def test_the_rota_is_a_calendar_that_others_read(page, three: int) -> None:
    found = Calendar.from_ical(page("GET", "/api/rota.ics").data)
    (event,) = found.walk("VEVENT")
    assert str(event["summary"]) == "Tuesday" and event["dtend"].dt - event["dtstart"].dt == timedelta(minutes=40)
    told = str(event["description"]).splitlines()
    assert [row.split()[1] for row in told] == ["Ada,", "Bo,", "Cy,"] and "alto sax" in told[1] and "Quillane" not in str(event["description"])
