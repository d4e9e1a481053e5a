"""An arm before the belly goes up with the shoulders, and its edge is no belly's."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.breath.breaths import breaths
from brevin.core.breath_gate import TOLD_PCT, by_shoulders, unreadable_breath
from brevin.core.evidence import evidence
from brevin.core.kinematics.arms import CLEAR_PCT
from brevin.core.kinematics.outline import free_outline
from brevin.core.kinematics.riding import points_riding, without_arms
from brevin.core.kinematics.rigid import trunk_motion
from brevin.core.kinematics.shoulder import shoulder_rise
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.synth import Cycle
from brevin.core.track import Sighting
from tests.core.made import HIGH, LOW, and_points, gain, sighting

BEFORE = np.array([[[2.0, 98.0], [4.0, 44.0]], [[4.0, 44.0], [12.0, 4.0]]])  # an arm that hangs, its forearm before the belly, 6 to 14 inside of its edge


def hanging(*, goes_up: float, to_pct: float = 50.0, cycle: Cycle = HIGH) -> tuple[Sighting, np.ndarray, np.ndarray]:
    """Points just inside the belly's outline, which go up by so much of the shoulders' rise, those higher than to_pct not at all. With the planted belly
    and its times."""
    made, planted, _ = sighting(cycles=[cycle] * 3)
    at = np.array([(x, y) for x in (12.0, 15.0) for y in np.arange(8.0, 47.0, 4.0)])
    move = np.zeros((len(made.t_s), len(at), 2))
    move[:, :, 0] = -made.back.travel_pct.mean(axis=1, keepdims=True)
    move[:, :, 1] = planted.shoulder[:, None] * np.where(at[:, 1] < to_pct, goes_up, 0.0)
    return replace(made, points=and_points(made.points, at, move), arms_pct=BEFORE), planted.abdomen, planted.t_s


def left(made: Sighting, *, seen: bool = True) -> set[float]:
    """Heights of the belly's strips that are taken for the trunk's."""
    rigid = trunk_motion(made)
    shoulder = shoulder_rise(made.points, rigid, made.arms_pct, both=False).region if seen else None
    free = free_outline(made.front, made.arms_pct)
    heights = made.front.up_pct[without_arms(made, free, rigid, points_riding(made.points, rigid, shoulder))]
    return {float(h) for h in heights if 10 < h < 46}


ALL = {float(h) for h in np.arange(12.0, 46.0, 3.0)}


def test_an_arm_s_edge_is_no_belly() -> None:
    covered, _, _ = hanging(goes_up=1.0)
    assert left(covered) == set()
    found = traces(covered)
    assert not found.seen["abdomen"] and found.seen["chest"] and found.seen["shoulder"]
    assert left(replace(covered, arms_pct=covered.arms_pct - [CLEAR_PCT + 2.0, 0.0])) == ALL, "no arm is near"


@pytest.mark.parametrize(("goes_up", "to_pct"), [(0.0, 50.0), (0.4, 50.0), (2.2, 50.0), (1.0, 20.0)])
def test_a_shirt_that_stays_or_goes_its_own_way_is_the_belly_s_and_so_is_one_beside_a_hand(goes_up: float, to_pct: float) -> None:
    free, belly, at_s = hanging(goes_up=goes_up, to_pct=to_pct)
    found = traces(free)
    assert left(free) == ALL and found.seen["abdomen"]
    assert gain(found.abdomen, belly, found.t_s, at_s) == pytest.approx(1.0, abs=0.15)


def test_shoulders_that_hardly_rise_or_are_not_seen_tell_nothing() -> None:
    assert left(hanging(goes_up=1.0, cycle=LOW)[0]) == ALL
    assert left(hanging(goes_up=1.0)[0], seen=False) == ALL


def test_a_surface_that_goes_up_with_the_shoulders_is_no_flank() -> None:
    covered, _, _ = hanging(goes_up=1.0)
    assert not {(x, y) for x, y in traces(covered).looked["abdomen"][:, :2] if x in (12.0, 15.0)}
    free, _, _ = hanging(goes_up=0.0)
    bare = replace(free, front=replace(free.front, misfit=np.where(free.front.up_pct[None] < 50.0, 0.9, 0.1) + 0.0 * free.front.misfit))
    assert {(x, y) for x, y in traces(replace(bare, arms_pct=BEFORE[:0])).looked["abdomen"][:, :2] if x in (12.0, 15.0)}, "else it is"


def test_a_breath_whose_belly_an_arm_covers_is_told_by_the_shoulders_as_from_the_front() -> None:
    covered, _, _ = hanging(goes_up=1.0)
    _, planted, card = sighting(cycles=[HIGH] * 3)
    report = judge(evidence(covered), Task(Check(card=card))).report
    assert report.readable_for.breath and [one.code for one in report.reasons] == ["trunk_covered"]
    assert len(report.breaths) == 3
    for breath, cycle in zip(report.breaths, planted.planted, strict=True):
        assert breath.inhale_start_s == pytest.approx(cycle.inhale_start_s, abs=0.3) and breath.uncertainty["inhale_start_s"] > 0.25, (
            "the belly may begin before"
        )
        assert breath.shoulder_rise == pytest.approx(HIGH.shoulder, abs=0.4) and breath.chest_amp == pytest.approx(HIGH.chest, abs=0.3)
        assert breath.pattern == "unclear" and breath.abdominal_share is None and breath.withheld["abdominal_share"] == "region_unseen"
    said = {one.criterion: one.state for one in report.verdicts}
    assert said["shoulders_still"] in ("watch", "work") and said["abdomen_leads"] == said["full_breath"] == "unreadable"


def test_where_the_shoulders_hardly_rise_a_covered_belly_stops_it() -> None:
    made, _, card = sighting(cycles=[LOW] * 3)
    hidden = replace(made, front=replace(made.front, misfit=np.where(made.front.up_pct < 50.0, 0.9, made.front.misfit)))
    report = judge(evidence(hidden), Task(Check(card=card))).report
    assert not report.readable_for.breath and report.reasons[0].code in ("trunk_covered", "outline_lost")


def test_shoulders_that_go_up_once_as_an_instrument_is_brought_up_tell_no_breath() -> None:
    covered, _, _ = hanging(goes_up=1.0)
    who = evidence(covered).players[0]
    turns = breaths(who.traces)
    assert by_shoulders(who, turns) and not by_shoulders(who, [])
    raised = replace(who, traces=replace(who.traces, shoulder=np.where(who.traces.t_s > 20.0, 15.0, 0.0)))
    assert np.ptp(raised.traces.shoulder) > TOLD_PCT and not by_shoulders(raised, turns)
    assert [one.code for one in unreadable_breath(who, turns, [], lambda: True)] == ["trunk_sank"], "a trunk that sank is another one at the end"
    assert unreadable_breath(who, turns, [], lambda: False) == []
