"""The bench over the wire."""

import csv
import io

import numpy as np
import pytest
from icalendar import Calendar

from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.store import chairs, lessons, sounds, students
from brevin.store.database import now
from tests.web.conftest import signed_in


@pytest.fixture
def desk(app, scope, student):
    return signed_in(app, scope, "teacher")


@pytest.fixture
def others(scope, student) -> list[int]:
    return [students.add_student(scope, name=name, instrument="clarinet").id for name in ("Bo Lin", "Cy Moss")]


def run_of(desk, phase: str = "together") -> dict:
    answer = desk("post", "/api/bench/runs", json={"card": "clarinet", "phase": phase})
    assert answer.status_code == 200, answer.json
    return answer.json


def tap(desk, run: dict, does: str, **more) -> dict:
    body = {"does": does, **({"step": run["steps"][run["step"]]} if run["step"] < len(run["steps"]) else {}), **more}
    answer = desk("post", f"/api/bench/runs/{run['id']}", json=body)
    assert answer.status_code == 200, answer.json
    return answer.json


def test_sections_are_those_that_have_somebody(desk, others) -> None:
    sections = desk("get", "/api/bench").json["sections"]
    assert [(one["section"], len(one["chairs"]), one["runs"]) for one in sections] == [("Clarinets", 3, [])]


def test_a_card_has_its_steps_notes_and_drawings(desk) -> None:
    card = desk("get", "/api/bench/card?card=saxophone&instrument=tenor_sax").json
    assert card["instrument"] == "tenor_sax" and card["drawings"]["D2"]["shapes"] and card["steps"][0]["key"] == "ready"
    b = next(note for note in card["notes"] if note["key"] == "B4")
    assert (b["reads"]["name"], b["reads"]["where"], b["sounds"]["name"], b["fingers"]) == ("B", "on the third line", "A", ["L1"])
    assert b["reads"]["hz"] == pytest.approx(220.0), "what is heard: a major ninth lower"
    assert desk("get", "/api/bench/card?card=kazoo").json["code"] == "no_instrument"


def test_a_section_through_its_steps(desk, others) -> None:
    run = run_of(desk)
    assert run["steps"][:3] == ["ready", "case", "wet_reed"] and run["since"] and run["away"] == []
    run = tap(desk, run, "help", student=others[0])
    assert [one["student"] for one in run["helping"]] == [others[0]]
    run = tap(desk, run, "right", student=others[0])
    assert run["helping"] == [] and run["helped"] == [others[0]]
    stale = run
    run = tap(desk, run, "next")
    assert tap(desk, stale, "next")["step"] == run["step"] == 1, "the step that was shown is over already"
    while not run["done"]:
        run = tap(desk, run, "next")
    assert desk("get", "/api/bench").json["sections"][0]["runs"] == []


def test_another_way_changes_the_order(desk, others) -> None:
    run = run_of(desk)
    run = tap(desk, run, "choose", word="order=top_apart")
    assert run["steps"][3:6] == ["barrel", "mouthpiece", "reed"] and run["chosen"] == {"order": "top_apart"}
    kept = tap(desk, run, "choose", word="ligature_order=reed_first")
    assert kept["steps"] == run["steps"], "a way without an order leaves the order alone"
    refused = desk("post", f"/api/bench/runs/{run['id']}", json={"does": "choose", "step": "ready", "word": "order=sideways"})
    assert (refused.status_code, refused.json["code"]) == (422, "no_such_way")


def test_the_programme_s_own_way_stands_from_the_start(app, scope, desk, others) -> None:
    owner = signed_in(app, scope, "owner")
    rules = {"gates": {"clarinet": False}, "choices": {"clarinet": {"order": "top_apart"}}, "days": {"clarinet": {"brush": 14}}}
    assert owner("put", "/api/bench/rules", json=rules).status_code == 200
    assert run_of(desk)["steps"][3] == "barrel"
    assert desk("get", "/api/bench/card?card=clarinet").json["gate"]["on"] is False
    brush = next(one for one in desk("get", "/api/bench/care?card=clarinet").json["tasks"] if one["key"] == "brush")
    assert brush["every_days"] == 14
    for wrong in ({"choices": {"clarinet": {"order": "x"}}}, {"days": {"clarinet": {"brush": -1}}}, {"days": {"clarinet": {"polish": 3}}}):
        assert owner("put", "/api/bench/rules", json=wrong).status_code == 422
    assert desk("get", "/api/bench/rules").json == rules


def test_how_one_teaches_is_how_the_bench_begins(app, scope, desk, student) -> None:
    owner = signed_in(app, scope, "owner")
    assert owner("put", "/api/rules/method", json={"answers": {"first_sounds": "whole"}}).status_code == 200
    rungs = desk("get", f"/api/bench/firsts/{student.id}").json["rungs"]
    assert [one["key"] for one in rungs if one["opened"]] == ["G4", "E4", "D4", "C4"]
    assert desk("get", "/api/bench/card?card=clarinet").json["chosen"]["first_sound"] == "whole"


