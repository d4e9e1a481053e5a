"""Light that changes while it is filmed: a camera sets its exposure anew, lamps on the mains send bands of light and shade through the picture, a cloud passes
the window. An edge or a patch that is matched by its grey would seem to move."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import cast

import cv2
import numpy as np
from numpy.polynomial import chebyshev
from numpy.typing import NDArray

from brevin.core.track import Floats
from brevin.edge.film import HEIGHT, WIDTH

BLOCK_PX = 8  # of the film: a mean over so many does not show the camera's noise
DARK_GREY, BURNT_GREY = 20.0, 240.0  # outside of which a block says nothing of the light
LEAST_BLOCKS = 50
LET_BE = 0.02  # so little is left as it is where a picture has to be rounded anew: that costs its patches more than the difference does
MOST = 2.0  # times lighter or darker that are undone: with more the picture has lost what there was to see
DOWN, ACROSS = 6, 4  # degrees of the polynomials down the picture, for up to one and a half of a lamp's bands over the film, and across it, for a shade
UNEVEN = 0.008  # root mean square, of the light: less is the noise of the fit, and light is the same all over the picture
SURELY_EVEN = 0.5  # of that, by one plain fit: then the reweighted one, which takes ten times as long, need not be done
ROUNDS, FAR_OFF = 5, 4.685  # of reweighting (Beaton and Tukey 1974), and beyond how many standard errors a block has no say
LEAST_SCATTER = 0.01  # of a block's light: with less, what moves a little would have none
STEADIES = 1e-3  # added to the normal equations, of all blocks: where arms leave a stretch without a say, the polynomial stays small there

Film = NDArray[np.uint8]
Places = Floats | NDArray[np.int_]


@dataclass(frozen=True)
class Light:
    """How many times as light as the reference some pictures are, place by place. ways: [n, DOWN + ACROSS + 2], the polynomial of Chebyshev down the picture,
    that across it, and what changes evenly along both; across: whether the picture's rows run along the film's columns, as of who lies."""

    ways: Floats
    across: bool = False

    def at(self, rows: Places, columns: Places) -> Floats:
        """At places of the film. rows, columns: [..., n, m], with 1 where they are the same for all."""
        overall: Floats = self.ways[:, :1]
        if self.even:
            return overall
        down, beside = (_along(columns, WIDTH), _along(rows, HEIGHT)) if self.across else (_along(rows, HEIGHT), _along(columns, WIDTH))
        by_row = sum(self.ways[:, k, None] * kind for k, kind in enumerate(_kinds(down, DOWN)))
        by_column = sum(self.ways[:, DOWN + k, None] * kind for k, kind in enumerate(_kinds(beside, ACROSS)) if k)
        found = by_row + by_column + self.ways[:, -1:] * down * beside
        return cast(Floats, np.clip(found, overall / MOST, overall * MOST))

    @property
    def even(self) -> bool:
        """Whether every picture is as light beside the reference here as there."""
        return not self.ways[:, 1:].any()

    def evened(self, film: Film) -> Iterator[Film]:
        """The pictures, each as light as the reference; one that hardly differs as it is."""
        for picture, ways in zip(film, self.ways, strict=True):
            yield _evened(picture, Light(ways[None], self.across))


class Exposure:
    """How light the pictures of a film are beside its reference. reference: [HEIGHT, WIDTH] grey; across: as in ``Light``."""

    def __init__(self, reference: Floats, *, across: bool = False) -> None:
        self._blocks = _blocks(np.asarray(reference, np.float32))
        self._tells = (self._blocks > DARK_GREY) & (self._blocks < BURNT_GREY)
        self._across = across
        rows, columns = np.indices(self._blocks.shape)
        along = [_along((place + 0.5) * BLOCK_PX, length) for place, length in ((rows, HEIGHT), (columns, WIDTH))]
        down, beside = along[::-1] if across else along
        self._basis = np.stack([*_kinds(down, DOWN), *_kinds(beside, ACROSS)[1:], down * beside], axis=-1)
        self._at_once = np.asarray(np.linalg.pinv(self._basis[self._tells]), float) if self._tells.sum() >= LEAST_BLOCKS else None

    def light(self, film: Film) -> Light:
        """How many times as light as the reference each picture is: most places of a film show the same thing all the time, and how much lighter these are is
        the light's doing, or the camera's. film: [n, HEIGHT, WIDTH]."""
        blocks = np.array([_blocks(picture)[self._tells] for picture in film])
        tells = (blocks > 0.5 * DARK_GREY) & (blocks < BURNT_GREY)
        ways = np.zeros((len(film), self._basis.shape[-1]))
        ways[:, 0] = 1.0
        enough = tells.sum(axis=1) >= LEAST_BLOCKS
        if self._at_once is not None and enough.any():
            ways[enough] = self._ways(blocks[enough] / self._blocks[self._tells], tells[enough], self._at_once)
        return Light(ways, self._across)

    def _ways(self, lighter: Floats, tells: NDArray[np.bool_], at_once: Floats) -> Floats:
        """The light of pictures [n, DOWN + ACROSS + 2] by how many times lighter each block is, and whether it tells: [n, m]."""
        overall = np.clip(_medians(lighter, tells), 1.0 / MOST, MOST)[:, None]
        off = np.where(tells, lighter / overall - 1.0, 0.0)
        scatter = _scatter(_medians(np.abs(off), tells))[:, None]
        ways = np.zeros((len(off), at_once.shape[0]))
        for i in np.flatnonzero(self._uneven(np.clip(off, -2.0 * scatter, 2.0 * scatter) @ at_once.T) > SURELY_EVEN * UNEVEN):
            ways[i] = _robust(self._basis[self._tells][tells[i]], off[i, tells[i]])
        ways[self._uneven(ways) <= UNEVEN] = 0.0
        ways[:, 0] += 1.0
        return overall * ways

    def _uneven(self, ways: Floats) -> Floats:
        """How uneven the light of each picture is, root mean square over the film: [n]."""
        return np.sqrt(np.mean((ways[:, 1:] @ self._basis[..., 1:].reshape(-1, ways.shape[1] - 1).T) ** 2, axis=1))


def _robust(basis: Floats, off: Floats) -> Floats:
    """The basis's ways that most blocks agree with; what moves before the camera has no say. basis: [m, k]; off: [m]."""
    ways: Floats = np.zeros(basis.shape[1])
    steady = STEADIES * len(basis) * np.eye(basis.shape[1])
    for _ in range(ROUNDS):
        left = off - basis @ ways
        weights = np.clip(1.0 - (left / (FAR_OFF * _scatter(np.median(np.abs(left))))) ** 2, 0.0, None) ** 2
        ways = np.asarray(np.linalg.solve((basis * weights[:, None]).T @ basis + steady, basis.T @ (weights * off)), float)
    return ways


