"""How high up a body's belly moves: the assumed profile is one for all, and bodies differ by some percent of trunk.

Where only a part of the belly's outline is free (a thigh before its lower half, an arm before its upper one), what is assumed of the rest decides how far the
whole seems to go. So the profile is moved up or down to the outline's own travel by height, as far as bodies usually differ, and what stays unknown is said.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinematics.profile import abdomen_share
from brevin.core.track import Floats

TRIED_PCT = np.arange(-8.0, 8.5, 1.0)  # of trunk: heights tried, + = the belly moves higher up than assumed
BODIES_PCT = 1.8  # standard deviation of it between bodies, own, over clips of two makers (who sits, lower; who stands, higher)
BETWEEN_PCT = (8.0, 45.0)  # where the belly moves
LEAST_PLACES = 4  # of free outline there, from which a height is told
ALIKE = 0.85  # correlation with the belly from which a place belongs to it
OFF, FAR_OFF = 0.1, 2.0  # of the largest travel: by which a place may differ from any profile; times that, what is farther off counts no more


@dataclass(frozen=True)
class BellyHeight:
    """higher_pct: how much higher than assumed the belly moves, percent of trunk; size_off: standard deviation that not knowing it better leaves in the
    belly's travel, as a share of it."""

    higher_pct: float
    size_off: float

    def share(self, up_pct: Floats) -> Floats:
        """Travel of the front outline at a height, as a share of the abdomen's largest, in this body: 0 to 1."""
        return abdomen_share(up_pct - self.higher_pct)


USUAL = BellyHeight(0.0, 0.0)


def belly_height(up_pct: Floats, moves: Floats, belly: Floats, *, alike_in: float) -> BellyHeight:
    """From places of free outline to the height that fits them: the mean over all heights tried, each by how well it fits and how usual it is.

    up_pct: [k] heights; moves: [n, k] forward travel, percent of trunk; belly: [n] the belly's at the height assumed; alike_in: how many neighbouring
    places see the same error of the picture."""
    between = (up_pct > BETWEEN_PCT[0]) & (up_pct < BETWEEN_PCT[1])
    if between.sum() < LEAST_PLACES:
        return USUAL
    along, calm = (filters.smooth(values - values.mean(axis=0)) for values in (belly, moves[:, between]))
    size = max(float(along @ along), 1e-9)
    gain = along @ calm / size
    kept = gain * np.sqrt(size) > ALIKE * np.linalg.norm(calm, axis=0)
    if kept.sum() < LEAST_PLACES:
        return USUAL
    share = abdomen_share(up_pct[between][kept] - TRIED_PCT[:, None])
    sizes = share @ gain[kept] / np.maximum((share**2).sum(axis=1), 1e-9)
    off = (gain[kept] - sizes[:, None] * share) / (OFF * float(gain[kept].max()))
    misfit = np.minimum(off**2, FAR_OFF**2).sum(axis=1) / alike_in + (TRIED_PCT / BODIES_PCT) ** 2
    weight = np.exp(-0.5 * (misfit - misfit.min()))
    weight /= weight.sum()
    mean = float(weight @ sizes)
    return BellyHeight(float(weight @ TRIED_PCT), float(np.sqrt(weight @ (sizes - mean) ** 2)) / mean)
