"""What is taken out of a clip that is watched again, as it is known only at its end: the camera's own steps, and a trunk that sank."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.posture import backs_of, bodies_of
from brevin.core.kinematics.sinking import sinking, sunk
from brevin.core.pose import landmarks as lm
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import Floats, Player, PoseSample
from brevin.edge import steady
from brevin.edge.film import BACK_PCT, HEIGHT, PX_PER_PCT, TOP_PCT, WIDTH, BodyMap, PictureMap, body_map, column, row
from brevin.edge.steady import CameraMoves

EVERY_PX = 4  # of the film are worked out, the rest lies between them: over so little a trunk is straight
BETWEEN = np.array([[EVERY_PX, 0.0, 0.0], [0.0, EVERY_PX, 0.0]])
PLACES_PCT: Floats = np.stack(
    np.meshgrid(np.arange(0, WIDTH + EVERY_PX, EVERY_PX) / PX_PER_PCT + BACK_PCT, TOP_PCT - np.arange(0, HEIGHT + EVERY_PX, EVERY_PX) / PX_PER_PCT), axis=-1
)
"""Where on the trunk those pixels of the film are: forward and up, [rows, columns, 2]."""


class Undone(NamedTuple):
    """For one player. camera: None where it kept still; trunk: [n, 3] as ``sinking`` has it, None where it kept."""

    camera: CameraMoves | None
    trunk: Floats | None

    def maps(self, turn: BodyMap) -> Callable[[int], PictureMap]:
        """The map from the picture to the film for each number of a picture."""

        def at(picture: int) -> PictureMap:
            still = turn if self.camera is None else steady.undone(turn, self.camera, picture)
            return still if self.trunk is None else _Sunk(still, self.trunk[picture])

        return at


@dataclass(frozen=True)
class _Sunk:
    """The map of one picture in which the trunk has sunk: the film shows it as it was at first. how: [3]."""

    still: BodyMap
    how: Floats

    def apply(self, picture: NDArray[np.uint8]) -> NDArray[np.uint8]:
        """The film's view of the picture: [HEIGHT, WIDTH], grey."""
        forward, up = np.moveaxis(sunk(self.how, PLACES_PCT), -1, 0)
        columns, rows = column(forward), row(up)
        rough_px = np.stack([one[0] * columns + one[1] * rows + one[2] for one in self.still.matrix], axis=-1).astype(np.float32)
        at_px = cv2.warpAffine(rough_px, BETWEEN, (WIDTH, HEIGHT), flags=cv2.INTER_LINEAR)
        seen = cv2.remap(picture, at_px, np.zeros(0, np.float32), cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        return np.asarray(seen, np.uint8)


def with_trunk(undone: Undone, player: Player, samples: Sequence[PoseSample], t_s: Floats) -> Undone:
    """The same, and the player's trunk where it sinks in a clip from the side. t_s: [n] of the pictures."""
    seen, camera = bodies_of(samples, player), undone.camera
    bodies = [body for _, body in seen]
    if not bodies or view_of(bodies) == "front" or position_of(bodies) == "lying":
        return undone
    turn, seen_s = body_map(player), np.array([moment for moment, _ in seen])
    numbers = np.clip(np.searchsorted(t_s, seen_s), 0, len(t_s) - 1)
    hips, shoulders = (_on_film(turn, camera, numbers, np.array([place(body) for body in bodies])) for place in (lm.hips, lm.shoulders))
    backs = [(moment, back) for moment, back in backs_of(seen, player) if back is not None]
    return Undone(camera, sinking(t_s, hips, shoulders, seen_s, backs))


def _on_film(turn: BodyMap, camera: CameraMoves | None, numbers: NDArray[np.int_], places_px: Floats) -> Floats:
    """Places of some pictures, [m, 2], as the film has them: forward and up, percent of trunk."""
    found = []
    for number, place in zip(numbers, places_px, strict=True):
        matrix = (turn if camera is None else steady.undone(turn, camera, number)).matrix
        across, down = np.linalg.solve(matrix[:, :2], place - matrix[:, 2])
        found.append((across / PX_PER_PCT + BACK_PCT, TOP_PCT - down / PX_PER_PCT))
    return np.array(found).reshape(-1, 2)
