"""What a camera sees now, picture by picture: who is there and how still the room is, over the last moments."""

from collections import deque
from dataclasses import replace
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import InvalidInput
from brevin.core.gate import Stretch
from brevin.core.kinematics.tilt import Tilt, tilt
from brevin.core.pose import landmarks as lm
from brevin.core.track import WORK_SIDE_PX, Body, Floats, Picture, PoseSample
from brevin.edge.corners import at_rest, corners
from brevin.edge.pose_model import PoseModel
from brevin.edge.room_points import RESTLESS, by_themselves
from brevin.edge.room_seen import outside, uprights
from brevin.edge.stickers import stickers_of

WINDOW_S = 3.0  # of the past that readiness looks at
REST_PX = 0.25  # from one picture to the next, of a point of the room that stands still
EDGES_S = 1.0  # between looks at the room's upright edges: a phone is put up once
UNKNOWN_TRUNK = 0.25  # of the picture's height, where nobody is seen yet
LARGEST_PX = 2_000_000

Rgb = NDArray[np.uint8]
Grey = NDArray[np.uint8]


def picture_of(content: bytes) -> Rgb:
    """A sent picture: [height, width, 3]. Raises InvalidInput(no_picture)."""
    try:
        found: Any = cv2.imdecode(np.frombuffer(content, np.uint8), cv2.IMREAD_COLOR)
    except cv2.error:
        found = None
    if found is None or found.shape[0] * found.shape[1] > LARGEST_PX:
        raise InvalidInput("no_picture")
    rgb: Rgb = cv2.cvtColor(found, cv2.COLOR_BGR2RGB)
    return rgb


class Now:
    """The last moments before one camera. Key points are given in pictures of the size that clips are worked on."""

    def __init__(self, network: PoseModel) -> None:
        self.size_px = (0.0, 0.0)
        self._network = network
        self._seen: deque[tuple[PoseSample, float, float, Floats, float]] = deque()
        self._last: Grey | None = None
        self._gone: Floats = np.zeros(2)
        self._tilt: Tilt | None = None
        self._edges_s = -np.inf

    def see(self, rgb: Rgb, t_s: float) -> None:
        """Look at the next picture. rgb: [height, width, 3]; t_s: when it was taken, on the camera's own clock."""
        grey = cv2.cvtColor(rgb, cv2.COLOR_RGB2GRAY).astype(np.uint8)
        scale = WORK_SIDE_PX / max(grey.shape)
        bodies = tuple(replace(body, stickers=stickers_of(rgb, body)) for body in self._network.see(rgb, with_masks=False).bodies)
        self.size_px = (grey.shape[1] * scale, grey.shape[0] * scale)
        sample = PoseSample(t_s=t_s, bodies=tuple(larger(body, scale) for body in bodies), light=float(np.percentile(grey[::8, ::8], 75)))
        light, detail = _light(grey, bodies)
        if self._seen and not 0.0 < t_s - self._seen[-1][0].t_s < WINDOW_S:  # another camera, or one that slept
            self._seen.clear()
            self._last, self._edges_s = None, -np.inf
        trunk_px = max((lm.trunk_px(body) for body in bodies), default=UNKNOWN_TRUNK * grey.shape[0])
        step, restless = _step(self._last, grey, bodies)
        self._gone = self._gone + step / max(trunk_px, 1.0) * 100.0
        self._last = grey
        if bodies and t_s >= self._edges_s + EDGES_S:
            self._tilt, self._edges_s = _tilted(grey, bodies), t_s
        self._seen.append((sample, light, detail, self._gone, restless))
        while self._seen[0][0].t_s < t_s - WINDOW_S:
            self._seen.popleft()

    def stretch(self) -> Stretch:
        """What the gate looks at."""
        samples, light, detail, room, restless = zip(*self._seen, strict=True)
        nothing = np.zeros(0)
        picture = Picture(light=np.array(light), detail=np.array(detail), change=nothing, clear=nothing, room_pct=np.array(room))
        return Stretch(np.array([s.t_s for s in samples]), picture, tuple(samples), self._tilt, bool(np.mean(restless) > RESTLESS))


def _tilted(grey: Grey, bodies: tuple[Body, ...]) -> Tilt | None:
    """As the room's edges tell it where the largest body is."""
    return tilt(uprights(grey, bodies), (grey.shape[1], grey.shape[0]), float(lm.hips(max(bodies, key=lm.trunk_px))[0]))


def _step(last: Grey | None, grey: Grey, bodies: tuple[Body, ...]) -> tuple[Floats, float]:
    """How far the room's points went since the last picture, px: [2], nought where none is seen or the camera stands still; and the share of them that move all
    the same."""
    points = corners(last, outside(last, bodies)) if last is not None and last.shape == grey.shape else np.zeros((0, 2), np.float32)
    if not len(points):
        return np.zeros(2), 0.0
    found, status, _ = cv2.calcOpticalFlowPyrLK(last, grey, points, points.copy())
    here, moved = status[:, 0] == 1, (found - points).astype(float)
    if not here.any():
        return np.zeros(2), 0.0
    far, usual = np.where(here, np.hypot(*moved.T), np.inf), np.asarray(np.median(moved[here], axis=0))
    if not at_rest(points.astype(float), far < REST_PX, float(grey.shape[1])):
        return usual, 0.0
    own = by_themselves(points, moved[None], here[None], far)
    return np.zeros(2) if np.hypot(*usual) > REST_PX else usual, float(own.mean())  # a slow drift is small in each step


def _light(grey: Grey, bodies: tuple[Body, ...]) -> tuple[float, float]:
    """Median grey of the player's trunk and its standard deviation; of the whole picture where nobody is seen."""
    part = grey
    if bodies:
        corners = max(bodies, key=lm.trunk_px).points_px[list(lm.TRUNK)]
        (left, top), (right, bottom) = np.clip(corners.min(axis=0), 0, None).astype(int), np.clip(corners.max(axis=0), 0, None).astype(int)
        part = grey[top : bottom + 1, max(left - 4, 0) : right + 5]
    if not part.size:
        part = grey
    return float(np.median(part)), float(part.std())


def larger(body: Body, scale: float) -> Body:
    """A body as it would be in a picture so many times as large."""
    stickers = None if body.stickers is None else replace(body.stickers, at_px=body.stickers.at_px * scale)
    return Body(points_px=body.points_px * scale, visibility=body.visibility, world=body.world, stickers=stickers)
