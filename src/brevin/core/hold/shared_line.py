"""The line that an instrument's edges share in one picture: its tube between mouth and hands, and what flares about it past the hands.

Places count from the mouth, in trunks. Every edge, and every two that lie apart, propose a line; what lies along one speaks for it on either side of the hands,
and the line with most on both sides is the instrument's. Its direction is that of the edges that go all along it, else of the line through all of them: the two
sides of a bell lean away from it, one each way.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from brevin.core.hold.instruments import Held
from brevin.core.track import Floats

FROM_MOUTH_TRUNKS = 0.19  # an edge of the instrument leads past the mouth this near: a flute that sags lies well under the lower lip; own, of two makers
APART_TRUNKS = 0.3  # two edges that propose a line lie so far apart: nearer, and their own scatter turns it
TUBE_DEG, TUBE_TRUNKS = 5.0, 0.04  # a tube's edges go so nearly along it, so near: it is a child's finger thick; what flares says so itself
PAST_HANDS_TRUNKS = 0.05  # from so far behind the key point of the hand on, what is seen lies past the hands
LEAST_TRUNKS = 0.3  # of edges together: less are folds and fingers
LEAST_NEAR_TRUNKS, LEAST_PAST_TRUNKS = 0.05, 0.1  # of them before and past the hands: less is a cut-off instrument, or a sleeve
PARALLEL_DEG, LENGTHWISE_TRUNKS, MOST_OF_IT = 2.0, 0.5, 0.7  # edges so nearly alike, over so much of the line, so much of all: they tell its direction; own
ANYWHERE_DEG = (-60.0, 89.0)  # what is held to the mouth at all


@dataclass(frozen=True)
class Edges:
    """Edges of one picture that may be the instrument's. ends: [k, 2, 2] trunks from the mouth; hands: [2], likewise; side: +1 where forward is the picture's
    right, else -1."""

    ends: Floats
    hands: Floats
    side: float

    @cached_property
    def way(self) -> Floats:
        """From one end to the other: [k, 2]."""
        return self.ends[:, 1] - self.ends[:, 0]

    @cached_property
    def middle(self) -> Floats:
        """[k, 2]."""
        return self.ends.mean(axis=1)

    @cached_property
    def length(self) -> Floats:
        """[k], trunks."""
        return np.maximum(np.hypot(self.way[:, 0], self.way[:, 1]), 1e-9)


@dataclass(frozen=True)
class SharedLine:
    """way: toward the far end, one long: [2]; below: how far below the mouth it leads past it, trunks."""

    way: Floats
    below: float


@dataclass(frozen=True)
class _Support:
    """What lies along each proposed line. own: which edges do, [k, n]; near, past: how much of them before and past the hands, trunks: [n]."""

    own: NDArray[np.bool_]
    near: Floats
    past: Floats


def shared_line(edges: Edges, held: Held) -> SharedLine | None:
    """The instrument's line between the angles at which anybody holds it, else one that points elsewhere; None where too little goes along any."""
    return _between(edges, held, held.within_deg) or _between(edges, held, ANYWHERE_DEG)


def downward(way: Floats) -> Floats:
    """Across a line, toward the floor: [2]."""
    return np.array([-way[1], way[0]]) * (np.sign(way[0]) or 1.0)


def _between(edges: Edges, held: Held, within_deg: tuple[float, float]) -> SharedLine | None:
    place, ways = _proposed(edges, within_deg)
    if not len(ways):
        return None
    support = _support(edges, held, ways, place)
    fine = (support.near + support.past >= LEAST_TRUNKS) & (support.near >= LEAST_NEAR_TRUNKS) & (support.past >= LEAST_PAST_TRUNKS)
    if not fine.any():
        return None
    both = support.near * support.past / np.maximum(support.near + support.past, 1e-9)  # as much as the smaller one, nearly: a shelf past the hands is one side
    best = int(np.argmax(np.where(fine, both, -1.0)))
    return _told(edges, support.own[:, best], ways[best])


