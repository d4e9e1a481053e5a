"""Numbers in the corner of a camera's pictures: which picture of its clip a filmed one shows, however late or how often the camera showed it."""

import numpy as np
from numpy.typing import NDArray

Luma = NDArray[np.uint8]

BITS = 12  # of a number: 4,096 pictures
WIDE, HIGH = 0.02, 0.025  # of a cell, in the picture's width and height: coding at a browser's rate leaves it readable
DARK, LIGHT = 40, 215
CLEAR = 60  # grey levels between the two marks, and of a cell to either side of their middle at least a quarter of it


def write(luma: Luma, number: int) -> None:
    """Draws a picture's number into it. luma: [height, width], changed. The first two cells are dark and light; then a bit a cell, neighbours differ by one."""
    gray = number ^ (number >> 1)
    for i, lit in enumerate([False, True, *(bool(gray >> bit & 1) for bit in range(BITS))]):
        _cell(luma, i)[:] = LIGHT if lit else DARK


def read(luma: Luma) -> int | None:
    """The number in a picture; None where none is plain. luma: [height, width]."""
    dark, light, *bits = (float(np.median(_cell(luma, i))) for i in range(BITS + 2))
    middle = (dark + light) / 2
    if light - dark < CLEAR or any(abs(bit - middle) < CLEAR / 4 for bit in bits):
        return None
    number = 0
    for bit in reversed(range(BITS)):
        number |= (int(bits[bit] > middle) ^ (number >> (bit + 1) & 1)) << bit
    return number


def _cell(luma: Luma, number: int) -> Luma:
    height, width = luma.shape
    return luma[: int(HIGH * height), round(number * WIDE * width) : round((number + 1) * WIDE * width)]
