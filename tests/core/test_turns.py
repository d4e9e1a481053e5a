from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core import filters
from brevin.core.breath.around import Around, joint_of
from brevin.core.breath.cycles import Swing, breath_signal, swings
from brevin.core.breath.hinge import EASE_SPREAD, EASE_USUAL, EASES, STEP_S, Course, fit, moved
from brevin.core.breath.pauses import HOLD_WIDER, MEET, met
from brevin.core.breath.turns import REACH_ARRIVING, Turn, arriving, leaving
from brevin.core.breath.way_in import way_in
from brevin.core.music.clicks import NO_BEATS, Beats
from brevin.core.plan.card import parse
from brevin.core.synth import eased

STEP = 1 / filters.GRID_HZ


def ramp(start_s: float, length_s: float, total_s: float = 8.0, power: float = 1.0) -> tuple[np.ndarray, np.ndarray]:
    """Flat, then a rise of the given length, then flat: what the eye sees is the answer."""
    t = np.arange(0, total_s, STEP)
    return t, np.clip((t - start_s) / length_s, 0, 1) ** power


@settings(max_examples=40, deadline=None)
@given(st.floats(1.5, 3.0), st.floats(0.4, 3.0), st.integers(0, 50))
def test_start_and_end_of_a_drawn_rise(start_s: float, length_s: float, seed: int) -> None:
    t, values = ramp(start_s, length_s)
    values = filters.smooth(values + 0.01 * np.random.default_rng(seed).normal(size=len(t)))
    middle = int((start_s + length_s / 2) / STEP)
    assert leaving(t, values, from_i=0, middle_i=middle).t_s == pytest.approx(start_s, abs=0.12 + 0.06 * length_s)
    assert arriving(t, values, middle_i=middle, to_i=len(t) - 1).t_s == pytest.approx(start_s + length_s, abs=0.12 + 0.06 * length_s)


@settings(max_examples=30, deadline=None)
@given(st.floats(0.08, 0.25), st.floats(0.8, 6.0), st.integers(0, 30))
def test_a_smooth_movement_begins_where_it_does_however_slow_it_is(ease: float, length_s: float, seed: int) -> None:
    t = np.arange(0, 3.0 + length_s + 2.0, STEP)
    values = filters.smooth(3.0 * eased((t - 3.0) / length_s, ease=ease) + 0.02 * np.random.default_rng(seed).normal(size=len(t)))
    middle = int((3.0 + length_s / 2) / STEP)
    found = leaving(t, values, from_i=0, middle_i=middle, noise=0.01)
    assert found.t_s == pytest.approx(3.0, abs=0.06 + 0.05 * length_s)
    assert arriving(t, values, middle_i=middle, to_i=len(t) - 1, noise=0.01).t_s == pytest.approx(3.0 + length_s, abs=0.06 + 0.05 * length_s)
    assert 0.1 <= found.half_width_s < 0.2 + 0.12 * length_s


@pytest.mark.parametrize("seed", range(4))
def test_a_long_movement_that_sets_in_at_once_is_not_followed_back_into_the_level_before_it(seed: int) -> None:
    t = np.arange(0, 14.0, STEP)
    values = filters.smooth(3.0 * eased((t - 3.0) / 7.0, ease=0.08) + 0.06 * np.random.default_rng(seed).normal(size=len(t)))
    capped, as_usual = (leaving(t, values, from_i=0, middle_i=int(6.5 / STEP), noise=0.03, ease_most_s=most_s).t_s for most_s in (0.8, np.inf))
    assert as_usual < capped and abs(capped - 3.0) < abs(as_usual - 3.0), "an ease that is a share of seven seconds begins too early"


@pytest.mark.parametrize("for_s", [1.0, 1.5])
@pytest.mark.parametrize("seed", range(3))
def test_what_a_coder_goes_on_telling_is_no_movement_where_a_rest_is_known_to_follow(for_s: float, seed: int) -> None:
    """A twentieth of the way is told after it is over."""
    t = np.arange(0, 10.0, STEP)
    told = 0.95 * eased((t - 3.0) / 4.0, ease=0.12) + 0.05 * np.clip((t - 6.6) / (for_s + 0.4), 0.0, 1.0)
    values = filters.smooth(2.5 * told + 0.04 * np.random.default_rng(seed).normal(size=len(t)))
    known, unknown = (arriving(t, values, middle_i=int(5.0 / STEP), to_i=len(t) - 1, noise=0.02, fading=True, rests=rests).t_s - 7.0 for rests in (True, False))
    assert abs(known) < min(abs(unknown), 0.22)


