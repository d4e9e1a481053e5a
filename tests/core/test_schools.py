"""The five questions: which limits a school or a strictness changes, and that the verdict that depends on it flips and no other."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.kinds import IMPORTANCE
from brevin.core.verdict import rules as ruling
from brevin.core.verdict.criteria import CRITERIA
from brevin.core.verdict.rules import LIMITS, Rules, layer_from, resolve
from brevin.core.verdict.schools import (
    FINER,
    FLIPPING,
    FLOORS,
    QUESTIONS,
    SCHOOLS,
    STRICTNESS,
    TOLERANCES,
    USUAL,
    Method,
    card_layer,
    layer_of,
    method_from,
    strict_limits,
    to_document,
)

METHODS = st.builds(
    Method,
    answers=st.fixed_dictionaries({}, optional={question: st.sampled_from(list(schools)) for question, schools in SCHOOLS.items()}),
    strictness=st.sampled_from(STRICTNESS),
)


@given(METHODS)
def test_a_method_is_its_document(method: Method) -> None:
    assert method_from(to_document(method)) == method


def test_the_usual_method_changes_nothing() -> None:
    assert set(USUAL) == set(QUESTIONS) and all(USUAL[question] in SCHOOLS[question] for question in QUESTIONS)
    assert resolve([layer_of(Method(dict(USUAL)))]).thresholds_id == resolve([]).thresholds_id


@given(METHODS)
def test_steady_stays_inside_work_however_strict(method: Method) -> None:
    rules = resolve([layer_of(method)])
    for name in LIMITS:
        outer = name.replace("steady", "work")
        if outer == name or outer not in LIMITS:
            continue
        steady, work, usual = rules.limit(name), rules.limit(outer), LIMITS[outer].value - LIMITS[name].value
        assert (work - steady) * usual > 0, (name, steady, work)


def test_the_order_of_importance_goes_into_the_rules_and_the_usual_one_changes_no_fingerprint() -> None:
    usual, other = resolve([layer_of(Method())]), resolve([layer_of(Method(order=("breath", "seat", "hold", "count")))])
    assert usual.order == IMPORTANCE and usual.thresholds_id == Rules().thresholds_id != other.thresholds_id
    assert ruling.from_document(ruling.to_document(other)) == other and ruling.from_document({"limits": {}}).order == IMPORTANCE, (
        "a take from before has the usual one"
    )
    for wrong in (["seat"], ["seat", "seat", "hold", "count"], "seat", ["seat", "breath", "hold", "sound"], 7):
        with pytest.raises(InvalidInput, match="bad_profile"):
            method_from({"answers": {}, "order": wrong})


@pytest.mark.parametrize("strictness", ["milder", "stricter"])
def test_milder_lets_more_pass_and_stricter_less_in_every_limit_it_names(strictness: str) -> None:
    assert set(strict_limits(strictness)) == {*TOLERANCES, *FLOORS} <= set(LIMITS)
    for name, value in strict_limits(strictness).items():
        wider = abs(value) > abs(LIMITS[name].value) if name in TOLERANCES else value < LIMITS[name].value
        assert wider == (strictness == "milder"), name
    assert all(value <= 1.0 for name, value in strict_limits(strictness).items() if name in FLOORS)  # a share can be reached


def test_the_school_of_the_belly_alone_marks_a_breath_that_widens_later() -> None:
    usual, belly = resolve([]), resolve([layer_of(Method({"breathing_in": "belly_only"}))])
    wide, low = 0.65, 0.80  # shares of the belly
    assert wide >= usual.limit("abdomen_leads.steady") and wide < belly.limit("abdomen_leads.steady") <= low
    assert wide > belly.limit("abdomen_leads.work")  # watch, no fault


def test_pushes_switch_off_how_evenly_the_trunk_returns_and_nothing_else() -> None:
    pushed = resolve([layer_of(Method({"breathing_out": "small_pushes"}))])
    assert pushed.off == {"even_exhale"} and not pushed.changed
    assert "even_exhale" in {row.key for row in CRITERIA}


def test_how_long_it_may_stand_still_between_in_and_out_is_the_schools() -> None:
    most = {school: resolve([layer_of(Method({"between": school}))]).limit("pause.steady_beats") for school in SCHOOLS["between"]}
    assert most == {"no_pause": 0.25, "short_set": 0.5, "counted_pause": 1.0}
    stricter = resolve([layer_of(Method({"between": "short_set"}, "stricter"))])
    assert stricter.limit("pause.steady_beats") == 0.5, "what is wanted is not judged more strictly"


def test_where_counts_are_only_time_who_is_full_early_and_waits_does_nothing_wrong() -> None:
    rules = resolve([layer_of(Method({"fullness": "counts_are_time"}))])
    assert rules.off == {"not_full_early", "even_intake", "inhale_counts", "pause"} and not rules.changed
    assert not {"with_count", "exhale_with_count", "exhale_counts"} & rules.off, "the turns are on the count all the same"
    assert set(FINER) < set(QUESTIONS) and len(QUESTIONS) - len(FINER) == 5, "a start asks five"


def test_a_card_answers_in_the_place_of_the_method_and_wins_over_what_the_programme_set() -> None:
    time = Method({"fullness": "counts_are_time", "breathing_out": "slow_and_even"})
    taught = {"fullness": "over_all_counts", "breathing_out": "small_pushes", "between": "counted_pause"}
    own = layer_from({"limits": {"pause.steady_beats": 0.3}})
    rules = resolve([layer_of(time, taught), own, card_layer(taught)])
    assert rules.off == {"even_exhale"}, "what counts as time elsewhere is judged on this card again"
    assert rules.limit("pause.steady_beats") == 1.0 and rules.set_by["pause.steady_beats"] == "card"
    assert resolve([layer_of(time), own, card_layer({})]).set_by["pause.steady_beats"] == "programme", "a card that says nothing leaves it"
    assert FLIPPING == ("breathing_in", "breathing_out", "between", "fullness")


def test_what_the_programme_sets_itself_wins_over_its_method() -> None:
    rules = resolve([layer_from({"limits": {"shoulders_still.steady": 1.0}}), layer_of(Method(strictness="milder"))])
    assert rules.limit("shoulders_still.steady") == 1.0 and rules.set_by["shoulders_still.steady"] == "programme"
    assert rules.set_by["shoulders_still.work"] == "method"


@pytest.mark.parametrize(
    "document",
    [{"answers": []}, {"answers": {"posture": "tall"}}, {"answers": {"tongue": "never"}}, {"answers": {"tongue": 3}}, {"strictness": "harsh"}],
)
def test_what_is_no_method_is_refused(document: dict) -> None:
    with pytest.raises(InvalidInput, match="bad_method"):
        method_from(document)
