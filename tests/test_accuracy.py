"""The accuracy page: what is counted, and that the page says it."""

from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest

from brevin.bench import accuracy, accuracy_by, accuracy_hold, accuracy_page
from brevin.bench import tally as counting
from brevin.bench.accuracy import BARS
from brevin.bench.tally import ReadClip, Tally, add, planted_pattern, tally_of
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Hold, PostureValue, Report
from brevin.core.track import Sighting
from brevin.ops.settings import ROOT
from brevin.standin import tape
from tests.core.made import sighting

TRUNK_MM = 400.0


def clip(card_text: str = "4-0-4@72x3") -> tuple[Report, dict]:
    """A drawn clip's report and its truth in the layout of the clip sets."""
    made, planted, card = sighting(card_text)
    assert isinstance(made, Sighting)
    mm = TRUNK_MM / 100
    first_s = planted.planted[0].inhale_start_s
    truth = {
        "label": {"view": "side_right"}, "beat_s": card.beat_s, "camera": {"px_per_mm_torso": 0.5},
        "cycles": [tape.cycle(i, b, card, first_s, mm=mm) for i, b in enumerate(planted.planted)],
        "per_frame": {
            "t": planted.t_s.tolist(),
            "keypoints_px": {"shoulder_l": [[0, 0]], "shoulder_r": [[0, 0]], "hip_l": [[0, 0.5 * TRUNK_MM]], "hip_r": [[0, 0.5 * TRUNK_MM]]},
            **{f"{k}_mm": (mm * getattr(planted, k)).tolist() for k in ("abdomen", "chest", "shoulder")},
        },
    }  # fmt: skip
    return read(made, Task(Check(card=card))), truth


@pytest.fixture(scope="module")
def tally() -> Tally:
    report, truth = clip()
    counted = Tally("drawn clips")
    add(counted, truth, report, "drawn")
    return counted


def test_planted_breaths_are_found_with_small_errors_inside_their_intervals(tally: Tally) -> None:
    assert (tally.clips, tally.planted, len(tally.found), tally.extra, tally.f1) == (1, 3, 3, 0, 1.0)
    assert set(tally.found[0].errors) == set(BARS) - {"empty_beats"}, "no still time on empty was planted"
    for key in ("inhale_start_s", "exhale_start_s", "abdominal_share", "shoulder_rise"):
        assert tally.errors(key)[-1] < 2 * BARS[key], key
        assert tally.covered(key) == 1.0 and 0 < tally.half_width(key) < 4 * BARS[key], key
    assert tally.patterns == {("low_then_wide", "low_then_wide"): 3}


def test_a_breath_that_is_not_there_is_missed_and_one_too_many_is_extra() -> None:
    report, truth = clip()
    counted = Tally("x")
    add(counted, truth, replace(report, breaths=report.breaths[:2]), "one short")
    truth["cycles"] = truth["cycles"][:2]
    add(counted, truth, report, "one long")
    assert (counted.planted, len(counted.found), counted.extra, counted.missed) == (5, 4, 1, ["one short, breath 3"])
    assert counted.f1 == pytest.approx(2 * 4 / (5 + 4 + 1))


def test_a_breath_off_by_more_than_half_a_second_is_another_breath() -> None:
    report, truth = clip()
    for cycle in truth["cycles"]:
        cycle["inhale_start"] += 0.6
    counted = Tally("x")
    add(counted, truth, report, "late")
    assert (len(counted.found), len(counted.missed), counted.extra) == (0, 3, 3)


def test_refused_clips_and_front_views_are_named_and_not_counted() -> None:
    report, truth = clip()
    counted = Tally("x")
    add(counted, truth, replace(report, readable_for=replace(report.readable_for, breath=False)), "refused")
    add(counted, {**truth, "label": {"view": "front"}}, report, "front")
    assert (counted.planted, counted.refused) == (0, ["refused", "front"])


def test_an_exhale_ends_where_the_next_inhale_begins_at_the_latest() -> None:
    _, truth = clip()
    truth["cycles"][0]["exhale_end"] = truth["cycles"][1]["inhale_start"] + 1.0
    [(first, still), *_] = counting._cycles(truth)
    assert first["exhale_end"] == truth["cycles"][1]["inhale_start"] and still == 0.0


