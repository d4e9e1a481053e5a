"""Following texture: points of the shirt and of the room against one reference frame (Lucas and Kanade 1981; Bouguet 2000)."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats, Points
from brevin.edge.film import BACK_PCT, PX_PER_PCT, TOP_PCT, column, row

ON_BODY, IN_ROOM = 420, 60  # points looked for
APART_PX = 5
TRUNK_UP_PCT, TRUNK_FORWARD_PCT = (-10.0, 106.0), (-32.0, 45.0)  # where points of the body are wanted: trunk and upper arms
WINDOW_PX = 21  # 10 % of trunk: the seam of a plain shirt still fits in
LEVELS = 1  # halvings of the picture where a point was lost: with the place in the picture before as a start, a step of 20 px is still followed
STRIDE_PX = 2.0  # from one picture to the next: a point that went farther, or is lost, is looked for again in the halved picture
WEAKEST = 0.002  # of the strongest corner; a plain shirt has only weak ones
Single = NDArray[np.float32]
NOISE_GREY = 12.0  # by which a patch of a coded picture differs from its reference, shading and folds included; own, over clips of several makers
ASTRAY_GREY, ASTRAY_PX = 25.0, 6.0  # by which a patch differs that is not the point's, or goes otherwise than most from one picture to the next: it is looked
# for where it was before, once what hides it or draws it along has gone
LOST = 255.0  # difference told of a point that was not found
CRITERIA = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_COUNT, 20, 0.01)


class Texture:
    """Points of one trunk and its room. mask: [HEIGHT, WIDTH], 0 to 1; reference: one grey picture of the film."""

    def __init__(self, mask: NDArray[np.float32], reference: NDArray[np.uint8]) -> None:
        inside = cv2.erode((mask > 0.6).astype(np.uint8), np.ones((9, 9), np.uint8)).astype(np.uint8)
        inside[~_on_trunk(inside.shape)] = 0
        outside = cv2.erode((mask < 0.2).astype(np.uint8), np.ones((25, 25), np.uint8)).astype(np.uint8)
        body, room = _corners(reference, inside, ON_BODY), _corners(reference, outside, IN_ROOM)
        self._reference = reference
        self._start = np.concatenate([body, room]).astype(np.float32)
        self._guess = self._start.copy()
        self._on_body = np.arange(len(self._start)) < len(body)
        self._unsure_px = unsure_px(reference, self._start, WINDOW_PX)
        self._place: list[Floats] = []
        self._error: list[Floats] = []

    def see(self, picture: NDArray[np.uint8]) -> None:
        """Follow all points into the next picture of the film."""
        if not len(self._start):
            self._place.append(np.zeros((0, 2)))
            self._error.append(np.zeros(0))
            return
        found, seen, miss = self._follow(picture, np.ones(len(self._start), bool), levels=0)
        again = ~seen | (np.abs(found - self._guess).max(axis=1) > STRIDE_PX)
        if again.any():
            found[again], seen[again], miss[again] = self._follow(picture, again, levels=LEVELS)
        self._place.append(found.astype(float))
        self._error.append(np.where(seen, miss, LOST))
        step = found - self._guess
        alone = np.abs(step - np.median(step, axis=0)).max(axis=1) > ASTRAY_PX
        self._guess = np.where((seen & ~alone & (miss < ASTRAY_GREY))[:, None], found, self._guess).astype(np.float32)

    def _follow(self, picture: NDArray[np.uint8], which: NDArray[np.bool_], *, levels: int) -> tuple[Single, NDArray[np.bool_], Single]:
        """Where some points are in the picture, [k, 2], whether they were found, and how far the shirt around them differs, grey levels."""
        found, status, miss = cv2.calcOpticalFlowPyrLK(
            self._reference, picture, self._start[which], self._guess[which].copy(), winSize=(WINDOW_PX, WINDOW_PX), maxLevel=levels,
            criteria=CRITERIA, flags=cv2.OPTFLOW_USE_INITIAL_FLOW,
        )  # fmt: skip
        return np.asarray(found, np.float32), status[:, 0] == 1, np.asarray(miss, np.float32)[:, 0]

    def keep_latest(self, pictures: int) -> None:
        """Forget all but the latest pictures."""
        self._place, self._error = self._place[-pictures:], self._error[-pictures:]

    def points(self, *, latest: int | None = None) -> Points:
        """What was followed so far: of all pictures, or moves of the ``latest`` only, with the errors of all."""
        since = 0 if latest is None else max(len(self._place) - latest, 0)
        at = np.column_stack([self._start[:, 0] / PX_PER_PCT + BACK_PCT, TOP_PCT - self._start[:, 1] / PX_PER_PCT])
        move = (np.array(self._place[since:]) - self._start) / PX_PER_PCT * np.array([1.0, -1.0])
        return Points(
            at_pct=np.asarray(at, np.float64), move_pct=move, error=np.array(self._error), on_body=self._on_body, unsure_pct=self._unsure_px / PX_PER_PCT
        )  # fmt: skip


def _on_trunk(shape: tuple[int, ...]) -> NDArray[np.bool_]:
    wanted = np.zeros(shape, bool)
    rows, columns = row(np.array(TRUNK_UP_PCT)).astype(int), column(np.array(TRUNK_FORWARD_PCT)).astype(int)
    wanted[rows[1] : rows[0], columns[0] : columns[1]] = True
    return wanted


def _corners(reference: NDArray[np.uint8], where: NDArray[np.uint8], most: int) -> Floats:
    found = cv2.goodFeaturesToTrack(reference, most, WEAKEST, APART_PX, mask=where, blockSize=7)
    return np.zeros((0, 2)) if found is None else found[:, 0].astype(float)


def unsure_px(reference: NDArray[np.uint8], places: Single, window_px: int) -> Floats:
    """Standard error of a patch's move across and down, px, with the noise of a coded picture: [p, 2]. From the normal equations that it is followed by (Lucas
    and Kanade 1981): where all edges run one way, nothing tells the move along them."""
    across, down = (cv2.Scharr(reference, cv2.CV_64F, *way, scale=1 / 32) for way in ((1, 0), (0, 1)))
    column, row = (np.clip(np.rint(places[:, i]).astype(int), 0, reference.shape[1 - i] - 1) for i in (0, 1))
    products = (across**2, down**2, across * down)
    xx, yy, xy = (cv2.boxFilter(one, -1, (window_px, window_px), normalize=False)[row, column] for one in products)
    left = np.maximum(xx * yy - xy**2, 1e-6)
    return NOISE_GREY * np.sqrt(np.column_stack([yy, xx]) / left[:, None])
