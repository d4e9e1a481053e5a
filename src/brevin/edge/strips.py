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
AROUND_PX = REACH_PX + SEARCH_PX + 4  # what is looked at on either side of the edge
EDGE_SIGMA_PX = 5.0  # weight falls off this far from the edge
SETTLE_PX = 14  # how far from the mask's border the real edge is looked for
STEPS = 5  # Gauss-Newton steps; the last moves are below a hundredth of a pixel

Film = NDArray[np.uint8]


class Outline:
    """The strips along one side of a trunk. mask: [HEIGHT, WIDTH], 0 to 1; reference: [HEIGHT, WIDTH] grey; outward: 1 = front, -1 = back.

    Strips whose outline is not in the film are left out.
    """

    def __init__(self, mask: NDArray[np.float32], reference: Floats, *, outward: int) -> None:
        self._up_pct, self._edges = _outline(mask, reference, outward=outward)
        self._reference, self._outward = reference, outward
        self._seen: list[list[tuple[Floats, Floats, float, Floats]]] = []
        self._pictures = 0

    def see(self, film: Film, risen_pct: Floats) -> None:
        """Follow the strips into the next pictures: [n, HEIGHT, WIDTH].

        risen_pct: [n] how far the body has gone up or the camera down, which the strips go along with, so that a slanted outline is followed at the
        same place of the body.
        """
        self._pictures += len(film)
        where = zip(self._up_pct, self._edges, strict=True)
        self._seen.append([_one(film, self._reference, up_pct=h, edge=e, outward=self._outward, risen_pct=risen_pct) for h, e in where])

    def strips(self) -> Strips:
        """What was followed so far."""
        return Strips(
            up_pct=self._up_pct, edge_pct=np.asarray(self._edges) / PX_PER_PCT + BACK_PCT, travel_pct=self._all(0) / PX_PER_PCT,
            misfit=self._all(1), clear=np.array([strip[2] for strip in self._seen[0]] if self._seen else np.zeros(len(self._edges))),
        )  # fmt: skip

    def contrast(self) -> Floats:
        """Contrast of the outline in each picture, grey levels: [n], median over the strips."""
        return np.median(self._all(3), axis=1) if len(self._edges) else np.zeros(self._pictures)

    def _all(self, part: int) -> Floats:
        """One part of what was found, all pictures: [n, k]."""
        if not len(self._edges) or not self._seen:
            return np.zeros((self._pictures, len(self._edges)))
        return np.concatenate([np.column_stack([strip[part] for strip in some]) for some in self._seen])


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
        if low < AROUND_PX or high >= reference.shape[1] - AROUND_PX:
            continue
        strength = _band(slope[None], up_pct)[0][low : high + 1] * np.hanning(high - low + 3)[1:-1]
        heights.append(float(up_pct))
        edges.append(float(low + int(np.argmax(strength))))
    return np.array(heights), np.array(edges)


def _band(pictures: NDArray[np.generic], up_pct: float) -> Floats:
    """Mean over the strip's narrow band of rows: [n, WIDTH]."""
    middle = int(row(up_pct))
    return pictures[:, middle - BAND_PX : middle + BAND_PX + 1].mean(axis=1, dtype=np.float64)


def _risen_band(film: Film, up_pct: float, risen_pct: Floats) -> Floats:
    """The band of each picture at the height its place has risen to, between the rows by straight lines: [n, WIDTH]."""
    middle = np.clip(row(up_pct + risen_pct), BAND_PX, film.shape[1] - BAND_PX - 2)
    whole = np.floor(middle).astype(int)
    part = (middle - whole)[:, None]
    picture = np.arange(len(film))
    rows = [film[picture, whole + k] for k in range(-BAND_PX, BAND_PX + 2)]
    inner = np.sum(rows[1:-1], axis=0, dtype=np.float64)
    return (inner + (1.0 - part) * rows[0] + part * rows[-1]) / (2 * BAND_PX + 1)


