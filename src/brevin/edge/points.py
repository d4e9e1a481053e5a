"""Following texture: points of the shirt and of the room against one reference frame (Lucas and Kanade 1981; Bouguet 2000)."""

from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats, Points
from brevin.edge.film import BACK_PCT, PX_PER_PCT, TOP_PCT, column, row

ON_BODY, IN_ROOM = 420, 60  # points looked for
APART_PX = 5
TRUNK_UP_PCT, TRUNK_FORWARD_PCT = (-10.0, 106.0), (-32.0, 45.0)  # where points of the body are wanted: trunk and upper arms
WINDOW_PX = 21  # 10 % of trunk: the seam of a plain shirt still fits in
LEVELS = 1  # halvings of the picture: with the place in the picture before as a start, a step of 20 px is still followed
WEAKEST = 0.002  # of the strongest corner; a plain shirt has only weak ones
CRITERIA = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_COUNT, 20, 0.01)

Film = NDArray[np.uint8]


def follow(film: Film, mask: NDArray[np.float32], *, reference: NDArray[np.uint8], workers: int = 2) -> Points:
    """Points against the reference. film: [n, HEIGHT, WIDTH]; mask: [HEIGHT, WIDTH], 0 to 1; reference: one grey picture of the film."""
    inside = cv2.erode((mask > 0.6).astype(np.uint8), np.ones((9, 9), np.uint8)).astype(np.uint8)
    inside[~_on_trunk(inside.shape)] = 0
    outside = cv2.erode((mask < 0.2).astype(np.uint8), np.ones((25, 25), np.uint8)).astype(np.uint8)
    body, room = _corners(reference, inside, ON_BODY), _corners(reference, outside, IN_ROOM)
    start = np.concatenate([body, room]).astype(np.float32)
    if not len(start):
        nothing = np.zeros((len(film), 0))
        return Points(np.zeros((0, 2)), np.zeros((len(film), 0, 2)), nothing, np.zeros(0, bool))
    pieces = np.array_split(np.arange(len(film)), workers)
    with ThreadPoolExecutor(workers) as pool:
        done = list(pool.map(lambda piece: _follow(film[piece], reference, start), pieces))
    place, error = (np.concatenate([part[i] for part in done]) for i in (0, 1))
    at = np.column_stack([start[:, 0] / PX_PER_PCT + BACK_PCT, TOP_PCT - start[:, 1] / PX_PER_PCT])
    move = (place - start) / PX_PER_PCT * np.array([1.0, -1.0])
    return Points(at_pct=at, move_pct=move, error=error, on_body=np.arange(len(start)) < len(body))


def _on_trunk(shape: tuple[int, ...]) -> NDArray[np.bool_]:
    wanted = np.zeros(shape, bool)
    rows, columns = row(np.array(TRUNK_UP_PCT)).astype(int), column(np.array(TRUNK_FORWARD_PCT)).astype(int)
    wanted[rows[1] : rows[0], columns[0] : columns[1]] = True
    return wanted


def _corners(reference: NDArray[np.uint8], where: NDArray[np.uint8], most: int) -> Floats:
    found = cv2.goodFeaturesToTrack(reference, most, WEAKEST, APART_PX, mask=where, blockSize=7)
    return np.zeros((0, 2)) if found is None else found[:, 0].astype(float)


def _follow(film: Film, reference: NDArray[np.uint8], start: NDArray[np.float32]) -> tuple[Floats, Floats]:
    place = np.empty((len(film), len(start), 2))
    error = np.empty((len(film), len(start)))
    guess = start.copy()
    for i, picture in enumerate(film):
        found, status, miss = cv2.calcOpticalFlowPyrLK(
            reference, picture, start, guess.copy(), winSize=(WINDOW_PX, WINDOW_PX), maxLevel=LEVELS,
            criteria=CRITERIA, flags=cv2.OPTFLOW_USE_INITIAL_FLOW,
        )  # fmt: skip
        place[i] = found
        error[i] = np.where(status[:, 0] == 1, miss[:, 0], 255.0)
        guess = np.where(status == 1, found, start).astype(np.float32)
    return place, error
