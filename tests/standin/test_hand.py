"""The stand-in's hands: fingers bend as planted, left and right mirror each other, and wrists lie where the instrument is. Nothing is drawn here."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.standin.hand import FINGERS, GOOD, THUMB, WRISTS, Bones, Grip, bones, reached
from brevin.standin.scripts import SCRIPTS

ELBOW, WRIST = np.array([0.0, 0.0, 0.0]), np.array([0.2, 0.0, 0.1])
PALM_DOWN = Grip((0.0, 0.0, -1.0), knuckle_deg=20.0, curl_deg=40.0)


def bend_deg(one: np.ndarray, other: np.ndarray) -> float:
    return float(np.degrees(np.arccos(np.clip(one @ other / np.linalg.norm(one) / np.linalg.norm(other), -1.0, 1.0))))


def along(hand: Bones) -> np.ndarray:
    """From the wrist to the middle of the four knuckles, weighted so that the palm's own lean to one side goes out."""
    return hand.fingers[2, 0] + hand.fingers[3, 0] - 2 * hand.wrist


@given(curl=st.floats(0, 90), knuckle=st.floats(0, 60), side=st.sampled_from("lr"), size=st.floats(0.8, 1.2))
def test_every_finger_bends_at_its_middle_joint_as_planted(curl: float, knuckle: float, side: str, size: float) -> None:
    hand = bones(ELBOW, WRIST, replace(PALM_DOWN, curl_deg=curl, knuckle_deg=knuckle, size=size), side)
    assert hand.fingers.shape == (5, 4, 3)
    for finger, (_, _, lengths) in zip(hand.fingers[1:], FINGERS, strict=True):
        pieces = np.diff(finger, axis=0)
        assert bend_deg(pieces[0], pieces[1]) == pytest.approx(curl, abs=0.1)
        assert np.linalg.norm(pieces, axis=1) == pytest.approx([size * length for length in lengths])
    assert np.linalg.norm(np.diff(hand.fingers[0], axis=0), axis=1) == pytest.approx([size * length for length in THUMB])


@given(bend=st.floats(-40, 60), aside=st.floats(-20, 20), side=st.sampled_from("lr"))
def test_the_wrist_bends_as_planted_toward_palm_or_thumb(bend: float, aside: float, side: str) -> None:
    straight, bent = (bones(ELBOW, WRIST, grip, side) for grip in (PALM_DOWN, replace(PALM_DOWN, bend_deg=bend, aside_deg=aside)))
    assert bend_deg(along(straight), along(bent)) == pytest.approx(replace(PALM_DOWN, bend_deg=bend, aside_deg=aside).wrist_deg(), abs=2.5)
    if abs(bend) > 5.0 and abs(aside) < 1.0:
        assert (along(bent)[2] < along(straight)[2]) == (bend > 0.0), "the palm looks down: toward it is down"


def test_left_and_right_are_mirror_images_and_the_thumbs_look_at_each_other() -> None:
    left, right = (bones(ELBOW, WRIST, PALM_DOWN, side) for side in "lr")
    assert left.fingers == pytest.approx(right.fingers * (1.0, -1.0, 1.0))
    assert left.fingers[0, 3, 1] < 0.0 < right.fingers[0, 3, 1], "palms down, forearms ahead: the left thumb is on its right side"
    assert PALM_DOWN.wrist_deg() == 0.0


@pytest.mark.parametrize("instrument", sorted(WRISTS))
def test_fingers_of_a_good_grip_reach_the_instrument_from_where_the_wrists_lie(instrument: str) -> None:
    """No fingertip is further off the tube's own line than a finger is long."""
    way = np.array([0.0, -1.0, 0.0]) if instrument == "flute" else np.array([1.0, 0.0, 0.0])
    for side, grip in GOOD[instrument]:
        at = reached(instrument, side, way, fingers=True)
        off = at - way * (at @ way)
        assert 0.02 < np.linalg.norm(off) < 0.13, "beside the tube and within a hand's reach"
        elbow = at - 0.23 * (np.array([0.5, 0.0, 0.87]) if instrument != "flute" else np.array([0.2, 0.0, 0.98]))
        tips = bones(elbow, at, grip, side).fingers[1:, 3]
        assert (np.linalg.norm(tips - np.outer(tips @ way, way), axis=1) < 0.16).all()
        assert (side == "l") == (at[1] > 0.0) or instrument == "flute"


def test_the_demo_s_hold_has_hands_with_fingers_and_its_truth_says_how_they_are_held() -> None:
    [script] = [one for one in SCRIPTS if one.raises]
    assert script.grips == GOOD["trumpet"] and {side for side, _ in script.grips} == {"l", "r"}
