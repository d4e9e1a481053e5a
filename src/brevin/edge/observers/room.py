"""The room over the whole picture: points of it are followed from picture to picture, and tell what the camera itself does: a hand that holds it, a bump, a
lens that looks for its focus.

The film of a trunk shows little of the room, and beside a plain wall nothing of it; a poster in the corner is enough here.
"""

from collections.abc import Sequence
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Floats, Player, moved_pct
from brevin.edge.observers.people import People
from brevin.edge.points import unsure_px
from brevin.edge.steady import CameraMoves
from brevin.edge.video import Luma, VideoFrame

SIDE_PX = 480  # of the small picture that is followed: what a camera does shows over all of it
MOST_POINTS, APART_PX, WEAKEST = 48, 12, 0.01  # the last of the strongest corner
UNSURE_MOST_PX = 0.6  # of a point's moves: a plain wall's points slide along it
WINDOW_PX, LEVELS = 15, 1
MISSED_GREY = 12.0  # a point that looks this unlike its reference was lost
ASTRAY_PX = 4.0  # otherwise than most from one picture to the next: drawn along by somebody who passes, and looked for where it was once he has gone
AWAY_TRUNKS = 0.2  # from anybody's mask or key points
LEAST_POINTS, LEAST_SEEN = 6, 0.8  # and of the pictures, in how many so many of them are found
ROUNDS, FAR_OFF, LEAST_SCATTER_PX = 4, 4.685, 0.03  # of reweighting (Beaton and Tukey 1974), where a point has no say, and how exactly any is followed
LEAST_PCT = 0.8  # of trunk, that a place of the body is moved by over a clip: less is left to back and pelvis, as a picture drawn anew costs more; own, stills
SURE_TIMES = 6.0  # the standard errors of one picture's way that it has to be worth
UNSURE_MOST_PCT = 0.15  # of trunk, that error where the player is: a poster far aside says little of what a turn does there, and would make each picture jump
COMMON_SHARES = (0.02, 0.98)  # of the pictures, between which it is told: a few that are blurred say nothing
PLACES = ((0.0, 0.0), (0.0, 100.0), (20.0, 25.0))  # hips, shoulders, belly: forward and up, percent of trunk


class Room:
    """Follows the room from the first picture on; those from before it is known who plays wait, small."""

    def __init__(self, people: People) -> None:
        self._people = people
        self._early: list[Luma] = []
        self._before = 0
        self._points: _Points | None = None

    def see(self, frame: VideoFrame) -> None:
        """Look where the room is."""
        small = _small(frame.luma)
        if not self._people.picked:
            self._early.append(small)
            return
        if self._points is None:
            first = self._early[0] if self._early else small
            self._points = _Points(first, cv2.resize(self._taken(), first.shape[::-1]))
            self._before = len(self._early)
            for picture in self._early:
                self._points.see(picture)
            self._early = []
        self._points.see(small)

    def moves(self, player: Player) -> CameraMoves | None:
        """What the camera did beside a player, as it was over the first pictures; None where the room tells too little, or of nothing."""
        if self._points is None:
            return None
        larger = max(max(self._people.size_px) / SIDE_PX, 1.0)
        hips, shoulders = np.array(player.hip_px), np.array(player.hip_px) + np.array(player.up) * player.trunk_px
        told = self._points.ways([hips / larger, shoulders / larger])
        if told is None:
            return None
        ways, error_px = told
        ways = ways - np.median(ways[: max(self._before, 1)], axis=0)
        found = _about(ways * np.array([1.0, 1.0, larger, larger]), player)
        error_pct = error_px * larger * 100.0 / player.trunk_px
        if error_pct > UNSURE_MOST_PCT:
            return None
        farthest_pct = max(float(np.ptp(np.quantile(moved_pct(found.each, *place), COMMON_SHARES, axis=0), axis=0).max()) for place in PLACES)
        return found if farthest_pct > max(LEAST_PCT, SURE_TIMES * error_pct) else None

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
        seen &= ~_alone(self._guess.astype(float), np.asarray(found - self._guess, float), seen)
        self._places.append(np.asarray(found, float))
        self._seen.append(seen)
        self._guess = np.where(seen[:, None], found, self._guess).astype(np.float32)

    def ways(self, places: Sequence[Floats]) -> tuple[Floats, float] | None:
        """The similarity of each picture, as ``similarities`` has it, those between where too few points were found; and the usual standard error of one way
        at those of some places where it is largest, px. None where the room was found too seldom."""
        seen = np.array(self._seen)
        good = seen.sum(axis=1) >= LEAST_POINTS if len(seen) else np.zeros(0, bool)
        if not len(good) or good.mean() < LEAST_SEEN:
            return None
        found = similarities(self._start.astype(float), np.array(self._places)[good] - self._start, seen[good])
        whole = np.array([np.interp(np.arange(len(good)), np.flatnonzero(good), way) for way in found.ways.T]).T
        return whole, max(float(np.median(found.error_px(place))) for place in places)


