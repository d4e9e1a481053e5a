"""How the head is held: tilted, from the front, by the middle line of the face, and that line against a flute; nodding, from the side, by ear and nose."""

from collections.abc import Sequence

import numpy as np

from brevin.core.measure import Amount, Measure, NotMeasured, Withheld, of_key
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Player

SURE = 0.9  # of a face, from which its points are believed
LINE_DEG = 1.6  # how far the face's middle line stands off the head's own; own, over faces of several makers
LOOK_DEG = 1.0  # standard error of one look beside the player's others; own
NOSE_DOWN_DEG = 9.0  # how far under the ear a level head's nose is seen; own, over clips of several makers
BARE_CHIN_DEG, CHIN_DEG = 4.0, 9.0  # standard errors of that with nothing before the face, and behind an instrument; own, the same
GUESSED_DEG = 6.0  # scatter of the looks: ear and nose that wander by more are guessed
TILT, TO_FLUTE, CHIN = "head_tilt_deg", "head_to_flute_deg", "chin_deg"


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


def chin_deg(body: Body, player: Player) -> float:
    """How far the nose is under where a level head has it, seen from the ear, + = the chin dropped."""
    ahead = float(np.sign(player.forward[0]) or 1.0)
    toward = body.points_px[lm.NOSE] - body.points_px[lm.EAR_R if ahead > 0 else lm.EAR_L]
    return float(np.degrees(np.arctan2(toward[1], toward[0] * ahead))) - NOSE_DOWN_DEG


def guessed(seen: Sequence[tuple[float, Body]], player: Player) -> Withheld | None:
    """Why no chin is told: an instrument hides ear or nose, and the network guesses another place at each look."""
    return "points_apart" if len(seen) > 1 and float(np.std([chin_deg(body, player) for _, body in seen])) > GUESSED_DEG else None
