"""Correct repetitions of a card, and after how many it usually holds here."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.verdict.repetitions import Done, Repetitions, repetitions

NOON = datetime(2026, 3, 2, 12, 0, tzinfo=UTC)


def done(tries: str, student: int = 1) -> list[Done]:
    """One letter a try: c correct, f with a fault; a day between them."""
    return [Done(student, NOON + timedelta(days=i), letter == "c") for i, letter in enumerate(tries)]


def counted(*classmates: str, own: str = "", day: int = 99) -> Repetitions:
    others = [one for i, tries in enumerate(classmates) for one in done(tries, student=i + 2)]
    return repetitions([*others, *done(own)], student_id=1, until=NOON + timedelta(days=day))


def test_only_correct_ones_of_this_student_up_to_this_take_count() -> None:
    assert counted("ccccc", own="fcfcc") == Repetitions(3, 5, None)
    assert counted(own="fcfcc", day=1) == Repetitions(1, 2, None) and counted() == Repetitions(0, 0, None)


@pytest.mark.parametrize(
    ("tries", "after"),
    [
        ("cccccc", 1),  # the first was followed by five good ones
        ("fcfccccc", 1),  # after the first good one four of five were good
        ("cffcffcccccc", 3),  # after the third; after the second only three of five
        ("cfcfcfcf", None),  # never four of five
        ("ccccc", None),  # five good ones in all: nobody knows what comes
        ("ffffff", None),
    ],
)
def test_it_holds_once_most_of_the_next_five_are_correct_too(tries: str, after: int | None) -> None:
    assert counted(tries, tries, tries).holds_after == after


def test_usually_is_said_from_three_students_on_and_is_their_middle_one() -> None:
    assert counted("cccccc", "cccccc").holds_after is None
    assert counted("cccccc", "cffcffcccccc", "cffcffcccccc", "ffff").holds_after == 3


@given(st.lists(st.text("cf", max_size=12), max_size=5), st.text("cf", max_size=12))
def test_no_more_are_correct_than_were_tried_and_it_holds_after_one_at_least(classmates: list[str], own: str) -> None:
    found = counted(*classmates, own=own)
    assert found.correct == own.count("c") and found.tries == len(own) and (found.holds_after is None or found.holds_after >= 1)
