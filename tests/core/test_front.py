"""The breath from the front: shoulders are judged whether they rise or keep still, starts are told by them, and nothing is said of belly and chest."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.breath.counted import counted_rise
from brevin.core.breath.measures import TIMES, as_far_as_seen
from brevin.core.evidence import evidence
from brevin.core.kinematics.rigid import rigid_motion
from brevin.core.kinematics.traces import traces
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.music.clicks import NO_BEATS, Beats
from brevin.core.plain import to_json
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge, read
from brevin.core.synth import Cycle
from brevin.core.verdict.headline import headline, headline_words
from brevin.core.verdict.judge import AREAS
from brevin.core.verdict.wording import with_sentences
from tests.core.made import sighting

CARD = "3-0-5@72x3"
LIFTED = Cycle(abdomen=0.4, chest=1.2, shoulder=4.0)
STILL = Cycle(abdomen=3.0, chest=1.2, shoulder=0.3)


def report_of(cycle: Cycle):
    made, planted, card = sighting(CARD, [cycle] * 3, view="front")
    return read(made, Task(Check(card=card))), planted, card


def said_of(report):
    """The shoulders' row with its sentences."""
    return next(v for v in with_sentences(to_json(report))["verdicts"] if v["criterion"] == "shoulders_still")


def of_breath(report):
    return {v.criterion: v for v in report.verdicts if AREAS[v.criterion] == "breath"}


def test_shoulders_that_rise_are_a_fault_breath_by_breath_and_tell_when() -> None:
    report, planted, _ = report_of(LIFTED)
    assert report.view == "front" and report.readable_for.breath and len(report.breaths) == 3
    row = of_breath(report)["shoulders_still"]
    assert row.state in ("watch", "work") and row.outside and row.counted_breaths == 3 and report.cue.criterion == "shoulders_still"
    assert "belly" not in said_of(report)["why"] and headline_words(headline(report)) == "the shoulders rise"
    for breath, start_s in zip(report.breaths, [one.inhale_start_s for one in planted.planted], strict=True):
        late_s = breath.inhale_start_s - start_s
        assert 0.0 < late_s < 0.6 and late_s < breath.uncertainty["inhale_start_s"], "the belly, which is not seen, began before"
        assert breath.abdomen_amp is None and breath.abdominal_share is None and breath.pattern == "unclear"


def test_shoulders_that_keep_still_are_judged_by_the_count_alone() -> None:
    report, *_ = report_of(STILL)
    row = of_breath(report)["shoulders_still"]
    assert (row.state, row.marks) == ("steady", []) and abs(row.value - 0.3) < row.uncertainty
    assert headline_words(headline(report)) == "as it should be"
    assert said_of(report)["why"].endswith("of the trunk's length while breathing in."), "of belly and chest nothing is known"


def test_everything_else_of_the_breath_is_read_from_the_side() -> None:
    for cycle in (LIFTED, STILL):
        report, *_ = report_of(cycle)
        others = [v for key, v in of_breath(report).items() if key != "shoulders_still"]
        assert {(v.state, v.reason, v.facts["view"]) for v in others} == {("unreadable", "view_unserved", "side")}
        assert "front_view_breath" in [r.code for r in report.reasons] and report.trace.abdomen == [] and report.trace.shoulder


def test_shoulders_that_were_not_followed_leave_the_breath_unreadable() -> None:
    made, _, card = sighting(CARD, [LIFTED] * 3, view="front")
    found = evidence(made)
    unseen = [replace(one, traces=replace(one.traces, seen=one.traces.seen | {"shoulder": False})) for one in found.players]
    report = judge(replace(found, players=tuple(unseen)), Task(Check(card=card))).report
    assert not report.readable_for.breath and report.reasons[0].code == "front_view_breath"
    assert {v.state for v in of_breath(report).values()} == {"unreadable"}


