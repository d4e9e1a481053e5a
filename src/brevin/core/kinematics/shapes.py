"""What a body's outline tells of posture: how far the back bows out from the side, and how level the shoulders are from the front.

The outline is used only where it is the trunk's own: no arm of the same moment lies on it.
"""

from collections.abc import Sequence

import numpy as np

from brevin.core.kinematics.outline import distance
from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import ASIDE_PCT, HEIGHTS
from brevin.core.track import Body, Floats

ARM_PCT = 13.0  # of trunk: from the middle of an arm to the border of its sleeve, an elbow's point included
OVER_ARM_PCT = 30.0  # an arm that comes so near to the top of a shoulder from below lifts or hides it
UPPER_ARM_FROM = 0.5  # of the upper arm: nearer to the shoulder it is the shoulder
BACK = (HEIGHTS > 0.05) & (HEIGHTS < 0.97)  # of the axis: between seat and neck
LEAST_HEIGHTS, LEAST_OF_A_THIRD = 10, 2  # from which a bow is told, with some in the lowest and some in the highest third
MOST_BOW_PCT = 25.0  # of trunk: rounder than any back; what is followed there is a chair or an elbow
LEAST_ASIDE = 5  # places of each shoulder, the same on both sides, from which a line is told


def bow_pct(body: Body, ahead: float) -> float:
    """How far the back's outline bows out between hip and shoulder, percent of trunk: the height of the parabola through it over its own chord. ahead: + where
    the player faces the picture's right. nan where too little of the back is free, or the moment has no outline."""
    bow = _parabola(body, ahead)[1]
    return bow if abs(bow) <= MOST_BOW_PCT else np.nan


def back_lean_deg(body: Body, ahead: float) -> float:
    """How much further forward than the key points' axis the chord of that parabola leads, degrees. nan as there."""
    if np.isnan(bow_pct(body, ahead)):
        return np.nan
    return -float(np.degrees(np.arctan(_parabola(body, ahead)[0] / 100.0)))


def shoulder_line_deg(body: Body) -> float:
    """Line over the tops of both shoulders against level, + = the player's left higher; median over the places that are free on both sides. nan where arms
    hide them, or the moment has no outline."""
    over, free = _tops(body)
    if not free.any():
        return np.nan
    left_is = np.sign(body.points_px[lm.SHOULDER_L, 0] - body.points_px[lm.SHOULDER_R, 0]) or 1.0
    return float(np.median(np.degrees(np.arctan2(left_is * (over[1] - over[0])[free], 2.0 * ASIDE_PCT[free]))))


def back_px(body: Body, ahead: float) -> list[Floats]:
    """Where the bow was read: one line of places [k, 2] up the back, px; nothing where none was."""
    back, free = _back(body, ahead)
    if np.isnan(bow_pct(body, ahead)):
        return []
    trunk = lm.shoulders(body) - lm.hips(body)
    behind = np.array([trunk[1], -trunk[0]]) * np.sign(ahead)  # as long as the trunk
    return [lm.hips(body) + HEIGHTS[free, None] * trunk + back[free, None] / 100.0 * behind]


def tops_px(body: Body) -> list[Floats]:
    """Where the shoulder line was read: places [k, 2] over the one and over the other shoulder, px; nothing where none was."""
    over, free = _tops(body)
    if not free.any():
        return []
    scale = lm.trunk_px(body) / 100.0
    return [lm.shoulders(body) + scale * np.column_stack([side * ASIDE_PCT[free], -own[free]]) for side, own in zip((-1.0, 1.0), over, strict=True)]


def _back(body: Body, ahead: float) -> tuple[Floats, np.ndarray]:
    """The outline behind the axis [21], and where it is the back's own; nowhere where that is too little of it. ahead: + or - 1."""
    nowhere = np.zeros(len(HEIGHTS), bool)
    if body.shape is None:
        return np.full(len(HEIGHTS), np.nan), nowhere
    back = body.shape.beside_pct[0 if ahead > 0 else 1]
    away = distance(np.column_stack([-np.sign(ahead) * back, 100.0 * HEIGHTS]), _arms_pct(body))
    free = BACK & np.isfinite(back) & (away > ARM_PCT)
    enough = free.sum() >= LEAST_HEIGHTS and min((free & (HEIGHTS < 1 / 3)).sum(), (free & (HEIGHTS > 2 / 3)).sum()) >= LEAST_OF_A_THIRD
    return back, free if enough else nowhere


def _parabola(body: Body, ahead: float) -> tuple[float, float]:
    """The parabola through the back's outline, percent of trunk: what it goes back by from hips to shoulders, and its height over that chord."""
    back, free = _back(body, ahead)
    if not free.any():
        return np.nan, np.nan
    up = HEIGHTS[free]
    _, back_by, bow = np.linalg.lstsq(np.column_stack([np.ones(len(up)), up, 4.0 * up * (1.0 - up)]), back[free], rcond=None)[0]
    return float(back_by), float(bow)


def _tops(body: Body) -> tuple[Floats, np.ndarray]:
    """How high the outline stands over both shoulders [2, 8], and the places that are free on both sides; none where those are too few."""
    nowhere = np.zeros(len(ASIDE_PCT), bool)
    if body.shape is None:
        return np.full((2, len(ASIDE_PCT)), np.nan), nowhere
    over = body.shape.over_pct
    free = np.asarray(np.isfinite(over).all(axis=0) & ~_hidden(body, over).any(axis=0))
    return over, free if free.sum() >= LEAST_ASIDE else nowhere


def _hidden(body: Body, over: Floats) -> np.ndarray:
    """Which places of the shoulders an arm is in front of, or comes so near to from below that it lifts them: [2, k]."""
    hidden = np.zeros(over.shape, bool)
    middle, scale = lm.shoulders(body), 100.0 / max(lm.trunk_px(body), 1e-9)
    share = np.linspace(0.0, 1.0, 21)
    for first, second in lm.ARM_PIECES:
        start, end = ((body.points_px[i] - middle) * scale * [1.0, -1.0] for i in (first, second))
        start = start + UPPER_ARM_FROM * (end - start) if first in (lm.SHOULDER_L, lm.SHOULDER_R) else start
        places = start + share[:, None] * (end - start)
        for side, sign in enumerate((-1.0, 1.0)):
            near = np.abs(places[:, :1] - sign * ASIDE_PCT) < ARM_PCT
            hidden[side] |= (near & (places[:, 1:] > over[side] - OVER_ARM_PCT)).any(axis=0)
    return hidden


def _arms_pct(body: Body) -> Floats:
    """Pieces of both arms about the trunk's own axis, percent of its length: [6, 2, 2], to the picture's right and up. An upper arm begins off its shoulder."""
    hips, trunk_px = lm.hips(body), max(lm.trunk_px(body), 1e-9)
    axis = (lm.shoulders(body) - hips) / trunk_px
    across = np.array([-axis[1], axis[0]]) * (1.0 if axis[1] <= 0 else -1.0)
    pieces: list[Sequence[Floats]] = []
    for first, second in lm.ARM_PIECES:
        start, end = (100.0 / trunk_px * np.array([(body.points_px[i] - hips) @ across, (body.points_px[i] - hips) @ axis]) for i in (first, second))
        pieces.append((start + UPPER_ARM_FROM * (end - start) if first in (lm.SHOULDER_L, lm.SHOULDER_R) else start, end))
    return np.array(pieces)
