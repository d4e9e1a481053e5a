"""More than one programme: made, named, gone between, and come into by an invitation with the account that is there."""

from zoneinfo import ZoneInfo

import pytest

from brevin.store import programmes
from brevin.store.scope import HOUSE, Scope
from tests.web.conftest import Page, signed_in

EVENINGS = {"name": "Evenings at the pier", "time_zone": "Pacific/Auckland"}


def test_one_more_programme_is_the_makers_own_and_empty_and_the_first_stays_as_it_was(page, scope: Scope, student) -> None:
    made = page("POST", "/api/programmes", json=EVENINGS)
    assert made.status_code == 201 and made.json["programme"]["name"] == EVENINGS["name"] and made.json["role"] == "owner"
    assert [one["id"] for one in made.json["programmes"]] == [scope.programme, made.json["programme"]["id"]]
    assert page("GET", "/api/students").json["students"] == []
    assert page("GET", "/api/today").json["lesson"] is None
    back = page("POST", "/api/programme", json={"programme_id": scope.programme}).json
    assert back["programme"]["id"] == scope.programme
    assert [one["name"] for one in page("GET", "/api/students").json["students"]] == [student.name]


def test_two_of_ones_own_are_not_called_alike_and_a_name_is_no_spaces(page) -> None:
    assert page("POST", "/api/programmes", json=EVENINGS | {"name": f"  {EVENINGS['name']} "}).json["programme"]["name"] == EVENINGS["name"]
    for name, code, status in ((EVENINGS["name"].upper(), "programme_named_so", 409), ("   ", "bad_request", 422), ("x" * 121, "bad_request", 422)):
        answer = page("POST", "/api/programmes", json={"name": name})
        assert (answer.status_code, answer.json["code"]) == (status, code) and answer.json["message"]
    assert len(programmes.all_programmes(HOUSE)) == 2


def test_a_programme_is_called_otherwise_and_lives_by_another_clock(page, scope: Scope) -> None:
    changed = page("PUT", "/api/programme", json={"name": "Mornings", "time_zone": "Pacific/Kiritimati"}).json["programme"]
    assert changed == {"id": scope.programme, "name": "Mornings", "time_zone": "Pacific/Kiritimati"}
    assert programmes.programme(scope).zone == ZoneInfo("Pacific/Kiritimati")
    assert page("PUT", "/api/programme", json={"name": "MORNINGS", "time_zone": "UTC"}).status_code == 200, "its own name is free for it"
    wrong = page("PUT", "/api/programme", json={"name": "Noon", "time_zone": "Moon/Tranquility"})
    assert (wrong.status_code, wrong.json["code"]) == (400, "no_time_zone")
    assert programmes.programme(scope).name == "MORNINGS"
    page("POST", "/api/programmes", json=EVENINGS)
    assert page("PUT", "/api/programme", json={"name": "mornings", "time_zone": "UTC"}).json["code"] == "programme_named_so"


@pytest.mark.parametrize("role", ["assistant", "teacher"])
def test_who_does_not_run_a_programme_makes_and_names_none(app, scope: Scope, role: str) -> None:
    inside = signed_in(app, scope, role)
    for method, path in (("POST", "/api/programmes"), ("PUT", "/api/programme")):
        assert inside(method, path, json=EVENINGS).json["code"] == "not_yours"
    assert len(programmes.all_programmes(HOUSE)) == 1


def test_somebody_with_an_account_comes_in_by_an_invitation_and_keeps_both(app, page, scope: Scope) -> None:
    next_door = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    guest = signed_in(app, next_door, "owner")
    code = page("POST", "/api/invitations", json={"name": "Guest", "role": "assistant"}).json["link"].split("#")[1]
    assert page("POST", "/api/invitations/join", json={"code": code}).json["code"] == "member_already", "and it stays good"
    come = guest("POST", "/api/invitations/join", json={"code": code}).json
    assert (come["programme"]["id"], come["role"]) == (scope.programme, "assistant")
    assert {one["id"] for one in come["programmes"]} == {scope.programme, next_door.programme}
    assert guest("POST", "/api/programmes", json=EVENINGS).json["code"] == "not_yours", "an assistant here"
    assert guest("POST", "/api/programme", json={"programme_id": next_door.programme}).json["role"] == "owner"
    assert guest("POST", "/api/invitations/join", json={"code": code}).json["code"] == "code_used"
    assert Page(app.test_client())("POST", "/api/invitations/join", json={"code": code}).status_code == 401
