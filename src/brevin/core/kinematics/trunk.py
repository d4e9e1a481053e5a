"""From followed outline and texture to the three traces: abdomen, chest, shoulder, percent of trunk, relative to pelvis and back."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.track import Floats, Points, Sighting, Strips

MISFIT_MOST = 0.45  # a strip that looks this unlike its reference follows something else
CLEAR_LEAST = 4.0  # grey levels of contrast below which an edge is not followed
TRUNK_EDGE = (4.0, 30.0)  # front outline ahead of the axis: outside it is an arm, the instrument or a thigh
EDGE_JUMP = 7.0  # outline further out than its neighbour below by this: an arm begins
NEIGHBOUR_PCT = 4.0
EDGE_CLEAR = 3.0  # a point nearer to the outline is half background
ARM_REACH = 9.0  # half width of an arm, with the patch that follows a point
POINT_ERROR_MOST = 12.0  # grey levels a followed patch may differ on average
LEAST_STRIPS = 2  # from which a region counts as seen on its outline
LEAST_PLACES, ENOUGH_STRIPS = 3, 4  # places a region needs; strips of free outline that need no help from the flank
JUMPS_TIMES, JUMPS_LEAST = 4.0, 0.10  # times the usual, and percent of trunk, from frame to frame: a place that jumps more is lost
TRAVEL_MOST = 9.0  # percent of trunk: no belly and no chest goes farther in a breath; a sleeve or an instrument does
LEAST_SHARE = 0.35  # of a region's largest travel: places that move less say little of it
POINT_WEIGHT = 0.25  # of a texture point beside a strip of outline
NEIGHBOURS_ALIKE = 3.0  # strips or points that see the same error of the picture
NOISE_MOST_OUTLINE, NOISE_MOST_FLANK, NOISE_ALWAYS = 0.25, 0.10, 0.12  # share of the travel by which places may differ, and percent of trunk
NOISE_ALONE = 0.06  # percent of trunk, of a single strip, which nothing can be held against
ALIKE_SURE = 0.95  # the same where only one place moves far enough
ALIKE = 0.85  # correlation with the common movement from which a place belongs to it
MODEL_ERROR_OUTLINE, MODEL_ERROR_FLANK = 0.12, 0.2  # share of an amplitude that the assumed profile may be wrong by


@dataclass(frozen=True)
class RigidMotion:
    """The trunk as one body, [n] each: forward shift and rise in percent of trunk, turn in radians (percent per 100 %), from the back and pelvis."""

    forward_pct: Floats
    up_pct: Floats
    turn: Floats
    noise_pct: float


@dataclass(frozen=True)
class Traces:
    """The three traces on the even grid, percent of trunk; + = outward, upward.

    noise: standard deviation of each trace's own noise, percent; model: share of its amplitude that may be wrong by the assumed
    profile; seen: whether the region could be followed at all; width: change of the trunk's width (front view), percent; holes: where pictures are missing,
    seconds.
    """

    t_s: Floats
    abdomen: Floats
    chest: Floats
    shoulder: Floats
    width: Floats
    confidence: Floats
    noise: dict[str, float]
    model: dict[str, float]
    seen: dict[str, bool]
    sway_pct: float
    holes: tuple[tuple[float, float], ...] = ()


def traces(sighting: Sighting) -> Traces:
    """Traces of one clip. Needs front, back and points of the sighting; front views give shoulder and width only."""
    assert sighting.front is not None and sighting.back is not None and sighting.points is not None
    grid_s = filters.uniform_times(sighting.t_s)
    rigid = rigid_motion(sighting.back, sighting.points)
    front_view = sighting.view == "front"
    abdomen, chest = (None, None) if front_view else _regions(sighting, rigid)
    shoulder = _shoulder(sighting.points, rigid, sighting.arms_pct, both=front_view)
    width = _width(sighting.front, sighting.back) if front_view else np.zeros(len(sighting.t_s))

    def trace(found: "_Region | None") -> Floats:
        return np.zeros(len(grid_s)) if found is None else _settled(sighting.t_s, found.values, grid_s)

    found = {"abdomen": abdomen, "chest": chest, "shoulder": shoulder}
    return Traces(
        t_s=grid_s,
        abdomen=trace(abdomen), chest=trace(chest), shoulder=trace(shoulder),
        width=_settled(sighting.t_s, width, grid_s),
        confidence=_confidence(sighting, grid_s),
        noise={k: 0.0 if r is None else r.noise for k, r in found.items()} | {"width": float(np.std(width - filters.smooth(width)))},
        model={k: 0.0 if r is None else r.model_error for k, r in found.items()},
        seen={k: r is not None for k, r in found.items()},
        sway_pct=float(np.std(filters.smooth(rigid.forward_pct, sigma_s=0.2))),
        holes=filters.holes(sighting.t_s),
    )  # fmt: skip


def _settled(t_s: Floats, values: Floats, grid_s: Floats) -> Floats:
    return filters.smooth(filters.on_grid(t_s, values, grid_s))


@dataclass(frozen=True)
class _Region:
    values: Floats  # [n], percent of trunk
    model_error: float
    noise: float  # standard deviation of what is not the region's own movement, percent of trunk


def rigid_motion(back: Strips, points: Points) -> RigidMotion:
    """Shift and turn of the back, fitted over its strips at each moment, strips that disagree left out; rise from points of the lower back."""
    n = len(back.travel_pct)
    good = _good(back)
    if good.sum() < 4:
        return RigidMotion(np.zeros(n), np.zeros(n), np.zeros(n), noise_pct=0.3)
    height, move = back.up_pct[good], -back.travel_pct[:, good]
    keep = _coherent(height, move)
    base, turn = _lines(height[keep], move[:, keep])
    rest = move[:, keep] - (base[:, None] + turn[:, None] * height[keep] / 100)
    return RigidMotion(base, rise(points, turn), turn, noise_pct=float(rest.std() / np.sqrt(keep.sum())))


def _good(strips: Strips) -> np.ndarray:
    return (np.median(strips.misfit, axis=0) < MISFIT_MOST) & (strips.clear > CLEAR_LEAST)


def _coherent(height: Floats, move: Floats) -> np.ndarray:
    """Strips that follow the common line: their own scatter about it is within three times the usual."""
    keep = np.ones(len(height), bool)
    for _ in range(3):
        base, turn = _lines(height[keep], move[:, keep])
        off = (move - base[:, None] - turn[:, None] * height / 100).std(axis=0)
        keep = off < max(3.0 * float(np.median(off[keep])), 0.05)
        if keep.sum() < 4:
            return np.argsort(off) < 4
    return keep


def _lines(height: Floats, move: Floats) -> tuple[Floats, Floats]:
    """Least-squares line of the move over height at each moment: base [n] and slope per 100 % of height [n]."""
    design = np.column_stack([np.ones_like(height), height / 100])
    solved = np.linalg.lstsq(design, move.T, rcond=None)[0]
    return solved[0], solved[1]


def rise(points: Points, turn: Floats | None = None) -> Floats:
    """How far the lower back has gone up, percent of trunk [n]: median of its points, their share of the trunk's turn taken away."""
    turn = np.zeros(len(points.move_pct)) if turn is None else turn
    at, move = points.at_pct, points.move_pct
    low = points.on_body & (at[:, 0] < 6.0) & (at[:, 1] < 40.0) & (at[:, 1] > -8.0) & _followed(points)
    if low.sum() < 3:
        return np.zeros(len(turn))
    return np.median(move[:, low, 1] + turn[:, None] * at[None, low, 0] / 100, axis=1)


