import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.plan.card import parse
from brevin.core.report import Breath, Posture, PostureValue
from brevin.core.verdict.criteria import BREATH, POSTURE, Asked, Band
from brevin.core.verdict.judge import cue, state_of, verdicts
from brevin.core.verdict.profile import MethodProfile
from brevin.core.verdict.words import CRITERIA

CARD = parse("4-0-4@60x3")
ASKED = Asked(CARD, 1.0, MethodProfile())
SURE = {
    "abdominal_share": 0.02, "shoulder_rise": 0.02, "full_at_beat": 0.02, "inhale_offset_beats": 0.02, "inhale_beats": 0.02, "pause_beats": 0.02,
    "exhale_beats": 0.02, "intake_unevenness": 0.02,
}  # fmt: skip
GOOD = Breath(
    inhale_start_s=4.0, inhale_end_s=8.0, exhale_start_s=8.05, exhale_end_s=12.0,
    inhale_beats=4.0, pause_beats=0.05, exhale_beats=3.95, inhale_offset_beats=0.0,
    full_at_beat=3.5, abdomen_amp=3.0, chest_amp=1.8, shoulder_rise=0.3, abdominal_share=0.62, chest_lag_s=0.5, intake_unevenness=0.1, uncertainty=SURE,
)  # fmt: skip


def judged(breath: Breath, **kwargs):
    known = {"view": "side-left", "position": "seated", "breath_readable": True, "why_not": []} | kwargs
    return {v.criterion: v for v in verdicts([breath] * 3, Posture(), ASKED, **known)}


def test_a_good_breath_is_steady_throughout_and_praised() -> None:
    found = judged(GOOD)
    assert {v.state for v in found.values()} == {"steady"}
    assert cue(list(found.values()))["criterion"] == "all"


@pytest.mark.parametrize(
    ("change", "criterion"),
    [
        ({"shoulder_rise": 3.0}, "shoulders_still"), ({"abdominal_share": 0.2}, "abdomen_leads"), ({"inhale_offset_beats": 1.2}, "with_count"),
        ({"exhale_beats": 2.0}, "exhale_counts"), ({"pause_beats": 1.5}, "pause"), ({"full_at_beat": 1.2}, "not_full_early"),
    ],
)  # fmt: skip
def test_each_fault_is_worked_on_and_has_its_cue(change: dict, criterion: str) -> None:
    found = judged(replace(GOOD, **change))
    assert found[criterion].state == "work"
    assert [v.criterion for v in found.values() if v.state == "work"] == [criterion]
    assert cue(list(found.values())) == {"criterion": criterion, "text": CRITERIA[criterion].cue}
    assert len(found[criterion].marks) == 3


def test_one_fault_is_said_once() -> None:
    found = judged(replace(GOOD, full_at_beat=1.2, pause_beats=2.0, inhale_beats=2.0, intake_unevenness=0.6))
    assert found["not_full_early"].state == "work"
    assert "pause" not in found and "inhale_counts" not in found and "even_intake" not in found


def test_an_interval_across_a_threshold_is_watched() -> None:
    unsure = replace(GOOD, shoulder_rise=0.95, uncertainty=SURE | {"shoulder_rise": 0.3})
    assert judged(unsure)["shoulders_still"].state == "watch"
    assert cue(list(judged(unsure).values()))["criterion"] == "all", "inside its band: watched, not spoken of"


def test_a_full_breath_may_lift_a_little() -> None:
    big = replace(GOOD, shoulder_rise=2.3, abdomen_amp=7.0, chest_amp=4.0)
    assert judged(big)["shoulders_still"].state == "watch"
    assert judged(replace(big, abdomen_amp=3.0, chest_amp=1.0))["shoulders_still"].state == "work"


def test_lying_is_shown_not_judged_for_share() -> None:
    assert "abdomen_leads" not in judged(replace(GOOD, abdominal_share=0.1), position="lying")


def test_unreadable_is_said_for_every_breath_criterion_and_judges_nothing() -> None:
    found = judged(GOOD, breath_readable=False)
    assert {v.state for v in found.values()} == {"unreadable"}
    assert all(v.value is None and v.cue is None and not v.marks for v in found.values())


def test_trunk_inclination_is_judged_from_the_side_only() -> None:
    posture = Posture(trunk_inclination_deg=PostureValue(value=20.0, uncertainty=1.0, n=9, by_segment={}))
    side = verdicts([], posture, ASKED, view="side-left", position="seated", breath_readable=True, why_not=[])
    assert side[0].state == "work" and side[0].words == "leans forward"
    assert verdicts([], posture, ASKED, view="front", position="seated", breath_readable=True, why_not=[]) == []


bands = st.builds(lambda a, b, c: Band(steady_low=-a, steady_high=a, work_low=-a - b, work_high=a + c), st.floats(0.1, 5), st.floats(0.1, 5), st.floats(0.1, 5))


@given(bands, st.floats(-20, 20), st.floats(0.001, 3), st.floats(1.0, 4.0))
def test_less_certainty_never_makes_a_verdict_harder(band: Band, value: float, half: float, times: float) -> None:
    sure, unsure = state_of(value, half, band), state_of(value, half * times, band)
    assert unsure == sure or unsure == "watch"


@given(bands, st.floats(-20, 20), st.floats(0.0, 3))
def test_a_verdict_follows_from_the_interval(band: Band, value: float, half: float) -> None:
    state = state_of(value, half, band)
    if state == "steady":
        assert band.steady_low <= value <= band.steady_high
    if state == "work":
        assert value < band.work_low or value > band.work_high


def test_every_criterion_has_its_words_and_no_threshold_is_infinite() -> None:
    assert {row.key for row in (*BREATH, *POSTURE)} == set(CRITERIA)
    for verdict in judged(GOOD).values():
        assert verdict.threshold and all(math.isfinite(v) for v in verdict.threshold.values())


def test_a_report_in_one_line() -> None:
    from brevin.core.read import Task, read
    from brevin.core.verdict.headline import headline
    from tests.core.made import HIGH, LOW, sighting

    made, _, card = sighting(cycles=[LOW] * 3)
    good = headline(read(made, Task(card=card)))
    assert good.state in ("steady", "watch") and good.words == "low, then wide"
    made, _, card = sighting(cycles=[HIGH] * 3)
    bad = headline(read(made, Task(card=card)))
    assert bad.state == "work" and bad.words.startswith("abdomen leads: chest first; shoulders still") and bad.cue
    made, _, card = sighting(view="front")
    unseen = headline(read(made, Task(card=card)))
    assert unseen.state == "unreadable" and unseen.words.startswith("From the front")
