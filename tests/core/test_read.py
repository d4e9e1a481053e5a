import json
from dataclasses import replace
from typing import get_args

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.breath.patterns import Named
from brevin.core.kinds import CheckArea
from brevin.core.plain import to_json
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import SCHEMA, Report
from brevin.core.synth import Cycle
from brevin.core.verdict.judge import AREAS
from brevin.core.verdict.reasons import REASONS
from brevin.core.verdict.wording import reason_sentence
from tests.core.made import HIGH, LOW, sighting


def report_of(*args, instrument: str = "none", **kwargs) -> tuple[Report, object]:
    made, planted, card = sighting(*args, **kwargs)
    return read(made, Task(Check(card=card, instrument=instrument, with_instrument=instrument != "none"))), planted


def test_planted_breaths_come_back() -> None:
    report, planted = report_of()
    assert len(report.breaths) == 3 and not report.partial_breaths
    for breath, truth in zip(report.breaths, planted.planted, strict=True):
        assert breath.inhale_start_s == pytest.approx(truth.inhale_start_s, abs=0.12)
        assert breath.exhale_start_s == pytest.approx(truth.exhale_start_s, abs=0.15)
        assert breath.abdominal_share == pytest.approx(3.2 / 5.0, abs=0.06)
        assert breath.shoulder_rise == pytest.approx(0.3, abs=0.25)
        assert breath.chest_lag_s == pytest.approx(truth.half_s["chest"] - truth.half_s["abdomen"], abs=0.12)
        assert breath.pattern == "low_then_wide"
        assert breath.inhale_beats == pytest.approx(4.0, abs=0.3)


@settings(max_examples=10, deadline=None)
@given(st.floats(1.5, 5.0), st.floats(0.6, 3.0), st.floats(0.0, 2.0), st.integers(0, 999))
def test_share_and_rise_of_any_breath(abdomen: float, chest: float, shoulder: float, seed: int) -> None:
    report, _ = report_of("4-0-4@72x2", [Cycle(abdomen, chest, shoulder)] * 2, seed=seed)
    assert len(report.breaths) == 2
    for breath in report.breaths:
        assert breath.abdominal_share == pytest.approx(abdomen / (abdomen + chest), abs=0.08)
        assert breath.shoulder_rise == pytest.approx(shoulder, abs=0.35)


@settings(max_examples=3, deadline=None)
@given(st.floats(0.0, 3.0), st.integers(0, 99))
def test_sway_is_no_breath(sway_pct: float, seed: int) -> None:
    still, _ = report_of(sway_pct=0.0, seed=seed)
    swaying, _ = report_of(sway_pct=sway_pct, seed=seed)
    for a, b in zip(still.breaths, swaying.breaths, strict=True):
        assert a.inhale_start_s == pytest.approx(b.inhale_start_s, abs=0.1)
        assert a.abdomen_amp == pytest.approx(b.abdomen_amp, abs=0.15)


@pytest.mark.parametrize("noise_pct", [0.0, 0.05, 0.15])
def test_a_trace_without_breathing_gives_no_breaths(noise_pct: float) -> None:
    report, _ = report_of("4-0-4@72x2", [], noise_pct=noise_pct, sway_pct=1.5)
    assert report.breaths == [] and report.partial_breaths == []
    assert not report.readable_for.breath
    assert "no_breathing" in [r.code for r in report.reasons]


def test_left_and_right_side_read_the_same() -> None:
    left, _ = report_of(view="side-left")
    right, _ = report_of(view="side-right")
    assert to_json(left)["breaths"] == to_json(right)["breaths"]


def test_opposite_breaths_are_never_mixed_up() -> None:
    low, _ = report_of(cycles=[LOW] * 3)
    high, _ = report_of(cycles=[HIGH] * 3)
    assert {b.pattern for b in low.breaths} == {"low_then_wide"}
    assert {b.pattern for b in high.breaths} == {"chest_high"}
    assert {v.criterion: v.state for v in high.verdicts}["abdomen_leads"] == "work"


