import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.posture import Stance, bodies_of, head_forward_pct, inclination_deg, posture, shoulder_tilt_deg
from brevin.core.kinematics.traces import traces
from brevin.core.measure import NotMeasured
from brevin.core.pose import landmarks as lm
from brevin.core.report import Segment
from tests.core.made import body, player, sighting


@given(st.floats(-30, 40), st.sampled_from(["side-left", "side-right"]))
def test_lean_is_an_angle_toward_the_face(lean_deg: float, view: str) -> None:
    assert inclination_deg(body(view=view, lean_deg=lean_deg), player(1, view=view)) == pytest.approx(lean_deg, abs=0.1)


@given(st.floats(-20, 20), st.floats(0.5, 3.0))
def test_shoulder_tilt_is_free_of_size(tilt_deg: float, size: float) -> None:
    seen = body(view="front", trunk_px=100 * size)
    across = seen.points_px[lm.SHOULDER_L] - seen.points_px[lm.SHOULDER_R]
    seen.points_px[lm.SHOULDER_L, 1] -= abs(across[0]) * np.tan(np.radians(tilt_deg))
    assert shoulder_tilt_deg(seen) == pytest.approx(tilt_deg, abs=0.1)


@given(st.floats(-10, 40), st.sampled_from(["side-left", "side-right"]))
def test_a_head_is_forward_by_a_share_of_the_trunk_toward_the_face(forward_pct: float, view: str) -> None:
    who, seen = player(1, view=view), body(view=view)
    near, ahead = (lm.EAR_R, 1.0) if view == "side-right" else (lm.EAR_L, -1.0)
    seen.points_px[near, 0] = lm.shoulders(seen)[0] + ahead * forward_pct / 100.0 * who.trunk_px
    assert head_forward_pct(seen, who) == pytest.approx(forward_pct, abs=0.1)


def measured(segments=(), playing_s=None, **kwargs) -> dict:
    made = sighting(**kwargs)[0]
    found = posture(
        bodies_of(made.poses, made.player), made.player, Stance(made.view, made.position, traces(made).sway_pct, segments, [playing_s] if playing_s else ())
    )
    return {(m.key, m.segment): m for m in found}


def test_each_view_gives_what_it_can_serve_and_says_of_the_rest_why_not() -> None:
    side, front, lying = measured(), measured(view="front"), measured(position="lying")
    lean, tilt = ("trunk_inclination_deg", None), ("shoulder_tilt_deg", None)
    assert side[lean].amount and side[lean].samples > 10 and side[tilt].value == NotMeasured("view_unserved")
    assert front[tilt].amount and front[lean].value == NotMeasured("view_unserved")
    assert lying[lean].value == lying[tilt].value == NotMeasured("lying")


def test_posture_is_told_for_each_kind_of_segment_that_holds_key_points_enough() -> None:
    found = measured(segments=[Segment("inhale", 3.0, 7.0), Segment("pause", 7.0, 7.1), Segment("inhale", 11.0, 14.0)], lean_deg=6.0)
    inhale = found["trunk_inclination_deg", "inhale"]
    assert inhale.amount.value == pytest.approx(6.0, abs=0.1) and 10 < inhale.samples < found["trunk_inclination_deg", None].samples
    assert ("trunk_inclination_deg", "pause") not in found


@pytest.mark.parametrize("sway_pct", [0.1, 0.8, 2.0])
def test_sway_is_how_far_the_back_wanders(sway_pct: float) -> None:
    assert measured(sway_pct=sway_pct)["sway_pct", None].amount.value == pytest.approx(sway_pct / np.sqrt(2), rel=0.1)
