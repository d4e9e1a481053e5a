"""A clip that was coded hard repeats a place until it has gone far enough: how old its picture is while the trunk moves, and what follows from it."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core import gate
from brevin.core.breath.breaths import LATE_TIMES, breaths
from brevin.core.evidence import evidence
from brevin.core.kinematics import coding
from brevin.core.kinematics.coding import FRESH_S, SAME_PCT, caught_up, stale_s, told
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
    return stale_s(told(made.front), free_outline(made.front, made.arms_pct), made.t_s)


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


def saved_until(made: Sighting, gone_pct: float) -> Sighting:
    """A sighting whose strips are repeated until each has gone so far, as a coder does that has to save."""
    assert made.front is not None
    shown = made.front.travel_pct.copy()
    for i in range(1, len(shown)):
        shown[i] = np.where(np.abs(made.front.travel_pct[i] - shown[i - 1]) < gone_pct, shown[i - 1], made.front.travel_pct[i])
    return replace(made, front=replace(made.front, travel_pct=shown))


def test_what_a_coder_kept_still_went_on_between_two_tellings_and_set_in_before_the_first() -> None:
    made, _, _ = sighting("4-2-6@72x3", noise_pct=0.0, sway_pct=0.0)
    saved = saved_until(made, 0.5)
    put_right, old_s = caught_up(saved)
    assert made.front is not None and saved.front is not None and put_right.front is not None and old_s > FRESH_S
    moves = np.abs(np.gradient(made.front.travel_pct, made.t_s, axis=0)) > 0.8  # percent of trunk a second
    before, after = (np.abs(one.front.travel_pct - made.front.travel_pct)[moves].mean() for one in (saved, put_right))
    assert after < 0.5 * before
    rests = np.ptp(put_right.front.travel_pct[made.t_s < 1.5], axis=0)
    assert rests.max() < 0.02, "who stands still is not moved"


def test_starts_that_a_coder_kept_back_are_found_where_they_were(monkeypatch: pytest.MonkeyPatch) -> None:
    made, planted, _ = sighting("4-2-6@72x3")
    saved = saved_until(made, 0.5)
    late, there = ([], [])
    for found in (there, late):
        for one, begun in zip(breaths(traces(saved)), planted.planted, strict=True):
            found.append(one.inhale_start.t_s - begun.inhale_start_s)
        monkeypatch.setattr(coding, "FRESH_S", np.inf)  # and once as it shows
    assert np.median(late) > 0.12 and abs(np.median(there)) < 0.5 * np.median(late)


def test_a_clip_that_tells_every_picture_is_left_as_it_is() -> None:
    made, _, _ = sighting()
    assert caught_up(made)[0] is made
    front = saved_until(sighting(view="front")[0], 0.5)
    found, old_s = caught_up(front)
    assert found is front and old_s == 0.0, "from the front the outline is no breath's"


def test_a_step_longer_than_a_coder_keeps_back_is_a_movement_of_its_own() -> None:
    """A sip: after a rest the belly goes 4 % at once. What goes untold, 0.3 %, may have begun before; the rest of it did not."""
    made, _, _ = sighting("4-0-8@60x3", noise_pct=0.0, sway_pct=0.0)
    saved = saved_until(made, 0.3)
    assert saved.front is not None
    sip = (made.t_s >= 2.0) & (made.t_s < 2.5)
    travel = saved.front.travel_pct + np.where(sip, 4.0, 0.0)[:, None]
    put_right = caught_up(replace(saved, front=replace(saved.front, travel_pct=travel)))[0].front
    assert put_right is not None
    earlier = (made.t_s > 1.0) & (made.t_s < 2.0)
    assert (put_right.travel_pct - travel)[earlier].max() < 0.35


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
