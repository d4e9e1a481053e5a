"""Numbers of a breath on drawn traces, where the answer is seen by eye."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core import filters
from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.measures import LAG_NOISE_PCT, LEAST_AGAINST_PCT, against_pct, chest_lag_s, exhale_shape, measures_of, pattern
from brevin.core.breath.one import OneBreath
from brevin.core.breath.timing import NEAREST_CYCLES, card_index
from brevin.core.breath.turns import Turn
from brevin.core.kinematics.traces import Traces
from brevin.core.layout import breath_of
from brevin.core.measure import Amount, NotMeasured
from brevin.core.music.clicks import NO_BEATS, Beats
from brevin.core.plan.card import parse
from brevin.core.report import Breath
from brevin.core.verdict.reasons import WITHHELD
from brevin.core.verdict.rules import Rules

T = np.arange(0, 20, 1 / filters.GRID_HZ)
CARD = parse("4-1-5@60x2")
BEATS = Beats(60.0, 4.0, "clicks", 0.002)
RULES = Rules()


def ramp(start: float, end: float, leave: float, rest: float, size: float) -> np.ndarray:
    """Up from start to end, flat, down from leave to rest."""
    return size * (np.clip((T - start) / (end - start), 0, 1) - np.clip((T - leave) / (rest - leave), 0, 1))


def traces(abdomen: np.ndarray, chest: np.ndarray, shoulder: np.ndarray | None = None) -> Traces:
    names = ("abdomen", "chest", "shoulder")
    return Traces(
        T, abdomen, chest, np.zeros(len(T)) if shoulder is None else shoulder, np.zeros(len(T)), np.ones(len(T)),
        dict.fromkeys(names, 0.01), dict.fromkeys(names, 0.05), dict.fromkeys(names, True), 0.1,
    )  # fmt: skip


def turns(start: float, end: float, leave: float, rest: float, half_rise_s: dict[str, float] | None = None) -> BreathTurns:
    return BreathTurns(
        *(Turn(t, 0.05) for t in (start, end, leave, rest)), half_rise_s=half_rise_s or {"abdomen": 0.5 * (start + end), "chest": 0.5 * (start + end)}
    )


def one(abdomen, chest, shoulder=None, *, at=(4.0, 8.0, 9.0, 14.0), next_start=None, beats=BEATS, card=CARD, half_rise_s=None, rules=RULES) -> OneBreath:
    return OneBreath(turns(*at, half_rise_s), next_start, traces(abdomen, chest, shoulder), beats, card, rules)


def breath(*args, **kwargs) -> Breath:
    made = one(*args, **kwargs)
    return breath_of(measures_of(made, 0), pattern(made), exhale_shape=exhale_shape(made), card_index=card_index(made))


EVEN = ramp(4, 8, 9, 14, 3.0)


def test_lengths_are_read_off_the_turns_in_beats() -> None:
    found = breath(EVEN, 0.5 * EVEN, next_start=Turn(15.0, 0.05))
    assert (found.inhale_beats, found.pause_beats, found.exhale_beats, found.empty_beats) == pytest.approx((4, 1, 5, 1))
    assert (found.inhale_offset_beats, found.exhale_offset_beats, found.card_index) == pytest.approx((0, 0, 0))


def test_amplitudes_share_and_rise_are_levels_before_and_after() -> None:
    found = breath(EVEN, 0.5 * EVEN, 0.1 * EVEN)
    assert (found.abdomen_amp, found.chest_amp, found.shoulder_rise) == pytest.approx((3.0, 1.5, 0.3), abs=0.02)
    assert found.abdominal_share == pytest.approx(2 / 3, abs=0.01) and found.pattern == "low_then_wide"


def test_an_even_fill_is_even_and_full_at_nine_tenths_of_its_time() -> None:
    found = breath(EVEN, EVEN)
    assert found.intake_unevenness < 0.02 and found.full_at_beat == pytest.approx(3.6, abs=0.05)
    assert found.exhale_shape == "even" and found.exhale_unevenness < 0.02


def test_a_gulp_is_full_early_and_uneven() -> None:
    gulp = ramp(4, 5, 9, 14, 3.0)
    found = breath(gulp, gulp)
    assert found.full_at_beat == pytest.approx(0.9, abs=0.05) and found.intake_unevenness == pytest.approx(0.75, abs=0.02)


@pytest.mark.parametrize(("delay_s", "sign"), [(0.8, 1), (-0.8, -1)])
def test_lag_has_the_sign_of_the_one_that_comes_later(delay_s: float, sign: int) -> None:
    late = ramp(4 + max(delay_s, 0), 8, 9, 14, 2.0)
    found = breath(EVEN, late, half_rise_s={"abdomen": 6.0, "chest": 6.0 + delay_s})
    assert np.sign(found.chest_lag_s) == sign and found.chest_lag_s == pytest.approx(delay_s)


def test_the_loop_of_chest_and_belly_is_shut_together_and_open_apart() -> None:
    together = breath(EVEN, EVEN).phase_angle_deg
    opposed = breath(-EVEN, EVEN).phase_angle_deg
    apart = breath(EVEN, ramp(5.5, 8, 10.5, 14, 3.0)).phase_angle_deg
    assert together == pytest.approx(0, abs=3) and opposed == pytest.approx(180, abs=3) and 15 < apart < 90


def test_opposite_movements_have_no_share_and_are_named() -> None:
    found = breath(-0.8 * EVEN, EVEN)
    assert found.abdominal_share is None and found.pattern == "paradoxical"


def test_without_beats_seconds_stay_and_beats_are_none() -> None:
    found = breath(EVEN, EVEN, beats=NO_BEATS)
    assert found.inhale_start_s == 4.0 and found.abdomen_amp is not None
    assert found.inhale_beats is None and found.full_at_beat is None and found.inhale_offset_beats is None and found.card_index is None


@pytest.mark.parametrize(("start_s", "index"), [(4.0, 0), (5.5, 0), (14.0, 1), (13.2, 1), (24.5, None), (-3.0, None)])
def test_a_breath_belongs_to_the_nearest_of_the_cards_breaths(start_s: float, index: int | None) -> None:
    assert card_index(one(EVEN, EVEN, at=(start_s, start_s + 3, start_s + 4, start_s + 8))) == index
    assert NEAREST_CYCLES == 0.5, "every moment belongs to one cycle at most"


def test_every_value_and_its_interval_are_there_or_missing_together() -> None:
    for found in (breath(EVEN, EVEN), breath(EVEN, 0 * EVEN), breath(EVEN, EVEN, beats=NO_BEATS, card=None)):
        for key, half_width in found.uncertainty.items():
            assert (getattr(found, key) is None) == (half_width is None) == (key in found.withheld), key
            assert half_width is None or half_width > 0


def test_what_is_missing_says_why() -> None:
    silent, hidden = (
        breath(EVEN, EVEN, beats=NO_BEATS),
        replace(one(EVEN, EVEN), traces=replace(traces(EVEN, EVEN), seen={"abdomen": True, "chest": False, "shoulder": True})),
    )
    assert silent.withheld["inhale_beats"] == "no_beats" and "abdomen_amp" not in silent.withheld
    why = {m.key: m.value.reason for m in measures_of(hidden, 0) if m.amount is None}
    assert why["chest_amp"] == why["abdominal_share"] == why["full_at_beat"] == why["chest_lag_s"] == "region_unseen"
    assert breath(0.05 * EVEN, 0.05 * EVEN).withheld["abdominal_share"] == "too_small"
    assert breath(EVEN, EVEN, card=None).withheld["inhale_offset_beats"] == "no_card"
    assert set(why.values()) | set(silent.withheld.values()) <= set(WITHHELD)


def test_an_exhale_is_held_against_the_shape_the_school_teaches() -> None:
    gone = np.expm1(-3 * np.clip((T - 9) / 5, 0, 1)) / np.expm1(-3)
    falls = 3.0 * (np.clip((T - 4) / 4, 0, 1) - gone)
    even, free = (breath(falls, falls, rules=rules) for rules in (RULES, Rules(changed={"even_exhale.release": 3.0})))
    assert even.exhale_unevenness > 0.3 and free.exhale_unevenness < 0.05


def test_a_lag_is_the_surer_the_quicker_and_the_larger_the_regions_move() -> None:
    def half_width(size_pct: float, length_s: float) -> float:
        moved = ramp(2.0, 2.0 + length_s, 9, 14, size_pct)
        return chest_lag_s(one(moved, moved, at=(2.0, 2.0 + length_s, 9, 14))).half_width

    assert half_width(3.0, 2.0) < half_width(1.0, 2.0) and half_width(3.0, 1.0) < half_width(3.0, 2.0)
    assert half_width(3.0, 2.0) == pytest.approx(1.645 * LAG_NOISE_PCT * 2.0 / 3.0 * 2**0.5, rel=0.02)
    assert half_width(50.0, 0.3) == 0.04, "no lag is surer than a video frame"


def test_an_outline_that_keeps_still_beside_a_breathing_belly_is_no_chest() -> None:
    assert breath(EVEN, 0.03 * EVEN).withheld["chest_amp"] == "region_unseen" and breath(EVEN, 0.03 * EVEN).abdominal_share is None
    assert breath(EVEN, 0.15 * EVEN).chest_amp == pytest.approx(0.45, abs=0.05)
    assert breath(0.5 * EVEN, 0.02 * EVEN).chest_amp is not None, "beside a small belly a chest may keep still"


def test_a_shoulder_that_goes_down_in_an_inhale_is_not_one() -> None:
    assert breath(EVEN, 0.5 * EVEN, -0.5 * EVEN).withheld["shoulder_rise"] == "region_unseen"
    assert breath(EVEN, 0.5 * EVEN, -0.03 * EVEN).shoulder_rise == pytest.approx(-0.09, abs=0.02)


def test_a_lag_as_long_as_the_inhale_is_none() -> None:
    assert breath(EVEN, 0.5 * EVEN, half_rise_s={"abdomen": 7.5, "chest": 4.4}).withheld["chest_lag_s"] == "too_short_to_tell"
    assert breath(EVEN, 0.5 * EVEN, half_rise_s={"abdomen": 5.5, "chest": 12.0}).withheld["chest_lag_s"] == "too_short_to_tell"


def test_going_against_each_other_has_a_side() -> None:
    assert breath(EVEN, -0.4 * EVEN).against_pct == pytest.approx(1.2, abs=0.05)
    assert breath(-0.4 * EVEN, EVEN).against_pct == pytest.approx(-1.2, abs=0.05)
    assert breath(EVEN, 0.4 * EVEN).against_pct == 0.0
    clear, doubtful = one(EVEN, 0.4 * EVEN), one(0.5 * EVEN, 0.0 * EVEN)
    assert against_pct(clear).half_width == LEAST_AGAINST_PCT < against_pct(doubtful).half_width, "no doubt where both clearly go one way"
    assert breath(0.2 * EVEN, -0.4 * EVEN).against_pct == 0.0, "a belly that hardly moves pushes nothing"


def test_the_start_after_tells_whether_a_long_exhale_was_too_long() -> None:
    assert breath(EVEN, 0.5 * EVEN, next_start=Turn(15.0, 0.05)).next_offset_beats == pytest.approx(1.0)
    assert breath(EVEN, 0.5 * EVEN).next_offset_beats is None


def test_what_may_still_be_the_bellys_is_in_the_chests_interval() -> None:
    plain = one(EVEN, 0.5 * EVEN)
    leaking = replace(plain, traces=replace(plain.traces, model=plain.traces.model | {"leak": 0.1}))
    assert leaking.moved("chest").half_width > plain.moved("chest").half_width + 0.1
    assert leaking.moved("abdomen") == plain.moved("abdomen")


def test_shoulders_name_a_high_breath_where_arms_hide_the_chest() -> None:
    hidden = one(0.3 * EVEN, 0.0 * EVEN, 1.2 * EVEN)
    hidden = replace(hidden, traces=replace(hidden.traces, seen=hidden.traces.seen | {"chest": False}))
    assert pattern(hidden).pattern == "chest_high"
    quiet = replace(hidden, traces=replace(hidden.traces, shoulder=0.1 * EVEN))
    assert pattern(quiet).pattern == "unclear"


def test_what_moves_beside_a_region_widens_it_and_a_share_is_as_wide_as_its_farther_side() -> None:
    alone, beside = breath(EVEN, 0.0 * EVEN), breath(EVEN, EVEN)
    assert beside.uncertainty["abdomen_amp"] > alone.uncertainty["abdomen_amp"] + 0.05
    unsure = breath(EVEN, 0.3 * EVEN)
    narrow, wide = (3.0 / (3.9 + side * unsure.uncertainty["chest_amp"]) for side in (1.0, -1.0))
    assert abs(wide - unsure.abdominal_share) > abs(unsure.abdominal_share - narrow)
    assert unsure.uncertainty["abdominal_share"] >= wide - unsure.abdominal_share - 0.01


def test_seen_from_three_quarters_sizes_are_larger_and_less_sure_and_shares_are_the_same() -> None:
    made = one(EVEN, 0.5 * EVEN)
    side, turned = (breath_of(measures_of(m, 0), pattern(m), exhale_shape=None, card_index=None) for m in (made, replace(made, turned=True)))
    for key in ("abdomen_amp", "chest_amp", "size_pct"):
        assert getattr(turned, key) == pytest.approx(1.2 * getattr(side, key)) and turned.uncertainty[key] > 2 * side.uncertainty[key]
    assert turned.abdominal_share == pytest.approx(side.abdominal_share) and turned.shoulder_rise == side.shoulder_rise
    assert turned.uncertainty["abdominal_share"] == pytest.approx(side.uncertainty["abdominal_share"], rel=0.05)


def test_a_covered_chest_that_goes_its_own_way_is_none_and_tells_no_filling() -> None:
    """A belly that goes out while what is followed beside an arm goes in; beside it, ribs that sink with a belly that is pushed are believed."""

    def with_covered(covered: float, chest: float) -> OneBreath:
        made = one(EVEN, chest * EVEN)
        return replace(made, traces=replace(made.traces, model=made.traces.model | {"covered": covered}))

    assert with_covered(1.0, -0.8).moved("chest") == NotMeasured("region_unseen") and pattern(with_covered(1.0, -0.8)).pattern == "unclear"
    assert pattern(with_covered(0.5, -0.8)).pattern == "pushed"
    told = {measure.key: measure.value for measure in measures_of(with_covered(1.0, 0.5), 0)}
    assert told["full_at_beat"] == told["intake_unevenness"] == NotMeasured("region_unseen") and isinstance(told["chest_amp"], Amount)
