"""The picture that outline and texture are held against: of a player at rest, averaged over a time in which the outline keeps still."""

from collections.abc import Callable, Sequence

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats
from brevin.edge import film as trunk_film

REFERENCE_FROM_S, REFERENCE_LENGTH_S, REFERENCE_FRAMES = 0.5, 2.0, 9  # averaged into the reference
REFERENCE_LATEST_S = 8.0  # a reference from later on would see half a breath more
SMEARED_GREY, SMEARED_TIMES = 1.0, 2.0  # grey levels by which the outline is smeared less than in the count-in, and so many times as little: that is calmer
OUTLINE_PX = 6  # to either side of the mask's border: where the outline lies, 3 % of trunk
OUTLINE_FROM_PCT, OUTLINE_TO_PCT = 6.0, 66.0  # of the trunk's height: where it breathes


def outline_of(mask: NDArray[np.float32]) -> NDArray[np.bool_]:
    """Where the trunk's outline lies to both sides at the heights that breathe. mask: [HEIGHT, WIDTH], 0 to 1, as is the answer."""
    inside = (mask > 0.5).astype(np.uint8)
    found: NDArray[np.bool_] = cv2.morphologyEx(inside, cv2.MORPH_GRADIENT, np.ones((2 * OUTLINE_PX + 1,) * 2, np.uint8)) > 0
    found[: int(trunk_film.row(OUTLINE_TO_PCT))] = found[int(trunk_film.row(OUTLINE_FROM_PCT)) :] = False
    return found


def reference_of(t_s: Floats, pictures: Sequence[NDArray[np.uint8]], mask: NDArray[np.float32]) -> Floats:
    """The mean of the frames that show a player at rest: [HEIGHT, WIDTH] grey. pictures: [n] of the film, as they come; mask: 0 to 1."""
    outline = outline_of(mask)

    def smear(frames: NDArray[np.int_]) -> float:
        return float(np.std([pictures[i][outline] for i in frames], axis=0).mean()) if outline.any() else 0.0

    mean: Floats = np.stack([pictures[i] for i in reference_at(t_s, smear)]).astype(float).mean(axis=0)
    return mean


def reference_at(t_s: Floats, smear: Callable[[NDArray[np.int_]], float]) -> NDArray[np.int_]:
    """The frames averaged into the reference, spread so that no single coded picture's faults are taken for the player: the count-in's, or, where the outline
    moves in it, those of the next time that is clearly calmer: a smeared mean would be found in no picture again, and later the mask fits the player less.

    smear: grey levels by which the outline differs between some frames."""
    starts_s = np.arange(REFERENCE_FROM_S, max(min(REFERENCE_LATEST_S, t_s[-1] - REFERENCE_LENGTH_S), REFERENCE_FROM_S) + 1e-9, 0.25)
    tried = [_frames_from(t_s, start) for start in starts_s]
    smeared = [smear(frames) for frames in tried]
    calm = np.flatnonzero(np.array(smeared) <= min(smeared[0] / SMEARED_TIMES, smeared[0] - SMEARED_GREY))
    chosen = int(calm[0]) if len(calm) else 0
    while len(calm) and chosen + 1 < len(tried) and smeared[chosen + 1] < smeared[chosen]:
        chosen += 1
    return tried[chosen]


def _frames_from(t_s: Floats, from_s: float) -> NDArray[np.int_]:
    wanted = np.linspace(from_s, from_s + REFERENCE_LENGTH_S, REFERENCE_FRAMES)
    return np.unique(np.clip(np.searchsorted(t_s, wanted), 0, len(t_s) - 1))
