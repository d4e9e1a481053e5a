import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.plan.rota import Due, by_need, rota

DUE = st.lists(st.builds(Due, st.integers(1, 99), st.none() | st.floats(0, 60), st.sampled_from(["steady", "watch", "work", None])), max_size=40)


def test_never_seen_comes_first_then_the_longest_ago_then_who_had_something_to_work_on() -> None:
    due = [Due(1, 3.2, "steady"), Due(2, 14.0, "steady"), Due(3, None), Due(4, 3.9, "work"), Due(5, 14.5, "watch")]
    assert [one.student_id for one in by_need(due)] == [3, 5, 2, 4, 1]


@given(DUE, st.floats(10, 90), st.floats(0.5, 5), st.floats(0, 10), st.floats(0, 10))
def test_everybody_is_placed_or_left_once_and_nobody_outside_the_minutes(due, minutes, each, before, after) -> None:
    found = rota(due, minutes=minutes, each_min=each, before_min=before, after_min=after)
    assert sorted([i for i, _ in found.placed] + found.left) == sorted(one.student_id for one in due)
    assert all(before <= minute and minute + each <= minutes - after + 1e-6 for _, minute in found.placed)
    if found.left:
        assert (len(found.placed) + 1) * each > minutes - before - after - 1e-6, "nobody is left who would have fitted"


def test_lengths_that_are_none_are_refused() -> None:
    with pytest.raises(ValueError, match="above nought"):
        rota([], minutes=0, each_min=1, before_min=0, after_min=0)
