"""How far head and shoulders wander while somebody plays: what all their key points do together, the camera's own way taken away."""

from collections.abc import Sequence

import numpy as np

from brevin.core.kinematics import trend
from brevin.core.measure import NORMAL_90, Amount, NotMeasured, Value
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Player

POINTS = (lm.NOSE, lm.EYE_L, lm.EYE_R, lm.EAR_L, lm.EAR_R, lm.SHOULDER_L, lm.SHOULDER_R)
CALM_PCT = 0.25  # of trunk: what the points of a body that sits still wander by together; own, over clips of several makers
APART_PCT = 1.0  # of trunk: points that wander apart by more stand on no head and shoulders, but are guessed behind an instrument; own
UNSURE_PCT, UNSURE_SHARE = 0.2, 0.15  # standard errors: of a calm body, and of the wandering, which head and shoulders share unevenly; own


def sway(seen: Sequence[tuple[float, Body]], player: Player, room_pct: Floats) -> Value:
    """Standard deviation of the way of head and shoulders toward the face and back, percent of trunk, without what leads evenly somewhere.

    seen: the player's body at each moment; room_pct: [n] how far the room has gone the same way at each, percent of trunk: the camera's own moves.
    Source: own.
    """
    t_s = np.array([t_s for t_s, _ in seen])
    if not trend.enough(t_s):
        return NotMeasured("seen_briefly")
    ahead = (np.sign(player.forward[0]) or 1.0) * 100.0 / max(player.trunk_px, 1e-9)
    ways = np.array([ahead * body.points_px[POINTS, 0] for _, body in seen]) - room_pct[:, None]
    course = np.column_stack([np.ones(len(t_s)), t_s - t_s.mean()])
    left = ways - course @ np.linalg.lstsq(course, ways, rcond=None)[0]
    together = np.median(left, axis=1)
    apart = float(np.median(np.sqrt(((left - together[:, None]) ** 2).mean(axis=0))))
    if apart > APART_PCT:
        return NotMeasured("points_apart")
    found = float(np.sqrt(max(float(together.var()) - CALM_PCT**2, 0.0)))
    return Amount(found, NORMAL_90 * float(np.hypot(UNSURE_PCT, UNSURE_SHARE * found)))
