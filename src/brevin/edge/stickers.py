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
ALIKE_DEG, RIVAL = 28.0, 0.4  # other spots so near in hue, together of this share of its area and more, and the cloth is dotted
GREY = 128.0  # of CIE Lab in whole numbers
ENOUGH_PX = 100.0  # of trunk: in a larger picture half the pixels, or a third, tell the same
LEAST_REACH = 6
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
    every = max(int(trunk_px // ENOUGH_PX), 1)
    reach = every * max(int(REACH_TRUNKS * trunk_px / every), LEAST_REACH)
    low = np.maximum(np.round(at_px).astype(int) - reach, 0)
    part = rgb[low[1] : max(int(at_px[1]) + reach, 0), low[0] : max(int(at_px[0]) + reach, 0)]
    if min(part.shape[:2]) < reach:
        return None
    small = part if every == 1 else cv2.resize(part, (part.shape[1] // every, part.shape[0] // every), interpolation=cv2.INTER_AREA)
    chroma = cv2.cvtColor(np.ascontiguousarray(small), cv2.COLOR_RGB2LAB)[..., 1:].astype(np.float32) - GREY
    found = _alone(chroma, trunk_px / every)
    if found is None:
        return None
    middle, hue_deg = found
    return low + (middle + 0.5) * (np.array(part.shape[1::-1]) / small.shape[1::-1]) - 0.5, hue_deg


def _alone(chroma: NDArray[np.float32], trunk_px: float) -> tuple[Floats, float] | None:
    """The same in a part of a picture: the one that stands out most. chroma: [height, width, 2]."""
    apart = np.hypot(*np.moveaxis(chroma - np.median(chroma.reshape(-1, 2), axis=0), -1, 0))
    bright = (np.hypot(chroma[..., 0], chroma[..., 1]) > COLOURED) & (apart > STANDS_OUT)
    hue_deg = np.degrees(np.arctan2(chroma[..., 1], chroma[..., 0]))
    best: tuple[float, Floats, float] | None = None
    spots = [_spots(bright & ((hue_deg - low) % 360.0 < high - low), chroma, apart) for low, high in COLOURS_DEG]
    areas, hues = np.concatenate([one.boxes[:, cv2.CC_STAT_AREA] for one in spots]), np.concatenate([one.hue_deg for one in spots])
    for one in spots:
        for i, box in enumerate(one.boxes):
            alike = np.abs((hues - one.hue_deg[i] + 180.0) % 360.0 - 180.0) <= ALIKE_DEG
            rivals = areas[alike].sum() >= (1.0 + RIVAL) * box[cv2.CC_STAT_AREA]
            if not rivals and _round(box, trunk_px, apart.shape) and (best is None or one.contrast[i] > best[0]):
                best = float(one.contrast[i]), _middle(one.labels == one.at[i], apart), float(one.hue_deg[i] % 360.0)
    return None if best is None else best[1:]


@dataclass(frozen=True)
class _Spots:
    """Those of one colour. labels: [height, width]; at: [k] their labels; boxes: [k, 5] x, y, width, height, area; hue_deg, contrast: [k], of all of one, and
    its mean distance from what is about it."""

    labels: NDArray[np.int32]
    at: NDArray[np.int_]
    boxes: NDArray[np.int32]
    hue_deg: Floats
    contrast: Floats


def _spots(inside: NDArray[np.bool_], chroma: NDArray[np.float32], apart: NDArray[np.float32]) -> _Spots:
    count, labels, boxes, _ = cv2.connectedComponentsWithStats(inside.astype(np.uint8), connectivity=8)
    a, b, contrast = (np.bincount(labels.ravel(), values.ravel(), count) for values in (chroma[..., 0], chroma[..., 1], apart))
    at = 1 + np.flatnonzero(boxes[1:, cv2.CC_STAT_AREA] >= LEAST_PX)
    return _Spots(labels, at, boxes[at], np.degrees(np.arctan2(b, a))[at], (contrast / boxes[:, cv2.CC_STAT_AREA])[at])


def _middle(own: NDArray[np.bool_], apart: NDArray[np.float32]) -> Floats:
    rows, columns = np.nonzero(own)
    weight = apart[own]
    return np.array([columns @ weight, rows @ weight]) / weight.sum()


def _round(box: NDArray[np.int32], trunk_px: float, part_px: tuple[int, ...]) -> bool:
    """Whether a spot has a sticker's size and shape, and ends inside the part that was looked at."""
    x, y, width, height, area = (int(v) for v in box)
    across = 2.0 * np.sqrt(area / np.pi) / max(trunk_px, 1e-9)
    whole = x > 0 and y > 0 and x + width < part_px[1] and y + height < part_px[0]
    shaped = max(width, height) <= LONGEST * min(width, height) + 1 and area >= FILLED * width * height
    return bool(whole and shaped and ACROSS_TRUNKS[0] <= across <= ACROSS_TRUNKS[1])
