"""The outline of a body: taken from a mask, and what it tells of the back from the side and of the shoulders from the front."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.kinematics.posture import BACK_AHEAD_DEG, BACK_DEG, BACK_SHARE, KEY_POINT_DEG, Stance, backs_of, lean_off_deg, posture
from brevin.core.kinematics.shapes import MOST_BOW_PCT, Across, Back, back_of, tops_of
from brevin.core.measure import Measure, NotMeasured, Withheld
from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import ASIDE_PCT, HEIGHTS, shape_of
from brevin.core.report import Segment
from brevin.core.track import Body
from tests.core.made import body, player, shape

AHEAD = {"side-right": 1.0, "side-left": -1.0}


def back(seen: Body, ahead: float = 1.0) -> Back:
    found = back_of(seen, ahead)
    assert found is not None
    return found


def tops(seen: Body) -> Across:
    found = tops_of(seen)
    assert found is not None
    return found


BOW, TILT = "back_rounding_pct", "shoulder_tilt_deg"


def drawn(seen: Body, *, bow: float = 0.0, tilt: float | None = None, height: int = 900, width: int = 1200) -> np.ndarray:
    """A mask of a trunk as thick as a third of it about a body's axis, bowed out to the picture's left, with shoulders that slope by tilt deg, or with no
    end above."""
    down, across = np.mgrid[0:height, 0:width].astype(float)
    hips, shoulders = lm.hips(seen), lm.shoulders(seen)
    trunk = lm.trunk_px(seen)
    axis = (shoulders - hips) / trunk
    up = ((across - hips[0]) * axis[0] + (down - hips[1]) * axis[1]) / trunk
    right = ((across - hips[0]) * -axis[1] + (down - hips[1]) * axis[0]) / trunk
    back = -0.35 - bow / 100.0 * 4.0 * np.clip(up, 0, 1) * (1.0 - np.clip(up, 0, 1))
    top = -1.0 if tilt is None else shoulders[1] - (across - shoulders[0]) * np.tan(np.radians(tilt)) - 0.05 * trunk
    soft = np.clip(0.5 + (right - back) * trunk, 0, 1) * np.clip(0.5 + down - top, 0, 1)  # a network's border is none of whole pixels
    return np.asarray(soft * ((right < 0.4) & (up > -0.3)), np.float32)


@given(st.floats(-6.0, 12.0), st.floats(-15.0, 25.0), st.floats(90.0, 220.0))
@settings(max_examples=15, deadline=None)
def test_a_back_that_bows_is_read_from_its_mask_however_it_leans_and_however_large_it_is(bow: float, lean_deg: float, trunk_px: float) -> None:
    seen = body(view="side-right", lean_deg=lean_deg, at_px=(600.0, 600.0), trunk_px=trunk_px)
    assert back(replace(seen, shape=shape_of(drawn(seen, bow=bow), seen))).bow_pct == pytest.approx(bow, abs=0.3)


@given(st.floats(-6.0, 8.0), st.floats(-8.0, 8.0), st.floats(-10.0, 20.0))
@settings(max_examples=15, deadline=None)
def test_key_points_that_lead_elsewhere_than_the_back_are_told_by_how_much(bow: float, off_deg: float, lean_deg: float) -> None:
    true = body(view="side-right", lean_deg=lean_deg, at_px=(600.0, 600.0), trunk_px=200.0)
    guessed = body(view="side-right", lean_deg=lean_deg - off_deg, at_px=(600.0, 600.0), trunk_px=200.0)
    assert back(replace(guessed, shape=shape_of(drawn(true, bow=bow), guessed))).lean_deg == pytest.approx(off_deg, abs=1.0)


@given(st.floats(-14.0, 14.0), st.floats(90.0, 220.0))
@settings(max_examples=15, deadline=None)
def test_the_line_over_both_shoulders_is_read_from_their_mask(tilt: float, trunk_px: float) -> None:
    seen = body(view="front", lean_deg=0.0, at_px=(600.0, 600.0), trunk_px=trunk_px)
    assert tops(replace(seen, shape=shape_of(drawn(seen, tilt=tilt), seen))).line_deg == pytest.approx(tilt, abs=0.5)


def test_what_is_not_in_the_picture_has_no_outline_and_a_far_away_body_none_at_all() -> None:
    cut = body(view="side-right", lean_deg=0.0, at_px=(40.0, 600.0), trunk_px=200.0)
    found = shape_of(drawn(cut, tilt=0.0), cut)
    assert found is not None and np.isnan(found.beside_pct[0]).all() and np.isfinite(found.beside_pct[1]).all()
    small = body(view="side-right", at_px=(600.0, 600.0), trunk_px=15.0)
    assert shape_of(drawn(small), small) is None
    empty = shape_of(np.zeros((900, 1200), np.float32), cut)
    assert empty is not None and np.isnan(empty.beside_pct).all() and np.isnan(empty.over_pct).all()


@pytest.mark.parametrize("view", AHEAD)
def test_the_back_is_the_side_the_player_does_not_face(view: str) -> None:
    one_side = shape(bow_pct=0.0)
    one_side.beside_pct[0 if view == "side-right" else 1] += 6.0 * 4.0 * HEIGHTS * (1.0 - HEIGHTS)
    assert back(body(view=view, outline=one_side), AHEAD[view]).bow_pct == pytest.approx(6.0, abs=0.01)


def test_what_an_arm_lies_on_is_left_out_and_what_bows_like_no_back_is_none() -> None:
    seen = body(view="side-right", lean_deg=0.0, outline=shape(bow_pct=3.0))
    trunk, hips = lm.trunk_px(seen), lm.hips(seen)
    hand, arm = seen.points_px.copy(), seen.points_px.copy()
    hand[[lm.ELBOW_R, lm.WRIST_R, lm.INDEX_R]] = hips + np.array([[0.1, -0.5], [-0.22, -0.3], [-0.24, -0.3]]) * trunk
    seen.shape.beside_pct[0][(HEIGHTS > 0.22) & (HEIGHTS < 0.38)] += 12.0  # the hand sticks out there
    assert back(replace(seen, points_px=hand)).bow_pct == pytest.approx(3.0, abs=0.3)
    arm[[lm.ELBOW_R, lm.WRIST_R, lm.INDEX_R]] = hips + np.array([[-0.3, -0.5], [0.3, -0.45], [0.35, -0.45]]) * trunk
    assert back_of(replace(seen, points_px=arm), 1.0) is None, "a whole arm behind the back leaves too little of it"
    assert back_of(body(outline=shape(bow_pct=MOST_BOW_PCT + 1.0)), 1.0) is None
    hidden = shape()
    hidden.beside_pct[0][HEIGHTS > 0.4] = np.nan
    assert back_of(body(outline=hidden), 1.0) is None and back_of(replace(seen, shape=None), 1.0) is None


def test_arms_in_front_of_a_shoulder_hide_its_line() -> None:
    seen = body(view="front", lean_deg=0.0, outline=shape(tilt_deg=7.0))
    assert tops(seen).line_deg == pytest.approx(7.0, abs=0.01)
    raised = seen.points_px.copy()
    raised[[lm.ELBOW_L, lm.WRIST_L]] = lm.shoulders(seen) + np.array([[0.5, 0.0], [0.1, -0.2]]) * lm.trunk_px(seen)
    assert tops_of(replace(seen, points_px=raised)) is None
    half = shape()  # as by what stands before a shoulder
    half.over_pct[1, : len(ASIDE_PCT) // 2 + 2] = np.nan
    assert tops_of(body(view="front", outline=half)) is None and tops_of(replace(seen, shape=None)) is None


@pytest.mark.parametrize(("wrist", "told"), [((0.1, 0.0), True), ((0.1, -0.3), False), ((0.3, -0.4), False), ((0.25, 0.4), True)])
def test_arms_that_come_up_from_below_leave_the_shoulders_free(wrist: tuple[float, float], told: bool) -> None:
    """As a clarinet's do; those that go up across them, or are held over them, do not. wrist: of a trunk, from the middle of the shoulders."""
    seen = body(view="front", lean_deg=0.0, outline=shape(tilt_deg=7.0))
    held = seen.points_px.copy()
    held[[lm.ELBOW_L, lm.WRIST_L]] = lm.shoulders(seen) + np.array([[0.55, 0.55], wrist]) * lm.trunk_px(seen)
    found = tops_of(replace(seen, points_px=held))
    assert (found is not None) == told and (found is None or found.line_deg == pytest.approx(7.0, abs=0.01))


