"""Clips made worse: only what is named changes; the curve of what becomes of their breaths ends where it no longer holds."""

import json
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import av
import numpy as np
import pytest

from brevin.bench import gate
from brevin.bench.worse import WAYS, Made, Way, darker, farther, made_worse, softer
from brevin.core.read import read
from brevin.core.report import Report
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


@pytest.mark.parametrize("way", [CODED, DARKER, FEWER], ids=lambda way: way.code)
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


TRUTH = demo.CLIPS / "seated-low-then-wide.json"


@pytest.fixture(scope="module")
def report() -> Report:
    return read(saved("seated-low-then-wide"), task_of(json.loads(TRUTH.read_text())))


def off(report: Report, by_s: float) -> Report:
    """The same reading with inhales that start so much later, as sure as before."""
    return replace(report, breaths=[replace(one, inhale_start_s=one.inhale_start_s + by_s) for one in report.breaths])


def at(way: int, seen: float | None, report: Report, *refused: str, level: float = 1.0) -> Made:
    return Made(TRUTH, way, level, seen, None if seen is None else 0.01 * seen, frozenset(refused), report)


OF_ALL, BY_AGE, BY_RATE = gate.AXES[0], gate.AXES[1], gate.AXES[-1]


def test_a_curve_ends_where_breaths_are_lost_or_stand_elsewhere(report: Report, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(gate, "PART_BREATHS", 6)  # two clips of three breaths
    none, late = replace(report, breaths=[]), off(report, 0.6)
    steady = [at(4, hz, report) for hz in (25.0, 24.0, 12.5, 12.0)]
    for last in (none, late):
        parts = gate.curve([at(4, 6.0, last, "low_frame_rate"), at(4, 5.0, last, "low_frame_rate"), *steady, at(4, None, none), at(0, 0.1, none)], BY_RATE)
        assert [(part.best, part.worst) for part in parts] == [(25.0, 24.0), (12.5, 12.0), (6.0, 5.0)], "best first, whatever way they came"
        assert [part.holds for part in parts] == [True, True, False] and [part.refused for part in parts] == [0, 0, 2]
        assert gate.ends(parts) == 12.0 and gate.ends(parts[2:]) is None
        assert (len(parts[2].tally.found), parts[2].tally.extra) == (0, len(last.breaths) * 2), "what is refused is measured as well"
    worse_first = gate.curve([at(0, age, none if age > 0.2 else report) for age in (0.3, 0.02, 0.4, 0.05)], BY_AGE)
    assert [part.best for part in worse_first] == [0.02, 0.3] and gate.ends(worse_first) == 0.05, "an older picture is the worse one"


def test_by_unrest_clips_of_all_ways_stand_in_one_order_and_each_as_it_was_once(report: Report) -> None:
    made = [*(at(way, 3.0, report, level=0.0) for way in range(len(WAYS))), at(0, 5.0, report), at(2, 1.0, report), at(3, None, report)]
    assert [(gauge, one.way) for gauge, one in OF_ALL.in_order(made)] == [(0.01, 2), (0.03, 0), (0.05, 0)]


def test_breaths_that_are_none_end_it_as_well(report: Report) -> None:
    more = replace(report, breaths=[*report.breaths, replace(report.breaths[0], inhale_start_s=report.breaths[0].inhale_start_s + 1.2)])
    [part] = gate.curve([at(3, 9.0, more)], gate.AXES[4])
    assert part.extra == pytest.approx(0.25) and not part.holds and gate.ends([part]) is None


def test_the_page_says_for_each_way_how_far_it_holds_and_where_the_gate_ends_it(report: Report) -> None:
    made = {"tuned": [at(i, 5.0, report) for i in range(len(WAYS))], "unseen": [at(0, 0.4, replace(report, breaths=[]), "coded_hard"), at(1, None, report)]}
    lines = gate.page(made)
    assert [line[3:] for line in lines if line.startswith("## ")] == [axis.name for axis in gate.AXES]
    assert all(any(f"ends it at {gate.ENDS[axis.code]:g} ({axis.seen_as})" in line for line in lines) for axis in gate.AXES)
    rows = [[cell.strip() for cell in line.split("|")[1:-1]] for line in lines if line.startswith("| ") and " to " in line]
    assert rows[0][:5] == ["0.05 to 0.05", "5", "0", "15 of 15", "0"] and rows[0][-1] == "holds"
    assert rows[2][:5] == ["5 to 5", "1", "0", "3 of 3", "0"] and rows[3] == ["0.4 to 0.4", "1", "1", "0 of 3", "0", "-", "-", "-", "-", "**does not**"]
    assert any("In 1 more nobody was found" in line for line in lines)
    drawn = ElementTree.fromstring(gate.picture([one for half in made.values() for one in half]))
    assert len(drawn.findall("{*}circle")) == 2 * 3 * len(WAYS), "every breath that was found, by unrest and by its way"