def _alone(at: Floats, step: Floats, seen: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Points whose step from one picture to the next is none of the camera's, which most of them take: [p]. at, step: [p, 2]; seen: [p]."""
    if seen.sum() < LEAST_POINTS or np.abs(step - np.median(step[seen], axis=0))[seen].max() <= ASTRAY_PX:  # the usual case, in no time
        return np.zeros(len(at), bool)
    found = similarities(at, step[None], seen[None]).ways[0]
    return np.asarray(np.abs(step - _way(found[0], found[1], at) - found[2:]).max(axis=1) > ASTRAY_PX)


class Similar(NamedTuple):
    """Similarities of some pictures. ways: [n, 4], zoom less one, turn and shift, so that a place p goes by zoom p + turn (-p_y, p_x) + shift; scatter_px: of
    the points about that, [n]; weight: of them together, [n]; middle: of them, [n, 2]; spread: sum of their squared distances from there, [n]."""

    ways: Floats
    scatter_px: Floats
    weight: Floats
    middle: Floats
    spread: Floats

    def error_px(self, place: Floats) -> Floats:
        """Standard error of the way of a place: [n]. The farther it is from the points, the less they say of what a turn or a zoom does there."""
        return np.asarray(self.scatter_px * np.sqrt(1.0 / self.weight + ((place - self.middle) ** 2).sum(axis=1) / self.spread))


def similarities(at: Floats, move: Floats, seen: NDArray[np.bool_]) -> Similar:
    """What most points do in each picture: by least squares, points that go their own way left out. at: [p, 2]; move: [n, p, 2]; seen: [n, p], which were
    found."""
    weight, n = seen.astype(float), len(move)
    found = Similar(np.zeros((n, 4)), np.zeros(n), np.ones(n), np.zeros((n, 2)), np.ones(n))
    for _ in range(ROUNDS):
        whole = np.maximum(weight.sum(axis=1), 1e-9)
        middle, gone_by = weight @ at / whole[:, None], np.einsum("np,npx->nx", weight, move) / whole[:, None]
        own, gone = at - middle[:, None], move - gone_by[:, None]
        spread = np.maximum(np.einsum("np,npx->n", weight, own**2), 1e-9)
        zoom = np.einsum("np,npx,npx->n", weight, own, gone) / spread
        turn = np.einsum("np,np->n", weight, own[..., 0] * gone[..., 1] - own[..., 1] * gone[..., 0]) / spread
        off = np.hypot(*np.moveaxis(gone - _way(zoom[:, None], turn[:, None], own), -1, 0))
        scatter = np.maximum(1.4826 * np.median(off, axis=1, keepdims=True), LEAST_SCATTER_PX)
        found = Similar(np.column_stack([zoom, turn, gone_by - _way(zoom, turn, middle)]), scatter[:, 0], whole, middle, spread)
        weight = seen * np.clip(1.0 - (off / (FAR_OFF * scatter)) ** 2, 0.0, None) ** 2
    return found


def _way(zoom: Floats, turn: Floats, place: Floats) -> Floats:
    return np.asarray(zoom[..., None] * place + turn[..., None] * np.stack([-place[..., 1], place[..., 0]], axis=-1))


def _about(ways: Floats, player: Player) -> CameraMoves:
    """The same about a player's hips, in the body's own axes. ways: in the working picture."""
    hip, forward, up = (np.array(v, float) for v in (player.hip_px, player.forward, player.up))
    zoom, turn, shift = ways[:, 0], ways[:, 1], ways[:, 2:]
    gone_px = _way(zoom, turn, np.broadcast_to(hip, (len(ways), 2))) + shift
    ahead = forward + _way(zoom, turn, np.broadcast_to(forward, (len(ways), 2)))  # where a way forward leads
    along, across = ahead @ forward, ahead @ up
    return CameraMoves(np.hypot(along, across), np.arctan2(across, along), np.column_stack([gone_px @ forward, gone_px @ up]) * 100.0 / player.trunk_px)


def _small(luma: Luma) -> Luma:
    share = SIDE_PX / max(luma.shape)
    return luma if share >= 1.0 else np.asarray(cv2.resize(luma, None, fx=share, fy=share, interpolation=cv2.INTER_AREA), np.uint8)