def test_a_breath_that_is_unclear_by_itself_is_named_as_the_two_others_of_its_clip(monkeypatch: pytest.MonkeyPatch) -> None:
    unclear = Named("unclear", stands="low", others=frozenset({"low_then_wide", "shallow"}))
    alone = iter([Named("low", "low_then_wide"), unclear, Named("low")])
    monkeypatch.setattr("brevin.core.read.pattern", lambda _one: next(alone))
    report, _ = report_of()
    assert [(breath.pattern, breath.pattern_or) for breath in report.breaths] == [("low", "low_then_wide")] * 2 + [("low", None)]


def test_full_too_early_is_one_fault_with_its_mark_on_the_count() -> None:
    report, _ = report_of(cycles=[replace(LOW, full_after=0.4)] * 3)
    found = {v.criterion: v for v in report.verdicts}
    assert found["not_full_early"].state == "work"
    assert {m.lane for m in found["not_full_early"].marks} == {"count"}
    assert found["pause"].state == "steady" or found["pause"].reason == "said_once"
    assert report.cue.criterion == "not_full_early"


def test_lying_has_no_verdict_on_share_and_none_on_lean() -> None:
    report, _ = report_of(position="lying")
    assert report.breaths[0].abdominal_share is not None
    assert not {"abdomen_leads", "trunk_inclination"} & {v.criterion for v in report.verdicts}


def test_without_clicks_two_breaths_are_not_judged_against_the_count() -> None:
    report, _ = report_of(card_text="4-0-4@72x2", clicks=False)
    assert report.beats.source is None and "no_beats" in [r.code for r in report.reasons]
    assert all(b.inhale_beats is None and b.inhale_offset_beats is None for b in report.breaths)
    counted = [v for v in report.verdicts if v.criterion in ("with_count", "inhale_counts", "exhale_counts", "pause")]
    assert [(v.state, v.reason) for v in counted] == [("unreadable", "no_beats")] * 4


def test_a_hidden_chest_withholds_its_share_and_not_the_rest() -> None:
    report, _ = report_of(chest_hidden=True)
    breath = report.breaths[0]
    assert breath.chest_amp is None and breath.abdominal_share is None and breath.pattern == "unclear"
    assert breath.abdomen_amp == pytest.approx(3.2, abs=0.3)
    assert "chest_covered" in [r.code for r in report.reasons]


