"""The room over the whole picture: points of it are followed from picture to picture, and tell what the camera itself does: a hand that holds it, a bump, a
lens that looks for its focus.

The film of a trunk shows little of the room, and beside a plain wall nothing of it; a poster in the corner is enough here.
"""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Floats, Player, moved_pct
from brevin.edge.observers.people import People
from brevin.edge.room_points import COMMON_SHARES, RoomPoints, Standing
from brevin.edge.similar import way
from brevin.edge.steady import CameraMoves
from brevin.edge.video import Luma, VideoFrame

SIDE_PX = 480  # of the small picture that is followed: what a camera does shows over all of it
AWAY_TRUNKS = 0.2  # from anybody's mask or key points
LEAST_PCT = 0.8  # of trunk, that a place of the body is moved by over a clip: less is left to back and pelvis, as a picture drawn anew costs more; own, stills
STRETCHED_PCT = 0.4  # of trunk, that a zoom makes it longer by: neither back nor pelvis tells that, and a quarter of a rise that is judged would be the lens's
SURE_TIMES = 6.0  # the standard errors of one picture's way that it has to be worth
UNSURE_MOST_PCT = 0.15  # of trunk, that error where the player is: a poster far aside says little of what a turn does there, and would make each picture jump
PLACES = ((0.0, 0.0), (0.0, 100.0), (20.0, 25.0))  # hips, shoulders, belly: forward and up, percent of trunk


class Room:
    """Follows the room from the first picture on; those from before it is known who plays wait, small."""

    def __init__(self, people: People) -> None:
        self._people = people
        self._early: list[Luma] = []
        self._before = 0
        self._points: RoomPoints | None = None

    def see(self, frame: VideoFrame) -> None:
        """Look where the room is."""
        small = _small(frame.luma)
        if not self._people.picked:
            self._early.append(small)
            return
        if self._points is None:
            first = self._early[0] if self._early else small
            self._points = RoomPoints(first, cv2.resize(self._taken(), first.shape[::-1]))
            self._before = len(self._early)
            for picture in self._early:
                self._points.see(picture)
            self._early = []
        self._points.see(small)

    def standing(self) -> Standing:
        """Whether the camera stood still, and the room."""
        return Standing(still=False, restless=False) if self._points is None else self._points.standing()

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
        farthest_pct = max(_range(moved_pct(found.each, *place)) for place in PLACES)
        least_pct = LEAST_PCT if _range(100.0 * found.zoom) < STRETCHED_PCT else STRETCHED_PCT
        return found if farthest_pct > max(least_pct, SURE_TIMES * error_pct) else None

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


def _range(values: Floats) -> float:
    """How far something goes over the clip, the way in which it goes farthest. values: [n] or [n, 2]."""
    return float(np.ptp(np.quantile(values, COMMON_SHARES, axis=0), axis=0).max())


def _about(ways: Floats, player: Player) -> CameraMoves:
    """The same about a player's hips, in the body's own axes. ways: in the working picture."""
    hip, forward, up = (np.array(v, float) for v in (player.hip_px, player.forward, player.up))
    zoom, turn, shift = ways[:, 0], ways[:, 1], ways[:, 2:]
    gone_px = way(zoom, turn, np.broadcast_to(hip, (len(ways), 2))) + shift
    ahead = forward + way(zoom, turn, np.broadcast_to(forward, (len(ways), 2)))  # where a way forward leads
    along, across = ahead @ forward, ahead @ up
    return CameraMoves(np.hypot(along, across), np.arctan2(across, along), np.column_stack([gone_px @ forward, gone_px @ up]) * 100.0 / player.trunk_px)


def _small(luma: Luma) -> Luma:
    """The picture as small as it is followed: halved, which averages, as long as it stays larger, and the rest between pixels; averaged over uneven areas it
    would cost as much as all else that is done with a picture."""
    while max(luma.shape) >= 2 * SIDE_PX:
        luma = np.asarray(cv2.resize(luma, (luma.shape[1] // 2, luma.shape[0] // 2), interpolation=cv2.INTER_AREA), np.uint8)
    share = SIDE_PX / max(luma.shape)
    return luma if share >= 1.0 else np.asarray(cv2.resize(luma, None, fx=share, fy=share), np.uint8)
