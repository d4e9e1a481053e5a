"""How the trunk moves as one body: shift and rotation of the back, rise of the lower back; and what is left of a movement without them."""

from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinematics.arms import ARM_REACH, distance
from brevin.core.track import Floats, Points, Sighting, Strips

MISFIT_MOST = 0.45  # a strip that looks this unlike its reference follows something else
CLEAR_LEAST = 4.0  # grey levels of contrast below which an edge is not followed
POINT_ERROR_MOST = 12.0  # grey levels a followed patch may differ on average
UNSURE_PCT = 0.08  # of trunk: a point whose moves are so unsure counts half
LOWER_BACK_TO_PCT, LOWER_BACK_PCT = 6.0, (-8.0, 40.0)  # how far forward it reaches, and between which heights
LEAST_POINTS, FARTHEST = 3, 6  # of it, from which its rise is told, and how many tell it where an arm hangs over it
SURELY_OFF_PCT = 1.5 * ARM_REACH  # from the middle of an arm: hardly anything that it does is seen there


@dataclass(frozen=True)
class RigidMotion:
    """The trunk as one body, [n] each: forward shift and rise in percent of trunk, rotation in radians (percent per 100 %), from the back and pelvis."""

    forward_pct: Floats
    up_pct: Floats
    rotation: Floats


def trunk_motion(sighting: Sighting) -> RigidMotion:
    """Of who lies on the floor that of the room, which is the camera's own, as the floor carries the trunk and what shows below it is an arm; of anybody else,
    or where no room is seen, that of the back."""
    assert sighting.back is not None and sighting.points is not None
    room = sighting.picture.room_pct
    if sighting.position == "lying" and room.any():
        return RigidMotion(room[:, 0], rise(sighting.points, sighting.arms_pct), np.zeros(len(room)))
    return rigid_motion(sighting.back, sighting.points, sighting.arms_pct)


def rigid_motion(back: Strips, points: Points, arms_pct: Floats) -> RigidMotion:
    """Shift and rotation of the back, fitted over its strips at each moment, strips that disagree left out; rise from points of the lower back,
    the back seen or not."""
    n = len(back.travel_pct)
    use = followed_strips(back)
    if use.sum() < 4:
        return RigidMotion(np.zeros(n), rise(points, arms_pct), np.zeros(n))
    height, move = back.up_pct[use], -back.travel_pct[:, use]
    keep = _coherent(height, move)
    base, rotation = _lines(height[keep], move[:, keep])
    return RigidMotion(base, rise(points, arms_pct, rotation), rotation)


def followed_strips(strips: Strips) -> np.ndarray:
    """Which strips look like their reference over most of the time, on an edge clear enough: [k] bool."""
    return (strips.usual_misfit < MISFIT_MOST) & (strips.clear > CLEAR_LEAST)


def _coherent(height: Floats, move: Floats) -> np.ndarray:
    """Strips that follow the common line: their own scatter about it is within three times the usual."""
    keep = np.ones(len(height), bool)
    for _ in range(3):
        base, rotation = _lines(height[keep], move[:, keep])
        off = (move - base[:, None] - rotation[:, None] * height / 100).std(axis=0)
        keep = off < max(3.0 * float(np.median(off[keep])), 0.05)
        if keep.sum() < 4:
            return np.argsort(off) < 4
    return keep


def _lines(height: Floats, move: Floats) -> tuple[Floats, Floats]:
    """Least-squares line of the move over height at each moment: base [n] and slope per 100 % of height [n]."""
    design = np.column_stack([np.ones_like(height), height / 100])
    solved = np.linalg.lstsq(design, move.T, rcond=None)[0]
    return solved[0], solved[1]


def rise(points: Points, arms_pct: Floats, rotation: Floats | None = None) -> Floats:
    """How far the lower back has gone up, percent of trunk [n]: median of its points by how sure each is, their share of the trunk's rotation taken
    away. arms_pct: [m, 2, 2]."""
    rotation = np.zeros(len(points.move_pct)) if rotation is None else rotation
    at, move = points.at_pct, points.move_pct
    back = _lower_back(points, arms_pct)
    if back.sum() < LEAST_POINTS:
        return np.zeros(len(rotation))
    risen = move[:, back, 1] + rotation[:, None] * at[None, back, 0] / 100
    return filters.weighted_median(risen, how_sure(points.unsure_pct[back, 1]))


def rise_told(points: Points, arms_pct: Floats) -> bool:
    """Whether there are points of the lower back enough to tell how far it went up: where there are none, a body that sways goes up and down by itself."""
    return bool(_lower_back(points, arms_pct).sum() >= LEAST_POINTS)


def _lower_back(points: Points, arms_pct: Floats) -> np.ndarray:
    """Points of the lower back off the arms, the farthest few where an arm hangs over it: that goes up with the shoulders and drags the shirt along."""
    at = points.at_pct
    low = points.on_body & (at[:, 0] < LOWER_BACK_TO_PCT) & (at[:, 1] > LOWER_BACK_PCT[0]) & (at[:, 1] < LOWER_BACK_PCT[1]) & followed_points(points)
    if low.sum() < LEAST_POINTS:
        return low
    away = distance(at, arms_pct)
    few = np.sort(away[low])[-min(FARTHEST, int(low.sum()))]
    return low & (away >= min(SURELY_OFF_PCT, float(few)))


def followed_points(points: Points) -> np.ndarray:
    """Which points look like their reference over most of the time: [p] bool."""
    return points.usual_error < POINT_ERROR_MOST


def how_sure(unsure_pct: Floats) -> Floats:
    """What points count beside one whose moves are known, 0 to 1: [p]. unsure_pct: [p] standard error of a move, percent of trunk. Source: own."""
    weight: Floats = 1.0 / (1.0 + (unsure_pct / UNSURE_PCT) ** 2)
    return weight


def forward(points: Points, rigid: RigidMotion, of: np.ndarray) -> Floats:
    """How far some points went forward with the trunk's own motion taken away: [n, k], percent. of: [k] which."""
    ahead: Floats = points.move_pct[:, of, 0] - rigid.forward_pct[:, None] - rigid.rotation[:, None] * points.at_pct[None, of, 1] / 100
    return ahead


def risen(points: Points, rigid: RigidMotion, of: np.ndarray) -> Floats:
    """How far some points went up with the trunk's own motion taken away: [n, k], percent. of: [k] which."""
    up: Floats = points.move_pct[:, of, 1] - rigid.up_pct[:, None] + rigid.rotation[:, None] * points.at_pct[None, of, 0] / 100
    return up


def outline_travel(front: Strips, rigid: RigidMotion) -> Floats:
    """Travel of the front outline with the trunk's own motion taken away: [n, k], forward, percent."""
    own: Floats = front.travel_pct - rigid.forward_pct[:, None] - rigid.rotation[:, None] * front.up_pct[None] / 100
    return own
