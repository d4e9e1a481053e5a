"""What a body's outline tells of posture: how far the back bows out from the side, and how level the shoulders are from the front.

The outline is used only where it is the trunk's own: no arm of the same moment lies on it.
"""

from collections.abc import Sequence
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
LEAST_SHAPES, LEAST_SHARE = 3, 0.5  # outlines from which a clip has one, and how many of those looked at: a few among hidden ones are chance
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
class Across:
    """What lies across both shoulders at one moment. line_deg: against level, + = the player's left higher; at_px: lines through the places it was read at:
    [m, k, 2]."""

    line_deg: float
    at_px: Floats


def tops_of(body: Body) -> Across | None:
    """By the tops of a body's shoulders, median over the places that are free on both sides; None where arms hide too much of them, or nobody looked."""
    if body.shape is None:
        return None
    over = body.shape.over_pct
    free = np.asarray(np.isfinite(over).all(axis=0) & ~_hidden(body, over).any(axis=0))
    if free.sum() < LEAST_ASIDE:
        return None
    line_deg = np.degrees(np.arctan2(_left_is(body) * (over[1] - over[0])[free], 2.0 * ASIDE_PCT[free]))
    beside = np.array([np.column_stack([side * ASIDE_PCT[free], -own[free]]) for side, own in zip((-1.0, 1.0), over, strict=True)])
    return Across(float(np.median(line_deg)), lm.shoulders(body) + lm.trunk_px(body) / 100.0 * beside)


def pits_of(body: Body) -> Across | None:
    """By both armpits; None where one is not to be told, the arms do not stand out, or nobody looked."""
    if body.shape is None or body.shape.pits_pct is None or not np.isfinite(body.shape.pits_pct).all():
        return None
    aside, up = body.shape.pits_pct.T * lm.trunk_px(body) / 100.0
    across, along = lm.trunk_axes(body)
    at_px = lm.hips(body) + (np.array([-1.0, 1.0]) * aside)[:, None] * across + up[:, None] * along
    right, down = at_px[1] - at_px[0]
    return Across(_left_is(body) * -float(np.degrees(np.arctan2(down, right))), at_px[None])


def shoulders_seen(seen: Sequence[tuple[float, Body]]) -> list[tuple[float, Across]]:
    """What lies across the shoulders at the moments that tell it: their tops, and the armpits where arms hide those; none where neither is told in most of
    the looks."""
    for told_by in (tops_of, pits_of):
        looked = [(t_s, told_by(body)) for t_s, body in seen if body.shape is not None]
        told = [(t_s, own) for t_s, own in looked if own is not None]
        if enough(len(told), len(looked)):
            return told
    return []


def enough(told: int, looked: int) -> bool:
    """Whether so many outlines of those looked at tell something of the clip."""
    return told >= max(LEAST_SHAPES, LEAST_SHARE * looked)


def _left_is(body: Body) -> float:
    """1 where the player's left is the picture's right, as it is of one who looks into the camera, else -1."""
    return float(np.sign(body.points_px[lm.SHOULDER_L, 0] - body.points_px[lm.SHOULDER_R, 0])) or 1.0


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
