"""A reading beside earlier days over the wire: the same check alone, the ladder's own next card, and nothing of anybody else's."""

from dataclasses import replace
from datetime import timedelta

from brevin.core.plan.card import parse
from brevin.core.verdict.headline import Headline
from brevin.store import cards, database, programmes, reports, students, takes
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK, DEMO_CLIP
from tests.store.test_takes import FOUND, lesson_of, read_once
from tests.web.conftest import signed_in

LADDER = ["2-0-4@66x3", "3-0-4@72x3", "3-0-5@76x3"]  # its first cards


def read(scope: Scope, student, clip, *, days_ago: float, state: str, check=CHECK) -> str:
    """A take of some days ago, read to a state."""
    named = replace(clip, stored_name=f"{check.name}-{days_ago}-{state}.mp4")
    take = takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=named, made_at=database.now() - timedelta(days=days_ago))
    assert read_once(take.id, replace(FOUND, report=replace(FOUND.report, headline=Headline(state), verdicts=())))
    return take.id


def past_of(page, *take_ids: str) -> dict:
    return page("GET", f"/api/past?takes={','.join(take_ids)}").json["takes"]


def test_a_reading_stands_beside_the_same_check_on_earlier_days(page, scope: Scope, student, clip) -> None:
    other_card = replace(CHECK, card=parse("5-0-5@60x2"))
    read(scope, student, clip, days_ago=20, state="work", check=other_card)
    first = read(scope, student, clip, days_ago=14, state="watch")
    second = read(scope, student, clip, days_ago=7, state="steady")
    now = read(scope, student, clip, days_ago=0, state="steady")
    found = past_of(page, now, first)
    assert [(mark["take_id"], mark["state"]) for mark in found[now]["marks"]] == [(first, "watch"), (second, "steady")]
    assert found[now]["steady_since"] == str((database.now() - timedelta(days=7)).date()) and found[now]["move"] == "stay"
    assert found[first]["marks"] == [], "what came later is not told"


def test_three_steady_in_a_row_propose_the_ladders_next_card_and_the_last_one_none(page, scope: Scope, student, clip) -> None:
    assert cards.rungs(scope) == [] and cards.cards(scope) and cards.rungs(scope)[:3] == LADDER
    on = {name: replace(CHECK, card=parse(name)) for name in (*LADDER, cards.rungs(scope)[-1])}
    up = [read(scope, student, clip, days_ago=7 * i, state="steady", check=on[LADDER[1]]) for i in (2, 1, 0)][-1]
    back = [read(scope, student, clip, days_ago=7 * i, state="work", check=on[LADDER[2]]) for i in (1, 0)][-1]
    first = [read(scope, student, clip, days_ago=7 * i, state="work", check=on[LADDER[0]]) for i in (1, 0)][-1]
    last = [read(scope, student, clip, days_ago=7 * i, state="steady", check=on[cards.rungs(scope)[-1]]) for i in (2, 1, 0)][-1]
    found = past_of(page, up, back, first, last)
    assert (found[up]["move"], found[up]["to"]) == ("up", LADDER[2]) and (found[back]["move"], found[back]["to"]) == ("back", LADDER[1])
    assert {(found[end]["move"], found[end]["to"]) for end in (first, last)} == {("stay", "")}, "there is nothing below the one, nothing above the other"


def test_a_lesson_asks_of_each_the_card_that_is_theirs(page, scope: Scope, student, clip) -> None:
    ladder = [one.check for one in cards.cards(scope)]
    rungs, day = cards.rungs(scope), database.now().date()
    others = [students.add_student(scope, name=name, instrument="tuba") for name in ("Bo Back", "Cy Fresh", "Di Drill")]
    for one in others:
        students.give_consent(scope, one.id, given_by="g", from_day=day, until_day=day)
    for i in (2, 1, 0):
        read(scope, student, clip, days_ago=7 * i + 1, state="steady", check=replace(CHECK, card=parse(rungs[0])))
    for i in (1, 0):
        read(scope, others[0], clip, days_ago=7 * i + 1, state="work", check=replace(CHECK, card=parse(rungs[2])))
    read(scope, others[2], clip, days_ago=3, state="watch", check=replace(ladder[3], kind="drill"))
    everybody = [student.id, *(one.id for one in others)]
    assert page("POST", "/api/class/lesson", json={"title": "L", "student_ids": everybody, "card_id": None}).json["placed"] == 4
    seats = page("GET", "/api/today").json["lesson"]["seats"]
    asked = {seat["student"]["name"]: (seat["check"]["name"], seat["check"]["instrument"]) for seat in seats}
    assert asked == {
        "Ada Quillane": (rungs[1], "clarinet"), "Bo Back": (rungs[1], "tuba"), "Cy Fresh": (rungs[0], "tuba"), "Di Drill": (rungs[0], "tuba"),
    }  # fmt: skip


