"""Following the trunk's outline: narrow strips across it, each matched to its own reference, to a fraction of a pixel.

Every strip is the grey along a line from inside the body outward, averaged over a narrow band. Its place in a video frame is
where the reference fits with the least squared difference, weighted toward the edge: first whole pixels, then Gauss-Newton steps
(Lucas and Kanade 1981, in one dimension).
"""

import numpy as np
from numpy.typing import NDArray

from brevin.core.track import Floats, Strips
from brevin.edge.film import BACK_PCT, PX_PER_PCT, column, row

STEP_PCT = 3.0  # one strip every three percent of the trunk's height
LOWEST_PCT, HIGHEST_PCT = -6.0, 105.0
BAND_PX = 2  # rows on either side that are averaged with the strip's own
REACH_PX = 11  # half width of the template, 5.5 % of trunk
SEARCH_PX = 22  # farthest travel looked for, 11 % of trunk
EDGE_SIGMA_PX = 5.0  # weight falls off this far from the edge
SETTLE_PX = 14  # how far from the mask's border the real edge is looked for
STEPS = 5  # Gauss-Newton steps; the last moves are below a hundredth of a pixel

Film = NDArray[np.uint8]


def follow(film: Film, mask: NDArray[np.float32], *, reference: Floats, outward: int) -> Strips:
    """Strips along one outline. film: [n, HEIGHT, WIDTH]; mask: [HEIGHT, WIDTH], 0 to 1; reference: [HEIGHT, WIDTH] grey;
    outward: 1 = front, -1 = back. Strips whose outline is not in the film are left out."""
    heights, edges = _outline(mask, reference, outward=outward)
    found = [_one(film, reference, up_pct=h, edge=e, outward=outward) for h, e in zip(heights, edges, strict=True)]
    empty = np.zeros((len(film), 0))
    return Strips(
        up_pct=heights,
        edge_pct=np.asarray(edges) / PX_PER_PCT + BACK_PCT,
        travel_pct=np.column_stack([f[0] for f in found]) / PX_PER_PCT if found else empty,
        misfit=np.column_stack([f[1] for f in found]) if found else empty,
        clear=np.array([f[2] for f in found]),
    )


def _outline(mask: NDArray[np.float32], reference: Floats, *, outward: int) -> tuple[Floats, Floats]:
    """Height and column of the outline for each strip: the first way out of the mask from the axis, settled on the strongest edge."""
    heights: list[float] = []
    edges: list[float] = []
    axis = int(column(0.0))
    slope = np.abs(np.gradient(reference, axis=1))
    for up_pct in np.arange(LOWEST_PCT, HIGHEST_PCT + 1e-6, STEP_PCT):
        line = _band(mask[None], up_pct)[0]
        ray = line[axis:] if outward > 0 else line[axis::-1]
        out = np.flatnonzero(ray < 0.5)
        if ray[:4].max() < 0.5 or not len(out):
            continue
        border = axis + outward * int(out[np.argmax(out > 4)]) if (out > 4).any() else 0
        low, high = border - SETTLE_PX, border + SETTLE_PX
        margin = REACH_PX + SEARCH_PX + 2
        if low < margin or high > reference.shape[1] - margin:
            continue
        strength = _band(slope[None], up_pct)[0][low : high + 1] * np.hanning(high - low + 3)[1:-1]
        heights.append(float(up_pct))
        edges.append(float(low + int(np.argmax(strength))))
    return np.array(heights), np.array(edges)


def _band(pictures: NDArray[np.generic], up_pct: float) -> Floats:
    """Mean over the strip's narrow band of rows: [n, WIDTH]."""
    middle = int(row(up_pct))
    return pictures[:, middle - BAND_PX : middle + BAND_PX + 1].mean(axis=1, dtype=np.float64)


def _one(film: Film, reference: Floats, *, up_pct: float, edge: float, outward: int) -> tuple[Floats, Floats, float]:
    """Travel outward in px [n], misfit [n] and contrast of one strip."""
    offsets = np.arange(-REACH_PX, REACH_PX + 1)
    weight = np.exp(-0.5 * (offsets / EDGE_SIGMA_PX) ** 2)
    weight /= weight.sum()
    template = _band(reference[None], up_pct)[0][int(edge) + offsets]
    lines = _band(film, up_pct)
    coarse = _whole_pixels(lines, template, weight, edge=int(edge), offsets=offsets)
    shift, misfit = _fraction(lines, template, weight, places=edge + offsets.astype(float), shift=coarse)
    contrast = float(np.sqrt(weight @ (template - weight @ template) ** 2))
    return shift * outward, misfit / max(contrast, 1e-6), contrast


def _whole_pixels(lines: Floats, template: Floats, weight: Floats, *, edge: int, offsets: NDArray[np.int_]) -> Floats:
    shifts = np.arange(-SEARCH_PX, SEARCH_PX + 1)
    wanted = template - weight @ template
    cost = np.empty((len(lines), len(shifts)))
    for i, shift in enumerate(shifts):
        window = lines[:, edge + offsets + shift]
        window = window - (window @ weight)[:, None]
        cost[:, i] = ((window - wanted) ** 2) @ weight
    cost *= 1.0 + 0.01 * np.abs(shifts)  # of two equal fits the nearer one
    return shifts[np.argmin(cost, axis=1)].astype(float)


def _fraction(lines: Floats, template: Floats, weight: Floats, *, places: Floats, shift: Floats) -> tuple[Floats, Floats]:
    """Gauss-Newton from whole pixels on; returns the shift and the root mean square misfit in grey levels."""
    wanted = template - weight @ template
    slope_wanted = np.gradient(template)
    start = shift.copy()
    for _ in range(STEPS):
        window = _sample(lines, places[None] + shift[:, None])
        slope = 0.5 * (np.gradient(window, axis=1) + slope_wanted)
        slope = slope - (slope @ weight)[:, None]
        gap = wanted - (window - (window @ weight)[:, None])
        step = ((gap * slope) @ weight) / np.maximum((slope**2) @ weight, 1e-3)
        shift = np.clip(shift + np.clip(step, -1.0, 1.0), start - 2.0, start + 2.0)
    window = _sample(lines, places[None] + shift[:, None])
    gap = wanted - (window - (window @ weight)[:, None])
    return shift, np.sqrt((gap**2) @ weight)


def _sample(lines: Floats, places: Floats) -> Floats:
    """Values between pixels by cubic convolution (Keys 1981). lines: [n, WIDTH]; places: [n, m]."""
    whole = np.floor(places).astype(int)
    part = places - whole
    rows = np.arange(len(lines))[:, None]
    width = lines.shape[1]
    a, b, c, d = (lines[rows, np.clip(whole + k, 0, width - 1)] for k in (-1, 0, 1, 2))
    return b + 0.5 * part * (c - a + part * (2 * a - 5 * b + 4 * c - d + part * (3 * (b - c) + d - a)))
