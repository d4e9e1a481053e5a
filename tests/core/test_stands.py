"""A music stand before the belly: its edge keeps still while the trunk inside it moves, and is no belly's outline."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.evidence import evidence
from brevin.core.kinematics import profile
from brevin.core.kinematics.rigid import trunk_motion
from brevin.core.kinematics.stands import what_stands
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.synth import Cycle
from brevin.core.track import Sighting, Strips
from tests.core.made import LOW, and_points, body, gain, shape, sighting

ALL = np.ones(38, bool)
STILL_BELLY = Cycle(abdomen=0.05, chest=3.0, shoulder=0.2)
FLANK = np.array([(x, y) for x in (2.0, 6.0, 10.0) for y in np.arange(8.0, 60.0, 4.0)])


def behind(*, heights: tuple[float, float], still: float = 0.0, cycle: Cycle = LOW, sway_pct: float = 0.3) -> tuple[Sighting, np.ndarray, np.ndarray]:
    """A trunk whose flank shows what its outline does, which goes but so much of its way at some heights. With the planted belly and its times."""
    made, planted, _ = sighting(cycles=[cycle] * 3, sway_pct=sway_pct)
    depth = profile.depth_share(FLANK[:, 0], front_pct=18.0)
    moves = planted.abdomen[:, None] * profile.abdomen_share(FLANK[:, 1]) + planted.chest[:, None] * profile.chest_share(FLANK[:, 1])
    ahead = moves * depth - made.back.travel_pct.mean(axis=1, keepdims=True)
    points = and_points(made.points, FLANK, np.stack([ahead, np.zeros_like(ahead)], axis=2))
    travel = made.front.travel_pct.copy()
    travel[:, (made.front.up_pct > heights[0]) & (made.front.up_pct < heights[1])] *= still
    return replace(made, points=points, front=replace(made.front, travel_pct=travel)), planted.abdomen, planted.t_s


def found_still(made: Sighting) -> set[float]:
    return {float(h) for h in made.front.up_pct[what_stands(made, trunk_motion(made)).strips]}


def test_the_belly_behind_a_stand_is_told_by_the_flank_and_it_is_said() -> None:
    made, belly, at_s = behind(heights=(16.0, 32.0))
    assert found_still(made) == {18.0, 21.0, 24.0, 27.0, 30.0}
    found = traces(made)
    assert found.behind and found.seen["abdomen"]
    outline = found.looked["abdomen"][found.looked["abdomen"][:, 2] > 0]
    assert set(outline[:, 1]) == {18.0, 21.0, 24.0, 27.0, 30.0} and not outline[:, 3].any(), "the stand's edge is drawn as set aside"
    assert gain(found.abdomen, belly, found.t_s, at_s) == pytest.approx(1.0, abs=0.25) and found.model["abdomen"] >= 0.2
    report = judge(evidence(made), Task(Check(card=sighting()[2]))).report
    assert report.readable_for.breath and [one.code for one in report.reasons] == ["trunk_covered"]
    planted = LOW.abdomen / (LOW.abdomen + LOW.chest)
    assert len(report.breaths) == 3
    for breath in report.breaths:
        assert breath.pattern == "low_then_wide"
        assert abs(breath.abdominal_share - planted) < breath.uncertainty["abdominal_share"]


def test_what_moves_with_an_arm_over_the_flank_proves_nothing_of_the_edge_before_it() -> None:
    made, _, _ = behind(heights=(16.0, 32.0), sway_pct=0.03)
    over_the_flank = replace(made, arms_pct=np.array([[[4.0, 60.0], [4.0, 0.0]]]))
    assert found_still(made) == {18.0, 21.0, 24.0, 27.0, 30.0} and found_still(over_the_flank) == set()


def before_half_the_trunk() -> Sighting:
    """A desk's edge 7 % of trunk ahead of the axis, 25 % ahead of the back."""
    made, _, _ = behind(heights=(8.0, 44.0), still=0.4)
    low = (made.front.up_pct > 8.0) & (made.front.up_pct < 44.0)
    return replace(made, front=replace(made.front, edge_pct=np.where(low, 7.0, made.front.edge_pct)))


