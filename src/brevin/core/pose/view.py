"""From which side the camera sees the player, and how the player sits, stands or lies."""

from collections.abc import Sequence

import numpy as np

from brevin.core.kinds import Position, View
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

SIDE_FROM_DEG = 62.0  # turned at least this far from the camera: the trunk's outline is its front
FRONT_UNTIL_DEG = 25.0  # turned at most this far: both shoulders face the camera
LYING_FROM_DEG = 50.0  # trunk axis against the vertical of the picture; slumped beginners reach 35
KNEES_BELOW = 0.50  # knees further below the hips than this share of the trunk's length: standing
ANKLES_BELOW = 1.25  # the same for the ankles


def turned_deg(body: Body) -> float:
    """How far the body is turned from facing the camera, 0 to 180; + = right side toward the camera.

    From the shoulder and hip lines in the network's rough world coordinates. Source: own.
    """
    lines = [body.world[lm.SHOULDER_L] - body.world[lm.SHOULDER_R], body.world[lm.HIP_L] - body.world[lm.HIP_R]]
    angles = [np.arctan2(line[2], line[0]) for line in lines]
    return float(np.degrees(np.angle(np.mean(np.exp(1j * np.array(angles))))))


def view_of(bodies: Sequence[Body]) -> View:
    """side-left, side-right, front or three-quarter, by the median turn. Raises ValueError without bodies."""
    turn = float(np.median([turned_deg(body) for body in bodies]))
    if abs(turn) <= FRONT_UNTIL_DEG:
        return "front"
    if abs(turn) < SIDE_FROM_DEG:
        return "three-quarter"
    return "side-right" if turn > 0 else "side-left"


def position_of(bodies: Sequence[Body]) -> Position:
    """seated, standing or lying, from the trunk's axis and where knees and ankles are. Source: own."""
    lean, knees, ankles = np.median([_legs(body) for body in bodies], axis=0)
    if lean > LYING_FROM_DEG:
        return "lying"
    return "standing" if knees > KNEES_BELOW and ankles > ANKLES_BELOW else "seated"


def _legs(body: Body) -> Floats:
    """Lean against vertical (deg), the lower knee and the lower ankle below the hips (shares of trunk length); one leg is often misplaced."""
    hip, length = lm.hips(body), lm.trunk_px(body)
    axis = (lm.shoulders(body) - hip) / max(length, 1e-9)
    knees = max(body.points_px[lm.KNEE_L, 1], body.points_px[lm.KNEE_R, 1]) - hip[1]
    ankles = max(body.points_px[lm.ANKLE_L, 1], body.points_px[lm.ANKLE_R, 1]) - hip[1]
    lean = np.degrees(np.arccos(np.clip(-axis[1], -1.0, 1.0)))
    return np.array([lean, knees / max(length, 1e-9), ankles / max(length, 1e-9)])
