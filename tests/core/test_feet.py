"""Whether the feet are flat: planted soles come back from the side, crossed ankles from the front, and what is not seen tells nothing."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.feet import HEEL_UP_DEG, LEAST_LOOKS, SEEN, TOE_UP_DEG, feet, flat, uncrossed
from brevin.core.kinematics.posture import Stance, posture
from brevin.core.measure import Amount, Measure, NotMeasured, Value
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.judge import Judged, verdicts
from brevin.core.verdict.rules import Rules
from tests.core.made import TRUNK_PX, body, player

SOLE_PX = 0.4 * TRUNK_PX
ROOM_PX = np.array([np.inf, np.inf])  # a picture that ends nowhere near


def sided(down_deg: float, *, view: str = "side-right", visible: float = 1.0, sole_px: float = SOLE_PX) -> Body:
    """Somebody from the side. down_deg: toe under heel."""
    whole, ahead, pitch = body(view=view), -1.0 if view == "side-left" else 1.0, np.radians(down_deg)
    points, seen = whole.points_px.copy(), whole.visibility.copy()
    for ankle, heel, toe in ((lm.ANKLE_L, lm.HEEL_L, lm.TOE_L), (lm.ANKLE_R, lm.HEEL_R, lm.TOE_R)):
        points[heel] = points[ankle] + [-5.0 * ahead, 6.0]
        points[toe] = points[heel] + sole_px * np.array([ahead * np.cos(pitch), np.sin(pitch)])
        seen[toe] = visible
    return replace(whole, points_px=points, visibility=seen)


def fronted(left_px: float, right_px: float, *, visible: float = 1.0) -> Body:
    """Somebody from the front, the player's left at the picture's right. left_px, right_px: of each ankle beside the middle."""
    whole = body(view="front", lean_deg=0.0)
    points, seen = whole.points_px.copy(), whole.visibility.copy()
    points[lm.ANKLE_L, 0] += left_px
    points[lm.ANKLE_R, 0] += right_px
    seen[lm.ANKLE_L] = visible
    return replace(whole, points_px=points, visibility=seen)


def told(bodies: list[Body], view: str = "side-right", picture_px: np.ndarray = ROOM_PX) -> Value:
    return feet([(0.5 * i, one) for i, one in enumerate(bodies)], player(1, view=view).forward[0], view, picture_px).value  # pyrefly: ignore[bad-argument-type]


@given(down_deg=st.floats(-170, 170), view=st.sampled_from(["side-left", "side-right"]))
def test_a_sole_is_flat_as_it_lies_to_level_and_a_toe_may_tap(down_deg: float, view: str) -> None:
    ahead = player(1, view=view).forward[0]
    assert (
        flat(sided(down_deg, view=view), ahead, view, ROOM_PX) == (-TOE_UP_DEG < down_deg < HEEL_UP_DEG)
        or min(abs(down_deg + TOE_UP_DEG), abs(down_deg - HEEL_UP_DEG)) < 1e-6
    )


def test_the_share_of_the_time_is_told_and_the_more_looks_the_surer() -> None:
    found = told([sided(2.0)] * 15 + [sided(40.0)] * 5)
    assert isinstance(found, Amount) and found.value == pytest.approx(0.75)
    few, many = told([sided(2.0)] * LEAST_LOOKS), told([sided(2.0)] * 40)
    assert isinstance(few, Amount) and isinstance(many, Amount) and few.half_width > many.half_width


@pytest.mark.parametrize("unseen", [sided(2.0, visible=SEEN - 0.01), sided(2.0, sole_px=0.1 * TRUNK_PX)], ids=["outside the picture", "toward the camera"])
def test_feet_that_are_not_seen_tell_nothing(unseen: Body) -> None:
    assert told([unseen] * 9) == NotMeasured("feet_unseen") and told([unseen] * 6 + [sided(2.0)] * 5) == NotMeasured("feet_unseen")
    assert isinstance(told([unseen] * 4 + [sided(2.0)] * 5), Amount)


@pytest.mark.parametrize(("view", "seen"), [("side-right", sided(2.0)), ("front", fronted(30.0, -30.0))])
def test_a_foot_that_the_picture_cuts_off_is_not_seen_however_sure_the_network_is(view: str, seen: Body) -> None:
    points = seen.points_px[[lm.ANKLE_L, lm.ANKLE_R, lm.HEEL_L, lm.HEEL_R, lm.TOE_L, lm.TOE_R]] if view != "front" else seen.points_px[[lm.ANKLE_L, lm.ANKLE_R]]
    wide = points.max(axis=0) + 0.1 * TRUNK_PX
    assert isinstance(told([seen] * 9, view, wide), Amount)
    for axis in (0, 1):
        cut = wide.copy()
        cut[axis] = points[:, axis].max() + 2.0
        assert told([seen] * 9, view, cut) == NotMeasured("feet_unseen")


def test_from_the_front_it_is_told_whether_feet_are_crossed() -> None:
    beside, crossed, hidden = fronted(30.0, -30.0), fronted(-25.0, 25.0), fronted(30.0, -30.0, visible=0.1)
    assert (uncrossed(beside, ROOM_PX), uncrossed(crossed, ROOM_PX), uncrossed(hidden, ROOM_PX)) == (True, False, None)
    assert told([beside] * 9, "front").value == 1.0 and told([hidden] * 9, "front") == NotMeasured("feet_unseen")
    found = told([crossed] * 8 + [beside] * 2, "front")
    assert isinstance(found, Amount) and found.value == pytest.approx(0.2)


@pytest.mark.parametrize(("view", "position", "why"), [("three-quarter", "seated", "view_unserved"), ("side-right", "lying", "lying")])
def test_where_feet_are_not_judged_the_reason_is_said(view: str, position: str, why: str) -> None:
    seen = [(0.5 * i, sided(2.0)) for i in range(9)]
    found = next(m.value for m in posture(seen, player(9), Stance(view, position)) if m.key == "feet_flat")  # pyrefly: ignore[bad-argument-type]
    assert found == NotMeasured(why)  # pyrefly: ignore[bad-argument-type]


@pytest.mark.parametrize(("share", "state"), [(1.0, "steady"), (0.75, "watch"), (0.1, "work")])
def test_feet_that_stand_most_of_the_time_are_steady_and_who_stands_is_not_asked(share: float, state: str) -> None:
    measures = [Measure("feet_flat", Amount(share, 0.05))]
    found = {v.criterion: v for v in verdicts(Judged(measures, "side-left", "seated", False, ()), Asked(Check(kind="posture"), None, Rules()))}
    assert (found["feet_flat"].state, found["feet_flat"].side) == (state, "low")
    standing = verdicts(Judged(measures, "side-left", "standing", False, ()), Asked(Check(kind="posture"), None, Rules()))
    assert "feet_flat" not in {v.criterion for v in standing}
