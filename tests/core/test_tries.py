"""What became of a fault in the next try is counted: after its cue, and without; steady tries, other lessons and other students are no next try."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.verdict.tries import SAME_SITTING, NextTries, Try, helped, next_tries

NOON = datetime(2026, 3, 2, 12, 0, tzinfo=UTC)


def tries(*said: tuple[str, bool], student: int = 1, every: timedelta = timedelta(minutes=2)) -> list[Try]:
    return [Try(student, NOON + i * every, state, cued) for i, (state, cued) in enumerate(said)]


@pytest.mark.parametrize(
    ("said", "counted"),
    [
        ([("work", True), ("watch", False)], NextTries(1, 1, 0, 0)),
        ([("work", True), ("work", False)], NextTries(0, 1, 0, 0)),
        ([("watch", False), ("steady", False)], NextTries(0, 0, 1, 1)),
        ([("watch", True), ("work", True), ("steady", False)], NextTries(1, 2, 0, 0)),
        ([("steady", True), ("work", False)], NextTries()),
        ([("work", True)], NextTries()),
        ([("work", True), ("unreadable", False), ("steady", False)], NextTries(1, 1, 0, 0)),
        ([], NextTries()),
    ],
)
def test_a_fault_and_what_came_after_it(said: list[tuple[str, bool]], counted: NextTries) -> None:
    assert next_tries(tries(*said)) == counted


def test_another_lesson_and_another_student_are_no_next_try() -> None:
    assert next_tries(tries(("work", True), ("steady", False), every=SAME_SITTING + timedelta(seconds=1))) == NextTries()
    assert next_tries(tries(("work", True)) + tries(("steady", False), student=2)) == NextTries()


@given(st.lists(st.tuples(st.integers(1, 3), st.integers(0, 300), st.sampled_from(["work", "watch", "steady", "unreadable"]), st.booleans()), max_size=40))
def test_whatever_was_tried_no_more_are_better_than_there_were(said: list[tuple[int, int, str, bool]]) -> None:
    found = next_tries(Try(student, NOON + timedelta(minutes=minute), state, cued) for student, minute, state, cued in said)
    assert 0 <= found.better_after <= found.after and 0 <= found.better_without <= found.without
    assert found.after + found.without <= max(sum(state in ("work", "watch") for _, _, state, _ in said), 0)
    backwards = next_tries(Try(student, NOON + timedelta(minutes=minute), state, cued) for student, minute, state, cued in reversed(said))
    if len({(student, minute) for student, minute, *_ in said}) == len(said):
        assert backwards == found, "in whatever order they are told"


def said_in(*tries: tuple[int, str, bool, int], student: int = 1) -> list[Try]:
    """Minute, state, whether the cue was said, and in which words."""
    return [Try(student, NOON + timedelta(minutes=minute), state, cued, way) for minute, state, cued, way in tries]


def test_the_words_that_were_most_often_followed_by_a_better_try_come_first() -> None:
    tries = said_in((0, "work", True, 0), (5, "work", True, 1), (10, "steady", False, 0), (15, "work", True, 1), (20, "watch", False, 0))
    assert helped(tries, 1) == 1
    assert helped(tries, 2) == 0 and helped([], 1) == 0, "of another student, or of nobody, the usual ones"
    assert helped(said_in((0, "work", True, 2), (5, "work", False, 0)), 1) == 0, "what helped nobody is not put first"


def test_words_that_helped_now_and_then_give_way_to_those_that_always_did() -> None:
    now_and_then = said_in((0, "work", True, 1), (5, "steady", False, 0), (100, "work", True, 1), (105, "work", False, 0))
    always = said_in((300, "work", True, 2), (305, "steady", False, 0))
    assert helped([*now_and_then, *always], 1) == 2
    assert helped([*always, *said_in((400, "work", True, 0), (405, "steady", False, 0))], 1) == 0, "of two that always did, the usual ones"


def test_a_try_of_another_lesson_says_nothing_of_the_words_before_it() -> None:
    assert helped(said_in((0, "work", True, 2), (90, "steady", False, 0)), 1) == 0
