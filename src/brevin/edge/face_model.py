"""The packaged face network: where the middle line and the eyes of a face are that looks into the camera.

It wants a face upright and of one size. The key points say where to look first, and what is found there, where to look again.
"""

from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Features, Floats

SIDE_PX = 192  # of the picture that the network takes
ROUNDS = 3
FIRST_WAYS = 4.2  # of the way from eyes to mouth: side of the first look
AROUND = 1.5  # of the face's own larger side: of each later one
ASIDE_WAYS = 0.45  # of that way: eyes closer together are those of a face seen from the side
LEAST_WAY_PX = 4.0  # a smaller face is none
FOREHEAD, CHIN, EYE_R, EYE_L = 10, 152, 33, 263  # of the network's 468 points
NOBODY = Features(np.full((2, 2), np.nan), np.full((2, 2), np.nan), 0.0)


def beside(pose_model: Path) -> Path:
    """The face network's file, beside the pose network's."""
    return pose_model.with_name("face.tflite")


class FaceModel:
    """Loads the network once; ``see`` is safe to call from one thread at a time."""

    def __init__(self, model: Path) -> None:
        self._network = cv2.dnn.readNetFromTFLite(str(model))
        self._outputs = self._network.getUnconnectedOutLayersNames()

    def see(self, rgb: NDArray[np.uint8], body: Body) -> Features:
        """The face of a body. rgb: [height, width, 3]."""
        eyes, mouth = lm.middle(body.points_px, lm.EYE_L, lm.EYE_R), lm.mouth(body)
        way = mouth - eyes
        way_px = float(np.hypot(*way))
        across_px = float(np.hypot(*(body.points_px[lm.EYE_L] - body.points_px[lm.EYE_R])))
        if way_px < LEAST_WAY_PX or across_px < ASIDE_WAYS * way_px:
            return NOBODY
        middle, side_px, turn = (eyes + mouth) / 2, FIRST_WAYS * way_px, float(np.arctan2(way[1], way[0]) - np.pi / 2)
        points, sure = np.zeros((0, 2)), 0.0
        for _ in range(ROUNDS):
            points, sure = self._points(rgb, middle, side_px, turn)
            across = points[EYE_L] - points[EYE_R]
            turn = float(np.arctan2(across[1], across[0]))
            upright = points @ _turned(turn).T
            low, high = upright.min(axis=0), upright.max(axis=0)
            middle, side_px = (low + high) / 2 @ _turned(turn), AROUND * float((high - low).max())
            if not np.isfinite(side_px):
                return NOBODY
        return Features(points[[FOREHEAD, CHIN]], points[[EYE_R, EYE_L]], sure)

    def _points(self, rgb: NDArray[np.uint8], middle: Floats, side_px: float, turn: float) -> tuple[Floats, float]:
        """The network's points in the picture, [468, 2], and how sure it is that this is a face."""
        scale = SIDE_PX / max(side_px, 1.0)
        into = scale * _turned(turn)
        half = np.full(2, SIDE_PX / 2)
        upright = cv2.warpAffine(rgb, np.column_stack([into, half - into @ middle]), (SIDE_PX, SIDE_PX), borderMode=cv2.BORDER_REPLICATE)
        self._network.setInput(cv2.dnn.blobFromImage(upright, 1.0 / 255.0))
        answers = self._network.forward(self._outputs)
        points = next(one for one in answers if one.size > 1).reshape(-1, 3)[:, :2].astype(float)
        score = float(next(one for one in answers if one.size == 1).ravel()[0])
        return (points - half) @ np.linalg.inv(into).T + middle, float(1.0 / (1.0 + np.exp(-score)))


def _turned(turn: float) -> Floats:
    """What turns a place in the picture so that a line that falls by so much, rad, lies level: [2, 2]."""
    return np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