def test_one_chair_is_given_another_card_and_the_others_keep_theirs(page, app, scope: Scope, student, clip) -> None:
    other = students.add_student(scope, name="Bo Other", instrument="horn")
    lesson_of(scope, student.id, other.id)
    seats = page("GET", "/api/today").json["lesson"]["seats"]
    card = next(one for one in page("GET", "/api/cards").json["cards"] if one["check"]["name"] == LADDER[2])
    assert page("PUT", f"/api/seats/{seats[1]['id']}/card", json={"card_id": card["id"]}).json == {"done": True}
    now = page("GET", "/api/today").json["lesson"]["seats"]
    assert now[0]["check"] == seats[0]["check"] and (now[1]["check"]["name"], now[1]["check"]["instrument"]) == (LADDER[2], "horn")
    stranger = signed_in(app, Scope(programmes.add_programme(HOUSE, name="Next door").id), "teacher")
    theirs = stranger("GET", "/api/cards").json["cards"][0]["id"]
    assert stranger("PUT", f"/api/seats/{seats[0]['id']}/card", json={"card_id": theirs}).status_code == 404
    assert page("PUT", f"/api/seats/{seats[0]['id']}/card", json={"card_id": theirs}).status_code == 404
    assert page("GET", "/api/today").json["lesson"]["seats"] == now


def test_a_clip_is_read_for_what_the_chair_asked_when_its_count_began(page, scope: Scope, student) -> None:
    lesson_of(scope, student.id)
    seat = page("GET", "/api/today").json["lesson"]["seats"][0]
    begun = seat["check"]
    card = next(one for one in page("GET", "/api/cards").json["cards"] if one["check"]["name"] == LADDER[2])
    assert card["check"]["id"] == 0 and page("PUT", f"/api/seats/{seat['id']}/card", json={"card_id": card["id"]}).status_code == 200
    whose = {"student_id": student.id, "seat_id": seat["id"], "file_name": "clip.mp4"}

    def sent(**more: object) -> str:
        taken = page("POST", "/api/takes", query_string=whose | more, data=DEMO_CLIP.read_bytes(), headers={"Content-Type": "application/octet-stream"})
        assert taken.status_code == 201, taken.json
        return taken.json["check"]["name"]

    assert sent(asked_id=begun["id"]) == begun["name"] != LADDER[2] == sent()
    refused = page("POST", "/api/takes", query_string=whose | {"asked_id": 999_999}, data=b"x", headers={"Content-Type": "application/octet-stream"})
    assert refused.status_code == 404


def test_nothing_is_told_of_another_programme_s_takes_or_of_one_that_was_not_read(page, app, scope: Scope, student, clip) -> None:
    now = read(scope, student, clip, days_ago=0, state="watch")
    waiting = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=replace(clip, stored_name="waits.mp4"))
    assert set(past_of(page, now, waiting.id)) == {now}
    stranger = signed_in(app, Scope(programmes.add_programme(HOUSE, name="Next door").id), "teacher")
    assert past_of(stranger, now) == {}
    for wrong in ("", "x", "0" * 31, ",".join(["0" * 32] * 61)):
        assert page("GET", f"/api/past?takes={wrong}").status_code == 422


def test_the_teachers_own_word_counts(page, scope: Scope, student, clip) -> None:
    read(scope, student, clip, days_ago=7, state="steady")
    now = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip)
    assert read_once(now.id)
    assert past_of(page, now.id)[now.id]["steady_since"] is None
    reports.overrule(scope, takes.take_record(scope, now.id), criterion="pause", state="steady", reason="it was the phone")
    assert past_of(page, now.id)[now.id]["steady_since"] == str((database.now() - timedelta(days=7)).date())
