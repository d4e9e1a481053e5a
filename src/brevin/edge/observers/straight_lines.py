"""Straight edges: those that lead past each player's mouth, a few times in a clip, among which tubes and joints of an instrument are found; and once those of
the room that stand upright."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, LinesSeen
from brevin.edge.observers.people import People
from brevin.edge.room_seen import uprights
from brevin.edge.video import Luma, VideoFrame

EVERY_S = 1.5  # between the pictures that are looked at: as often as the key points of somebody who sits still
MOST_PICTURES = 24  # kept until the end: under 1 MB each
AROUND_TRUNKS = 1.7  # trunk lengths around the mouth: a flute is one and a half long
SHORTEST_TRUNKS = 0.1  # shorter edges belong to keys, fingers and folds
PAST_MOUTH_TRUNKS = 0.25  # how far beside the mouth an edge's line may lead: stripes of a shirt and the wall's shelves are left out
MOST_LINES = 80  # of a picture, the longest


class StraightLines:
    """Keeps the pictures in which key points were asked for, and finds their edges at the end, when the key points are there."""

    def __init__(self, people: People) -> None:
        self._people = people
        self._kept: list[tuple[float, Luma]] = []

    def see(self, frame: VideoFrame) -> None:
        """Keep the picture where it is one of those."""
        due = not self._kept or frame.t_s >= self._kept[-1][0] + EVERY_S
        if due and self._people.asked_s == frame.t_s and len(self._kept) < MOST_PICTURES:
            self._kept.append((frame.t_s, frame.luma))

    def found(self) -> tuple[LinesSeen, ...]:
        """The edges of every picture that was kept. Call it when the people are finished."""
        detector = cv2.createLineSegmentDetector(cv2.LSD_REFINE_STD)
        bodies = {sample.t_s: sample.bodies for sample in self._people.samples}
        lines = [LinesSeen(t_s, _edges(detector, luma, bodies.get(t_s, ()))) for t_s, luma in self._kept]
        return tuple(one for one in lines if len(one.segments_px))

    def uprights(self) -> Floats:
        """The room's upright edges in the first picture that shows somebody: [k, 4], two ends each, px of the working picture. Call it when the people are
        finished."""
        bodies = {sample.t_s: sample.bodies for sample in self._people.samples}
        return next((uprights(luma, bodies[t_s]) for t_s, luma in self._kept if bodies.get(t_s)), np.zeros((0, 4)))


def _edges(detector: cv2.LineSegmentDetector, luma: Luma, bodies: tuple[Body, ...]) -> Floats:
    """Edges that lead past the mouths: [k, 4], two ends each, px of the working picture."""
    found: list[NDArray[np.float64]] = []
    for body in bodies:
        trunk_px, mouth = lm.trunk_px(body), lm.mouth(body)
        low = np.clip(mouth - AROUND_TRUNKS * trunk_px, 0, None).astype(int)
        high = (mouth + AROUND_TRUNKS * trunk_px).astype(int)
        part = luma[low[1] : max(high[1], 0), low[0] : max(high[0], 0)]
        if min(part.shape) < 2:
            continue
        seen = detector.detect(np.ascontiguousarray(part))[0]
        if seen is not None:
            segments = seen[:, 0].astype(float) + np.tile(low, 2)
            found.append(segments[_past_mouth(segments, mouth, trunk_px)])
    if not found:
        return np.zeros((0, 4))
    edges = np.concatenate(found)
    longest = np.argsort(-np.hypot(*(edges[:, 2:] - edges[:, :2]).T))[:MOST_LINES]
    return edges[np.sort(longest)]


def _past_mouth(segments: Floats, mouth: Floats, trunk_px: float) -> NDArray[np.bool_]:
    way, middle = segments[:, 2:] - segments[:, :2], (segments[:, 2:] + segments[:, :2]) / 2 - mouth
    length = np.maximum(np.hypot(way[:, 0], way[:, 1]), 1e-9)
    beside = np.abs(middle[:, 0] * way[:, 1] - middle[:, 1] * way[:, 0]) / length
    keep: NDArray[np.bool_] = (length >= SHORTEST_TRUNKS * trunk_px) & (beside <= PAST_MOUTH_TRUNKS * trunk_px)
    return keep
