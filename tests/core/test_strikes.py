"""A foot that taps: when it strikes, how that lies against the beat, and that a foot which lies still taps nothing."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.evidence import packed, unpacked
from brevin.core.kinematics.strikes import against_beats, strikes_s
from brevin.core.measure import Amount, Measure, NotMeasured, Value
from brevin.core.music.clicks import NO_BEATS, Beats
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, judge
from brevin.core.track import Floats
from brevin.core.verdict.rules import Rules
from tests.sightings import seen_of

RATE_HZ, LENGTH_S = 25.0, 16.0
T_S = np.arange(0.0, LENGTH_S, 1.0 / RATE_HZ)
BEATS = Beats(tempo_bpm=72.0, first_inhale_s=3.0, source="clicks", residual_s=0.003)
BEAT_S = 60.0 / 72.0
COUNTED_S = (3.0 - BEAT_S, 3.0 + 12 * BEAT_S)
ON_THE_BEAT = 3.0 + BEAT_S * np.arange(-2, 14)


def tapping(struck_s: Floats, *, foot: int = 1, part: int = 1, up_pct: float = 5.0, noise_pct: float = 0.05, shake_pct: float = 0.0) -> Floats:
    """Feet of which one goes up before each strike and falls within a tenth of a second. part: 0 the heel, 1 the toes; shake_pct: of the camera."""
    random = np.random.default_rng(3)
    ahead_s = struck_s[None, :] - T_S[:, None]
    up = np.where(ahead_s > 0.0, np.minimum(np.clip((0.4 - ahead_s) / 0.15, 0.0, 1.0), np.clip(ahead_s / 0.1, 0.0, 1.0)), 0.0).max(axis=1)
    feet = random.normal(0.0, noise_pct, (len(T_S), 2, 2)) + shake_pct * np.sin(2.0 * T_S)[:, None, None]
    feet[:, foot, part] += up_pct * up
    return feet


def told(struck_s: Floats | None, beats: Beats = BEATS) -> dict[str, Value]:
    return {m.key: m.value for m in against_beats(struck_s, beats, COUNTED_S)}


@pytest.mark.parametrize(("foot", "part"), [(0, 0), (0, 1), (1, 0), (1, 1)])
def test_each_strike_is_found_whichever_foot_taps_with_toes_or_heel(foot: int, part: int) -> None:
    assert strikes_s(T_S, tapping(ON_THE_BEAT, foot=foot, part=part)) == pytest.approx(ON_THE_BEAT, abs=0.04)


@given(late_s=st.floats(-0.25, 0.25), wander_s=st.floats(0.0, 0.05), shake_pct=st.floats(0.0, 3.0))
def test_how_late_the_foot_is_comes_back_inside_its_interval_however_the_camera_shakes(late_s: float, wander_s: float, shake_pct: float) -> None:
    struck_s = ON_THE_BEAT + late_s + np.random.default_rng(5).normal(0.0, wander_s, len(ON_THE_BEAT))
    found = told(strikes_s(T_S, tapping(struck_s, shake_pct=shake_pct)))
    late, on = found["foot_late_s"], found["foot_on_beats"]
    assert isinstance(late, Amount) and isinstance(on, Amount)
    assert late.value == pytest.approx(late_s, abs=late.half_width) and late.half_width < 0.1
    assert on.value == 1.0


def test_a_foot_on_every_second_beat_is_on_half_of_them() -> None:
    on = told(strikes_s(T_S, tapping(ON_THE_BEAT[::2])))["foot_on_beats"]
    assert isinstance(on, Amount) and on.value == pytest.approx(0.5, abs=0.05)


@pytest.mark.parametrize(
    ("feet", "beats", "why"),
    [
        (tapping(ON_THE_BEAT, up_pct=0.0), BEATS, "not_tapped"), (tapping(ON_THE_BEAT, up_pct=1.0), BEATS, "not_tapped"),
        (tapping(ON_THE_BEAT, noise_pct=1.0), BEATS, "not_tapped"), (tapping(ON_THE_BEAT[:3]), BEATS, "not_tapped"),
        (tapping(3.0 + 0.61 * np.arange(-3, 20)), BEATS, "off_the_beat"), (tapping(ON_THE_BEAT), NO_BEATS, "no_beats"),
        (np.full((len(T_S), 2, 2), np.nan), BEATS, "feet_unseen"), (np.zeros((0, 2, 2)), BEATS, "feet_unseen"),
    ],
    ids=["still", "hardly", "in noise", "three times", "another tempo", "no beat", "unseen", "of an older release"],
)  # fmt: skip
def test_what_is_no_tapping_or_no_beat_is_no_number(feet: Floats, beats: Beats, why: str) -> None:
    assert set(told(strikes_s(T_S, feet), beats).values()) == {NotMeasured(why)}  # pyrefly: ignore[bad-argument-type]


def test_a_few_strikes_near_the_beat_may_be_chance() -> None:
    assert isinstance(told(ON_THE_BEAT[2:7])["foot_late_s"], NotMeasured) and isinstance(told(ON_THE_BEAT[2:9])["foot_late_s"], Amount)


def test_a_foot_that_is_seen_part_of_the_time_is_told_from_that() -> None:
    feet = tapping(ON_THE_BEAT)
    feet[:, 0], feet[:40] = np.nan, np.nan
    feet[:, 1, 0] = np.nan
    found = strikes_s(T_S, feet)
    assert found == pytest.approx(ON_THE_BEAT[1:], abs=0.04)


@given(seed=st.integers(0, 10_000), pictures=st.integers(0, 60), seen=st.floats(0.0, 1.0), from_s=st.floats(-20.0, 20.0), lasts_s=st.floats(-5.0, 30.0))
def test_any_feet_and_any_counted_time_end_in_two_numbers_or_reasons(seed: int, pictures: int, seen: float, from_s: float, lasts_s: float) -> None:
    random = np.random.default_rng(seed)
    feet = np.where(random.random((pictures, 2, 2)) < seen, random.normal(0.0, 5.0, (pictures, 2, 2)), np.nan)
    struck_s = strikes_s(np.arange(pictures) / RATE_HZ, feet)
    found = against_beats(struck_s, BEATS, (from_s, from_s + lasts_s))
    assert [m.key for m in found] == ["foot_late_s", "foot_on_beats"]
    assert all(np.isfinite([m.value.value, m.value.half_width]).all() for m in found if isinstance(m.value, Amount))


def test_heel_and_toes_that_are_seen_at_different_times_tell_nothing() -> None:
    feet = tapping(ON_THE_BEAT)
    half = len(T_S) // 2
    feet[:half, :, 0], feet[half:, :, 1] = np.nan, np.nan
    assert len(strikes_s(T_S, feet)) == 0


def test_where_nobody_heard_the_beat_it_is_not_known_whether_a_foot_keeps_it() -> None:
    fitted = replace(BEATS, source="fitted", residual_s=0.25 * BEAT_S)
    assert told(ON_THE_BEAT, fitted)["foot_late_s"] == NotMeasured("too_unsure")


def test_feet_of_a_student_who_is_exempt_are_not_told_either() -> None:
    report = judge(seen_of("seated-low-then-wide"), Task(Check(card=parse("4-0-4@72x3"))), Rules(exempt=frozenset({"feet_flat"}))).report
    assert report.posture.feet_flat is report.posture.foot_late_s is None
    assert report.player is not None and report.player.strikes_s == []


def test_the_demo_s_foot_is_shown_and_judges_nothing_and_old_evidence_has_none() -> None:
    found, task = seen_of("seated-low-then-wide"), Task(Check(card=parse("4-0-4@72x3")))
    reading = judge(found, task)
    late = reading.report.posture.foot_late_s
    assert late is not None and late.value == pytest.approx(0.06, abs=late.uncertainty)
    assert reading.report.player is not None and len(reading.report.player.strikes_s) > 20
    without = replace(found, players=tuple(replace(one, feet_pct=np.zeros((0, 2, 2))) for one in found.players))
    old = judge(unpacked(packed(without)), task)
    assert old.report.posture.foot_late_s is None and old.report.player is not None and old.report.player.strikes_s == []
    assert old.report.verdicts == reading.report.verdicts
    assert reading.ground is not None and Measure("foot_late_s", NotMeasured("feet_unseen")) not in reading.ground.judged.measures
    assert old.ground is not None and Measure("foot_late_s", NotMeasured("not_looked")) in old.ground.judged.measures
