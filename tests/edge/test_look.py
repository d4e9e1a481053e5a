"""The stand-in clips, whose truth is planted, read from the picture on."""

import json
from pathlib import Path

import numpy as np
import pytest

from brevin.core.plan.card import parse
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.edge import look as looking
from brevin.edge.look import _reference_at, look
from brevin.ops.settings import ROOT, model_path
from tests import clips

FOLDER = ROOT / "demo" / "clips"
MODEL = model_path(ROOT)
CARDS = {
    "seated-low-then-wide": "4-0-4@72x3", "seated-chest-high": "3-0-5@76x3", "standing-full-early": "4-0-6@84x3", "front-flute-sags": "3-0-6@72x3",
}  # fmt: skip


def report_of(path: Path, card: str | None = None) -> Report:
    return read(look(path, MODEL), Task(card=parse(card) if card else None))


@pytest.fixture(scope="module")
def readings() -> dict[str, tuple[Report, dict]]:
    return {n: (report_of(FOLDER / f"{n}.mp4", card), json.loads((FOLDER / f"{n}.json").read_text())) for n, card in CARDS.items()}


@pytest.mark.parametrize("name", [n for n in CARDS if n != "front-flute-sags"])
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


def test_opposite_patterns_are_told_apart(readings) -> None:
    high, _ = readings["seated-chest-high"]
    assert {b.pattern for b in high.breaths} == {"chest_high"}
    early, _ = readings["standing-full-early"]
    assert not {"chest_high", "paradoxical"} & {b.pattern for b in early.breaths}
    assert next(v for v in early.verdicts if v.criterion == "not_full_early").state in ("watch", "work")


def test_the_front_view_reads_shoulders_and_says_that_the_breath_is_not_readable(readings) -> None:
    report, _ = readings["front-flute-sags"]
    assert report.view == "front" and report.readable and not report.readable_for.breath
    assert report.reasons[0].code == "front_view_breath" and report.trace.shoulder
    assert report.posture.shoulder_tilt_deg is not None and abs(report.posture.shoulder_tilt_deg.value) < 6
    assert report.posture.trunk_inclination_deg is None


def test_an_empty_room_is_refused(tmp_path: Path) -> None:
    report = report_of(clips.write(tmp_path / "room.mp4", clips.room(100)))
    assert not report.readable and [r.code for r in report.reasons] == ["no_person"]


def test_a_dark_room_is_told_from_an_empty_one(tmp_path: Path) -> None:
    dark = [(picture * 0.05).astype(np.uint8) for picture in clips.pictures_of(FOLDER / "seated-chest-high.mp4", 90)]
    assert [r.code for r in report_of(clips.write(tmp_path / "dark.mp4", dark)).reasons] == ["too_dark"]


def test_a_clip_of_one_second_is_refused(tmp_path: Path) -> None:
    short = clips.pictures_of(FOLDER / "seated-chest-high.mp4", 25)
    report = report_of(clips.write(tmp_path / "short.mp4", short))
    assert not report.readable and [r.code for r in report.reasons] == ["too_short"]


def test_two_people_who_overlap_are_refused(tmp_path: Path) -> None:
    pictures = clips.pictures_of(FOLDER / "standing-full-early.mp4", 90)
    beside = [np.concatenate([p[:, 300:520], p[:, 380:660]], axis=1)[:, :480] for p in pictures]
    report = report_of(clips.write(tmp_path / "two.mp4", beside))
    assert not report.readable and report.reasons[0].code in ("people_overlap", "player_unclear")


def test_a_close_up_is_refused_for_its_trunk(tmp_path: Path) -> None:
    pictures = [p[:200, 330:690] for p in clips.pictures_of(FOLDER / "seated-chest-high.mp4", 90)]
    report = report_of(clips.write(tmp_path / "close.mp4", pictures))
    assert not report.readable and report.reasons[0].code in ("trunk_cut_off", "no_person")


def test_a_long_recording_is_read_from_its_start_in_bounded_memory(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(looking, "LONGEST_S", 6.0)
    sighting = look(FOLDER / "standing-full-early.mp4", MODEL)
    assert sighting.t_s[-1] <= 6.0 and [code for code, _ in sighting.notes] == ["long_clip"]


def test_a_4k_clip_is_read_with_a_word_of_advice(tmp_path: Path) -> None:
    import cv2

    large = [cv2.resize(p, (3840, 2160)) for p in clips.pictures_of(FOLDER / "seated-chest-high.mp4", 34, step=3)]
    report = report_of(clips.write(tmp_path / "large.mp4", large, rate=10))
    assert "large_picture" in [r.code for r in report.reasons] and report.clip.width_px == 3840
    assert report.player is not None and report.scale.trunk_px > 500, "in pixels of the clip, not of the picture worked on"


@pytest.mark.parametrize("width", [530, 854])
def test_any_width_of_picture_is_read(width: int, tmp_path: Path) -> None:
    """Rows that are not aligned once ended the whole program."""
    pictures = [p[:, 480 - width // 2 : 480 + width // 2] for p in clips.pictures_of(FOLDER / "seated-chest-high.mp4", 90)]
    report = report_of(clips.write(tmp_path / "odd.mp4", pictures))
    assert report.view == "side-right" and report.player is not None


def test_progress_grows_to_the_end() -> None:
    said: list[tuple[str, float]] = []
    look(FOLDER / "seated-chest-high.mp4", MODEL, progress=lambda stage, share: said.append((stage, share)))
    shares = [share for _, share in said]
    assert shares == sorted(shares) and shares[0] == 0 and shares[-1] > 0.9 and len({stage for stage, _ in said}) >= 4


def restless(until_s: float, *, from_grey: float) -> tuple[np.ndarray, np.ndarray]:
    t_s = np.arange(0, 20, 0.04)
    return t_s, np.where(t_s < until_s, from_grey, 0.5)


def test_the_reference_is_the_count_in_unless_it_is_restless() -> None:
    calm, change = restless(0.0, from_grey=0.5)
    assert calm[_reference_at(calm, change)].min() >= 0.5 and calm[_reference_at(calm, change)].max() <= 2.55
    t_s, change = restless(4.0, from_grey=2.0)
    found = t_s[_reference_at(t_s, change)]
    assert len(found) == 9 and found.min() >= 3.9, "after the fidgeting"
    short = np.arange(0, 3.0, 0.04)
    assert short[_reference_at(short, np.full(len(short), 0.5))].max() <= short[-1]
