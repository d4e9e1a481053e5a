"""The demo clips, whose truth is planted, read from what the edge saw of them."""

import json
from dataclasses import replace
from statistics import median

import pytest

from brevin.bench.other_pictures import POLE
from brevin.core.evidence import evidence
from brevin.core.read import Task, judge
from brevin.core.report import Report
from brevin.core.verdict.judge import AREAS
from brevin.ops.demo import CLIPS
from tests.sightings import BEHIND_A_POLE, CHECKS, kept_of, saved, seen_of


@pytest.fixture(scope="module")
def readings() -> dict[str, tuple[Report, dict]]:
    return {name: (judge(seen_of(name), Task(check)).report, json.loads((CLIPS / f"{name}.json").read_text())) for name, check in CHECKS.items()}


@pytest.mark.parametrize("name", [n for n in CHECKS if n != "front-flute-sags"])
def test_breaths_of_a_side_view_are_found_where_they_were_planted(name: str, readings) -> None:
    report, truth = readings[name]
    assert report.view == truth["label"]["view"].replace("_", "-") and report.position == truth["label"]["position"]
    assert report.readable and report.readable_for.breath
    assert len(report.breaths) == len(truth["cycles"])
    for breath, planted in zip(report.breaths, truth["cycles"], strict=True):
        assert breath.inhale_start_s == pytest.approx(planted["inhale_start"], abs=0.3)
        assert breath.exhale_start_s == pytest.approx(planted["exhale_start"], abs=0.45)
        assert breath.abdomen_amp == pytest.approx(planted["amplitude_mm"]["abdomen"] / 4.4, rel=0.25, abs=0.2)
    assert report.beats.source == "clicks" and report.beats.first_inhale_s == pytest.approx(truth["first_inhale_beat_s"], abs=0.03)


def test_a_belly_behind_a_music_stand_s_pole_is_told_by_the_flank() -> None:
    """Its edge keeps still: taken for the belly's it leaves nothing of the breath."""
    truth = json.loads((CLIPS / f"{BEHIND_A_POLE}.json").read_text())
    report = judge(evidence(saved(f"{BEHIND_A_POLE}-{POLE}")), Task(CHECKS[BEHIND_A_POLE])).report
    assert report.readable_for.breath and "trunk_covered" in [reason.code for reason in report.reasons]
    for breath, planted in zip(report.breaths, truth["cycles"], strict=True):
        assert breath.inhale_start_s == pytest.approx(planted["inhale_start"], abs=0.35)
        assert abs(breath.abdominal_share - planted["abdominal_share"]) < breath.uncertainty["abdominal_share"]
        assert breath.pattern in ("low_then_wide", "unclear")


def test_opposite_patterns_are_told_apart(readings) -> None:
    high, _ = readings["seated-chest-high"]
    assert {b.pattern for b in high.breaths} == {"chest_high"}
    early, _ = readings["standing-full-early"]
    assert not {"chest_high", "paradoxical"} & {b.pattern for b in early.breaths}
    assert next(v for v in early.verdicts if v.criterion == "not_full_early").state in ("watch", "work")


def test_the_front_view_judges_the_shoulders_and_says_that_the_rest_is_seen_from_the_side(readings) -> None:
    report, _ = readings["front-flute-sags"]
    assert report.view == "front" and report.readable and report.readable_for.breath
    of_breath = {v.criterion: (v.state, v.reason) for v in report.verdicts if AREAS[v.criterion] == "breath"}
    assert of_breath.pop("shoulders_still") == ("steady", None) and set(of_breath.values()) == {("unreadable", "view_unserved")}
    assert report.reasons[0].code == "front_view_breath" and report.trace.shoulder
    assert report.posture.shoulder_tilt_deg is None and report.posture.head_tilt_deg is not None, "arms are before the shoulders, and not before the face"
    assert report.posture.trunk_inclination_deg is None


def test_evidence_of_a_clip_is_a_small_part_of_it() -> None:
    for name in CHECKS:
        assert len(kept_of(name)) < 0.25 * (CLIPS / f"{name}.mp4").stat().st_size, name


def test_the_sagging_flute_is_read_where_it_was_planted(readings) -> None:
    _, truth = readings["front-flute-sags"]
    held = replace(CHECKS["front-flute-sags"], instrument="flute", with_instrument=True)
    report = judge(seen_of("front-flute-sags"), Task(held)).report
    planted = -median(truth["per_frame"]["instrument"]["image_angle_deg"])
    assert report.hold.instrument_axis_deg.value == pytest.approx(planted, abs=1.5)
    assert report.readable_for.hold
    said = {v.criterion: v for v in report.verdicts}
    assert (said["axis_level"].state, said["axis_level"].side) == ("watch", "high"), "it sags by 22 deg: beyond 15, not beyond 25"
    assert report.hold.elbow_abduction_deg["right"] is not None and report.hold.elbow_abduction_deg["left"] is None
    said = {v.criterion: v.reason for v in report.verdicts}
    assert (said["elbow_left"], said["elbow_right"], said["shoulder_tilt"]) == ("arm_crosses", None, "arms_across")
    for side in ("left", "right"):
        bent = report.hold.wrist_deg[side]
        assert abs(bent.value - truth["hands"][side[0]]["wrist_seen_deg"]) < 1.3 * bent.uncertainty and report.hold.finger_curl_deg[side] is not None