def test_three_good_of_five_open_the_notes(desk, student) -> None:
    def state() -> dict[str, bool]:
        return {one["key"]: one["opened"] for one in desk("get", f"/api/bench/firsts/{student.id}").json["rungs"]}

    def came(rung: str, outcome: str):
        return desk("post", f"/api/bench/firsts/{student.id}", json={"rung": rung, "outcome": outcome})

    assert state() == {"alone": True, "G4": False, "E4": False, "D4": False, "C4": False}
    shut = came("G4", "note")
    assert (shut.status_code, shut.json["code"]) == (409, "not_open_yet")
    assert came("A9", "note").json["code"] == "no_such_note"
    for outcome in ("note", "squeak", "note"):
        assert came("alone", outcome).status_code == 200
    tired = came("alone", "note")
    assert (tired.status_code, tired.json["code"]) == (409, "rest_first") and "seconds" in tired.json["message"]
    assert desk("get", f"/api/bench/firsts/{student.id}").json["rest_s"] > 50


def test_how_long_the_mouthpiece_sounded_is_kept_with_its_try(desk, student) -> None:
    def came(**more):
        return desk("post", f"/api/bench/firsts/{student.id}", json={"rung": "alone", "outcome": "note"} | more)

    for body in ({"length_s": 4.2, "outcome": "squeak"}, {"length_s": 4.2, "rung": "G4"}, {"length_s": 0}, {"length_s": 90}):
        assert came(**body).status_code in (409, 422)
    assert came(length_s=4.26).status_code == 200 and came().status_code == 200
    tries = desk("get", f"/api/bench/firsts/{student.id}").json["rungs"][0]["tries"]
    assert [one["length_s"] for one in tries] == [4.26, None]
    lines = desk("get", f"/api/bench/record/students/{student.id}").json["lines"]
    assert [one["how"] for one in lines if one["what"] == "first note"] == ["note", "note for 4.3 s"]


def test_the_bench_and_the_chair_count_the_same_child_s_breaths(desk, scope, student) -> None:
    lesson = lessons.add_lesson(scope, title="Tuesday", group_id=students.add_group(scope, "Reeds"), starts_at=now(), minutes=30)
    lessons.add_seat(scope, lesson, student_id=student.id, place=1, minute=0.0, check=Check(card=parse("4-0-*@60x1")), side="right")

    def rests() -> tuple[float, float]:
        [seat] = desk("get", "/api/today").json["lesson"]["seats"]
        return desk("get", f"/api/bench/firsts/{student.id}").json["rest_s"], seat["rest_s"]

    assert rests() == (0, 0)
    for _ in range(3):
        sounds.add(scope, student.id, rung="alone", outcome="note")
    assert all(55 < rest <= 60 for rest in rests()), "three longest tries at the mouthpiece: no longest breath before a camera either"
    for made in sounds.tries(scope, [student.id]):
        sounds.take_back(scope, made.id)
    [seat] = lessons.today(scope, since=now()).lesson.seats
    chairs.note_counted(scope, seat.id, breaths=6, lasted_s=30.0)
    assert all(25 < rest <= 30 for rest in rests()), "six counted breaths: rest before the mouthpiece too"
    assert desk("post", f"/api/bench/firsts/{student.id}", json={"rung": "alone", "outcome": "note"}).json["code"] == "rest_first"


def test_what_fixed_it_is_asked_for_sooner(desk, student) -> None:
    standing = desk("post", f"/api/bench/firsts/{student.id}", json={"rung": "alone", "outcome": "squeak"}).json
    assert [one["name"] for one in standing["checks"]["squeak"]][:2] == ["reed", "bridge"]
    made = standing["rungs"][0]["tries"][-1]
    assert desk("put", f"/api/bench/firsts/tries/{made['id']}", json={"by": "bridge"}).status_code == 200
    later = desk("get", f"/api/bench/firsts/{student.id}").json
    assert [(one["name"], one["times"]) for one in later["checks"]["squeak"]][:2] == [("bridge", 1), ("reed", 0)]
    assert desk("delete", f"/api/bench/firsts/tries/{made['id']}").status_code == 200


def test_one_tap_logs_the_section_but_for_who_is_left_out(desk, student, others) -> None:
    logged = desk("post", "/api/bench/care", json={"card": "clarinet", "task": "brush", "but": [others[0]]}).json
    assert set(logged["students"]) == {student.id, others[1]}

    def brushed() -> dict[int, int | None]:
        tasks = desk("get", "/api/bench/care?card=clarinet").json["tasks"]
        return {row["student"]: row["days_left"] for row in next(one for one in tasks if one["key"] == "brush")["rows"]}

    assert brushed() == {student.id: 30, others[1]: 30, others[0]: None}
    assert desk("delete", f"/api/bench/care/logged/{logged['undo']}").status_code == 200
    assert set(brushed().values()) == {None}
    assert desk("post", "/api/bench/care", json={"card": "clarinet", "task": "polish"}).json["code"] == "no_such_task"


