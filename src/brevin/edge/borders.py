"""Where the trunk's outline lies in the reference picture, height by height: by the network's mask, or by the colours where an arm closes a gap before it."""

import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.outline import TRUNK_EDGE
from brevin.core.kinematics.rigid import CLEAR_LEAST
from brevin.core.track import Floats
from brevin.edge.film import BACK_PCT, PX_PER_PCT, column, row

LOWEST_PCT, HIGHEST_PCT = -6.0, 105.0
BAND_PX = 2  # rows on either side that are averaged with the strip's own
REACH_PX = 11  # half width of the template, 5.5 % of trunk
SEARCH_PX = 22  # farthest travel looked for, 11 % of trunk
AROUND_PX = REACH_PX + SEARCH_PX + 4  # what is looked at on either side of the edge
EDGE_SIGMA_PX = 5.0  # weight falls off this far from the edge
SETTLE_PX = 14  # how far from the mask's border the real edge is looked for
OFFSETS = np.arange(-REACH_PX, REACH_PX + 1)
WEIGHT = np.exp(-0.5 * (OFFSETS / EDGE_SIGMA_PX) ** 2) / np.exp(-0.5 * (OFFSETS / EDGE_SIGMA_PX) ** 2).sum()


def outline_in(
    mask: NDArray[np.float32], reference: Floats, cut: NDArray[np.float32] | None, *, outward: int, step_pct: float
) -> tuple[Floats, Floats]:  # fmt: skip
    """Height and column of the outline for each strip: the first way out of the mask from the axis, or, where that is no trunk's outline and the cut's is, of
    the cut. One height alone is left as it is: where an arm begins its edge turns round and looks like the trunk's."""
    heights = np.arange(LOWEST_PCT, HIGHEST_PCT + 1e-6, step_pct)
    slope = np.abs(np.gradient(reference, axis=1))
    greys, steep = ([band(picture[None], up_pct)[0] for up_pct in heights] for picture in (reference, slope))
    edges = _ways_out(mask, heights, steep, outward)
    if cut is not None:
        own = _ways_out(cut, heights, steep, outward)
        good = [_trunks(edge, grey) for edge, grey in zip(edges, greys, strict=True)]
        gained = np.array([not was and _trunks(edge, grey) for was, edge, grey in zip(good, own, greys, strict=True)])
        beside = np.append(gained[1:], False) | np.insert(gained[:-1], 0, False)
        edges = [there if new else edge for edge, there, new in zip(edges, own, gained & beside, strict=True)]
    found = [(float(up_pct), float(edge)) for up_pct, edge in zip(heights, edges, strict=True) if edge is not None]
    return np.array([up_pct for up_pct, _ in found]), np.array([edge for _, edge in found])


def _ways_out(mask: NDArray[np.float32], heights: Floats, steep: list[Floats], outward: int) -> list[int | None]:
    """Column of the way out of a mask at each height. steep: how steeply the grey changes along each of these lines."""
    return [_way_out(band(mask[None], up_pct)[0], line, outward) for up_pct, line in zip(heights, steep, strict=True)]


def _way_out(line: Floats, steep: Floats, outward: int) -> int | None:
    """Column of the first way out of a mask from the axis along one line, settled on the strongest edge; None where it is not in the film."""
    axis = int(column(0.0))
    ray = line[axis:] if outward > 0 else line[axis::-1]
    out = np.flatnonzero(ray < 0.5)
    if ray[:4].max() < 0.5 or not len(out):
        return None
    border = axis + outward * int(out[np.argmax(out > 4)]) if (out > 4).any() else 0
    low, high = border - SETTLE_PX, border + SETTLE_PX
    if low < AROUND_PX or high >= len(line) - AROUND_PX:
        return None
    return low + int(np.argmax(steep[low : high + 1] * np.hanning(high - low + 3)[1:-1]))


def _trunks(edge: int | None, grey: Floats) -> bool:
    """Whether an edge may be the trunk's front outline: at its depth, and clear."""
    if edge is None or not TRUNK_EDGE[0] < edge / PX_PER_PCT + BACK_PCT < TRUNK_EDGE[1]:
        return False
    template = grey[edge + OFFSETS]
    return bool(np.sqrt((template - template @ WEIGHT) ** 2 @ WEIGHT) > CLEAR_LEAST)


def band(pictures: NDArray[np.generic], up_pct: float) -> Floats:
    """Mean over a strip's narrow band of rows: [n, WIDTH]. pictures: [n, HEIGHT, WIDTH]."""
    middle = int(row(up_pct))
    return pictures[:, middle - BAND_PX : middle + BAND_PX + 1].mean(axis=1, dtype=np.float64)
