"""A reading beside earlier days of the same check: marks, a fault that runs on, steady since, and the way along the ladder."""

from datetime import UTC, date, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinds import State
from brevin.core.verdict.earlier import MOST_SHOWN, Earlier, Reading, earlier
from brevin.core.verdict.headline import Fault, Headline

MONDAY = datetime(2026, 11, 2, 9, 0, tzinfo=UTC)
LETTER: dict[str, State] = {"s": "steady", "w": "watch", "x": "work", "?": "unreadable"}


def reading(at: str, *, days: float = 0.0, fault: str = "") -> Reading:
    """One reading. at: the letter of its state."""
    made_at = MONDAY + timedelta(days=days)
    return Reading(f"t{days}", made_at, made_at.date(), Headline(LETTER[at], [Fault(fault, "high")] if fault else []))


def weekly(letters: str, faults: str = "") -> Earlier:
    """The last of readings a week apart. faults: a letter for each, a space for none."""
    all_read = [reading(one, days=7 * i, fault=fault.strip()) for i, (one, fault) in enumerate(zip(letters, faults.ljust(len(letters)), strict=True))]
    return earlier(all_read[-1], all_read)


def test_a_first_reading_has_nothing_before_it() -> None:
    assert weekly("s") == Earlier() and weekly("x", "a") == Earlier()


def test_earlier_days_stand_oldest_first_and_only_the_last_few() -> None:
    found = weekly("xwws?ss")
    assert [mark.state for mark in found.marks] == ["watch", "steady", "unreadable", "steady"] and len(found.marks) == MOST_SHOWN
    assert [mark.day for mark in found.marks] == sorted(mark.day for mark in found.marks) and found.marks[-1].take_id == "t35"


@pytest.mark.parametrize(
    ("letters", "faults", "running"),
    [("xxw", "aaa", 3), ("xxw", "bba", 0), ("wsw", "a a", 0), ("x?x", "a a", 2), ("sss", "   ", 0), ("wxxx", "abbb", 3)],
)
def test_a_fault_that_runs_on_is_counted_in_days_and_one_that_could_not_be_read_breaks_nothing(letters: str, faults: str, running: int) -> None:
    assert weekly(letters, faults).running == running


@pytest.mark.parametrize(("letters", "since"), [("xss", 1), ("sss", 0), ("s?s", 0), ("xs", None), ("ssw", None), ("ss?", None)])
def test_steady_since_is_the_first_day_of_the_row(letters: str, since: int | None) -> None:
    assert weekly(letters).steady_since == (None if since is None else (MONDAY + timedelta(days=7 * since)).date())


@pytest.mark.parametrize(
    ("letters", "move"), [("sss", "up"), ("ss", "stay"), ("sws", "stay"), ("s?ss", "up"), ("xx", "back"), ("xwx", "stay"), ("x", "stay"), ("sss?", "stay")]
)
def test_three_steady_in_a_row_lead_up_the_ladder_and_two_to_work_on_back(letters: str, move: str) -> None:
    assert weekly(letters).move == move


def test_several_tries_of_a_day_count_by_the_last_and_those_of_today_are_no_day_before() -> None:
    day = [reading("x", days=0.0, fault="a"), reading("s", days=0.1), reading("w", days=7.0, fault="a"), reading("s", days=7.1)]
    found = earlier(day[3], day)
    assert [mark.state for mark in found.marks] == ["steady"] and found.steady_since == date(2026, 11, 2)
    assert found.move == "stay", "a try of today that was not steady breaks the row"
    assert earlier(day[2], day).running == 0, "on the day before it was gone in the end"


@given(st.lists(st.tuples(st.sampled_from("swx?"), st.floats(0, 60), st.sampled_from(["", "a", "b"])), min_size=1, max_size=30))
def test_whatever_was_read_in_whatever_order_nothing_later_is_told(rows: list) -> None:
    readings = [reading(at, days=days, fault=fault if at in "wx" else "") for at, days, fault in rows]
    now = readings[0]
    found = earlier(now, readings)
    assert all(mark.day < now.day for mark in found.marks) and len(found.marks) <= MOST_SHOWN
    assert found.running != 1 and (found.steady_since is None or found.steady_since < now.day)
    assert found == earlier(now, readings[::-1]) or len({one.made_at for one in readings}) < len(readings)