@pytest.mark.parametrize("view", AHEAD)
@pytest.mark.parametrize("lean_deg", [0.0, 20.0])
def test_where_the_back_was_read_lies_on_the_border_of_the_mask(view: str, lean_deg: float) -> None:
    seen = body(view=view, lean_deg=lean_deg, at_px=(600.0, 600.0), trunk_px=200.0)
    mask = drawn(seen, bow=4.0)
    shaped = replace(seen, shape=shape_of(mask, seen))
    line = back(shaped, AHEAD[view]).at_px
    assert line[0, 1] > line[-1, 1] and len(line) >= 10, "from the hips up"
    border = [mask[round(y), round(x) - 2 : round(x) + 3] for x, y in line]
    assert all(0.0 in values and 1.0 in values for values in border)
    behind = (line - lm.hips(seen)) @ [AHEAD[view], 0.0] - (lm.shoulders(seen) - lm.hips(seen))[0] * AHEAD[view] * HEIGHTS[1 : 1 + len(line)]
    assert (behind < 0).all()


def test_where_the_shoulders_were_read_lies_over_them() -> None:
    seen = body(view="front", lean_deg=0.0, outline=shape(tilt_deg=7.0))
    left, right = tops(seen).at_px
    assert (left[:, 0] < lm.shoulders(seen)[0]).all() and (right[:, 0] > lm.shoulders(seen)[0]).all()
    assert right[:, 1].mean() < left[:, 1].mean(), "the one at the picture's right is higher"