def _proposed(edges: Edges, within_deg: tuple[float, float]) -> tuple[Floats, Floats]:
    """How far below the mouth each line leads past it, and its direction: [n], [n, 2]; those that lead past it near enough, between these angles."""
    middle, (first, second) = edges.middle, np.triu_indices(len(edges.ends), 1)
    between = middle[second] - middle[first]
    apart = np.hypot(between[:, 0], between[:, 1])
    far = apart > APART_TRUNKS
    through = np.concatenate([middle[first[far]], middle])
    ways = np.concatenate([between[far] / apart[far, None], edges.way / edges.length[:, None]])
    ways = ways * np.where(ways[:, 0] * edges.side < 0, -1.0, 1.0)[:, None]
    place = through[:, 1] * ways[:, 0] - through[:, 0] * ways[:, 1]
    low, high = np.tan(np.radians(within_deg))
    slope = ways[:, 1] / np.maximum(edges.side * ways[:, 0], 1e-9)
    keep = (np.abs(place) < FROM_MOUTH_TRUNKS) & (slope > low) & (slope < high)
    return place[keep], ways[keep]


def _support(edges: Edges, held: Held, ways: Floats, place: Floats) -> _Support:
    across = np.stack([-ways[:, 1], ways[:, 0]], axis=1)
    off, turned = np.abs(edges.middle @ across.T - place), np.abs(edges.way @ across.T) / edges.length[:, None]
    one_end, other_end = edges.ends[:, 0] @ ways.T, edges.ends[:, 1] @ ways.T
    hands = held.parted * (ways @ edges.hands) + PAST_HANDS_TRUNKS
    begins, reaches = np.minimum(one_end, other_end) - hands, np.maximum(one_end, other_end) - hands  # [k, n]: how far past the hands
    share_past = np.clip(reaches / np.maximum(reaches - begins, 1e-9), 0.0, 1.0)
    flares = begins > 0.0
    most_off = np.where(flares, held.flares_trunks, TUBE_TRUNKS)
    most_turned = np.where(flares, *np.sin(np.radians([held.flares_deg, TUBE_DEG])))
    along = (one_end + other_end) / 2
    own = (off < most_off) & (turned < most_turned) & (along > -held.behind_trunks) & (along < held.reach_trunks)
    speaks = np.where(own, edges.length[:, None] * (1 - (off / most_off) ** 2) * (1 - (turned / most_turned) ** 2), 0.0)
    return _Support(own, (speaks * (1 - share_past)).sum(axis=0), (speaks * share_past).sum(axis=0))


def _told(edges: Edges, own: NDArray[np.bool_], proposed: Floats) -> SharedLine:
    """The line through the edges that are its own, turned as those that go all along it."""
    ends, length = edges.ends[own], edges.length[own]
    points, weights = ends.reshape(-1, 2), np.repeat(length, 2)
    through: Floats = np.linalg.eigh(np.cov(points.T, aweights=weights))[1][:, 1]
    through = through * (np.sign(through @ proposed) or 1.0)
    units = edges.way[own] / length[:, None]
    units = units * np.where(units @ through < 0, -1.0, 1.0)[:, None]
    alike = units @ units.T > np.cos(np.radians(PARALLEL_DEG))
    reach = ends @ through
    spans = np.where(alike, reach.max(axis=1), -np.inf).max(axis=1) - np.where(alike, reach.min(axis=1), np.inf).min(axis=1)
    lengthwise = np.where(spans > LENGTHWISE_TRUNKS, alike @ length, 0.0)
    most = int(np.argmax(lengthwise))
    way = units[most] if lengthwise[most] >= max(LEAST_TRUNKS, MOST_OF_IT * length.sum()) else through
    return SharedLine(way, float(np.average(points, axis=0, weights=weights) @ downward(way)))
