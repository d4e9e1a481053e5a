"""From followed outline and texture to traces, on sightings whose truth is planted."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core import filters
from brevin.core.kinematics import profile, regions
from brevin.core.kinematics.outline import free_outline
from brevin.core.kinematics.rigid import rigid_motion
from brevin.core.kinematics.shoulder import TIMES_FRONT
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.synth import Cycle
from brevin.core.track import Points, Sighting, Strips
from tests.core.made import HIGH, LOW, and_points, gain, points_at, sighting


@settings(max_examples=10, deadline=None)
@given(st.floats(1.0, 4.0), st.floats(1.0, 3.0), st.integers(0, 99))
def test_each_region_comes_back_at_its_size(abdomen: float, chest: float, seed: int) -> None:
    made, planted, _ = sighting("4-0-4@72x2", [Cycle(abdomen, chest, 1.0)] * 2, seed=seed)
    found = traces(made)
    for name in ("abdomen", "chest", "shoulder"):
        assert gain(getattr(found, name), getattr(planted, name), found.t_s, planted.t_s) == pytest.approx(1.0, abs=0.08)
    assert found.seen == {"abdomen": True, "chest": True, "shoulder": True}
    assert found.model["chest"] < regions.MODEL_ERROR_OUTLINE + 0.01 < regions.MODEL_ERROR_FLANK, "the outline is free: the profile is hardly needed"


@settings(max_examples=10, deadline=None)
@given(st.floats(0.0, 4.0), st.floats(-0.03, 0.03), st.integers(0, 99))
def test_what_moves_as_one_body_is_taken_away(shift: float, turn: float, seed: int) -> None:
    made, planted, _ = sighting(sway_pct=0.0, seed=seed)
    wave = np.sin(2 * np.pi * 0.17 * made.t_s)
    moved = replace(
        made,
        front=_carried(made.front, wave, shift, turn, outward=1),
        back=_carried(made.back, wave, shift, turn, outward=-1),
        points=_shifted(made.points, wave, shift, turn),
    )
    still, carried = traces(made), traces(moved)
    assert np.abs(carried.abdomen - still.abdomen).max() < 0.12
    assert np.abs(carried.chest - still.chest).max() < 0.12
    rigid = rigid_motion(moved.back, moved.points, moved.arms_pct)
    assert np.std(rigid.forward_pct - shift * wave) < 0.1


def _carried(strips: Strips, wave: np.ndarray, shift: float, turn: float, *, outward: int) -> Strips:
    rigid = shift * wave[:, None] + 100 * turn * wave[:, None] * strips.up_pct[None] / 100
    return replace(strips, travel_pct=strips.travel_pct + outward * rigid)


def _shifted(points: Points, wave: np.ndarray, shift: float, turn: float) -> Points:
    move = points.move_pct.copy()
    move[:, :, 0] += shift * wave[:, None] + 100 * turn * wave[:, None] * points.at_pct[None, :, 1] / 100
    move[:, :, 1] -= 100 * turn * wave[:, None] * points.at_pct[None, :, 0] / 100
    return replace(points, move_pct=move)


def test_an_arm_before_the_chest_is_not_taken_for_it() -> None:
    """Strips over an arm stand still and far out: they are neither the chest nor a reason to halve it."""
    made, planted, _ = sighting()
    edge, travel = made.front.edge_pct.copy(), made.front.travel_pct.copy()
    arm = (made.front.up_pct > 62) & (made.front.up_pct < 74)
    edge[arm], travel[:, arm] = 28.0, 0.0
    found = traces(replace(made, front=replace(made.front, edge_pct=edge, travel_pct=travel)))
    assert gain(found.chest, planted.chest, found.t_s, planted.t_s) == pytest.approx(1.0, abs=0.1)


def test_an_arm_that_hangs_from_rising_shoulders_does_not_lead_a_still_belly() -> None:
    made, planted, _ = sighting(cycles=[Cycle(abdomen=0.5, chest=2.6, shoulder=4.0)] * 3)
    beside = (made.front.up_pct > 10) & (made.front.up_pct < 23)
    travel = made.front.travel_pct.copy()
    travel[:, beside] += 0.3 * planted.shoulder[:, None]
    seen = replace(made, front=replace(made.front, travel_pct=travel))
    arm = np.array([[[-8.0, 42.0], [8.0, 0.0]]])  # over 5.4 % of trunk from every strip of the outline, and under 20 from the lower ones
    known, unknown = (traces(replace(seen, arms_pct=pieces)) for pieces in (arm, np.zeros((0, 2, 2))))
    assert gain(known.abdomen, planted.abdomen, known.t_s, planted.t_s) == pytest.approx(1.0, abs=0.2)
    assert gain(unknown.abdomen, planted.abdomen, unknown.t_s, planted.t_s) > 1.5, "of places that nothing speaks against the farther ones lead"
    believed = known.looked["abdomen"][known.looked["abdomen"][:, 3] > 0]
    assert believed[:, 1].max() > 23.0 and not set(believed[:, 1]) & set(made.front.up_pct[beside]), "what lies on the arm is drawn as set aside"


def test_strips_with_an_arm_across_or_alone_between_arms_are_not_free() -> None:
    made, _, _ = sighting()
    across = np.array([[[0.0, 98.0], [40.0, 66.0]]])
    free = free_outline(made.front, across)
    crossing = np.abs(made.front.up_pct - 84) < 2
    assert free[(made.front.up_pct > 6) & (made.front.up_pct < 60)].all() and not free[crossing].any()
    lone = replace(made.front, misfit=np.where((made.front.up_pct == 30.0)[None], 0.1, np.where(made.front.up_pct < 60, 0.9, 0.1)))
    assert not free_outline(lone, np.zeros((0, 2, 2)))[made.front.up_pct == 30.0].any()


@pytest.mark.parametrize(("elbow_pct", "goes", "covered"), [(12.0, 0.1, True), (12.0, 1.0, False), (-4.0, 1.0, False)])
def test_an_outline_that_runs_along_a_forearm_and_keeps_still_is_no_belly(elbow_pct: float, goes: float, covered: bool) -> None:
    """A low breath behind an arm that hangs still would seem a breath of the chest alone."""
    made, _, card = sighting(sway_pct=0.0)
    belly = made.front.up_pct < 46.0
    slanted = replace(made.front, edge_pct=np.where(belly, 18.0 + 0.3 * (46.0 - made.front.up_pct), 18.0), travel_pct=made.front.travel_pct.copy())
    slanted.travel_pct[:, belly] *= goes
    arm = np.array([[[2.0, 98.0], [elbow_pct, 44.0]], [[elbow_pct, 44.0], [elbow_pct + 10.0, 8.0]], [[elbow_pct + 10.0, 8.0], [elbow_pct + 12.0, -6.0]]])
    report = read(replace(made, front=slanted, arms_pct=np.concatenate([arm, arm])), Task(Check(card=card)))
    assert report.readable_for.breath == (not covered) and ([one.code for one in report.reasons][:1] == ["trunk_covered"]) == covered


def test_the_flank_alone_gives_a_chest_with_a_wider_interval() -> None:
    made, planted, _ = sighting(chest_hidden=True)
    random = np.random.default_rng(3)
    places = np.array([(x, y) for x in (2.0, 6.0, 10.0, 13.0) for y in (58.0, 64.0, 70.0, 76.0)])
    share = profile.chest_share(places[:, 1]) * profile.depth_share(places[:, 0], front_pct=18.0)
    move = np.zeros((len(made.t_s), len(places), 2))
    move[:, :, 0] = planted.chest[:, None] * share + made.front.travel_pct[:, :1] * 0 + 0.02 * random.normal(size=(len(made.t_s), len(places)))
    sway = rigid_motion(made.back, made.points, made.arms_pct).forward_pct
    move[:, :, 0] += sway[:, None]
    points = and_points(made.points, places, move)
    found = traces(replace(made, points=points))
    assert found.seen["chest"] and gain(found.chest, planted.chest, found.t_s, planted.t_s) == pytest.approx(1.0, abs=0.15)
    assert found.model["chest"] >= regions.MODEL_ERROR_FLANK


def test_places_that_do_not_agree_are_no_chest() -> None:
    made, _, _ = sighting(chest_hidden=True)
    random = np.random.default_rng(3)
    places = np.array([(x, y) for x in (4.0, 9.0, 13.0) for y in (60.0, 70.0, 78.0)])
    walks = filters.smooth(random.normal(size=(len(made.t_s), len(places))), sigma_s=0.8) * 6
    move = np.stack([walks, np.zeros_like(walks)], axis=-1)
    points = and_points(made.points, places, move)
    assert not traces(replace(made, points=points)).seen["chest"]


def test_a_front_view_has_shoulders_and_width_only() -> None:
    made, planted, _ = sighting(view="front", cycles=[HIGH] * 3)
    found = traces(made)
    assert found.seen == {"abdomen": False, "chest": False, "shoulder": True}
    told = gain(found.shoulder, planted.shoulder, found.t_s, planted.t_s)
    assert told == pytest.approx(TIMES_FRONT, abs=0.1), "of points that go along fully: those of a sleeve stay behind"


@given(st.floats(-40, 140))
def test_shares_of_the_profile_lie_between_nothing_and_all(height: float) -> None:
    at = np.array([height])
    assert 0 <= profile.abdomen_share(at)[0] <= 1 and 0 <= profile.chest_share(at)[0] <= 1
    assert 0 <= profile.depth_share(at, front_pct=18.0)[0] <= 1


@given(st.integers(0, 500), st.floats(0.01, 2.0))
@settings(max_examples=25, deadline=None)
def test_noise_is_estimated_from_noise_and_not_from_movement(seed: int, size: float) -> None:
    t = np.arange(0, 40, 1 / filters.GRID_HZ)
    noise = size * np.random.default_rng(seed).normal(size=len(t))
    assert filters.noise_of(noise) == pytest.approx(size, rel=0.15)
    assert filters.noise_of(noise + 5 * np.sin(2 * np.pi * 0.1 * t)) == pytest.approx(size, rel=0.15, abs=0.01)


def test_smoothing_moves_no_turn_and_keeps_level() -> None:
    t = np.arange(0, 8, 1 / filters.GRID_HZ)
    step = (t > 4).astype(float)
    smooth = filters.smooth(step)
    assert np.interp(0.5, smooth, t) == pytest.approx(4.0, abs=0.05) and smooth[0] == 0 and smooth[-1] == pytest.approx(1)
    assert filters.spread(np.zeros(0)) == 0.0


def test_uneven_times_come_onto_the_even_grid() -> None:
    t = np.cumsum(np.random.default_rng(1).uniform(0.01, 0.08, 400))
    grid = filters.uniform_times(t)
    assert np.diff(grid) == pytest.approx(1 / filters.GRID_HZ)
    both = filters.on_grid(t, np.column_stack([t, -2 * t]), grid)
    assert both == pytest.approx(np.column_stack([grid, -2 * grid]))


def test_low_and_high_breaths_keep_their_order_of_regions() -> None:
    low, _, _ = sighting(cycles=[LOW] * 3)
    found = traces(low)
    assert found.abdomen.max() > found.chest.max() > found.shoulder.max()


def test_a_place_that_jumps_or_goes_farther_than_a_trunk_can_is_left_out() -> None:
    t = np.arange(250) / 25
    breath = 2.0 * np.clip(np.sin(t), 0, 1)
    jumping = breath + np.where(np.arange(250) % 40 < 3, 4.0, 0.0)
    places = np.column_stack([breath, 0.9 * breath, 1.1 * breath, jumping, 6.0 * breath])
    assert regions._steady(places, np.ones(5)).tolist() == [True, True, True, False, False]
    assert regions._steady(places[:, :2], np.array([1.0, 0.4])).all()
    assert not regions._steady(np.zeros((250, 0)), np.zeros(0)).size


def test_gaussian_smoothing_is_even_on_both_sides_and_keeps_what_is_level() -> None:
    point = np.zeros(101)
    point[50] = 1.0
    smooth = filters.gaussian(point, 3.0)
    assert smooth.sum() == pytest.approx(1.0) and smooth == pytest.approx(smooth[::-1])
    assert smooth[50] == pytest.approx(1 / (3 * np.sqrt(2 * np.pi)), rel=0.01)
    level = np.full((40, 3), [1.0, -2.0, 0.5])
    assert filters.gaussian(level, 2.0) == pytest.approx(level)
    assert filters.gaussian(np.zeros((40, 0)), 2.0).shape == (40, 0)


def test_a_belly_of_which_only_its_edge_is_found_again_is_not_read_from_it() -> None:
    """Where the middle of its outline is lost, the edge, which hardly goes in a body whose belly moves high up, would be taken for a small breath."""
    made, *_ = sighting()
    upper = made.points.at_pct[:, 1] > 80  # the flank's cloth is plain
    plain = replace(made, points=points_at(made.points.at_pct[upper], made.points.move_pct[:, upper]))

    def with_lost(from_pct: float) -> Sighting:
        gone = (plain.front.up_pct < 8) | (plain.front.up_pct >= from_pct) & (plain.front.up_pct < 50)
        return replace(plain, front=replace(plain.front, misfit=np.where(gone[None], 0.9, plain.front.misfit)))

    assert traces(plain).seen["abdomen"]
    assert traces(with_lost(21.0)).seen["abdomen"], "half of it is enough"
    lost = with_lost(14.0)
    assert not traces(lost).seen["abdomen"] and traces(lost).lost > 0.5
    report = read(lost, Task(Check()))
    assert "outline_lost" in [one.code for one in report.reasons] and not report.readable_for.breath