def test_a_passport_changes_the_cards(desk, student, others) -> None:
    def applies() -> dict[int, bool]:
        tasks = desk("get", "/api/bench/care?card=clarinet").json["tasks"]
        return {row["student"]: row["applies"] for row in next(one for one in tasks if one["key"] == "warm_in")["rows"]}

    assert not any(applies().values())
    path = f"/api/bench/care/passports/{student.id}"
    assert desk("put", path, json={"answers": {"new_wood": True}, "number": "12", "own": True}).status_code == 200
    assert applies() == {student.id: True, others[0]: False, others[1]: False}
    assert desk("get", path).json["number"] == "12"
    assert desk("put", path, json={"answers": {"rotors": True}}).json["code"] == "no_such_value"


def test_a_value_out_of_range_is_asked_back(desk, student) -> None:
    path = f"/api/bench/care/values/{student.id}"
    asked = desk("put", path, json={"key": "reed_tip_mm", "value": 3})
    assert (asked.status_code, asked.json["code"]) == (409, "asked_back") and "0.2 to 0.5" in asked.json["message"]
    assert desk("put", path, json={"key": "reed_tip_mm", "value": 3, "sure": True}).status_code == 200
    assert desk("put", path, json={"key": "reed_tip_mm", "value": 0.4}).status_code == 200
    assert desk("get", f"/api/bench/care/passports/{student.id}").json["values"] == {"reed_tip_mm": 0.4}
    for wrong in ({"key": "slide_gap_mm", "value": 1}, {"key": "reed_tip_mm", "value": 1e9, "sure": True}, {"key": "reed_tip_mm", "value": "x"}):
        assert desk("put", path, json=wrong).status_code == 422


def test_the_record_says_what_when_and_by_whom(desk, student, others) -> None:
    run = tap(desk, run_of(desk), "help", student=student.id)
    tap(desk, run, "next")
    desk("post", f"/api/bench/firsts/{student.id}", json={"rung": "alone", "outcome": "only_air"})
    desk("post", "/api/bench/care", json={"card": "clarinet", "task": "brush"})
    desk("post", f"/api/bench/care/repairs/{student.id}", json={"what": "=bent key"})
    rows = list(csv.DictReader(io.StringIO(desk("get", "/api/bench/record/record.csv").get_data(as_text=True).lstrip("\ufeff"))))
    own = [(row["what"], row["which"], row["how"]) for row in rows if row["student"] == student.name]
    assert ("step", "ready", "with help") in own and ("first note", "alone", "only air") in own and ("care", "Brush under the keys", "done") in own
    assert all(row["by"] and row["date"] and row["time"] for row in rows), "with date, and by whom"
    assert not any(cell.startswith("=") for row in rows for cell in row.values()), "a table program runs no cell of ours"
    lines = desk("get", f"/api/bench/record/students/{student.id}").json["lines"]
    assert {line["what"] for line in lines} == {"step", "first note", "care", "repair"} and all(line["student"] == student.id for line in lines)


def test_the_calendar_of_care_names_nobody(desk, student, others) -> None:
    found = Calendar.from_ical(desk("get", "/api/bench/care/due.ics").data)
    titles = [str(event["summary"]) for event in found.walk("vevent")]
    assert "Clarinets: wash the mouthpiece" in titles and len(titles) == len(set(titles))
    assert student.name.split()[0] not in found.to_ical().decode()


def test_who_is_away_in_the_lesson_is_away_at_the_bench(app, scope, desk, student) -> None:
    from brevin.store import lessons
    from tests.store.test_takes import lesson_of

    lesson_of(scope, student.id)
    chairs.set_away(scope, lessons.last_lesson(scope).seats[0].id, "not_here")
    assert run_of(desk)["away"] == [student.id]
    assert desk("get", "/api/bench").json["sections"][0]["chairs"][0]["away"] is True


def test_what_was_heard_is_a_suggestion_and_nothing_of_it_is_kept(desk, student) -> None:
    t = np.arange(32_000) / 16_000
    squeak = (9000 * np.sin(2 * np.pi * 1470 * t) * ((t > 0.6) & (t < 0.9))).astype("<i2").tobytes()

    def listen(content: bytes, **query):
        query = {"rate_hz": 16_000, "wanted_hz": 330} | query
        return desk("post", "/api/bench/firsts/heard", query_string=query, data=content, headers={"Content-Type": "application/octet-stream"})

    found = listen(squeak).json
    assert found["like"] == "squeak" and found["hz"] == pytest.approx(1470, rel=0.01)
    assert desk("get", f"/api/bench/firsts/{student.id}").json["rungs"][0]["tries"] == []
    for content, query in ((b"x", {}), (squeak, {"rate_hz": 12}), (bytes(1_600_000), {}), (b"", {})):
        assert listen(content, **query).status_code == 422
