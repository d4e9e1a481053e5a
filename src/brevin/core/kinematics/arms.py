"""Where arms lie over the trunk: what lies on them goes along with the shoulders, and is no part of the trunk's own outline, surface or rest."""

import numpy as np

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

ARM_REACH = 9.0  # percent of trunk: half width of an arm, with the patch that follows a point
CLEAR_PCT = 20.0  # of trunk from an arm's middle: beyond a loose sleeve, the patch that follows a point, and what key points of an elbow are usually off by
NOWHERE_PCT = 99.0
HAND_UP_PCT = 60.0  # of trunk, a wrist over the hips: no instrument is played lower with both hands
CHEST_UP_PCT = (55.0, 60.0, 65.0, 70.0, 75.0, 80.0, 85.0)  # where the front of a chest is looked for in one picture: up from the hips
CHEST_AHEAD_PCT = (15.0, 18.5, 22.0)  # and ahead of the axis, percent of trunk


def distance(points: Floats, pieces: Floats) -> Floats:
    """From each point [p, 2] to the nearest piece of a line between two others [m, 2, 2], in their unit: [p]; far away where there is none."""
    if not len(pieces):
        return np.full(len(points), NOWHERE_PCT)
    start, way = pieces[:, 0], pieces[:, 1] - pieces[:, 0]
    off = points[:, None] - start[None]
    along = np.clip((off * way).sum(axis=2) / np.maximum((way**2).sum(axis=1), 1e-9), 0.0, 1.0)
    gap = off - along[..., None] * way
    nearest: Floats = np.hypot(gap[..., 0], gap[..., 1]).min(axis=1)
    return nearest


def over_chest(body: Body, ahead: float) -> float | None:
    """At which share of the chest's heights an arm lies over its front, by the key points of one picture: before anything is followed there is nothing else.
    None where no hand is up: nothing is played. ahead: 1 where the body faces the picture's right, else -1."""
    across, up = lm.trunk_axes(body)
    own = np.column_stack([ahead * across, up]) * 100.0 / max(lm.trunk_px(body), 1e-9)
    pieces = (body.points_px[np.array(lm.SLEEVES)] - lm.hips(body)) @ own
    if pieces[[1, 3], 1, 1].max() < HAND_UP_PCT:
        return None
    places = np.array([[forward, high] for high in CHEST_UP_PCT for forward in CHEST_AHEAD_PCT])
    return float((distance(places, pieces) < ARM_REACH).reshape(len(CHEST_UP_PCT), -1).any(axis=1).mean())
