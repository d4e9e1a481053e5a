"""How full a breath is: against the student's own, and against nobody else's."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.fullness import OwnBreaths, own_full
from brevin.core.measure import Amount
from brevin.core.plan.check import Check, from_document, to_document
from brevin.core.read import Task, read
from brevin.core.synth import Cycle
from tests.core.made import sighting

FULL = Cycle(abdomen=3.4, chest=1.6, shoulder=0.3)
SMALL = replace(FULL, abdomen=1.05, chest=0.45)


def sizes(*values: float) -> tuple[Amount, ...]:
    return tuple(Amount(value, 0.2) for value in values)


def verdict(cycles: list[Cycle], known: OwnBreaths):
    made, _, card = sighting("4-0-4@72x3", cycles)
    report = read(made, Task(Check(card=card), known=known))
    return next(v for v in report.verdicts if v.criterion == "full_breath"), report


@given(st.lists(st.floats(1.0, 9.0), min_size=5, max_size=20))
def test_the_full_breath_is_the_median_of_the_five_largest_wherever_they_were(values: list[float]) -> None:
    expected = sorted(values)[-3]
    for at in range(0, len(values), 4):
        assert own_full(OwnBreaths(others=sizes(*values[:at])), sizes(*values[at:])).value == pytest.approx(expected)


def test_a_reference_card_goes_before_everything_and_too_few_breaths_are_none() -> None:
    assert own_full(OwnBreaths(sizes(6.0, 5.0, 5.5), sizes(9.0, 9.0, 9.0, 9.0, 9.0)), sizes(8.0)).value == 5.5
    assert own_full(OwnBreaths(others=sizes(5.0, 5.0)), sizes(5.0, 5.0)) is None
    apart, alike = (own_full(OwnBreaths(), sizes(*values)) for values in ((3.0, 4.0, 5.0, 6.0, 7.0), (5.0,) * 5))
    assert apart.half_width > 3 * alike.half_width > 0


def test_full_breaths_of_a_student_are_full_and_small_ones_are_a_fault() -> None:
    known = OwnBreaths(others=sizes(5.1, 5.0, 4.9, 5.0, 5.2))
    full, report = verdict([FULL] * 3, known)
    assert (full.state, full.steady_breaths) == ("steady", 3) and report.own_full.value == pytest.approx(5.0, abs=0.2)
    small, report = verdict([SMALL] * 3, known)
    assert (small.state, small.side) == ("work", "low") and small.facts["own_full_pct"] == pytest.approx(5.0, abs=0.2)
    assert report.cue.criterion != "all", "a small breath is not praised"


def test_the_same_breath_is_full_for_one_student_and_small_for_another() -> None:
    assert verdict([FULL] * 3, OwnBreaths(sizes(5.0, 5.0, 5.0)))[0].state == "steady"
    assert verdict([FULL] * 3, OwnBreaths(sizes(15.0, 15.0, 15.0)))[0].state == "work"


def test_where_no_full_breath_is_known_only_what_is_small_for_anybody_is_watched() -> None:
    full, report = verdict([FULL] * 3, OwnBreaths())
    assert full.state == "steady" and report.own_full is None
    small, _ = verdict([replace(SMALL, abdomen=0.8, chest=0.4)] * 3, OwnBreaths())
    assert small.state == "watch" and small.outside


def test_a_check_may_ask_for_the_full_breath_and_others_keep_the_document_they_had() -> None:
    asked = Check(full_breath=True)
    assert from_document(to_document(asked)) == asked and "full_breath" not in to_document(Check())
