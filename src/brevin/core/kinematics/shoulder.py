"""The rise of the shoulder's top, from points of the shoulder and of the upper arm that hangs from it; from the front, of both shoulders."""

import numpy as np

from brevin.core import filters
from brevin.core.kinematics.arms import distance
from brevin.core.kinematics.regions import NOTHING, Found, Region, disagreement, looked_at
from brevin.core.kinematics.rigid import RigidMotion, followed_points, how_sure, risen
from brevin.core.track import Floats, Points

CLEAR_RISE_PCT = 0.4  # of trunk: a rise that is clear
HANGS_DEG = 35.0  # of an upper arm from straight down the trunk: beyond it the elbow is held out, and stays behind when the shoulder rises
JOINT_PCT, LEAST_NEAR, MOST_TIMES = 15.0, 5, 2.0  # of trunk around a shoulder's joint; points there that tell how far it rises; times what all tell, at most
FULLY = 0.75  # quantile of them: the middle of those that carry it
CARRIES, CARRIES_FRONT = 0.5, 0.75  # quantiles of the points' shares in a clear rise: those over it are the shoulder; from the front more of them are sleeve
SHIRT, SHIRT_FRONT = 0.15, 0.25  # share of a rise that the shirt may not go along with; own, that from the front over clips of two makers
LEAST_TOLD = 0.2  # of one point that is sure, all points together: less tells nothing, as a plain shirt's shaded edges, which a chest that comes forward moves
TOGETHER = 0.5  # of a patch's variance, in which those of a shirt are wrong together: shading that drifts takes all along on a plain one; own
HANGS_PCT = 0.06  # of trunk: what a sleeve does by itself, seen from the front; standard deviation; own, shows in ./brevin bench hold
TIMES_FRONT = 1.25  # from the front: a shoulder's rise over that of what is seen of its sleeve, which goes 0.56 and 0.76 of it in clips of two makers; own


def shoulder_rise(points: Points, rigid: RigidMotion, arms_pct: Floats, *, both: bool) -> Found:
    """Rise of the shoulder's top: points of the shoulder and of the upper arm that hangs from it, the part that travels farthest. both: seen from the front."""
    at = points.at_pct
    if not len(at):
        return NOTHING
    near = points.on_body & followed_points(points) & _on_shoulder(at, arms_pct, both=both)
    nowhere = np.zeros(int(near.sum()), bool)
    if near.sum() < 3 or how_sure(points.unsure_pct[near, 1]).sum() < LEAST_TOLD:
        return Found(None, looked_at(at[near], nowhere, nowhere))
    rise = risen(points, rigid, np.flatnonzero(near))
    rise = rise - rise[:5].mean(axis=0)
    common = np.median(rise, axis=1)
    power = float(common @ common)
    gain = (rise.T @ common) / max(power, 1e-9)
    alike = _agrees(rise, common)
    if filters.spread(filters.smooth(common)) > CLEAR_RISE_PCT:  # clear movement: of its carriers, those that carry it fully
        alike &= gain >= np.quantile(gain[alike], CARRIES_FRONT if both else CARRIES) if alike.any() else alike
    alike = alike if alike.sum() >= 2 else ~nowhere
    chosen = rise[:, alike]
    unsure_pct = points.unsure_pct[near, 1][alike]
    sure = how_sure(unsure_pct)
    trace = filters.weighted_median(chosen, sure)
    times, hangs = (TIMES_FRONT, HANGS_PCT) if both else (_at_joint(at[near], rise, points.unsure_pct[near, 1], trace, arms_pct), 0.0)
    patches = float(np.hypot(np.linalg.norm(sure * unsure_pct), np.sqrt(TOGETHER) * (sure @ unsure_pct)) / sure.sum())
    found = Region(
        values=times * trace, model_error=SHIRT_FRONT if both else SHIRT,
        noise=float(np.hypot(times * np.hypot(disagreement(chosen, trace, sure), patches), hangs)),
    )  # fmt: skip
    return Found(found, looked_at(at[near], nowhere, alike))


def _on_shoulder(at: Floats, arms_pct: Floats, *, both: bool) -> np.ndarray:
    cap = (np.abs(at[:, 0]) < (45.0 if both else 16.0)) & (at[:, 1] > 78.0) & (at[:, 1] < 100.0)
    if both:
        return cap & (np.abs(at[:, 0]) > 14.0)
    upper = arms_pct[[0, 3]] if len(arms_pct) >= 4 else arms_pct
    upper = np.stack([upper[:, 0], upper[:, 0] + 0.7 * (upper[:, 1] - upper[:, 0])], axis=1)  # the elbow's end swings by itself
    hanging = distance(at, upper) < 6.0
    return cap | (hanging & (at[:, 1] > 55.0))


def _at_joint(at: Floats, rise: Floats, unsure_pct: Floats, trace: Floats, arms_pct: Floats) -> float:
    """How many times as far as all points together tell those about a shoulder's joint go, where no upper arm hangs: one that is held out turns about its
    elbow, and goes up the less, the farther down. at: [p, 2]; rise: [n, p]; trace: [n], what all tell."""
    calm = filters.smooth(trace - trace.mean())
    if len(arms_pct) < 4 or filters.spread(calm) <= CLEAR_RISE_PCT:
        return 1.0
    joints, way = arms_pct[[0, 3], 0], arms_pct[[0, 3], 1] - arms_pct[[0, 3], 0]
    hangs = np.degrees(np.arctan2(np.abs(way[:, 0]), -way[:, 1])) < HANGS_DEG
    about = np.hypot(*(at[:, None] - joints).transpose(2, 0, 1)).min(axis=1) < JOINT_PCT
    if hangs.any() or about.sum() < LEAST_NEAR:
        return 1.0
    goes = calm @ rise[:, about] / float(calm @ calm)
    return float(np.clip(filters.weighted_quantile(goes, how_sure(unsure_pct[about]), FULLY), 1.0, MOST_TIMES))


def _agrees(scaled: Floats, middle: Floats) -> np.ndarray:
    """Columns whose distance from the common trace is no more than usual."""
    off = np.std(scaled - middle[:, None], axis=0)
    return off <= max(2.0 * float(np.median(off)), 0.04)