def test_the_fit_behind_a_turn_is_plain_least_squares() -> None:
    time, tried, rests = np.arange(0, 3, STEP), np.arange(0.4, 2.0, STEP_S), np.arange(0.2, 1.0, STEP_S)
    height = np.random.default_rng(4).normal(size=len(time)).cumsum()
    eases_s = [0.1 + 0.1 * i for i in range(len(EASES))]
    after_s, before_s = time[None, :] - tried[:, None], rests[:, None] - time[None, :]
    gone, resting = moved(eases_s, after_s), moved(eases_s, before_s)
    for since_s, all_gone in ((after_s, gone), (before_s, resting)):
        for turn, sample in ((0, 0), (3, 17), (len(since_s) - 1, 40), (11, len(time) - 1)):
            alone = moved(eases_s, since_s[turn : turn + 1, sample : sample + 1])[:, 0, 0]
            assert all_gone[:, turn, sample] == pytest.approx(alone), "one place of many is worth what it is worth alone"
    left, found = np.zeros((len(eases_s), len(tried))), fit(Course(gone, height), Course(resting[2, 5], height), noise=0.0)
    speeds = np.zeros_like(left)
    for ease, turn in np.ndindex(*left.shape):
        model = np.column_stack([np.ones(len(time)), gone[ease, turn], resting[2, 5]])
        speeds[ease, turn] = np.linalg.lstsq(model, height, rcond=None)[0][1]
        left[ease, turn] = np.sum((height - model @ np.linalg.lstsq(model, height, rcond=None)[0]) ** 2)
    unusual = found.unit * ((np.array(EASES) - EASE_USUAL) / EASE_SPREAD)[:, None] ** 2
    onward = speeds > 0
    assert onward.any() and (found.misfit - unusual)[onward] == pytest.approx(left[onward], rel=1e-3)


@pytest.mark.parametrize("noise", [0.05, 0.1, 0.2])
def test_a_trace_known_to_be_noisy_has_its_start_looked_for_further_back(noise: float) -> None:
    t = np.arange(0, 8, STEP)
    values = filters.smooth(3.0 * eased((t - 3.0) / 2.5, ease=0.15))
    found = leaving(t, values, from_i=0, middle_i=int(4.25 / STEP), noise=noise)
    assert found.t_s == pytest.approx(3.0, abs=0.1)


def test_what_the_coding_hides_is_given_back_by_the_movement_s_pace() -> None:
    t = np.arange(0, 8, STEP)
    shown = filters.smooth(2.0 * eased((t - 3.0) / 4.0, ease=0.2))
    plain, earlier = (leaving(t, shown, from_i=0, middle_i=int(5.0 / STEP), hidden=hidden) for hidden in (0.0, 0.05))
    assert plain.t_s - earlier.t_s == pytest.approx(0.05 / (1.0 / (5.0 - plain.t_s)), rel=0.1)


@settings(max_examples=30, deadline=None)
@given(st.floats(0.08, 0.26), st.floats(1.0, 5.0), st.floats(0.0, 0.6), st.floats(0.08, 0.26), st.floats(1.0, 6.0))
def test_where_one_movement_ends_and_the_next_begins(ease: float, length_s: float, rest_s: float, next_ease: float, next_s: float) -> None:
    """Neither is taken for the other, however short the rest between them."""
    t = np.arange(0, 16, STEP)
    leaves_s = 2.0 + length_s + rest_s
    values = filters.smooth(4.0 * (1.0 - eased((t - 2.0) / length_s, ease=ease)) + 4.0 * eased((t - leaves_s) / next_s, ease=next_ease))
    before, after = int((2.0 + length_s / 2) / STEP), int((leaves_s + next_s / 2) / STEP)
    assert leaving(t, values, from_i=before, middle_i=after, noise=0.005).t_s == pytest.approx(leaves_s, abs=0.05 + 0.02 * next_s)
    assert arriving(t, -values, middle_i=before, to_i=after, noise=0.005).t_s == pytest.approx(2.0 + length_s, abs=0.05 + 0.02 * length_s)


