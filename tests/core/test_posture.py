import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.posture import inclination_deg, posture, shoulder_tilt_deg
from brevin.core.kinematics.trunk import traces
from brevin.core.pose import landmarks as lm
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


def test_each_view_gives_what_it_can_serve() -> None:
    side, front, lying = (posture(made, traces(made)) for made in (sighting()[0], sighting(view="front")[0], sighting(position="lying")[0]))
    assert side.trunk_inclination_deg and side.shoulder_tilt_deg is None
    assert front.shoulder_tilt_deg and front.trunk_inclination_deg is None
    assert lying.trunk_inclination_deg is None
    assert side.trunk_inclination_deg.n > 10 and side.trunk_inclination_deg.uncertainty > 0


@pytest.mark.parametrize("sway_pct", [0.1, 0.8, 2.0])
def test_sway_is_how_far_the_back_wanders(sway_pct: float) -> None:
    made = sighting(sway_pct=sway_pct)[0]
    found = posture(made, traces(made)).sway_pct
    assert found is not None and found.value == pytest.approx(sway_pct / np.sqrt(2), rel=0.1)
