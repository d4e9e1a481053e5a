"""How the head is tilted: planted middle lines come back, and a face that is hidden tells nothing."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.heads import FRONT_PCT, LINE_DEG, SURE, drawn_pct, tilt_deg, to_flute
from brevin.core.kinematics.posture import LEAST_SHAPES, Stance, posture
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value
from brevin.core.pose.shape import ASIDE_PCT, HEIGHTS
from brevin.core.track import Body, Features, Shape
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


def test_few_faces_among_hidden_ones_are_believed_where_they_say_the_same() -> None:
    hidden = [Body(one.points_px, one.visibility, one.world, one.shape, NOBODY) for one in (tilted(0.0),) * 8]
    assert head([*hidden, *(tilted(deg) for deg in (11.6, 12.0, 12.7))]) == Amount(pytest.approx(12.0), pytest.approx(NORMAL_90 * LINE_DEG, abs=0.5))
    assert head([*hidden, *(tilted(deg) for deg in (9.0, 12.0, 12.7))]) == NotMeasured("face_hidden")


def drawn(pct: float, *, ahead: float, wide: float = 1.0) -> Body:
    """With empty hands, and the shoulders drawn ahead of where they are by so much of the trunk. wide: beside the usual distance from the front."""
    front, back = wide * FRONT_PCT - pct * HEIGHTS, 24.0 + pct * HEIGHTS
    beside = np.where(front < 0.0, np.nan, np.stack([back, front]))
    return replace(body(), shape=Shape(beside_pct=beside[:: 1 if ahead > 0 else -1], over_pct=np.zeros((2, len(ASIDE_PCT)))))


@given(pct=st.floats(13, 24), ahead=st.sampled_from([-1.0, 1.0]))
def test_shoulders_that_stand_before_the_chest_were_taken_along_by_the_head(pct: float, ahead: float) -> None:
    assert drawn_pct(drawn(pct, ahead=ahead), ahead) == pytest.approx(pct)


@given(pct=st.floats(-10, 8), ahead=st.sampled_from([-1.0, 1.0]), wide=st.floats(0.9, 1.6))
def test_shoulders_that_stand_in_the_trunk_are_where_they_were_found(pct: float, ahead: float, wide: float) -> None:
    assert drawn_pct(drawn(pct, ahead=ahead, wide=wide), ahead) == 0.0


def test_where_nobody_looked_or_no_front_shows_nothing_is_told_of_the_shoulders() -> None:
    one = drawn(20.0, ahead=1.0)
    assert one.shape is not None and drawn_pct(replace(one, shape=None), 1.0) is None
    hidden = one.shape.beside_pct.copy()
    hidden[1] = np.nan
    assert drawn_pct(replace(one, shape=replace(one.shape, beside_pct=hidden)), 1.0) is None


def test_a_head_far_ahead_is_told_as_far_though_it_took_the_shoulders_along() -> None:
    seen = [(0.5 * i, drawn(18.0, ahead=1.0)) for i in range(6)]
    as_found = [(t_s, drawn(0.0, ahead=1.0)) for t_s, _ in seen]
    told, before = (
        next(m.value for m in posture(one, player(6), Stance("side-right", "seated", bare=True)) if m.key == "head_forward_pct") for one in (seen, as_found)
    )
    assert isinstance(told, Amount) and isinstance(before, Amount)
    assert told.value - before.value == pytest.approx(18.0) and told.half_width > before.half_width + 1.0


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