@settings(max_examples=30, deadline=None)
@given(st.floats(0.1, 0.35), st.floats(2.0, 5.0), st.floats(0.02, 0.12), st.integers(0, 50))
def test_the_end_of_what_fades_out_is_the_middle_of_all_that_fits(ease: float, length_s: float, rough: float, seed: int) -> None:
    t = np.arange(0, 12, STEP)
    noise = rough * np.random.default_rng(seed).normal(size=len(t))
    values = filters.smooth(3.0 * eased((t - 3.0) / length_s, ease=ease) + noise)
    middle = int((3.0 + length_s / 2) / STEP)
    mirror = -t[::-1], -values[::-1]
    least, fading = (leaving(*mirror, from_i=0, middle_i=len(t) - 1 - middle, noise=rough / 3, least_reach=REACH_ARRIVING, fading=f) for f in (False, True))
    assert fading.half_width_s == pytest.approx(least.half_width_s, rel=0.05)  # that of the pace a turn hides changes with the turn
    assert abs(fading.t_s - least.t_s) <= fading.half_width_s
    assert arriving(t, values, middle_i=middle, to_i=len(t) - 1, noise=rough / 3, fading=True) == Turn(-fading.t_s, fading.half_width_s)
    assert -fading.t_s == pytest.approx(3.0 + length_s, abs=0.06 + 0.05 * length_s + 2.0 * rough)


def test_a_ripple_on_the_way_is_no_rest() -> None:
    t = np.arange(0, 12, STEP)
    fall = 3.0 * eased((t - 3.0) / 6.0, ease=0.15)
    fall -= 0.12 * np.exp(-0.5 * ((t - 6.0) / 0.1) ** 2)  # a moment's way back at the very middle
    values = filters.smooth(fall)
    middle = int(np.flatnonzero(values >= 1.5)[0])
    assert leaving(t, values, from_i=0, middle_i=middle).t_s == pytest.approx(3.0, abs=0.3)
    assert arriving(t, values, middle_i=middle, to_i=len(t) - 1).t_s == pytest.approx(9.0, abs=0.3)


@pytest.mark.parametrize(("noise", "end_s"), [(0.02, 7.0), (0.05, 11.0)])
def test_what_wobbles_no_more_than_the_trace_does_is_a_ripple_too(noise: float, end_s: float) -> None:
    t = np.arange(0, 16.0, STEP)
    fall = np.clip((t - 2.0) / 9.0, 0, 1) - 0.25 * np.exp(-(((t - 7.6) / 0.3) ** 2))  # a slow exhale with a way back in it
    found = arriving(t, filters.smooth(fall), middle_i=int(6.5 / STEP), to_i=len(t) - 1, noise=noise, fading=True)
    assert found.t_s == pytest.approx(end_s, abs=0.2)


def test_a_held_breath_is_full_when_it_is_first_full_and_not_at_its_highest() -> None:
    """Two seconds of a level that wanders, its highest moment last."""
    t = np.arange(0, 9, STEP)
    wanders = 0.25 * np.exp(-0.5 * ((t - 4.8) / 0.2) ** 2) + 0.1 * np.exp(-0.5 * ((t - 3.9) / 0.2) ** 2)
    values = filters.smooth(np.interp(t, [0, 1, 3, 5, 7, 9], [0, 0, 2, 2, 0, 0]) + wanders)
    found, fades = (arriving(t, values, middle_i=int(2 / STEP), to_i=int(6 / STEP), noise=0.05, fading=fading) for fading in (False, True))
    assert abs(found.t_s - 3.0) <= min(found.half_width_s + 0.12, 0.45), "where the level is reached"
    assert fades.t_s > 4.5, "what fades out is followed to its last"


def test_fullness_and_leaving_that_cannot_be_told_apart_are_one_turn() -> None:
    end, leave = met(Turn(7.0, 0.1), Turn(7.2, 0.2))
    assert end == leave and end.t_s == pytest.approx(7.04), "nearer to the surer one"
    assert end.half_width_s >= 0.1


def test_fullness_that_is_read_after_the_exhale_began_counts_little() -> None:
    crossed, same = met(Turn(7.2, 0.2), Turn(7.0, 0.2))
    assert crossed == same and crossed.t_s == pytest.approx(7.04), "within what both are unsure: near the start"
    assert met(Turn(8.5, 0.5), Turn(7.0, 0.1))[1] == Turn(7.0, 0.5), "further apart one of them is wrong: the surer is believed, and no more than the other was"
    assert met(Turn(7.0, 0.1), Turn(6.5, 0.25))[0] == Turn(7.0, 0.25)


