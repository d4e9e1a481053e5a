"""How far wrists and fingers are bent: planted joints come back however arm and hand lie in the picture, and a hand that was not surely seen tells nothing."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.hold.looks import Playing
from brevin.core.hold.wrists import APART_TRUNKS, KEYS, LEAST_FOREARM_TRUNKS, LEAST_PALM_TRUNKS, NEAR_TRUNKS, OFF_TRUNKS, SURE, hands_of, wrists
from brevin.core.measure import Amount, Measure, NotMeasured, Value
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Hand
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.judge import Judged, verdicts
from brevin.core.verdict.rules import Rules
from tests.core.made import HIP_PX, TRUNK_PX, body

WRISTS = {"left": np.array([HIP_PX[0] + 80.0, HIP_PX[1] - 100.0]), "right": np.array([HIP_PX[0] - 80.0, HIP_PX[1] - 100.0])}
NOBODY = Hand(np.full((21, 2), np.nan), np.full((21, 3), np.nan), 0.0)
AROUND = st.floats(-180.0, 180.0)


def turned(way: np.ndarray, deg: float) -> np.ndarray:
    angle = np.radians(deg)
    return np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]]) @ way


def hand(at: np.ndarray, along: np.ndarray, *, curl_deg: float = 40.0, palm_px: float = 35.0, sure: float = 0.95) -> Hand:
    """A hand from its wrist on, every finger's middle joint bent alike."""
    points, world = np.tile(at, (21, 1)), np.zeros((21, 3))
    curl = np.radians(curl_deg)
    for first in (5, 9, 13, 17):
        points[first : first + 4] = at + palm_px * along
        world[first : first + 4] = np.cumsum([[0.0, 0.0, 0.0], [0.03, 0.0, 0.0], [0.02 * np.cos(curl), 0.02 * np.sin(curl), 0.0], [0.0, 0.02, 0.0]], axis=0)
    return Hand(points, world, sure)


def player(bends: tuple[float, float] = (0.0, 0.0), *, forearm_deg: float = 160.0, forearm_px: float = 75.0, **more: float) -> Body:
    """Somebody from the front with both hands up. bends: of the left and the right wrist."""
    whole = body(view="front", lean_deg=0.0)
    points, hands = whole.points_px.copy(), []
    for bend, (side, at), (elbow, wrist) in zip(bends, WRISTS.items(), ((lm.ELBOW_L, lm.WRIST_L), (lm.ELBOW_R, lm.WRIST_R)), strict=True):
        along = turned(np.array([1.0, 0.0]), forearm_deg if side == "left" else 180.0 - forearm_deg)
        points[wrist], points[elbow] = at, at - forearm_px * along
        hands.append(hand(at, turned(along, bend), **more))
    return replace(whole, points_px=points, hands=(hands[0], hands[1]))


def told(bodies: list[Body], view: str = "front") -> dict[str, Value]:
    found = wrists(Playing(view, [(2.5 * i, one) for i, one in enumerate(bodies)], (), 1.0))
    assert [m.key for m in found if m.key.startswith("wrist")] == [KEYS[0], KEYS[1]] and {m.key for m in found} == set(KEYS)
    return {m.key: m.value for m in found}


@given(left=st.floats(-90, 90), right=st.floats(-90, 90), forearm_deg=AROUND, curl_deg=st.floats(0, 120))
def test_a_bend_is_told_however_the_arm_lies_in_the_picture(left: float, right: float, forearm_deg: float, curl_deg: float) -> None:
    found = hands_of(player((left, right), forearm_deg=forearm_deg, curl_deg=curl_deg))
    assert found == (
        (pytest.approx(abs(left), abs=0.01), pytest.approx(curl_deg, abs=0.01)),
        (pytest.approx(abs(right), abs=0.01), pytest.approx(curl_deg, abs=0.01)),
    )


def test_a_clip_tells_what_most_looks_show_and_the_more_looks_the_surer() -> None:
    few, many = told([player((10.0, 40.0))] * 2), told([player((10.0, 40.0))] * 9 + [player((70.0, 0.0))])
    assert few["wrist_left_deg"].value == pytest.approx(10.0) and many["wrist_right_deg"].value == pytest.approx(40.0)
    assert many["finger_curl_left_deg"].value == pytest.approx(40.0) and many["finger_curl_left_deg"].half_width > 20.0, "fingers are told roughly"
    assert told([player()] * 9)["wrist_left_deg"].half_width < few["wrist_left_deg"].half_width


