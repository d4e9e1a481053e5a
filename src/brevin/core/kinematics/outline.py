"""Which strips of the front outline are the trunk's own: no arm across, no instrument, no thigh."""

from statistics import median

import numpy as np

from brevin.core.kinematics.arms import ARM_REACH, distance
from brevin.core.kinematics.rigid import followed_strips
from brevin.core.track import Floats, Strips

TRUNK_EDGE = (4.0, 30.0)  # front outline ahead of the axis: outside it is an arm, the instrument or a thigh
EDGE_JUMP = 7.0  # outline further out than its neighbour below by this: an arm begins
NEIGHBOUR_PCT = 4.0
STEEP, STEEP_OVER_PCT = 0.5, 6.1  # forward a height by which no chest's outline runs, over so much of the height to both sides
BELLY_TO_PCT = 46.0  # height up to which a belly may bow out over the lap


def free_outline(front: Strips, arms_pct: Floats) -> np.ndarray:
    """Strips whose outline is the trunk's own: clear, alike over time, at the trunk's depth, with no arm across and no sudden step outward."""
    free = followed_strips(front) & (front.edge_pct > TRUNK_EDGE[0]) & (front.edge_pct < TRUNK_EDGE[1])
    free &= distance(np.column_stack([front.edge_pct, front.up_pct]), arms_pct) >= 0.6 * ARM_REACH  # no piece of an arm lies on the outline there
    kept: list[float] = []
    for i in (int(k) for k in np.flatnonzero(free)):
        if kept and front.edge_pct[i] - median(kept[-4:]) > EDGE_JUMP:
            free[i] = False
        else:
            kept.append(float(front.edge_pct[i]))
    free &= ~_runs_off(front, free)
    return free & _has_neighbour(front.up_pct, free)


def _runs_off(front: Strips, free: np.ndarray) -> np.ndarray:
    """Strips of the chest's heights where the free outline about them runs forward or back so fast with the height as an arm does and no chest."""
    off = np.zeros(len(free), bool)
    for i in np.flatnonzero(free & (front.up_pct > BELLY_TO_PCT)):
        slope = slope_about(front, free, int(i))
        off[i] = slope is not None and abs(slope) >= STEEP
    return off


def slope_about(front: Strips, among: np.ndarray, i: int) -> float | None:
    """How far forward the outline runs a height about strip i; None where fewer than three strips among those given lie near."""
    near = among & (np.abs(front.up_pct - front.up_pct[i]) < STEEP_OVER_PCT)
    if near.sum() <= 2:
        return None
    height, edge = front.up_pct[near], front.edge_pct[near]
    height = height - height.mean()
    return float(height @ edge / (height @ height))


def _has_neighbour(up_pct: Floats, free: np.ndarray) -> np.ndarray:
    """Whether another free strip lies next to each: a lone one between arms follows a sleeve or a chin."""
    heights = up_pct[free]
    return np.array([np.sum(np.abs(heights - h) < NEIGHBOUR_PCT) > 1 for h in up_pct], bool)
