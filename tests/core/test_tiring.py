"""What sinks over a lesson: only what is clearly further off than a clip itself may be."""

import pytest

from brevin.core.measure import Amount
from brevin.core.verdict.rules import Rules
from brevin.core.verdict.tiring import changes, words

FIRST = {"trunk_inclination_deg": Amount(2.0, 1.5), "instrument_axis_deg": Amount(8.0, 1.0)}


def said(now: dict[str, Amount], instrument="trumpet", rules=Rules(), first=FIRST) -> list[str]:  # noqa: B008 - frozen
    return [words(one) for one in changes(first, now, instrument, rules)]


@pytest.mark.parametrize(
    ("lean_deg", "axis_deg", "words_of"),
    [
        (3.0, 9.0, []),
        (9.0, 9.0, ["trunk 7° further forward"]),
        (-5.0, 9.0, ["trunk 7° further back"]),
        (3.0, 16.0, ["far end 8° lower"]),
        (3.0, -4.0, []),  # higher than at first: nothing sank
        (9.0, 16.0, ["trunk 7° further forward", "far end 8° lower"]),
    ],
)
def test_what_sank_is_said_by_how_much_and_which_way(lean_deg: float, axis_deg: float, words_of: list[str]) -> None:
    assert said({"trunk_inclination_deg": Amount(lean_deg, 1.5), "instrument_axis_deg": Amount(axis_deg, 1.0)}) == words_of


def test_a_change_inside_its_own_interval_says_nothing_nor_does_what_one_take_lacks() -> None:
    assert said({"trunk_inclination_deg": Amount(9.0, 8.0)}) == [] and said({}) == []
    assert said({"trunk_inclination_deg": Amount(9.0, 1.5)}, first={}) == []


def test_an_instrument_that_lies_on_the_body_does_not_sink_with_the_arms() -> None:
    assert said({"instrument_axis_deg": Amount(30.0, 1.0)}, instrument="tuba") == []


def test_exempt_and_switched_off_are_held_beside_nothing_and_a_programme_s_limit_counts() -> None:
    now = {"trunk_inclination_deg": Amount(9.0, 1.5), "instrument_axis_deg": Amount(16.0, 1.0)}
    assert said(now, rules=Rules(exempt=frozenset({"keeps_tall"}))) == ["far end 8° lower"]
    assert said(now, rules=Rules(off=frozenset({"arms_stay_up"}))) == ["trunk 7° further forward"]
    assert said(now, rules=Rules(changed={"tall.steady": 8.0})) == ["far end 8° lower"]