@pytest.mark.parametrize(
    "unseen",
    [
        player(sure=0.0), player(palm_px=0.9 * LEAST_PALM_TRUNKS * TRUNK_PX), player(forearm_px=0.9 * LEAST_FOREARM_TRUNKS * TRUNK_PX),
        replace(player(), hands=(NOBODY, NOBODY)),
    ],
    ids=["no hand", "a palm that points at the camera", "such a forearm", "none found"],
)  # fmt: skip
def test_a_hand_that_was_not_surely_seen_tells_nothing(unseen: Body) -> None:
    assert hands_of(unseen) == (None, None)
    assert set(told([unseen] * 5).values()) == {NotMeasured("hand_unseen")}
    assert isinstance(told([unseen] * 2 + [player()] * 2)["wrist_left_deg"], Amount) and told([unseen] * 3 + [player()] * 2)["wrist_left_deg"] == NotMeasured(
        "hand_unseen"
    )


def test_one_hand_that_is_hidden_does_not_hide_the_other() -> None:
    one = player((0.0, 35.0))
    assert one.hands is not None
    found = told([replace(one, hands=(NOBODY, one.hands[1]))] * 3)
    assert found["wrist_left_deg"] == NotMeasured("hand_unseen") and found["wrist_right_deg"].value == pytest.approx(35.0)


def test_a_hand_far_from_its_own_wrist_and_one_hand_for_both_are_none() -> None:
    one = player()
    assert one.hands is not None
    moved = one.points_px.copy()
    moved[lm.WRIST_L] += [1.1 * OFF_TRUNKS * TRUNK_PX, 0.0]
    assert hands_of(replace(one, points_px=moved))[0] is None and hands_of(replace(one, points_px=moved))[1] is not None
    same = one.points_px.copy()
    same[lm.WRIST_L] = same[lm.WRIST_R] + [0.0, 0.9 * APART_TRUNKS * TRUNK_PX]
    same[lm.ELBOW_L] = same[lm.WRIST_L] - [75.0, 0.0]
    both = hand(same[lm.WRIST_L], np.array([1.0, 0.0])), one.hands[1]
    assert hands_of(replace(one, points_px=same, hands=both)) == (None, None)


def test_where_both_hands_are_near_each_other_only_what_is_this_hand_is_believed() -> None:
    far, one = player(sure=SURE - 0.01), player(sure=SURE - 0.01).points_px.copy()
    assert None not in hands_of(far), "apart, the key points say whose it is"
    shift = one[lm.WRIST_L] - one[lm.WRIST_R] - [0.9 * NEAR_TRUNKS * TRUNK_PX, 0.0]
    one[[lm.WRIST_R, lm.ELBOW_R]] += shift
    assert far.hands is not None
    near = replace(far, points_px=one, hands=(far.hands[0], replace(far.hands[1], points_px=far.hands[1].points_px + shift)))
    assert hands_of(near) == (None, None)
    surely = replace(near, hands=(near.hands[0], replace(near.hands[1], sure=SURE)))  # pyrefly: ignore[unsupported-operation]
    assert hands_of(surely)[1] is not None


def test_from_the_side_the_nearer_hand_alone_is_told() -> None:
    found = told([player((12.0, 40.0))] * 4, "side-left")
    assert found["wrist_left_deg"].value == pytest.approx(12.0) and found["wrist_right_deg"] == NotMeasured("hand_unseen")


def test_a_reading_that_looked_at_no_hands_says_read_it_again() -> None:
    assert set(told([replace(player(), hands=None)] * 4).values()) == {NotMeasured("not_looked")}


@pytest.mark.parametrize(("bend", "state"), [(4.0, "steady"), (22.0, "watch"), (50.0, "work")])
def test_straight_wrists_are_steady_and_bent_ones_are_worked_on(bend: float, state: str) -> None:
    asked = Asked(Check(kind="hold", view="front", instrument="flute"), None, Rules())
    measures = [Measure(key, Amount(bend, 8.0)) for key in ("wrist_left_deg", "wrist_right_deg")]
    found = {v.criterion: v for v in verdicts(Judged(measures, "front", "seated", False, ()), asked)}
    assert {found[key].state for key in ("wrist_left", "wrist_right")} == {state}
    trumpet = verdicts(Judged(measures, "front", "seated", False, ()), Asked(Check(kind="hold", view="front", instrument="trumpet"), None, Rules()))
    assert not {"wrist_left", "wrist_right"} & {v.criterion for v in trumpet}, "whose hands are one before the other"


@given(bend=st.floats(-70, 70), lost=st.integers(4, 12))
def test_three_looks_that_say_the_same_are_believed_though_most_found_no_hand_and_three_that_do_not_are_not(bend: float, lost: int) -> None:
    none = replace(player(), hands=(NOBODY, NOBODY))
    alike = told([*[player((bend + off, 0.0)) for off in (-2.0, 0.0, 2.0)], *[none] * lost])
    assert alike["wrist_left_deg"].value == pytest.approx(abs(bend), abs=2.1)
    for other in ([player((bend + off, bend + off)) for off in (-20.0, 0.0, 20.0)], [player((bend, bend))] * 2):
        assert told([*other, *[none] * lost])["wrist_left_deg"] == NotMeasured("hand_unseen")
