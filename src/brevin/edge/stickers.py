"""Round bright stickers beside ears, shoulders and hips, as somebody wears them so that these places are surer than key points are."""

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Stickers

REACH_TRUNKS = 0.28  # about a key point: a head that juts out takes the shoulders along in the network by a quarter
COLOURED, STANDS_OUT = 28.0, 24.0  # of CIE Lab: distance from grey, and from what is about it; cloth in a plain room has 10 to 25
COLOURS_DEG = ((92.0, 190.0), (190.0, 305.0), (305.0, 375.0))  # hues of green, blue and pink; between them lie faces, hands and brass
ACROSS_TRUNKS = (0.022, 0.11)  # of a sticker: one to four centimetres on a child
LONGEST, FILLED = 1.8, 0.58  # its longer side over its shorter one, and of the box about it: a disc fills 0.79, a stripe or a letter less
ALIKE_DEG, RIVAL = 28.0, 0.3  # another spot so near in hue, of this share of its area and more, and the cloth is dotted
LEAST_PX = 5.0  # of area: fewer pixels have no middle


def stickers_of(rgb: NDArray[np.uint8], body: Body) -> Stickers | None:
    """The sticker next to each place of a body, None where there is none at all. rgb: [height, width, 3]."""
    trunk_px = lm.trunk_px(body)
    found = [_near(rgb, body.points_px[at], trunk_px) for at in lm.STICKERS]
    if all(one is None for one in found):
        return None
    nowhere = (np.full(2, np.nan), np.nan)
    return Stickers(np.array([(one or nowhere)[0] for one in found]), np.array([(one or nowhere)[1] for one in found]))


def _near(rgb: NDArray[np.uint8], at_px: Floats, trunk_px: float) -> tuple[Floats, float] | None:
    """Middle and hue, degrees, of the one round spot of a colour of its own about a place; None where there is none, or several of one colour."""
    reach = max(int(REACH_TRUNKS * trunk_px), 6)
    low = np.maximum(np.round(at_px).astype(int) - reach, 0)
    part = rgb[low[1] : max(int(at_px[1]) + reach + 1, 0), low[0] : max(int(at_px[0]) + reach + 1, 0)]
    if min(part.shape[:2]) < reach:
        return None
    chroma = cv2.cvtColor(part.astype(np.float32) / 255.0, cv2.COLOR_RGB2LAB)[..., 1:]
    apart = np.hypot(*np.moveaxis(chroma - np.median(chroma.reshape(-1, 2), axis=0), -1, 0))
    hue_deg = np.degrees(np.arctan2(chroma[..., 1], chroma[..., 0])) % 360.0
    bright = (np.hypot(chroma[..., 0], chroma[..., 1]) > COLOURED) & (apart > STANDS_OUT)
    spots = [one for colour in COLOURS_DEG for one in _spots(bright & _between(hue_deg, *colour), apart, hue_deg)]
    alone = [one for one in spots if _round(one.box, trunk_px, part.shape) and not any(one.has_rival(other) for other in spots)]
    best = max(alone, key=lambda one: one.contrast, default=None)
    return None if best is None else (low + best.middle, best.hue_deg)


def _between(hue_deg: Floats, low: float, high: float) -> NDArray[np.bool_]:
    return np.asarray((hue_deg - low) % 360.0 < high - low)


@dataclass(frozen=True)
class _Spot:
    """middle: x, y in the part that was looked at; box: x, y, width, height there, and area; hue_deg: of all of it; contrast: mean distance from what is
    about it."""

    middle: Floats
    box: NDArray[np.int32]
    hue_deg: float
    contrast: float

    def has_rival(self, other: "_Spot") -> bool:
        """Whether another one may as well be the sticker."""
        alike = abs((other.hue_deg - self.hue_deg + 180.0) % 360.0 - 180.0) <= ALIKE_DEG
        return other is not self and alike and int(other.box[cv2.CC_STAT_AREA]) >= RIVAL * int(self.box[cv2.CC_STAT_AREA])


def _spots(inside: NDArray[np.bool_], apart: Floats, hue_deg: Floats) -> list[_Spot]:
    """The spots of one colour that are large enough to have a middle."""
    _, labels, boxes, _ = cv2.connectedComponentsWithStats(inside.astype(np.uint8), connectivity=8)
    found = []
    for label, box in enumerate(boxes):
        if label == 0 or box[cv2.CC_STAT_AREA] < LEAST_PX:
            continue
        own = labels == label
        rows, columns = np.nonzero(own)
        weight, hues = apart[own], np.radians(hue_deg[own])
        mean_deg = float(np.degrees(np.arctan2(np.sin(hues).mean(), np.cos(hues).mean())))
        found.append(_Spot(np.array([columns @ weight, rows @ weight]) / weight.sum(), box, mean_deg % 360.0, float(weight.mean())))
    return found


def _round(box: NDArray[np.int32], trunk_px: float, part_px: tuple[int, ...]) -> bool:
    """Whether a spot has a sticker's size and shape, and ends inside the part that was looked at."""
    x, y, width, height, area = (int(v) for v in box)
    across = 2.0 * np.sqrt(area / np.pi) / max(trunk_px, 1e-9)
    whole = x > 0 and y > 0 and x + width < part_px[1] and y + height < part_px[0]
    shaped = max(width, height) <= LONGEST * min(width, height) + 1 and area >= FILLED * width * height
    return bool(whole and shaped and ACROSS_TRUNKS[0] <= across <= ACROSS_TRUNKS[1])
