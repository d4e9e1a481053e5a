"""How far a wrist is bent, and how far the fingers: from the joints that the hand network found in the pictures of each raised hand.

A bend shows where it lies in the picture; toward the camera or away from it no picture tells. Fingers are told and never judged: their bends point into
the picture, where the network guesses.
"""

from collections.abc import Sequence

import numpy as np

from brevin.core.hold.looks import Playing
from brevin.core.kinds import SIDE_VIEWS
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, Withheld
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Hand

SURE, NEAR_TRUNKS = 0.35, 0.3  # that a hand is this one, left or right, from which it is believed where both wrists are so near to each other
OFF_TRUNKS = 0.12  # between the hand network's wrist and the key points': further off it is another hand
APART_TRUNKS = 0.06  # between both hands' wrists: nearer, one hand was taken for both
LEAST_FOREARM_TRUNKS, LEAST_PALM_TRUNKS = 0.25, 0.085  # what points at the camera looks shorter, and bent or straight by chance
LEAST_LOOKS, LEAST_SHARE = 2, 0.5  # that found the hand, and of all that looked
LEAST_ALIKE = 3  # looks that say the same, from which they are believed though most others found no hand
BEND_DEG, LOOK_DEG = 6.0, 6.0  # standard errors of a hand's bend, and of one look beside its others; own, shows in ./brevin bench hold
CURL_DEG = 15.0  # standard error of the fingers' bend; own
KNUCKLES = (5, 9, 13, 17)  # of forefinger to little finger; the three joints behind each follow it
SIDES = ("left", "right")
ARMS = ((lm.ELBOW_L, lm.WRIST_L), (lm.ELBOW_R, lm.WRIST_R))
WRISTS = {side: f"wrist_{side}_deg" for side in SIDES}
CURLS = {side: f"finger_curl_{side}_deg" for side in SIDES}
KEYS = (*WRISTS.values(), *CURLS.values())


def wrists(playing: Playing) -> list[Measure]:
    """Bends of both wrists and of their fingers, degrees, 0 = straight on; from any view in which the hand shows, from the side the nearer one."""
    looked = [hands_of(body) for _, body in playing.bodies if body.hands is not None]
    why: Withheld = "hand_unseen" if looked else "not_looked"
    found: list[Measure] = []
    for at, side in enumerate(SIDES):
        own = [pair[at] for pair in looked if playing.view not in SIDE_VIEWS or playing.view == f"side-{side}"]  # the far elbow is guessed
        seen = [one for one in own if one is not None]
        told = len(seen) >= max(LEAST_LOOKS, LEAST_SHARE * len(own)) or _agree([bend for bend, _ in seen])
        found.append(Measure(WRISTS[side], _usual([bend for bend, _ in seen], BEND_DEG) if told else NotMeasured(why), samples=len(seen)))
        found.append(Measure(CURLS[side], _usual([curl for _, curl in seen], CURL_DEG) if told else NotMeasured(why), samples=len(seen)))
    return found


def _agree(bends: Sequence[float]) -> bool:
    """Whether few of many looks say the same often enough: where the key points lose a hand at times, it is not looked for there."""
    return len(bends) >= LEAST_ALIKE and float(np.std(bends)) < LOOK_DEG


def _usual(values: Sequence[float], bias_deg: float) -> Value:
    scatter = max(float(np.std(values)), LOOK_DEG) / np.sqrt(len(values))
    return Amount(float(np.median(values)), NORMAL_90 * float(np.hypot(bias_deg, scatter)))


def hands_of(body: Body) -> tuple[tuple[float, float] | None, tuple[float, float] | None]:
    """Bend of the wrist and of the fingers of the left and the right hand of one look, degrees; None for a hand that was not found."""
    assert body.hands is not None
    left, right = (_bends(body, hand, *arm) for hand, arm in zip(body.hands, ARMS, strict=True))
    same = np.hypot(*(body.hands[0].points_px[0] - body.hands[1].points_px[0])) < APART_TRUNKS * lm.trunk_px(body)
    return (None, None) if left and right and same else (left, right)


def bent_px(body: Body) -> dict[str, Floats]:
    """Elbow, wrist and the middle of the knuckles of each hand that was found, by side, px: [3, 2]."""
    found = hands_of(body) if body.hands is not None else (None, None)
    return {
        side: np.stack([body.points_px[ARMS[at][0]], hand.points_px[0], hand.points_px[list(KNUCKLES)].mean(axis=0)])
        for at, (side, hand) in enumerate(zip(SIDES, body.hands or (), strict=False))
        if found[at] is not None
    }


def _bends(body: Body, hand: Hand, elbow: int, wrist: int) -> tuple[float, float] | None:
    trunk_px = lm.trunk_px(body)
    apart = np.hypot(*(body.points_px[lm.WRIST_L] - body.points_px[lm.WRIST_R]))
    if not hand.sure > 0.0 or (apart < NEAR_TRUNKS * trunk_px and hand.sure < SURE):
        return None
    if np.hypot(*(hand.points_px[0] - body.points_px[wrist])) > OFF_TRUNKS * trunk_px:
        return None
    forearm, palm = hand.points_px[0] - body.points_px[elbow], hand.points_px[list(KNUCKLES)].mean(axis=0) - hand.points_px[0]
    if np.hypot(*forearm) < LEAST_FOREARM_TRUNKS * trunk_px or np.hypot(*palm) < LEAST_PALM_TRUNKS * trunk_px:
        return None
    pieces = [(hand.world[first + 1] - hand.world[first], hand.world[first + 2] - hand.world[first + 1]) for first in KNUCKLES]
    return between_deg(forearm, palm), float(np.mean([between_deg(*piece) for piece in pieces]))


def between_deg(one: Floats, other: Floats) -> float:
    """The angle between two ways, 0 to 180."""
    return float(np.degrees(np.arccos(np.clip(one @ other / max(float(np.linalg.norm(one) * np.linalg.norm(other)), 1e-9), -1.0, 1.0))))
