"""From everything that is followed on the trunk to the movement of abdomen and chest."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.kinematics.arms import ARM_REACH, CLEAR_PCT, distance
from brevin.core.kinematics.belly import USUAL, BellyHeight, belly_height
from brevin.core.kinematics.outline import BELLY_TO_PCT
from brevin.core.kinematics.rigid import RigidMotion, followed_points, followed_strips, forward, how_sure, outline_travel
from brevin.core.track import Floats, Sighting, Strips

EDGE_CLEAR, PICTURE_PCT = 3.0, 6.0  # a point nearer to the outline is half background; half of the picture that follows a point, and a little
LEAST_STRIPS, LEAST_PLACES, ENOUGH_STRIPS = 2, 3, 4  # from which a region is seen on its outline; that it needs; of outline that need no flank
JUMPS_TIMES, JUMPS_LEAST = 4.0, 0.10  # times the usual, and percent of trunk, from frame to frame: a place that jumps more is lost
TRAVEL_MOST = 9.0  # percent of trunk: no belly and no chest goes farther in a breath; a sleeve or an instrument does
LEAST_SHARE, MIDDLE_SHARE = 0.35, 0.82  # of a region's largest travel: places that move less say little of it; and one or two alone that move less than this
POINT_WEIGHT = 0.25  # of a texture point beside a strip of outline
NEIGHBOURS_ALIKE = 3.0  # strips or points that see the same error of the picture
NOISE_MOST_OUTLINE, NOISE_MOST_FLANK, NOISE_ALWAYS = 0.25, 0.10, 0.12  # share of the travel by which places may differ, and percent of trunk
NOISE_ALONE = 0.06  # percent of trunk, of a single strip, which nothing can be held against
ALIKE_SURE = 0.95  # the same where only one place moves far enough
ALIKE = 0.85  # correlation with the common movement from which a place belongs to it
LEAK_ERROR = 0.06  # of the abdomen's travel: how wrong its assumed share may be at the chest's heights, where it ends
MODEL_ERROR_OUTLINE, MODEL_ERROR_FLANK = 0.12, 0.2  # share of an amplitude that the assumed profile may be wrong by


@dataclass(frozen=True)
class Region:
    values: Floats  # [n], percent of trunk
    model_error: float
    noise: float  # standard deviation of what is not the region's own movement, percent of trunk
    leak: float = 0.0  # of the other region's travel: how wrong its assumed share at this region's places may be, in this region's travel
    covered: float = 0.0  # how far its places may be a sleeve's, 0 to 1


@dataclass(frozen=True)
class Found:
    """A region where it could be followed. looked: [k, 4] its places, with the reference: forward, up, percent of trunk; 1 on the outline and 0 on the
    surface; 1 where the place was believed and 0 where it was set aside."""

    region: Region | None
    looked: Floats


NOTHING = Found(None, np.zeros((0, 4)))


def regions(sighting: Sighting, rigid: RigidMotion, free: np.ndarray, rides: np.ndarray) -> tuple[Found, Found]:
    """Abdomen first; the chest from what moves at its heights after the abdomen's share there is taken away. free: [k] strips of the front outline that are the
    trunk's own; rides: [p] points that are an arm's."""
    seen = _places(sighting, rigid, free, rides)
    abdomen, height = _abdomen(seen)
    belly = None if abdomen.region is None else height.share(seen.up_pct)[None] * abdomen.region.values[:, None]
    return abdomen, _region(seen, profile.chest_share, other=belly)


def looked_at(at_pct: Floats, outline: np.ndarray, kept: np.ndarray) -> Floats:
    """Places [k, 2], whether each lies on the outline and whether it was believed, as Found has them."""
    return np.column_stack([at_pct, outline.astype(float), kept.astype(float)])


@dataclass(frozen=True)
class _Places:
    """Everything on the trunk that is followed: where [k, 2], height [k], forward travel with the rigid motion taken away [n, k], share by depth [k],
    weight [k], whether it is far from every arm [k]."""

    at_pct: Floats
    up_pct: Floats
    moves: Floats
    depth: Floats
    weight: Floats
    clear: np.ndarray


def _places(sighting: Sighting, rigid: RigidMotion, free: np.ndarray, rides: np.ndarray) -> _Places:
    """The free outline, and the flank's texture beside it, which counts less since its share by depth is assumed."""
    assert sighting.front is not None and sighting.points is not None
    front = sighting.front
    outline = outline_travel(front, rigid)
    edge = float(np.median(front.edge_pct[free])) if free.sum() >= LEAST_STRIPS else profile.HALF_DEPTH_PCT
    flank, depth = _flank(sighting, free, rides, front_pct=edge)
    points = forward(sighting.points, rigid, np.flatnonzero(flank))
    at = np.concatenate([np.column_stack([front.edge_pct, front.up_pct])[free], sighting.points.at_pct[flank]])
    return _Places(
        at_pct=at, up_pct=at[:, 1],
        moves=np.concatenate([outline[:, free], points], axis=1),
        depth=np.concatenate([np.ones(int(free.sum())), depth]),
        weight=np.concatenate([np.ones(int(free.sum())), POINT_WEIGHT * how_sure(sighting.points.unsure_pct[flank, 0])]),
        clear=distance(at, sighting.arms_pct) >= CLEAR_PCT,
    )  # fmt: skip


