"""How level the shoulders are, by both armpits, where forearms hide their tops."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.kinematics.posture import Stance, posture
from brevin.core.kinematics.shapes import pits_of, shoulders_seen
from brevin.core.measure import NotMeasured
from brevin.core.pose import landmarks as lm
from brevin.core.pose.armpits import armpits_of, arms_out
from brevin.core.pose.shape import shape_of
from brevin.core.track import Body
from tests.core.made import body, player, shape
from tests.core.made_arms import SIDE_TRUNKS, SIZE, SLEEVE_TRUNKS, drawn, raised


def read(seen: Body, mask: np.ndarray) -> Body:
    return replace(seen, shape=replace(shape_of(mask, seen), pits_pct=armpits_of(mask, seen)))


@given(st.floats(-13.0, 13.0), st.floats(0.0, 0.7), st.floats(90.0, 220.0))
@settings(max_examples=15, deadline=None)
def test_the_line_through_both_armpits_is_that_of_the_shoulders(tilt_deg: float, fall: float, trunk_px: float) -> None:
    seen = raised(tilt_deg=tilt_deg, falls=(fall, fall), trunk_px=trunk_px)
    found = pits_of(read(seen, drawn(seen)))
    assert found is not None and found.line_deg == pytest.approx(tilt_deg, abs=1.5)
    assert found.at_px.shape == (1, 2, 2) and found.at_px[0, 0, 0] < found.at_px[0, 1, 0]


def test_an_armpit_lies_where_the_sleeve_leaves_the_trunk() -> None:
    seen = raised(falls=(0.0, 0.0))
    found = armpits_of(drawn(seen), seen)
    assert found == pytest.approx(100.0 * np.array([[SIDE_TRUNKS, 1.0 - SLEEVE_TRUNKS]] * 2), abs=1.0)


@pytest.mark.parametrize(
    ("falls", "reach", "out"),
    [
        ((0.3, 0.3), 0.4, True),
        ((-0.2, 0.3), 0.4, True),
        ((1.5, 0.2), 0.3, False),
        ((0.8, 0.1), 0.4, False),
        ((0.3, 0.3), 0.2, False),
        ((0.3, 0.3), -0.2, False),
    ],
    ids=["as with a trumpet", "one over level", "as with a flute", "unlike each other", "forward", "crossed"],
)
def test_arms_stand_out_alike_or_their_armpits_tell_nothing(falls: tuple[float, float], reach: float, out: bool) -> None:
    assert arms_out(raised(falls=falls, reach=reach)) is out


def test_what_is_not_in_the_mask_has_no_armpit_and_then_there_is_no_line() -> None:
    seen = raised()
    one_armed = armpits_of(drawn(seen, without=lm.ELBOW_L), seen)
    assert np.isfinite(one_armed[0]).all() and np.isnan(one_armed[1]).all()
    assert pits_of(read(seen, drawn(seen, without=lm.ELBOW_L))) is None
    assert np.isnan(armpits_of(np.zeros(SIZE, np.float32), seen)).all()
    assert pits_of(seen) is None and pits_of(replace(seen, shape=shape())) is None


def test_the_tops_go_before_the_armpits_and_armpits_before_nothing() -> None:
    hidden = read(raised(tilt_deg=9.0), drawn(raised(tilt_deg=9.0)))
    free = body(view="front", lean_deg=0.0, outline=replace(shape(tilt_deg=2.0), pits_pct=hidden.shape.pits_pct))
    assert [across.line_deg for _, across in shoulders_seen([(0.5 * i, free) for i in range(4)])] == pytest.approx([2.0] * 4)
    looks = [(0.5 * i, hidden) for i in range(8)]
    who = player(len(looks), view="front")
    found = next(m for m in posture(looks, who, Stance("front", "seated")) if m.key == "shoulder_tilt_deg")
    assert found.amount is not None and found.amount.value == pytest.approx(9.0, abs=1.5) and found.amount.half_width > 3.0
    seldom = [(t_s, one if i < 3 else replace(one, shape=shape_of(drawn(one), one))) for i, (t_s, one) in enumerate(looks)]
    untold = next(m for m in posture(seldom, who, Stance("front", "seated")) if m.key == "shoulder_tilt_deg")
    assert untold.value == NotMeasured("arms_across"), "three looks of eight are chance"
