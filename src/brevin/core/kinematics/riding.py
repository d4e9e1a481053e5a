"""What of the belly's outline and surface is an arm's: it goes up with the shoulders, or lies along a forearm and keeps still.

A forearm that hangs before the belly looks like its outline, at the depth a belly may have, and key points of a hidden elbow do not say how wide a sleeve is.
But an arm hangs from the shoulders and goes all of their way up, while the shirt over a belly stays where it is.
"""

import numpy as np

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.kinematics.arms import CLEAR_PCT, distance
from brevin.core.kinematics.outline import BELLY_TO_PCT
from brevin.core.kinematics.regions import MIDDLE_SHARE, Region
from brevin.core.kinematics.rigid import SURELY_OFF_PCT, RigidMotion, followed_points, outline_travel, risen
from brevin.core.track import Floats, Points, Sighting, Strips

RISES_PCT = 1.2  # of trunk: travel of the shoulders from which it is told
INSIDE_PCT, BESIDE_PCT = (-2.0, 6.0), 5.0  # of a strip, inward and up or down: points that lie on the same thing
NEAREST = 3  # of them, to the outline
MOST = 0.5  # of points, of strips
LOWER_ARMS = (1, 2, 4, 5)  # of the pieces of both arms
STILL_PCT = 0.45  # of trunk: an edge that travels less shows no breath
RIDES = (0.7, 1.5)  # of the shoulders' rise: an arm's goes along fully, a shirt over the belly hardly, and what goes farther is another thing


def points_riding(points: Points, rigid: RigidMotion, shoulder: Region | None) -> np.ndarray:
    """Points at the belly's heights that go up with the shoulders: [p] bool; none where these hardly rise or are not seen. A chest's upper half goes up with
    them by itself. Source: own."""
    rides = np.zeros(len(points.at_pct), bool)
    low = np.flatnonzero(points.at_pct[:, 1] < BELLY_TO_PCT)
    if shoulder is None or not len(low):
        return rides
    calm = filters.smooth(shoulder.values - shoulder.values.mean())
    if filters.spread(calm) < RISES_PCT:
        return rides
    gain = calm @ risen(points, rigid, low) / float(calm @ calm)
    rides[low] = (gain > RIDES[0]) & (gain < RIDES[1])
    return rides


def without_arms(sighting: Sighting, free: np.ndarray, rigid: RigidMotion, rides: np.ndarray) -> np.ndarray:
    """The free strips [k] without the belly's where these are an arm's edge: all along a forearm and still, or most of them near an arm with most of the points
    just inside riding. rides: [p] as above. Source: own."""
    front, points, arms_pct = sighting.front, sighting.points, sighting.arms_pct
    assert front is not None and points is not None
    belly = free & (front.up_pct > profile.ABDOMEN_FROM) & (front.up_pct < BELLY_TO_PCT)
    if belly.any() and _a_still_forearm(front, belly, rigid, arms_pct):
        return free & ~belly
    if not rides.any() or not belly.any():
        return free
    followed = points.on_body & followed_points(points)
    near = distance(np.column_stack([front.edge_pct, front.up_pct]), arms_pct) < CLEAR_PCT
    edges = 0
    for i in np.flatnonzero(belly & near):
        inside = front.edge_pct[i] - points.at_pct[:, 0]
        beside = np.abs(points.at_pct[:, 1] - front.up_pct[i]) < BESIDE_PCT
        there = np.flatnonzero(followed & beside & (inside > INSIDE_PCT[0]) & (inside < INSIDE_PCT[1]))
        nearest = there[np.argsort(inside[there])][:NEAREST]
        edges += int(len(nearest) > 0 and np.mean(rides[nearest]) > MOST)
    return free & ~belly if edges > MOST * belly.sum() else free


def _a_still_forearm(front: Strips, belly: np.ndarray, rigid: RigidMotion, arms_pct: Floats) -> bool:
    """Whether all of the belly's strips lie within a sleeve of a forearm and those at its middle hardly move: a low breath behind an arm would seem one of the
    chest alone."""
    if len(arms_pct) <= max(LOWER_ARMS):
        return False
    away = distance(np.column_stack([front.edge_pct, front.up_pct])[belly], arms_pct[list(LOWER_ARMS)])
    middle = belly & (profile.abdomen_share(front.up_pct) > MIDDLE_SHARE)
    goes = [filters.spread(filters.smooth(one)) for one in outline_travel(front, rigid)[:, middle if middle.any() else belly].T]
    return bool((away < SURELY_OFF_PCT).all() and np.median(goes) < STILL_PCT)
