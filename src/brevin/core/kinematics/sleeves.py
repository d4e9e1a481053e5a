"""A chest that is followed at places which may be half a sleeve's.

Arms that hold an instrument hang or cross before the chest, wider than any line drawn along their middle. A place close to one is followed by a patch that is
part sleeve and part shirt: while the trunk breathes the sleeve stays where it is, and the patch tells a part of the chest's way, or nothing of it. So a chest
that goes far at such places is believed as it is, and one that goes little may have gone farther.
"""

from dataclasses import replace

import numpy as np

from brevin.core import filters
from brevin.core.kinematics.arms import CLEAR_PCT, distance
from brevin.core.kinematics.outline import BELLY_TO_PCT
from brevin.core.kinematics.regions import Found, Region
from brevin.core.track import Floats, Strips

SURE_SHARE = 0.5  # of a chest's places that have to be clear of arms
AS_FAR = 0.5  # of the belly's travel: what goes so far beside it is no sleeve
ALONG = 0.8  # correlation with the belly, going out or in: a sleeve sways with what it holds
HIDDEN = 0.35  # of the belly's travel: what a chest under a sleeve does unseen, standard deviation; own
APART_PCT = 6.5  # of height between strips of one unbroken outline: one strip may be lost between two


def uncovered(chest: Found, abdomen: Region, front: Strips, free: np.ndarray, arms_pct: Floats) -> Found:
    """The chest as found where most of its places are clear of arms; else as far as it will have gone, by up to twice what is seen of it, with an error to
    match. An outline that does not go along with the belly is an arm's and tells no chest.

    free: [k] strips of the front outline that are the trunk's own; arms_pct: [m, 2, 2] the arms' pieces. Source: own."""
    if chest.region is None or _clear(chest.looked, front.up_pct[free], arms_pct):
        return chest
    calm, belly = (filters.smooth(region.values - region.values.mean()) for region in (chest.region, abdomen))
    along = abs(float(np.corrcoef(calm, belly)[0, 1])) >= ALONG
    kept = chest.looked[chest.looked[:, 3] > 0]
    if not along and kept[:, 2].mean() > 0.5:
        return Found(None, np.column_stack([chest.looked[:, :3], np.zeros(len(chest.looked))]))
    return replace(chest, region=_half_seen(chest.region, filters.spread(calm) / max(filters.spread(belly), 1e-6), along=along))


def _half_seen(chest: Region, part: float, *, along: bool) -> Region:
    """part: the chest's travel as seen over the belly's; along: whether it goes along with it."""
    if not along:
        return replace(chest, covered=1.0, leak=float(np.hypot(chest.leak, HIDDEN)))
    covered = float(np.clip(1.0 - part / AS_FAR, 0.0, 1.0))
    times = 1.0 + covered
    leak = float(np.hypot(times * chest.leak, HIDDEN * covered))
    return replace(chest, values=times * chest.values, noise=times * chest.noise, covered=covered, leak=leak)


def _clear(looked: Floats, free_pct: Floats, arms_pct: Floats) -> bool:
    """Whether most of the believed places lie far from arms, or on an outline that goes on from the belly's. looked: as Found has it; free_pct: heights of the
    free strips."""
    kept = looked[looked[:, 3] > 0]
    far = distance(kept[:, :2], arms_pct) >= CLEAR_PCT
    joined = (kept[:, 2] > 0) & (kept[:, 1] <= unbroken_to(free_pct))
    return float(np.mean(far | joined)) >= SURE_SHARE


def unbroken_to(heights_pct: Floats) -> float:
    """How high a free outline goes from the belly up without a gap in which an arm could lie; below all heights where the belly shows none. heights_pct: of
    its strips."""
    belly = heights_pct[heights_pct < BELLY_TO_PCT]
    if not len(belly):
        return -np.inf
    top = float(belly.max())
    for height in np.sort(heights_pct[heights_pct > top]):
        if height - top > APART_PCT:
            break
        top = float(height)
    return top
