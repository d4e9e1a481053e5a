"""What the trunk's own movement is taken from: its back and pelvis, never an arm that hangs over them; and how much a followed patch can tell."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.kinematics.rigid import how_sure, rigid_motion, rise, trunk_motion
from brevin.core.kinematics.shoulder import TOGETHER, shoulder_rise
from brevin.core.kinematics.traces import traces
from brevin.core.track import Points
from tests.core.made import HIGH, and_points, points_at, sighting
from tests.core.test_traces import gain

HANGING = np.array([[[0.0, 96.0], [-2.0, 42.0]], [[-2.0, 42.0], [2.0, 2.0]]])  # an arm over the lower back, elbow and wrist before the hip
SHOULDERS = np.sin(np.linspace(0.0, 12.0, 300))


def lower_back(forward_pct: tuple[float, ...], *, lifted: tuple[bool, ...]) -> Points:
    """Rows of points up the lower back, at so much forward; those that are lifted go up with the shoulders."""
    at = np.array([(x, y) for x in forward_pct for y in (4.0, 12.0, 20.0, 28.0)])
    move = np.zeros((len(SHOULDERS), len(at), 2))
    move[:, np.repeat(lifted, 4), 1] = 2.0 * SHOULDERS[:, None]
    return points_at(at, move)


def test_an_arm_that_hangs_over_the_lower_back_lifts_nothing() -> None:
    seen = lower_back((-2.0, 0.0, 2.0, -13.0, -16.0), lifted=(True, True, True, False, False))
    assert np.abs(rise(seen, HANGING)).max() < 1e-9, "most of the points lie on the arm, the trunk's are off it"
    assert np.ptp(rise(seen, np.zeros((0, 2, 2)))) > 3.5, "where no arm is known, what most of them do is the trunk"


def test_where_the_arm_hides_all_of_it_the_farthest_few_tell() -> None:
    seen = lower_back((0.0, 2.0, -6.0, -8.0), lifted=(True, True, False, False))
    assert np.abs(rise(seen, HANGING)).max() < 1e-9


def test_a_body_that_goes_up_is_told_by_all_points_off_the_arms() -> None:
    seen = lower_back((-20.0, -17.0), lifted=(True, True))
    assert rise(seen, HANGING) == pytest.approx(2.0 * SHOULDERS)
    assert not rise(replace(seen, on_body=np.zeros(8, bool)), HANGING).any(), "nothing of it is seen"


def test_patches_that_can_tell_outweigh_those_that_cannot() -> None:
    seen = lower_back((-20.0, -17.0, -23.0), lifted=(True, False, True))
    unsure = np.full((12, 2), 0.02)
    unsure[[0, 1, 2, 3, 8, 9, 10, 11], 1] = 0.5  # eight of twelve lie on upright stripes
    assert np.abs(rise(replace(seen, unsure_pct=unsure), HANGING)).max() < 1e-9
    assert how_sure(np.array([0.0, 0.08, 0.8])) == pytest.approx([1.0, 0.5, 0.0099], abs=1e-4)


def test_a_shoulder_that_hardly_any_patch_can_tell_is_as_unsure_as_they_are() -> None:
    made, planted, _ = sighting(cycles=[HIGH] * 3)
    still = rise(made.points, made.arms_pct)
    assert np.abs(still).max() < 0.2
    plain = replace(made.points, unsure_pct=np.full(made.points.at_pct.shape, 0.5))
    sure, unsure = (traces(replace(made, points=one)) for one in (made.points, plain))
    assert gain(unsure.shoulder, planted.shoulder, unsure.t_s, planted.t_s) == pytest.approx(1.0, abs=0.1)
    assert unsure.noise["shoulder"] > 5.0 * sure.noise["shoulder"]
    assert unsure.noise["shoulder"] >= 0.5 * np.sqrt(TOGETHER), "however many there are, they are wrong together"
    assert (
        shoulder_rise(
            replace(plain, on_body=np.zeros(len(plain.on_body), bool)), rigid_motion(made.back, made.points, made.arms_pct), made.arms_pct, both=False
        ).region
        is None
    )


def test_a_few_patches_of_a_plain_shirt_tell_no_shoulder() -> None:
    made, _, _ = sighting(cycles=[HIGH] * 3)
    there = np.flatnonzero((made.points.at_pct[:, 1] > 80.0) & (np.abs(made.points.at_pct[:, 0]) < 16.0))
    few = np.isin(np.arange(len(made.points.at_pct)), there[:4]) | (made.points.at_pct[:, 1] < 80.0)
    for unsure_pct, told in ((0.5, False), (0.1, True)):
        plain = replace(made.points, on_body=made.points.on_body & few, unsure_pct=np.full(made.points.at_pct.shape, unsure_pct))
        assert traces(replace(made, points=plain)).seen["shoulder"] is told


OUT = np.array([[[0.0, 98.0], [40.0, 70.0]], [[40.0, 70.0], [48.0, 110.0]], [[48.0, 110.0], [52.0, 116.0]]])  # an arm that holds something before the mouth


@pytest.mark.parametrize(("arms", "told"), [(np.concatenate([OUT, OUT]), 1.0), (np.concatenate([OUT, HANGING, HANGING[:1]]), 0.6)])
def test_an_arm_that_is_held_out_turns_about_its_elbow_and_goes_up_the_less_the_farther_down(arms: np.ndarray, told: float) -> None:
    made, planted, _ = sighting(cycles=[HIGH] * 3)
    share = np.array([0.02, 0.06, 0.1, 0.14, 0.2, 0.25, *np.arange(0.3, 0.72, 0.03)])
    along = OUT[0, 0] + share[:, None] * (OUT[0, 1] - OUT[0, 0])
    move = np.zeros((len(made.t_s), len(share), 2))
    move[:, :, 1] = planted.shoulder[:, None] * (1.0 - share)
    low = made.points.at_pct[:, 1] < 50.0
    trunk = points_at(made.points.at_pct[low], made.points.move_pct[:, low])
    found = traces(replace(made, arms_pct=arms, points=and_points(trunk, along, move)))
    assert gain(found.shoulder, planted.shoulder, found.t_s, planted.t_s) == pytest.approx(told, abs=0.13)


def test_stripes_that_slip_are_outweighed_by_what_tells() -> None:
    """Many patches of level stripes on the flank, which slip together, beside a few that can be followed."""
    made, planted, _ = sighting(chest_hidden=True)
    random = np.random.default_rng(5)
    good = np.array([(x, y) for x in (6.0, 10.0) for y in (60.0, 66.0, 72.0, 78.0)])
    poor = np.array([(x, y) for x in (4.0, 8.0, 12.0) for y in (58.0, 62.0, 64.0, 68.0, 70.0, 74.0, 76.0)])
    share = profile.chest_share(good[:, 1]) * profile.depth_share(good[:, 0], front_pct=18.0)
    move = np.zeros((len(made.t_s), len(good) + len(poor), 2))
    move[:, : len(good), 0] = planted.chest[:, None] * share + 0.02 * random.normal(size=(len(made.t_s), len(good)))
    move[:, len(good) :, 0] = 9.0 * filters.smooth(random.normal(size=len(made.t_s)), sigma_s=0.5)[:, None]
    move[:, :, 0] += made.back.travel_pct.mean(axis=1)[:, None] * -1.0
    points = and_points(made.points, np.concatenate([good, poor]), move)
    unsure = points.unsure_pct.copy()
    unsure[-len(poor) :, 0] = 0.6
    found = traces(replace(made, points=replace(points, unsure_pct=unsure)))
    assert found.seen["chest"] and gain(found.chest, planted.chest, found.t_s, planted.t_s) == pytest.approx(1.0, abs=0.2)


def test_who_lies_on_the_floor_moves_as_the_room_does() -> None:
    """What shows below the trunk is the near arm, and that rises with the shoulders."""
    made, planted, _ = sighting(cycles=[HIGH] * 3, position="lying")
    shakes = np.column_stack([0.4 * np.sin(made.t_s), 0.0 * made.t_s])
    held = replace(
        made, picture=replace(made.picture, room_pct=shakes),
        back=replace(made.back, travel_pct=made.back.travel_pct + 0.3 * planted.shoulder[:, None]),
        front=replace(made.front, travel_pct=made.front.travel_pct + (shakes[:, :1] - made.back.travel_pct.mean(axis=1, keepdims=True) * -1.0)),
    )  # fmt: skip
    found = traces(held)
    assert trunk_motion(held).forward_pct == pytest.approx(shakes[:, 0])
    assert gain(found.abdomen, planted.abdomen, found.t_s, planted.t_s) == pytest.approx(1.0, abs=0.1)
    sitting = traces(replace(held, position="seated"))
    assert gain(sitting.abdomen, planted.abdomen, sitting.t_s, planted.t_s) > 1.5, "of anybody else the back tells"
    unseen = replace(held, picture=made.picture)
    assert trunk_motion(unseen).forward_pct == pytest.approx(rigid_motion(held.back, held.points, held.arms_pct).forward_pct), "no room is seen"