def _followed(points: Points) -> np.ndarray:
    return np.median(points.error, axis=0) < POINT_ERROR_MOST


def relative(points: Points, rigid: RigidMotion) -> Floats:
    """Moves of all points with the trunk's own motion taken away: [n, p, 2], forward and up, percent."""
    at = points.at_pct
    forward = points.move_pct[:, :, 0] - rigid.forward_pct[:, None] - rigid.turn[:, None] * at[None, :, 1] / 100
    up = points.move_pct[:, :, 1] - rigid.up_pct[:, None] + rigid.turn[:, None] * at[None, :, 0] / 100
    return np.stack([forward, up], axis=-1)


def _regions(sighting: Sighting, rigid: RigidMotion) -> tuple[_Region | None, _Region | None]:
    """Abdomen first; the chest from what moves at its heights after the abdomen's share there is taken away."""
    seen = _places(sighting, rigid)
    abdomen = _region(seen, profile.abdomen_share, other=None)
    return abdomen, _region(seen, profile.chest_share, other=abdomen)


@dataclass(frozen=True)
class _Places:
    """Everything on the trunk that is followed: height [k], forward travel with the rigid motion taken away [n, k], share by depth [k], weight [k]."""

    up_pct: Floats
    moves: Floats
    depth: Floats
    weight: Floats