def _scatter(median_off: Floats) -> Floats:
    """Standard deviation of most of some blocks' light, by the median of how far they are off."""
    return np.maximum(1.4826 * median_off, LEAST_SCATTER)


def _medians(values: Floats, told: NDArray[np.bool_]) -> Floats:
    """Median of what tells in each row, all rows at once: [n, m] to [n]. One at a time they take as long as following the strips."""
    ordered, count, rows = np.sort(np.where(told, values, np.inf), axis=1), told.sum(axis=1), np.arange(len(values))
    return 0.5 * (ordered[rows, (count - 1) // 2] + ordered[rows, count // 2])


def _evened(picture: Film, light: Light) -> Film:
    if light.even:
        overall = float(light.ways[0, 0])
        return picture if abs(overall - 1.0) <= LET_BE else np.asarray(cv2.convertScaleAbs(picture, alpha=1.0 / overall), np.uint8)
    height, width = picture.shape
    lighter = light.at(np.arange(height)[:, None], np.arange(width))
    return np.clip(np.rint(picture / lighter), 0, 255).astype(np.uint8)


def _kinds(along: Floats, degree: int) -> list[Floats]:
    """The polynomials of Chebyshev up to a degree."""
    return [np.asarray(chebyshev.chebval(along, np.eye(degree + 1)[k]), float) for k in range(degree + 1)]


def _along(place: Places, length: int) -> Floats:
    """A place of the film from -1 to 1 along it."""
    return np.asarray(place, float) * (2.0 / length) - 1.0


def _blocks(picture: Film | NDArray[np.float32]) -> Floats:
    height, width = (length // BLOCK_PX for length in picture.shape)
    whole = picture[: height * BLOCK_PX, : width * BLOCK_PX]  # of whole blocks only, which are averaged three times as fast
    return np.asarray(cv2.resize(whole, (width, height), interpolation=cv2.INTER_AREA), float)
