"""Clips of a player who fidgets before the count is over, and of a camera that zooms: read as the calm ones are."""

from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import pytest

from brevin.bench.worse import remade
from brevin.core.gate import ROOM_MOVES_PCT, Stretch, room_spread_pct
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.core.synth import Cycle
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.still import Still, Take, still_of, take
from tests import clips

MODEL = model_path(ROOT)
LOW = Cycle(abdomen=2.8, chest=1.5, shoulder=0.3, abdomen_window=(0.0, 0.75), chest_window=(0.3, 1.0), ease_share=0.17)
CALM = Take(name="calm", card="3-0-4@120x1", cycles=(LOW,), sway_pct=0.1, noise=1.0, crf="20", rate_hz=13)
AROUND = slice(230, 730)  # columns of the player: the room beside him is no part of it
SIZE_PX = (360, 388)  # coding and following cost by the pixel


@pytest.fixture(scope="module")
def still(tmp_path_factory: pytest.TempPathFactory) -> Still:
    pictures = [
        cv2.resize(picture[:, AROUND], SIZE_PX, interpolation=cv2.INTER_AREA)
        for picture in clips.pictures_of(ROOT / "demo" / "clips" / "seated-low-then-wide.mp4", 15)
    ]
    return still_of(clips.write(tmp_path_factory.mktemp("still") / "near.mp4", pictures), MODEL)


def report_of(still: Still, planted: Take, folder: Path) -> Report:
    return read(look(take(still, planted, folder), MODEL), Task(Check(card=parse(planted.card))))


@pytest.mark.parametrize(
    ("planted", "told"),
    [
        (replace(CALM, name="zoomed", zoom=1.06), True),
        (replace(CALM, name="fidgets", fidget_pct=4.0), False),
        (replace(CALM, name="sinks", sinks_deg=8.0, card="3-0-4@70x1"), False),
    ],
    ids=["zoom in mid-clip", "fidgeting in the count-in", "sinking while playing"],
)
def test_what_was_planted_is_read_all_the_same(still: Still, planted: Take, told: bool, tmp_path: Path) -> None:
    report = report_of(still, planted, tmp_path)
    assert ("camera_moved" in [r.code for r in report.reasons]) == told
    assert report.readable_for.breath and len(report.breaths) == 1
    card = parse(planted.card)
    for index, breath in enumerate(report.breaths):
        due_s = 0.8 + (card.countin_beats + 7 * index) * card.beat_s
        assert breath.inhale_start_s == pytest.approx(due_s, abs=0.2)
        assert breath.exhale_start_s == pytest.approx(due_s + 3 * card.beat_s, abs=0.3)
        assert breath.abdominal_share == pytest.approx(LOW.abdomen / (LOW.abdomen + LOW.chest), abs=0.1)
        assert breath.shoulder_rise == pytest.approx(LOW.shoulder, abs=0.5)
        assert breath.pattern == "low_then_wide"


def test_others_who_sit_behind_and_fidget_are_no_camera_that_moves(tmp_path: Path) -> None:
    stripes = np.uint8(120 + 70 * np.sign(np.sin(0.4 * np.arange(300))))[:, None, None]

    def with_others(rgb: np.ndarray, number: int) -> np.ndarray:
        shown = rgb.copy()
        for child, middle in enumerate((60, 160, 800, 900)):
            left = int(middle - 40 + 14 * np.sin(0.12 * (1 + 0.3 * child) * number + child))
            shown[150:450, left : left + 80] = stripes
        return shown

    first = clips.beginning(ROOT / "demo" / "clips" / "seated-low-then-wide.mp4", tmp_path / "first.mp4", 5.0)
    remade(first, tmp_path / "class.mp4", with_others, every=2)
    alone, seen = look(first, MODEL), look(tmp_path / "class.mp4", MODEL)
    assert [code for code, _ in seen.notes] == ["restless_behind"] and not alone.notes
    assert room_spread_pct(Stretch(seen.t_s, seen.picture, seen.poses)) < ROOM_MOVES_PCT


def test_the_clips_are_made_the_same_each_time(still: Still, tmp_path: Path) -> None:
    short = replace(CALM, card="1-0-1@200x1+1", cycles=(LOW,), rate_hz=5)
    first, again = (take(still, short, tmp_path / name) for name in ("a", "b") if not (tmp_path / name).mkdir())
    assert first.with_suffix(".json").read_text() == again.with_suffix(".json").read_text()
    assert first.read_bytes() == again.read_bytes()