def _places(sighting: Sighting, rigid: RigidMotion) -> _Places:
    """The free outline, and the flank's texture beside it, which counts less since its share by depth is assumed."""
    assert sighting.front is not None and sighting.points is not None
    front = sighting.front
    free = free_outline(front, sighting.arms_pct)
    outline = front.travel_pct - rigid.forward_pct[:, None] - rigid.turn[:, None] * front.up_pct[None] / 100
    edge = float(np.median(front.edge_pct[free])) if free.sum() >= LEAST_STRIPS else profile.HALF_DEPTH_PCT
    flank, depth = _flank(sighting, front_pct=edge)
    points = relative(sighting.points, rigid)[:, flank, 0]
    return _Places(
        up_pct=np.concatenate([front.up_pct[free], sighting.points.at_pct[flank, 1]]),
        moves=np.concatenate([outline[:, free], points], axis=1),
        depth=np.concatenate([np.ones(int(free.sum())), depth]),
        weight=np.concatenate([np.ones(int(free.sum())), np.full(int(flank.sum()), POINT_WEIGHT)]),
    )


def _flank(sighting: Sighting, *, front_pct: float) -> tuple[np.ndarray, Floats]:
    """Which points lie on the visible flank, clear of arms, and their shares by depth."""
    points = sighting.points
    assert points is not None
    at = points.at_pct
    away = np.array([min((_distance(p, a, b) for a, b in sighting.arms_pct), default=99.0) for p in at])
    depth = profile.depth_share(at[:, 0], front_pct=front_pct)
    use = points.on_body & _followed(points) & (away > ARM_REACH) & (depth > LEAST_SHARE) & (at[:, 0] < front_pct - EDGE_CLEAR)
    return use, depth[use]


def _region(seen: _Places, share_of: Callable[[Floats], Floats], *, other: _Region | None) -> _Region | None:
    """A region's trace: places where it moves by at least ``LEAST_SHARE`` of its largest, each scaled by the assumed profile, the coherent ones averaged."""
    share = share_of(seen.up_pct) * seen.depth
    use = (share > LEAST_SHARE) & _steady(seen.moves, share)
    outlined = use & (seen.weight == 1.0)
    if outlined.sum() >= ENOUGH_STRIPS:
        use = outlined
    if use.sum() < LEAST_PLACES:
        return None
    own = seen.moves[:, use]
    if other is not None:
        own = own - (profile.abdomen_share(seen.up_pct[use]) * seen.depth[use])[None] * other.values[:, None]
    weight = seen.weight[use] * share[use] ** 2
    trace, kept, alike = _coherent_mean(own / share[use][None], weight, far=outlined.sum() < ENOUGH_STRIPS)
    outline = kept & (seen.weight[use] == 1.0)
    if kept.sum() < 2 and not outline.any() and (alike > ALIKE_SURE).sum() < 2:
        return None  # one point alone may lie on anything
    noise = _disagreement(own[:, kept] / share[use][kept][None], trace, weight[kept]) if kept.sum() > 1 else NOISE_ALONE
    travel = filters.spread(filters.smooth(trace))
    most = NOISE_MOST_OUTLINE if outline.sum() >= LEAST_STRIPS else NOISE_MOST_FLANK
    if noise > max(most * travel, NOISE_ALWAYS):
        return None  # places that do not agree are sleeves
    return _Region(values=trace, model_error=_model_error(share[use], outline, kept), noise=noise)


