"""A trunk that sinks while it is filmed, or is drawn up: so slowly that no breath is in it, it leans, bends from the hips up and grows shorter. Its outline and
its shirt are followed on it as it was at first, and what a place of it still does along with that is no breath. Source: own.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from brevin.core.kinematics.shapes import LEAST_SHAPES
from brevin.core.track import Floats, Sighting

LEAST_DEG = 3.0  # by which a trunk leans otherwise than at first: less, and what is followed on it is still found; one that keeps shows under 2.5
SLOW_S, BOW_SLOW_S = 3.0, 4.5  # standard deviation of the time over which key points, and the fewer outlines, are averaged: longer than a breath's half
FIRST_S = 2.6  # what everything is held against: while the count is given
LEAST_LOOKS = 6  # at the key points, from which their course is known


def sinking(t_s: Floats, hips_pct: Floats, shoulders_pct: Floats, seen_s: Floats, bows: Sequence[tuple[float, float]]) -> Floats | None:
    """How a trunk differs from what it was at first, in every picture: [n, 3], its lean forward in radians, its back's bow outward as a share of the trunk, and
    how many times as long it is. None where it keeps as it was.

    t_s: [n] of the pictures; hips_pct, shoulders_pct: [m, 2] middles of the key points at ``seen_s`` [m], forward and up, percent of trunk; bows: moments and
    bows of the back's outline, percent of trunk.
    """
    if len(seen_s) < LEAST_LOOKS:
        return None
    trunk = shoulders_pct - hips_pct
    lean, tall = _slow(seen_s, np.column_stack([np.arctan2(trunk[:, 0], trunk[:, 1]), np.hypot(*trunk.T)]), t_s, SLOW_S).T
    first = t_s <= max(FIRST_S, float(t_s[0]))
    lean = lean - lean[first].mean()
    if np.abs(lean).max() < np.radians(LEAST_DEG):
        return None
    bow = np.zeros(len(t_s))
    if len(bows) >= 2 * LEAST_SHAPES:
        at, each = np.array(bows).T
        bow = _slow(at, each[:, None] / 100.0, t_s, BOW_SLOW_S)[:, 0]
    return np.column_stack([lean, bow - bow[first].mean(), tall / tall[first].mean()])


def _slow(at_s: Floats, values: Floats, t_s: Floats, over_s: float) -> Floats:
    """Values [m, k] seen at some moments as they are in every picture, [n, k]: by a straight line through what is near in time, each look by the time that it
    stands for."""
    stands_for = np.gradient(at_s) if len(at_s) > 1 else np.ones(len(at_s))
    apart = at_s[None] - t_s[:, None]
    weight = stands_for * np.exp(-0.5 * (apart / over_s) ** 2)
    total, first, second = (np.sum(weight * apart**power, axis=1) for power in range(3))
    plain, sloped = weight @ values, (weight * apart) @ values
    found: Floats = (second[:, None] * plain - first[:, None] * sloped) / np.maximum(total * second - first**2, 1e-12)[:, None]
    return found


def sunk(how: Floats, at_pct: Floats) -> Floats:
    """Where places of the trunk as it was at first lie once it has sunk: [..., 2], forward and up, percent of trunk. It bends along a parabola between hips and
    shoulders; what is below the hips keeps, the neck goes on straight. how: [..., 3], as ``sinking`` has it."""
    lean, bow, tall = np.moveaxis(how, -1, 0)
    forward, up = at_pct[..., 0], at_pct[..., 1] / 100.0
    along = np.clip(up, 0.0, 1.0)
    slope = np.where(up < 0.0, 0.0, np.tan(lean) - 4.0 * bow * (1.0 - 2.0 * along))
    ahead = np.tan(lean) * along - 4.0 * bow * along * (1.0 - along) + slope * np.maximum(up - 1.0, 0.0)
    turned = np.arctan(slope)
    return np.stack([100.0 * ahead + forward * np.cos(turned), 100.0 * tall * up - forward * np.sin(turned)], axis=-1)


def unsunk(sighting: Sighting) -> Sighting:
    """The sighting without what each place that is followed still does along with the trunk's lean: key points do not tell to the last how it bends and
    grows shorter, and that goes evenly on where a breath comes back."""
    if not len(sighting.sunk) or sighting.front is None or sighting.back is None or sighting.points is None:
        return sighting
    lean = sighting.sunk[:, 0] - sighting.sunk[:, 0].mean()
    course = lean / max(float(lean @ lean), 1e-12)

    def without(moves: Floats) -> Floats:
        return np.asarray(moves - np.tensordot(lean, course @ moves.reshape(len(lean), -1), axes=0).reshape(moves.shape))

    front, back = (replace(strips, travel_pct=without(strips.travel_pct)) for strips in (sighting.front, sighting.back))
    return replace(sighting, front=front, back=back, points=replace(sighting.points, move_pct=without(sighting.points.move_pct)))
