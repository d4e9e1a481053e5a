"""Corners of the room that can be followed, all over a picture, so that some stand still if the camera does, however many children fidget before it."""

from itertools import pairwise
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats
from brevin.edge.points import unsure_px

APART_PX, WEAKEST = 12, 0.01  # of each other; of the strongest of its part of the picture
CELLS, OF_EACH = (8, 5), 4  # parts across and down, and corners of each
WINDOW_PX, UNSURE_MOST_PX = 15, 0.6  # around each, and how unsure its moves may be: a plain wall's points slide along it
REST_LEAST, REST_REACH = 6, 0.3  # that stand still, and how far apart they are, of the picture's width: a logo is small

Grey = NDArray[np.uint8]


def at_rest(places: Floats, resting: NDArray[np.bool_], width_px: float) -> bool:
    """Whether those that rest, of some points of the room, are enough and far enough apart to say that the camera stands still: [p, 2], [p]. Before a camera
    that moves none does."""
    return bool(resting.sum() >= REST_LEAST and np.ptp(places[resting], axis=0).max() > REST_REACH * width_px)


def corners(picture: Grey, free: Grey) -> NDArray[np.float32]:
    """The strongest corners of each part of a picture, of which it tells the place both ways: [p, 2]. free: where they are wanted, not 0 there."""
    height, width = picture.shape
    found = [np.zeros((0, 2), np.float32)]
    columns, rows = (np.linspace(0, side, parts + 1).astype(int) for side, parts in zip((width, height), CELLS, strict=True))
    for left, right in pairwise(columns):
        for top, bottom in pairwise(rows):
            part, mask = picture[top:bottom, left:right], free[top:bottom, left:right]
            own: Any = cv2.goodFeaturesToTrack(part, OF_EACH, WEAKEST, APART_PX, mask=mask, blockSize=7) if mask.any() else None
            if own is not None:
                found.append(own[:, 0].astype(np.float32) + np.array([left, top], np.float32))
    return sure(picture, np.concatenate(found))


def sure(picture: Grey, points: NDArray[np.float32]) -> NDArray[np.float32]:
    """Those of some points that a picture tells the place of, both ways: [p, 2]."""
    return points[unsure_px(picture, points, WINDOW_PX).max(axis=1) < UNSURE_MOST_PX] if len(points) else points
