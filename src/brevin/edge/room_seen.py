"""What of a picture is room, and the upright edges in it: door frames, corners, shelves, a curtain's folds. Against them a tilted phone is told."""

import cv2
import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats
from brevin.edge.video import Luma

AROUND_SHARE = 0.05  # of a body's height, left out around it
SHORTEST_SHARE = 0.06  # of the picture's height: shorter edges belong to things
WITHIN = float(np.tan(np.radians(20.0)))  # sideways over up: a phone stands no further tilted
MOST_EDGES = 40  # of a picture, the longest


def outside(picture: Luma, bodies: tuple[Body, ...]) -> Luma:
    """Mask of what is room, 255 there: all but the people's boxes with something around them. picture: [height, width], grey."""
    mask = np.full(picture.shape, 255, np.uint8)
    for body in bodies:
        x, y, w, h = lm.box_px(body)
        around = AROUND_SHARE * h
        left, right = (int(np.clip(v, 0, picture.shape[1])) for v in (x - 2 * around, x + w + 2 * around))  # instruments stand out to the sides
        top, bottom = (int(np.clip(v, 0, picture.shape[0])) for v in (y - around, y + h + around))
        mask[top:bottom, left:right] = 0
    return mask


def uprights(picture: Luma, bodies: tuple[Body, ...]) -> Floats:
    """Edges of the room that stand nearly upright, the longest: [k, 4], two ends each, px. picture: [height, width], grey; bodies: everyone in it."""
    found = cv2.createLineSegmentDetector(cv2.LSD_REFINE_STD).detect(np.ascontiguousarray(picture))[0] if min(picture.shape) > 1 else None
    if found is None:
        return np.zeros((0, 4))
    edges = found[:, 0].astype(float)
    way, room = edges[:, 2:] - edges[:, :2], outside(picture, bodies)
    upright = (np.abs(way[:, 1]) >= SHORTEST_SHARE * picture.shape[0]) & (np.abs(way[:, 0]) <= WITHIN * np.abs(way[:, 1]))
    for share in (0.0, 0.5, 1.0):
        column, row = (np.clip(np.rint(edges[:, k] + share * way[:, k]).astype(int), 0, picture.shape[1 - k] - 1) for k in (0, 1))
        upright &= room[row, column] > 0
    edges = edges[upright]
    longest = np.argsort(-np.hypot(*(edges[:, 2:] - edges[:, :2]).T))[:MOST_EDGES]
    return np.asarray(edges[np.sort(longest)])