def _one(film: Film, reference: Floats, *, up_pct: float, edge: float, outward: int, risen_pct: Floats) -> tuple[Floats, Floats, float, Floats]:
    """Travel outward in px [n], misfit [n], contrast of one strip in the reference and in each picture [n]."""
    offsets = np.arange(-REACH_PX, REACH_PX + 1)
    weight = np.exp(-0.5 * (offsets / EDGE_SIGMA_PX) ** 2)
    weight /= weight.sum()
    template = _band(reference[None], up_pct)[0][int(edge) + offsets]
    lines = _risen_band(film[:, :, int(edge) - AROUND_PX : int(edge) + AROUND_PX + 1], up_pct, risen_pct)
    coarse = _whole_pixels(lines, template, weight)
    shift, misfit, seen = _fraction(lines, template, weight, shift=coarse)
    contrast = float(np.sqrt(weight @ (template - weight @ template) ** 2))
    return shift * outward, misfit / max(contrast, 1e-6), contrast, seen


def _whole_pixels(lines: Floats, template: Floats, weight: Floats) -> Floats:
    """The whole shift with the least weighted squared difference, all shifts at once: the square is multiplied out into three products."""
    shifts = np.arange(-SEARCH_PX, SEARCH_PX + 1)
    near = lines[:, AROUND_PX - SEARCH_PX - REACH_PX : AROUND_PX + SEARCH_PX + REACH_PX + 1]
    wanted = template - weight @ template
    plain, matched = _sliding(weight, len(shifts)), _sliding(weight * wanted, len(shifts))
    cost = (near**2) @ plain - (near @ plain) ** 2 - 2.0 * (near @ matched) + weight @ wanted**2
    cost *= 1.0 + 0.01 * np.abs(shifts)  # of two equal fits the nearer one
    return shifts[np.argmin(cost, axis=1)].astype(float)


def _sliding(kernel: Floats, places: int) -> Floats:
    """Matrix that takes the kernel's sum at each place of a line: [places + len(kernel) - 1, places]."""
    out = np.zeros((places + len(kernel) - 1, places))
    for i in range(places):
        out[i : i + len(kernel), i] = kernel
    return out


def _fraction(lines: Floats, template: Floats, weight: Floats, *, shift: Floats) -> tuple[Floats, Floats, Floats]:
    """Gauss-Newton from whole pixels on; returns the shift, the root mean square misfit and the contrast there, grey levels."""
    wanted = template - weight @ template
    slope_wanted = np.gradient(template)
    start = shift.copy()
    for _ in range(STEPS):
        window = _sample(lines, AROUND_PX - REACH_PX + shift, len(template))
        slope = 0.5 * (np.gradient(window, axis=1) + slope_wanted)
        slope = slope - (slope @ weight)[:, None]
        gap = wanted - (window - (window @ weight)[:, None])
        step = ((gap * slope) @ weight) / np.maximum((slope**2) @ weight, 1e-3)
        shift = np.clip(shift + np.clip(step, -1.0, 1.0), start - 2.0, start + 2.0)
    window = _sample(lines, AROUND_PX - REACH_PX + shift, len(template))
    level = window - (window @ weight)[:, None]
    gap = wanted - level
    return shift, np.sqrt((gap**2) @ weight), np.sqrt((level**2) @ weight)


def _sample(lines: Floats, first: Floats, length: int) -> Floats:
    """Values between pixels by cubic convolution (Keys 1981): ``length`` of them, one pixel apart, from place ``first`` [n] of each line on."""
    whole = np.floor(first).astype(int)
    places = np.clip(whole[:, None] + np.arange(-1, length + 2), 0, lines.shape[1] - 1)
    block = np.take_along_axis(lines, places, axis=1)
    p = (first - whole)[:, None]
    weights = 0.5 * p * (-1 + p * (2 - p)), 1 + 0.5 * p * p * (-5 + 3 * p), 0.5 * p * (1 + p * (4 - 3 * p)), 0.5 * p * p * (p - 1)
    out: Floats = sum(w * block[:, k : k + length] for k, w in enumerate(weights))
    return out