def test_a_pause_that_is_clear_stays_a_pause() -> None:
    gap_s = MEET * np.hypot(0.1, 0.1) + 0.01
    end, leave = met(Turn(7.0, 0.1), Turn(7.0 + gap_s, 0.1))
    assert (end, leave) == (Turn(7.0, 0.1), Turn(7.0 + gap_s, HOLD_WIDER * 0.1))


def test_a_pause_that_a_hidden_chest_could_fill_is_none() -> None:
    seen, leave = Turn(7.0, 0.12), Turn(7.5, 0.15)
    assert met(seen, leave)[0] == seen, "where all is seen it is a pause"
    end, start = met(seen, leave, unseen_s=0.3)
    assert end.t_s == start.t_s == 7.5 and end.half_width_s >= 0.5, "the interval holds the end that was seen"
    assert start == leave, "the exhale's start is as sure as it was"
    longest_s = 7.0 + MEET * float(np.hypot(0.12, 0.15)) + 0.3
    assert met(seen, Turn(longest_s - 0.01, 0.15), unseen_s=0.3)[0].t_s == longest_s - 0.01, (
        "what is told for sure of the turns, and what may be filled beyond it"
    )
    assert met(seen, Turn(longest_s + 0.01, 0.15), unseen_s=0.3)[0].t_s == 7.0
    alone, both = (met(seen, Turn(7.2, 0.15), unseen_s=0.3, alone=one_region)[1].t_s for one_region in (True, False))
    assert 7.15 < alone < 7.2 and both < 7.12, "one region's fullness says less of where both turns meet"
    clear, later = met(seen, Turn(9.0, 0.15), unseen_s=0.3)
    assert clear == Turn(7.0, pytest.approx(0.42)) and later.t_s == 9.0, "a longer one stays, its beginning unsure"
    one, other = met(Turn(7.0, 0.1), Turn(7.2, 0.2), unseen_s=0.3)
    assert (one.t_s, other) == (other.t_s, met(Turn(7.0, 0.1), Turn(7.2, 0.2))[1]) and one.half_width_s == pytest.approx(other.half_width_s + 0.3)


def test_a_gentle_start_is_found_where_it_begins() -> None:
    t, values = ramp(2.0, 2.0, power=2.0)
    assert leaving(t, values, from_i=0, middle_i=int(3.3 / STEP)).t_s == pytest.approx(2.0, abs=0.09)


def test_a_turn_without_rest_before_it() -> None:
    t = np.arange(0, 6, STEP)
    values = np.abs(t - 3.0)
    assert leaving(t, values, from_i=int(1.5 / STEP), middle_i=int(4.5 / STEP)).t_s == pytest.approx(3.0, abs=0.1)


@given(st.floats(-3, 3), st.floats(0.3, 4.0))
@settings(max_examples=30, deadline=None)
def test_level_and_size_do_not_move_a_turn(level: float, size: float) -> None:
    t, values = ramp(2.0, 1.0)
    assert leaving(t, level + size * values, from_i=0, middle_i=int(2.5 / STEP)).t_s == pytest.approx(
        leaving(t, values, from_i=0, middle_i=int(2.5 / STEP)).t_s, abs=0.021
    )


def test_who_fidgets_and_then_sits_still_begins_where_the_stillness_ends() -> None:
    t = np.arange(0, 9, STEP)
    fidget = (t < 2.4) * (0.25 * np.sin(2 * np.pi * 0.8 * t) - 0.1)  # it ends 0.6 s before the inhale, and lower lay a moment of it
    values = filters.smooth(3.0 * eased((t - 3.0) / 2.5, ease=0.2) + fidget)
    middle = int(4.25 / STEP)
    assert leaving(t, values, from_i=0, middle_i=middle, steady=True).t_s == pytest.approx(3.0, abs=0.1)


def square(times: list[float], total_s: float) -> np.ndarray:
    """A hand-drawn wave: up at every first, down at every second time, over 0.3 s."""
    t = np.arange(0, total_s, STEP)
    return sum(sign * np.clip((t - at) / 0.3, 0, 1) for at, sign in zip(times, [1, -1] * len(times), strict=False)) + np.zeros(len(t))


