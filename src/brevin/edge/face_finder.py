"""The packaged network that finds faces anywhere in a picture, small ones too: so that nobody who sits at the back is kept unblurred.

It finds what fills an eighth of a picture or more; so each is looked at in overlapping squares of several sizes.
"""

from collections.abc import Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path
from types import TracebackType

import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Face

SQUARES_PX = ((100, 80), (200, 140), (400, 260), (800, 500))  # side and step, of the working picture: every face lies whole in one of them
LEAST = 0.5  # sure of it: rather a wall that is blurred for a pattern on it than a face that is kept; small ones and those in profile are hardly surer
SAME_WIDTHS = 0.5  # nearer together, in the larger one's widths, is one face
EVERY_S, MOST_LOOKS = 5.0, 8  # of a clip: who sits behind sits there all the time, and who walks past is seen by the network of bodies


def beside(pose_model: Path) -> Path:
    """The network's file, beside the pose network's."""
    return pose_model.with_name("faces.tflite")


class FaceFinder:
    """Loads the network once; ``see`` is safe to call from one thread at a time."""

    def __init__(self, model: Path) -> None:
        from mediapipe.tasks.python import BaseOptions, vision  # heavy: loaded only where pictures are read

        options = vision.FaceDetectorOptions(base_options=BaseOptions(model_asset_path=str(model)), min_detection_confidence=LEAST)
        self._network = vision.FaceDetector.create_from_options(options)

    def close(self) -> None:
        """Free the network."""
        self._network.close()

    def see(self, t_s: float, rgb: NDArray[np.uint8]) -> list[Face]:
        """Every face of one picture, the surest first. rgb: [height, width, 3], the working picture."""
        found = [one for square in _squares(rgb.shape[0], rgb.shape[1]) for one in self._in_square(t_s, rgb, *square)]
        kept: list[Face] = []
        for face in sorted(found, key=lambda one: -one.sure):
            if all(np.hypot(*(face.middle_px - one.middle_px)) > SAME_WIDTHS * max(face.width_px, one.width_px) for one in kept):
                kept.append(face)
        return kept

    def _in_square(self, t_s: float, rgb: NDArray[np.uint8], left: int, top: int, side: int) -> Iterator[Face]:
        import mediapipe

        square = np.ascontiguousarray(rgb[top : top + side, left : left + side])
        for one in self._network.detect(mediapipe.Image(image_format=mediapipe.ImageFormat.SRGB, data=square)).detections:
            box = one.bounding_box
            middle = np.array([left + box.origin_x + box.width / 2.0, top + box.origin_y + box.height / 2.0])
            yield Face(t_s, middle, float(box.width), float(one.categories[0].score))


class FacesSeen:
    """Looks for faces in a few of the pictures of a clip that is being looked at, beside that. ``see`` is called from one thread at a time. model: the pose
    network's file."""

    def __init__(self, model: Path) -> None:
        self._finder = FaceFinder(beside(model))
        self._pool = ThreadPoolExecutor(1)
        self._looks: list[Future[list[Face]]] = []

    def see(self, t_s: float, rgb: NDArray[np.uint8]) -> None:
        """Look at a picture, where one is due."""
        if len(self._looks) < MOST_LOOKS and t_s >= len(self._looks) * EVERY_S:
            self._looks.append(self._pool.submit(self._finder.see, t_s, rgb))

    def found(self) -> tuple[Face, ...]:
        """Every face of every look."""
        return tuple(face for look in self._looks for face in look.result())

    def __enter__(self) -> "FacesSeen":
        return self

    def __exit__(self, kind: type[BaseException] | None, why: BaseException | None, trace: TracebackType | None) -> None:
        self._pool.shutdown(cancel_futures=True)
        self._finder.close()


def _squares(height: int, width: int) -> Iterator[tuple[int, int, int]]:
    """Left, top and side of every square."""
    for side_px, step_px in SQUARES_PX:
        side = min(side_px, height, width)
        for top in _begins(height, side, step_px):
            for left in _begins(width, side, step_px):
                yield left, top, side


def _begins(length: int, side: int, step: int) -> list[int]:
    return [*range(0, length - side, step), length - side]
