"""A section's way through the steps: what is tapped, and where the section stands by it."""

from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.handling.run import Tapped, after, reordered, standing, through

STEPS = ("ready", "case", "reed", "rest")
NOON = datetime(2026, 9, 1, 12)


def at(seconds: float) -> datetime:
    return NOON + timedelta(seconds=seconds)


def begun(*taps: Tapped):
    return standing(STEPS, [Tapped("begin", at(0)), *taps])


def test_each_step_takes_the_time_between_its_taps() -> None:
    now = begun(Tapped("next", at(40), "ready"), Tapped("next", at(100), "case"))
    assert now.key == "reed" and now.spent_s == {"ready": 40, "case": 60} and now.since == at(100)


def test_the_last_next_ends_it() -> None:
    now = begun(*(Tapped("next", at(10 * i), key) for i, key in enumerate(STEPS, start=1)))
    assert now.done and now.key == "" and now.since is None and sum(now.spent_s.values()) == 40


def test_two_teachers_press_next_at_once_and_the_section_goes_one_step() -> None:
    assert begun(Tapped("next", at(5), "ready", by=1), Tapped("next", at(5.2), "ready", by=2)).key == "case"


def test_two_teachers_tap_one_chair_and_help_comes_once() -> None:
    now = begun(Tapped("help", at(5), "ready", 7, by=1), Tapped("help", at(6), "ready", 7, by=2))
    assert now.helping == {7: at(5)}
    assert after(now, Tapped("right", at(9), "ready", 7)).helping == {}


def test_help_of_a_step_that_is_over_is_not_carried_on() -> None:
    now = begun(Tapped("help", at(5), "ready", 7), Tapped("next", at(9), "ready"), Tapped("help", at(10), "ready", 8))
    assert now.helping == {} and now.helped == {("ready", 7)}


def test_stopped_at_the_bell_it_goes_on_at_that_step_and_the_night_does_not_count() -> None:
    kept = begun(Tapped("next", at(40), "ready"), Tapped("stop", at(60)))
    assert kept.stopped and kept.since is None and kept.key == "case"
    assert after(kept, Tapped("next", at(70), "case")) == kept, "nothing goes on while it is stopped"
    on = after(after(kept, Tapped("go_on", at(90_000))), Tapped("next", at(90_010), "case"))
    assert on.spent_s["case"] == 30 and not on.stopped


def test_back_and_once_more() -> None:
    now = begun(Tapped("next", at(10), "ready"), Tapped("again", at(20), "case"), Tapped("again", at(25), "case"))
    assert now.times == 3
    back = after(now, Tapped("back", at(30), "case"))
    assert back.key == "ready" and back.times == 1 and back.spent_s["case"] == 20


def test_another_way_has_another_order_and_what_is_done_stays_in_front() -> None:
    now = begun(Tapped("next", at(10), "ready"), Tapped("choose", at(12), "case", word="order=reed_first", order=("ready", "reed", "case", "rest")))
    assert now.steps == ("ready", "reed", "case", "rest") and now.key == "reed" and now.chosen == {"order": "reed_first"}
    with pytest.raises(InvalidInput, match="other_steps"):
        reordered(now, ("ready", "reed"))


def test_who_was_away_has_no_step_behind_them_and_who_was_helped_is_told() -> None:
    taps = [Tapped("begin", at(0)), Tapped("away", at(1), student=2), Tapped("help", at(2), "ready", 1), Tapped("next", at(9), "ready", by=5),
            Tapped("here", at(10), student=2), Tapped("next", at(20), "case", by=5)]  # fmt: skip
    found = {(one.step, one.student): one.helped for one in through(STEPS, taps, [1, 2])}
    assert found == {("ready", 1): True, ("case", 1): False, ("case", 2): False}
    assert {one.by for one in through(STEPS, taps, [1])} == {5}


TAPS = st.builds(
    Tapped,
    does=st.sampled_from(["begin", "next", "back", "help", "right", "away", "here", "stop", "go_on"]),
    at=st.integers(0, 5000).map(at),
    step=st.sampled_from([*STEPS, ""]),
    student=st.sampled_from([None, 1, 2, 3]),
)


@given(st.lists(TAPS, max_size=30))
def test_whatever_is_tapped_the_section_stands_somewhere(taps: list[Tapped]) -> None:
    now = standing(STEPS, sorted(taps, key=lambda one: one.at))
    assert 0 <= now.step <= len(STEPS) and all(seconds >= 0 for seconds in now.spent_s.values()) and not set(now.helping) & now.away
    assert now.since is None or not (now.done or now.stopped)


@given(st.lists(TAPS, max_size=12), TAPS.filter(lambda one: one.step and one.does not in ("back",)))
def test_a_tap_that_comes_twice_is_one(taps: list[Tapped], tap: Tapped) -> None:
    once = after(standing(STEPS, taps), tap)
    assert after(once, tap) == once
