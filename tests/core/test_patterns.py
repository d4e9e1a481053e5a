import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.patterns import Inhale, abdominal_share, pattern_of, pattern_within
from brevin.core.errors import InvalidInput
from brevin.core.verdict.profile import LIMITS, MethodProfile, from_json

RULES = MethodProfile()


@pytest.mark.parametrize(
    ("abdomen", "chest", "shoulder", "lag_s", "named"),
    [
        (3.0, -0.8, 0.2, 0.0, "pushed"), (-1.0, 2.5, 1.0, 0.1, "paradoxical"), (0.9, 0.6, 0.2, 0.1, "shallow"), (0.8, 2.6, 3.0, 0.1, "chest_high"),
        (2.0, 2.0, 0.3, -0.4, "chest_high"), (1.6, 2.0, 0.5, 1.0, "low_then_lifted"), (2.5, 1.5, 2.2, 0.4, "low_then_lifted"),
        (2.5, 1.5, 0.4, 0.5, "low_then_wide"), (3.5, 0.6, 0.1, 0.0, "low"),
    ],
)  # fmt: skip
def test_the_table_from_the_top(abdomen: float, chest: float, shoulder: float, lag_s: float, named: str) -> None:
    assert pattern_of(Inhale(abdomen, chest, shoulder, lag_s), lag_half_width_s=0.05, rules=RULES) == named


def test_chest_first_needs_an_interval_free_of_zero() -> None:
    inhale = Inhale(2.5, 1.5, 0.2, -0.2)
    assert pattern_of(inhale, lag_half_width_s=0.1, rules=RULES) == "chest_high"
    assert pattern_of(inhale, lag_half_width_s=0.3, rules=RULES) == "low_then_wide"


def test_a_wide_interval_is_not_sure() -> None:
    assert pattern_within(Inhale(2.5, 1.5, 0.2, 0.3), Inhale(0.1, 0.1, 0.1, 0.05), rules=RULES) == "low_then_wide"
    assert pattern_within(Inhale(1.5, 1.5, 1.5, 0.3), Inhale(1.6, 1.6, 1.5, 0.05), rules=RULES) == "unclear"


@given(st.floats(-5, 10), st.floats(-5, 10))
def test_share_is_none_where_hardly_anything_moves(abdomen: float, chest: float) -> None:
    share = abdominal_share(abdomen, chest)
    assert (share is None) == (abdomen + chest < 1.0)
    if share is not None and abdomen >= 0 and chest >= 0:
        assert 0 <= share <= 1


@given(st.floats(-5, 10), st.floats(-5, 10), st.floats(-1, 6), st.floats(-1, 1))
def test_every_inhale_has_exactly_one_name(abdomen: float, chest: float, shoulder: float, lag_s: float) -> None:
    from brevin.core.verdict.words import PATTERNS

    assert pattern_of(Inhale(abdomen, chest, shoulder, lag_s), lag_half_width_s=0.05, rules=RULES) in PATTERNS


def test_a_profile_changes_a_limit_by_name_and_its_fingerprint() -> None:
    strict = from_json({"profile_id": "strict", "limits": {"pattern.share_low": 0.6}})
    assert pattern_of(Inhale(2.6, 1.4, 0.2, 0.3), lag_half_width_s=0.05, rules=strict) == "low"
    assert strict.thresholds_id != RULES.thresholds_id
    assert from_json({"profile_id": "same", "limits": {}}).thresholds_id == RULES.thresholds_id


@pytest.mark.parametrize("document", [{"limits": {"no.such": 1}}, {"limits": {"pattern.lift": "high"}}, {"limits": {"pattern.lift": True}}, {"limits": []}])
def test_a_profile_that_is_none_is_refused(document: dict) -> None:
    with pytest.raises(InvalidInput):
        from_json(document)


def test_every_limit_has_unit_source_and_meaning() -> None:
    assert all(limit.unit and limit.source and limit.means for limit in LIMITS.values())
