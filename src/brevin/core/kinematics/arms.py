"""Where arms lie over the trunk: what lies on them goes along with the shoulders, and is no part of the trunk's own outline, surface or rest."""

import numpy as np

from brevin.core.track import Floats

ARM_REACH = 9.0  # percent of trunk: half width of an arm, with the patch that follows a point
CLEAR_PCT = 20.0  # of trunk from an arm's middle: beyond a loose sleeve, the patch that follows a point, and what key points of an elbow are usually off by
NOWHERE_PCT = 99.0


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
