"""Which hand is where on the instrument: planted places come back, and a hand that is guessed tells nothing."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.hold.looks import Playing
from brevin.core.hold.order import ORDER_PCT, SEEN, order
from brevin.core.kinds import View
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.judge import Judged, verdicts
from brevin.core.verdict.rules import Rules
from tests.core.made import TRUNK_PX, body


def player(left_pct: float, right_pct: float, *, visible: float = 1.0) -> Body:
    """Somebody with the wrists so far below the mouth, percent of trunk."""
    whole = body(view="front", lean_deg=0.0)
    points, seen = whole.points_px.copy(), whole.visibility.copy()
    points[lm.WRIST_L], points[lm.WRIST_R] = (lm.mouth(whole) + [0.0, at / 100.0 * TRUNK_PX] for at in (left_pct, right_pct))
    seen[lm.WRIST_L] = visible
    return replace(whole, points_px=points, visibility=seen)


def told(bodies: list[Body], view: View = "front") -> Measure:
    return order(Playing(view, [(0.5 * i, one) for i, one in enumerate(bodies)], (), 1.0))


@given(left=st.floats(5, 120), right=st.floats(5, 120))
def test_the_right_hand_is_further_by_what_was_planted(left: float, right: float) -> None:
    found = told([player(left, right)] * 3).value
    assert isinstance(found, Amount) and found.value == pytest.approx(right - left, abs=0.01)
    assert found.half_width == pytest.approx(NORMAL_90 * ORDER_PCT)


def test_hands_that_are_guessed_tell_nothing_and_neither_does_a_side() -> None:
    hidden = player(20.0, 60.0, visible=SEEN - 0.01)
    assert told([hidden] * 4).value == NotMeasured("hand_unseen") and told([hidden] * 4 + [player(20.0, 60.0)] * 3).value == NotMeasured("hand_unseen")
    assert isinstance(told([hidden] * 3 + [player(20.0, 60.0)] * 3).value, Amount)
    assert told([player(20.0, 60.0)] * 4, "side-left").value == NotMeasured("view_unserved")


@pytest.mark.parametrize(("further", "state"), [(45.0, "steady"), (-8.0, "watch"), (-45.0, "work")])
def test_swapped_hands_are_worked_on(further: float, state: str) -> None:
    measures = [Measure("hands_order_pct", Amount(further, 7.0))]
    found = {
        v.criterion: v
        for v in verdicts(Judged(measures, "front", "seated", False, ()), Asked(Check(kind="hold", view="front", instrument="clarinet"), None, Rules()))
    }
    assert (found["hands_in_order"].state, found["hands_in_order"].side) == (state, "low")
    trumpet = verdicts(Judged(measures, "front", "seated", False, ()), Asked(Check(kind="hold", view="front", instrument="trumpet"), None, Rules()))
    assert "hands_in_order" not in {v.criterion for v in trumpet}


def test_the_scatter_of_the_looks_makes_it_less_sure() -> None:
    wandering = told([player(20.0, 60.0 + by) for by in (-30.0, 0.0, 30.0)]).value
    assert isinstance(wandering, Amount) and wandering.half_width > NORMAL_90 * np.hypot(ORDER_PCT, 10.0)
