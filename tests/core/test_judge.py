"""From measures to verdicts: bands, counting, what is said once, and the one cue."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinds import IMPORTANCE, State
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.report import Reason, Verdict
from brevin.core.verdict.bands import Asked, Band
from brevin.core.verdict.criteria import CRITERIA, WEIGHS
from brevin.core.verdict.judge import Judged, cue, state_of, state_of_all, verdicts
from brevin.core.verdict.rules import CRITERION_KEYS, Rules, layer_from, resolve
from brevin.core.verdict.words import CRITERIA as WORDS

CHECK = Check(card=parse("4-0-4@60x3"))
ASKED = Asked(CHECK, 1.0, Rules())
GOOD = {
    "inhale_start_s": 4.0, "inhale_end_s": 8.0, "exhale_start_s": 8.05, "exhale_end_s": 12.0, "inhale_beats": 4.0, "pause_beats": 0.05, "exhale_beats": 3.95,
    "inhale_offset_beats": 0.0, "exhale_offset_beats": 0.05, "next_offset_beats": 0.0, "against_pct": 0.0,
    "full_at_beat": 3.5, "abdomen_amp": 3.0, "chest_amp": 1.8, "size_pct": 4.8, "shoulder_rise": 0.3, "abdominal_share": 0.62,
    "chest_lag_s": 0.5, "intake_unevenness": 0.1, "exhale_unevenness": 0.05,
}  # fmt: skip
ALWAYS = set(CRITERION_KEYS) - {
    "shoulder_tilt",
    "head_level",
    "head_with_flute",
    "both_sides",
    "axis_level",
    "axis_to_trunk",
    "arms_stay_up",
    "hands_in_order",
    "elbow_left",
    "elbow_right",
    "wrist_left",
    "wrist_right",
    "head_travel",
    "raise_spread",
}
OF_POSTURE = {"feet_flat", "trunk_inclination", "keeps_tall", "back_rounding", "head_forward", "body_still"}
STRAIGHT = [
    Measure("feet_flat", Amount(1.0, 0.05)),
    Measure("trunk_inclination_deg", Amount(2.0, 1.0)),
    Measure("sag_deg", Amount(0.5, 1.0)),
    Measure("sway_pct", Amount(0.3, 0.3)),
    Measure("back_rounding_pct", Amount(0.2, 1.5)),
    Measure("head_forward_pct", Amount(6.0, 5.0)),
]


def breath(index: int = 0, half_width: float = 0.02, **change: float) -> list[Measure]:
    return [Measure(key, Amount(value, half_width), breath=index) for key, value in (GOOD | change).items()]


def judged(*breaths, asked=ASKED, readable=True, why_not=(), view="side-left", position="seated", clip=STRAIGHT) -> dict[str, Verdict]:
    measures = [*(m for b in breaths for m in b), *clip]
    return {v.criterion: v for v in verdicts(Judged(measures, view, position, readable, why_not), asked)}


def three(**change: float) -> dict[str, Verdict]:
    return judged(*(breath(i, **change) for i in range(3)))


def test_a_good_breath_is_steady_throughout_counted_and_praised() -> None:
    found = three()
    assert set(found) == ALWAYS and {v.state for v in found.values()} == {"steady"}
    assert all((v.steady_breaths, v.counted_breaths) == (3, 3) for v in found.values() if v.marks)
    assert cue(list(found.values())).criterion == "all"


@pytest.mark.parametrize(
    ("change", "criterion"),
    [
        ({"shoulder_rise": 3.2}, "shoulders_still"), ({"abdominal_share": 0.2}, "abdomen_leads"), ({"inhale_offset_beats": 1.2}, "with_count"),
        ({"exhale_beats": 2.0}, "exhale_counts"), ({"pause_beats": 1.5}, "pause"), ({"full_at_beat": 1.2}, "not_full_early"),
        ({"against_pct": 0.9, "abdominal_share": 1.4}, "real_breath"), ({"against_pct": -0.9, "abdominal_share": -0.4}, "real_breath"),
        ({"chest_lag_s": -0.4}, "abdomen_leads"), ({"exhale_offset_beats": 1.2}, "exhale_with_count"),
        ({"exhale_beats": 5.5, "next_offset_beats": 1.5}, "exhale_counts"),
    ],
)  # fmt: skip
def test_each_fault_is_worked_on_and_has_its_cue(change: dict, criterion: str) -> None:
    found = three(**change)
    assert [v.criterion for v in found.values() if v.state == "work"] == [criterion]
    said = cue(list(found.values()))
    assert (said.criterion, said.side) == (criterion, found[criterion].side)
    assert len(found[criterion].marks) == 3 and found[criterion].steady_breaths == 0


@pytest.mark.parametrize(
    ("states", "counted"),
    [
        (["steady"] * 3, "steady"), (["steady", "steady", "watch"], "steady"), (["steady", "watch", "watch"], "watch"), (["steady", "steady", "work"], "watch"),
        (["steady"] * 3 + ["work"] * 2, "work"), (["watch"], "watch"), (["work"], "work"), (["steady", "watch"], "steady"), (["steady", "work"], "work"),
    ],
)  # fmt: skip
def test_the_clips_state_is_counted_from_its_breaths(states: list[State], counted: State) -> None:
    assert state_of_all(states) == counted


@given(st.lists(st.sampled_from(["steady", "watch", "work"]), min_size=2, max_size=12))
def test_a_worse_breath_never_makes_the_clip_better(states: list[State]) -> None:
    rank = {"steady": 0, "watch": 1, "work": 2}
    worse = [*states[:-1], "work"]
    assert rank[state_of_all(worse)] >= rank[state_of_all(states)] and state_of_all(states) == state_of_all(states[::-1])


def test_two_high_breaths_of_five_are_not_hidden_by_the_others() -> None:
    found = judged(*(breath(i, shoulder_rise=3.5 if i in (1, 3) else 0.2) for i in range(5)))["shoulders_still"]
    assert found.state == "work" and (found.steady_breaths, found.counted_breaths) == (3, 5)
    assert found.value == 3.5, "the number beside the verdict is that of a breath it speaks of"


def test_one_fault_is_said_once_and_does_not_make_another_vanish() -> None:
    found = three(full_at_beat=1.2, pause_beats=2.0, inhale_beats=2.0, intake_unevenness=0.6)
    assert found["not_full_early"].state == "work"
    for key in ("pause", "inhale_counts", "even_intake"):
        assert (found[key].state, found[key].reason, found[key].facts["criterion"]) == ("unreadable", "said_once", "not_full_early")


def test_a_worse_fault_is_not_hidden_behind_a_lesser_one() -> None:
    found = three(full_at_beat=2.5, pause_beats=2.0, exhale_offset_beats=0.1)
    assert found["not_full_early"].state == "watch" and found["pause"].state == "work"


def test_the_cue_goes_by_importance_and_of_faults_that_weigh_alike_it_is_the_commonest() -> None:
    found = judged(*(breath(i, shoulder_rise=3.5 if i < 2 else 0.2, exhale_beats=2.0, inhale_offset_beats=0.9 if i < 3 else 0.0) for i in range(4)))
    assert found["shoulders_still"].state == found["exhale_counts"].state == found["with_count"].state == "work"
    said = list(found.values())
    assert cue(said).criterion == "shoulders_still", "how one breathes before the count, though fewer breaths have it"
    assert cue(said, ("count", "seat", "breath", "hold")).criterion == "exhale_counts", "four breaths before three, though the table has the start first"
    assert set(WEIGHS.values()) == set(IMPORTANCE) and set(WEIGHS) == {row.key for row in CRITERIA}


def test_an_interval_across_a_threshold_is_watched() -> None:
    unsure = [m if m.key != "shoulder_rise" else Measure(m.key, Amount(1.4, 0.3), breath=0) for m in breath()]
    found = judged(unsure)
    assert found["shoulders_still"].state == "watch" and not found["shoulders_still"].outside
    assert cue(list(found.values())).criterion == "all", "inside its band: watched, not spoken of"


def test_a_full_breath_may_lift_a_little() -> None:
    assert three(shoulder_rise=3.2, abdomen_amp=8.0, chest_amp=5.4)["shoulders_still"].state == "watch"
    assert three(shoulder_rise=3.2, abdomen_amp=3.0, chest_amp=1.0)["shoulders_still"].state == "work"
    assert three(shoulder_rise=3.6, abdomen_amp=12.0, chest_amp=6.0)["shoulders_still"].state == "work", "but not by so much, however large"


def test_a_long_exhale_counts_only_where_the_next_inhale_comes_late() -> None:
    assert three(exhale_beats=5.5)["exhale_counts"].state == "steady"
    late = three(exhale_beats=5.5, next_offset_beats=1.4)["exhale_counts"]
    assert (late.state, late.side) == ("work", "high")
    assert three(exhale_beats=4.3, next_offset_beats=0.5)["exhale_counts"].state == "steady", "0.35 beat, or a tenth"


def test_a_belly_that_is_pushed_out_is_not_praised_for_leading() -> None:
    found = three(against_pct=0.9, abdominal_share=1.4)
    assert found["real_breath"].side == "high" and found["abdomen_leads"].reason == "said_once"
    assert three(against_pct=-0.9, abdominal_share=-0.4)["real_breath"].side == "low"


def test_lying_is_shown_not_judged_for_share_and_lean() -> None:
    assert not {"abdomen_leads", "trunk_inclination"} & set(judged(breath(abdominal_share=0.1), position="lying"))


def test_unreadable_is_said_for_every_breath_criterion_with_its_reason() -> None:
    why = Reason("too_dark", "all", None, None)
    found = judged(breath(), readable=False, why_not=[why])
    of_breath = [v for v in found.values() if v.criterion not in OF_POSTURE]
    assert {(v.state, v.reason) for v in of_breath} == {("unreadable", "too_dark")} and len(of_breath) == 12
    assert all(v.value is None and not v.marks for v in of_breath)


@pytest.mark.parametrize(
    ("measures", "asked", "reasons"),
    [
        ([], ASKED, {"no_whole_breath"}),
        ([Measure("inhale_beats", NotMeasured("no_beats"), breath=0)], ASKED, {"no_whole_breath", "no_beats"}),
        ([Measure("abdominal_share", NotMeasured("region_unseen"), breath=0)], ASKED, {"no_whole_breath", "region_unseen"}),
    ],
    ids=["nothing", "no beats", "a hidden chest"],
)  # fmt: skip
def test_what_the_card_asks_for_never_vanishes(measures: list[Measure], asked: Asked, reasons: set[str]) -> None:
    found = judged(measures, asked=asked, clip=[])
    assert set(found) == ALWAYS
    assert {v.reason for v in found.values()} == reasons and {v.state for v in found.values()} == {"unreadable"}


def test_a_breath_whose_number_could_be_fine_and_not_fine_is_not_counted_and_of_such_breaths_alone_nothing_is_said() -> None:
    sure = [breath(i) for i in range(3)]
    unsure = [Measure("pause_beats", Amount(0.5, 0.6), breath=3), *(m for m in breath(3) if m.key != "pause_beats")]
    found = judged(*sure, unsure)["pause"]
    assert (found.state, found.steady_breaths, found.counted_breaths) == ("steady", 3, 3) and [mark.breath for mark in found.marks] == [0, 1, 2]
    alone = judged(unsure)["pause"]
    assert (alone.state, alone.reason, alone.marks) == ("unreadable", "too_unsure", [])
    near = [Measure("pause_beats", Amount(0.5, 0.2), breath=3), *(m for m in breath(3) if m.key != "pause_beats")]
    assert judged(near)["pause"].state == "watch", "between the limits and sure of it"


@pytest.mark.parametrize(("half", "state"), [(1.0, "steady"), (7.9, "watch"), (8.1, "unreadable")])
def test_a_number_that_is_less_sure_than_its_own_limit_judges_nothing(half: float, state: str) -> None:
    asked = Asked(Check(kind="posture", view="front"), None, Rules())
    _, found, _ = verdicts(Judged([Measure("shoulder_tilt_deg", Amount(1.0, half))], "front", "seated", False, ()), asked)
    assert (found.criterion, found.state, found.reason) == ("shoulder_tilt", state, "too_unsure" if state == "unreadable" else None)


def test_rows_apply_where_the_table_says() -> None:
    no_card = Asked(Check(), None, Rules())
    assert set(judged(breath(), asked=no_card)) == OF_POSTURE | {"real_breath", "abdomen_leads", "shoulders_still", "full_breath"}
    quick = Asked(Check(card=parse("1-0-4@60x3")), 1.0, Rules())
    assert not {"not_full_early", "even_intake"} & set(judged(breath(), asked=quick))
    open_ended = Asked(Check(card=parse("4-0-*@60x1")), 1.0, Rules())
    assert "exhale_counts" not in judged(breath(), asked=open_ended)
    posture_only = Asked(Check(kind="posture"), None, Rules())
    assert set(judged(breath(), asked=posture_only)) == OF_POSTURE
    half_turned = judged(breath(), view="three-quarter")
    assert half_turned["shoulders_still"].reason == "view_unserved" and half_turned["abdomen_leads"].state == "steady"


def test_the_head_is_judged_only_where_nothing_is_held_before_it() -> None:
    for check, asked in ((CHECK, True), (replace(CHECK, instrument="trumpet"), True), (replace(CHECK, instrument="trumpet", with_instrument=True), False)):
        assert ("head_forward" in judged(breath(), asked=Asked(check, 1.0, Rules()))) == asked
    assert "head_forward" not in judged(breath(), asked=Asked(Check(kind="hold", instrument="horn"), 1.0, Rules()))
    ahead = [*STRAIGHT[:-1], Measure("head_forward_pct", Amount(32.0, 5.0))]
    assert judged(breath(), clip=ahead)["head_forward"].state == "work" and judged(breath(), clip=ahead, view="front").get("head_forward") is None


def test_a_flutist_s_head_is_held_against_the_flute_and_everybody_else_s_against_upright() -> None:
    tilted = [Measure("head_tilt_deg", Amount(12.0, 2.0)), Measure("head_to_flute_deg", Amount(2.0, 2.0))]
    for check, states in (
        (Check(kind="posture", view="front"), {"head_level": "work"}),
        (Check(kind="posture", view="front", instrument="flute", with_instrument=True), {"head_with_flute": "steady"}),
        (Check(kind="posture", view="front", instrument="clarinet", with_instrument=True), {"head_level": "work"}),
    ):
        found = verdicts(Judged(tilted, "front", "seated", False, ()), Asked(check, None, Rules()))
        assert {v.criterion: v.state for v in found if v.criterion.startswith("head")} == states
        assert {v.side for v in found if v.criterion == "head_level"} <= {"high"}, "to the player's right"


def test_a_check_that_names_its_view_says_when_the_clip_has_another() -> None:
    side = Asked(Check(card=CHECK.card, view="side"), 1.0, Rules())
    found = judged(breath(), asked=side, view="front", readable=False, why_not=[Reason("front_view_breath", "breath", None, None)])
    assert (found["trunk_inclination"].state, found["trunk_inclination"].reason) == ("unreadable", "view_unserved") and "shoulder_tilt" not in found


def test_what_is_switched_off_or_exempt_is_not_counted() -> None:
    rules = resolve([layer_from({"off": ["pause"]}), layer_from({"exempt": ["trunk_inclination"]}, name="student")])
    assert not {"pause", "trunk_inclination", "keeps_tall", "back_rounding"} & set(judged(breath(), asked=Asked(CHECK, 1.0, rules)))


bands = st.builds(lambda a, b, c: Band(steady_low=-a, steady_high=a, work_low=-a - b, work_high=a + c), st.floats(0.1, 5), st.floats(0.1, 5), st.floats(0.1, 5))


@given(bands, st.floats(-20, 20), st.floats(0.001, 3), st.floats(1.0, 4.0))
def test_less_certainty_never_makes_a_verdict_harder(band: Band, value: float, half_width: float, times: float) -> None:
    sure, unsure = state_of(value, half_width, band), state_of(value, half_width * times, band)
    assert unsure == sure or unsure == "watch"


@given(bands, st.floats(-20, 20), st.floats(0.0, 3))
def test_a_verdict_follows_from_the_interval(band: Band, value: float, half_width: float) -> None:
    state = state_of(value, half_width, band)
    if state == "steady":
        assert band.steady_low <= value <= band.steady_high
    if state == "work":
        assert value < band.work_low or value > band.work_high


@given(st.floats(-1.5, 4.0), st.floats(0.01, 3.0))
def test_a_fault_is_named_only_where_it_lies_over_its_limit_by_more_than_it_is_unsure(over: float, half_width: float) -> None:
    found = judged([m if m.key != "shoulder_rise" else Measure(m.key, Amount(1.5 + over, half_width), breath=0) for m in breath()])["shoulders_still"]
    assert found.reason == "too_unsure" or found.outside == (over > half_width / NORMAL_90)
    assert not (found.outside and found.state == "steady")


def test_every_criterion_has_its_row_and_its_words_and_no_threshold_is_infinite() -> None:
    assert [row.key for row in CRITERIA] == list(CRITERION_KEYS) and set(WORDS) == set(CRITERION_KEYS)
    for verdict in three().values():
        assert verdict.threshold and all(math.isfinite(v) for v in verdict.threshold.values())


def test_nothing_is_praised_where_no_breath_was_judged() -> None:
    leans = [Measure("trunk_inclination_deg", Amount(6.0, 4.0))]  # inside its band, its interval is not: just about
    assert cue(list(judged([], clip=leans).values())) is None
    assert cue(list(judged(breath(), clip=leans).values())).criterion == "all"
    posture = Asked(Check(kind="posture"), None, Rules())
    assert cue(list(judged([], asked=posture).values())).criterion == "all", "where posture is all that is asked, it is all that is praised"