def test_an_edge_with_no_room_for_a_trunk_behind_it_is_none_nor_is_the_surface_beside_it() -> None:
    near_the_back = before_half_the_trunk()
    assert found_still(near_the_back) == {float(h) for h in np.arange(9.0, 44.0, 3.0)}
    found = traces(near_the_back)
    assert found.behind and not found.seen["abdomen"] and not set(found.looked["abdomen"][:, 0]) & {2.0, 6.0, 10.0}
    report = judge(evidence(near_the_back), Task(Check(card=sighting()[2]))).report
    assert not report.readable_for.breath and report.reasons[0].code == "trunk_covered"
    unseen = replace(near_the_back, back=replace(near_the_back.back, misfit=np.ones_like(near_the_back.back.misfit)))
    assert not found_still(unseen), "without a back nothing is too near it"


def test_what_stands_there_is_said_before_a_trunk_that_sank() -> None:
    made = before_half_the_trunk()
    sank = (body(outline=shape(bow_pct=9.0)),)
    poses = tuple(one if i < len(made.poses) // 2 else replace(one, bodies=sank) for i, one in enumerate(made.poses))
    report = judge(evidence(replace(made, poses=poses)), Task(Check(card=sighting()[2]))).report
    assert [reason.code for reason in report.reasons if reason.code.startswith("trunk_")] == ["trunk_covered"]


@pytest.mark.parametrize(("arm", "told"), [([[40.0, 60.0], [44.0, 20.0]], True), ([[25.0, 60.0], [25.0, 10.0]], False)], ids=["far", "near"])
def test_an_arm_that_rests_before_the_belly_is_no_stand(arm: list[list[float]], told: bool) -> None:
    made, _, _ = behind(heights=(16.0, 32.0))
    assert traces(replace(made, arms_pct=np.array([arm]))).behind == told


def without_a_flank(*, sways: float, still: float = 0.0, noise_pct: float = 0.02, cycle: Cycle = STILL_BELLY) -> Sighting:
    """Arms hang over the flank: nothing is seen but edges, of which the belly's go but so much of their way. The body sways by a sine of so much."""
    made, _, _ = sighting(cycles=[cycle] * 3, sway_pct=sways, noise_pct=noise_pct)
    travel = made.front.travel_pct.copy()
    noise = noise_pct * np.random.default_rng(5).normal(size=travel.shape)
    low = (made.front.up_pct > 8.0) & (made.front.up_pct < 44.0)
    travel[:, low] = still * travel[:, low] + noise[:, low]
    return replace(made, front=replace(made.front, travel_pct=travel))


def test_edges_that_do_not_sway_with_the_body_are_none_of_it_though_no_flank_is_seen() -> None:
    made = without_a_flank(sways=0.15)
    assert found_still(made) >= set(np.arange(12.0, 42.0, 3.0))
    found = traces(made)
    assert found.behind and not found.seen["abdomen"]
    report = judge(evidence(made), Task(Check(card=sighting()[2]))).report
    assert not report.readable_for.breath and report.reasons[0].code == "trunk_covered", "and not a high breath, which it would seem"


def test_what_lies_on_one_straight_line_with_edges_that_keep_still_is_the_same_pole() -> None:
    """At the belly its edge and the belly's show by turns: of its strips hardly two beside each other keep still. An arm hangs near."""
    made, _, _ = sighting(cycles=[LOW] * 3, sway_pct=0.15, noise_pct=0.02)
    up, travel = made.front.up_pct, made.front.travel_pct.copy()
    still = (up > 69.0) | np.isin(up, (18.0, 30.0, 39.0))
    travel[:, still] = 0.02 * np.random.default_rng(5).normal(size=(len(travel), int(still.sum())))
    arm = np.array([[[12.0, 80.0], [12.0, 0.0]]])
    behind_a_pole = replace(made, front=replace(made.front, travel_pct=travel), arms_pct=arm)
    assert found_still(behind_a_pole) == {float(h) for h in up[up >= 18.0]} and traces(behind_a_pole).behind
    bowed = replace(behind_a_pole.front, edge_pct=np.where(still & (up < 69.0), 22.0, made.front.edge_pct))
    off_it = replace(behind_a_pole, front=bowed)
    assert found_still(off_it) == {float(h) for h in up[up > 69.0]} and not traces(off_it).behind, "what is still, but not on it, may be the arm's"


@pytest.mark.parametrize(
    ("sways", "still", "cycle"),
    [(0.15, 1.0, STILL_BELLY), (0.15, 1.0, LOW), (0.03, 0.0, STILL_BELLY), (0.9, 0.5, STILL_BELLY)],
    ids=["a belly that keeps still", "a belly that breathes", "nobody sways", "a body that bends"],
)
def test_edges_that_sway_with_the_body_or_of_a_body_that_does_not_are_its_own(sways: float, still: float, cycle: Cycle) -> None:
    made = without_a_flank(sways=sways, still=still, cycle=cycle)
    assert found_still(made) == set() and not traces(made).behind


def test_a_still_edge_of_who_lies_on_the_floor_may_be_the_belly_s() -> None:
    """The floor carries the trunk: it sways with nothing."""
    made = without_a_flank(sways=0.15)
    assert not found_still(replace(made, position="lying"))


def test_who_shows_no_breath_behind_a_stand_may_breathe_all_the_same() -> None:
    task = Task(Check(card=sighting()[2]))
    still = Cycle(abdomen=0.02, chest=0.02, shoulder=0.02)
    open_view, covered = (judge(evidence(behind(heights=(16.0, to), cycle=still)[0]), task).report for to in (17.0, 32.0))
    assert not open_view.readable_for.breath and not covered.readable_for.breath
    assert [report.reasons[0].code for report in (open_view, covered)] == ["no_breathing", "trunk_covered"]


def test_an_edge_that_keeps_still_above_the_belly_takes_only_itself_away() -> None:
    made, belly, at_s = behind(heights=(41.0, 47.0), cycle=Cycle(abdomen=3.0, chest=3.0, shoulder=0.2))
    stands = what_stands(made, trunk_motion(made))
    assert found_still(made) == {42.0, 45.0} and not stands.behind
    assert (~stands.without(ALL, made.front.up_pct) == stands.strips).all()
    found = traces(made)
    assert not found.behind and gain(found.abdomen, belly, found.t_s, at_s) == pytest.approx(1.0, abs=0.1)


@pytest.mark.parametrize(
    ("still", "cycle", "sway_pct"),
    [(1.0, LOW, 0.3), (0.5, LOW, 0.3), (0.0, Cycle(abdomen=0.1, chest=3.0, shoulder=0.2), 0.05)],
    ids=["nothing there", "goes half its way", "the surface keeps still too"],
)
def test_a_belly_that_moves_or_keeps_still_itself_has_nothing_before_it(still: float, cycle: Cycle, sway_pct: float) -> None:
    made, _, _ = behind(heights=(16.0, 32.0), still=still, cycle=cycle, sway_pct=sway_pct)
    assert found_still(made) & set(np.arange(12.0, 42.0, 3.0)) == set() and not traces(made).behind


def test_a_thigh_that_rests_before_a_belly_that_is_seen_covers_nothing() -> None:
    made, belly, at_s = behind(heights=(11.0, 14.0))
    thigh = replace(made.front, edge_pct=np.where(made.front.up_pct == 12.0, 26.0, made.front.edge_pct))
    rests = replace(made, front=thigh, points=and_points(made.points, FLANK + [8.0, 0.0], made.points.move_pct[:, -len(FLANK) :]))
    assert 12.0 in found_still(rests)
    found = traces(rests)
    assert not found.behind and gain(found.abdomen, belly, found.t_s, at_s) == pytest.approx(1.0, abs=0.1)
    assert traces(made).behind, "at the belly's own edge it would be before it"


def test_where_no_edge_is_seen_nothing_stands() -> None:
    made, _, _ = sighting()
    none = Strips(*(np.zeros(shape) for shape in ((0,), (0,), (len(made.t_s), 0), (len(made.t_s), 0), (0,))))
    stands = what_stands(replace(made, front=none), trunk_motion(made))
    assert stands.strips.shape == (0,) and not stands.behind


def test_a_few_points_that_are_lost_prove_nothing() -> None:
    made, _, _ = behind(heights=(16.0, 32.0), cycle=Cycle(abdomen=0.1, chest=3.0, shoulder=0.2), sway_pct=0.05)
    lost = np.array([(9.0, 24.0), (12.0, 26.0)])
    wild = np.random.default_rng(1).normal(size=(len(made.t_s), 2, 2)).cumsum(axis=0)
    assert not found_still(replace(made, points=and_points(made.points, lost, wild))) & set(np.arange(12.0, 42.0, 3.0))
