"""What teachers say beside the readings, over the wire: ticks of what no camera sees, and a word instead of a verdict."""

from dataclasses import replace

import pytest

from brevin.core.verdict.cues import cues
from brevin.store import students, takes
from brevin.store.said_models import TickRow
from brevin.store.scope import Scope
from tests.conftest import consent
from tests.store.test_takes import FOUND, REPORT, VERDICT, new_take, read_once


@pytest.fixture
def take(scope: Scope, student, clip):
    """A clarinet's take."""
    return new_take(scope, student, clip)


def states(page, take) -> dict:
    return {one["key"]: one["state"] for one in page("GET", f"/api/takes/{take.id}/ticks").json["items"]}


def test_an_item_is_ticked_ticked_otherwise_and_cleared(page, take) -> None:
    assert set(states(page, take).values()) == {None} and {"lips", "right_thumb", "left_little"} <= states(page, take).keys()
    for state in ("fine", "not_yet", None):
        assert page("PUT", f"/api/takes/{take.id}/ticks", json={"item": "right_thumb", "state": state}).status_code == 200
        assert states(page, take)["right_thumb"] == state
    assert TickRow.select().count() == 0


def test_each_item_says_where_on_the_still_to_look(page, take) -> None:
    spots = {one["key"]: one["spot"] for one in page("GET", f"/api/takes/{take.id}/ticks").json["items"]}
    assert spots["chin"]["up"] < spots["corners"]["up"] < spots["cheeks"]["up"] and spots["cheeks"]["ahead"] < spots["lips"]["ahead"]
    assert spots["right_thumb"] == spots["left_fingers"] and spots["right_thumb"]["beside"] == 0.0


def test_an_item_that_the_instrument_has_not_is_refused(page, take) -> None:
    for sent in ({"item": "bell_hand", "state": "fine"}, {"item": "lips", "state": "perhaps"}, {"item": "lips"}, {"state": "fine"}):
        assert page("PUT", f"/api/takes/{take.id}/ticks", json=sent).status_code == 422
    assert set(states(page, take).values()) == {None}


def test_what_is_right_follows_the_programme_s_own_way_of_the_mouth(page, take) -> None:
    def corners() -> dict:
        return next(one for one in page("GET", f"/api/takes/{take.id}/ticks").json["items"] if one["key"] == "corners")

    page("PUT", f"/api/takes/{take.id}/ticks", json={"item": "corners", "state": "fine"})
    before = corners()
    rules = page("GET", "/api/bench/rules").json
    assert page("PUT", "/api/bench/rules", json=rules | {"choices": {"clarinet": {"corners": "back"}}}).status_code == 200
    assert before["fine"] == "firm from the sides" and corners()["fine"] == "firm, a little back" and corners()["state"] == "fine"


def test_ticks_go_with_the_take_to_another_student_and_away_with_it(page, scope: Scope, take) -> None:
    from tests.conftest import consent

    page("PUT", f"/api/takes/{take.id}/ticks", json={"item": "lips", "state": "fine"})
    other = students.add_student(scope, name="Ilse Varga", instrument="clarinet")
    consent(scope, other.id)
    takes.move(scope, take.id, other.id)
    assert [row.student_id for row in TickRow.select()] == [other.id] and states(page, take)["lips"] == "fine"
    takes.delete(scope, take.id)
    assert TickRow.select().count() == 0
    assert page("GET", f"/api/takes/{take.id}/ticks").status_code == 404


def test_where_to_look_is_said_with_what_is_right_and_what_is_usually_wrong(page, take) -> None:
    [thumb] = [one for one in page("GET", f"/api/takes/{take.id}/ticks").json["items"] if one["key"] == "right_thumb"]
    assert thumb["near"] == "right_hand" and "under its rest" in thumb["fine"] and "knuckle" in thumb["wrong"]


