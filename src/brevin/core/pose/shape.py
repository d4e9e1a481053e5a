"""From a body's mask to the few numbers that posture is read from: how far its outline is beside the trunk's axis, and how high over the shoulders."""

import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, Shape

HEIGHTS = np.linspace(0.0, 1.0, 21)  # of the axis, from the hips to the shoulders
ASIDE_PCT = np.arange(20.0, 35.0, 2.0)  # of trunk: outside the neck, inside the upper arm
REACH_TRUNKS = 0.6  # how far from the axis, or over the shoulders, the outline is looked for
FROM_UNDER_TRUNKS = 0.25  # so far under the shoulders the way up to their outline begins
STEP_PX = 0.5  # between looks at the mask along a way
LEAST_TRUNK_PX = 20.0  # a smaller one has no outline to speak of
INSIDE = 0.5  # of the mask


def shape_of(mask: NDArray[np.float32], body: Body, over_mask: NDArray[np.float32] | None = None) -> Shape | None:
    """The outline about a body's own trunk. mask: [height, width], 0 to 1; over_mask: a sharper one about the shoulders; None where the trunk is too small."""
    hips, shoulders = lm.hips(body), lm.shoulders(body)
    trunk_px = lm.trunk_px(body)
    if trunk_px < LEAST_TRUNK_PX:
        return None
    across, up = lm.trunk_axes(body)
    along = hips + HEIGHTS[:, None] * trunk_px * up
    reach_px = REACH_TRUNKS * trunk_px
    beside = [way_out(mask, along, side * across, reach_px) for side in (-1.0, 1.0)]
    under_px = FROM_UNDER_TRUNKS * trunk_px
    over = []
    for side in (-1.0, 1.0):
        below = shoulders + np.column_stack([side * ASIDE_PCT / 100.0 * trunk_px, np.full(len(ASIDE_PCT), under_px)])
        over.append(way_out(mask if over_mask is None else over_mask, below, np.array([0.0, -1.0]), reach_px + under_px) - under_px)
    return Shape(beside_pct=np.stack(beside) * 100.0 / trunk_px, over_pct=np.stack(over) * 100.0 / trunk_px)


def way_out(mask: NDArray[np.float32], starts: Floats, way: Floats, reach_px: float) -> Floats:
    """How far each start [k, 2] is from the mask's border along one direction, px: [k]; nan where it is not inside, or the border is not in the picture."""
    steps = np.arange(0.0, reach_px, STEP_PX)
    values = _between(mask, starts[:, None] + steps[None, :, None] * way)
    inside = values >= INSIDE
    first = np.argmin(inside, axis=1)  # the first look that is outside
    rows = np.arange(len(starts))
    last, out = values[rows, np.maximum(first - 1, 0)], values[rows, first]
    found = inside[:, 0] & ~inside.all(axis=1) & np.isfinite(out)
    share = (last - INSIDE) / np.where(found, last - out, 1.0)
    return np.where(found, steps[first] - STEP_PX * (1.0 - share), np.nan)


def _between(mask: NDArray[np.float32], places: Floats) -> Floats:
    """The mask between its pixels by straight lines at places [..., 2]; nan outside the picture."""
    height, width = mask.shape
    low = np.floor(places).astype(int)
    x, y = np.clip(low[..., 0], 0, width - 2), np.clip(low[..., 1], 0, height - 2)
    across, down = places[..., 0] - low[..., 0], places[..., 1] - low[..., 1]
    upper = mask[y, x] * (1.0 - across) + mask[y, x + 1] * across
    lower = mask[y + 1, x] * (1.0 - across) + mask[y + 1, x + 1] * across
    seen = (places[..., 0] >= 0) & (places[..., 0] <= width - 1) & (places[..., 1] >= 0) & (places[..., 1] <= height - 1)
    between: Floats = np.where(seen, upper * (1.0 - down) + lower * down, np.nan)
    return between
