"""Following the trunk's outline: narrow strips across it, each matched to its own reference, to a fraction of a pixel.

Every strip is the grey along a line from inside the body outward, averaged over a narrow band. Its place in a video frame is
where the reference fits with the least squared difference, weighted toward the edge: first whole pixels, then Gauss-Newton steps
(Lucas and Kanade 1981, in one dimension).
"""

from typing import NamedTuple

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from brevin.core.track import Floats, Strips
from brevin.edge.borders import AROUND_PX, BAND_PX, OFFSETS, REACH_PX, SEARCH_PX, WEIGHT, band, outline_in
from brevin.edge.exposure import Light
from brevin.edge.film import BACK_PCT, PX_PER_PCT, row

STEP_PCT = 3.0  # one strip every three percent of the trunk's height
LINES_TOGETHER = 512  # strips times pictures fitted at once: more and the processor no longer has them at hand, fewer and the calls cost more than the fit
STEPS = 5  # Gauss-Newton steps; the last moves are below a hundredth of a pixel

Film = NDArray[np.uint8]


class Outline:
    """The strips along one side of a trunk. mask: [HEIGHT, WIDTH], 0 to 1; reference: [HEIGHT, WIDTH] grey; outward: 1 = front, -1 = back.

    step_pct: one strip every so many percent of the trunk's height. Strips whose outline is not in the film are left out. cut: the mask again, by its colours,
    for those heights at which the mask's border is no trunk's.
    """

    def __init__(
        self, mask: NDArray[np.float32], reference: Floats, *, outward: int, step_pct: float = STEP_PCT, cut: NDArray[np.float32] | None = None
    ) -> None:  # fmt: skip
        self._up_pct, self._edges = outline_in(mask, reference, cut, outward=outward, step_pct=step_pct)
        self._outward = outward
        bands = [band(reference[None], up)[0] for up in self._up_pct]
        self._templates = np.array([band[int(edge) + OFFSETS] for band, edge in zip(bands, self._edges, strict=True)])
        self._contrast = np.zeros(len(self._edges))
        self._seen: list[tuple[Floats, Floats, Floats]] = []  # travel, misfit and contrast of some pictures, each [n, k]
        self._pictures = 0

    def see(self, film: Film, risen_pct: Floats, light: Light | None = None) -> None:
        """Follow the strips into the next pictures: [n, HEIGHT, WIDTH].

        risen_pct: [n] how far the body has gone up or the camera down, which the strips go along with, so that a slanted outline is followed at the
        same place of the body; light: how light each picture is beside the reference.
        """
        self._pictures += len(film)
        each = max(LINES_TOGETHER // len(film), 1)
        starts = range(0, len(self._edges), each)
        seen = _Pictures(film, risen_pct, light)
        found = [_some(seen, self._templates[i : i + each], self._up_pct[i : i + each], self._edges[i : i + each], self._outward) for i in starts]
        if found:
            self._contrast = np.concatenate([some[2] for some in found])
            self._seen.append((*(np.concatenate([some[part] for some in found], axis=1) for part in (0, 1, 3)),))  # pyrefly: ignore[bad-argument-type]

    def strips(self) -> Strips:
        """What was followed so far."""
        return Strips(
            up_pct=self._up_pct, edge_pct=np.asarray(self._edges) / PX_PER_PCT + BACK_PCT, travel_pct=self._all(0) / PX_PER_PCT,
            misfit=self._all(1), clear=self._contrast,
        )  # fmt: skip

    def keep_latest(self, pictures: int) -> None:
        """Forget all but the latest pictures, seen one by one."""
        self._seen = self._seen[-pictures:]
        self._pictures = min(self._pictures, pictures)

    def contrast(self) -> Floats:
        """Contrast of the outline in each picture, grey levels: [n], median over the strips."""
        return np.median(self._all(2), axis=1) if len(self._edges) else np.zeros(self._pictures)

    def _all(self, part: int) -> Floats:
        """One part of what was found, all pictures: [n, k]."""
        if not len(self._edges) or not self._seen:
            return np.zeros((self._pictures, len(self._edges)))
        return np.concatenate([some[part] for some in self._seen])


class _Pictures(NamedTuple):
    """Some pictures of the film [n, HEIGHT, WIDTH], how far the body has risen in each, percent of trunk, and how light it is beside the reference."""

    film: Film
    risen_pct: Floats
    light: Light | None


def _risen_lines(seen: _Pictures, up_pct: Floats, edges: Floats) -> Floats:
    """What lies about every strip's edge in every picture, averaged over the strip's band at the height its place has risen to, between the rows by straight
    lines, as light as the reference: [k * n, 2 AROUND_PX + 1]."""
    film = seen.film
    middle = np.clip(row(up_pct[:, None] + seen.risen_pct), BAND_PX, film.shape[1] - BAND_PX - 2)
    whole = np.floor(middle).astype(int)
    part = (middle - whole)[..., None]
    picture, columns = np.arange(len(film))[:, None], edges.astype(int)[:, None, None] + np.arange(-AROUND_PX, AROUND_PX + 1)
    rows = [film[picture, (whole + k)[..., None], columns] for k in range(-BAND_PX, BAND_PX + 2)]
    inner = np.sum(rows[1:-1], axis=0, dtype=np.float64)
    lines: Floats = (inner + (1.0 - part) * rows[0] + part * rows[-1]) / (2 * BAND_PX + 1)
    if seen.light is not None:
        lines /= seen.light.at(middle[..., None], columns)
    return lines.reshape(-1, lines.shape[-1])


def _some(pictures: _Pictures, templates: Floats, up_pct: Floats, edges: Floats, outward: int) -> tuple[Floats, Floats, Floats, Floats]:
    """Some strips in some pictures: travel outward in px [n, k], misfit [n, k], contrast in the reference [k] and in each picture [n, k]."""
    lines = _risen_lines(pictures, up_pct, edges)
    each = np.repeat(templates, len(pictures.film), axis=0)
    coarse = _whole_pixels(lines, each, WEIGHT)
    shift, misfit, seen = (part.reshape(len(edges), len(pictures.film)).T for part in _fraction(lines, each, WEIGHT, shift=coarse))
    contrast = np.sqrt((templates - (templates @ WEIGHT)[:, None]) ** 2 @ WEIGHT)
    return shift * outward, misfit / np.maximum(contrast, 1e-6), contrast, seen


def _whole_pixels(lines: Floats, templates: Floats, weight: Floats) -> Floats:
    """The whole shift with the least weighted squared difference, all shifts at once: the square is multiplied out into three products."""
    shifts = np.arange(-SEARCH_PX, SEARCH_PX + 1)
    near = lines[:, AROUND_PX - SEARCH_PX - REACH_PX : AROUND_PX + SEARCH_PX + REACH_PX + 1]
    wanted = templates - (templates @ weight)[:, None]
    windows = sliding_window_view(near, templates.shape[1], axis=1)
    squares = sliding_window_view(near**2, templates.shape[1], axis=1) @ weight
    matched = np.einsum("lsw,lw->ls", windows, weight * wanted)
    cost = squares - (windows @ weight) ** 2 - 2.0 * matched + (wanted**2 @ weight)[:, None]
    cost *= 1.0 + 0.01 * np.abs(shifts)  # of two equal fits the nearer one
    return shifts[np.argmin(cost, axis=1)].astype(float)


def _fraction(lines: Floats, templates: Floats, weight: Floats, *, shift: Floats) -> tuple[Floats, Floats, Floats]:
    """Gauss-Newton from whole pixels on; returns the shift, the root mean square misfit and the contrast there, grey levels."""
    wanted = templates - (templates @ weight)[:, None]
    slope_wanted = _slope(templates)
    length = templates.shape[1]
    start = shift.copy()
    for _ in range(STEPS):
        window = _sample(lines, AROUND_PX - REACH_PX + shift, length)
        slope = 0.5 * (_slope(window) + slope_wanted)
        slope = slope - (slope @ weight)[:, None]
        gap = wanted - (window - (window @ weight)[:, None])
        step = ((gap * slope) @ weight) / np.maximum((slope**2) @ weight, 1e-3)
        shift = np.clip(shift + np.clip(step, -1.0, 1.0), start - 2.0, start + 2.0)
    window = _sample(lines, AROUND_PX - REACH_PX + shift, length)
    level = window - (window @ weight)[:, None]
    gap = wanted - level
    return shift, np.sqrt((gap**2) @ weight), np.sqrt((level**2) @ weight)


def _slope(values: Floats) -> Floats:
    """Grey a pixel along each line, by its neighbours: [n, k]. Written out, as numpy's own for any steps and axes takes four times as long here."""
    out = np.empty_like(values)
    out[:, 1:-1] = (values[:, 2:] - values[:, :-2]) / 2.0
    out[:, 0], out[:, -1] = values[:, 1] - values[:, 0], values[:, -1] - values[:, -2]
    return out


def _sample(lines: Floats, first: Floats, length: int) -> Floats:
    """Values between pixels by cubic convolution (Keys 1981): ``length`` of them, one pixel apart, from place ``first`` [n] of each line on."""
    whole = np.floor(first).astype(int)
    places = np.clip(whole[:, None] + np.arange(-1, length + 2), 0, lines.shape[1] - 1)
    block = np.take_along_axis(lines, places, axis=1)
    p = (first - whole)[:, None]
    weights = 0.5 * p * (-1 + p * (2 - p)), 1 + 0.5 * p * p * (-5 + 3 * p), 0.5 * p * (1 + p * (4 - 3 * p)), 0.5 * p * p * (p - 1)
    out: Floats = weights[0] * block[:, :length]
    for k, w in enumerate(weights[1:], start=1):
        out += w * block[:, k : k + length]
    return out
