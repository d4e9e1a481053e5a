"""The packaged pose network: key points of everyone in a picture and the masks of their outlines."""

import os
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Body

os.environ.setdefault("GLOG_minloglevel", "2")  # the network's own chatter says nothing to a person

ALIGNED_PX = 16  # the network's runtime ends the whole program on a mask whose rows are not so aligned
MOST_PEOPLE = 3  # enough to know that there are others


@dataclass(frozen=True)
class Seen:
    """Bodies of one picture with the mask of each: [height, width], 0 to 1."""

    bodies: tuple[Body, ...]
    masks: tuple[NDArray[np.float32], ...]


class PoseModel:
    """Loads the network once; ``see`` is safe to call from one thread at a time. masks: whether outlines may be asked for, a third of the time."""

    def __init__(self, model: Path, *, masks: bool = True) -> None:
        from mediapipe.tasks.python import BaseOptions, vision  # heavy: loaded only where pictures are read

        options = vision.PoseLandmarkerOptions(
            base_options=BaseOptions(model_asset_path=str(model)),
            running_mode=vision.RunningMode.IMAGE,
            num_poses=MOST_PEOPLE,
            output_segmentation_masks=masks,
        )
        self._landmarker = vision.PoseLandmarker.create_from_options(options)

    def close(self) -> None:
        """Free the network."""
        self._landmarker.close()

    def see(self, rgb: NDArray[np.uint8], *, with_masks: bool) -> Seen:
        """Everyone in one picture. rgb: [height, width, 3]."""
        import mediapipe

        padded = np.pad(rgb, ((0, 0), (0, -rgb.shape[1] % ALIGNED_PX), (0, 0)), mode="edge")
        found = self._landmarker.detect(mediapipe.Image(image_format=mediapipe.ImageFormat.SRGB, data=padded))
        size = np.array([padded.shape[1], padded.shape[0]], float)
        bodies = tuple(
            Body(
                points_px=np.array([[p.x, p.y] for p in points]) * size,
                visibility=np.array([p.visibility for p in points]),
                world=np.array([[p.x, p.y, p.z] for p in world]),
            )
            for points, world in zip(found.pose_landmarks, found.pose_world_landmarks, strict=True)
        )
        masks = tuple(np.array(m.numpy_view()).squeeze()[:, : rgb.shape[1]] for m in (found.segmentation_masks or ())) if with_masks else ()
        return Seen(bodies=bodies, masks=masks)
