"""How the head is tilted: planted middle lines come back, and a face that is hidden tells nothing."""

from collections.abc import Sequence

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.heads import LINE_DEG, SURE, tilt_deg, to_flute
from brevin.core.kinematics.posture import LEAST_SHAPES, Stance, posture
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value
from brevin.core.track import Body, Features
from tests.core.made import HIP_PX, TRUNK_PX, body, features, player

TOP = np.array([HIP_PX[0], HIP_PX[1] - TRUNK_PX])
NOBODY = Features(np.full((2, 2), np.nan), np.full((2, 2), np.nan), 0.0)


def tilted(deg: float, **more: float) -> Body:
    return body(view="front", lean_deg=0.0, face=features(TOP, tilt_deg=deg, **more))


def head(bodies: Sequence[Body], view: str = "front", position: str = "seated") -> Value:
    seen = [(0.5 * i, one) for i, one in enumerate(bodies)]
    return next(m.value for m in posture(seen, player(len(bodies), view="front"), Stance(view, position)) if m.key == "head_tilt_deg")


@given(deg=st.floats(-40, 40), long_px=st.floats(20, 300))
def test_the_middle_line_says_how_far_and_to_which_side(deg: float, long_px: float) -> None:
    assert tilt_deg(tilted(deg, long_px=long_px)) == pytest.approx(deg, abs=0.01)


def test_a_clip_tells_the_usual_tilt_and_how_sure_it_is() -> None:
    found = head([tilted(deg) for deg in (7.0, 8.0, 9.0, 8.0, 30.0)])
    assert found == Amount(pytest.approx(8.0), pytest.approx(NORMAL_90 * LINE_DEG, abs=0.5))


@pytest.mark.parametrize("hidden", [[NOBODY], [features(TOP, sure=SURE - 0.01)], [None, NOBODY]])
def test_a_face_that_is_hidden_most_of_the_time_tells_nothing(hidden: list[Features | None]) -> None:
    bodies = [tilted(8.0) for _ in range(LEAST_SHAPES)]
    without = [Body(one.points_px, one.visibility, one.world, one.shape, hidden[i % len(hidden)]) for i, one in enumerate(bodies * 3)]
    assert head([*without, *bodies[:2]]) == NotMeasured("face_hidden")
    assert isinstance(head([*without[:2], *bodies]), Amount)


def test_a_reading_that_looked_at_no_face_says_read_it_again_and_no_other_view_tells_of_it() -> None:
    older = [Body(one.points_px, one.visibility, one.world, one.shape) for one in (tilted(0.0),) * 5]
    assert head(older) == NotMeasured("not_looked")
    assert head([tilted(0.0)] * 5, view="side-left") == NotMeasured("view_unserved") and head([tilted(0.0)] * 5, position="lying") == NotMeasured("lying")


@given(head_deg=st.floats(-30, 30), flute_deg=st.floats(-30, 30))
def test_a_head_that_goes_with_the_flute_is_level_with_it(head_deg: float, flute_deg: float) -> None:
    both = [Measure("head_tilt_deg", Amount(head_deg, 3.0)), Measure("instrument_axis_deg", Amount(flute_deg, 4.0))]
    assert to_flute(both).value == Amount(pytest.approx(head_deg - flute_deg), pytest.approx(5.0))
    hidden = Measure("head_tilt_deg", NotMeasured("face_hidden"))
    assert to_flute([hidden, both[1]]).value == NotMeasured("face_hidden")
    assert to_flute([both[0], Measure("instrument_axis_deg", NotMeasured("not_found"))]).value == NotMeasured("not_found")