def test_swings_of_a_drawn_wave() -> None:
    wave = 3.0 * square([2.0, 4.0, 8.0, 9.0], 12.0)
    found = swings(wave, noise=0.001)
    assert len(found) == 2
    assert [wave[s.peak] for s in found] == pytest.approx([3.0, 3.0])


def test_a_breath_that_is_cut_by_the_end_is_told_apart() -> None:
    found = swings(3.0 * square([2.0, 4.0, 8.0], 10.0), noise=0.001)
    assert [s.cut_at_end for s in found] == [False, True]


@given(st.integers(0, 200))
@settings(max_examples=40, deadline=None)
def test_noise_has_no_swings(seed: int) -> None:
    noise = filters.smooth(0.08 * np.random.default_rng(seed).normal(size=500))
    assert swings(noise, noise=float(filters.noise_of(noise))) == []


def test_a_belly_that_goes_in_still_counts_as_inhale_where_the_chest_rises() -> None:
    wave = square([2.0, 4.0, 8.0, 9.0], 12.0)
    signal, weights = breath_signal(-1.5 * wave, 2.0 * wave, 0.0 * wave, seen={"abdomen": True, "chest": True, "shoulder": True})
    assert weights[1] > 0 > weights[0]
    assert len(swings(signal, noise=0.001)) == 2


@pytest.mark.parametrize(("shoulder_pct", "follows", "way"), [(-2.5, 1.0, -1.0), (2.5, 1.0, 1.0), (-0.3, 1.0, 1.0), (-2.5, 0.2, 1.0)])
def test_where_no_chest_is_seen_shoulders_that_rise_far_say_which_way_is_in(shoulder_pct: float, follows: float, way: float) -> None:
    belly = 1.5 * square([2.0, 4.0, 8.0, 9.0], 12.0)
    other = np.random.default_rng(3).permutation(belly)
    shoulder = shoulder_pct / 1.5 * (follows * belly + (1.0 - follows) * other)
    signal, weights = breath_signal(belly, 0.0 * belly, shoulder, seen={"abdomen": True, "chest": False, "shoulder": True})
    assert weights == (way, 0.0) and np.array_equal(signal, way * belly)
    unseen, _ = breath_signal(belly, 0.0 * belly, shoulder, seen={"abdomen": True, "chest": False, "shoulder": False})
    assert np.array_equal(unseen, belly)


@pytest.mark.parametrize(("shoulder_pct", "belly_way"), [(2.0, 1.0), (-2.0, -1.0), (0.4, -1.0)])
def test_where_belly_and_chest_go_against_each_other_the_shoulders_say_which_way_is_in(shoulder_pct: float, belly_way: float) -> None:
    """An arm that goes in is followed as the chest while belly and shoulders rise; shoulders that hardly move leave it to the chest."""
    wave = square([2.0, 4.0, 8.0, 9.0], 12.0)
    signal, weights = breath_signal(1.5 * wave, -1.6 * wave, shoulder_pct * wave, seen={"abdomen": True, "chest": True, "shoulder": True})
    assert np.sign(weights) == pytest.approx([belly_way, -belly_way])
    assert np.corrcoef(signal, wave)[0, 1] * belly_way > 0.95
    _, behind = breath_signal(1.5 * wave, -1.6 * wave, 0.4 * wave, seen={"abdomen": True, "chest": True, "shoulder": True}, sleeve=True)
    assert np.sign(behind) == pytest.approx([1.0, -1.0]), "a sleeve is no chest"
    alike, both = breath_signal(1.5 * wave, 1.6 * wave, -2.0 * wave, seen={"abdomen": True, "chest": True, "shoulder": True})
    assert min(both) > 0 and np.corrcoef(alike, wave)[0, 1] > 0.95, "where both go out, shoulders that sink change nothing"


COUNTED = Beats(tempo_bpm=60.0, first_inhale_s=2.0, source="clicks", residual_s=0.01)


