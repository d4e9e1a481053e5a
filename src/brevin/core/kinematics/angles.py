"""How one body's key points stand to each other, at one moment."""

import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Player


def inclination_deg(body: Body, player: Player) -> float:
    """Middle of the hips to middle of the shoulders against the picture's vertical; + = forward, toward the face."""
    axis = lm.shoulders(body) - lm.hips(body)
    ahead = np.sign(player.forward[0]) or 1.0
    return float(np.degrees(np.arctan2(ahead * axis[0], -axis[1])))


def line_deg(body: Body) -> float:
    """The line between both shoulders' key points against level, + = the player's left higher."""
    right, left = body.points_px[lm.SHOULDER_R], body.points_px[lm.SHOULDER_L]
    return float(np.degrees(np.arctan2(right[1] - left[1], abs(left[0] - right[0]))))


def head_forward_pct(body: Body, player: Player) -> float:
    """How far the ear that the camera sees is ahead of the middle of the shoulders, percent of trunk, toward the face."""
    ahead = np.sign(player.forward[0]) or 1.0
    ear = lm.EAR_R if ahead > 0 else lm.EAR_L
    return float(100.0 * ahead * (body.points_px[ear, 0] - lm.shoulders(body)[0]) / max(player.trunk_px, 1e-9))
