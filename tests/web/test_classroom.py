"""The class over the wire: first account, lists in and out, consent for many, the next lesson."""

from dataclasses import replace
from datetime import timedelta

import pytest

from brevin.store import cards, classes, database, lessons, students, takes
from brevin.store.models import Membership, Person
from tests.conftest import CHECK, consent
from tests.store.test_takes import FOUND, VERDICT, new_take, read_once

LIST = "Surname;First name;Plays\r\nQuillane;Ada;Clarinet\r\nVantréen;Bo;Trumpet\r\nFenn;Dara;Alto saxophone\r\nNoor;Eli;theremin\r\n"
FIRST = {"programme": "Made-up winds", "time_zone": "Europe/Lisbon", "name": "Ida Varga", "login": "ida", "password": "ten letters or more"}


def look(page, content: bytes):
    return page("POST", "/api/class/list", data=content, headers={"Content-Type": "text/csv"})


@pytest.fixture
def empty(app, door):
    """A program in which nobody has an account."""
    with database.db.connection_context():
        Membership.delete().execute()
        Person.delete().execute()
    return door


def test_the_first_account_is_made_once_and_from_here(empty) -> None:
    assert empty("GET", "/api/me").json["empty"] is True
    assert empty("POST", "/api/begin", json=FIRST, environ_base={"REMOTE_ADDR": "10.0.0.7"}).json["code"] == "not_from_here"
    assert empty("POST", "/api/begin", json=FIRST | {"password": "short"}).status_code == 422
    made = empty("POST", "/api/begin", json=FIRST)
    assert (made.json["name"], made.json["role"], made.json["programme"]["time_zone"]) == ("Ida Varga", "owner", "Europe/Lisbon")
    assert empty("GET", "/api/class").json["members"] == [] and empty("GET", "/api/today").json["lesson"] is None
    assert empty("POST", "/api/begin", json=FIRST | {"login": "eve"}).json["code"] == "begun"
    assert empty("GET", "/api/me").json["empty"] is False


@pytest.mark.parametrize("coding", ["utf-8", "utf-8-sig", "cp1252"])
def test_a_list_says_what_it_would_change_and_changes_nothing(page, student, coding: str) -> None:
    found = look(page, LIST.encode(coding)).json
    assert [(row["number"], row["name"], row["instrument"]) for row in found["new"]] == [(3, "Bo Vantréen", "trumpet"), (4, "Dara Fenn", "alto_sax")]
    assert [(row["number"], row["said"]) for row in found["unreadable"]] == [(5, "theremin")] and found["same"] == 1
    assert len(page("GET", "/api/class").json["members"]) == 1


@pytest.mark.parametrize(
    ("content", "code"), [(b"", "no_rows"), (b"\0\1\2", "no_table"), (b"Nom;Pupitre\nA;B\n", "no_headings"), (b"x" * 3_100_000, "list_too_large")]
)
def test_a_file_that_is_no_class_list_is_refused_in_words(page, content: bytes, code: str) -> None:
    answer = look(page, content)
    assert (answer.status_code, answer.json["code"]) == (422, code) and answer.json["message"].endswith(".")


def test_changes_are_made_together_and_taken_back(page, student) -> None:
    asked = {"add": [{"name": "Bo Vantreen", "instrument": "trumpet"}], "instruments": [{"id": student.id, "instrument": "oboe"}]}
    [added] = page("POST", "/api/class/changes", json=asked).json["ids"]
    assert {(m["student"]["name"], m["student"]["instrument"]) for m in page("GET", "/api/class").json["members"]} == {
        ("Ada Quillane", "oboe"), ("Bo Vantreen", "trumpet"),
    }  # fmt: skip
    back = {"drop": [added], "instruments": [{"id": student.id, "instrument": "clarinet"}]}
    assert page("POST", "/api/class/changes", json=back).status_code == 200
    assert [(m["student"]["name"], m["student"]["instrument"]) for m in page("GET", "/api/class").json["members"]] == [("Ada Quillane", "clarinet")]
    wrong = {"add": [{"name": "Not to be", "instrument": "flute"}], "leave": [999_999]}
    assert page("POST", "/api/class/changes", json=wrong).status_code == 404
    assert len(page("GET", "/api/class").json["members"]) == 1, "all of it or nothing"


