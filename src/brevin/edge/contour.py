"""The outline about shoulders and armpits as the picture itself has it: the network's mask is smooth and lies up to a tenth of a trunk over it, beside the
neck most.

Colours inside and outside of the mask tell what belongs to the body between the two (graph cuts over colour mixtures, OpenCV's ``grabCut``).
"""

from dataclasses import replace
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.pose.armpits import armpits_of, arms_out
from brevin.core.pose.shape import shape_of
from brevin.core.track import Body, Shape

Mask = NDArray[np.float32]


class Around(NamedTuple):
    """A part of the picture about the shoulders' middle, in trunks: so far to both sides, over and under it."""

    aside: float
    over: float
    under: float


SHOULDERS = Around(0.62, 0.42, 0.3)
ARMPITS = Around(0.8, SHOULDERS.over, 0.6)  # the shoulders as well, the trunk's side under them and the arms beside them
FRONT_SHARE = 0.5  # shoulders so far apart, of the trunk, are seen from the front
TRUNK_PX = 130.0  # a larger trunk is made so large: finer tells no more, and costs
OUT_TRUNKS, IN_TRUNKS = 0.08, 0.18  # so far outside the mask nothing is the body, so far inside it everything is
ROUNDS = 3  # more change nothing
LEAST_PX = 12  # a smaller part has nothing to cut
SOFT_PX = 1.0  # the cut is a step; so much of it is spread, so that its place between two pixels can be told


def outlined(mask: Mask, rgb: NDArray[np.uint8], body: Body) -> Shape | None:
    """The outline about a body, its shoulders and, where its arms stand out, its armpits as the picture has them. mask: [height, width], 0 to 1; rgb: [height,
    width, 3], the same picture; None where the body is too small."""
    out = arms_out(body)
    cut = sharper(mask, rgb, body, ARMPITS if out else SHOULDERS)
    found = shape_of(mask, body, cut)
    return replace(found, pits_pct=armpits_of(cut, body)) if out and found is not None else found


def sharper(mask: Mask, rgb: NDArray[np.uint8], body: Body, around: Around = SHOULDERS) -> Mask:
    """A body's mask with its outline in one part cut by colour: [height, width], 0 to 1; the mask itself where it is not seen from the front.
    rgb: [height, width, 3], the same picture."""
    trunk_px, middle = lm.trunk_px(body), lm.shoulders(body)
    if abs(float(body.points_px[lm.SHOULDER_L, 0] - body.points_px[lm.SHOULDER_R, 0])) < FRONT_SHARE * trunk_px:
        return mask
    height, width = mask.shape
    left, right = np.clip((middle[0] + np.array([-1.0, 1.0]) * around.aside * trunk_px).astype(int), 0, width)
    top, bottom = np.clip((middle[1] + np.array([-around.over, around.under]) * trunk_px).astype(int), 0, height)
    if min(right - left, bottom - top) < LEAST_PX:
        return mask
    own = _cut(rgb[top:bottom, left:right], mask[top:bottom, left:right], trunk_px)
    if own is None:
        return mask
    whole = mask.copy()
    whole[top:bottom, left:right] = own
    return whole


def _cut(rgb: NDArray[np.uint8], mask: Mask, trunk_px: float) -> Mask | None:
    """That part of the mask by its colours; None where the mask leaves nothing to tell them by."""
    scale = min(TRUNK_PX / max(trunk_px, 1e-9), 1.0)
    size = (max(round(mask.shape[1] * scale), 1), max(round(mask.shape[0] * scale), 1))
    small, inside = cv2.resize(rgb, size, interpolation=cv2.INTER_AREA), (cv2.resize(mask, size, interpolation=cv2.INTER_AREA) > 0.5).astype(np.uint8)
    out_px, in_px = OUT_TRUNKS * trunk_px * scale, IN_TRUNKS * trunk_px * scale
    told = np.where(inside, cv2.GC_PR_FGD, cv2.GC_PR_BGD).astype(np.uint8)
    told[cv2.distanceTransform(1 - inside, cv2.DIST_L2, 5) > out_px] = cv2.GC_BGD
    told[cv2.distanceTransform(inside, cv2.DIST_L2, 5) > in_px] = cv2.GC_FGD
    return cut_by_colour(small, told, mask.shape)


def cut_by_colour(rgb: NDArray[np.uint8], told: NDArray[np.uint8], shape: tuple[int, ...]) -> Mask | None:
    """What is the body of a picture by its colours: of that shape, 0 to 1; None where what is told for sure leaves nothing to tell them by.

    told: [height, width], what is known of each place, and what is likely, as OpenCV's grabCut has it; changed in place."""
    if not (told == cv2.GC_BGD).any() or not (told == cv2.GC_FGD).any():
        return None
    cv2.setRNGSeed(0)  # its mixtures start from chance: a clip read twice reads the same
    cv2.grabCut(rgb, told, None, np.zeros((1, 65)), np.zeros((1, 65)), ROUNDS, cv2.GC_INIT_WITH_MASK)
    own = cv2.GaussianBlur((told & 1).astype(np.float32), (0, 0), SOFT_PX)
    return cv2.resize(own, (shape[1], shape[0]), interpolation=cv2.INTER_LINEAR)
