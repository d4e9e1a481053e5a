"""A picture in which somebody sits up, as if the trunk had sunk: it leans forward, more the higher up, grows shorter, and takes head and arms along."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats

BENDS = 1.5  # power of the height with which it leans: between a straight lean and an arc
SHORTER = 0.5  # percent of trunk for each degree
BACK_AGAIN = 12  # times that the way back is worked out better
BESIDE, FADES = 0.75, 0.5  # of trunk: so far from its axis everything goes along, over the next less and less
UNDER = 0.15  # of trunk below the hips, over which it begins
EVERY_PX = 4  # of the picture are worked out, the rest lies between them


class Sinks:
    """Of pictures of one size. hips_px, shoulders_px: [2] their middles in the upright picture; ahead: 1 where the player faces the picture's right, else -1;
    deg: how far the line from hips to shoulders leans at most."""

    def __init__(self, size_px: tuple[int, int], hips_px: Floats, shoulders_px: Floats, *, ahead: float, deg: float) -> None:
        width, height = size_px
        trunk_px = float(np.hypot(*(shoulders_px - hips_px)))
        up = (shoulders_px - hips_px) / trunk_px
        forward = np.array([-up[1], up[0]]) * ahead
        rough = np.stack(np.meshgrid(np.arange(0, width + EVERY_PX, EVERY_PX), np.arange(0, height + EVERY_PX, EVERY_PX)), axis=-1)
        off = (rough - hips_px) / trunk_px
        aside, above = off @ forward, off @ up
        soft = np.clip((BESIDE + FADES - np.abs(aside)) / FADES, 0.0, 1.0) * np.clip((above + UNDER) / UNDER, 0.0, 1.0)
        at = np.stack([aside, above], axis=-1)
        for _ in range(BACK_AGAIN):  # which place of the upright body has come to each place of the picture
            at += np.stack([aside, above], axis=-1) - _sunk(at, deg)
        way = (aside - at[..., 0])[..., None] * forward + (above - at[..., 1])[..., None] * up
        scaled = np.array([[EVERY_PX, 0.0, 0.0], [0.0, EVERY_PX, 0.0]])
        self._way = cv2.warpAffine(
            (trunk_px * soft[..., None] * way).astype(np.float32), scaled, size_px, flags=cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
        )
        self._place = np.stack(np.meshgrid(np.arange(width), np.arange(height)), axis=-1).astype(np.float32)

    def of(self, upright: NDArray[np.generic], share: float) -> NDArray[np.generic]:
        """The picture, or anything that belongs to its pixels, sunk by a share of all: [height, width, ...]."""
        from_px = self._place - np.float32(share) * self._way
        return np.asarray(cv2.remap(upright, from_px, np.zeros(0, np.float32), cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE))


def _sunk(at: Floats, deg: float) -> Floats:
    """Where places of an upright body, ahead of its axis and up it in trunk lengths, come to: what lies across the axis stays across it. [..., 2]."""
    ahead, up = at[..., 0], at[..., 1]
    along, leans = np.maximum(up, 0.0), np.tan(np.radians(deg))
    slope = leans * BENDS * np.minimum(along, 1.0) ** (BENDS - 1.0)
    way = leans * np.where(along < 1.0, along**BENDS, 1.0 + BENDS * (along - 1.0))
    turned = np.arctan(slope)
    return np.stack([way + ahead * np.cos(turned), up - SHORTER * deg / 100.0 * np.minimum(along, 1.0) - ahead * np.sin(turned)], axis=-1)
