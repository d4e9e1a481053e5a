"""Breaths from traces: the four turns of each, taken from the regions that move."""

from dataclasses import dataclass

import numpy as np

from brevin.core.breath.cycles import Swing, breath_signal, swings
from brevin.core.breath.turns import Turn, arriving, leaving
from brevin.core.kinematics.trunk import Traces
from brevin.core.track import Floats

LEAST_REGION_PCT = 0.35  # of trunk: a region that moves less has no turns of its own
REGION_SHARE = 0.28  # of the larger region's excursion: below it the turns are the larger one's
LEAST_NOISE_PCT = 0.02  # of trunk: no trace is surer than this
TIMES_NOISE = 6.0  # a region that moves stands this far out of its own noise
FULLNESS_WIDER = 1.2  # times: the last of several turns is less sure than each; own, measured on made clips
UNSEEN_FILLING = 0.25  # of the inhale: how much later than the seen region an unseen one may be full


@dataclass(frozen=True)
class BreathTurns:
    """One breath's four turns with the half widths of their 90 % intervals, seconds; None where the clip cuts them off.

    half: moment each region passes half its rise, None where it does not move enough.
    """

    inhale_start: Turn | None
    inhale_end: Turn | None
    exhale_start: Turn | None
    exhale_end: Turn | None
    half_s: dict[str, float | None]

    @property
    def whole(self) -> bool:
        """All four turns lie inside the clip."""
        return None not in (self.inhale_start, self.inhale_end, self.exhale_start, self.exhale_end)


def breaths(traces: Traces) -> list[BreathTurns]:
    """All breaths of a clip in order, the cut ones included. Empty where nothing breathes."""
    regions, weights, signal = _signals(traces)
    if signal is None:
        return []
    noise = {name: traces.noise.get(name, 0.0) for name in (*regions, "shoulder")}
    carriers = regions | ({"shoulder": traces.shoulder} if traces.seen["shoulder"] and "width" not in regions else {})
    found = swings(signal, noise=max(abs(weights[name]) * noise[name] for name in regions))
    return [
        _turns(traces.t_s, regions, carriers, noise, signal, swing, earlier, later)
        for earlier, swing, later in zip([None, *found], found, [*found[1:], None], strict=False)
    ]


def _signals(traces: Traces) -> tuple[dict[str, Floats], dict[str, float], Floats | None]:
    if traces.seen["abdomen"] or traces.seen["chest"]:
        signal, weights = breath_signal(traces.abdomen, traces.chest, seen=traces.seen)
        regions = {name: getattr(traces, name) for name in ("abdomen", "chest") if traces.seen[name]}
        return regions, dict(zip(("abdomen", "chest"), weights, strict=True)), signal
    if traces.width.any():
        return {"width": traces.width}, {"width": 1.0}, traces.width
    return {}, {}, None


def _joint(carriers: dict[str, Floats], noise: dict[str, float], swing: Swing) -> tuple[Floats, float]:
    """All that falls in the exhale as one trace, each weighted by how clearly it moves; + = inhale. Returns it with its noise."""
    size = {name: float(values[swing.peak] - values[swing.trough]) for name, values in carriers.items()}
    largest = max(abs(s) for s in size.values())
    clear = {n: s / max(noise[n], LEAST_NOISE_PCT) ** 2 for n, s in size.items() if abs(s) >= max(TIMES_NOISE * noise[n], 0.2 * largest)}
    clear = clear or {max(size, key=lambda n: abs(size[n])): 1.0}
    total = sum(abs(w) for w in clear.values())
    joint = np.sum([w / total * carriers[n] for n, w in clear.items()], axis=0)
    return joint, float(np.sqrt(sum((w / total * noise[n]) ** 2 for n, w in clear.items())))


