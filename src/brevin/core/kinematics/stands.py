"""What stands before the trunk, as a music stand does: its edge looks like an outline, keeps still, and would be read as a belly that does.

A belly's outline goes at least as far as the surface just inside it, which lies farther back on the trunk, and what a body does by itself, swaying a little
all the time, its outline does too. An edge that keeps still in the picture while the surface inside it moves, or the body, is none of the trunk's; nor is one
so near the back that no trunk has room between them.
"""

from dataclasses import dataclass, replace
from itertools import combinations

import numpy as np

from brevin.core import filters
from brevin.core.kinematics.arms import distance
from brevin.core.kinematics.outline import BELLY_TO_PCT
from brevin.core.kinematics.profile import ABDOMEN_FROM
from brevin.core.kinematics.regions import Found, looked_at
from brevin.core.kinematics.rigid import SURELY_OFF_PCT, RigidMotion, followed_points, followed_strips
from brevin.core.track import Floats, Points, Sighting, Strips

INSIDE_PCT, BESIDE_PCT = (2.0, 18.0), 6.0  # of a strip, inward and up or down: the surface that it is held against
LEAST_POINTS, MOST_MOVE = 3, 0.25  # of it; the quantile of their movements that most exceed: a few that are lost move anyhow
STILL_SHARE, MOVES_PCT = 0.3, 0.12  # of the surface's movement, and that in percent of trunk (standard deviations); own, docs/method.md
NO_ARM_TO_PCT = 40.0  # height up to which no arm is held before the belly's outline
THIN_PCT, BACK_STRIPS = 30.0, 4  # of trunk: no trunk is so thin from front to back; own, docs/method.md; strips of the back that tell it
TOGETHER, TOGETHER_PCT = 3, 6.5  # neighbours, within so much height: the middle one of their travels is surer than one's own
NO_SWAY_SHARE, NO_SWAY_GAIN = 0.7, 0.35  # of the body's own movement there, how far they go and what of it they follow; own, docs/method.md
SWAYS_PCT, KEEPS_PCT = 0.05, 0.10  # percent of trunk: the body's movement from which it is told, and what an edge that keeps still seems to go at most
LINE_PCT, LINE_STRIPS, ALONG_PCT = 12.0, 4, 1.5  # of trunk: a straight edge's height at least, how many of its strips keep still, and how near to it all lie
NO_ARM_PCT = 50.0  # of trunk: no forearm is longer than this, so that it is none that rests
AROUND_PCT, AHEAD_PCT = 8.0, 5.0  # up and down, and how much farther forward than what moves there nothing covers it
CALM_S = 0.2


@dataclass(frozen=True)
class Stands:
    """What stands before the trunk. strips: [k] bool, those of the front that are followed and surely lie on it; behind: whether it is before the belly."""

    strips: np.ndarray
    behind: bool

    def without(self, free: np.ndarray, up_pct: Floats) -> np.ndarray:
        """The free strips [k] at their heights without those on it, and without all up to the belly's end where it is before the belly: the edges beside one
        that is surely none of the trunk's are in part none as well."""
        return free & ~self.strips & ~((up_pct < BELLY_TO_PCT) & self.behind)

    def beside(self, belly: Found, front: Strips) -> Found:
        """The belly with its edge before it, as places that were looked at and set aside."""
        low = self.strips & (front.up_pct > ABDOMEN_FROM) & (front.up_pct < BELLY_TO_PCT)
        at_pct = np.column_stack([front.edge_pct, front.up_pct])[low]
        return replace(belly, looked=np.concatenate([belly.looked, looked_at(at_pct, np.ones(len(at_pct), bool), np.zeros(len(at_pct), bool))]))


def what_stands(sighting: Sighting, rigid: RigidMotion) -> Stands:
    """Strips that keep still in the picture before a surface or a body that moves, those along the same straight edge, and those too near the back at their
    height. Nothing from the front, where the outline is the trunk's side. Source: own."""
    front, back, points = sighting.front, sighting.back, sighting.points
    assert front is not None and back is not None and points is not None
    if sighting.view == "front":
        return Stands(np.zeros(len(front.up_pct), bool), False)
    followed = followed_strips(front) & (front.edge_pct > 0.0)
    edges = filters.smooth(front.travel_pct - front.travel_pct.mean(axis=0), sigma_s=CALM_S)
    quiet = followed & (edges.std(axis=0) < KEEPS_PCT)
    sways = _sways(front.up_pct, rigid) if sighting.position != "lying" else np.zeros_like(edges)
    still = _keeps_still(front, edges.std(axis=0), points, sighting.arms_pct) | _keeps_still_of_the_body(front.up_pct, edges, quiet, sways)
    still &= followed
    apart = quiet & (sways.std(axis=0) > SWAYS_PCT) & (edges.std(axis=0) < NO_SWAY_SHARE * sways.std(axis=0))
    line = followed & _along_a_line(front, still, apart)
    strips = still | line | (followed & _thin(front, back))
    belly = (front.up_pct > ABDOMEN_FROM) & (front.up_pct < NO_ARM_TO_PCT) & ~_ahead_of_others(front, followed & ~quiet & ~strips)
    off = distance(np.column_stack([front.edge_pct, front.up_pct]), sighting.arms_pct) >= SURELY_OFF_PCT  # an arm may rest there
    longer = line.any() and float(np.ptp(front.up_pct[line])) > NO_ARM_PCT
    return Stands(strips, bool((belly & strips & (off | (line & longer))).any()))


