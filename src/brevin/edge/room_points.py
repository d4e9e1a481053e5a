"""Points of the room in a clip's small pictures: what most of them do, whether the camera stood still, and whether much moves by itself."""

from collections.abc import Sequence
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats
from brevin.edge.corners import APART_PX, WEAKEST, WINDOW_PX, at_rest, corners, sure
from brevin.edge.similar import similarities, way
from brevin.edge.video import Luma

MOST_POINTS = 48  # of the strongest, whose way is told; others of every part of the picture only stand still, or do not
LEVELS = 1  # halvings of the small picture
MISSED_GREY = 12.0  # a point that looks this unlike its reference was lost
ASTRAY_PX = 4.0  # otherwise than most from one picture to the next: drawn along by somebody who passes, and looked for where it was once he has gone
LEAST_POINTS, LEAST_SEEN = 6, 0.8  # and of the pictures, in how many so many of them are found
REST_PX, OFF_PX = 0.35, 1.0  # of the small picture, between the common shares: who goes less rests, who goes farther otherwise than the camera moves by himself
NEAR, NEAR_PX, ALIKE_SHARE = 4, 60.0, 0.35  # neighbours that move as well, how far aside, and how unlike they go, of the way: grain goes nowhere together
RESTLESS = 0.3  # of the points, that are lost or move by themselves: up to 0.2 in rooms where nobody moves, in grain, or where one walks past; own
USUAL = 0.9  # of the pictures, in which two points go alike
COMMON_SHARES = (0.02, 0.98)  # of the pictures, between which it is told how far something goes: a few that are blurred say nothing


class Standing(NamedTuple):
    """still: the camera surely stood, whatever moved before it; restless: much of what it sees behind the player moves by itself: other children, a screen."""

    still: bool
    restless: bool


class RoomPoints:
    """Points of the room, followed from one small picture to the next. taken: where somebody is in the first, 1 and 0."""

    def __init__(self, reference: Luma, taken: NDArray[np.uint8]) -> None:
        self._reference = reference
        found = cv2.goodFeaturesToTrack(reference, MOST_POINTS, WEAKEST, APART_PX, mask=1 - taken, blockSize=7)
        start = np.zeros((0, 2), np.float32) if found is None else found[:, 0].astype(np.float32)
        strongest = sure(reference, start)
        free = np.asarray(255 * (1 - taken), np.uint8)
        for x, y in strongest:
            cv2.circle(free, (int(x), int(y)), APART_PX, 0, -1)
        self._start = np.concatenate([strongest, corners(reference, free)])
        self._most = len(strongest)
        self._guess = self._start.copy()
        self._places: list[Floats] = []
        self._seen: list[NDArray[np.bool_]] = []

    def see(self, picture: Luma) -> None:
        """Follow all points into the next picture."""
        if not len(self._start):
            return
        found, status, miss = cv2.calcOpticalFlowPyrLK(
            self._reference, picture, self._start, self._guess.copy(), winSize=(WINDOW_PX, WINDOW_PX), maxLevel=LEVELS, flags=cv2.OPTFLOW_USE_INITIAL_FLOW,
        )  # fmt: skip
        seen = (status[:, 0] == 1) & (miss[:, 0] < MISSED_GREY)
        strongest = slice(self._most)
        seen[strongest] &= ~_alone(self._guess[strongest].astype(float), np.asarray(found - self._guess, float)[strongest], seen[strongest])
        self._places.append(np.asarray(found, float))
        self._seen.append(seen)
        self._guess = np.where(seen[:, None], found, self._guess).astype(np.float32)

    def ways(self, places: Sequence[Floats]) -> tuple[Floats, float] | None:
        """The similarity of each picture, as ``similarities`` has it, those between where too few points were found; and the usual standard error of one way
        at those of some places where it is largest, px. None where the room was found too seldom."""
        if not self._seen:
            return None
        moves, seen = self._moves(self._most)
        good = seen.sum(axis=1) >= LEAST_POINTS
        if good.mean() < LEAST_SEEN:
            return None
        found = similarities(self._start[: self._most].astype(float), moves[good], seen[good])
        whole = np.array([np.interp(np.arange(len(good)), np.flatnonzero(good), way) for way in found.ways.T]).T
        return whole, max(float(np.median(found.error_px(place))) for place in places)

    def standing(self) -> Standing:
        """Whether the camera stood still: then points far apart do; and whether much moves by itself, or is not found again."""
        if not self._seen:
            return Standing(still=False, restless=False)
        moves, seen = self._moves(len(self._start))
        far = _far(moves, seen)
        still = at_rest(self._start.astype(float), far < REST_PX, float(self._reference.shape[1]))
        if not still:
            start, seen = self._start[: self._most].astype(float), seen[:, : self._most]
            ways = similarities(start, moves[:, : self._most], seen).ways
            moves = moves[:, : self._most] - np.array([way(one[0], one[1], start) + one[2:] for one in ways])
            far = _far(moves, seen)
        return Standing(still, len(far) >= LEAST_POINTS and bool(by_themselves(self._start, moves, seen, far).mean() > RESTLESS))

    def _moves(self, most: int) -> tuple[Floats, NDArray[np.bool_]]:
        """How far so many points have gone in each picture, px: [n, p, 2], and where they were found: [n, p]."""
        return np.array(self._places)[:, :most] - self._start[:most], np.array(self._seen)[:, :most]


def by_themselves(start: NDArray[np.float32], moves: Floats, seen: NDArray[np.bool_], far: Floats) -> NDArray[np.bool_]:
    """Which points are lost, or move along with one beside them, as what somebody wears does: [p]. moves: [n, p, 2], what the camera does taken away; seen:
    [n, p]; far: [p], how far each goes."""
    own = ~np.isfinite(far)
    moving = np.flatnonzero(np.isfinite(far) & (far > OFF_PX))
    for i in moving:
        aside = np.hypot(*(start[moving] - start[i]).T)
        for j in moving[np.argsort(aside)[1 : NEAR + 1]]:
            both = seen[:, i] & seen[:, j]
            unlike = np.hypot(*(moves[both, i] - moves[both, j]).T)
            near = np.hypot(*(start[j] - start[i])) < NEAR_PX
            own[i] |= bool(near and both.any() and np.quantile(unlike, USUAL) < max(OFF_PX, ALIKE_SHARE * far[i]))
    return own


def _far(moves: Floats, seen: NDArray[np.bool_]) -> Floats:
    """How far each point goes over the clip, px: [p], without end where it is lost too often. moves: [n, p, 2]; seen: [n, p]."""
    often = seen.mean(axis=0) > LEAST_SEEN
    far = np.full(seen.shape[1], np.inf)
    if often.any():  # none is, where the picture that they were found in was spoiled, or the camera was taken away
        found = np.where(seen[..., None], moves, np.nan)[:, often]
        far[often] = np.ptp(np.nanquantile(found, COMMON_SHARES, axis=0), axis=0).max(axis=-1)
    return far


def _alone(at: Floats, step: Floats, seen: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Points whose step from one picture to the next is none of the camera's, which most of them take: [p]. at, step: [p, 2]; seen: [p]."""
    if seen.sum() < LEAST_POINTS or np.abs(step - np.median(step[seen], axis=0))[seen].max() <= ASTRAY_PX:  # the usual case, in no time
        return np.zeros(len(at), bool)
    found = similarities(at, step[None], seen[None]).ways[0]
    return np.asarray(np.abs(step - way(found[0], found[1], at) - found[2:]).max(axis=1) > ASTRAY_PX)