def test_a_front_view_in_the_dark_judges_no_shoulders_either() -> None:
    made, _, card = sighting(CARD, [STILL] * 3, view="front")
    dark = replace(made, picture=replace(made.picture, light=np.full_like(made.picture.light, 8.0)))
    report = read(dark, Task(Check(card=card)))
    assert not report.readable_for.breath and report.reasons[0].code == "too_dark"
    assert of_breath(report)["shoulders_still"].reason == "too_dark" and report.trace.shoulder


def test_a_body_of_which_the_lower_back_is_not_seen_tells_no_shoulders() -> None:
    made, *_ = sighting(CARD, [LIFTED] * 3, view="front")
    points = made.points
    high = replace(points, on_body=points.on_body & (points.at_pct[:, 1] > 60.0))
    assert traces(made).seen["shoulder"] and not traces(replace(made, points=high)).seen["shoulder"]


def test_a_camera_that_goes_up_and_down_is_no_rise_though_no_edge_of_the_body_is_followed() -> None:
    made, *_ = sighting(CARD, [STILL] * 3, view="front")
    shake = 2.0 * np.sin(2 * np.pi * 0.3 * made.t_s)
    lost = replace(made.back, misfit=np.ones_like(made.back.misfit))
    moved = replace(made.points, move_pct=made.points.move_pct + np.stack([np.zeros_like(shake), shake], axis=-1)[:, None, :])
    assert rigid_motion(lost, moved, made.arms_pct).up_pct == pytest.approx(shake - shake[0], abs=0.3)
    assert np.ptp(traces(replace(made, back=lost, points=moved)).shoulder) < 1.0


@pytest.mark.parametrize(
    ("card", "beats", "why"),
    [
        (None, Beats(72.0, 4.0, "clicks", 0.0), "no_card"),
        (CARD, NO_BEATS, "no_beats"),
        ("3-0-*@72x1", Beats(72.0, 4.0, "clicks", 0.0), "open_exhale"),
        (CARD, Beats(72.0, 400.0, "clicks", 0.0), "cut_by_clip"),
    ],
)
def test_without_a_count_that_lies_in_the_clip_still_shoulders_are_not_judged(card: str | None, beats: Beats, why: str) -> None:
    made, *_ = sighting(CARD, [STILL] * 3, view="front")
    assert counted_rise(traces(made), beats, parse(card) if card else None) == Measure("shoulder_rise", NotMeasured(why))
    if why == "no_beats":
        report = read(replace(made, sound=None), Task(Check(card=parse(CARD))))
        assert of_breath(report)["shoulders_still"].reason == "no_beats"


def test_a_rise_half_a_beat_beside_the_count_is_found_as_well() -> None:
    made, planted, card = sighting(CARD, [replace(LIFTED, shoulder=2.0)] * 3, view="front")
    moved, first_s = traces(made), planted.planted[0].inhale_start_s
    on, before, beside = (counted_rise(moved, Beats(72.0, first_s + off_s, "clicks", 0.0), card).amount.value for off_s in (0.0, -0.4, 0.4))
    assert before == pytest.approx(on, rel=0.1) and beside == pytest.approx(on, rel=0.1) and on > 1.0


def test_of_a_breath_from_the_front_times_and_shoulders_are_told() -> None:
    own = [Measure(key, Amount(1.0, 0.1), breath=0) for key in (*TIMES, "shoulder_rise", "abdomen_amp")]
    told = {m.key: m.value for m in as_far_as_seen(own, front=True, readable=True)}
    assert told.pop("abdomen_amp") == NotMeasured("view_unserved") and all(isinstance(value, Amount) for value in told.values())
    stopped = {m.key: m.value for m in as_far_as_seen(own, front=True, readable=False)}
    assert stopped["shoulder_rise"] == NotMeasured("breath_unreadable") and isinstance(stopped["inhale_start_s"], Amount)
    assert as_far_as_seen(own, front=False, readable=True) == own
