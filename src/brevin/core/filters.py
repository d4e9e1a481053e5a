"""Small filters on traces. All are zero-phase: they move no onset."""

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view

from brevin.core.track import Floats

GRID_HZ = 25.0  # of every trace: a 0.3 s catch breath still has seven samples
SMOOTH_S = 0.06  # standard deviation of the kernel that takes camera noise off
CUT_SIGMAS = 4.0  # where the kernel ends
HOLE_LEAST_S, HOLE_STEPS = 0.2, 4.0  # pictures are missing where two lie this far apart, and this many of the usual steps
SETTLED = 1.4826  # median absolute deviation to standard deviation of a normal distribution


def uniform_times(t_s: Floats) -> Floats:
    """The even grid, ``GRID_HZ`` a second, inside the given times: [m]."""
    return np.arange(t_s[0], t_s[-1] + 1e-9, 1.0 / GRID_HZ)


def holes(t_s: Floats) -> tuple[tuple[float, float], ...]:
    """Where pictures are missing: from the last picture before to the first after, seconds."""
    steps = np.diff(t_s)
    least = max(HOLE_LEAST_S, HOLE_STEPS * float(np.median(steps))) if len(steps) else 0.0
    return tuple((float(t_s[i]), float(t_s[i + 1])) for i in np.flatnonzero(steps > least))


def on_grid(t_s: Floats, values: Floats, grid_s: Floats) -> Floats:
    """Values at uneven times [n, ...] on the even grid [m, ...], straight lines between."""
    flat = values.reshape(len(t_s), -1)
    out = np.column_stack([np.interp(grid_s, t_s, column) for column in flat.T]) if flat.shape[1] else np.zeros((len(grid_s), 0))
    return out.reshape((len(grid_s), *values.shape[1:]))


def smooth(values: Floats, *, sigma_s: float = SMOOTH_S, rate_hz: float = GRID_HZ) -> Floats:
    """Gaussian smoothing along the first axis."""
    return gaussian(values, sigma_s * rate_hz)


def gaussian(values: Floats, sigma: float) -> Floats:
    """Gaussian smoothing along the first axis, ends held; sigma in samples. Written out, since loading a package for it costs a reading half a second."""
    reach = int(CUT_SIGMAS * sigma + 0.5)
    kernel = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sigma) ** 2)
    kernel /= kernel.sum()
    held = np.concatenate([np.repeat(values[:1], reach, axis=0), values, np.repeat(values[-1:], reach, axis=0)]).astype(float)
    flat = held.reshape(len(held), -1)
    if flat.shape[1] == 1:
        return np.convolve(flat[:, 0], kernel, mode="valid").reshape(values.shape)
    return (sliding_window_view(flat, len(kernel), axis=0) @ kernel).reshape(values.shape)  # all columns at once: quicker than one by one


def noise_of(values: Floats) -> Floats | float:
    """Standard deviation of what a straight line through each sample's neighbours leaves, along the first axis. Same unit as the values.

    Estimates white noise and is blind to movement; exact for uncorrelated samples (the residual has 1.5 times their variance).
    """
    if len(values) < 3:
        return np.zeros(values.shape[1:]) if values.ndim > 1 else 0.0
    rest = values[1:-1] - 0.5 * (values[:-2] + values[2:])
    return SETTLED * np.median(np.abs(rest), axis=0) / np.sqrt(1.5)


def spread(values: Floats) -> float:
    """Distance of the 95th from the 5th percentile."""
    ordered = np.sort(values, axis=None)  # the package's own percentiles take ten times as long for as little as a trace
    low, high = np.interp(np.array([0.05, 0.95]) * (len(ordered) - 1), np.arange(len(ordered)), ordered) if len(ordered) else (0.0, 0.0)
    return float(high - low)


def weighted_quantile(values: Floats, weight: Floats, share: float) -> float:
    """The value under which a share of the weight lies. values, weight: [n]."""
    order = np.argsort(values)
    return float(values[order][np.searchsorted(np.cumsum(weight[order]), share * weight.sum())])


def weighted_median(values: Floats, weight: Floats) -> Floats:
    """The value in each row under which half of the weight lies: [n]. values: [n, k]; weight: [k]."""
    order = np.argsort(values, axis=1)
    half = np.argmax(np.cumsum(weight[order], axis=1) >= 0.5 * weight.sum(), axis=1)
    rows = np.arange(len(values))
    found: Floats = values[rows, order[rows, half]]
    return found
