"""A trunk that sinks is told by its key points, the breath in them set aside; what is followed on it is followed as it was at first."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.rests import AROUND_S, rests
from brevin.core.breath.turns import Turn
from brevin.core.evidence import evidence, packed, unpacked
from brevin.core.kinematics.shapes import Back
from brevin.core.kinematics.sinking import LEAST_DEG, sinking, sunk, unsunk
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.core.track import Floats, Sighting
from tests.core.made import sighting

T_S = np.arange(0.0, 24.0, 1 / 25)
SEEN_S = np.arange(0.0, 24.0, 0.4)


def ramp(t_s: Floats | float, from_s: float = 4.0) -> Floats:
    return np.clip((t_s - from_s) / (T_S[-1] - from_s), 0.0, 1.0)


def told(deg: float, *, shorter: float = 0.0, bow_pct: float = 0.0, breath_pct: float = 0.0, noise_pct: float = 0.0, back: float = 1.0) -> Floats | None:
    """What is told of a trunk that leans by so much in the end; back: the share of it that its back leans; breath_pct: by which its shoulders go up, and a
    little forward, with each breath."""
    random = np.random.default_rng(3)
    lean, tall = np.radians(deg) * ramp(SEEN_S), 100.0 * (1.0 - shorter * ramp(SEEN_S))
    breath = breath_pct * np.where(SEEN_S > 4.0, 0.5 - 0.5 * np.cos(2.0 * np.pi * (SEEN_S - 4.0) / 6.5), 0.0)
    shoulders = np.column_stack([tall * np.sin(lean) + 0.3 * breath, tall * np.cos(lean) + breath])
    backs = [(t_s, Back(bow_pct * part, (back - 1.0) * deg * part, np.zeros((0, 2)))) for t_s in np.arange(0.0, 24.0, 2.0) if (part := float(ramp(t_s))) >= 0.0]
    hips = np.zeros_like(shoulders)
    return sinking(T_S, hips + random.normal(0.0, noise_pct, hips.shape), shoulders + random.normal(0.0, noise_pct, hips.shape), SEEN_S, backs)


@pytest.mark.parametrize("deg", [-10.0, 6.0, 16.0])
def test_lean_bow_and_length_come_back_without_the_breath_in_them(deg: float) -> None:
    how = told(deg, shorter=0.05, bow_pct=4.0, breath_pct=4.0, noise_pct=0.5)
    assert how is not None and how.shape == (len(T_S), 3)
    late = T_S > 8.0
    assert np.degrees(how[late, 0]) == pytest.approx(deg * ramp(T_S)[late], abs=0.9)
    assert how[late, 1] == pytest.approx(0.04 * ramp(T_S)[late], abs=0.006)
    assert how[late, 2] == pytest.approx(1.0 - 0.05 * ramp(T_S)[late], abs=0.012)
    assert np.abs(how[T_S < 2.0, 0]).max() < np.radians(0.5), "it begins where it was"


def test_a_trunk_that_keeps_is_left_as_it_is() -> None:
    assert told(0.6 * LEAST_DEG, breath_pct=5.0, noise_pct=0.8) is None
    assert told(8.0) is not None and told(8.0, back=0.2) is None, "its back stays: key points are guessed behind an instrument"
    few = SEEN_S[:4]
    assert sinking(T_S, np.zeros((4, 2)), np.column_stack([40.0 * few, np.full(4, 100.0)]), few, []) is None, "too few looks say nothing"


@given(lean_deg=st.floats(-16, 16), bow=st.floats(-0.05, 0.05), tall=st.floats(0.9, 1.05))
def test_the_bend_begins_at_the_hips_passes_the_shoulders_and_keeps_what_lies_across_it(lean_deg: float, bow: float, tall: float) -> None:
    how = np.array([np.radians(lean_deg), bow, tall])
    hips, middle, shoulders = (sunk(how, np.array([0.0, up])) for up in (0.0, 50.0, 100.0))
    assert hips == pytest.approx([0.0, 0.0])
    assert shoulders == pytest.approx([100.0 * np.tan(how[0]), 100.0 * tall])
    assert middle[0] - 0.5 * shoulders[0] == pytest.approx(-100.0 * bow), "a back that bows stands back in its middle"
    across = sunk(how, np.array([[-15.0, 70.0], [20.0, 70.0]]))
    assert np.hypot(*(across[1] - across[0])) == pytest.approx(35.0)
    assert sunk(how, np.array([[30.0, -20.0]])) == pytest.approx(np.array([[30.0, -20.0 * tall]])), "a lap stays where it is"
    kept = np.array([[12.0, 40.0], [-8.0, 130.0]])
    assert sunk(np.array([0.0, 0.0, 1.0]), kept) == pytest.approx(kept)


def drifting(made: Sighting, share_pct: float) -> Sighting:
    """The same, with all that is followed going along with a sinking trunk: forward the more, the higher up, and down."""
    assert made.front is not None and made.back is not None and made.points is not None
    course = ramp(made.t_s, 3.0)
    how = np.column_stack([np.radians(9.0) * course, np.zeros_like(course), np.ones_like(course)])
    front, back = (
        replace(strips, travel_pct=strips.travel_pct + way * share_pct * course[:, None] * (0.3 + (strips.up_pct / 100.0) ** 2))
        for way, strips in ((1.0, made.front), (-1.0, made.back))
    )
    rises = np.where(made.points.on_body, -share_pct * (made.points.at_pct[:, 1] / 100.0) ** 2, 0.0)
    moves = made.points.move_pct + np.stack([np.zeros((len(course), len(rises))), course[:, None] * rises], axis=-1)
    return replace(made, front=front, back=back, points=replace(made.points, move_pct=moves), sunk=how)


def read_as(made: Sighting, card: object) -> Report:
    return read(made, Task(Check(card=card)))  # pyrefly: ignore[bad-argument-type]


def test_what_still_goes_along_with_the_lean_is_no_breath() -> None:
    made, _, card = sighting()
    plain, drifts = read_as(made, card), drifting(made, 3.0)
    again, left = read_as(drifts, card), read_as(replace(drifts, sunk=np.zeros((0, 3))), card)
    assert len(plain.breaths) == len(again.breaths) > 1
    for one, other in zip(plain.breaths, again.breaths, strict=True):
        assert other.pattern == one.pattern and other.inhale_start_s == pytest.approx(one.inhale_start_s, abs=0.1)
        assert other.shoulder_rise == pytest.approx(one.shoulder_rise, abs=0.15)
    rises = [breath.shoulder_rise for breath in left.breaths if breath.shoulder_rise is not None]
    assert not rises or abs(rises[-1] - (plain.breaths[-1].shoulder_rise or 0.0)) > 0.2, "left in it moves the shoulders"
    assert unsunk(made) is made


def test_one_long_exhale_with_which_the_trunk_sinks_stays_one() -> None:
    made, planted, card = sighting("4-0-16@60x1")
    plain, sinks = read_as(made, card), read_as(drifting(made, 3.0), card)
    one, other = plain.breaths[0], sinks.breaths[0]
    assert other.abdominal_share == pytest.approx(one.abdominal_share, abs=0.04) and other.shoulder_rise == pytest.approx(one.shoulder_rise, abs=0.3)
    assert other.exhale_start_s == pytest.approx(one.exhale_start_s, abs=0.4) and other.exhale_end_s == pytest.approx(one.exhale_end_s, abs=0.6)
    fell = [np.ptp(np.array(report.trace.abdomen)[np.array(report.trace.t_s) > 10.0]) for report in (plain, sinks)]
    assert fell[1] == pytest.approx(fell[0], rel=0.1)
    moved = evidence(drifting(made, 3.0)).players[0].traces
    over_all = traces(drifting(made, 3.0))
    late = moved.t_s > moved.t_s[-1] - 1.0
    early = moved.t_s < 3.0
    assert abs(moved.abdomen[late].mean() - moved.abdomen[early].mean()) < 0.3 < abs(over_all.abdomen[late].mean() - over_all.abdomen[early].mean())


def test_rests_lie_before_between_and_after_the_breaths() -> None:
    def breath(*turns_s: float | None) -> BreathTurns:
        return BreathTurns(*(None if t_s is None else Turn(t_s, 0.1) for t_s in turns_s), half_rise_s={})

    told = rests([breath(4.0, 6.0, 6.0, 10.0), breath(10.0, 12.0, 12.0, 16.0)], 18.0)
    assert np.array(told) == pytest.approx(np.array([(0.0, 4.0), (10.0 - AROUND_S, 10.0 + AROUND_S), (16.0 - AROUND_S, 18.0 + AROUND_S)]))
    assert rests([breath(4.0, 6.0, 6.0, None)], 18.0) == [] == rests([], 18.0), "a breath that is cut off tells no second rest"


def test_rests_that_saw_hardly_anything_of_the_sinking_do_not_tell_it() -> None:
    made, _, _ = sighting(noise_pct=0.3)
    sinks = drifting(made, 3.0)
    early, over_all = unsunk(sinks, [(0.0, 3.4)]), unsunk(sinks)
    assert early.front is not None and over_all.front is not None and np.allclose(early.front.travel_pct, over_all.front.travel_pct)
    assert not np.allclose(unsunk(sinks, [(0.0, 3.0), (20.0, 25.0)]).front.travel_pct, over_all.front.travel_pct)  # pyrefly: ignore[missing-attribute]


def test_the_axis_is_drawn_where_the_trunk_is_and_kept_with_the_evidence() -> None:
    made, _, card = sighting()
    still = read_as(made, card)
    assert still.player is not None and still.player.axes == []
    report = read_as(drifting(made, 0.0), card)
    assert report.player is not None and report.scale is not None and report.scale.trunk_px is not None
    player, trunk_px = report.player, report.scale.trunk_px
    first, last = (np.array(player.axes[i].lines_px[0]) for i in (0, -1))
    up, forward = np.array(player.up), np.array(player.forward)
    assert first[0] == pytest.approx(player.hip_px, abs=0.2) and first[-1] == pytest.approx(np.array(player.hip_px) + trunk_px * up, abs=0.2)
    ahead = float((last[-1] - player.hip_px) @ forward) / trunk_px
    assert ahead == pytest.approx(np.tan(np.radians(9.0)), abs=0.02)
    kept = unpacked(packed(evidence(drifting(made, 0.0))))
    assert kept.players[0].sunk.shape == (len(made.t_s), 3)


def test_key_points_of_somebody_who_passes_are_no_sinking() -> None:
    random = np.random.default_rng(5)
    shoulders = np.column_stack([random.normal(0.0, 0.5, len(SEEN_S)), np.full(len(SEEN_S), 100.0)])
    passing = (SEEN_S > 9.0) & (SEEN_S < 11.0)
    shoulders[passing, 0] += 60.0
    assert sinking(T_S, np.zeros_like(shoulders), shoulders, SEEN_S, []) is None


def test_a_strip_that_steps_to_another_edge_is_left_out_and_a_gulp_is_not() -> None:
    made, _, _ = sighting()
    sinks = drifting(made, 2.0)
    assert sinks.front is not None
    steps = np.where((made.t_s > 9.0)[:, None] & (np.arange(len(sinks.front.up_pct)) == 20), 6.0, 0.0)
    once = unsunk(replace(sinks, front=replace(sinks.front, travel_pct=sinks.front.travel_pct + steps))).front
    assert once is not None and sinks.front.up_pct[20] not in once.up_pct and len(once.up_pct) == len(sinks.front.up_pct) - 1
    gulp = 5.0 * np.clip((made.t_s - 9.0) / 0.3, 0.0, 1.0)[:, None]
    every = unsunk(replace(sinks, front=replace(sinks.front, travel_pct=gulp + 0.0 * sinks.front.travel_pct))).front
    assert every is not None and len(every.up_pct) == len(sinks.front.up_pct), "all of them go as far"