def _keeps_still(front: Strips, edges_go: Floats, points: Points, arms_pct: Floats) -> np.ndarray:
    """Edges that go little of what the surface inside them does. edges_go: [k] how far each goes, a standard deviation."""
    inside = np.flatnonzero(points.on_body & followed_points(points) & (distance(points.at_pct, arms_pct) > SURELY_OFF_PCT))
    at = points.at_pct[inside]
    inward = front.edge_pct[:, None] - at[None, :, 0]
    near = (inward > INSIDE_PCT[0]) & (inward < INSIDE_PCT[1]) & (np.abs(front.up_pct[:, None] - at[None, :, 1]) < BESIDE_PCT)
    used = near.any(axis=0)
    goes = filters.smooth(points.move_pct[:, inside[used], 0], sigma_s=CALM_S).std(axis=0)
    still = np.zeros(len(front.up_pct), bool)
    for i in np.flatnonzero(near.sum(axis=1) >= LEAST_POINTS):
        there = np.sort(goes[near[i, used]])
        surface = float(there[int(MOST_MOVE * (len(there) - 1))])
        still[i] = surface > MOVES_PCT and edges_go[i] < STILL_SHARE * surface
    return still


def _sways(up_pct: Floats, rigid: RigidMotion) -> Floats:
    """How the body goes forward and back by itself at each height, about its mean: [n, k], percent of trunk."""
    shift, turn = (filters.smooth(one - one.mean(), sigma_s=CALM_S) for one in (rigid.forward_pct, rigid.rotation))
    return np.asarray(shift[:, None] + turn[:, None] * up_pct[None] / 100)


def _keeps_still_of_the_body(up_pct: Floats, edges: Floats, quiet: np.ndarray, sways: Floats) -> np.ndarray:
    """Neighbours that go less than the body does by itself at their height, and not along with it. edges, sways: [n, k] where each strip is, and where the
    body's own motion would have it, about their means; quiet: [k] those that hardly go anywhere."""
    still = np.zeros(len(quiet), bool)
    places = np.flatnonzero(quiet)
    for these in zip(*(places[i:] for i in range(TOGETHER)), strict=False):
        if up_pct[these[-1]] - up_pct[these[0]] > TOGETHER_PCT:
            continue
        edge, sway = np.median(edges[:, these], axis=1), sways[:, these[TOGETHER // 2]]
        if sway.std() > SWAYS_PCT and edge.std() < NO_SWAY_SHARE * sway.std() and float(edge @ sway) < NO_SWAY_GAIN * float(sway @ sway):
            still[list(these)] = True
    return still


def _along_a_line(front: Strips, still: np.ndarray, apart: np.ndarray) -> np.ndarray:
    """Strips on one straight line with most of those that keep still, a pole's or the side of a desk, from the lowest to the highest there that keeps still
    or goes less than the body: [k] bool. None where these are too few, or lie too close together to tell which way it goes."""
    edge, up = front.edge_pct, front.up_pct
    best = np.zeros(len(up), bool)
    for low, high in combinations(np.flatnonzero(still), 2):
        if up[high] - up[low] >= LINE_PCT:
            on_it = np.abs(edge - edge[low] - (up - up[low]) * (edge[high] - edge[low]) / (up[high] - up[low])) < ALONG_PCT
            best = max(best, on_it, key=lambda one: int((one & still).sum()))
    if (best & still).sum() < LINE_STRIPS:
        return np.zeros(len(up), bool)
    span = up[best & (still | apart)]
    return best & (up >= span.min()) & (up <= span.max())


def _ahead_of_others(front: Strips, moving: np.ndarray) -> np.ndarray:
    """Strips farther forward than what moves at their height, as a thigh or a forearm that rests before a belly that is seen: [k] bool."""
    ahead = np.zeros(len(moving), bool)
    for i, (edge, height) in enumerate(zip(front.edge_pct, front.up_pct, strict=True)):
        near = moving & (np.abs(front.up_pct - height) < AROUND_PCT)
        ahead[i] = near.any() and edge - np.median(front.edge_pct[near]) > AHEAD_PCT
    return ahead


def _thin(front: Strips, back: Strips) -> np.ndarray:
    seen = followed_strips(back)
    if seen.sum() < BACK_STRIPS:
        return np.zeros(len(front.up_pct), bool)
    return np.asarray(front.edge_pct - np.interp(front.up_pct, back.up_pct[seen], back.edge_pct[seen]) < THIN_PCT)
