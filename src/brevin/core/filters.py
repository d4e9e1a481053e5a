"""Small filters on traces. All are zero-phase: they move no onset."""

import numpy as np
from scipy.ndimage import gaussian_filter1d

from brevin.core.track import Floats

GRID_HZ = 25.0  # of every trace: a 0.3 s catch breath still has seven samples
SMOOTH_S = 0.06  # standard deviation of the kernel that takes camera noise off
SETTLED = 1.4826  # median absolute deviation to standard deviation of a normal distribution


def uniform_times(t_s: Floats) -> Floats:
    """The even grid, ``GRID_HZ`` a second, inside the given times: [m]."""
    return np.arange(t_s[0], t_s[-1] + 1e-9, 1.0 / GRID_HZ)


def on_grid(t_s: Floats, values: Floats, grid_s: Floats) -> Floats:
    """Values at uneven times [n, ...] on the even grid [m, ...], straight lines between."""
    flat = values.reshape(len(t_s), -1)
    out = np.column_stack([np.interp(grid_s, t_s, column) for column in flat.T]) if flat.shape[1] else np.zeros((len(grid_s), 0))
    return out.reshape((len(grid_s), *values.shape[1:]))


def smooth(values: Floats, *, sigma_s: float = SMOOTH_S, rate_hz: float = GRID_HZ) -> Floats:
    """Gaussian smoothing along the first axis."""
    return gaussian_filter1d(values, sigma_s * rate_hz, axis=0, mode="nearest")


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
    return float(np.subtract(*np.percentile(values, [95, 5]))) if len(values) else 0.0
