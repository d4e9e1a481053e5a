"""The printed card that gives a clip millimetres: one square marker, held flat at the player's own distance from the camera."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats

SIDE_MM = 60.0  # of the printed square, its black edge included
NUMBER = 7  # which of the family's markers is the card; any other is somebody's else
MOST_SLANT = 1.35  # times one side may be as long as the other: more, and the card is not facing the camera
CELLS = 6  # of the square's side
_FAMILY = cv2.aruco.getPredefinedDictionary(cv2.aruco.DICT_4X4_50)


def corners_px(luma: NDArray[np.uint8]) -> Floats | None:
    """Where the card's four corners lie, [4, 2] px; None where it is not seen. luma: [height, width]."""
    corners, numbers, _ = cv2.aruco.ArucoDetector(_FAMILY).detectMarkers(luma)
    if not len(corners):
        return None
    for square, number in zip(corners, numbers.ravel(), strict=True):
        if number == NUMBER:
            return np.asarray(square[0], float)
    return None


def mm_per_px(corners: Floats) -> float | None:
    """Millimetres in one pixel where the card lies; None where it stands too slanted. corners: [4, 2] px."""
    sides = np.linalg.norm(np.diff(corners, axis=0, append=corners[:1]), axis=1)
    across, down = sides[[0, 2]].mean(), sides[[1, 3]].mean()
    if max(across, down) > MOST_SLANT * min(across, down):
        return None
    return float(SIDE_MM / max(across, down))  # a turned card is foreshortened one way only


def drawn(side_px: int) -> NDArray[np.uint8]:
    """The card's square as it is printed, with the white rim it needs: [1.5 side, 1.5 side]."""
    square = cv2.aruco.generateImageMarker(_FAMILY, NUMBER, side_px)
    return np.pad(square, side_px // 4, constant_values=255).astype(np.uint8)


def svg() -> str:
    """The card for printing at its true size: ``docs/scale-card.svg``."""
    cells = cv2.aruco.generateImageMarker(_FAMILY, NUMBER, CELLS)
    cell_mm, rim_mm = SIDE_MM / len(cells), SIDE_MM / 4
    whole = SIDE_MM + 2 * rim_mm
    squares = "".join(
        f'<rect x="{rim_mm + cell_mm * x:g}" y="{rim_mm + cell_mm * y:g}" width="{cell_mm:g}" height="{cell_mm:g}"/>'
        for y, line in enumerate(cells) for x, grey in enumerate(line) if grey == 0
    )  # fmt: skip
    said = f"Brevin scale card. Print at 100 %: the black square is {SIDE_MM:g} mm wide."
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{whole:g}mm" height="{whole + 8:g}mm" viewBox="0 0 {whole:g} {whole + 8:g}">'
        f'<rect width="100%" height="100%" fill="#fff"/>{squares}'
        f'<text x="{rim_mm:g}" y="{whole + 2:g}" font-family="sans-serif" font-size="4">{said}</text></svg>\n'
    )
