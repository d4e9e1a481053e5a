"""Posture from the pose key points: angles of the trunk and of the shoulder line over the clip."""

from collections.abc import Callable, Sequence

import numpy as np

from brevin.core.kinematics.trunk import Traces
from brevin.core.pose import landmarks as lm
from brevin.core.report import Posture, PostureValue
from brevin.core.track import Body, Player, Sighting

NORMAL_90 = 1.645
KEY_POINT_DEG = 2.0  # how far the network's shoulders and hips stand off the anatomical ones, as an angle of the trunk; own, measured on made clips
SWAY_NOISE_PCT = 0.1  # what the back's strips wander by on a still body, percent of trunk; own, measured on made clips
SHOULDER_LINE_DEG = 1.5  # the same for the shoulder line


def posture(sighting: Sighting, moved: Traces) -> Posture:
    """What the view can serve: trunk inclination and sway from the side, shoulder tilt from the front; None elsewhere."""
    player = sighting.player
    if player is None:
        return Posture()
    bodies = [s.bodies[i] for s, i in zip(sighting.poses, player.chosen, strict=True) if i >= 0]
    side = (sighting.view or "").startswith("side") and sighting.position != "lying"
    return Posture(
        trunk_inclination_deg=_over(bodies, lambda b: inclination_deg(b, player), bias_deg=KEY_POINT_DEG) if side else None,
        sway_pct=_sway(moved) if side else None,
        shoulder_tilt_deg=_over(bodies, shoulder_tilt_deg, bias_deg=SHOULDER_LINE_DEG) if sighting.view == "front" else None,
    )


def _sway(moved: Traces) -> PostureValue | None:
    """Standard deviation of the back's own way forward and back over the clip, percent of trunk."""
    if not len(moved.t_s):
        return None
    return PostureValue(value=moved.sway_pct, uncertainty=NORMAL_90 * SWAY_NOISE_PCT, n=len(moved.t_s), by_segment={})


def _over(bodies: Sequence[Body], angle: Callable[[Body], float], *, bias_deg: float) -> PostureValue | None:
    values = np.array([angle(body) for body in bodies])
    if not len(values):
        return None
    scatter = float(values.std() / np.sqrt(len(values)))
    return PostureValue(value=float(np.median(values)), uncertainty=float(NORMAL_90 * np.hypot(scatter, bias_deg)), n=len(values), by_segment={})


def inclination_deg(body: Body, player: Player) -> float:
    """Middle of the hips to middle of the shoulders against the picture's vertical; + = forward, toward the face."""
    axis = lm.shoulders(body) - lm.hips(body)
    ahead = np.sign(player.forward[0]) or 1.0
    return float(np.degrees(np.arctan2(ahead * axis[0], -axis[1])))


def shoulder_tilt_deg(body: Body) -> float:
    """Shoulder line against level in a front view; + = the player's left shoulder higher."""
    line = body.points_px[lm.SHOULDER_L] - body.points_px[lm.SHOULDER_R]
    return float(np.degrees(np.arctan2(-line[1], abs(line[0]))))