def measured(values: list[float | None], *, view: str, segments=(), judged_s=(), times_s: list[float] | None = None) -> dict[tuple[str, str | None], Measure]:
    """Posture of one who bows, or whose shoulders slope, by so much at each half second, or then; None = no outline was looked at."""
    which = "bow_pct" if view != "front" else "tilt_deg"
    of_each = [body(view=view, outline=shape(**{which: value or 0.0})) for value in values]
    times_s = times_s or [0.5 * i for i in range(len(values))]
    seen = [(t_s, one if value is not None else replace(one, shape=None)) for t_s, one, value in zip(times_s, of_each, values, strict=True)]
    who = player(len(seen), view=view)
    found = posture(seen, who, Stance(view, "seated", segments, judged_s, backs=backs_of(seen, who)))
    return {(m.key, m.segment): m for m in found}


@pytest.mark.parametrize("view", AHEAD)
def test_a_back_is_held_against_the_first_looks_of_the_count_in(view: str) -> None:
    rounds = measured([2.0] * 5 + [6.0] * 6 + [11.0] * 10, view=view, segments=[Segment("inhale", 2.5, 5.4)], judged_s=[(2.5, 10.0)])
    whole, inhale = rounds[BOW, None], rounds[BOW, "inhale"]
    assert whole.amount is not None and whole.amount.value == pytest.approx(9.0) and inhale.amount.value == pytest.approx(4.0) and inhale.samples == 6
    assert 1.4 < whole.amount.half_width < 2.0
    hollow = measured([8.0] * 5 + [3.0] * 10, view=view, judged_s=[(2.5, 8.0)])
    assert hollow[BOW, None].amount.value == pytest.approx(-5.0), "one who sits up is longer than at first"


def test_first_seconds_that_are_looked_at_more_often_count_no_more() -> None:
    early, later = [0.2 * i for i in range(8)], [4.0, 7.0, 10.0, 13.0]
    found = measured([2.0] * 8 + [10.0] * 4, view="side-left", times_s=early + later)[BOW, None]
    assert found.amount is not None and found.amount.value == pytest.approx(8.0)


