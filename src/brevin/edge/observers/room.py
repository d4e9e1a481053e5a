"""The room over the whole picture: points of it are followed from picture to picture, and tell whether the lens zooms, as one does that looks for its focus.

The film of a trunk shows little of the room, and beside a plain wall nothing of it; a poster in the corner is enough here.
"""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Floats
from brevin.edge.observers.people import People
from brevin.edge.points import unsure_px
from brevin.edge.video import Luma, VideoFrame

SIDE_PX = 480  # of the small picture that is followed: a zoom shows over all of it
EVERY = 2  # pictures: a lens takes several for its focus
MOST_POINTS, APART_PX, WEAKEST = 48, 12, 0.01  # the last of the strongest corner
UNSURE_MOST_PX = 0.6  # of a point's moves: a plain wall's points slide along it
WINDOW_PX, LEVELS = 15, 1
MISSED_GREY = 12.0  # a point that looks this unlike its reference was lost
AWAY_TRUNKS = 0.2  # from anybody's mask or key points
LEAST_POINTS = 6
ROUNDS, FAR_OFF, LEAST_SCATTER_PX = 4, 4.685, 0.03  # of reweighting (Beaton and Tukey 1974), where a point has no say, and how exactly any is followed
LASTING = 2  # looks on either side of a running median
LEAST = 0.002  # of the picture's size, over a whole clip: a clip without a zoom comes to 0.0014, and no breath notices less
MOST = 0.05  # no lens zooms further while it looks for its focus
SURE_TIMES = 6.0  # the standard errors of one look that a zoom has to be worth
COMMON_SHARES = (0.02, 0.98)  # of the looks, between which a zoom is told: a few that are blurred say nothing


class Room:
    """Follows the room from the moment it is known who plays."""

    def __init__(self, people: People) -> None:
        self._people = people
        self._pictures = 0
        self._looked: list[int] = []
        self._points: _Points | None = None

    def see(self, frame: VideoFrame) -> None:
        """Look where the room is."""
        if self._people.picked and self._pictures % EVERY == 0:
            if self._points is None:
                self._points = _Points(_small(frame.luma), cv2.resize(self._taken(), _small(frame.luma).shape[::-1]))
            self._points.see(_small(frame.luma))
            self._looked.append(self._pictures)
        self._pictures += 1

    def zoom(self, pictures: int) -> Floats:
        """How much larger each picture is than the first that was looked at, as a share: [pictures]; none where the room tells of none."""
        told = np.zeros(0) if self._points is None else self._points.zoom()
        return np.interp(np.arange(pictures), self._looked, told) if told.any() else np.zeros(pictures)

    def _taken(self) -> NDArray[np.uint8]:
        """Where in the working picture somebody is, 1 and 0."""
        people = self._people
        taken = np.max([people.mask(player) > 0.3 for player in people.players], axis=0).astype(np.uint8)
        bodies = [body for sample in people.samples for body in sample.bodies]
        for body in bodies:
            low, high = body.points_px.min(axis=0), body.points_px.max(axis=0)
            cv2.rectangle(taken, [int(v) for v in low], [int(v) for v in high], 1, -1)
        away_px = 2 * int(AWAY_TRUNKS * max(lm.trunk_px(body) for body in bodies)) + 1
        return np.asarray(cv2.dilate(taken, np.ones((away_px, away_px), np.uint8)), np.uint8)


class _Points:
    """Points of the room in small pictures. taken: where somebody is."""

    def __init__(self, reference: Luma, taken: NDArray[np.uint8]) -> None:
        self._reference = reference
        found = cv2.goodFeaturesToTrack(reference, MOST_POINTS, WEAKEST, APART_PX, mask=1 - taken, blockSize=7)
        start = np.zeros((0, 2), np.float32) if found is None else found[:, 0].astype(np.float32)
        self._start = start[unsure_px(reference, start, WINDOW_PX).max(axis=1) < UNSURE_MOST_PX] if len(start) else start
        self._guess = self._start.copy()
        self._places: list[Floats] = []
        self._seen: list[NDArray[np.bool_]] = []

    def see(self, picture: Luma) -> None:
        """Follow all points into the next picture."""
        if len(self._start) < LEAST_POINTS:
            return
        found, status, miss = cv2.calcOpticalFlowPyrLK(
            self._reference, picture, self._start, self._guess.copy(), winSize=(WINDOW_PX, WINDOW_PX), maxLevel=LEVELS, flags=cv2.OPTFLOW_USE_INITIAL_FLOW,
        )  # fmt: skip
        seen = (status[:, 0] == 1) & (miss[:, 0] < MISSED_GREY)
        self._places.append(np.asarray(found, float))
        self._seen.append(seen)
        self._guess = np.where(seen[:, None], found, self._start).astype(np.float32)

    def zoom(self) -> Floats:
        """Zoom of each look, less one; none where too little of the room is seen, or hardly any zoom over the clip."""
        if len(self._places) <= 2 * LASTING:
            return np.zeros(len(self._places))
        each, error = larger(self._start.astype(float), np.array(self._places) - self._start, np.array(self._seen))
        zoom = _lasting(each)
        low, high = np.quantile(zoom, COMMON_SHARES)
        told = max(LEAST, SURE_TIMES * float(np.median(error))) < high - low < MOST
        return zoom if told else np.zeros(len(zoom))


def larger(at: Floats, move: Floats, seen: NDArray[np.bool_]) -> tuple[Floats, Floats]:
    """Zoom less one of each picture, and its standard error: shift, turn and zoom by least squares, points that go their own way left out. at: [p, 2]; move:
    [n, p, 2]; seen: [n, p], which points were found."""
    weight = seen.astype(float)
    zoom, error = np.zeros(len(move)), np.full(len(move), np.inf)
    for _ in range(ROUNDS):
        whole = np.maximum(weight.sum(axis=1), 1e-9)
        own = at - (weight @ at / whole[:, None])[:, None]
        gone = move - (np.einsum("np,npx->nx", weight, move) / whole[:, None])[:, None]
        spread = np.maximum(np.einsum("np,npx->n", weight, own**2), 1e-9)
        zoom = np.einsum("np,npx,npx->n", weight, own, gone) / spread
        turn = np.einsum("np,np->n", weight, own[..., 0] * gone[..., 1] - own[..., 1] * gone[..., 0]) / spread
        turned = np.stack([-own[..., 1], own[..., 0]], axis=-1)
        off = np.hypot(*np.moveaxis(gone - zoom[:, None, None] * own - turn[:, None, None] * turned, -1, 0))
        scatter = np.maximum(1.4826 * np.median(off, axis=1, keepdims=True), LEAST_SCATTER_PX)
        error = scatter[:, 0] / np.sqrt(spread)
        weight = seen * np.clip(1.0 - (off / (FAR_OFF * scatter)) ** 2, 0.0, None) ** 2
    return zoom, error


def _lasting(values: Floats) -> Floats:
    """Running median: what lasts less than half the window is gone."""
    padded = np.concatenate([np.repeat(values[:1], LASTING), values, np.repeat(values[-1:], LASTING)])
    return np.asarray(np.median(np.lib.stride_tricks.sliding_window_view(padded, 2 * LASTING + 1), axis=-1))


def _small(luma: Luma) -> Luma:
    share = SIDE_PX / max(luma.shape)
    return luma if share >= 1.0 else np.asarray(cv2.resize(luma, None, fx=share, fy=share, interpolation=cv2.INTER_AREA), np.uint8)
