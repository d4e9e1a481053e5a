"""Both sides on purpose: only the second half is judged, and the difference is told against what breaths of one side differ by."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.both_sides import difference, marked, other_side
from brevin.core.errors import InvalidInput
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check, from_document, to_document
from brevin.core.read import Task, read
from brevin.core.report import Breath
from tests.core.made import HIGH, LOW, sighting

CARD = "3-0-4@72x4"
SIDES = Check(card=parse(CARD), contrast="high_low")
HALVES = frozenset({0, 1})


def told(check: Check, key: str, values: list[float], half_width: float = 0.02) -> Amount | NotMeasured:
    measures = [Measure(key, Amount(value, half_width), breath=i) for i, value in enumerate(values)]
    [found] = difference(check, measures, HALVES)
    return found.value


def report(cycles, contrast: str):
    made, _, card = sighting(CARD, cycles)
    return read(made, Task(Check(card=card, contrast=contrast)))


def test_two_high_breaths_on_purpose_and_two_low_ones_are_no_fault_and_a_difference() -> None:
    found = report([HIGH, HIGH, LOW, LOW], "high_low")
    said = {v.criterion: v for v in found.verdicts}
    assert [b.on_purpose for b in found.breaths] == [True, True, False, False]
    assert said["both_sides"].state == "steady" and said["both_sides"].value > 0.2
    for criterion in ("abdomen_leads", "shoulders_still"):
        assert {mark.breath for mark in said[criterion].marks} == {2, 3} and said[criterion].state == "steady"


def test_the_same_breaths_are_a_fault_where_the_card_asks_for_one_side() -> None:
    said = {v.criterion: v for v in report([HIGH, HIGH, LOW, LOW], "none").verdicts}
    assert "both_sides" not in said and said["shoulders_still"].state != "steady" and len(said["shoulders_still"].marks) == 4


def test_four_alike_breaths_are_no_difference_and_the_other_way_round_is_said() -> None:
    alike = {v.criterion: v for v in report([LOW] * 4, "high_low").verdicts}["both_sides"]
    assert alike.state == "watch"
    turned = {v.criterion: v for v in report([LOW, LOW, HIGH, HIGH], "high_low").verdicts}["both_sides"]
    assert turned.state == "work" and turned.outside


@given(share=st.floats(0.1, 0.9), step=st.floats(-0.5, 0.5))
def test_the_difference_is_second_less_first_and_as_sure_as_both(share: float, step: float) -> None:
    found = told(SIDES, "abdominal_share", [share, share, share + step, share + step])
    assert found.value == pytest.approx(step) and found.half_width == pytest.approx(0.02)  # each half as sure as two breaths, both together


def test_what_breaths_of_one_side_differ_by_widens_it() -> None:
    calm = told(SIDES, "abdominal_share", [0.3, 0.3, 0.6, 0.6])
    restless = told(SIDES, "abdominal_share", [0.1, 0.5, 0.4, 0.8])
    assert restless.value == pytest.approx(calm.value) and restless.half_width > 5 * calm.half_width


def test_a_tall_breath_is_larger_a_slow_one_more_even_and_a_pinched_one_is_told_by_ear() -> None:
    assert told(replace(SIDES, contrast="slumped_tall"), "size_pct", [2.0, 2.0, 4.0, 4.0]).value == pytest.approx(0.5)
    assert told(replace(SIDES, contrast="slack_slow"), "exhale_unevenness", [0.4, 0.4, 0.1, 0.1]).value == pytest.approx(0.3)
    assert told(replace(SIDES, contrast="pinched_open"), "size_pct", [2.0] * 4) == NotMeasured("by_ear")


def test_one_side_alone_is_no_difference() -> None:
    measures = [Measure("abdominal_share", Amount(0.5, 0.02), breath=0), Measure("abdominal_share", NotMeasured("region_unseen"), breath=2)]
    assert difference(SIDES, measures, HALVES)[0].value == NotMeasured("one_side_only")
    assert difference(Check(card=parse(CARD)), measures, HALVES) == []


def test_the_side_of_a_breath_is_the_cards_place_or_the_count_of_breaths() -> None:
    by_card = marked(SIDES, [Breath(card_index=i, uncertainty={}) for i in (1, 2, 3)])  # the first one was lost
    assert other_side(by_card) == {0}
    assert other_side(marked(SIDES, [Breath(uncertainty={}) for _ in range(4)])) == {0, 1}
    assert other_side(marked(Check(card=parse(CARD)), [Breath(uncertainty={})])) == frozenset()


@pytest.mark.parametrize(
    "document",
    [
        {"card": "3-0-4@72x3", "contrast": "high_low"}, {"contrast": "high_low"}, {"card": CARD, "contrast": "left_right"},
        {"card": CARD, "contrast": "high_low", "sets": ["3-0-4@72x3"]}, {"card": CARD, "sets": ["3-0"]}, {"sets": [CARD]}, {"card": CARD, "sets": [CARD] * 8},
        {"card": CARD, "sets": CARD}, {"card": CARD, "sets": [3]},
    ],
)  # fmt: skip
def test_what_is_no_card_of_sides_or_sets_is_refused(document: dict) -> None:
    with pytest.raises(InvalidInput):
        from_document(document)


def test_sets_come_back_with_their_card_and_each_is_a_check_of_its_own() -> None:
    check = from_document({"card": CARD, "sets": ["2-0-4@72x4", "1-0-4@80x4"], "contrast": "slack_slow"})
    assert from_document(to_document(check)) == check and [c.inhale_beats for c in check.cards] == [3, 2, 1]
    second = check.of_set(1)
    assert second.name == "2-0-4@72x4" and not second.sets and second.contrast == "slack_slow"
    assert check.of_set(0).card == parse(CARD) and Check().of_set(0) == Check()
    with pytest.raises(InvalidInput):
        check.of_set(3)
