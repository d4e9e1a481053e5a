"""How a breath moves the trunk's surface: the assumed share of each region's travel at every place of the trunk.

Heights and places in percent of trunk length, origin at the middle of the hips. Two compartments (Konno and Mead 1967), each a
smooth bump over the trunk's height. The shapes are own: broad enough for any body, and where a region is seen only away from
its middle the reading says so by its uncertainty.
"""

import numpy as np

from brevin.core.track import Floats

ABDOMEN_FROM, ABDOMEN_TO = 10.0, 42.0  # between pelvis and lower ribs
CHEST_FROM, CHEST_TO = 50.0, 92.0  # upper rib cage
HALF_DEPTH_PCT = 18.0  # front outline ahead of the trunk's axis where it cannot be seen


def _bump(x: Floats, knots: tuple[tuple[float, float], ...]) -> Floats:
    places, values = zip(*knots, strict=True)
    return np.interp(x, places, values)


def abdomen_share(up_pct: Floats) -> Floats:
    """Travel of the front outline at a height, as a share of the abdomen's largest: 0 to 1."""
    return _bump(up_pct, ((-4, 0.0), (3, 0.3), (9, 0.68), (15, 0.93), (20, 1.0), (30, 1.0), (36, 0.78), (42, 0.42), (48, 0.16), (56, 0.0)))


def chest_share(up_pct: Floats) -> Floats:
    """Travel of the front outline at a height, as a share of the chest's largest: 0 to 1."""
    return _bump(up_pct, ((44, 0.0), (50, 0.25), (55, 0.55), (60, 0.8), (65, 0.97), (69, 1.0), (78, 1.0), (84, 0.85), (90, 0.5), (97, 0.12), (102, 0.0)))


def depth_share(forward_pct: Floats, *, front_pct: float) -> Floats:
    """Forward travel of a point on the flank, as a share of the outline's at its height: 0 behind the middle of the trunk's depth, 1 close to the front."""
    behind = 0.45 * front_pct
    return np.clip((forward_pct + behind) / (front_pct + behind - 3.0), 0.0, 1.0)