def test_a_name_an_instrument_and_a_note_are_put_right(page, student) -> None:
    right = {"id": student.id, "name": "Ada Quillaine", "instrument": "oboe", "note": "left-handed"}
    assert page("POST", "/api/class/changes", json={"edit": [right]}).status_code == 200
    [member] = page("GET", "/api/class").json["members"]
    assert {key: member["student"][key] for key in right} == right
    assert page("POST", "/api/class/changes", json={"edit": [right | {"name": ""}]}).json["code"] == "bad_request"
    assert page("POST", "/api/class/changes", json={"edit": [right | {"id": 999_999}]}).status_code == 404


def test_bands_that_rehearse_apart_are_groups_with_lessons_of_their_own(page, scope, student) -> None:
    bo = students.add_student(scope, name="Bo Vantreen", instrument="trumpet")
    for one in (student, bo):
        consent(scope, one.id)
    monday = page("POST", "/api/class/groups", json={"name": " Monday ", "student_ids": [student.id]}).json["id"]
    assert page("POST", "/api/class/groups", json={"name": "Monday", "student_ids": [bo.id, student.id]}).json["id"] == monday, "who is in it stays"
    assert page("POST", "/api/class/groups", json={"name": "  ", "student_ids": [bo.id]}).json["code"] == "bad_request"
    assert page("POST", "/api/class/groups", json={"name": "Friday", "student_ids": [999_999]}).status_code == 404
    assert page("GET", "/api/class").json["groups"] == [{"id": monday, "name": "Monday", "student_ids": [student.id, bo.id]}]
    lesson = {"title": "L", "student_ids": [bo.id], "card_id": cards.cards(scope)[0].id, "group_id": monday}
    assert page("POST", "/api/class/lesson", json=lesson).json == {"placed": 1, "left": []}
    assert page("POST", "/api/class/lesson", json=lesson | {"group_id": 999_999}).status_code == 404
    assert page("GET", "/api/today").json["lesson"]["group_name"] == "Monday"
    assert page("POST", f"/api/class/groups/{monday}/out", json={"student_ids": [bo.id]}).json == {"done": True}
    assert page("GET", "/api/class").json["groups"][0]["student_ids"] == [student.id]
    page("POST", f"/api/class/groups/{monday}/out", json={"student_ids": [student.id]})
    assert monday not in [one["id"] for one in page("GET", "/api/class").json["groups"]], "nobody is left in it"
    assert page("GET", "/api/today").json["lesson"]["title"] == "L", "its lesson stays"
    assert page("POST", f"/api/class/groups/{monday}/out", json={"student_ids": [student.id]}).status_code == 404


def test_who_leaves_is_gone_from_the_class_and_comes_back_and_who_has_takes_is_not_dropped(page, scope, student, clip) -> None:
    read_once(new_take(scope, student, clip).id)
    page("POST", "/api/class/changes", json={"drop": [student.id]})
    [member] = page("GET", "/api/class").json["members"]
    assert (member["takes"], member["state"]) == (1, "work") and member["seen_at"]
    page("POST", "/api/class/changes", json={"leave": [student.id]})
    assert page("GET", "/api/class").json["members"] == []
    page("POST", "/api/class/changes", json={"back": [student.id]})
    assert len(page("GET", "/api/class").json["members"]) == 1


def test_the_class_as_a_list_gives_the_same_back(page, scope, student) -> None:
    students.add_student(scope, name="=Eve, O'Neill", instrument="alto_sax", note="said; so")
    file = page("GET", "/api/class/list.csv")
    assert file.mimetype == "text/csv" and b"'=Eve" in file.data, "no spreadsheet runs a name"
    found = look(page, file.data).json
    assert found["same"] == 2 and not (found["new"] or found["changed"] or found["left"] or found["unreadable"])


def seated(page) -> list[list[str]]:
    found = page("GET", "/api/class").json
    names = {m["student"]["id"]: m["student"]["name"].split()[0] for m in found["members"]}
    return [[names[one] for one in row] for row in found["rows"]]


@pytest.fixture
def band(scope) -> dict[str, int]:
    """Five who sit by their instruments."""
    plays = {"Ada": "flute", "Bo": "flute", "Cy": "horn", "Dee": "clarinet", "Eve": "tuba"}
    return {name: students.add_student(scope, name=f"{name} One", instrument=instrument).id for name, instrument in plays.items()}


