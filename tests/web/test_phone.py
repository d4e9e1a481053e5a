"""A paired phone films and does nothing else; codes and invitations open once."""

from datetime import timedelta

import pytest

from brevin.store import database, exemptions, lessons, one_time
from brevin.store.door_models import OneTime
from brevin.store.scope import HOUSE
from brevin.web.permissions import MAY, NEEDS, allowed
from tests.conftest import DEMO_CLIP
from tests.store.test_takes import lesson_of, new_take, read_once
from tests.web.conftest import Page, signed_in


@pytest.fixture
def phone(app, page) -> Page:
    """A phone that films for the teacher's session."""
    made = Page(app.test_client())
    joined = made("POST", "/api/phone/join", json={"code": page("POST", "/api/phone").json["code"]})
    assert joined.status_code == 200 and joined.json["may"] == ["room"]
    return made


def test_a_code_is_typed_as_it_stands_there_and_opens_once(app, page) -> None:
    code = page("POST", "/api/phone").json["code"]
    first, second = Page(app.test_client()), Page(app.test_client())
    assert first("POST", "/api/phone/join", json={"code": f" {code.lower()} "}).json["role"] == "phone"
    assert second("POST", "/api/phone/join", json={"code": code}).json["code"] == "code_used"
    assert second("POST", "/api/phone/join", json={"code": "WRONG"}).json["code"] == "code_unknown"
    assert second("GET", "/api/today").status_code == 401


def test_a_code_that_has_run_out_opens_nothing(app, page) -> None:
    code = page("POST", "/api/phone").json["code"]
    with database.db.connection_context():
        OneTime.update(until=database.now() - timedelta(seconds=1)).execute()
    assert Page(app.test_client())("POST", "/api/phone/join", json={"code": code}).json["code"] == "code_old"


def test_the_phone_sees_chairs_and_no_verdict_and_films(page, phone: Page, scope, student, clip) -> None:
    exemptions.put(scope, student.id, ["pause"])
    lesson_of(scope, student.id)
    lesson = lessons.last_lesson(scope)
    take = new_take(scope, student, clip)
    read_once(take.id)
    seen = phone("GET", "/api/today").json
    assert seen["just_read"] == [] and seen["lesson"]["seats"][0]["student"]["exempt"] == []
    assert all(seat["take"] is None or seat["take"]["headline"] is None for seat in seen["lesson"]["seats"])
    query = {"student_id": student.id, "seat_id": lesson.seats[0].id, "lesson_id": lesson.id, "file_name": "filmed-here.webm"}
    sent = phone("POST", "/api/takes", query_string=query, data=DEMO_CLIP.read_bytes(), headers={"Content-Type": "application/octet-stream"})
    assert sent.status_code == 201 and sent.json["student"]["exempt"] == []
    assert phone("PUT", f"/api/takes/{sent.json['id']}/felt", json={"felt": "low"}).json["felt"] == "", "what was felt is the teacher's to see"
    assert page("GET", f"/api/takes/{sent.json['id']}").json["felt"] == "low"


def test_the_chair_in_front_is_the_same_on_both_screens_and_on_no_others(app, page, phone: Page, scope, student) -> None:
    lesson_of(scope, student.id)
    lesson = lessons.last_lesson(scope)
    assert page("GET", "/api/today").json["lesson"]["seat_now"] is None
    assert phone("PUT", f"/api/lessons/{lesson.id}/front", json={"seat_id": lesson.seats[0].id}).json["number"] == 1
    assert page("GET", "/api/today").json["lesson"]["seat_now"] == {"seat_id": lesson.seats[0].id, "number": 1}
    assert phone("PUT", f"/api/lessons/{lesson.id}/front", json={"seat_id": 999_999}).status_code == 404
    other = signed_in(app, scope, "teacher")
    assert other("GET", "/api/today").json["lesson"]["seat_now"] is None, "another teacher's page does not jump"


def test_the_phone_reaches_nothing_else(app, phone: Page) -> None:
    for path in ("/api/takes", "/api/students", "/api/class", "/api/rules", "/api/people", "/api/cards", "/api/rota.ics"):
        assert phone("GET", path).json["code"] == "not_yours", path
    assert {endpoint for endpoint in NEEDS if allowed("phone", endpoint)} == {
        "auth.sign_out", "cards.shown", "filming.add_piece", "filming.let_go",
        "events.stream", "lesson.today", "lesson.change_seat", "lesson.put_in_front", "live.ready", "takes.new_take", "takes.say_felt",
    }  # fmt: skip
    assert all(MAY["phone"] < MAY[role] for role in ("assistant", "teacher", "owner"))


def test_the_phones_session_ends_with_the_teachers(page, phone: Page) -> None:
    assert phone("GET", "/api/today").status_code == 200
    page("POST", "/api/sign-out")
    assert phone("GET", "/api/today").status_code == 401


def test_an_invitation_makes_one_person_with_the_role_it_says(app, page) -> None:
    link = page("POST", "/api/invitations", json={"name": "Nia Newcomer", "role": "assistant"}).json["link"]
    code = link.split("#")[1]
    mine = {"code": code, "login": "nia", "password": "ten letters or more"}
    new = Page(app.test_client())
    assert new("POST", "/api/invitations/accept", json=mine | {"login": "owner"}).json["code"] == "login_taken"
    made = new("POST", "/api/invitations/accept", json=mine).json
    assert (made["name"], made["role"]) == ("Nia Newcomer", "assistant")
    assert Page(app.test_client())("POST", "/api/invitations/accept", json=mine | {"login": "eve"}).json["code"] == "code_used"
    assert Page(app.test_client()).sign_in("nia", "ten letters or more").status_code == 200


def test_a_phones_code_invites_nobody_and_the_other_way_round(page) -> None:
    code = page("POST", "/api/phone").json["code"]
    with pytest.raises(one_time.CodeRefused, match="code_unknown"):
        one_time.open_with(HOUSE, "invitation", code)
