"""The head: in a front view how it is tilted, by the middle line of the face, and that line against a flute; how high its ears stand over the shoulders."""

from collections.abc import Sequence

import numpy as np

from brevin.core.measure import Amount, Measure, NotMeasured, of_key
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Player

SURE = 0.9  # of a face, from which its points are believed
LINE_DEG = 1.6  # how far the face's middle line stands off the head's own; own, over faces of several makers
LOOK_DEG = 1.0  # standard error of one look beside the player's others; own
EAR_HEIGHT_PCT = 6.5  # of trunk: how far the network's ear and shoulders stand off the anatomical ones; own, over the stand-in's clips of posture and hold
TILT, TO_FLUTE, HEIGHT = "head_tilt_deg", "head_to_flute_deg", "shoulder_height_pct"


def tilt_deg(body: Body) -> float | None:
    """From upright to the line from forehead to chin, + = tilted to the player's right; None where no face was found. The body was looked at for one."""
    if body.features is None or not body.features.sure >= SURE:
        return None
    forehead, chin = body.features.midline_px
    return float(90.0 - np.degrees(np.arctan2(chin[1] - forehead[1], chin[0] - forehead[0])))


def height_pct(body: Body, player: Player, *, front: bool) -> float:
    """How high the ear that the camera sees, or the middle of both, stands over the middle of the shoulders along the trunk, percent of trunk."""
    _, up = lm.trunk_axes(body)
    near = lm.EAR_R if player.forward[0] > 0 else lm.EAR_L
    ear = lm.middle(body.points_px, lm.EAR_L, lm.EAR_R) if front else body.points_px[near]
    return 100.0 * float((ear - lm.shoulders(body)) @ up) / max(lm.trunk_px(body), 1e-9)


def to_flute(measures: Sequence[Measure]) -> Measure:
    """How much further to the right the head is tilted than the flute falls to that side."""
    head, axis = (next((m.value for m in of_key(measures, key) if m.segment is None), NotMeasured("view_unserved")) for key in (TILT, "instrument_axis_deg"))
    if isinstance(head, Amount) and isinstance(axis, Amount):
        return Measure(TO_FLUTE, Amount(head.value - axis.value, float(np.hypot(head.half_width, axis.half_width))))
    return Measure(TO_FLUTE, axis if isinstance(head, Amount) else head)