@pytest.mark.parametrize("short", ["4-0-4@60x3", "3-0-4@60x3", "2-0-6@60x3", "4-2-6@60x3"])
@pytest.mark.parametrize("clicks_lost", [0, 1, 2, 3, 4])
def test_the_count_says_which_way_is_in_unless_the_film_began_in_the_count_in(short: str, clicks_lost: int) -> None:
    card, t_s = parse(short), np.arange(0.0, 36.0, STEP)
    leaves = card.inhale_beats + card.pause_beats
    starts = [5.0 + breath * card.cycle_beats for breath in range(card.cycles)]
    wave = sum(eased((t_s - at) / card.inhale_beats, ease=0.2) - eased((t_s - at - leaves) / card.exhale_beats, ease=0.2) for at in starts)
    told = way_in(t_s, replace(COUNTED, first_inhale_s=5.0 + clicks_lost), card)
    assert told(1.4 * wave) == -told(-wave) and told(0.0 * wave) == 0.0
    assert told(1.4 * wave) in ((1.0,) if clicks_lost == 0 else (0.0, 1.0)), "never the other way"


def test_without_a_count_of_breaths_that_lie_in_the_clip_nothing_is_told() -> None:
    t_s = np.arange(0.0, 20.0, STEP)
    wave = np.sin(t_s)
    assert way_in(t_s, NO_BEATS, parse("4-0-4@60x2"))(wave) == 0.0 and way_in(t_s, COUNTED, None)(wave) == 0.0
    assert way_in(t_s, COUNTED, parse("4-0-*@60x1"))(wave) == 0.0
    assert way_in(t_s, COUNTED, parse("16-0-16@60x1"))(wave) == 0.0, "no breath of the card lies in the clip"


@pytest.mark.parametrize(("counted", "belly_way"), [(0.0, 1.0), (1.0, 1.0), (-1.0, -1.0)])
def test_where_the_shoulders_do_not_say_which_way_is_in_the_count_does(counted: float, belly_way: float) -> None:
    wave = square([2.0, 4.0, 8.0, 9.0], 12.0)
    both = {"abdomen": True, "chest": True, "shoulder": True}

    def by_count(values: np.ndarray) -> float:
        return counted * np.sign(np.corrcoef(values, wave)[0, 1])

    _, weights = breath_signal(2.0 * wave, -0.8 * wave, 0.2 * wave, seen=both, by_count=by_count)
    assert np.sign(weights) == pytest.approx([belly_way, -belly_way])
    _, lifted = breath_signal(2.0 * wave, -0.8 * wave, 2.0 * wave, seen=both, by_count=by_count)
    assert np.sign(lifted) == pytest.approx([1.0, -1.0]), "shoulders that rise far go before it"
    _, agreed = breath_signal(2.0 * wave, 0.8 * wave, 0.2 * wave, seen=both, by_count=by_count)
    assert min(agreed) > 0, "where both go out nobody is asked"
    for shoulder_pct, way in ((-0.7, belly_way), (0.7, 1.0), (-0.2, 1.0)):
        _, alone = breath_signal(2.0 * wave, 0.0 * wave, shoulder_pct * wave, seen=both | {"chest": False}, by_count=by_count)
        assert alone == (way, 0.0), "a belly alone goes in where a little of the shoulders says so as well"


def test_what_does_not_rise_has_a_turn_inside_the_clip() -> None:
    t = np.arange(0, 8.0, STEP)
    found = leaving(t, np.zeros(len(t)), from_i=0, middle_i=200, hidden=0.004)
    assert 0.0 <= found.t_s + 1.5 <= 8.0 and found.half_width_s < 3.0, "a movement of nothing hides no hours"


def test_a_trace_that_goes_on_the_same_way_carries_no_exhale() -> None:
    """Shoulders that slide down all through are larger than the chest's breath, and say nothing of it."""
    t = np.arange(0, 8.0, STEP)
    breath = eased((t - 1.0) / 2.0, ease=0.2) - eased((t - 3.5) / 3.0, ease=0.2)
    sinks = -1.2 * t
    swing = Swing(trough=int(1.0 / STEP), peak=int(3.2 / STEP), next_trough=int(6.8 / STEP), cut_at_start=False, cut_at_end=False)
    noise = {"chest": 0.02, "shoulder": 0.02}
    around = Around(t, swing, 0, len(t) - 1, noise, noise)
    joint, _ = joint_of({"chest": breath, "shoulder": sinks}, around)
    assert np.allclose(joint, breath)
    alone, _ = joint_of({"shoulder": sinks}, around)
    assert np.allclose(alone, sinks) or np.allclose(alone, -sinks), "what is alone is all there is"
