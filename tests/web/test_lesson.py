from dataclasses import replace

from brevin.core.verdict.criteria import CRITERIA
from brevin.store import anew, lessons, students
from tests.conftest import CHECK, consent
from tests.store.test_takes import lesson_of, new_take, read_once
from tests.web.test_takes import read, send


def test_today_before_the_first_lesson(page) -> None:
    assert page("GET", "/api/today").json == {"lesson": None, "just_read": [], "last_time": {}, "usual_read_s": 8.0}


def test_today_shows_chairs_in_order_with_consent_and_the_last_take(page, scope, student) -> None:
    other = students.add_student(scope, name="Bo Tarrant", instrument="tuba")
    lesson = lesson_of(scope, student.id, other.id)
    take_id = send(page, student, lesson_id=lesson).json["id"]
    today = page("GET", "/api/today").json
    first, second = today["lesson"]["seats"]
    assert first["student"]["may_film_until"] and second["student"]["may_film_until"] is None
    assert first["take"]["id"] == take_id and second["take"] is None
    assert [t["id"] for t in today["just_read"]] == [take_id]


def test_last_time_is_the_newest_earlier_reading_of_those_who_wait(page, scope, student) -> None:
    earlier = send(page, student).json["id"]
    read(earlier)
    lesson_of(scope, student.id)
    assert page("GET", "/api/today").json["last_time"][str(student.id)]["id"] == earlier


def test_chairs_are_marked_by_the_page(page, scope, student) -> None:
    lesson_of(scope, student.id)
    seat = page("GET", "/api/today").json["lesson"]["seats"][0]
    assert page("PATCH", f"/api/seats/{seat['id']}", json={"away": "not_today"}).json == {"done": True}
    assert page("GET", "/api/today").json["lesson"]["seats"][0]["away"] == "not_today"
    assert page("PATCH", f"/api/seats/{seat['id']}", json={"away": "ill"}).json["code"] == "bad_request"
    assert page("PATCH", "/api/seats/999999", json={"away": ""}).json["code"] == "not_there"


def test_students_by_name(page, scope) -> None:
    for name in ("Zed Arbour", "Amy Larkspur"):
        consent(scope, students.add_student(scope, name=name, instrument="flute").id)
    assert [s["name"] for s in page("GET", "/api/students").json["students"]] == ["Amy Larkspur", "Zed Arbour"]
    assert page("GET", "/api/students/999999/takes").json["code"] == "not_there"


def test_a_students_verdicts_are_asked_for_by_criterion_instrument_and_time(page, scope, student) -> None:
    read(send(page, student).json["id"])
    path = f"/api/students/{student.id}/results"
    [found] = page("GET", path, query_string={"criterion": "pause"}).json["results"]
    assert (found["state"], found["steady_breaths"], found["counted_breaths"], found["overruled"]) == ("work", 1, 3, "")
    take_id = found["take_id"]
    assert page("PUT", f"/api/takes/{take_id}/overrule", json={"criterion": "pause", "state": "steady", "reason": "he laughed"}).status_code == 200
    assert page("GET", path).json["results"][0]["overruled"] == "steady"
    assert page("GET", path, query_string={"instrument": "tuba"}).json["results"] == []
    assert page("GET", path, query_string={"since": "2999-01-01T00:00:00Z"}).json["results"] == []
    assert page("PUT", f"/api/takes/{take_id}/overrule", json={"criterion": "no.such", "state": "steady"}).json["code"] == "bad_request"
    assert page("POST", f"/api/takes/{take_id}/cue", json={"criterion": "pause", "side": "high"}).json == {"done": True}


