"""Made bodies with both forearms raised before the shoulders, and the masks of them."""

from dataclasses import replace

import cv2
import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from tests.core.made import body

SIZE = (700, 900)  # height, width
SLEEVE_TRUNKS, SIDE_TRUNKS, AT_TRUNKS = 0.14, 0.3, 0.3  # half of a sleeve's width, and how far trunk's side and shoulder joint are from the axis


def raised(*, tilt_deg: float = 0.0, falls: tuple[float, float] = (0.3, 0.3), trunk_px: float = 200.0, reach: float = 0.42) -> Body:
    """A body with its forearms before the shoulders. tilt_deg: + = the shoulder at the picture's right higher; falls: of the upper arm at the picture's left
    and right, of its way outward; reach: of trunk, that way."""
    seen = body(view="front", lean_deg=0.0, at_px=(450.0, 500.0), trunk_px=trunk_px)
    points, middle = seen.points_px.copy(), lm.shoulders(seen)
    higher = AT_TRUNKS * np.tan(np.radians(tilt_deg))
    for side, fall, own in ((-1.0, falls[0], (lm.SHOULDER_R, lm.ELBOW_R, lm.WRIST_R)), (1.0, falls[1], (lm.SHOULDER_L, lm.ELBOW_L, lm.WRIST_L))):
        joint = np.array([side * AT_TRUNKS, -side * higher])
        for point, at in zip(own, (joint, joint + reach * np.array([side, fall]), np.array([side * 0.08, -0.35])), strict=True):
            points[point] = middle + trunk_px * at
    return replace(seen, points_px=points)


def drawn(seen: Body, *, without: int | None = None) -> np.ndarray:
    """Trunk and arms as a network's mask has them. without: the elbow of an arm that is left out."""
    trunk_px, hips, shoulders = lm.trunk_px(seen), lm.hips(seen), lm.shoulders(seen)
    mask = np.zeros(SIZE, np.uint8)
    low, high = hips + (-SIDE_TRUNKS * trunk_px, 60.0), shoulders + (SIDE_TRUNKS * trunk_px, 0.0)
    cv2.rectangle(mask, (round(low[0]), round(low[1])), (round(high[0]), round(high[1])), 255, -1)
    for shoulder, elbow, wrist in ((lm.SHOULDER_L, lm.ELBOW_L, lm.WRIST_L), (lm.SHOULDER_R, lm.ELBOW_R, lm.WRIST_R)):
        if elbow != without:
            ends = (seen.points_px[[shoulder, elbow, wrist]] * 16).round().astype(int)
            cv2.polylines(mask, [ends], False, 255, round(2 * SLEEVE_TRUNKS * trunk_px), cv2.LINE_AA, 4)
    return cv2.GaussianBlur(mask, (0, 0), 1.5).astype(np.float32) / 255.0
