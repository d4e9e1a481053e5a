"""Angles against the room's upright instead of the picture's, where the phone stood tilted."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from brevin.core.kinds import View
from brevin.core.kinematics.heads import HEIGHT, TILT
from brevin.core.kinematics.tilt import Tilt
from brevin.core.measure import Amount, Measure
from brevin.core.track import Player

TO_UPRIGHT = frozenset({"trunk_inclination_deg", "instrument_axis_deg", "shoulder_tilt_deg", TILT})
"""Measures that are angles to level or to upright. Those between two things of the player stand as they are."""

FORWARD = "head_forward_pct"
EAR_PCT = 36.0  # of trunk, over the shoulders, where that was not measured


def facing(view: View, player: Player) -> float:
    """To which side of the picture the player's front, or from the front the far end of a flute, is: 1 right, -1 left."""
    return -1.0 if view == "front" else float(np.sign(player.forward[0]) or 1.0)


def levelled(measures: Sequence[Measure], tilt: Tilt | None, side: float) -> list[Measure]:
    """The same measures with the tilt taken out of those that stand against level or upright. side: as ``facing`` tells it."""
    if tilt is None or not tilt.told:
        return list(measures)
    heights = {m.segment: m.amount.value for m in measures if m.key == HEIGHT and m.amount is not None}
    return [_level(one, tilt, side, heights.get(one.segment, EAR_PCT)) for one in measures]


def _level(one: Measure, tilt: Tilt, side: float, ear_pct: float) -> Measure:
    if one.amount is None or one.key not in (*TO_UPRIGHT, FORWARD):
        return one
    turned, unsure = np.radians(side * tilt.deg), np.radians(tilt.half_width)
    if one.key == FORWARD:
        value, unsure = one.amount.value * np.cos(turned) - ear_pct * np.sin(turned), ear_pct * unsure
    else:
        value, unsure = one.amount.value - np.degrees(turned), np.degrees(unsure)
    return replace(one, value=Amount(float(value), float(np.hypot(one.amount.half_width, unsure))))