def _abdomen(seen: _Places) -> tuple[Found, BellyHeight]:
    """By the profile as assumed, then at the height where this body's belly moves."""
    assumed = _region(seen, profile.abdomen_share, other=None)
    if assumed.region is None:
        return assumed, USUAL
    outlined = seen.weight == 1.0
    height = belly_height(seen.up_pct[outlined], seen.moves[:, outlined], assumed.region.values, alike_in=NEIGHBOURS_ALIKE)
    fitted = _region(seen, height.share, other=None)
    if fitted.region is None:
        return assumed, USUAL
    unsure = float(np.hypot(fitted.region.model_error, height.size_off))
    return replace(fitted, region=replace(fitted.region, model_error=unsure)), height


def _flank(sighting: Sighting, free: np.ndarray, rides: np.ndarray, *, front_pct: float) -> tuple[np.ndarray, Floats]:
    """Which points lie on the visible flank, clear of arms, and their shares by depth."""
    points = sighting.points
    assert points is not None and sighting.front is not None
    at = points.at_pct
    away = distance(at, sighting.arms_pct)
    depth = profile.depth_share(at[:, 0], front_pct=front_pct)
    use = points.on_body & ~rides & followed_points(points) & (away > ARM_REACH) & (depth > LEAST_SHARE) & (at[:, 0] < front_pct - EDGE_CLEAR)
    use &= ~_at_other_edges(at, sighting.front, free)
    return use, depth[use]


def _at_other_edges(at_pct: Floats, front: Strips, free: np.ndarray) -> np.ndarray:
    """Places [p, 2] whose picture holds an edge that is none of the belly's, at its heights: half of it is another thing. [p] bool."""
    other = followed_strips(front) & ~free & (front.up_pct < BELLY_TO_PCT)
    off = np.abs(at_pct[:, None] - np.column_stack([front.edge_pct, front.up_pct])[None, other])
    return np.any(np.all(off < PICTURE_PCT, axis=2), axis=1)


def _region(seen: _Places, share_of: Callable[[Floats], Floats], *, other: Floats | None) -> Found:
    """A region's trace: places where it moves by at least ``LEAST_SHARE`` of its largest, each scaled by the assumed profile, the coherent ones averaged.
    other: [n, k] what the other region moves the outline by at the places' heights."""
    share = share_of(seen.up_pct) * seen.depth
    tried = share > LEAST_SHARE
    use = tried & _steady(seen.moves, share)
    outlined = use & (seen.weight == 1.0)
    if outlined.sum() >= ENOUGH_STRIPS:
        use, tried = outlined, tried & (seen.weight == 1.0)
    believed = np.zeros(len(share), bool)
    found = None
    if use.sum() >= LEAST_PLACES:
        found, kept = _followed(seen, share, use, other=other, far=bool(outlined.sum() < ENOUGH_STRIPS))
        believed[np.flatnonzero(use)[kept]] = found is not None
    return Found(found, looked_at(seen.at_pct, seen.weight == 1.0, believed)[tried])


