"""What of a breath is not seen: shoulders tell when where chest and belly do not, and a chest that hardly shows may go on filling."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.breath.breaths import breaths
from brevin.core.breath.cycles import Swing
from brevin.core.breath.hidden import goes_on, let_go, may_last, until_the_next, untold_s
from brevin.core.breath.turns import Turn
from brevin.core.evidence import evidence
from brevin.core.kinematics.traces import Traces, traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.synth import Cycle
from tests.core.made import LOW, sighting

LIFTED = Cycle(abdomen=0.6, chest=2.4, shoulder=3.0, abdomen_window=(0.5, 1.0), chest_window=(0.0, 0.85))
CARD = "3-0-4@72x3"


def made(cycle: Cycle, **changed: float) -> Traces:
    """The traces of three such breaths whose chest is not seen. changed: size of a trace, times."""
    found = traces(sighting(CARD, [cycle] * 3, chest_hidden=True)[0])
    assert found.seen["abdomen"] and found.seen["shoulder"] and not found.seen["chest"]
    return replace(found, **{name: times * getattr(found, name) for name, times in changed.items()})


def test_shoulders_tell_when_a_hidden_chest_fills() -> None:
    clip, planted, card = sighting(CARD, [LIFTED] * 3, chest_hidden=True)
    report = judge(evidence(clip), Task(Check(card=card))).report
    assert len(report.breaths) == 3
    for breath, cycle in zip(report.breaths, planted.planted, strict=True):
        assert breath.inhale_start_s == pytest.approx(cycle.inhale_start_s, abs=0.12), "half an inhale before the belly"
        assert breath.exhale_start_s == pytest.approx(cycle.exhale_start_s, abs=0.15)
        assert breath.pattern == "chest_high" and breath.shoulder_rise == pytest.approx(LIFTED.shoulder, abs=0.4)
        assert breath.abdomen_amp == pytest.approx(LIFTED.abdomen, abs=0.25), "the belly is still told"


def test_a_belly_that_is_seen_to_keep_still_leaves_the_start_no_less_sure() -> None:
    seen = breaths(made(LIFTED))
    unseen = breaths(replace(made(LIFTED), seen={"abdomen": False, "chest": False, "shoulder": True}))
    for one, other in zip(seen, unseen, strict=True):
        assert one.inhale_start is not None and other.inhale_start is not None
        assert one.inhale_start.half_width_s < other.inhale_start.half_width_s and one.inhale_start.t_s == pytest.approx(other.inhale_start.t_s, abs=0.02)


def test_a_belly_that_breathes_later_leaves_the_start_to_shoulders_that_rise_before_it() -> None:
    planted = sighting(CARD, [LIFTED] * 3, chest_hidden=True)[1]
    told = breaths(made(LIFTED, abdomen=4.0))
    starts_s = [one.inhale_start.t_s for one in told if one.inhale_start]
    assert starts_s == pytest.approx([cycle.inhale_start_s for cycle in planted.planted], abs=0.12), "a chest that is not seen lifts them"


def test_little_shoulders_leave_it_to_the_belly() -> None:
    found = made(LIFTED, shoulder=0.3)
    alone = breaths(replace(found, seen=found.seen | {"shoulder": False}))
    told = breaths(found)
    assert len(told) == len(alone) == 3
    for one, other in zip(told, alone, strict=True):
        assert one.inhale_start is not None and other.inhale_start is not None
        assert abs(one.inhale_start.t_s - other.inhale_start.t_s) < 0.05


@pytest.mark.parametrize(("shoulder", "abdomen", "found"), [(0.4, 0.4, 3), (0.2, 0.4, 0), (0.4, 0.8, 3)])
def test_where_the_belly_shows_no_breath_shoulders_that_say_which_way_is_in_show_it(shoulder: float, abdomen: float, found: int) -> None:
    seen = made(LIFTED, shoulder=shoulder, abdomen=abdomen)
    told = [one.inhale_start.t_s for one in breaths(seen) if one.inhale_start]
    assert len(told) == found
    whole = [one.inhale_start.t_s for one in breaths(made(LIFTED)) if one.inhale_start]
    if found and abdomen < 0.5:
        assert told == pytest.approx(whole, abs=0.1), "the shoulders' starts, half an inhale before the belly's"


def test_shoulders_that_move_at_other_times_tell_nothing() -> None:
    found = made(LIFTED)
    astray = replace(found, shoulder=2.0 * np.sin(2.0 * np.pi * found.t_s / 2.3))
    told, alone = breaths(astray), breaths(replace(astray, seen=astray.seen | {"shoulder": False}))
    assert [one.inhale_start.t_s for one in told if one.inhale_start] == pytest.approx([one.inhale_start.t_s for one in alone if one.inhale_start], abs=0.05)


def test_a_low_breath_is_told_by_the_belly_and_its_start_by_nothing_else() -> None:
    clip, planted, card = sighting(CARD, [LOW] * 3, chest_hidden=True)
    report = judge(evidence(clip), Task(Check(card=card))).report
    starts = np.array([b.inhale_start_s for b in report.breaths]) - [cycle.inhale_start_s for cycle in planted.planted]
    assert len(starts) == 3 and np.abs(starts).max() < 0.1


SWING = Swing(trough=0, peak=1, next_trough=2, cut_at_start=False, cut_at_end=False)


@pytest.mark.parametrize(
    ("chest", "model", "share"),
    [(0.0, 0.35, 0.25), (0.5, 0.35, 0.125), (-0.5, 0.35, 0.125), (1.0, 0.35, 0.0), (2.0, 0.35, 0.0), (0.0, 0.12, 0.0)],
)
def test_a_chest_at_a_few_places_may_go_on_filling_the_more_the_less_it_goes(chest: float, model: float, share: float) -> None:
    found = made(LIFTED)
    found = replace(found, model=found.model | {"chest": model})
    regions = {"abdomen": np.array([0.0, 2.0, 0.0]), "chest": np.array([0.0, chest, 0.0])}
    assert goes_on(found, regions, SWING) == pytest.approx(share)
    assert goes_on(found, {"abdomen": regions["abdomen"]}, SWING) == pytest.approx(0.25 / 0.75), "a quarter of the whole, told of the part that is seen"
    sleeved = replace(found, model=found.model | {"covered": 0.4})
    assert goes_on(sleeved, regions, SWING) == pytest.approx(0.25 * max(1.0 - abs(chest), 0.0)), "wherever it lies, if it may be a sleeve"


@pytest.mark.parametrize(("left", "noise", "lasts_s"), [(0.0, 0.02, 0.2), (0.05, 0.02, 0.2), (0.25, 0.02, 3.4), (0.25, 0.4, 0.2)])
def test_an_exhale_that_still_goes_after_its_end_is_unsure_as_far_as_it_goes(left: float, noise: float, lasts_s: float) -> None:
    """Let go at once: most is out at 2 s, the rest goes slowly until 6 s."""
    t_s = np.arange(0.0, 8.0, 0.1)
    values = np.interp(t_s, [0.0, 2.0, 6.0], [2.0, 2.0 * left, 0.0])
    found = may_last(Turn(2.0, 0.2), t_s, values, noise, top_i=0, to_i=len(t_s) - 1)
    assert found.t_s == 2.0 and found.half_width_s == pytest.approx(lasts_s, abs=0.4)
    assert may_last(Turn(7.9, 0.2), t_s, values, noise, top_i=0, to_i=len(t_s) - 1) == Turn(7.9, 0.2), "nothing after it tells anything"


@pytest.mark.parametrize(
    ("shape", "card"), [("collapsing", "3-0-5@76x3"), ("collapsing", "2-0-6@84x3"), ("collapsing", "3-0-5-3@72x3"), ("even", "3-0-5@76x3")]
)
def test_an_exhale_ends_where_it_does_whether_let_go_at_once_or_evenly(shape: str, card: str) -> None:
    for seed in range(4):
        clip, planted, asked = sighting(card, [replace(LOW, exhale_shape=shape)] * 3, seed=seed)
        report = judge(evidence(clip), Task(Check(card=asked))).report
        assert len(report.breaths) == 3
        for breath, cycle in zip(report.breaths, planted.planted, strict=True):
            assert breath.exhale_end_s == pytest.approx(cycle.exhale_end_s, abs=0.2)


def test_an_exhale_was_let_go_at_once_where_half_of_it_is_out_long_before_its_middle() -> None:
    leave, end = Turn(2.0, 0.1), Turn(6.0, 0.2)
    assert let_go(leave, end, 2.8) and not let_go(leave, end, 3.6)


def test_what_is_left_of_an_exhale_is_untold_as_long_as_it_takes_at_its_own_pace() -> None:
    t_s = np.arange(0.0, 10.0, 0.1)
    values = np.interp(t_s, [2.0, 3.0, 6.0], [2.0, 0.6, 0.0])  # 0.2 a second in its second half
    leave, end = Turn(2.0, 0.1), Turn(6.0, 0.2)
    assert untold_s(leave, end, t_s, values, 0.05) == pytest.approx(0.5, abs=0.02) and untold_s(leave, end, t_s, values, 0.0) == 0.0
    assert untold_s(leave, end, t_s, values, 5.0) == 4.0, "never longer than the exhale"
    assert untold_s(leave, end, t_s, np.zeros_like(t_s), 0.05) == 0.0, "what does not fall leaves nothing"


def test_an_end_that_is_not_told_from_going_on_lies_between_itself_and_the_next_inhale() -> None:
    end = Turn(6.0, 0.3)
    assert until_the_next(end, 0.5, Turn(6.5, 0.1)) == Turn(6.25, 0.3)
    assert until_the_next(end, 1.0, Turn(7.0, 0.1)) == Turn(6.5, 0.5), "as far as either may be"
    assert until_the_next(end, 0.4, Turn(7.0, 0.1)) == until_the_next(end, 0.4, None) == Turn(6.0, pytest.approx(0.5))
    assert until_the_next(end, 0.4, Turn(5.9, 0.1)) == end, "never back"
