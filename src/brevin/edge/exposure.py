"""A camera that sets its exposure anew while it films: the whole picture grows lighter or darker, and an edge or a patch that is matched by its grey would seem
to move."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats

BLOCK_PX = 8  # of the film: a mean over so many does not show the camera's noise
DARK_GREY, BURNT_GREY = 20.0, 240.0  # outside of which a block says nothing of the exposure
LEAST_BLOCKS = 50
LET_BE = 0.02  # so little is left as it is where a picture has to be rounded anew: that costs its patches more than the difference does
MOST = 2.0  # times lighter or darker that are undone: with more the picture has lost what there was to see


class Exposure:
    """How light the pictures of a film are beside its reference. reference: [HEIGHT, WIDTH] grey."""

    def __init__(self, reference: Floats) -> None:
        self._blocks = _blocks(np.asarray(reference, np.float32))
        self._tells = (self._blocks > DARK_GREY) & (self._blocks < BURNT_GREY)

    def lighter(self, picture: NDArray[np.uint8]) -> float:
        """How many times as light as the reference a picture is: most places of a film show the same thing all the time, and how much lighter these are in
        the median is the camera's doing."""
        blocks = _blocks(picture)
        tells = self._tells & (blocks > 0.5 * DARK_GREY) & (blocks < BURNT_GREY)
        if tells.sum() < LEAST_BLOCKS:
            return 1.0
        return float(np.clip(np.median(blocks[tells] / self._blocks[tells]), 1.0 / MOST, MOST))


def evened(picture: NDArray[np.uint8], lighter: float) -> NDArray[np.uint8]:
    """A picture that is so many times as light as the reference, as light as that; one that hardly differs as it is."""
    if abs(lighter - 1.0) <= LET_BE:
        return picture
    return np.asarray(cv2.convertScaleAbs(picture, alpha=1.0 / lighter), np.uint8)


def _blocks(picture: NDArray[np.uint8] | NDArray[np.float32]) -> Floats:
    height, width = picture.shape
    return np.asarray(cv2.resize(picture, (width // BLOCK_PX, height // BLOCK_PX), interpolation=cv2.INTER_AREA), float)