def test_a_missing_interval_counts_as_one_that_missed(tally: Tally) -> None:
    without = replace(tally.found[0], halves={})
    assert Tally("x", found=[tally.found[0], without]).covered("shoulder_rise") == 0.5
    assert Tally("x", found=[without]).half_width("shoulder_rise") is None


def test_planted_amplitudes_are_named_by_the_same_table() -> None:
    assert planted_pattern({"abdomen": 3.0, "chest": 1.5, "shoulder": 0.3}, {"chest_lag_t50_s": 0.4}) == "low_then_wide"
    assert planted_pattern({"abdomen": 0.7, "chest": 2.4, "shoulder": 3.0}, {"chest_lag_t50_s": 0.0}) == "chest_high"


def test_the_page_says_what_was_counted_and_draws_it(tally: Tally, tmp_path, monkeypatch) -> None:
    worst = max(tally.found, key=lambda breath: breath.worst_s)
    said = tmp_path / "looked_at.md"
    said.write_text(f"# What was seen\n\n## drawn clips: {worst.label}\n\nThe drawn belly\nstands still here.\n")
    for name, place in (("PAGE", tmp_path / "accuracy.md"), ("PICTURES", tmp_path / "accuracy"), ("LOOKED_AT", said)):
        monkeypatch.setattr(accuracy_page, name, place)
    accuracy_page.write([tally], {"in sight": [], "unseen": []})
    page = (tmp_path / "accuracy.md").read_text()
    assert "## Drawn clips" in page and "3 of 3 planted breaths found, 0 extra (F1 1.000)" in page
    assert "The drawn belly stands still here." in page and page.count("Not looked at yet.") == 2
    assert "| **low_then_wide** | 3 |" in page
    pictures = sorted(p.name for p in (tmp_path / "accuracy").iterdir())
    assert pictures == ["errors-1.svg", "worst-1.svg", "worst-2.svg", "worst-3.svg"]
    for picture in pictures:
        assert f"(accuracy/{picture})" in page
        drawn = ElementTree.parse(tmp_path / "accuracy" / picture).getroot()
        assert len(list(drawn)) > 8


def test_the_same_breaths_are_counted_by_what_is_in_the_picture() -> None:
    report, truth = clip()
    flute = truth | {"label": {"view": "side_left", "instrument": "flute"}, "scenario": {"cloth": {"pattern": "check"}}}
    front = truth | {"label": {"view": "front", "instrument": None}}
    refused = replace(report, readable_for=replace(report.readable_for, breath=False))
    clips = [
        ReadClip("near", flute, report, 160.0, 90.0, 0.0), ReadClip("far", flute, refused, 80.0, 30.0, 0.3),
        ReadClip("front", front, report, 120.0, 90.0, 0.01),
        ReadClip("spoiled", flute | {"readable": False}, report, 160.0, 90.0, 0.0), ReadClip("nobody", flute, refused),
    ]  # fmt: skip
    lines = [line for line in accuracy_by.section({"in sight": clips, "unseen": []}) if "in sight |" in line]
    rows = {tuple(cell.strip() for cell in line.split("|")[1:3]): line for line in lines}
    assert rows["instrument, in sight", "flute"].startswith("| instrument, in sight | flute | 3 | 2 | 3 of 3 | 0 |")
    assert rows["view, in sight", "front"].startswith("| view, in sight | front | 1 | 0 | 3 of 3 | 0 |"), "when a breath begins is told from the front as well"
    assert rows["shirt, in sight", "checked"].endswith(" | 3, 0, 0 |")
    order = [value for split, value in rows if split == "trunk in the picture, in sight"]
    assert order == ["under 110 px", "110 to 160 px", "160 px and more"], "the smallest first, and nobody where nobody was found"
    assert rows["age of the picture, in sight", "0.08 s and more"].startswith("| age of the picture, in sight | 0.08 s and more | 1 | 1 | 0 of 0 | 0 | - |")
    assert tally_of("all", clips).refused == ["far", "front", "nobody"], "of a set, views without amounts stand beside what is refused"


