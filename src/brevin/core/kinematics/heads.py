"""How the head is tilted in a front view: the middle line of the face, and that line against a flute."""

from collections.abc import Sequence

import numpy as np

from brevin.core.measure import Amount, Measure, NotMeasured, of_key
from brevin.core.track import Body

SURE = 0.9  # of a face, from which its points are believed
LINE_DEG = 1.6  # how far the face's middle line stands off the head's own; own, over faces of several makers
LOOK_DEG = 1.0  # standard error of one look beside the player's others; own
TILT, TO_FLUTE = "head_tilt_deg", "head_to_flute_deg"


def tilt_deg(body: Body) -> float | None:
    """From upright to the line from forehead to chin, + = tilted to the player's right; None where no face was found. The body was looked at for one."""
    if body.features is None or not body.features.sure >= SURE:
        return None
    forehead, chin = body.features.midline_px
    return float(90.0 - np.degrees(np.arctan2(chin[1] - forehead[1], chin[0] - forehead[0])))


def to_flute(measures: Sequence[Measure]) -> Measure:
    """How much further to the right the head is tilted than the flute falls to that side."""
    head, axis = (next((m.value for m in of_key(measures, key) if m.segment is None), NotMeasured("view_unserved")) for key in (TILT, "instrument_axis_deg"))
    if isinstance(head, Amount) and isinstance(axis, Amount):
        return Measure(TO_FLUTE, Amount(head.value - axis.value, float(np.hypot(head.half_width, axis.half_width))))
    return Measure(TO_FLUTE, axis if isinstance(head, Amount) else head)
