import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.patterns import NOT_SURE, Inhale, Named, abdominal_share, as_the_others, pattern_of, pattern_within, usual
from brevin.core.verdict.rules import Rules

RULES = Rules()


@pytest.mark.parametrize(
    ("abdomen", "chest", "shoulder", "lag_s", "named"),
    [
        (3.0, -0.8, 0.2, 0.0, "pushed"), (-1.0, 2.5, 1.0, 0.1, "paradoxical"), (0.9, 0.6, 0.2, 0.1, "shallow"), (0.8, 2.6, 3.0, 0.1, "chest_high"),
        (2.0, 2.0, 0.3, -0.4, "chest_high"), (1.6, 2.0, 0.5, 1.0, "low_then_lifted"), (2.5, 1.5, 2.2, 0.4, "low_then_lifted"),
        (2.5, 1.5, 0.4, 0.5, "low_then_wide"), (3.5, 0.6, 0.1, 0.0, "low"), (0.6, 0.4, 2.4, 0.0, "chest_high"),
        (2.6, -0.2, 0.3, -0.5, "low"),
    ],
)  # fmt: skip
def test_the_table_from_the_top(abdomen: float, chest: float, shoulder: float, lag_s: float, named: str) -> None:
    assert pattern_of(Inhale(abdomen, chest, shoulder, lag_s), lag_half_width_s=0.05, rules=RULES) == named


def test_chest_first_needs_an_interval_free_of_zero() -> None:
    inhale = Inhale(2.5, 1.5, 0.2, -0.2)
    assert pattern_of(inhale, lag_half_width_s=0.1, rules=RULES) == "chest_high"
    assert pattern_of(inhale, lag_half_width_s=0.3, rules=RULES) == "low_then_wide"


def test_a_wide_interval_is_not_sure() -> None:
    assert pattern_within(Inhale(2.5, 1.5, 0.2, 0.3), Inhale(0.1, 0.1, 0.1, 0.05), rules=RULES) == Named("low_then_wide")
    assert pattern_within(Inhale(1.5, 1.5, 1.5, 0.3), Inhale(1.6, 1.6, 1.5, 0.05), rules=RULES).pattern == "unclear"


def test_a_sign_is_believed_only_where_the_interval_does_not_reach_over_it() -> None:
    sure, unsure = Inhale(0.2, 0.2, 0.1, 0.05), Inhale(0.2, 0.7, 0.1, 0.05)
    assert pattern_within(Inhale(3.0, -0.6, 0.2, None), sure, rules=RULES) == Named("pushed")
    assert pattern_within(Inhale(3.0, -0.6, 0.2, None), unsure, rules=RULES) == Named("unclear", stands="pushed", others=frozenset({"low"}))


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


def test_an_interval_that_holds_low_and_high_names_neither() -> None:
    """Deep and low but for a lag that only may say chest first: contrary names, however few."""
    widths = Inhale(0.1, 0.1, 0.1, 0.18)
    assert pattern_within(Inhale(4.0, 1.0, 0.2, -0.19), widths, rules=RULES) == NOT_SURE
    assert pattern_within(Inhale(4.0, 1.0, 0.2, -0.60), widths, rules=RULES) == Named("chest_high")
    assert pattern_within(Inhale(4.0, 1.0, 0.2, 0.0), widths, rules=RULES) == Named("low")


def test_an_interval_that_holds_two_names_the_nearer_and_says_the_other() -> None:
    widths = Inhale(0.3, 0.6, 0.1, 0.05)
    assert pattern_within(Inhale(3.0, 1.2, 0.2, 0.3), widths, rules=RULES) == Named("low_then_wide", "low")
    assert pattern_within(Inhale(3.0, 0.8, 0.2, 0.3), widths, rules=RULES) == Named("low", "low_then_wide")
    three = pattern_within(Inhale(3.0, 1.2, 0.2, 0.3), Inhale(0.3, 2.9, 0.1, 0.05), rules=RULES)
    assert three == Named("unclear", stands="low_then_wide", others=frozenset({"low_then_lifted", "pushed"})), "three are too many"


WIDE, WIDE_OR_LOW = Named("low_then_wide"), Named("low_then_wide", "low")
OPEN = Named("unclear", stands="low_then_wide", others=frozenset({"low", "low_then_lifted"}))


def test_a_breath_that_holds_too_many_is_named_as_its_numbers_stand_where_two_others_are_named_so() -> None:
    assert as_the_others([WIDE_OR_LOW, OPEN, WIDE]) == [WIDE_OR_LOW, WIDE_OR_LOW, WIDE], "what is said beside theirs is said beside it"
    assert as_the_others([OPEN, WIDE, WIDE, OPEN])[0] == WIDE_OR_LOW, "what they leave out its own intervals hold, and it is said"
    paradoxical = Named("unclear", stands="paradoxical", others=frozenset({"chest_high"}))
    assert as_the_others([Named("paradoxical"), paradoxical, Named("paradoxical")])[1] == Named("paradoxical", "chest_high")


@pytest.mark.parametrize(
    "breaths",
    [
        [WIDE, OPEN], [OPEN, OPEN, OPEN], [WIDE, OPEN, OPEN], [Named("low"), Named("low"), OPEN], [Named("low")] * 3 + [WIDE] * 2 + [OPEN],
        [Named("low"), Named("low"), NOT_SURE], [],
    ],
    ids=["of two", "of none that is sure", "of one that is sure", "as no other", "as the fewer", "the contrary", "of none"],
)  # fmt: skip
def test_a_breath_is_named_as_the_others_by_no_less(breaths: list[Named]) -> None:
    assert as_the_others(breaths) == breaths


def test_where_no_row_fits_is_no_kind_of_breath_to_be_said_beside_one() -> None:
    """Belly a little out, chest in by more: no row. Beside "small breath" that is not said, and by itself it has nothing beside it."""
    widths = Inhale(0.1, 0.3, 0.1, 0.05)
    assert pattern_of(Inhale(0.9, -1.3, 0.1, None), lag_half_width_s=0.0, rules=RULES) == "unclear"
    assert pattern_within(Inhale(0.8, -1.3, 0.1, None), widths, rules=RULES) == NOT_SURE
    assert pattern_within(Inhale(0.8, -1.1, 0.1, None), widths, rules=RULES) == Named("shallow")


def test_the_usual_breath_is_what_most_are_and_the_earlier_of_as_many() -> None:
    assert usual(["low", "unclear", "unclear"]) == "unclear" and usual(["low", "chest_high"]) == "low" and usual([]) is None
