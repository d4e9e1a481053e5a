"""How far each region went in one inhale, and what that makes of it: signed travel with its half width."""

import numpy as np

from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.turns import Turn
from brevin.core.kinds import Region
from brevin.core.kinematics.traces import Traces
from brevin.core.measure import NORMAL_90, Amount, NotMeasured, Value
from brevin.core.track import Floats

RIBS_LEAK = 0.05  # of the chest's travel: how far the ribs alone may move the belly's heights, either way; standard deviation, own
LEVEL_S = 0.08  # a level is the mean over this long at a turn
TRACKING_PCT: dict[Region, float] = {"abdomen": 0.08, "chest": 0.08, "shoulder": 0.17}
"""What outline and texture differ by on a still body, percent of trunk, standard deviation; own, printed by ``./brevin bench accuracy`` (covered)."""


def excursion(traces: Traces, turns: BreathTurns, region: Region) -> Value:
    """Level just after the inhale's end less the level just before its start, % of trunk, + = outward, upward. Its half width holds the trace's noise,
    what following wanders by, and the share that the assumed profile may be wrong by. Source: own."""
    if turns.inhale_start is None or turns.inhale_end is None:
        return NotMeasured("cut_by_clip")
    if not traces.seen[region]:
        return NotMeasured("region_unseen")
    change = _change(traces, turns.inhale_start, turns.inhale_end, region)
    own = followed_to(traces, region)
    assumed = NORMAL_90 * traces.model[region] * abs(change)
    return Amount(change, float(np.sqrt(own**2 + assumed**2 + _leaked(traces, turns, region) ** 2)))


def _change(traces: Traces, start: Turn, end: Turn, region: Region) -> float:
    """Level just after one turn less that just before another, percent of trunk."""
    values = getattr(traces, region)
    return level(traces.t_s, values, end.t_s, after=True) - level(traces.t_s, values, start.t_s, after=False)


def followed_to(traces: Traces, region: Region) -> float:
    """Half width of a region's travel by its noise and by what following wanders, percent of trunk: without what is assumed of its shape."""
    return NORMAL_90 * float(np.hypot(traces.noise[region] * np.sqrt(2.0), TRACKING_PCT[region]))


def _leaked(traces: Traces, turns: BreathTurns, region: Region) -> float:
    """Half width of what of the other region's travel may be in this one's: its assumed share at these heights has an error of its own."""
    other: Region = "abdomen" if region == "chest" else "chest"
    leak = {"chest": traces.model.get("leak", 0.0), "abdomen": RIBS_LEAK, "shoulder": 0.0}[region]  # not in evidence from before it was kept
    if not leak or turns.inhale_start is None or turns.inhale_end is None or not traces.seen[other]:
        return 0.0
    return NORMAL_90 * leak * abs(_change(traces, turns.inhale_start, turns.inhale_end, other))


def level(t_s: Floats, values: Floats, at_s: float, *, after: bool) -> float:
    """Mean over ``LEVEL_S`` just after or just before a moment."""
    low, high = (at_s, at_s + LEVEL_S) if after else (at_s - LEVEL_S, at_s)
    first, end = np.searchsorted(t_s, (low - 1e-9, high + 1e-9))
    return float(values[first:end].mean()) if end > first else float(np.interp(at_s, t_s, values))
