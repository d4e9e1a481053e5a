"""A face before a mirror: the line of the eyes, and the middle line against which a mouthpiece is set."""

from dataclasses import dataclass

import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

NOSE_SHARE = (0.25, 0.75)  # of the way from eye to eye: outside it the face is turned, and its middle line with it
APART_SHARE = 0.5  # of the way from eyes to mouth: eyes closer together than this are seen from the side
SURE_SHARE = 0.5  # visibility of a key point under which it is a guess


@dataclass(frozen=True)
class Face:
    """eyes_px: between the eyes, [2]; across_px: from the player's right eye to the left, [2]; mouth_px: middle of the mouth, [2]."""

    eyes_px: Floats
    across_px: Floats
    mouth_px: Floats


def face_of(body: Body) -> Face | None:
    """The face of somebody who looks into the camera; None where it is turned aside or not seen."""
    sure = body.visibility[[lm.NOSE, lm.EYE_L, lm.EYE_R]]
    left, right = body.points_px[lm.EYE_L], body.points_px[lm.EYE_R]
    across = left - right
    apart_px = float(np.hypot(*across))
    eyes, mouth = (left + right) / 2, lm.mouth(body)
    if sure.min() < SURE_SHARE or apart_px < max(APART_SHARE * float(np.hypot(*(mouth - eyes))), 1.0):
        return None
    share = float((body.points_px[lm.NOSE] - right) @ across) / apart_px**2
    if not NOSE_SHARE[0] <= share <= NOSE_SHARE[1]:
        return None
    return Face(eyes_px=eyes, across_px=across, mouth_px=mouth)


def steadied(faces: list[Face]) -> Face:
    """The median of the last few: key points tremble by a few pixels from picture to picture, a face does not."""
    return Face(*(np.median([getattr(face, name) for face in faces], axis=0) for name in ("eyes_px", "across_px", "mouth_px")))
