"""What a body's outline tells of posture: how far the back bows out from the side, and how level the shoulders are from the front.

The outline is used only where it is the trunk's own: no arm of the same moment lies on it.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.kinematics.arms import distance
from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import ASIDE_PCT, HEIGHTS
from brevin.core.track import Body, Floats

ARM_PCT = 13.0  # of trunk: from the middle of an arm to the border of its sleeve, an elbow's point included
SLEEVE_PCT = 15.0  # what an arm before a shoulder may cover beside its middle line: a full sleeve's
UPPER_ARM_FROM = 0.5  # of the upper arm: nearer to the shoulder it is the shoulder
ARMS = np.array(lm.ARM_PIECES)  # the key points at both ends of each piece
UPPER = np.isin(ARMS[:, 0], (lm.SHOULDER_L, lm.SHOULDER_R))
ALONG = np.linspace(0.0, 1.0, 21)  # a piece of an arm, as places along it
BACK = (HEIGHTS > 0.05) & (HEIGHTS < 0.97)  # of the axis: between seat and neck
LEAST_HEIGHTS, LEAST_OF_A_THIRD = 10, 2  # from which a bow is told, with some in the lowest and some in the highest third
MOST_BOW_PCT = 25.0  # of trunk: rounder than any back; what is followed there is a chair or an elbow
LEAST_ASIDE = 3  # places of each shoulder, the same on both sides, from which a line is told


@dataclass(frozen=True)
class Back:
    """The back at one moment, as its outline has it: the parabola through it from hips to shoulders. bow_pct: its height over its own chord, percent of trunk;
    lean_deg: how much further forward than the key points' axis that chord leads; at_px: the places it was read at, from the hips up: [k, 2]."""

    bow_pct: float
    lean_deg: float
    at_px: Floats


def back_of(body: Body, ahead: float) -> Back | None:
    """The back of a body; None where arms leave too little of it free, what is there bows like no back, or nobody looked. ahead: + where the player faces the
    picture's right."""
    if body.shape is None:
        return None
    back = body.shape.beside_pct[0 if ahead > 0 else 1]
    away = distance(np.column_stack([-np.sign(ahead) * back, 100.0 * HEIGHTS]), _arms_pct(body))
    free = BACK & np.isfinite(back) & (away > ARM_PCT)
    if free.sum() < LEAST_HEIGHTS or min((free & (HEIGHTS < 1 / 3)).sum(), (free & (HEIGHTS > 2 / 3)).sum()) < LEAST_OF_A_THIRD:
        return None
    up = HEIGHTS[free]
    _, back_by, bow = np.linalg.lstsq(np.column_stack([np.ones(len(up)), up, 4.0 * up * (1.0 - up)]), back[free], rcond=None)[0]
    if abs(bow) > MOST_BOW_PCT:
        return None
    across, along = lm.trunk_axes(body)
    at_px = lm.hips(body) + lm.trunk_px(body) * (up[:, None] * along - np.sign(ahead) * back[free, None] / 100.0 * across)
    return Back(float(bow), -float(np.degrees(np.arctan(back_by / 100.0))), at_px)


@dataclass(frozen=True)
class Tops:
    """The tops of both shoulders at one moment. line_deg: the line over them against level, + = the player's left higher, median over the places that are free
    on both sides; at_px: those places over the shoulder at the picture's left and at its right: [2, k, 2]."""

    line_deg: float
    at_px: Floats


def tops_of(body: Body) -> Tops | None:
    """The tops of a body's shoulders; None where arms hide too much of them, or nobody looked."""
    if body.shape is None:
        return None
    over = body.shape.over_pct
    free = np.asarray(np.isfinite(over).all(axis=0) & ~_hidden(body, over).any(axis=0))
    if free.sum() < LEAST_ASIDE:
        return None
    left_is = np.sign(body.points_px[lm.SHOULDER_L, 0] - body.points_px[lm.SHOULDER_R, 0]) or 1.0
    line_deg = np.degrees(np.arctan2(left_is * (over[1] - over[0])[free], 2.0 * ASIDE_PCT[free]))
    beside = np.array([np.column_stack([side * ASIDE_PCT[free], -own[free]]) for side, own in zip((-1.0, 1.0), over, strict=True)])
    return Tops(float(np.median(line_deg)), lm.shoulders(body) + lm.trunk_px(body) / 100.0 * beside)


def _hidden(body: Body, over: Floats) -> np.ndarray:
    """Which places of the shoulders an arm covers, or is held above: [2, k]. One that only comes near from below leaves the outline the shoulder's own."""
    start, end = np.moveaxis(_arms(body, lm.shoulders(body), np.array([1.0, 0.0]), np.array([0.0, -1.0])), 1, 0)
    arms = (start[:, None] + ALONG[:, None] * (end - start)[:, None]).reshape(-1, 2)
    aside = np.abs(arms[:, 0, None, None] - np.array([[-1.0], [1.0]]) * ASIDE_PCT)
    over_it = arms[:, 1, None, None] - over
    hidden: np.ndarray = ((np.hypot(aside, over_it) < SLEEVE_PCT) | ((aside < SLEEVE_PCT) & (over_it > 0.0))).any(axis=0)
    return hidden


def _arms_pct(body: Body) -> Floats:
    """Pieces of both arms about the trunk's own axis: [6, 2, 2], to the picture's right and up."""
    return _arms(body, lm.hips(body), *lm.trunk_axes(body))


def _arms(body: Body, origin: Floats, right: Floats, up: Floats) -> Floats:
    """Pieces of both arms, percent of trunk from an origin along two directions: [6, 2, 2]. An upper arm begins off its shoulder."""
    pieces = (body.points_px[ARMS] - origin) @ np.column_stack([right, up]) * (100.0 / max(lm.trunk_px(body), 1e-9))
    pieces[UPPER, 0] += UPPER_ARM_FROM * (pieces[UPPER, 1] - pieces[UPPER, 0])
    return pieces
