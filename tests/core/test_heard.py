"""What a try sounded like, on sounds of our own making."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.errors import InvalidInput
from brevin.core.music.heard import heard

RATE = 16_000
WANTED = 262.0
rng = np.random.default_rng(4)


def room(seconds: float, loud: float = 0.002):
    return loud * rng.standard_normal(int(seconds * RATE))


def tone(hz: float, seconds: float, loud: float = 0.2):
    t = np.arange(int(seconds * RATE)) / RATE
    fade = np.minimum(1, np.minimum(t, seconds - t) / 0.03)
    return loud * fade * sum(np.sin(2 * np.pi * k * hz * t) / k for k in range(1, 6))


def with_room(*parts, loud: float = 0.002):
    sound = np.concatenate([np.zeros(int(0.5 * RATE)), *parts, np.zeros(int(0.5 * RATE))])
    return sound + room(len(sound) / RATE, loud)[: len(sound)]


def like(*parts, wanted: float | None = WANTED) -> str:
    return heard(with_room(*parts), RATE, wanted_hz=wanted).like


def test_each_sound_is_what_it_is() -> None:
    gurgle = tone(WANTED, 1.2) * (1 + 0.7 * np.sin(2 * np.pi * 18 * np.arange(int(1.2 * RATE)) / RATE))
    assert like() == "nothing"
    assert like(room(1.0, 0.03)) == "only_air"
    assert like(tone(1470, 0.3)) == "squeak"
    assert like(room(0.6, 0.03), tone(1470, 0.2)) == "squeak"
    assert like(tone(WANTED, 1.0, 0.006)) == "thin"
    assert like(gurgle) == "gurgling"
    assert like(tone(WANTED, 1.2)) == "note" and like(room(0.3, 0.03), tone(WANTED, 1.0)) == "note"


def test_how_long_and_how_high() -> None:
    found = heard(with_room(room(0.4, 0.05), tone(1470, 0.3)), RATE, wanted_hz=WANTED)
    assert found.hz == pytest.approx(1470, rel=0.01) and found.tone_s == pytest.approx(0.3, abs=0.1) and found.air_s == pytest.approx(0.4, abs=0.12)


@pytest.mark.parametrize("seconds", [3.0, 8.0, 12.5])
def test_a_long_even_tone_is_measured_to_its_end(seconds: float) -> None:
    found = heard(with_room(tone(175, seconds)), RATE, wanted_hz=None)
    assert found.tone_s == pytest.approx(seconds, abs=0.1) and found.like == "note"


@settings(max_examples=25)
@given(st.floats(60, 1200), st.floats(0.05, 0.4), st.sampled_from([16_000, 44_100, 48_000]))
def test_the_pitch_is_found_whatever_the_instrument_and_the_microphone(hz: float, loud: float, rate: int) -> None:
    t = np.arange(int(1.2 * rate)) / rate
    sound = loud * sum(np.sin(2 * np.pi * k * hz * t + k) / k for k in range(1, 6)) * ((t > 0.3) & (t < 0.9))
    found = heard(sound + 0.001 * rng.standard_normal(len(t)), rate, wanted_hz=hz)
    assert found.hz == pytest.approx(hz, rel=0.01) and found.like == "note"


@given(st.integers(0, 3), st.floats(1e-6, 1.0))
@settings(max_examples=20)
def test_whatever_is_heard_something_is_said(seed: int, loud: float) -> None:
    sound = loud * np.random.default_rng(seed).standard_normal(RATE)
    assert heard(sound, RATE, wanted_hz=None).like in ("nothing", "only_air", "thin", "note", "gurgling", "squeak")
    assert heard(np.zeros(RATE), RATE, wanted_hz=None).like == "nothing"


def test_too_short_a_piece_is_refused() -> None:
    with pytest.raises(InvalidInput, match="too_short"):
        heard(np.zeros(1000), RATE, wanted_hz=None)
