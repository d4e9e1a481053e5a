"""The film of the trunk: every video frame turned into the body's own axes, at one size for all players.

Rows run down the trunk's axis, columns from back to front; 2 px are one percent of the trunk's length.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Player

PX_PER_PCT = 2.0  # a trunk of 200 px: about the size it has in a 720p whole-body picture
TOP_PCT, BOTTOM_PCT = 128.0, -25.0  # from the ear to the thighs of a seated player
FRONT_PCT, BACK_PCT = 75.0, -70.0  # a raised forearm and the back of a chair
HEIGHT = int((TOP_PCT - BOTTOM_PCT) * PX_PER_PCT)
WIDTH = int((FRONT_PCT - BACK_PCT) * PX_PER_PCT)


def column(forward_pct: Floats | float) -> Floats:
    """Column of the film where a point ``forward_pct`` of the axis lies, px."""
    return (np.asarray(forward_pct, float) - BACK_PCT) * PX_PER_PCT


def row(up_pct: Floats | float) -> Floats:
    """Row of the film at a height on the trunk, px."""
    return (TOP_PCT - np.asarray(up_pct, float)) * PX_PER_PCT


class PictureMap(Protocol):
    """A map from the working picture to the film."""

    def apply(self, picture: NDArray[Any]) -> NDArray[Any]:
        """The film's view of one picture: [HEIGHT, WIDTH]."""
        ...


@dataclass(frozen=True)
class BodyMap:
    """The fixed map from the working picture to the film. matrix: [2, 3], film pixel to picture pixel."""

    matrix: Floats

    def apply(self, picture: NDArray[Any]) -> NDArray[Any]:
        """The film's view of one picture: [HEIGHT, WIDTH], same kind of number."""
        flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
        return cv2.warpAffine(picture, self.matrix, (WIDTH, HEIGHT), flags=flags, borderMode=cv2.BORDER_REPLICATE)

    @property
    def lying(self) -> bool:
        """Whether the picture's rows run along the film's columns rather than its rows: the player's trunk is nearer to level than to upright."""
        return bool(abs(self.matrix[1, 0]) > abs(self.matrix[1, 1]))


def body_map(player: Player) -> BodyMap:
    """Map for a player: hips at (0, 0), shoulders at 100 % up, face to the right."""
    scale = player.trunk_px / 100.0 / PX_PER_PCT
    forward, up = np.array(player.forward) * scale, np.array(player.up) * scale
    origin = np.array(player.hip_px) + forward * BACK_PCT * PX_PER_PCT + up * TOP_PCT * PX_PER_PCT
    return BodyMap(matrix=np.column_stack([forward, -up, origin]))


def to_body_pct(points_px: Floats, player: Player) -> Floats:
    """Picture points [..., 2] in body coordinates, percent of trunk: forward, up."""
    from_hip = (np.asarray(points_px, float) - np.array(player.hip_px)) / player.trunk_px * 100.0
    return np.stack([from_hip @ np.array(player.forward), from_hip @ np.array(player.up)], axis=-1)


def arms_of(bodies: Sequence[Body], player: Player) -> Floats:
    """Upper arms, forearms and hands in body coordinates, median over a few bodies of the player: [6, 2, 2]."""
    places = to_body_pct(np.median([body.points_px for body in bodies], axis=0), player)
    return np.array([[places[a], places[b]] for a, b in lm.ARM_PIECES])