def test_rules_and_exemptions_are_changed_in_words_that_fit(page, scope, student) -> None:
    assert page("GET", "/api/rules").json == {"programme": {}, "instruments": {}}
    assert page("PUT", "/api/rules", json={"document": {"limits": {"pause.steady_s": 0.5}}, "instrument": "tuba"}).json == {"done": True}
    assert page("GET", "/api/rules").json["instruments"] == {"tuba": {"limits": {"pause.steady_s": 0.5}}}
    assert page("PUT", "/api/rules", json={"document": {"limits": {"no.such": 1}}}).json["code"] == "bad_request"
    assert page("PUT", f"/api/students/{student.id}/exempt", json={"exempt": ["pause"]}).json == {"done": True}
    assert page("PUT", f"/api/students/{student.id}/exempt", json={"exempt": ["no.such"]}).json["code"] == "bad_request"
    assert page("GET", "/api/students").json["students"][0]["exempt"] == ["pause"]
    rows = page("GET", "/api/rules/rows").json["rows"]
    assert [row["criterion"] for row in rows] == [row.key for row in CRITERIA] and all(row["title"] for row in rows)


def test_an_exemption_reaches_the_takes_that_are_there_and_nobody_else_s(page, scope, student, clip) -> None:
    bo = students.add_student(scope, name="Bo Tarrant", instrument="tuba")
    consent(scope, bo.id)
    take, other = new_take(scope, student, clip), new_take(scope, students.student(scope, bo.id), replace(clip, stored_name="other.mp4"))
    for one in (take, other):
        read_once(one.id)
    assert anew.next_to_judge(scope) is None
    page("PUT", f"/api/students/{student.id}/exempt", json={"exempt": ["pause"]})
    assert anew.next_to_judge(scope) == take.id
    anew.cannot_judge(scope, take.id)
    assert anew.next_to_judge(scope) is None, "the other student's stays as it is"


def test_consent_is_given_for_days_and_withdrawn_at_once(page, scope, student) -> None:
    path = f"/api/students/{student.id}/consent"
    assert page("DELETE", path).json == {"clips": 0}
    assert page("GET", "/api/students").json["students"][0]["may_film_until"] is None
    assert page("POST", path, json={"given_by": "g", "from_day": "2020-01-01", "until_day": "2099-01-01"}).json == {"done": True}
    assert page("GET", "/api/students").json["students"][0]["may_film_until"] == "2099-01-01"
    assert page("POST", path, json={"given_by": "g", "from_day": "2020-01-02", "until_day": "2020-01-01"}).json["code"] == "bad_request"


def test_people_are_added_with_a_role(page, scope) -> None:
    new = {"login": "sam", "name": "Sam", "role": "assistant", "password": "long enough"}
    assert page("POST", "/api/people", json=new).json == {"login": "sam", "name": "Sam", "role": "assistant"}
    assert page("POST", "/api/people", json=new).json["code"] == "login_taken"
    assert page("POST", "/api/people", json=new | {"login": "tim", "password": "short"}).json["code"] == "bad_request"
    assert [p["login"] for p in page("GET", "/api/people").json["people"]] == ["owner", "sam"]


def test_on_a_chair_with_a_hold_any_breaths_in_the_mirror_are_rested_from_first(page, scope, student) -> None:
    hold = replace(CHECK, kind="hold")
    lessons.add_seat(scope, lesson_of(scope), student_id=student.id, place=1, minute=0.0, check=hold, side="left")
    [seat] = page("GET", "/api/today").json["lesson"]["seats"]
    assert seat["rest_s"] == 0
    page("PUT", f"/api/seats/{seat['id']}/counted", json={"breaths": 1, "lasted_s": 4})
    assert 25 < page("GET", "/api/today").json["lesson"]["seats"][0]["rest_s"] <= 30


def test_breaths_counted_in_the_mirror_count_for_the_rest(page, scope, student) -> None:
    lesson_of(scope, student.id)
    [seat] = page("GET", "/api/today").json["lesson"]["seats"]
    assert seat["rest_s"] == 0
    path = f"/api/seats/{seat['id']}/counted"
    for _ in range(2):
        assert page("PUT", path, json={"breaths": 3, "lasted_s": 8}).status_code == 200
    assert 25 < page("GET", "/api/today").json["lesson"]["seats"][0]["rest_s"] <= 30
    for body in ({"breaths": 0, "lasted_s": 8}, {"breaths": 3, "lasted_s": 0}, {"breaths": 3}):
        assert page("PUT", path, json=body).status_code == 422
    assert page("PUT", "/api/seats/999999/counted", json={"breaths": 3, "lasted_s": 8}).status_code == 404
