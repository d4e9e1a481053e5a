"""Beats taken from the breaths, where no click was heard."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.music.clicks import NO_BEATS
from brevin.core.music.grids import PHASE_BEATS, fitted, recorded, whole_beats_off
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from tests.core.made import LOW, sighting

CARD = parse("4-0-4@60x4")


def test_breaths_that_keep_the_tempo_give_the_grid_they_lie_on() -> None:
    found = fitted(CARD, [5.1, 13.0, 21.0, 28.9])
    assert (found.source, found.tempo_bpm, found.first_inhale_s) == ("fitted", 60, pytest.approx(5.0))
    assert found.residual_s == pytest.approx(PHASE_BEATS, abs=0.02)


@pytest.mark.parametrize("starts", [[5.0, 13.0], [5.0, 13.0, 22.0], [5.0, 11.0, 17.0], []], ids=["two", "one is late", "another tempo", "none"])
def test_a_wrong_grid_is_worse_than_none(starts: list[float]) -> None:
    assert fitted(CARD, starts) == NO_BEATS


def test_an_open_exhale_and_no_card_have_no_tempo_to_fit() -> None:
    assert fitted(parse("4-0-*@60x3"), [5.0, 20.0, 33.0]) == NO_BEATS and fitted(None, [5.0, 13.0, 21.0]) == NO_BEATS


def test_a_silent_clip_is_read_in_beats_and_says_where_they_come_from() -> None:
    made, planted, card = sighting(clicks=False)
    report = read(made, Task(Check(card=card)))
    assert report.beats.source == "fitted" and "beats_fitted" in [r.code for r in report.reasons] and not report.readable_for.sound
    assert report.beats.first_inhale_s == pytest.approx(planted.planted[0].inhale_start_s, abs=0.25)
    assert [b.inhale_beats for b in report.breaths] == pytest.approx([4.0] * 3, abs=0.5)
    starts = next(v for v in report.verdicts if v.criterion == "with_count")
    assert starts.state == "watch" and not starts.outside  # nobody knows whether all of them were late


def test_clicks_are_taken_before_a_fit() -> None:
    made, _, card = sighting()
    assert read(made, Task(Check(card=card))).beats.source == "clicks"


def test_the_apps_own_count_is_the_grid_where_no_click_was_heard() -> None:
    made, planted, card = sighting()
    silent = replace(made, sound=None)
    first_s = planted.planted[0].inhale_start_s
    report = read(silent, Task(Check(card=card), first_inhale_s=first_s))
    assert report.beats.source == "recorded" and report.beats.first_inhale_s == first_s and report.beats.tempo_bpm == card.tempo_bpm
    assert all(b.inhale_offset_beats == pytest.approx(0.0, abs=0.2) for b in report.breaths)
    assert not {"no_beats", "beats_fitted"} & {r.code for r in report.reasons}


def test_clicks_that_are_heard_go_before_the_apps_count() -> None:
    made, _, card = sighting()
    assert read(made, Task(Check(card=card), first_inhale_s=1.0)).beats.source == "clicks"


def test_without_a_card_the_apps_count_says_nothing() -> None:
    assert recorded(None, 3.0).source is None


@pytest.mark.parametrize(
    ("offsets", "beats"),
    [
        ([1.05, 0.95, 1.1], 1), ([-2.1, -1.9], -2), ([0.1, -0.1, 0.0], 0), ([1.0, 0.1, 1.0], 0), ([1.0], 0), ([0.5, 0.6, 0.55], 0),
        ([0.6, 0.7, 1.0], 0), ([-2.6, -2.7, -3.0], -3), ([-3.0, -2.2, -3.0], 0), ([-3.7, 3.9], -4), ([3.9, -3.7, -4.0], 4),
    ],
)  # fmt: skip
def test_another_count_in_is_told_only_where_all_starts_are_off_by_the_same_whole_beat(offsets: list[float], beats: int) -> None:
    assert whole_beats_off(offsets, 8.0) == beats


def test_another_count_in_is_told_of_breaths_that_are_read_alone() -> None:
    made, _, card = sighting("4-0-4@60x3", [LOW] * 3)
    assert made.sound is not None
    earlier = replace(made, sound=replace(made.sound, starts_s=made.sound.starts_s - card.beat_s))
    covered = replace(earlier, front=replace(earlier.front, misfit=np.where(earlier.front.up_pct < 50.0, 0.9, earlier.front.misfit)))
    said = [[one.code for one in read(seen, Task(Check(card=card))).reasons] for seen in (earlier, covered)]
    assert "other_count_in" in said[0] and "other_count_in" not in said[1] and said[1]
