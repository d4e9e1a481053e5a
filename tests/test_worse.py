"""Clips made worse: only what is named changes; the page says by step what became of the breaths."""

import json
from dataclasses import replace
from pathlib import Path

import av
import numpy as np
import pytest

from brevin.bench.worse import WAYS, Made, Way, darker, farther, made_worse, section, softer
from brevin.core.read import read
from brevin.ops import demo
from brevin.standin.truth import task_of
from tests.clips import beginning
from tests.sightings import saved

CODED, FARTHER, DARKER, SOFTER, FEWER = WAYS


@pytest.fixture(scope="module")
def clip(tmp_path_factory: pytest.TempPathFactory) -> Path:
    return beginning(demo.CLIPS / "seated-low-then-wide.mp4", tmp_path_factory.mktemp("worse") / "clip.mp4", to_s=0.8)


def what_is_in(path: Path) -> tuple[int, tuple[int, int], float, int]:
    """Pictures, size, mean grey and sounds of a clip."""
    with av.open(str(path)) as opened:
        video = opened.streams.video[0]
        pictures = [frame.to_ndarray(format="gray") for frame in opened.decode(video)]
        return len(pictures), (video.width, video.height), float(np.mean(pictures)), len(opened.streams.audio)


@pytest.mark.parametrize("way", [CODED, DARKER, FEWER], ids=lambda way: way.level)
def test_one_thing_changes_and_the_rest_stays(clip: Path, tmp_path: Path, way: Way) -> None:
    before = what_is_in(clip)
    made_worse(clip, tmp_path / "mild.mp4", way, way.levels[0])
    made_worse(clip, tmp_path / "hard.mp4", way, way.levels[-1])
    mild, hard = what_is_in(tmp_path / "mild.mp4"), what_is_in(tmp_path / "hard.mp4")
    assert mild[1] == hard[1] == before[1] and mild[3] == hard[3] == 1
    assert (hard[0] < mild[0] < before[0]) if way is FEWER else hard[0] == mild[0] == before[0]
    assert (hard[2] < mild[2] < 0.6 * before[2]) if way is DARKER else hard[2] == pytest.approx(before[2], abs=2.0)
    if way is CODED:
        assert (tmp_path / "hard.mp4").stat().st_size < 0.9 * (tmp_path / "mild.mp4").stat().st_size


def test_a_picture_from_farther_away_is_smaller_and_a_soft_one_has_no_edges() -> None:
    picture = np.zeros((90, 160, 3), np.uint8)
    picture[30:60, 60:100] = 200
    away = farther(picture, 0.5)
    assert away.shape == picture.shape and (away > 100).sum() == pytest.approx((picture > 100).sum() / 4, rel=0.1)
    steep = [np.abs(np.diff(one[45, :, 0].astype(int))).max() for one in (picture, softer(picture, 2.0), softer(picture, 6.0))]
    assert steep[0] > 3 * steep[1] > 6 * steep[2]
    dim = darker(picture, 0.25)
    assert dim[45, 80].mean() == pytest.approx(50, abs=6) and np.array_equal(dim, darker(picture, 0.25)), "the same noise each time it is made"


def test_the_page_says_by_step_what_became_of_the_breaths() -> None:
    truth_file = demo.CLIPS / "seated-low-then-wide.json"
    report = read(saved("seated-low-then-wide"), task_of(json.loads(truth_file.read_text())))
    refused = replace(report, readable_for=replace(report.readable_for, breath=False))
    nobody = replace(refused, breaths=[])
    mild, hard = CODED.levels[:2]
    made = [Made(truth_file, 0, mild, 0.012, False, report), Made(truth_file, 0, hard, 0.41, True, refused), Made(truth_file, 1, 0.4, None, True, nobody)]
    lines = section(made)
    read_all, refused_all, found_none = ([cell.strip() for cell in line.split("|")[2:-1]] for line in lines if line[:3] in {"| 3", "| 0"})
    assert read_all[:4] == ["0.012", "1", "0", "3 of 3"] and refused_all[:4] == ["0.41", "1", "1", "3 of 3"]
    assert read_all[4:] == refused_all[4:], "what is refused is measured as well"
    assert found_none == ["-", "1", "1", "0 of 3", "-", "-", "-", "-"]
    assert sum(line.startswith("### ") for line in lines) == len(WAYS)
