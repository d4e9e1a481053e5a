"""The packaged hand network: the joints of a raised hand, told from a picture of that hand alone.

In a picture of the whole player a hand is a few dozen pixels and is not found; the key points say where to cut it out.
"""

from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Hand

SIDE_PX = 320  # of the picture that the network is given
AROUND_TRUNKS = 0.9  # side of what is cut out
AHEAD_TRUNKS = 0.14  # from the wrist to about the middle of the hand
RAISED_TRUNKS = 0.2  # over the hips: a hand that lies in the lap or hangs holds nothing up
LEAST_TRUNK_PX = 60.0  # a hand of a smaller player is a dozen pixels
FAINTEST, SUREST = 0.3, 0.95  # how sure the network's first look has to be, and its second, at the joints of what the first took for a hand
NONE = Hand(np.full((21, 2), np.nan), np.full((21, 3), np.nan), 0.0)
HANDS = {"left": (lm.WRIST_L, lm.PINKY_L, lm.INDEX_L), "right": (lm.WRIST_R, lm.PINKY_R, lm.INDEX_R)}


def beside(pose_model: Path) -> Path:
    """The hand network's file, beside the pose network's."""
    return pose_model.with_name("hand.task")


class HandModel:
    """Loads the network once; ``see`` is safe to call from one thread at a time."""

    def __init__(self, model: Path) -> None:
        from mediapipe.tasks.python import BaseOptions, vision  # heavy: loaded only where pictures are read

        options = vision.HandLandmarkerOptions(
            base_options=BaseOptions(model_asset_path=str(model)), running_mode=vision.RunningMode.IMAGE, num_hands=2,
            min_hand_detection_confidence=FAINTEST, min_hand_presence_confidence=SUREST,
        )  # fmt: skip
        self._landmarker = vision.HandLandmarker.create_from_options(options)

    def close(self) -> None:
        """Free the network."""
        self._landmarker.close()

    def see(self, rgb: NDArray[np.uint8], body: Body) -> tuple[Hand, Hand] | None:
        """The left and the right hand of a body, ``NONE`` for one that is not found; None where no hand is raised. rgb: [height, width, 3]."""
        trunk_px, (_, up) = lm.trunk_px(body), lm.trunk_axes(body)
        above = {side: float((body.points_px[wrist] - lm.hips(body)) @ up) for side, (wrist, _, _) in HANDS.items()}
        raised = {side for side in HANDS if above[side] >= RAISED_TRUNKS * trunk_px}
        if trunk_px < LEAST_TRUNK_PX or not raised:
            return None
        left, right = (self._hand(rgb, body, side) if side in raised else NONE for side in HANDS)
        return left, right

    def _hand(self, rgb: NDArray[np.uint8], body: Body, side: str) -> Hand:
        import mediapipe

        wrist, middle, wide_px = _place(body, side)
        by = SIDE_PX / wide_px
        into = np.column_stack([by * np.eye(2), SIDE_PX / 2 - by * middle])
        cut = np.ascontiguousarray(cv2.warpAffine(rgb, into, (SIDE_PX, SIDE_PX), borderMode=cv2.BORDER_REPLICATE))
        found = self._landmarker.detect(mediapipe.Image(image_format=mediapipe.ImageFormat.SRGB, data=cut))
        hands = [
            Hand(
                points_px=(np.array([[p.x, p.y] for p in points]) - 0.5) * wide_px + middle,
                world=np.array([[p.x, p.y, p.z] for p in world]),
                sure=float(named[0].score if named[0].category_name.lower() == side else 1.0 - named[0].score),
            )
            for points, world, named in zip(found.hand_landmarks, found.hand_world_landmarks, found.handedness, strict=True)
        ]
        return min(hands, key=lambda hand: float(np.hypot(*(hand.points_px[0] - wrist))), default=NONE)


def _place(body: Body, side: str) -> tuple[Floats, Floats, float]:
    """Where a wrist is, about where the middle of its hand, and how wide to look, px."""
    at, pinky, index = HANDS[side]
    points, trunk_px = body.points_px, lm.trunk_px(body)
    ahead = (points[pinky] + points[index]) / 2 - points[at]
    return points[at], points[at] + AHEAD_TRUNKS * trunk_px * ahead / max(float(np.hypot(*ahead)), 1e-9), AROUND_TRUNKS * trunk_px
