"""The chest behind an arm that is held in front of it: an arm's edge is no chest, and the little that shows under the neck tells roughly how far it went."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.evidence import evidence
from brevin.core.kinematics import profile
from brevin.core.kinematics.outline import free_outline
from brevin.core.kinematics.traces import Traces, traces
from brevin.core.kinematics.upper_end import ALIKE, HEIGHTS_PCT, MODEL_ERROR, TIMES_ASSUMED, upper_end
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.synth import Cycle
from brevin.core.track import Sighting, Strips
from tests.core.made import LOW, sighting

ARM = (48.0, 91.5)  # heights that an arm hides
SLOPE = 1.1  # forward a height
NO_ARMS = np.zeros((0, 2, 2))


def behind_an_arm(made: Sighting, *, slope: float = SLOPE, showing: float = 1.0) -> Sighting:
    """The chest's heights are an upper arm's edge, which goes along with the trunk and does not breathe. showing: share of the chest's travel over it."""
    front = made.front
    assert front is not None and made.points is not None
    hidden = (front.up_pct > ARM[0]) & (front.up_pct < ARM[1])
    above = front.up_pct >= ARM[1]
    edge, travel = front.edge_pct.copy(), front.travel_pct.copy()
    edge[above] = 12.0
    edge[hidden] = 12.0 + slope * (ARM[1] - front.up_pct[hidden])
    still = -made.back.travel_pct.mean(axis=1)  # the sway alone, which the back shows too, outward being backward there
    travel[:, hidden] = still[:, None]
    travel[:, above] = still[:, None] + showing * (travel[:, above] - still[:, None])
    flank = made.points.at_pct[:, 0] < 5.0
    return replace(made, front=Strips(front.up_pct, edge, travel, front.misfit, front.clear), points=replace(made.points, on_body=made.points.on_body & flank))


def free_of(made: Sighting) -> np.ndarray:
    assert made.front is not None
    return made.front.up_pct[free_outline(made.front, NO_ARMS)]


@pytest.mark.parametrize(("slope", "free"), [(0.0, True), (0.2, True), (-0.2, True), (0.8, False), (1.1, False)])
def test_an_outline_that_runs_off_with_the_height_is_no_chest(slope: float, free: bool) -> None:
    made, _, _ = sighting()
    heights = free_of(behind_an_arm(made, slope=slope))
    assert bool(np.any((heights > 60) & (heights < 85))) == free
    assert np.any((heights > profile.ABDOMEN_FROM) & (heights < profile.ABDOMEN_TO)), "the belly may bow out over the lap"


def read_of(made: Sighting) -> Traces:
    found = traces(made)
    assert found.seen["abdomen"]
    return found


def test_what_shows_over_the_arm_tells_roughly_how_far_the_chest_went_and_well_when() -> None:
    made, planted, card = sighting()
    found = read_of(behind_an_arm(made))
    assert found.seen["chest"] and found.model["chest"] == MODEL_ERROR
    gain = np.polyfit(np.interp(found.t_s, planted.t_s, planted.chest), found.chest, 1)[0]
    assert gain == pytest.approx(1.0 / TIMES_ASSUMED, rel=0.15), "what was made moves as the profile says, and the arms are taken to be forward"
    assert np.corrcoef(np.interp(found.t_s, planted.t_s, planted.chest), found.chest)[0, 1] > 0.95
    report = judge(evidence(behind_an_arm(made)), Task(Check(card=card))).report
    assert "chest_covered" in [reason.code for reason in report.reasons]
    assert len(report.breaths) == card.cycles
    for breath in report.breaths:
        assert abs(breath.chest_amp - LOW.chest) < breath.uncertainty["chest_amp"] and breath.pattern in ("low_then_wide", "unclear")
        assert abs(breath.chest_lag_s) < 1.0, "both moved, so that one can be held against the other"


def test_the_turns_are_those_of_the_belly_alone() -> None:
    made, _, card = sighting()
    told = judge(evidence(behind_an_arm(made)), Task(Check(card=card))).report.breaths
    without = judge(evidence(behind_an_arm(made, showing=0.0)), Task(Check(card=card))).report.breaths
    assert [b.inhale_start_s for b in told] == [b.inhale_start_s for b in without] and [b.exhale_start_s for b in told] == [b.exhale_start_s for b in without]
    assert all(b.full_at_beat is None and b.exhale_shape is None for b in told), "nor does it tell a course"
    assert len(told) == card.cycles and all(b.chest_amp is None for b in without)


def test_what_stands_still_there_or_moves_at_other_times_says_nothing() -> None:
    made, planted, _ = sighting()
    assert not read_of(behind_an_arm(made, showing=0.0)).seen["chest"]
    nods = behind_an_arm(made, showing=0.0)
    assert nods.front is not None
    travel = nods.front.travel_pct.copy()
    travel[:, nods.front.up_pct >= ARM[1]] += 0.5 * np.sin(2 * np.pi * 0.43 * planted.t_s)[:, None]
    assert abs(np.corrcoef(np.sin(2 * np.pi * 0.43 * planted.t_s), planted.abdomen)[0, 1]) < ALIKE
    assert not read_of(replace(nods, front=replace(nods.front, travel_pct=travel))).seen["chest"]


@pytest.mark.parametrize("edge", [34.0, 2.0])
def test_a_bell_before_the_neck_and_an_edge_behind_it_are_no_chest(edge: float) -> None:
    made, _, _ = sighting()
    front = behind_an_arm(made).front
    assert front is not None and upper_end(front).sum() == np.sum((front.up_pct > HEIGHTS_PCT[0]) & (front.up_pct < HEIGHTS_PCT[1]))
    moved = np.where(front.up_pct >= ARM[1], edge, front.edge_pct)
    assert not upper_end(replace(front, edge_pct=moved)).any()


def test_a_chest_that_is_seen_is_not_asked_of_its_upper_end() -> None:
    made, _, _ = sighting(cycles=[Cycle(abdomen=3.0, chest=2.0, shoulder=0.2)] * 3)
    found = read_of(made)
    assert found.seen["chest"] and found.model["chest"] < MODEL_ERROR
