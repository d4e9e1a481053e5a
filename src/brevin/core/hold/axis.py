"""The instrument's axis in the picture: the straight edges that come from the mouth and go where the hands are, their angles weighted by length.

A saxophone bends below the hands: its axis is the way from the mouth to the lower hand, and is as sure as those key points are.
"""

import numpy as np

from brevin.core.hold.instruments import HELD
from brevin.core.hold.looks import KEY_POINT_DEG, Look, Playing, looks, same_edges
from brevin.core.kinds import Instrument
from brevin.core.kinematics import trend
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value
from brevin.core.track import Floats

DROOP_MOST_UNSURE_DEG = 6.0  # half width; more, and the pictures do not show one line
BELOW_PCT = 2.0  # of trunk: how far the network's mouth stands off

KEYS = ("instrument_axis_deg", "axis_to_trunk_deg", "axis_below_mouth_pct", "axis_droop_deg")


def axis(playing: Playing, instrument: Instrument) -> list[Measure]:
    """Angle of the axis to level and to the trunk, degrees, how far below the mouth it leads past it, percent of trunk, and how much further the far end
    points down at the end than at the beginning, degrees; nothing for an instrument that has no axis."""
    return axis_of(pictures(playing, instrument), playing, instrument)


def pictures(playing: Playing, instrument: Instrument) -> list[Look]:
    """Every picture's axis; none of an instrument that has none, or from where it is not seen."""
    return looks(playing, HELD[instrument]) if instrument in HELD and playing.view in HELD[instrument].views else []


def axis_of(found: list[Look], playing: Playing, instrument: Instrument) -> list[Measure]:
    """``axis`` of pictures that were looked at already."""
    if instrument not in HELD:
        return []
    held = HELD[instrument]
    if playing.view not in held.views:
        return [Measure(key, NotMeasured("view_unserved")) for key in KEYS]
    if not found:
        return [Measure(key, NotMeasured("not_found"), samples=0) for key in KEYS]
    level_deg, unsure_deg = np.array([one.level_deg for one in found]), float(np.median([one.unsure_deg for one in found]))
    low, high = held.within_deg
    if playing.tapped is None and not low <= float(np.median(level_deg)) <= high:
        return [Measure(key, NotMeasured("points_elsewhere"), samples=0) for key in KEYS]
    to_trunk_deg = float(np.hypot(unsure_deg, KEY_POINT_DEG / 3.0))  # the line from shoulders to hips is a third as unsure: it is three times as long
    values = (
        _median(level_deg, unsure_deg), _median(np.array([one.trunk_deg for one in found]) + playing.lean_off_deg, to_trunk_deg),
        _median(np.array([100.0 * one.below_trunks for one in found]), BELOW_PCT),
        _droop(np.array([one.t_s for one in found]), level_deg, unsure_deg),
    )  # fmt: skip
    return [Measure(key, value, samples=len(found)) for key, value in zip(KEYS, values, strict=True)]


def _median(values: Floats, unsure: float) -> Amount:
    scatter = float(values.std()) / np.sqrt(len(values))
    return Amount(float(np.median(values)), NORMAL_90 * float(np.hypot(scatter, unsure)))


def _droop(t_s: Floats, level_deg: Floats, unsure_deg: float) -> Value:
    """What the least-squares line through the pictures' angles falls by from the first to the last of them; what shows other edges is left out."""
    if not trend.enough(t_s):
        return NotMeasured("held_briefly")
    same = same_edges(t_s, level_deg)
    if not trend.enough(t_s[same]):
        return NotMeasured("not_found")
    found = trend.change(t_s[same], level_deg[same], unsure_deg, over_s=float(t_s[-1] - t_s[0]))
    return found if found.half_width < DROOP_MOST_UNSURE_DEG else NotMeasured("not_found")