@pytest.mark.parametrize(
    ("values", "reason"),
    [([None] * 12, "not_looked"), ([30.0] * 12, "arms_across"), ([18.0] * 12, "arms_across"), ([2.0] * 5 + [30.0] * 9, "arms_across")],
    ids=["no outline was looked at", "none of them is a back", "an arm hangs behind it", "most are none"],
)
def test_a_back_that_was_not_seen_says_why(values: list[float | None], reason: Withheld) -> None:
    assert measured(values, view="side-left")[BOW, None].value == NotMeasured(reason)


def test_a_back_that_was_not_seen_at_first_is_held_against_nothing() -> None:
    assert isinstance(measured([2.0] + [None] * 5 + [9.0] * 9, view="side-left")[BOW, None].value, NotMeasured)


def leaning(*of_each_deg: float) -> tuple[list[tuple[float, Body]], Stance]:
    """Key points that lean by 4 deg, with outlines that lead so much further forward at each second; None = no outline was looked at."""
    seen = []
    for t_s, deg in enumerate(of_each_deg):
        outline = shape()
        outline.beside_pct[0] -= 100.0 * HEIGHTS * np.tan(np.radians(deg))
        seen.append((float(t_s), body(view="side-right", lean_deg=4.0, outline=outline)))
    return seen, Stance("side-right", "seated", judged_s=[(2.0, 20.0)])


def test_the_trunk_leans_as_key_points_and_outline_say_together_each_by_how_sure_it_is() -> None:
    seen, stance = leaning(9.0, 9.0, *[5.0] * 8)
    who = player(len(seen))
    outlined = replace(stance, backs=backs_of(seen, who))
    off_deg, unsure_deg = lean_off_deg(outlined, who)
    assert off_deg == pytest.approx(BACK_SHARE * (5.0 - BACK_AHEAD_DEG), abs=0.01) and unsure_deg == BACK_DEG, "of the time that is judged"
    corrected, plain = (next(m for m in posture(seen, who, one) if m.key == "trunk_inclination_deg").amount for one in (outlined, stance))
    assert corrected.value == pytest.approx(4.0 + off_deg, abs=0.1) and corrected.half_width < plain.half_width
    for untold in (stance, replace(stance, backs=[(t_s, None) for t_s, _ in seen])):
        assert lean_off_deg(untold, who) == (0.0, KEY_POINT_DEG)


def test_a_trunk_sinks_as_its_outline_does_though_the_key_points_stay() -> None:
    seen, stance = leaning(*[float(deg) for deg in range(12)])
    who = player(len(seen))
    sunk = {m.key: m.amount for m in posture(seen, who, replace(stance, backs=backs_of(seen, who)))}["sag_deg"]
    assert sunk.value == pytest.approx(9.0, abs=0.1), "from the third second to the twelfth"
    stays = {m.key: m.amount for m in posture(seen, who, stance)}["sag_deg"]
    assert stays.value == pytest.approx(0.0, abs=0.1)


def test_the_shoulder_line_is_told_of_the_time_that_is_judged() -> None:
    found = measured([0.0] * 6 + [9.0] * 8, view="front", judged_s=[(3.0, 9.0)])
    assert found[TILT, None].amount.value == pytest.approx(9.0, abs=0.01) and found[TILT, None].samples == 8
    assert found[BOW, None].value == NotMeasured("view_unserved")
    assert measured([None] * 6, view="front")[TILT, None].value == NotMeasured("not_looked"), "the network's own shoulders tell nothing of it"
    assert measured([9.0] * 6, view="side-left")[TILT, None].value == NotMeasured("view_unserved")


def test_the_upper_arms_are_where_kept_evidence_and_the_shoulders_reading_look_for_them() -> None:
    assert [lm.ARM_PIECES[i] for i in (0, 3)] == [(lm.SHOULDER_L, lm.ELBOW_L), (lm.SHOULDER_R, lm.ELBOW_R)]