def _turns(
    t_s: Floats,
    regions: dict[str, Floats],
    carriers: dict[str, Floats],
    noise: dict[str, float],
    signal: Floats,
    swing: Swing,
    earlier: Swing | None,
    later: Swing | None,
) -> BreathTurns:
    rise_mid = _crossing(signal, swing.trough, swing.peak)
    fall_mid = _crossing(signal, swing.peak, swing.next_trough)
    from_i = _crossing(signal, earlier.peak, swing.trough) if earlier else 0
    to_i = _crossing(signal, later.trough, later.peak) if later else len(t_s) - 1
    moving = _moving(regions, rise=(swing.trough, swing.peak), noise=noise)
    starts, ends = [], []
    half: dict[str, float | None] = {}
    for name, sign in moving.items():
        values = sign * regions[name]
        bottom, top, after = _own_turns(values, from_i, swing, to_i)
        rise, fall = _crossing(values, bottom, top), _crossing(values, top, after)
        half[name] = _half_s(t_s, values, bottom, top)
        starts.append(leaving(t_s, values, from_i=from_i, middle_i=rise, noise=noise[name], steady=True))
        ends.append(arriving(t_s, values, middle_i=rise, to_i=max(fall, rise + 1), noise=noise[name]))
    start, end = _earliest(starts), _latest(ends)
    end = Turn(end.t_s, FULLNESS_WIDER * end.half_width_s)
    if len(regions) == 1 and "width" not in regions:  # the other region may still be filling where it cannot be seen
        end = Turn(end.t_s, end.half_width_s + UNSEEN_FILLING * (end.t_s - start.t_s))
    joint, joint_noise = _joint(carriers, noise, swing)
    top, after = _own_turns(joint, from_i, swing, to_i)[1:]
    fall = _crossing(joint, top, after)
    leave = leaving(t_s, -joint, from_i=min(_crossing(joint, swing.trough, top), fall - 1), middle_i=fall, noise=joint_noise)
    rest = arriving(t_s, -joint, middle_i=fall, to_i=to_i, noise=joint_noise)
    if end.t_s > leave.t_s:  # no pause: one turn, where both readings meet
        between = 0.5 * (end.t_s + leave.t_s)
        width = max(end.half_width_s, leave.half_width_s, 0.5 * (end.t_s - leave.t_s))
        end, leave = Turn(between, width), Turn(between, width)
    cut_start = swing.cut_at_start and rise_mid - swing.trough < 2
    cut_end = swing.cut_at_end or fall_mid >= len(t_s) - 2
    return BreathTurns(
        inhale_start=None if cut_start else start,
        inhale_end=end,
        exhale_start=leave if not (cut_end and signal[swing.peak] - signal[-1] < 0.3 * (signal[swing.peak] - signal[swing.trough])) else None,
        exhale_end=None if cut_end else rest,
        half_s=half,
    )


def _moving(regions: dict[str, Floats], *, rise: tuple[int, int], noise: dict[str, float]) -> dict[str, float]:
    """Regions that move in this breath, each with the sign that makes its inhale a rise."""
    size = {name: values[rise[1]] - values[rise[0]] for name, values in regions.items()}
    largest = max(abs(s) for s in size.values())
    least = max(min(LEAST_REGION_PCT, largest), REGION_SHARE * largest)
    return {name: float(np.sign(s) or 1.0) for name, s in size.items() if abs(s) >= max(least, TIMES_NOISE * noise[name]) or abs(s) == largest}


def _own_turns(values: Floats, from_i: int, swing: Swing, to_i: int) -> tuple[int, int, int]:
    """The region's own lowest, highest and next lowest places around a swing."""
    top = from_i + int(np.argmax(values[from_i : to_i + 1]))
    top = top if swing.trough < top < swing.next_trough else swing.peak
    bottom = from_i + int(np.argmin(values[from_i : top + 1]))
    after = top + int(np.argmin(values[top : to_i + 1]))
    top = min(max(top, bottom + 1), len(values) - 1)
    return bottom, top, min(max(after, top + 1), len(values) - 1)


def _crossing(values: Floats, start: int, end: int) -> int:
    """First place after ``start`` at which half of the way to ``end`` is done."""
    if end <= start:
        return start
    level = 0.5 * (values[start] + values[end])
    way = (values[start : end + 1] - level) * np.sign(values[end] - values[start])
    past = np.flatnonzero(way >= 0)
    return start + int(past[0]) if len(past) else end


def _half_s(t_s: Floats, values: Floats, start: int, end: int) -> float:
    """Time of half rise, between the samples."""
    i = _crossing(values, start, end)
    level = 0.5 * (values[start] + values[end])
    if i == start or values[i] == values[i - 1]:
        return float(t_s[i])
    part = (level - values[i - 1]) / (values[i] - values[i - 1])
    return float(t_s[i - 1] + np.clip(part, 0.0, 1.0) * (t_s[i] - t_s[i - 1]))


def _earliest(turns: list[Turn]) -> Turn:
    return min(turns, key=lambda turn: turn.t_s)


def _latest(turns: list[Turn]) -> Turn:
    return max(turns, key=lambda turn: turn.t_s)