def test_the_band_sits_by_its_instruments_until_somebody_is_moved_and_moves_of_two_teachers_both_hold(page, band) -> None:
    assert seated(page) == [["Ada", "Bo", "Cy"], ["Dee"], ["Eve"]]
    for name, sits in (("Cy", {"row": 1, "chair": 1}), ("Bo", {"row": 3, "chair": 1})):  # the second was asked for before the first was seen
        assert page("POST", "/api/class/changes", json={"sits": [{"id": band[name], "sits": sits}]}).status_code == 200
    assert seated(page) == [["Cy", "Ada"], ["Dee"], ["Bo", "Eve"]]
    page("POST", "/api/class/changes", json={"add": [{"name": "Flo One", "instrument": "flute"}, {"name": "Gus One", "instrument": "oboe"}]})
    assert seated(page) == [["Cy", "Ada", "Flo", "Gus"], ["Dee"], ["Bo", "Eve"]], "new ones sit down with their section"
    page("POST", "/api/class/changes", json={"instruments": [{"id": band["Bo"], "instrument": "clarinet"}]})
    assert seated(page) == [["Cy", "Ada", "Flo", "Gus"], ["Dee", "Bo"], ["Eve"]], "who plays something else sits with the others"
    rows = [[band["Eve"]], [band["Ada"], band["Bo"]], [band["Cy"], band["Cy"], 999_999]]
    page("POST", "/api/class/changes", json={"rows": rows})
    assert seated(page) == [["Eve"], ["Ada", "Flo", "Gus", "Bo", "Dee"], ["Cy"]], "everybody sits, and nobody twice"


def test_the_largest_class_is_seated_and_its_list_gives_the_same_back(page, scope) -> None:
    add = [{"name": f"N{number}", "instrument": "clarinet" if number % 2 else "tuba"} for number in range(999)]
    ids = page("POST", "/api/class/changes", json={"add": add}).json["ids"]
    rows = page("GET", "/api/class").json["rows"]
    assert sorted(one for row in rows for one in row) == sorted(ids) and max(map(len, rows)) <= 10
    assert look(page, page("GET", "/api/class/list.csv").data).json["same"] == 999
    assert page("POST", "/api/class/changes", json={"rows": rows[::-1]}).status_code == 200
    assert page("GET", "/api/class").json["rows"] == rows[::-1]


@pytest.mark.parametrize("sits", [{"row": 0, "chair": 1}, {"row": 201, "chair": 1}, {"row": 1, "chair": 101}, {"row": 1}, None])
def test_a_chair_that_is_none_is_refused_and_nobody_moves(page, band, sits) -> None:
    assert page("POST", "/api/class/changes", json={"sits": [{"id": band["Ada"], "sits": sits}]}).json["code"] == "bad_request"
    assert page("POST", "/api/class/changes", json={"sits": [{"id": 999_999, "sits": {"row": 1, "chair": 1}}]}).status_code == 404
    assert seated(page) == [["Ada", "Bo", "Cy"], ["Dee"], ["Eve"]]


def test_a_list_seats_the_band_and_is_drawn_on_the_chairs_first(page, band) -> None:
    text = "chair,row,name,instrument\n2,1,Ada One,flute\n1,1,Bo One,flute\n,,Cy One,tuba\n1,2,Dee One,clarinet\nfront,2,Eve One,tuba\n3,1,Flo One,flute\n"
    found = look(page, text.encode()).json
    assert [(row["name"], row["sits"]) for row in found["elsewhere"]] == [
        ("Ada One", {"row": 1, "chair": 2}), ("Bo One", {"row": 1, "chair": 1}),
    ]  # fmt: skip
    assert [(row["name"], row["said"]) for row in found["unseated"]] == [("Eve One", "2 front")] and found["same"] == 2
    names = {key: name for name, key in band.items()}
    drawn = [[names.get(one["student"]) or f"row {one['number']}" for one in row] for row in found["chairs"]]
    assert drawn == [["Ada", "Bo", "Cy"], ["Dee"], ["Eve", "row 4"], ["row 3", "row 2", "row 7"]]
    asked = {
        "add": [{key: row[key] for key in ("name", "instrument", "note", "sits")} for row in found["new"]],
        "instruments": [{"id": row["id"], "instrument": row["instrument"]} for row in found["changed"]],
        "sits": [{"id": row["id"], "sits": row["sits"]} for row in found["elsewhere"]],
    }
    assert page("POST", "/api/class/changes", json=asked).status_code == 200
    assert seated(page) == [["Bo", "Ada", "Flo"], ["Dee"], ["Eve", "Cy"]]
    again = look(page, page("GET", "/api/class/list.csv").data).json
    assert again["same"] == 6 and not again["elsewhere"] and not again["unseated"], "the class's own list gives the same back"


