"""The chest by its upper end: what shows of it between an arm that is held in front of it and the neck.

Where arms and instrument hide the chest, its outline is still seen over the upper arm, three to nine percent of trunk under the neck. It moves along with the
hidden rest, in the same moments, but by so little, and so differently from body to body, that it tells roughly how far the chest went, and not that it stood
still: what does not move there says nothing.
"""

import numpy as np

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.kinematics.outline import STEEP, TRUNK_EDGE, slope_about
from brevin.core.kinematics.regions import NOISE_ALONE, TRAVEL_MOST, Found, Region, looked_at
from brevin.core.kinematics.rigid import RigidMotion, followed_strips, outline_travel
from brevin.core.track import Floats, Sighting, Strips

HEIGHTS_PCT = (91.5, 97.5)  # over an arm that is held forward, under the neck
TIMES_ASSUMED = 1.25  # of the profile's share there, with the arms forward; own, over clips of two makers
MODEL_ERROR = 0.45  # share of the amplitude that may be wrong; own, over the bare and the half hidden chests of the same
LEAST_PCT = 1.2  # of trunk, of the whole chest: what moves less there is no word on the chest
ALIKE = 0.7  # with the belly, going out or in: a head that nods moves the neck at other times


def by_upper_end(sighting: Sighting, rigid: RigidMotion, abdomen: Region, tried: Found) -> Found:
    """The chest by its upper end; what was tried before where that does not show or does not move along. tried: places that told no chest."""
    assert sighting.front is not None
    front, shown = sighting.front, upper_end(sighting.front)
    if not shown.any():
        return tried
    share = TIMES_ASSUMED * profile.chest_share(front.up_pct[shown])
    moves = outline_travel(front, rigid)[:, shown]
    trace = moves @ share / (share @ share)
    if not _moves_along(trace, abdomen.values):
        return tried
    places = looked_at(np.column_stack([front.edge_pct, front.up_pct])[shown], np.ones(len(share), bool), np.ones(len(share), bool))
    return Found(Region(trace, MODEL_ERROR, NOISE_ALONE / float(np.sqrt(share @ share))), np.concatenate([tried.looked, places]))


def upper_end(front: Strips) -> np.ndarray:
    """Which strips of the front outline are the chest's upper end: clear, no farther forward than a trunk, in line with those under and over it: [k] bool."""
    followed = followed_strips(front) & (front.edge_pct > TRUNK_EDGE[0]) & (front.edge_pct < TRUNK_EDGE[1])
    found = np.zeros(len(followed), bool)
    for i in np.flatnonzero(followed & (front.up_pct > HEIGHTS_PCT[0]) & (front.up_pct < HEIGHTS_PCT[1])):
        slope = slope_about(front, followed, int(i))
        found[i] = slope is not None and abs(slope) < STEEP
    return found


def _moves_along(trace: Floats, belly: Floats) -> bool:
    calm, other = filters.smooth(trace), filters.smooth(belly)
    return LEAST_PCT < filters.spread(calm) < TRAVEL_MOST and abs(float(np.corrcoef(calm, other)[0, 1])) > ALIKE
