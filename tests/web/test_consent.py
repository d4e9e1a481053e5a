"""Consent by purpose: to film, to keep the clip, to show it, to lie down. What is not allowed does not happen, what is taken back goes at once."""

from dataclasses import replace
from datetime import timedelta

import pytest

from brevin.edge.pictures import KEPT
from brevin.ops.settings import Settings
from brevin.store import classes, database, students, takes
from brevin.store.models import Clip
from brevin.store.records import NoConsent
from tests.conftest import CHECK
from tests.store.test_takes import FOUND, new_take, read_once

UNTIL = str((database.now() + timedelta(days=40)).date())


def words(page, student_id: int) -> dict[str, dict]:
    member = next(one for one in page("GET", "/api/class").json["members"] if one["student"]["id"] == student_id)
    return {word["purpose"]: word for word in member["consents"]}


def test_letters_come_back_by_purpose_and_the_newest_word_counts(page, scope) -> None:
    fresh = students.add_student(scope, name="Zoe Last", instrument="tuba")
    assert words(page, fresh.id) == {}
    letter = {"student_ids": [fresh.id], "given_by": "letter", "until_day": UNTIL}
    assert page("POST", "/api/class/consent", json=letter | {"purposes": ["filming", "showing"]}).status_code == 200
    assert set(words(page, fresh.id)) == {"filming", "showing"} and words(page, fresh.id)["showing"]["until_day"] == UNTIL
    assert page("DELETE", f"/api/students/{fresh.id}/consent?purpose=showing").json == {"clips": 0}
    assert words(page, fresh.id)["showing"]["withdrawn_on"] and words(page, fresh.id)["filming"]["withdrawn_on"] is None
    assert page("POST", "/api/class/consent", json=letter | {"purposes": ["breathing"]}).status_code == 422


@pytest.mark.parametrize("purpose", ["filming", "keeping"])
def test_whoever_may_not_film_or_keep_any_more_keeps_no_clip(page, scope, store: Settings, student, clip, purpose: str) -> None:
    take = new_take(scope, student, clip)
    assert page("DELETE", f"/api/students/{student.id}/consent?purpose={purpose}").json == {"clips": 1}
    assert takes.take_record(scope, take.id).clip is None and not list(store.clips.iterdir())
    assert (students.student(scope, student.id).may_film_until is None) == (purpose == "filming")


@pytest.mark.parametrize("clip_goes_first", [True, False])
def test_stills_go_with_the_consent_to_keep_also_where_the_clip_went_before(page, scope, store: Settings, student, clip, clip_goes_first: bool) -> None:
    take, name = new_take(scope, student, clip), f"x{KEPT}"
    (store.evidence / name).touch()
    (store.evidence / "x.evidence").touch()
    read_once(take.id, replace(FOUND, stills_name=name))
    if clip_goes_first:
        with database.db.connection_context():
            Clip.delete().execute()
    page("DELETE", f"/api/students/{student.id}/consent?purpose=keeping")
    assert [path.name for path in store.evidence.iterdir()] == ["x.evidence"] and takes.take_record(scope, take.id).stills_name == ""


def test_taking_back_filming_takes_back_all_that_hangs_on_it(page, scope, student) -> None:
    day = database.now().date()
    classes.give_consents(scope, [student.id], given_by="g", from_day=day, until_day=day, purposes=["showing", "lying"])
    page("DELETE", f"/api/students/{student.id}/consent")
    assert all(word["withdrawn_on"] for word in words(page, student.id).values()) and len(words(page, student.id)) == 4


def test_lying_down_has_a_consent_of_its_own(scope, student, clip) -> None:
    lying = replace(CHECK, position="lying")
    with pytest.raises(NoConsent):
        takes.add(scope, student_id=student.id, lesson_id=None, check=lying, clip=clip)
    today = database.now().date()
    students.give_consent(scope, student.id, given_by="g", from_day=today, until_day=today, purposes=["lying"])
    assert takes.add(scope, student_id=student.id, lesson_id=None, check=lying, clip=clip).asked.check.position == "lying"


def test_a_clip_of_somebody_lying_goes_to_nobody_whose_family_did_not_say_yes_to_that(page, scope, student, clip) -> None:
    day = database.now().date()
    classes.give_consents(scope, [student.id], given_by="g", from_day=day, until_day=day, purposes=["lying"])
    other = students.add_student(scope, name="Bo Other", instrument="flute")
    classes.give_consents(scope, [other.id], given_by="g", from_day=day, until_day=day, purposes=["filming", "keeping"])
    take = takes.add(scope, student_id=student.id, lesson_id=None, check=replace(CHECK, position="lying"), clip=clip)
    refused = page("POST", f"/api/takes/{take.id}/move", json={"student_id": other.id})
    assert (refused.status_code, refused.json["code"]) == (409, "no_consent_to_lie") and takes.take_record(scope, take.id).student.id == student.id


def test_a_card_that_is_done_lying_is_asked_only_of_whose_family_said_yes_to_that(page, scope, student) -> None:
    card = {"rung": 1, "title": "on the mat", "card": "3-0-4@72x3", "position": "lying"}
    made = page("POST", "/api/cards", json=card).json
    lesson = {"title": "mats", "student_ids": [student.id], "card_id": made["id"]}
    assert page("POST", "/api/class/lesson", json=lesson).json == {"placed": 0, "left": []}
    day = database.now().date()
    classes.give_consents(scope, [student.id], given_by="g", from_day=day, until_day=day, purposes=["lying"])
    assert page("POST", "/api/class/lesson", json=lesson).json["placed"] == 1
    seat = page("GET", "/api/today").json["lesson"]["seats"][0]
    assert seat["student"]["may_lie"] and seat["check"]["position"] == "lying"
    classes.withdraw(scope, student.id, "lying")
    assert not page("GET", "/api/today").json["lesson"]["seats"][0]["student"]["may_lie"]


def test_a_no_stands_on_record_ends_what_held_and_deletes_the_clips(page, scope, store: Settings, student, clip) -> None:
    take = new_take(scope, student, clip)
    letter = {"student_ids": [student.id], "given_by": "letter", "until_day": UNTIL}
    assert page("POST", "/api/class/consent", json=letter | {"purposes": ["lying"], "refused": ["keeping", "showing"]}).status_code == 200
    word = words(page, student.id)
    assert all(word[one]["from_day"] == word[one]["until_day"] == word[one]["withdrawn_on"] for one in ("keeping", "showing"))
    assert word["lying"]["withdrawn_on"] is None and students.student(scope, student.id).may_film_until is not None
    assert takes.take_record(scope, take.id).clip is None and not list(store.clips.iterdir())
    assert page("POST", "/api/class/consent", json=letter | {"purposes": [], "refused": ["filming"]}).status_code == 200
    assert students.student(scope, student.id).may_film_until is None
    assert page("POST", "/api/class/consent", json=letter | {"purposes": ["filming"]}).status_code == 200  # a family may say yes later
    assert students.student(scope, student.id).may_film_until is not None


@pytest.mark.parametrize("said", [{"purposes": []}, {"purposes": ["filming"], "refused": ["filming"]}, {"purposes": [], "refused": ["breathing"]}])
def test_each_purpose_has_one_answer(page, student, said: dict) -> None:
    letter = {"student_ids": [student.id], "given_by": "letter", "until_day": UNTIL}
    assert page("POST", "/api/class/consent", json=letter | said).status_code == 422
