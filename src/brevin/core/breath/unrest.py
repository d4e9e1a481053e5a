"""How far a breath stands out of the unrest of what shows it: a coded, dark, small or soft picture, a shirt that folds. Source: own, docs/gate.md."""

from collections.abc import Sequence

import numpy as np

from brevin.core.breath.hidden import lifted
from brevin.core.filters import GRID_HZ, gaussian
from brevin.core.kinematics.traces import Traces
from brevin.core.track import Floats

SLOWER_S = 0.4  # what is smoothed away by this is no breath; a quick inhale is faster in part, but takes so little of a clip that the median leaves it out
CALM = 0.03  # what of an inhale is unrest in a clip that is read well, at most: turns are less sure by as much as there is more; docs/gate.md
OF_NORMAL = 1.4826  # standard deviation over the median distance, of what is spread as noise is


def unrest(traces: Traces, inhales: Sequence[tuple[float, float]]) -> float | None:
    """Standard deviation of what is faster than a breath, by its median distance, as a share of the inhales' size: of belly and chest together, or of the
    shoulders where they tell the breath and are quieter. inhales: from when to when, s, those of whole breaths; None where there is none."""
    if not inhales or not traces.seen["abdomen"]:
        return None
    trunk = [getattr(traces, name) for name in ("abdomen", "chest") if traces.seen[name]]
    return min(_share(traces.t_s, carriers, inhales) for carriers in ([trunk, [traces.shoulder]] if lifted(traces) else [trunk]))


def _share(t_s: Floats, carriers: Sequence[Floats], inhales: Sequence[tuple[float, float]]) -> float:
    together = np.sum(carriers, axis=0)
    fast = together - gaussian(together, SLOWER_S * GRID_HZ)
    size = np.median([sum(abs(float(np.diff(np.interp(inhale, t_s, values))[0])) for values in carriers) for inhale in inhales])
    return float(OF_NORMAL * np.median(np.abs(fast - np.median(fast))) / max(float(size), 1e-9))