@pytest.mark.parametrize(
    ("code", "change"),
    [
        ("too_dark", lambda p: replace(p, light=np.full(len(p.light), 9.0))),
        ("frozen_picture", lambda p: replace(p, change=np.where(np.arange(len(p.change)) > len(p.change) // 2, 0.0, 0.3))),
    ],
)
def test_a_spoiled_picture_is_refused_for_the_breath(code: str, change) -> None:
    made, _, card = sighting()
    report = read(replace(made, picture=change(made.picture)), Task(Check(card=card)))
    assert not report.readable_for.breath and report.reasons[0].code == code
    assert {v.state for v in report.verdicts if AREAS[v.criterion] == "breath"} == {"unreadable"}
    [tall] = [v for v in report.verdicts if v.criterion == "keeps_tall"]
    assert (tall.state, tall.reason) == (("unreadable", "seen_briefly") if code == "frozen_picture" else ("steady", None)), "what stands still cannot sink"
    assert (report.posture.back_rounding_pct is None) == (code == "frozen_picture"), "nor round"


def test_a_refused_sighting_is_a_whole_report_that_says_why() -> None:
    made, _, card = sighting()
    nobody = replace(made, player=None, view=None, position=None, front=None, back=None, points=None, refused=(("no_person", {}),))
    report = read(nobody, Task(Check(card=card)))
    assert not report.readable and report.reasons[0].code == "no_person" and report.verdicts == [] and report.cue is None


CONTRACT = [
    "schema", "software", "clip", "view", "position", "readable", "readable_for", "reasons", "player", "scale", "beats", "trace", "segments", "breaths",
    "partial_breaths", "posture", "hold", "drill", "sound", "verdicts",
]  # fmt: skip
BREATH = [
    "inhale_start_s", "inhale_end_s", "exhale_start_s", "exhale_end_s", "inhale_beats", "pause_beats", "exhale_beats", "empty_beats", "inhale_offset_beats",
    "exhale_offset_beats", "full_at_beat", "abdomen_amp", "chest_amp", "shoulder_rise", "abdominal_share", "chest_lag_s", "phase_angle_deg",
    "intake_unevenness", "exhale_unevenness",
]  # fmt: skip


def test_every_key_of_the_contract_is_there_and_every_number_has_its_uncertainty() -> None:
    report, _ = report_of(instrument="clarinet")
    document = json.loads(json.dumps(to_json(report), allow_nan=False))
    assert document["schema"] == SCHEMA and set(CONTRACT) <= set(document)
    assert document["hold"]["instrument"] == "clarinet"
    for breath in document["breaths"]:
        assert set(BREATH) <= set(breath) and set(BREATH) <= set(breath["uncertainty"])
        assert all((breath[k] is None) == (breath["uncertainty"][k] is None) for k in BREATH)
    assert set(document["posture"]) >= {"trunk_inclination_deg", "back_rounding_pct", "feet_flat", "sag_deg_per_min", "sway_pct"}
    assert len(document["trace"]["t_s"]) == len(document["trace"]["abdomen"]) == len(document["trace"]["confidence"])


def test_segments_follow_one_another_in_time() -> None:
    report, _ = report_of("3-1-5@72x3")
    times = [(s.from_s, s.to_s) for s in report.segments]
    assert all(a < b for a, b in times) and times == sorted(times)
    assert {s.kind for s in report.segments} == {"inhale", "pause", "exhale"}


def test_lean_is_toward_the_face_on_both_sides() -> None:
    for view in ("side-left", "side-right"):
        report, _ = report_of(view=view, lean_deg=9.0)
        assert report.posture.trunk_inclination_deg.value == pytest.approx(9.0, abs=0.5)


FACTS = (
    "most_mb", "duration_s", "people", "frozen_pct", "rate_hz", "read_s", "width_px", "height_px", "pictures", "missing_s", "zoom_pct", "rotation_deg",
    "shift_pct", "beats", "side", "heard_bpm", "card_bpm", "longest_s", "tilt_deg", "at_s",
)  # fmt: skip


def test_every_reason_has_a_check_and_says_what_to_do() -> None:
    for code, sentence in REASONS.items():
        assert sentence.check in get_args(CheckArea)
        said = reason_sentence(code, dict.fromkeys(FACTS, "7"))
        assert "{" not in said and said.endswith(".") and len(said) < 220, code


def test_an_inhale_goes_on_while_a_chest_sinks_under_a_pushed_belly() -> None:
    pushed = Cycle(abdomen=5.0, chest=-1.6, shoulder=0.2, abdomen_window=(0.0, 0.65), chest_window=(0.15, 1.0))
    made, _, card = sighting(cycles=[pushed] * 3)
    report = read(made, Task(Check(card=card)))
    assert [breath.pattern for breath in report.breaths] == ["pushed"] * 3
    assert [breath.inhale_beats for breath in report.breaths] == pytest.approx([4.0] * 3, abs=0.15), "not the 2.6 of the belly alone"


def test_what_changes_slowly_is_judged_to_the_cards_end_though_the_last_breaths_are_lost() -> None:
    still = replace(LOW, abdomen=0.0, chest=0.0, shoulder=0.0)
    made, _, card = sighting("3-0-4@72x3", cycles=[LOW, still, still])
    whole, first = (read(made, Task(Check(card=one))) for one in (card, replace(card, cycles=1)))
    assert len(whole.breaths) == len(first.breaths) == 1
    assert whole.posture.sag_deg is not None and first.posture.sag_deg is None, "five seconds of one breath show no trunk that sinks"
