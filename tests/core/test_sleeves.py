"""A chest followed close to an arm: what goes far is believed, what goes little may have gone farther, what keeps to itself tells nothing."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.evidence import evidence
from brevin.core.kinematics.arms import CLEAR_PCT
from brevin.core.kinematics.regions import Found, Region, looked_at
from brevin.core.kinematics.sleeves import HIDDEN, unbroken_to, uncovered
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.report import Report
from brevin.core.synth import Cycle
from brevin.core.track import Sighting, Strips
from tests.core.made import LOW, sighting

GAP = (46.0, 66.0)  # heights at which the upper arm crosses the outline
T_S = np.arange(0.0, 20.0, 0.04)
BREATH = 3.0 * np.sin(2 * np.pi * T_S / 5.0)
HEIGHTS = np.arange(0.0, 100.0, 3.0)
BESIDE = np.array([[[0.0, 100.0], [6.0, 50.0]]])  # an upper arm, 12 % of trunk behind the outline
FAR_OFF = BESIDE + np.array([-20.0, 0.0])


def strips(heights: np.ndarray) -> Strips:
    return Strips(heights, np.full(len(heights), 18.0), np.zeros((2, len(heights))), np.zeros((2, len(heights))), np.full(len(heights), 20.0))


def told(part: float, *, outline: bool, arms: np.ndarray = BESIDE, free: np.ndarray = (GAP[0] > HEIGHTS) | (GAP[1] < HEIGHTS), astray: float = 0.0) -> Found:
    """A chest that is seen to go a part of the belly's way. astray: of what it does at other times, percent of trunk."""
    places = looked_at(np.array([[18.0, 72.0], [18.0, 75.0], [18.0, 78.0]]), np.full(3, outline), np.ones(3, bool))
    values = part * BREATH + astray * np.sin(2 * np.pi * T_S / 3.3)
    return uncovered(Found(Region(values, 0.2, 0.04), places), Region(BREATH, 0.1, 0.02), strips(HEIGHTS), free, arms)


def test_far_from_arms_and_on_an_unbroken_outline_a_chest_is_what_it_is_seen_to_be() -> None:
    for outline, arms, free in ((False, FAR_OFF, GAP[0] > HEIGHTS), (True, BESIDE, np.full(len(HEIGHTS), True))):
        region = told(0.1, outline=outline, arms=arms, free=free).region
        assert region is not None and region.covered == 0.0 and np.ptp(region.values) == pytest.approx(0.1 * np.ptp(BREATH))


@pytest.mark.parametrize("outline", [True, False])
def test_beside_an_arm_it_has_gone_farther_the_less_of_it_is_seen(outline: bool) -> None:
    far, some, little = (told(part, outline=outline).region for part in (0.6, 0.3, 0.1))
    assert far is not None and some is not None and little is not None
    assert far.covered == 0.0 and 0.3 < some.covered < 0.5 and 0.7 < little.covered < 0.9
    for part, region in ((0.6, far), (0.3, some), (0.1, little)):
        assert np.ptp(region.values) == pytest.approx((1.0 + region.covered) * part * np.ptp(BREATH))
        assert region.leak == pytest.approx(HIDDEN * region.covered), "and the error says so"


def test_what_does_not_go_along_is_an_arm_on_the_outline_and_nothing_certain_on_the_flank() -> None:
    sleeve = told(0.0, outline=True, astray=0.3)
    assert sleeve.region is None and not sleeve.looked[:, 3].any() and len(sleeve.looked) == 3
    flank = told(0.0, outline=False, astray=0.3).region
    assert flank is not None and flank.covered == 1.0 and flank.leak == pytest.approx(HIDDEN)
    assert np.ptp(flank.values) < 0.7, "what is seen is told as it is"


def test_an_outline_is_unbroken_up_to_where_an_arm_could_cross_it() -> None:
    assert unbroken_to(HEIGHTS) == HEIGHTS[-1]
    assert unbroken_to(HEIGHTS[(GAP[0] > HEIGHTS) | (GAP[1] < HEIGHTS)]) == HEIGHTS[GAP[0] > HEIGHTS][-1]
    assert unbroken_to(HEIGHTS[HEIGHTS != 60.0]) == HEIGHTS[-1], "one strip may be lost"
    assert unbroken_to(HEIGHTS[GAP[1] < HEIGHTS]) == -np.inf


def report(showing: float, chest: float = LOW.chest) -> Report:
    """A made clip whose chest is seen beside an upper arm, with a share of its travel."""
    made, _, card = sighting(cycles=[Cycle(abdomen=3.2, chest=chest, shoulder=0.2)] * 3)
    return judge(evidence(beside_an_arm(made, showing)), Task(Check(card=card))).report


def beside_an_arm(made: Sighting, showing: float) -> Sighting:
    front, back, points = made.front, made.back, made.points
    assert front is not None and back is not None and points is not None
    sway = -back.travel_pct.mean(axis=1, keepdims=True)  # outward is backward there
    travel = np.where(front.up_pct > GAP[1], sway + showing * (front.travel_pct - sway), front.travel_pct)
    misfit = np.where((front.up_pct > GAP[0]) & (front.up_pct < GAP[1]), 1.0, front.misfit)
    low = points.at_pct[:, 1] < GAP[0]
    moved = replace(front, travel_pct=travel, misfit=misfit)
    return replace(made, front=moved, points=replace(points, on_body=points.on_body & (low | (points.at_pct[:, 0] < 0.0))), arms_pct=BESIDE)


def test_the_intervals_hold_what_went_on_under_the_sleeve_and_both_kinds_are_said() -> None:
    for showing in (0.9, 0.5, 0.35, 0.2):
        for breath in report(showing).breaths:
            assert breath.chest_amp is not None and abs(breath.chest_amp - LOW.chest) < (breath.uncertainty["chest_amp"] or 0.0), showing
            assert breath.pattern == "low_then_wide" or breath.pattern_or == "low_then_wide" or breath.pattern == "unclear"
    whole = judge(evidence(sighting()[0]), Task(Check(card=sighting()[2]))).report.breaths[0]
    half = report(0.35).breaths[0]
    assert 0.3 > (half.uncertainty["abdominal_share"] or 0.0) > 1.5 * (whole.uncertainty["abdominal_share"] or 1.0)


def test_a_sleeve_that_keeps_still_is_no_chest_and_no_chest_that_sinks() -> None:
    still = report(0.0)
    assert len(still.breaths) == 3 and all(b.chest_amp is None and b.pattern == "unclear" and b.chest_lag_s is None for b in still.breaths)
    assert CLEAR_PCT > 18.0, "the outline that was made lies closer to its arm"
    assert all(b.pattern != "pushed" and b.pattern_or != "pushed" for b in report(0.35, chest=0.6).breaths)
