"""A clip as it is kept where others are in the picture: all but those who are followed is blurred, in the film and in its stills, before anybody sees it."""

from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.evidence import Evidence
from brevin.core.pose.others import NOBODY_ELSE, UNCHOSEN, KeptClear, kept_clear
from brevin.edge.face_finder import FacesSeen
from brevin.edge.limited import Told
from brevin.edge.look import LONGEST_S
from brevin.edge.pictures import changed
from brevin.edge.transcode import Manner, copied
from brevin.edge.video import video_frames

KEPT = Manner(1920, 18.0)  # it may be read again
SEEN_HZ = 2.0  # pictures of a clip whose faces are to be found
COARSE = 4  # the mask's pixels, of the working picture
SOFT = 0.12  # of the margin: how softly the blur begins
EVERY_S = 0.25  # a mask holds for so long

Grey = NDArray[np.uint8]


def others(found: Evidence, player: int | None) -> tuple[KeptClear | None, int]:
    """What of a clip stays clear, None where nobody else is seen; and for whom: the player's place among the followed, or ``NOBODY_ELSE``, ``UNCHOSEN``.
    player: who was chosen by hand, by place."""
    followed = [one.player for one in found.players]
    unchosen = bool(found.refused) and player is None and len(followed) > 1
    chosen = player if player is not None and player < len(followed) else 0
    clear = kept_clear(found.poses, followed, followed if unchosen else followed[chosen : chosen + 1], found.faces or ())
    return clear, UNCHOSEN if unchosen else NOBODY_ELSE if clear is None else chosen


def with_faces(found: Evidence, clip: Path, model: Path) -> Evidence:
    """The evidence of an older release with the faces of its clip. model: the pose network's file."""
    if found.faces is not None:
        return found
    with FacesSeen(model) as faces:
        for frame in video_frames(clip, until_s=LONGEST_S, fastest_hz=SEEN_HZ):
            faces.see(frame.t_s, frame.rgb())
        return replace(found, faces=faces.found())


def blur_clip(source: Path, target: Path, clear: KeptClear, found: Evidence, told: Told) -> None:
    """The clip with all else blurred, whole or not at all."""
    unfinished = target.with_name(f"{target.name}.part")
    blur = Blur(clear, found.picture_px)
    try:
        copied(source, unfinished, told, manner=KEPT, changed=blur.film)
        unfinished.replace(target)
    finally:
        unfinished.unlink(missing_ok=True)


def blur_stills(stills: Path, clear: KeptClear, found: Evidence) -> None:
    """The same for pictures that were kept of it, in place."""
    if stills.is_file():
        changed(stills, Blur(clear, found.picture_px).still)


class Blur:
    """Blurs pictures of a clip, one after the other. size_px: of the working picture, width and height."""

    def __init__(self, clear: KeptClear, size_px: tuple[float, float]) -> None:
        self._clear, self._size = clear, size_px
        self._cells = tuple(max(round(side / max(clear.coarse_px, 1.0)), 1) for side in size_px)
        self._turn = -1
        self._mask: Grey = np.zeros((1, 1), np.uint8)  # where the picture stays clear, 255
        self._known: dict[tuple[int, int], tuple[NDArray[np.float32], NDArray[np.float32]]] = {}

    def film(self, planes: NDArray[np.uint8], t_s: float) -> None:
        """One picture of a film, light and colours, in place: [height * 3 / 2, width]."""
        height, width = planes.shape[0] * 2 // 3, planes.shape[1]
        self._blur(planes[:height], t_s)
        quarter = (height // 2) * (width // 2)
        colours = planes[height:].reshape(-1)
        for first in (0, quarter):
            self._blur(colours[first : first + quarter].reshape(height // 2, width // 2), t_s)

    def still(self, rgb: NDArray[np.uint8], t_s: float) -> None:
        """One picture in colour, in place: [height, width, 3]."""
        self._blur(rgb, t_s)

    def _blur(self, plane: NDArray[np.uint8], t_s: float) -> None:
        height, width = plane.shape[:2]
        coarse = cv2.resize(cv2.resize(plane, self._cells, interpolation=cv2.INTER_AREA), (width, height), interpolation=cv2.INTER_LINEAR)
        plane[:] = cv2.blendLinear(plane, coarse, *self._shares(t_s, height, width))

    def _shares(self, t_s: float, height: int, width: int) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
        """How much of a plane stays, and how much is blurred: [height, width] each. A mask holds for a moment, and so do these."""
        turn = int(t_s / EVERY_S)
        if self._turn != turn:
            self._turn, self._known, self._mask = turn, {}, self._drawn(turn * EVERY_S)
        if (height, width) not in self._known:
            clear = cv2.resize(self._mask, (width, height), interpolation=cv2.INTER_LINEAR).astype(np.float32) / 255.0
            self._known[height, width] = clear, 1.0 - clear
        return self._known[height, width]

    def _drawn(self, t_s: float) -> Grey:
        width, height = (round(side / COARSE) for side in self._size)
        mask = np.zeros((height, width), np.uint8)
        margin, seen = round(self._clear.margin_px / COARSE), self._clear.at(t_s)
        for points in seen.bodies:
            hull = cv2.convexHull(np.round(points / COARSE).astype(np.int32))
            cv2.fillConvexPoly(mask, hull, 255)
            cv2.polylines(mask, [hull], isClosed=True, color=255, thickness=max(2 * margin, 1))
        mask = cv2.GaussianBlur(mask, (0, 0), max(SOFT * margin, 1.0))
        for heads, value in ((seen.hidden, 0), (seen.shown, 255)):
            for head in heads:
                cv2.circle(mask, tuple(int(round(v)) for v in head.middle_px / COARSE), int(np.ceil(head.radius_px / COARSE)), value, cv2.FILLED)
        return mask