def _steady(moves: Floats, share: Floats) -> np.ndarray:
    """Places that keep to one edge and move no farther than a trunk can: what jumps follows now one thing and now another."""
    if not moves.shape[1]:
        return np.zeros(0, bool)
    calm = filters.smooth(moves)
    jumps = np.std(moves - calm, axis=0)
    travel = np.ptp(calm, axis=0) / np.maximum(share, LEAST_SHARE)
    return (jumps < max(JUMPS_TIMES * float(np.median(jumps)), JUMPS_LEAST)) & (travel < TRAVEL_MOST)


def _disagreement(scaled: Floats, trace: Floats, weight: Floats) -> float:
    """Noise of a region's mean: what its places differ by, after each one's own size is taken out; neighbours count as one."""
    calm = filters.smooth(scaled - scaled.mean(axis=0))
    mean = filters.smooth(trace - trace.mean())
    gain = (calm.T @ mean) / max(float(mean @ mean), 1e-9)
    off = calm - mean[:, None] * gain[None]
    independent = max(len(weight) / NEIGHBOURS_ALIKE, 1.0)
    return float(np.sqrt((weight @ (off**2).mean(axis=0)) / weight.sum() / independent))


def _model_error(share: Floats, outline: np.ndarray, kept: np.ndarray) -> float:
    """How far the assumed profile may be wrong: little where the outline is seen near the region's middle."""
    if outline.sum() >= LEAST_STRIPS:
        return MODEL_ERROR_OUTLINE + 0.4 * (1.0 - float(np.sort(share[outline])[-LEAST_STRIPS]))
    return MODEL_ERROR_FLANK + (0.15 if kept.sum() < 6 else 0.0)


def _coherent_mean(scaled: Floats, weight: Floats, *, far: bool) -> tuple[Floats, np.ndarray, Floats]:
    """Weighted mean of the columns that move alike and as far as the farther ones; an arm or an instrument before the trunk stays still.

    scaled: [n, k]; far: what moves farthest leads, for places of which many may lie on arms, else what most do. Returns the mean [n],
    which columns were kept [k] and each one's correlation with the common movement [k].
    """
    calm = filters.smooth(scaled - scaled.mean(axis=0), sigma_s=0.2)
    size = np.maximum(np.linalg.norm(calm, axis=0), 1e-9)
    common = np.linalg.svd((calm if far else calm / size) * np.sqrt(weight)[None], full_matrices=False)[0][:, 0]
    gain = common @ calm
    gain = gain * (np.sign(np.sum(weight * gain / size)) or 1.0)
    alike = gain / size
    if (alike > ALIKE).sum() < 2:
        return scaled @ weight / weight.sum(), np.ones(len(weight), bool), alike
    reach = _weighted_quantile(gain[alike > ALIKE], weight[alike > ALIKE], 0.7)
    kept = (alike > ALIKE) & (gain > 0.6 * reach) & (gain < 1.6 * reach)
    return scaled[:, kept] @ weight[kept] / weight[kept].sum(), kept, alike


def _weighted_quantile(values: Floats, weight: Floats, share: float) -> float:
    order = np.argsort(values)
    return float(values[order][np.searchsorted(np.cumsum(weight[order]), share * weight.sum())])


def free_outline(front: Strips, arms_pct: Floats) -> np.ndarray:
    """Strips whose outline is the trunk's own: clear, alike over time, at the trunk's depth, with no arm across and no sudden step outward."""
    free = _good(front) & (front.edge_pct > TRUNK_EDGE[0]) & (front.edge_pct < TRUNK_EDGE[1])
    for i, (height, edge) in enumerate(zip(front.up_pct, front.edge_pct, strict=True)):
        if free[i] and _arm_across(height, edge, arms_pct):
            free[i] = False
    kept: list[float] = []
    for i in (int(k) for k in np.flatnonzero(free)):
        if kept and front.edge_pct[i] - np.median(kept[-4:]) > EDGE_JUMP:
            free[i] = False
        else:
            kept.append(float(front.edge_pct[i]))
    return free & _has_neighbour(front.up_pct, free)


