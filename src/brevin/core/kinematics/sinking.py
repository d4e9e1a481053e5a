"""A trunk that sinks while it is filmed, or is drawn up: so slowly that no breath is in it, it leans, bends from the hips up and grows shorter. Its outline and
its shirt are followed on it as it was at first, and what a place of it still does along with that is no breath. Source: own.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from brevin.core import filters
from brevin.core.kinematics.shapes import LEAST_SHAPES, Back
from brevin.core.track import Floats, Sighting, Strips

LEAST_DEG = 3.0  # by which a trunk leans otherwise than at first: less, and what is followed on it is still found; one that keeps shows under 2.5
SLOW_S = 3.0  # standard deviation of the time over which key points are averaged: longer than half a breath
FIRST_S = 2.6  # what everything is held against: while the count is given
RESTS_SEE = 0.5  # of the whole lean: where rests see less of it, what they tell would be stretched over the rest of it
STEP_S, STEP_MOST_PCT, STEP_TIMES = 0.2, 2.5, 3.0  # a moment, and how far no strip goes in it: percent of trunk, and times what is usual
BACK_STAYS = -0.5  # of the lean: by which the back's outline turns against key points that lean without it
LEAST_LOOKS = 6  # at the key points, from which their course is known
ASTRAY_TIMES, ASTRAY_RAD = 4.0, 0.02  # times what is usual, and at least so much, by which key points stand off that course: they are somebody else's


def sinking(t_s: Floats, hips_pct: Floats, shoulders_pct: Floats, seen_s: Floats, backs: Sequence[tuple[float, Back]]) -> Floats | None:
    """How a trunk differs from what it was at first, in every picture: [n, 3], its lean forward in radians, its back's bow outward as a share of the trunk, and
    how many times as long it is. Bow and length go along with the lean: one course is told surer than three, and breaths that lift the shoulders are no part of
    it. None where the trunk keeps as it was.

    t_s: [n] of the pictures; hips_pct, shoulders_pct: [m, 2] middles of the key points at ``seen_s`` [m], forward and up, percent of trunk; backs: what
    the outline tells at some moments: a trunk leans with its back, or its key points are guessed behind an instrument.
    """
    if len(seen_s) < LEAST_LOOKS:
        return None
    trunk = shoulders_pct - hips_pct
    leans = np.arctan2(trunk[:, 0], trunk[:, 1])
    off = np.abs(leans - _slow(seen_s, leans, seen_s))
    own = off <= max(ASTRAY_TIMES * float(np.median(off)), ASTRAY_RAD)
    trunk, seen_s = trunk[own], seen_s[own]
    lean = _slow(seen_s, leans[own], t_s)
    lean = lean - lean[t_s <= max(FIRST_S, float(t_s[0]))].mean()
    if np.abs(lean).max() < np.radians(LEAST_DEG):
        return None
    bowed = 0.0
    if len(backs) >= 2 * LEAST_SHAPES:
        looked_s, bows, beside = np.array([(moment, back.bow_pct / 100.0, np.radians(back.lean_deg)) for moment, back in backs]).T
        if _along(t_s, lean, looked_s, beside)[0] < BACK_STAYS:
            return None
        bowed, _ = _along(t_s, lean, looked_s, bows)
    shorter, at_first = _along(t_s, lean, seen_s, np.hypot(*trunk.T))
    return np.column_stack([lean, bowed * lean, 1.0 + shorter / at_first * lean])


def _along(t_s: Floats, lean: Floats, at_s: Floats, values: Floats) -> tuple[float, float]:
    """By how much what was seen at some moments changes with each radian of lean, and what it was before."""
    leans = np.interp(at_s, t_s, lean)
    weight = np.sqrt(_stands_for(at_s))
    slope, before = np.linalg.lstsq(np.column_stack([leans, np.ones(len(leans))]) * weight[:, None], values * weight, rcond=None)[0]
    return float(slope), float(before)


def _stands_for(at_s: Floats) -> Floats:
    """The time that each look stands for: where much moves there are many."""
    return np.asarray(np.gradient(at_s))


def _slow(at_s: Floats, values: Floats, t_s: Floats) -> Floats:
    """Values [m] seen at some moments as they are in every picture, [n]: by a straight line through what is near in time."""
    apart = at_s[None] - t_s[:, None]
    weight = _stands_for(at_s) * np.exp(-0.5 * (apart / SLOW_S) ** 2)
    total, first, second = (np.sum(weight * apart**power, axis=1) for power in range(3))
    found: Floats = (second * (weight @ values) - first * ((weight * apart) @ values)) / np.maximum(total * second - first**2, 1e-12)
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


def unsunk(sighting: Sighting, rests: Sequence[tuple[float, float]] = ()) -> Sighting:
    """The sighting without what each place that is followed still does along with the trunk's lean: key points do not tell to the last how it bends and
    grows shorter, and that goes evenly on where a breath comes back. A strip that steps from one edge to another on the way, as on an arm, is left out.

    rests: when the player rests, from when to when, s, where that is known: held against each other they tell it whatever a breath does meanwhile, as one long
    exhale with which the trunk sinks.
    """
    if not len(sighting.sunk) or sighting.front is None or sighting.back is None or sighting.points is None:
        return sighting
    resting = _resting(sighting.t_s, sighting.sunk[:, 0], rests)
    lean = sighting.sunk[:, 0] - sighting.sunk[resting, 0].mean()
    course = np.where(resting, lean, 0.0) / max(float(lean[resting] @ lean[resting]), 1e-12)

    def along(moves: Floats) -> Floats:
        return np.tensordot(lean, course @ moves.reshape(len(lean), -1), axes=0).reshape(moves.shape)

    def kept(strips: Strips) -> Strips:
        left = along(strips.travel_pct)
        own = ~_steps(sighting.t_s, strips.travel_pct)
        return Strips(strips.up_pct[own], strips.edge_pct[own], (strips.travel_pct - left)[:, own], strips.misfit[:, own], strips.clear[own])

    points = replace(sighting.points, move_pct=sighting.points.move_pct - along(sighting.points.move_pct))
    return replace(sighting, front=kept(sighting.front), back=kept(sighting.back), points=points)


def _resting(t_s: Floats, lean: Floats, rests: Sequence[tuple[float, float]]) -> NDArray[np.bool_]:
    """In which pictures the player rests: [n]; all of them where the rests are not known, or saw too little of the sinking."""
    resting = np.zeros(len(t_s), bool)
    for start, end in rests:
        resting |= (t_s >= start) & (t_s <= end)
    sees = resting.any() and np.ptp(lean[resting]) >= RESTS_SEE * np.ptp(lean)
    return resting if sees else np.ones(len(t_s), bool)


def _steps(t_s: Floats, travel_pct: Floats) -> NDArray[np.bool_]:
    """Which strips step farther within a moment than a breath goes, and three times as far as most do: [k]. t_s: [n]; travel_pct: [n, k]."""
    calm = filters.smooth(filters.on_grid(t_s, travel_pct, filters.uniform_times(t_s)))
    moment = round(STEP_S * filters.GRID_HZ)
    if not travel_pct.shape[1] or len(calm) <= moment:
        return np.zeros(travel_pct.shape[1], bool)
    farthest = np.abs(calm[moment:] - calm[:-moment]).max(axis=0)
    return np.asarray(farthest > max(STEP_MOST_PCT, STEP_TIMES * float(np.median(farthest))))
