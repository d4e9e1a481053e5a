"""Which key point is which, and the few lines drawn between them."""

import numpy as np

from brevin.core.track import Body, Floats

NOSE, EYE_L, EYE_R, EAR_L, EAR_R, MOUTH_L, MOUTH_R = 0, 2, 5, 7, 8, 9, 10
SHOULDER_L, SHOULDER_R, ELBOW_L, ELBOW_R, WRIST_L, WRIST_R = 11, 12, 13, 14, 15, 16
PINKY_L, PINKY_R, INDEX_L, INDEX_R = 17, 18, 19, 20
HIP_L, HIP_R, KNEE_L, KNEE_R, ANKLE_L, ANKLE_R = 23, 24, 25, 26, 27, 28
HEEL_L, HEEL_R, TOE_L, TOE_R = 29, 30, 31, 32
FEET = ((HEEL_L, TOE_L), (HEEL_R, TOE_R))
TRUNK = (SHOULDER_L, SHOULDER_R, HIP_L, HIP_R)
STICKERS = (EAR_L, EAR_R, SHOULDER_L, SHOULDER_R, HIP_L, HIP_R)  # beside which a sticker is looked for, in this order in all evidence
SLEEVES = ((SHOULDER_L, ELBOW_L), (ELBOW_L, WRIST_L), (SHOULDER_R, ELBOW_R), (ELBOW_R, WRIST_R))
ARM_PIECES = (  # in this order in all evidence that is kept: of the left arm, then of the right one, from the shoulder on
    (SHOULDER_L, ELBOW_L), (ELBOW_L, WRIST_L), (WRIST_L, INDEX_L),
    (SHOULDER_R, ELBOW_R), (ELBOW_R, WRIST_R), (WRIST_R, INDEX_R),
)  # fmt: skip


def middle(points: Floats, left: int, right: int) -> Floats:
    """Point halfway between a left and a right key point: [2]."""
    return (points[left] + points[right]) / 2


def hips(body: Body) -> Floats:
    """Middle of the hips, px: [2]."""
    return middle(body.points_px, HIP_L, HIP_R)


def shoulders(body: Body) -> Floats:
    """Middle of the shoulders, px: [2]."""
    return middle(body.points_px, SHOULDER_L, SHOULDER_R)


def mouth(body: Body) -> Floats:
    """Middle of the mouth, px: [2]."""
    return middle(body.points_px, MOUTH_L, MOUTH_R)


def trunk_px(body: Body) -> float:
    """Middle of the hips to middle of the shoulders, px."""
    return float(np.hypot(*(shoulders(body) - hips(body))))


def trunk_axes(body: Body) -> tuple[Floats, Floats]:
    """Unit vectors in picture coordinates (y down): across the trunk toward the picture's right, and up it from hips to shoulders: [2] each."""
    up = (shoulders(body) - hips(body)) / max(trunk_px(body), 1e-9)
    return np.array([-up[1], up[0]]) * (1.0 if up[1] <= 0 else -1.0), up


def box_px(body: Body) -> tuple[float, float, float, float]:
    """Smallest upright box around the key points that are seen: x, y, width, height."""
    seen = body.points_px[body.visibility > 0.5]
    seen = seen if len(seen) else body.points_px
    low, high = seen.min(axis=0), seen.max(axis=0)
    return float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1])
