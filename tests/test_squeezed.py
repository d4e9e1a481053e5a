"""Clips coded anew: the coding keeps length, size and sound; the page says by age what became of the turns."""

import json
from dataclasses import replace
from pathlib import Path

import av

from brevin.bench.squeezed import Squeezed, coded_anew, section
from brevin.core.gate import STALE_MOST_S
from brevin.core.read import read
from brevin.ops import demo
from brevin.standin.truth import task_of
from tests.clips import beginning
from tests.sightings import saved


def test_coded_anew_it_is_smaller_and_otherwise_the_same(tmp_path: Path) -> None:
    clip = beginning(demo.CLIPS / "seated-low-then-wide.mp4", tmp_path / "clip.mp4", to_s=3.0)
    made = tmp_path / "anew.mp4"
    coded_anew(clip, made, 42)
    assert made.stat().st_size < clip.stat().st_size
    told = []
    for path in (clip, made):
        with av.open(str(path)) as opened:
            video = opened.streams.video[0]
            told.append((sum(1 for _ in opened.decode(video)), video.width, video.height, len(opened.streams.audio)))
    assert told[0] == told[1] and told[1][3] == 1


def test_the_page_says_by_age_what_became_of_the_turns() -> None:
    truth_file = demo.CLIPS / "seated-low-then-wide.json"
    report = read(saved("seated-low-then-wide"), task_of(json.loads(truth_file.read_text())))
    unreadable = replace(report, readable_for=replace(report.readable_for, breath=False))
    lines = section([Squeezed(truth_file, 0.01, False, report), Squeezed(truth_file, STALE_MOST_S + 0.1, True, unreadable)])
    rows = [line for line in lines if line.startswith("| 0")]
    assert [row.split("|")[2:5] for row in rows] == [[" 1 ", " 0 ", " 3 of 3 "], [" 1 ", " 1 ", " 3 of 3 "]], "what is refused is measured as well"
    assert rows[0].split("|")[5:] == rows[1].split("|")[5:]
    assert section([])[-1].startswith("|---")
