from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from brevin.core.music.clicks import NO_BEATS, from_clicks, heard, tempo_heard
from brevin.core.plan.card import parse
from brevin.core.track import Sound
from tests.core.made import FIRST_CLICK_S, click_track


@settings(max_examples=12, deadline=None)
@given(st.integers(50, 132), st.sampled_from([2, 4, 8]))
def test_first_inhale_is_due_after_the_count_in(tempo: int, countin: int) -> None:
    card = parse(f"4-0-4@{tempo}x3+{countin}")
    found = from_clicks(heard(click_track(card, 22.0)), card)
    assert found.source == "clicks"
    assert found.first_inhale_s == pytest.approx(FIRST_CLICK_S + countin * card.beat_s, abs=0.02)
    assert found.tempo_bpm == pytest.approx(tempo, rel=0.003)


@pytest.mark.parametrize("tone_db", [0.0, 10.0])
def test_clicks_under_a_tone_still_count(tone_db: float) -> None:
    card = parse("4-0-6@84x3")
    found = from_clicks(heard(click_track(card, 26.0, tone_db=tone_db)), card)
    assert found.first_inhale_s == pytest.approx(FIRST_CLICK_S + 4 * card.beat_s, abs=0.03)


def test_sound_that_starts_later_than_the_picture_is_set_right() -> None:
    card = parse("4-0-4@72x3")
    found = from_clicks(heard(click_track(card, 22.0, starts_s=0.3)), card)
    assert found.first_inhale_s == pytest.approx(FIRST_CLICK_S + 4 * card.beat_s, abs=0.02)


@pytest.mark.parametrize("kind", ["silence", "hush", "tone", "speech-like"])
def test_a_wrong_grid_is_worse_than_none(kind: str) -> None:
    random = np.random.default_rng(3)
    t = np.arange(22050 * 20) / 22050
    samples = {
        "silence": np.zeros(len(t)),
        "hush": 0.01 * random.normal(size=len(t)),
        "tone": 0.3 * np.sin(2 * np.pi * 233 * t),
        "speech-like": 0.1 * random.normal(size=len(t)) * (np.interp(t, np.cumsum(random.uniform(0.05, 0.25, 200)), random.uniform(0, 1, 200)) > 0.5),
    }[kind]
    assert from_clicks(heard(Sound(samples.astype(np.float32), 22050, 0.0)), parse("4-0-4@72x3")) == NO_BEATS


def test_without_card_or_sound_there_is_no_grid() -> None:
    card = parse("4-0-4@72x3")
    assert from_clicks(None, card) == NO_BEATS
    assert from_clicks(heard(click_track(card, 20.0)), None) == NO_BEATS


@settings(max_examples=12, deadline=None)
@given(st.integers(50, 124), st.integers(48, 132))
def test_a_grid_at_a_fraction_of_the_real_tempo_is_none_and_the_real_one_is_told(real: int, asked: int) -> None:
    assume(abs(asked / real - 1) > 0.035 and abs(2 * asked / real - 1) > 0.035)  # every second click is a click track as well
    onsets = heard(click_track(parse(f"4-0-4@{real}x3"), 24.0))
    card = parse(f"4-0-4@{asked}x3")
    assert from_clicks(onsets, card) == NO_BEATS
    assert onsets is not None and tempo_heard(onsets) == pytest.approx(real, rel=0.02)
    assert tempo_heard(replace(onsets, tempi_bpm=None)) == tempo_heard(onsets)  # evidence of a release that did not listen for it


def test_clicks_at_seventy_are_not_taken_for_a_card_of_ninety_two() -> None:
    assert from_clicks(heard(click_track(parse("4-0-4@70x3"), 24.0)), parse("4-0-4@92x3")) == NO_BEATS


def test_no_tempo_is_told_where_no_clicks_are_heard() -> None:
    hush = heard(Sound((0.01 * np.random.default_rng(3).normal(size=22050 * 20)).astype(np.float32), 22050, 0.0))
    assert hush is not None and hush.tempi_bpm == () and tempo_heard(hush) is None and tempo_heard(None) is None
