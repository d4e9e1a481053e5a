"""How far the elbows stand off the body, from the front: the arcsine of the elbow's sideways distance from the shoulder over the upper arm's length.

An elbow that is surely inside its shoulder lies against the body or before it: how far inside is not seen from there, that it does not stand off is. A
flute's left arm goes across the body, so that its elbow tells nothing wherever it is seen inside.
"""

import numpy as np

from brevin.core.hold.looks import Playing
from brevin.core.kinds import Instrument
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body

UPPER_ARM_TRUNKS = 0.65  # upper arm over trunk, hips to shoulders, of children and grown-ups alike; an arm that comes forward looks shorter than it is
JOINT_OUTSIDE_TRUNKS = 0.06  # how far outside the network's shoulder the joint lies; own, measured on clips of no set that bars are held on
UNSURE_TRUNKS = 0.05  # standard error of that distance
RAISED_TRUNKS, RAISED_SHARE = 0.3, 0.3  # from so far out on it grows by a share of the rest: a raised arm takes the network's shoulder along; own

ACROSS: tuple[tuple[Instrument, int], ...] = (("flute", lm.ELBOW_L),)  # instruments that are held with an arm across the body, and that arm's elbow

ELBOWS = {"elbow_left_deg": (lm.SHOULDER_L, lm.ELBOW_L), "elbow_right_deg": (lm.SHOULDER_R, lm.ELBOW_R)}


def elbows(playing: Playing, instrument: Instrument) -> list[Measure]:
    """Elbow clearance left and right, degrees; from the front only."""
    if playing.view != "front":
        return [Measure(key, NotMeasured("view_unserved")) for key in ELBOWS]
    return [Measure(key, _clearance(playing, *points, across=(instrument, points[1]) in ACROSS), samples=len(playing.bodies)) for key, points in ELBOWS.items()]


def _clearance(playing: Playing, shoulder: int, elbow: int, *, across: bool) -> Value:
    if not playing.bodies:
        return NotMeasured("region_unseen")
    aside = np.array([_aside_trunks(body, shoulder, elbow) for _, body in playing.bodies]) - JOINT_OUTSIDE_TRUNKS
    middle, scatter = float(np.median(aside)), float(aside.std()) / np.sqrt(len(aside))
    unsure = UNSURE_TRUNKS + RAISED_SHARE * max(middle - RAISED_TRUNKS, 0.0)
    reach = NORMAL_90 * float(np.hypot(unsure, scatter))
    low, value, high = (float(np.degrees(np.arcsin(np.clip(at / UPPER_ARM_TRUNKS, -1.0, 1.0)))) for at in (middle - reach, middle, middle + reach))
    if across and value < 0.0:
        return NotMeasured("arm_crosses")
    return Amount(value, max(high - value, value - low, -value if high < 0.0 else 0.0))


def _aside_trunks(body: Body, shoulder: int, elbow: int) -> float:
    """The elbow's distance from its shoulder along the shoulder line, outward, in trunk lengths."""
    points = body.points_px
    other = lm.SHOULDER_R if shoulder == lm.SHOULDER_L else lm.SHOULDER_L
    outward = points[shoulder] - points[other]
    return float((points[elbow] - points[shoulder]) @ outward / max(float(np.hypot(*outward)), 1e-9)) / max(lm.trunk_px(body), 1e-9)