def test_a_verdict_is_overruled_with_its_reason_otherwise_and_taken_back(page, take) -> None:
    for said in ({"state": "steady", "reason": "she wears a thick coat"}, {"state": "work", "reason": ""}):
        assert page("PUT", f"/api/takes/{take.id}/overrule", json={"criterion": "pause", **said}).status_code == 200
        [kept] = page("GET", f"/api/takes/{take.id}/overrules").json["overrules"]
        assert (kept["criterion"], kept["state"], kept["reason"], kept["by"]) == ("pause", said["state"], said["reason"], "Ida Owner")
    assert page("PUT", f"/api/takes/{take.id}/overrule", json={"criterion": "pause", "state": None}).status_code == 200
    assert page("GET", f"/api/takes/{take.id}/overrules").json["overrules"] == []
    assert page("PUT", f"/api/takes/{take.id}/overrule", json={"criterion": "pause"}).status_code == 422
    assert page("GET", f"/api/takes/{'0' * 32}/overrules").status_code == 404


def test_a_cue_is_said_once_and_what_came_after_it_is_counted(page, scope: Scope, student, clip, take) -> None:
    asked = f"/api/takes/{take.id}/cue?criterion=pause"
    record = page("GET", asked).json
    assert len(record.pop("ways")) >= 2
    assert record == {"first": 0, "said": False, "better_after": 0, "after": 0, "better_without": 0, "without": 0}
    read_once(take.id)
    for _ in range(2):
        assert page("POST", f"/api/takes/{take.id}/cue", json={"criterion": "pause", "side": "high"}).status_code == 200
    second = new_take(scope, student, replace(clip, sha256="1" * 64))
    better = replace(FOUND, report=replace(REPORT, verdicts=(replace(VERDICT, state="steady", outside=False),)))
    read_once(second.id, better)
    assert {k: v for k, v in page("GET", asked).json.items() if k != "ways"} == {
        "first": 0, "said": True, "better_after": 1, "after": 1, "better_without": 0, "without": 0,
    }  # fmt: skip
    page("PUT", f"/api/takes/{second.id}/overrule", json={"criterion": "pause", "state": "work", "reason": "it only looks so"})
    assert page("GET", asked).json["better_after"] == 0, "the teacher has the last word here as well"
    assert page("GET", f"/api/takes/{take.id}/cue?criterion=none").status_code == 422


def test_the_words_that_helped_this_student_come_first_the_next_time_and_only_for_them(page, scope: Scope, student, clip, take) -> None:
    read_once(take.id)
    say = {"criterion": "pause", "side": "high", "way": 2}
    assert page("POST", f"/api/takes/{take.id}/cue", json=say).status_code == 200
    assert page("GET", f"/api/takes/{take.id}/cue?criterion=pause&side=high").json["first"] == 2, "as it was said"
    better = replace(FOUND, report=replace(REPORT, verdicts=(replace(VERDICT, state="steady", outside=False),)))
    read_once(new_take(scope, student, replace(clip, sha256="1" * 64)).id, better)
    third = new_take(scope, student, replace(clip, sha256="2" * 64))
    read_once(third.id)
    record = page("GET", f"/api/takes/{third.id}/cue?criterion=pause&side=high").json
    assert (record["first"], record["said"]) == (2, False) and record["ways"][2] == cues("pause", "high")[2]
    other = students.add_student(scope, name="Bo Ferrante", instrument="clarinet")
    consent(scope, other.id)
    theirs = new_take(scope, students.student(scope, other.id), replace(clip, sha256="3" * 64))
    read_once(theirs.id)
    assert page("GET", f"/api/takes/{theirs.id}/cue?criterion=pause").json["first"] == 0
    for way in (-1, len(cues("pause", "high")), 99):
        assert page("POST", f"/api/takes/{third.id}/cue", json=say | {"way": way}).status_code == 422
    assert page("GET", f"/api/takes/{third.id}/cue?criterion=pause").json["said"] is False


def test_correct_ones_of_a_card_are_counted_up_to_the_take_and_a_word_of_the_teacher_counts(page, scope: Scope, student, clip) -> None:
    made = [new_take(scope, student, clip) for _ in range(3)]
    for one in made:
        read_once(one.id)

    def counted(number: int) -> dict:
        return page("GET", f"/api/takes/{made[number].id}/repetitions").json

    assert counted(2) == {"correct": 0, "tries": 3, "holds_after": None} and counted(0)["tries"] == 1
    page("PUT", f"/api/takes/{made[1].id}/overrule", json={"criterion": "pause", "state": "steady", "reason": "seen"})
    assert [counted(number)["correct"] for number in range(3)] == [0, 1, 1]
    assert page("GET", f"/api/takes/{'0' * 32}/repetitions").status_code == 404