def _has_neighbour(up_pct: Floats, free: np.ndarray) -> np.ndarray:
    """Whether another free strip lies next to each: a lone one between arms follows a sleeve or a chin."""
    heights = up_pct[free]
    return np.array([np.sum(np.abs(heights - h) < NEIGHBOUR_PCT) > 1 for h in up_pct], bool)


def _arm_across(height: float, edge: float, arms_pct: Floats) -> bool:
    """Whether a piece of an arm lies on the outline at this height: within its own width of the edge's place."""
    return bool(len(arms_pct)) and min(_distance(np.array([edge, height]), a, b) for a, b in arms_pct) < 0.6 * ARM_REACH


def _distance(point: Floats, a: Floats, b: Floats) -> float:
    along = np.clip(((point - a) @ (b - a)) / max(float((b - a) @ (b - a)), 1e-9), 0.0, 1.0)
    return float(np.hypot(*(point - a - along * (b - a))))


def _agrees(scaled: Floats, middle: Floats) -> np.ndarray:
    """Columns whose distance from the common trace is no more than usual."""
    off = np.std(scaled - middle[:, None], axis=0)
    return off <= max(2.0 * float(np.median(off)), 0.04)


def _shoulder(points: Points, rigid: RigidMotion, arms_pct: Floats, *, both: bool) -> _Region | None:
    """Rise of the shoulder's top: points of the shoulder and of the upper arm that hangs from it, the half that travels farthest."""
    at = points.at_pct
    if not len(at):
        return None
    near = points.on_body & _followed(points) & _on_shoulder(at, arms_pct, both=both)
    if near.sum() < 3:
        return None
    rise = relative(points, rigid)[:, near, 1]
    rise = rise - rise[:5].mean(axis=0)
    common = np.median(rise, axis=1)
    power = float(common @ common)
    gain = (rise.T @ common) / max(power, 1e-9)
    alike = _agrees(rise, common)
    if filters.spread(filters.smooth(common)) > 0.4:  # clear movement: of its carriers, those that carry it fully
        alike &= gain >= np.quantile(gain[alike], 0.5) if alike.any() else alike
    chosen = rise[:, alike] if alike.sum() >= 2 else rise
    trace = chosen.mean(axis=1)
    return _Region(values=trace, model_error=0.15, noise=_disagreement(chosen, trace, np.ones(chosen.shape[1])))


def _on_shoulder(at: Floats, arms_pct: Floats, *, both: bool) -> np.ndarray:
    cap = (np.abs(at[:, 0]) < (45.0 if both else 16.0)) & (at[:, 1] > 78.0) & (at[:, 1] < 100.0)
    if both:
        return cap & (np.abs(at[:, 0]) > 14.0)
    upper = arms_pct[[0, 3]] if len(arms_pct) >= 4 else arms_pct
    hanging = np.array([min((_distance(p, a, a + 0.7 * (b - a)) for a, b in upper), default=99.0) < 6.0 for p in at])
    return cap | (hanging & (at[:, 1] > 55.0))


def _width(front: Strips, back: Strips) -> Floats:
    """Median change of the trunk's depth or width over its middle heights, percent of trunk: [n]."""
    parts = []
    for strips in (front, back):
        use = _good(strips) & (strips.up_pct > 6) & (strips.up_pct < 62)
        if use.any():
            parts.append(np.median(strips.travel_pct[:, use], axis=1))
    return np.sum(parts, axis=0) if parts else np.zeros(len(front.travel_pct))


def _confidence(sighting: Sighting, grid_s: Floats) -> Floats:
    """How alike the followed outline still is to its reference at each moment, 0 to 1."""
    assert sighting.front is not None
    good = _good(sighting.front)
    if not good.any():
        return np.zeros(len(grid_s))
    alike = np.clip(1.0 - np.median(sighting.front.misfit[:, good], axis=1), 0.0, 1.0)
    return filters.on_grid(sighting.t_s, alike, grid_s)
