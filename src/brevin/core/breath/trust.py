"""How far each trace can be trusted to carry the breath: what of it comes again from breath to breath, and what does not.

A breath is counted and repeats; arms, a sleeve, a camera that is touched, fidgeting do not, or not with it. All breaths of a trace are laid over each other at
the middle of their rise; each may have a size, a level and a slow slide of its own. What is then left over is the trace's wander. Source: own.
"""

from collections.abc import Sequence

import numpy as np

from brevin.core.breath.cycles import Swing, swings
from brevin.core.filters import GRID_HZ
from brevin.core.track import Floats

BEFORE_SHARE = 0.4  # of the way from one breath to the next, looked at before the middle of the rise; the rest after it
ROUNDS = 4  # of fitting the common course and each breath's own size by turns
UNCLEAR = 0.04  # of the movement of all regions together, that does not come again: with less they are read together; own, shows in ./brevin bench accuracy
CLEARER = 0.5  # times what does not come again in all regions together: a region alone with less than this is read alone
FEWER = 1  # breaths that a region alone may have less: more, and there are breaths of the other alone, as where both ways are shown on purpose
LEAST_BREATHS = 2  # one breath alone says nothing of what comes again
USUAL_WANDER = 0.05  # of what comes again: what differs from breath to breath in a trace that is read well; own, shows in ./brevin bench accuracy


def wander(values: Floats, middles: Sequence[int]) -> float | None:
    """Standard deviation of what does not come again, beyond what no breath is without, unit of the values; None where there are too few breaths.

    middles: of each rise, positions on the grid.
    """
    laid = _laid(values, middles)
    if laid is None:
        return None
    common = _common(laid)
    return max(_left_over(laid, common) - USUAL_WANDER * float(np.median(np.ptp(common, axis=1))), 0.0)


def repeated(values: Floats, middles: Sequence[int]) -> float | None:
    """Share of a trace's movement that comes again with every breath, at most 1; None where there are too few breaths."""
    laid = _laid(values, middles)
    if laid is None:
        return None
    own = laid - laid.mean(axis=1, keepdims=True)
    return 1.0 - _left_over(laid, _common(laid)) ** 2 / max(float((own**2).mean()), 1e-12)


def _left_over(laid: Floats, common: Floats) -> float:
    """Standard deviation around the common course, with as many taken off as were fitted: of few breaths much can be fitted."""
    breaths, n = laid.shape
    return float(np.sqrt(((laid - common) ** 2).sum() / max((breaths - 1) * n - 3 * breaths, 1)))


def clearest(regions: dict[str, Floats], weights: dict[str, float], signal: Floats, noise: dict[str, float]) -> tuple[Floats, list[Swing]]:
    """The signal whose movement comes again most clearly with every breath, and its swings: of all regions together, or of one alone where that is much
    clearer, since the other then follows something that is no breath."""
    best = signal, swings(signal, noise=max(abs(weights[name]) * noise[name] for name in regions))
    unrepeated, together = _unrepeated(*best), len(best[1])
    if unrepeated is not None and unrepeated < UNCLEAR:
        return best
    for name, values in regions.items():
        alone = (np.sign(weights[name]) or 1.0) * values
        found = swings(alone, noise=noise[name])
        left = _unrepeated(alone, found)
        if left is None or unrepeated is None or len(found) < together - FEWER:
            continue
        if left < CLEARER * unrepeated:
            best, unrepeated = (alone, found), left
    return best


def _unrepeated(signal: Floats, found: list[Swing]) -> float | None:
    share = repeated(signal, middles_of(signal, found))
    return None if share is None else 1.0 - share


def with_wander(values: Floats, noise: float, signal: Floats, found: list[Swing]) -> float:
    """A trace's noise with what of it does not come again from breath to breath."""
    return float(np.hypot(noise, wander(values, middles_of(signal, found)) or 0.0))


def middles_of(signal: Floats, found: Sequence[Swing]) -> list[int]:
    """Middle of the rise of every breath whose beginning is seen."""
    whole = [swing for swing in found if not swing.cut_at_start]
    levels = [0.5 * (signal[swing.trough] + signal[swing.peak]) for swing in whole]
    return [swing.trough + int(np.argmax(signal[swing.trough : swing.peak + 1] >= level)) for swing, level in zip(whole, levels, strict=True)]


def _laid(values: Floats, middles: Sequence[int]) -> Floats | None:
    """Breaths over each other: [breaths, n]; those that the clip cuts off in the first or last part of it are left out."""
    if len(middles) < LEAST_BREATHS:
        return None
    apart = int(np.median(np.diff(middles)))
    before, after = int(BEFORE_SHARE * apart), apart - int(BEFORE_SHARE * apart)
    inside = [values[m - before : m + after] for m in middles if m >= before and m + after <= len(values)]
    return np.stack(inside) if len(inside) >= LEAST_BREATHS and apart > GRID_HZ / 2 else None


def _common(laid: Floats) -> Floats:
    """The common course as it stands in every breath, with the breath's own size, level and slide: [breaths, n]."""
    n = laid.shape[1]
    slide = np.linspace(-1.0, 1.0, n)
    course = laid.mean(axis=0)
    fitted = laid
    for _ in range(ROUNDS):
        own = np.column_stack([course, np.ones(n), slide])
        parts = np.linalg.lstsq(own, laid.T, rcond=None)[0]  # [3, breaths]
        fitted = np.asarray((own @ parts).T, np.float64)
        size = parts[0]
        bare = laid - parts[1][:, None] - parts[2][:, None] * slide
        course = (size[:, None] * bare).sum(axis=0) / max(float((size**2).sum()), 1e-12)
    return fitted
