"""Both armpits in a body's mask, seen from the front: where the under side of an upper arm that stands out meets the trunk's side.

They tell how level the shoulders are where forearms hide the shoulders' own tops, as a trumpet's do.
"""

import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import way_out
from brevin.core.track import Body, Floats

STEEPEST, LEAST_OUT, MOST_UNLIKE = 0.85, 0.3, 0.6  # arms that stand out: falls as steep as that (of its way outward), out so far (of trunk), not unlike; own
SIDE = np.arange(0.40, 1.0, 0.01)  # of the axis, from the hips up: where the way out from it is looked at
FIRST = 20  # of those: an armpit lies no lower
REACH_TRUNKS = 0.75  # of trunk: further out there is only room
JUMP_TRUNKS, STAYS = 0.06, 4  # an arm begins where the way out is so much longer, over so many heights
BEFORE = slice(-9, -2)  # the heights before it that tell the trunk's side
EVEN, EVEN_TRUNKS = 3, 0.03  # so many of them right under it, and how even those are to be
UNDER_TRUNKS = np.linspace(0.03, 0.12, 9)  # outside of the trunk's side: where the way up to the arm's under side is looked at
FROM_TRUNKS, UP_TRUNKS = 0.06, 0.4  # that way begins so far under the jump, and ends so far above its beginning
LEAST_WAYS, STRAIGHT_TRUNKS = 6, 0.03  # ways up that tell a line, and how straight it is to be


def arms_out(body: Body) -> bool:
    """Whether both upper arms stand out to the sides, one like the other. One that hangs closes its armpit further down."""
    across, up = lm.trunk_axes(body)
    falls = []
    for shoulder, elbow in ((lm.SHOULDER_L, lm.ELBOW_L), (lm.SHOULDER_R, lm.ELBOW_R)):
        way = (body.points_px[elbow] - body.points_px[shoulder]) / max(lm.trunk_px(body), 1e-9)
        out = float(way @ across) * np.sign((body.points_px[shoulder] - lm.shoulders(body)) @ across)
        falls.append(-float(way @ up) / out if out > LEAST_OUT else np.inf)
    return bool(max(falls) < STEEPEST and abs(falls[0] - falls[1]) < MOST_UNLIKE)


def armpits_of(mask: NDArray[np.float32], body: Body) -> Floats:
    """Where they are, percent of trunk: [2, 2], at the picture's left and right: out from the axis, up from the hips; nan where one cannot be told.
    mask: [height, width], 0 to 1."""
    return np.array([_armpit(mask, body, side) for side in (-1.0, 1.0)]) * 100.0


def _armpit(mask: NDArray[np.float32], body: Body, side: float) -> Floats:
    """One of them: [2], trunks."""
    across, up = lm.trunk_axes(body)
    hips, trunk_px = lm.hips(body), lm.trunk_px(body)
    out = np.nan_to_num(way_out(mask, hips + SIDE[:, None] * trunk_px * up, side * across, REACH_TRUNKS * trunk_px) / trunk_px, nan=REACH_TRUNKS)
    begins = _arm_begins(out)
    if begins is None:
        return np.full(2, np.nan)
    aside, from_up = float(np.median(out[:begins][BEFORE])), SIDE[begins] - FROM_TRUNKS
    places = hips + side * across * ((aside + UNDER_TRUNKS) * trunk_px)[:, None] + up * from_up * trunk_px
    return np.array([aside, from_up + _at_the_side(way_out(1.0 - mask, places, up, UP_TRUNKS * trunk_px) / trunk_px)])


def _arm_begins(out: Floats) -> int | None:
    """At which height the way out from the axis is suddenly longer, and stays so; None where at none, or the trunk's side under it is uneven. out: [60]."""
    for i in range(FIRST, len(SIDE) - STAYS):
        before = out[:i][BEFORE]
        if (out[i : i + STAYS] > np.median(before) + JUMP_TRUNKS).all():
            return i if np.abs(before[-EVEN:] - np.median(before)).max() <= EVEN_TRUNKS else None
    return None


def _at_the_side(ways: Floats) -> float:
    """How far up the arm's under side is where it meets the trunk's: on the straight line through the ways up to it; nan where they are on none. ways: [9]."""
    told = np.isfinite(ways)
    if told.sum() < LEAST_WAYS:
        return np.nan
    slope, at = np.polyfit(UNDER_TRUNKS[told], ways[told], 1)
    off = np.abs(ways[told] - (at + slope * UNDER_TRUNKS[told])).max()
    return float(at) if off <= STRAIGHT_TRUNKS else np.nan