def _followed(seen: _Places, share: Floats, use: np.ndarray, *, other: Floats | None, far: bool) -> tuple[Region | None, np.ndarray]:
    """The region from the places that may be used [k], and which of these move as one; None where they cannot be believed."""
    own = seen.moves[:, use]
    if other is not None:
        own = own - other[:, use] * seen.depth[use]
    weight = seen.weight[use] * share[use] ** 2
    lead = seen.clear[use] if other is None and not far else np.ones(len(weight), bool)
    trace, kept, alike = _coherent_mean(own / share[use][None], weight, lead, far=far)
    outline = kept & (seen.weight[use] == 1.0)
    if kept.sum() < 2 and not outline.any() and (alike > ALIKE_SURE).sum() < 2:
        return None, kept  # one point alone may lie on anything
    if other is None and kept.sum() < LEAST_PLACES and share[use][kept].max() < MIDDLE_SHARE:
        return None, kept
    if other is None and not outline.any() and (share / seen.depth)[use][kept].max() < MIDDLE_SHARE:
        return None, kept  # of a flank that is seen at the belly's ends alone the chest or the lap tells as much
    noise = disagreement(own[:, kept] / share[use][kept][None], trace, weight[kept]) if kept.sum() > 1 else NOISE_ALONE
    travel = filters.spread(filters.smooth(trace))
    most = NOISE_MOST_OUTLINE if outline.sum() >= LEAST_STRIPS else NOISE_MOST_FLANK
    if noise > max(most * travel, NOISE_ALWAYS):
        return None, kept  # places that do not agree are sleeves
    leak = 0.0 if other is None else LEAK_ERROR * float(np.average(seen.depth[use][kept] / share[use][kept], weights=weight[kept]))
    return Region(values=trace, model_error=_model_error(share[use], outline, kept), noise=noise, leak=leak), kept


def _steady(moves: Floats, share: Floats) -> np.ndarray:
    """Places that keep to one edge and move no farther than a trunk can: what jumps follows now one thing and now another."""
    if not moves.shape[1]:
        return np.zeros(0, bool)
    calm = filters.smooth(moves)
    jumps = np.std(moves - calm, axis=0)
    travel = np.ptp(calm, axis=0) / np.maximum(share, LEAST_SHARE)
    return (jumps < max(JUMPS_TIMES * float(np.median(jumps)), JUMPS_LEAST)) & (travel < TRAVEL_MOST)


def disagreement(scaled: Floats, trace: Floats, weight: Floats) -> float:
    """Noise of a region's mean: what its places differ by, after each one's own size is taken out; neighbours count as one."""
    calm = filters.smooth(scaled - scaled.mean(axis=0))
    mean = filters.smooth(trace - trace.mean())
    gain = (calm.T @ mean) / max(float(mean @ mean), 1e-9)
    off = calm - mean[:, None] * gain[None]
    independent = max(float(weight.sum() ** 2 / (weight @ weight)) / NEIGHBOURS_ALIKE, 1.0)
    return float(np.sqrt((weight @ (off**2).mean(axis=0)) / weight.sum() / independent))


def _model_error(share: Floats, outline: np.ndarray, kept: np.ndarray) -> float:
    """How far the assumed profile may be wrong: little where the outline is seen near the region's middle."""
    if outline.sum() >= LEAST_STRIPS:
        return MODEL_ERROR_OUTLINE + 0.4 * (1.0 - float(np.sort(share[outline])[-LEAST_STRIPS]))
    return MODEL_ERROR_FLANK + (0.15 if kept.sum() < 6 else 0.0)


def _coherent_mean(scaled: Floats, weight: Floats, lead: np.ndarray, *, far: bool) -> tuple[Floats, np.ndarray, Floats]:
    """Weighted mean of the columns that move alike and as far as the farther ones; an arm or an instrument before the trunk stays still.

    scaled: [n, k]; lead: [k], the ones whose farther ones are meant, where there are enough: a belly's far from every arm, as one that hangs from rising
    shoulders goes farther than a belly that keeps still; far: what moves farthest leads, for places of which many may lie on arms, else what most do.
    Returns the mean [n], which columns were kept [k] and each one's correlation with the common movement [k].
    """
    calm = filters.smooth(scaled - scaled.mean(axis=0), sigma_s=0.2)
    size = np.maximum(np.linalg.norm(calm, axis=0), 1e-9)
    common = np.linalg.svd((calm if far else calm / size) * np.sqrt(weight)[None], full_matrices=False)[0][:, 0]
    gain = common @ calm
    gain = gain * (np.sign(np.sum(weight * gain / size)) or 1.0)
    alike = gain / size
    along = alike > ALIKE
    if along.sum() < 2:
        return scaled @ weight / weight.sum(), np.ones(len(weight), bool), alike
    lead = along & lead if (along & lead).sum() >= LEAST_PLACES else along
    reach = filters.weighted_quantile(gain[lead], weight[lead], 0.7)
    kept = along & (gain > 0.6 * reach) & (gain < 1.6 * reach)
    return scaled[:, kept] @ weight[kept] / weight[kept].sum(), kept, alike