def test_the_errors_said_in_the_method_are_those_measured() -> None:
    measured = {name: _rows((ROOT / "docs" / "accuracy.md").read_text().split(f"## {name}\n")[1]) for name in ("Dev", "Stills")}
    said = _rows((ROOT / "docs" / "method.md").read_text().split("Errors measured")[1])
    assert set(said) == set(measured["Stills"])
    for name, cells in said.items():
        assert cells == [*measured["Dev"].get(name, ["-"] * 3)[1:3], *measured["Stills"][name][1:3]]


def _rows(text: str) -> dict[str, list[str]]:
    """The cells of the first table of errors, by measure."""
    table = text[text.index("| measure |") :].split("\n\n")[0].splitlines()[2:]
    return {cells[0]: cells[1:] for cells in ([c.strip() for c in line.strip("|").split("|")] for line in table)}


def test_stills_made_by_other_code_are_made_anew(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[list[str]] = []

    class Made:
        def __init__(self, command: list[str], **_: object) -> None:
            asked.append(command)

        def wait(self) -> int:
            return 0

    monkeypatch.setattr(accuracy, "STILLS", tmp_path)
    monkeypatch.setattr(accuracy.subprocess, "Popen", Made)
    accuracy.make_stills()
    accuracy.make_stills()
    assert len(asked) == 2  # one half by each core, once
    (tmp_path / "done").write_text("other code")
    accuracy.make_stills()
    assert len(asked) == 4


def test_angles_are_held_against_what_was_planted_and_what_is_missing_is_named() -> None:
    report, truth = clip()
    value = PostureValue(value=12.0, uncertainty=2.0, n=4, by_segment={})
    held = replace(report, hold=Hold("trumpet", instrument_axis_deg=value, elbow_abduction_deg={"left": value, "right": None}))
    frames = len(truth["per_frame"]["t"])
    sinks = [-11.0 - 6.0 * i / frames for i in range(frames)]
    truth["per_frame"]["instrument"] = {"image_angle_deg": [-11.0] * frames, "elevation_deg": [-9.0] * frames}
    truth["per_frame"]["joints_px"] = {"nose": [[40, -60]] * frames}
    truth["per_frame"]["keypoints_px"] = {name: places * frames for name, places in truth["per_frame"]["keypoints_px"].items()}
    side = accuracy_hold.seen(truth, held, "drawn")
    assert [one.key for one in side] == ["trunk_inclination_deg", "sag_deg", "back_rounding_pct", "instrument_axis_deg", "axis_droop_deg"]
    assert side[0].error == pytest.approx(4.0, abs=0.5), "the drawn player leans by 4 deg, the truth beside it stands upright"
    assert side[3].error == pytest.approx(1.0) and side[3].half == 2.0
    assert side[1].error == pytest.approx(0.0, abs=1.5) and side[4].error is None, "nobody sank; how far the bell sank was not measured"
    as_seen = accuracy_hold.seen(truth | {"label": truth["label"] | {"posed": "as seen"}}, held, "still")
    assert [one.key for one in as_seen] == [one.key for one in side[1:]], "what a still leans by is the network's own, and no truth"
    sways = truth | {"per_frame": truth["per_frame"] | {"joints_px": {"nose": [[40 + (-1) ** i, -60] for i in range(frames)]}}}
    [swayed] = [one for one in accuracy_hold.seen(sways, held, "drawn") if one.key == "sway_pct"]
    planted_pct = 100.0 * 0.5 / np.hypot(*np.subtract(*(truth["per_frame"]["keypoints_px"][name][0] for name in ("shoulder_l", "hip_l"))))
    assert swayed.error == pytest.approx(report.posture.sway_pct.value - planted_pct, abs=0.2), "the nose by one, the shoulders not at all"
    truth["per_frame"]["instrument"]["image_angle_deg"] = sinks
    sunk = replace(held, hold=replace(held.hold, axis_droop_deg=replace(value, value=4.0)))
    assert -2.5 < accuracy_hold.seen(truth, sunk, "drawn")[4].error < 0.0, "of the six planted over the clip, those that are judged"
    truth["per_frame"]["instrument"] = {"image_angle_deg": [-11.0] * frames, "elevation_deg": [-30.0]}  # out of the picture's plane: nothing to hold it against
    front = truth | {"label": {"view": "front", "arms": "instrument"}}
    front["per_frame"] = truth["per_frame"] | {"upper_arm_abduction_deg": {"l": [10.0], "r": [10.0]}}
    elbows = accuracy_hold.seen(front, held, "drawn")
    trunk_px = np.hypot(*np.subtract(*(truth["per_frame"]["keypoints_px"][name][0] for name in ("shoulder_l", "hip_l"))))
    planted_rise_pct = 100.0 * truth["cycles"][0]["amplitude_mm"]["shoulder"] * truth["camera"]["px_per_mm_torso"] / trunk_px
    read_pct = next(v.value for v in held.verdicts if v.criterion == "shoulders_still")
    line, rise, *elbows = elbows
    assert line.error is None, "the shoulder line is told from the front"
    assert rise.key == "shoulder_front_pct" and rise.error == pytest.approx(read_pct - planted_rise_pct, abs=0.01)
    assert [(one.clip, one.error) for one in elbows] == [("drawn, left", 2.0), ("drawn, right", None)], "of an elbow that was not measured nothing is told"
    truth["per_frame"]["back_rounding_pct"] = [0.0 if t_s < 2.5 else 6.0 for t_s in truth["per_frame"]["t"]]
    [rounded] = [one for one in accuracy_hold.seen(truth, held, "drawn") if one.key == "back_rounding_pct"]
    assert rounded.error == pytest.approx(-6.0, abs=1.0), "the drawn player does not round"
    page = "\n".join(accuracy_hold.section([*side, *elbows]))
    assert "| instrument axis, deg | 3.0 | 1.00 | 1.00 | 100 % | 1 of 1 |" in page and "drawn, right" in page and accuracy_hold.section([]) == []


def test_a_tapping_foot_is_held_against_the_middle_of_its_planted_strikes() -> None:
    report, truth = clip()
    late_s = {0: 0.04, 1: 0.06, 2: 0.11}
    truth |= {"first_inhale_beat_s": 3.0, "strikes_s": [3.0 + truth["beat_s"] * beat + late for beat, late in late_s.items()]}
    told = replace(report, posture=replace(report.posture, foot_late_s=PostureValue(0.05, 0.04, 12, {})))
    [late], [unseen] = ([one for one in accuracy_hold.seen(truth, one, "drawn") if one.key == "foot_late_s"] for one in (told, report))
    assert late.error == pytest.approx(-0.01) and late.half == 0.04 and unseen.error is None


def test_what_is_raised_is_held_against_the_truth_of_the_time_it_is_up() -> None:
    truth = {"raising": {"up": [0.0, 0.0, 0.0, 0.5, 1.0, 1.0]}}
    values = [6.0, 6.0, 6.0, 15.0, 24.0, 24.0]
    assert accuracy_hold._while_up(truth, values) == [24.0, 24.0] and accuracy_hold._while_up({}, values) == values
    drawn = {
        "label": {"view": "side_right", "position": "seated", "arms": "instrument"},
        "per_frame": {"instrument": {"image_angle_deg": [-v for v in values], "elevation_deg": [-v for v in values]}},
        "raising": truth["raising"] | {"head_travel_pct": 2.0, "raise_spread_pct": 1.0},
    }
    hold = replace(Hold("trumpet"), instrument_axis_deg=PostureValue(24.5, 1.6, 3, {}), head_travel_pct=PostureValue(2.9, 1.5, 3, {}))
    report, _ = clip()
    found = {one.key: one for one in accuracy_hold.seen(drawn, replace(report, hold=hold), "drawn")}
    assert found["instrument_axis_deg"].error == pytest.approx(0.5) and found["head_travel_pct"].error == pytest.approx(0.9)
    assert found["raise_spread_pct"].error is None and "spread of raises" in "".join(accuracy_hold.section(list(found.values())))