def test_letters_that_are_back_are_put_on_record_for_many_or_for_nobody(page, scope) -> None:
    ids = [students.add_student(scope, name=name, instrument="flute").id for name in ("Ada One", "Bo Two")]
    until = str((database.now() + timedelta(days=100)).date())
    assert page("POST", "/api/class/consent", json={"student_ids": [*ids, 999_999], "given_by": "letter", "until_day": until}).status_code == 404
    assert all(m["student"]["may_film_until"] is None for m in page("GET", "/api/class").json["members"])
    assert page("POST", "/api/class/consent", json={"student_ids": ids, "given_by": "letter", "until_day": until}).status_code == 200
    assert {m["student"]["may_film_until"] for m in page("GET", "/api/class").json["members"]} == {until}


def test_a_lesson_takes_those_who_may_be_filmed_in_the_order_of_need(page, scope, student, clip) -> None:
    read_once(new_take(scope, student, clip).id)
    fresh = students.add_student(scope, name="Zoe Last", instrument="tuba")
    without = students.add_student(scope, name="Bo Never", instrument="flute")
    until = str((database.now() + timedelta(days=9)).date())
    page("POST", "/api/class/consent", json={"student_ids": [fresh.id], "given_by": "letter", "until_day": until})
    wish = {"title": "First lesson", "student_ids": [student.id, fresh.id, without.id], "card_id": cards.cards(scope)[1].id, "minutes": 13, "each_min": 1.5}
    made = page("POST", "/api/class/lesson", json=wish)
    assert (made.status_code, made.json) == (201, {"placed": 2, "left": []})
    seats = page("GET", "/api/today").json["lesson"]["seats"]
    assert [(s["student"]["name"], s["minute"], s["check"]["instrument"]) for s in seats] == [("Zoe Last", 4.0, "tuba"), ("Ada Quillane", 5.5, "clarinet")]
    short = page("POST", "/api/class/lesson", json=wish | {"minutes": 12, "title": "Too short"})
    assert short.json == {"placed": 1, "left": [student.id]}
    assert page("POST", "/api/class/lesson", json=wish | {"card_id": 0}).status_code == 404


def test_a_drill_says_nothing_of_who_needs_to_be_seen(page, scope, student, clip) -> None:
    read_once(new_take(scope, student, clip).id)
    drill = takes.add(scope, student_id=student.id, lesson_id=None, check=replace(CHECK, kind="drill"), clip=replace(clip, stored_name="drill.mp4"))
    better = replace(FOUND.report, verdicts=(replace(VERDICT, state="steady"),))
    assert read_once(drill.id, replace(FOUND, report=better))
    member = page("GET", "/api/class").json["members"][0]
    assert (member["takes"], member["state"]) == (2, "work"), "it was looked at, but the verdict of before stands"


def test_lists_take_the_same_number_of_queries_whatever_the_class(scope, monkeypatch: pytest.MonkeyPatch) -> None:
    def queries(more: int) -> int:
        for number in range(more):
            students.add_student(scope, name=f"New {number} of {more}", instrument="flute")
        counted = []
        run = database.db.obj.execute_sql
        monkeypatch.setattr(database.db.obj, "execute_sql", lambda *a, **k: (counted.append(a), run(*a, **k))[1])
        classes.members(scope)
        monkeypatch.undo()
        return len(counted)

    few = queries(2)
    assert few <= 6 and queries(30) == few
    assert lessons.last_lesson(scope) is None


def test_a_consent_that_is_taken_back_deletes_every_clip_at_once_and_says_how_many(page, scope, student, clip, store) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    assert (store.clips / clip.stored_name).exists()
    answer = page("DELETE", f"/api/students/{student.id}/consent")
    assert answer.json == {"clips": 1} and not list(store.clips.iterdir())
    [member] = page("GET", "/api/class").json["members"]
    assert member["student"]["may_film_until"] is None
    kept = page("GET", f"/api/takes/{take.id}").json
    assert kept["clip"] is None and kept["state"] == "read", "what was measured stays with the record"
    assert page("DELETE", f"/api/students/{student.id}/consent").json == {"clips": 0}
