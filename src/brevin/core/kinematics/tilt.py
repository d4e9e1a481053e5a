"""How far the phone stands tilted, by the room's upright edges: door frames, corners, shelves stand plumb, whatever the phone leans on.

Upright edges of a camera that looks up or down lean toward each other, the further aside the more: their angle is taken as a straight line over the
picture's width, and told where the player is. Source: own.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brevin.core.measure import NORMAL_90
from brevin.core.track import Floats

ALIKE_DEG = 0.8  # an edge that stands so near to what the others say is one of them
SEEN_DEG = 0.3  # standard error of what all edges of a room together say: frames and shelves are not quite plumb; own
LEAST_SUM, LEAST_SHARE = 1.0, 0.7  # of those that agree: their length in all, picture heights, and their share of all edges' length
APART, LEAST_PLACES = 0.04, 3  # of the picture's width: edges so far apart are two, and there are so many of them
SPAN_LEAST = 0.15  # of the picture's width, between two from which a straight line is drawn
LEAN_MOST_DEG = 20.0  # over the picture's width
TOLD_FROM_DEG = 2.0  # a phone that stands straighter is level: angles are those of the picture


@dataclass(frozen=True)
class Tilt:
    """deg: how far what stands upright leans to the right in the picture, at the player; half_width: of its 90 % interval, degrees."""

    deg: float
    half_width: float

    @property
    def told(self) -> bool:
        """Whether it is large enough to be undone, and to be said."""
        return abs(self.deg) >= TOLD_FROM_DEG

    def facts(self) -> dict[str, float | str]:
        """Degrees, for the person."""
        return {"tilt_deg": round(abs(self.deg))}


def tilt(uprights: Floats, picture_px: tuple[float, float], at_px: float) -> Tilt | None:
    """The tilt by the room's edges, [k, 4] px, two ends each; None where too few agree. picture_px: width and height; at_px: the player's column."""
    if len(uprights) < LEAST_PLACES:
        return None
    first, second = uprights[:, :2], uprights[:, 2:]
    way = np.where(first[:, 1:] > second[:, 1:], second - first, first - second)  # to the upper end
    lean_deg, long = np.degrees(np.arctan2(way[:, 0], -way[:, 1])), np.hypot(*way.T) / picture_px[1]
    aside = ((first + second)[:, 0] / 2.0 - at_px) / picture_px[0]
    agree = _agreeing(lean_deg, long, aside)
    if long[agree].sum() < max(LEAST_SUM, LEAST_SHARE * long.sum()) or _places(aside[agree]) < LEAST_PLACES:
        return None
    weight = np.sqrt(long[agree])
    terms = np.column_stack([np.ones(int(agree.sum())), aside[agree]]) * weight[:, None]
    found, _, _, _ = np.linalg.lstsq(terms, lean_deg[agree] * weight, rcond=None)
    reach = float(np.sqrt(np.linalg.inv(terms.T @ terms / (weight @ weight))[0, 0]))  # over 1 where the player stands beside all edges
    return Tilt(float(found[0]), NORMAL_90 * SEEN_DEG * reach)


def _agreeing(lean_deg: Floats, long: Floats, aside: Floats) -> NDArray[np.bool_]:
    """The edges of the straight line through two of them that most of their length is near to: [k]."""
    apart, more = aside[None, :] - aside[:, None], lean_deg[None, :] - lean_deg[:, None]
    far = np.abs(apart) >= SPAN_LEAST
    slope = np.where(far, more / np.where(far, apart, 1.0), 0.0)
    slope = np.where(np.abs(slope) <= LEAN_MOST_DEG, slope, 0.0)
    off_deg = more[:, None, :] - slope[:, :, None] * apart[:, None, :]  # from, to, of each edge
    near = np.abs(off_deg) <= ALIKE_DEG
    best = np.unravel_index(int(np.argmax(near @ long)), slope.shape)
    return np.asarray(near[best])


def _places(aside: Floats) -> int:
    """How many places apart from each other there are."""
    return 1 + int((np.diff(np.sort(aside)) >= APART).sum()) if len(aside) else 0
