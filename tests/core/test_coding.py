"""A clip that was coded hard repeats a place until it has gone far enough: how old its picture is while the trunk moves, and what follows from it."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core import gate
from brevin.core.breath.breaths import FRESH_S, LATE_TIMES, breaths
from brevin.core.evidence import evidence
from brevin.core.kinematics.coding import SAME_PCT, stale_s
from brevin.core.kinematics.outline import free_outline
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.synth import Cycle
from brevin.core.track import Floats, Sighting
from tests.core.made import sighting


def told_every(t_s: Floats, travel: Floats, every_s: float) -> Floats:
    """The same travel, told anew only now and then."""
    shown = np.searchsorted(t_s, np.floor(t_s / every_s) * every_s)
    return travel[np.clip(shown, 0, len(t_s) - 1)]


def coded(made: Sighting, every_s: float) -> Sighting:
    """A sighting whose outline is told anew every so often."""
    return replace(made, front=replace(made.front, travel_pct=told_every(made.t_s, made.front.travel_pct, every_s)))


def age(made: Sighting) -> float:
    assert made.front is not None
    return stale_s(made.front, free_outline(made.front, made.arms_pct), made.t_s)


@settings(max_examples=8, deadline=None)
@given(st.floats(0.2, 1.0), st.integers(0, 20))
def test_the_age_is_half_the_time_between_two_tellings(every_s: float, seed: int) -> None:
    made, _, _ = sighting(seed=seed)
    assert age(made) < 0.01, "as the camera saw it"
    assert age(coded(made, every_s)) == pytest.approx(0.5 * every_s, abs=0.06 + 0.15 * every_s)


def test_pictures_that_come_twice_are_hardly_older() -> None:
    """A camera of 12 pictures a second in a clip of 25: repeated pictures, and no movement that comes late."""
    made, _, _ = sighting()
    assert 0.0 < age(coded(made, 0.08)) < gate.STALE_NOTED_S


def test_a_breath_so_shallow_that_no_picture_differs_much_from_the_one_before_is_not_old() -> None:
    made, _, _ = sighting("6-0-8@60x2", [Cycle(0.5, 0.2, 0.0)] * 2, noise_pct=0.0, sway_pct=0.0)
    steps = np.abs(np.diff(made.front.travel_pct[:, 8]))
    assert np.median(steps[steps > 0]) < SAME_PCT and age(made) < 0.5 * gate.STALE_NOTED_S


def test_too_little_of_the_outline_says_nothing() -> None:
    made, _, _ = sighting()
    assert age(replace(made, front=replace(made.front, misfit=np.ones_like(made.front.misfit)))) == 0.0
    assert age(replace(made, front=replace(made.front, travel_pct=np.zeros_like(made.front.travel_pct)))) == 0.0, "what never moves is not late"


def test_starts_are_less_sure_by_the_age_and_stay_where_they_were_read() -> None:
    made, _, _ = sighting()
    moved = traces(made)
    late = replace(moved, stale_s=0.14)
    for fresh, old in zip(breaths(moved), breaths(late), strict=True):
        assert (old.inhale_start.t_s, old.exhale_start.t_s) == (fresh.inhale_start.t_s, fresh.exhale_start.t_s)
        for turn in ("inhale_start", "exhale_start"):
            want = np.hypot(getattr(fresh, turn).half_width_s, LATE_TIMES * (0.14 - FRESH_S))
            assert getattr(old, turn).half_width_s == pytest.approx(want)
        assert fresh.inhale_end == fresh.exhale_start and old.inhale_end == old.exhale_start, "without a pause both are one turn"


def test_the_end_of_an_inhale_that_is_held_comes_no_later() -> None:
    made, _, _ = sighting("3-2-4@60x2")
    moved = traces(made)
    for fresh, old in zip(breaths(moved), breaths(replace(moved, stale_s=0.14)), strict=True):
        assert fresh.inhale_end != fresh.exhale_start, "the card holds the breath"
        assert old.inhale_end == fresh.inhale_end and old.exhale_start.half_width_s > fresh.exhale_start.half_width_s


@pytest.mark.parametrize(("every_s", "readable", "said"), [(0.04, True, False), (0.3, True, True), (0.9, False, True)])
def test_a_copy_that_was_squeezed_is_said_and_one_that_tells_no_moments_is_refused(every_s: float, readable: bool, said: bool) -> None:
    made, _, card = sighting()
    report = judge(evidence(coded(made, every_s)), Task(Check(card=card))).report
    assert report.readable_for.breath is readable
    assert ("coded_hard" in [one.code for one in report.reasons]) is said
    judged = {one.state for one in report.verdicts if one.criterion in ("inhale_count", "abdomen_leads", "shoulders_still")}
    assert judged and (judged == {"unreadable"}) is not readable, "no word on a breath whose moments are not in the clip"
