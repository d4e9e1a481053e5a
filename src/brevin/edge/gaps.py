"""The trunk's outline where an arm that is held out, the lap or an instrument close a gap before it: the network's mask fills such a gap, and its border lies
in the air or on the arm beyond.

The colours of the room, outside of the mask, and of the shirt, about the trunk's axis, tell what of the gap is room (graph cuts over colour mixtures).
"""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.rigid import SURELY_OFF_PCT
from brevin.core.track import Floats
from brevin.edge import film as trunk_film
from brevin.edge.contour import cut_by_colour

OUT_PCT = 8.0  # of trunk outside of the mask: nothing so far out is the body
CORE_PCT, CORE_HEIGHTS_PCT = 6.0, (5.0, 95.0)  # to both sides of the axis, and between which heights, everything is
SHRUNK = 2  # times: finer tells no more, and costs
BINS = 16  # of each part of a colour
ROOM_LEAST, ROOM_TIMES = 1e-3, 4.0  # share of the room's places that have a colour, and times the shirt's: such a place is likely room; own
SMOOTH_PX = 0.8  # the camera's noise

Mask = NDArray[np.float32]


def without_gaps(rgb: NDArray[np.uint8], mask: Mask, arms_pct: Floats) -> Mask | None:
    """The body by its colours: [HEIGHT, WIDTH], 0 to 1; None where they do not tell. About its arms it stays as the mask has it: where one lies before the
    trunk, its edge would be taken for the trunk's. rgb: [HEIGHT, WIDTH, 3], the film of a picture; mask: the network's; arms_pct: [m, 2, 2]."""
    size = (trunk_film.WIDTH // SHRUNK, trunk_film.HEIGHT // SHRUNK)
    small = np.asarray(cv2.resize(rgb, size, interpolation=cv2.INTER_AREA), np.uint8)
    inside = (cv2.resize(mask, size, interpolation=cv2.INTER_AREA) > 0.5).astype(np.uint8)
    told = np.where(inside, cv2.GC_PR_FGD, cv2.GC_PR_BGD).astype(np.uint8)
    out_px = OUT_PCT * trunk_film.PX_PER_PCT / SHRUNK
    told[cv2.distanceTransform(1 - inside, cv2.DIST_L2, 5) > out_px] = cv2.GC_BGD
    told[_core() & (inside > 0)] = cv2.GC_FGD
    told[(told == cv2.GC_PR_FGD) & _like_the_room(small, told)] = cv2.GC_PR_BGD
    own = cut_by_colour(small, told, mask.shape)
    return None if own is None else np.where(_arms(arms_pct), mask, own)


def _arms(arms_pct: Floats) -> NDArray[np.bool_]:
    """What lies about the arms, of the film."""
    about = np.zeros((trunk_film.HEIGHT, trunk_film.WIDTH), np.uint8)
    ends = np.stack([trunk_film.column(arms_pct[..., 0]), trunk_film.row(arms_pct[..., 1])], axis=-1).round().astype(int)
    for start, end in ends.tolist():
        cv2.line(about, start, end, 1, thickness=int(2 * SURELY_OFF_PCT * trunk_film.PX_PER_PCT))
    return about > 0


def _core() -> NDArray[np.bool_]:
    """What lies about the trunk's axis, of the shrunk film."""
    core = np.zeros((trunk_film.HEIGHT // SHRUNK, trunk_film.WIDTH // SHRUNK), bool)
    top, bottom = (int(trunk_film.row(up)) // SHRUNK for up in reversed(CORE_HEIGHTS_PCT))
    back, front = (int(trunk_film.column(forward)) // SHRUNK for forward in (-CORE_PCT, CORE_PCT))
    core[top:bottom, back:front] = True
    return core


def _like_the_room(rgb: NDArray[np.uint8], told: NDArray[np.uint8]) -> NDArray[np.bool_]:
    """Places whose colour is the room's far more than the shirt's: [height, width]."""
    colours = cv2.GaussianBlur(cv2.cvtColor(rgb, cv2.COLOR_RGB2LAB), (0, 0), SMOOTH_PX)
    room, shirt = (_share_of(colours, told == kind) for kind in (cv2.GC_BGD, cv2.GC_FGD))
    found: NDArray[np.bool_] = (room > ROOM_LEAST) & (room > ROOM_TIMES * shirt)
    return found


def _share_of(colours: NDArray[np.uint8], among: NDArray[np.bool_]) -> NDArray[np.float64]:
    """What share of some places has about the colour of each place: [height, width]."""
    bins = colours.astype(int) * BINS // 256
    counts = np.zeros((BINS,) * 3)
    np.add.at(counts, tuple(bins[among].T), 1.0)
    near = counts.copy()
    for axis in range(3):  # neighbours of a colour count half; the lightest is none of the darkest
        lower, upper = (np.moveaxis(part, axis, 0) for part in (counts, near))
        upper[1:] += 0.5 * lower[:-1]
        upper[:-1] += 0.5 * lower[1:]
    share: NDArray[np.float64] = (near / max(near.sum(), 1.0))[tuple(np.moveaxis(bins, -1, 0))]
    return share
