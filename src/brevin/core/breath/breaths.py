"""Breaths from traces: the four turns of each, taken from the regions that move."""

from dataclasses import dataclass, replace

import numpy as np

from brevin.core.breath.cycles import Swing, breath_signal, swings
from brevin.core.breath.turns import Turn, arriving, leaving
from brevin.core.filters import SMOOTH_S
from brevin.core.kinematics.traces import Traces
from brevin.core.track import Floats

LEAST_REGION_PCT = 0.35  # of trunk: a region that moves less has no turns of its own
START_SHARE, END_SHARE = 0.28, 0.15  # of the larger region's excursion: below it the start, and the end, is the larger one's
LEAST_UPPER_PCT = 0.3  # of trunk: chest and shoulder together end an inhale from this rise on
LEAST_NOISE_PCT = 0.02  # of trunk: no trace is surer than this
TIMES_NOISE = 6.0  # a region that moves stands this far out of its own noise
JOINT_SHARE = 0.2  # of the largest: what moves less says nothing about the exhale
HIDDEN_PCT = 0.004  # of trunk: the coding of a clip keeps a picture still until it has moved this far; own, shows in ./brevin bench accuracy
FULLNESS_WIDER = 1.15  # times: the last of several turns is less sure than each; own, shows in ./brevin bench accuracy
UNSEEN_FILLING = 0.25  # of the inhale: how much later than the seen region an unseen one may be full
MEET = 1.65  # times both half widths: end and leave nearer than that are one turn, as in a breath without a pause
MET_NARROWER = 0.9  # times the wider of the two: the half width where they meet
HOLD_WIDER = 1.2  # times: a start after a held breath, whose level wanders meanwhile; own, shows in ./brevin bench accuracy
CUT_FALL = 0.3  # of the rise: an exhale cut off by the clip's end before this much of it has no start


@dataclass(frozen=True)
class BreathTurns:
    """One breath's four turns with the half widths of their 90 % intervals, seconds; None where the clip cuts them off.

    half_rise_s: moment each region passes half its rise, None where it does not move enough.
    """

    inhale_start: Turn | None
    inhale_end: Turn | None
    exhale_start: Turn | None
    exhale_end: Turn | None
    half_rise_s: dict[str, float | None]

    @property
    def whole(self) -> bool:
        """All four turns lie inside the clip."""
        return None not in (self.inhale_start, self.inhale_end, self.exhale_start, self.exhale_end)


def breaths(traces: Traces) -> list[BreathTurns]:
    """All breaths of a clip in order, the cut ones included. Empty where nothing breathes."""
    regions, weights, signal = _signals(traces)
    if signal is None:
        return []
    noise = {name: traces.noise[name] for name in (*regions, "shoulder")}
    carriers = regions | ({"shoulder": traces.shoulder} if traces.seen["shoulder"] and "width" not in regions else {})
    found = swings(signal, noise=max(abs(weights[name]) * noise[name] for name in regions))
    return [
        _unsure_in_holes(_turns(traces.t_s, regions, carriers, noise, signal, swing, earlier, later), traces.holes)
        for earlier, swing, later in zip([None, *found], found, [*found[1:], None], strict=False)
    ]


def _unsure_in_holes(turns: BreathTurns, holes: tuple[tuple[float, float], ...]) -> BreathTurns:
    """A turn that falls where pictures are missing may lie anywhere in the hole."""

    def unsure(turn: Turn | None) -> Turn | None:
        if turn is None:
            return None
        inside = [end - start for start, end in holes if start - SMOOTH_S <= turn.t_s <= end + SMOOTH_S]
        return Turn(turn.t_s, max([turn.half_width_s, *inside]))

    return replace(
        turns, inhale_start=unsure(turns.inhale_start), inhale_end=unsure(turns.inhale_end),
        exhale_start=unsure(turns.exhale_start), exhale_end=unsure(turns.exhale_end),
    )  # fmt: skip


def _signals(traces: Traces) -> tuple[dict[str, Floats], dict[str, float], Floats | None]:
    if traces.seen["abdomen"] or traces.seen["chest"]:
        signal, weights = breath_signal(traces.abdomen, traces.chest, seen=traces.seen)
        regions = {name: getattr(traces, name) for name in ("abdomen", "chest") if traces.seen[name]}
        return regions, dict(zip(("abdomen", "chest"), weights, strict=True)), signal
    if traces.width.any():
        return {"width": traces.width}, {"width": 1.0}, traces.width
    return {}, {}, None


def _joint(carriers: dict[str, Floats], noise: dict[str, float], swing: Swing) -> tuple[Floats, float]:
    """Several traces as one, each weighted by how clearly it moves; + = inhale. Returns it with its noise."""
    size = {name: float(values[swing.peak] - values[swing.trough]) for name, values in carriers.items()}
    largest = max(abs(s) for s in size.values())
    clear = {n: s / max(noise[n], LEAST_NOISE_PCT) ** 2 for n, s in size.items() if abs(s) >= max(TIMES_NOISE * noise[n], JOINT_SHARE * largest)}
    clear = clear or {max(size, key=lambda n: abs(size[n])): 1.0}
    total = sum(abs(w) for w in clear.values())
    joint = np.sum([w / total * carriers[n] for n, w in clear.items()], axis=0)
    return joint, float(np.sqrt(sum((w / total * noise[n]) ** 2 for n, w in clear.items())))


@dataclass(frozen=True)
class _Around:
    """A swing with its surroundings. from_i, to_i: the middles of the exhale before and the inhale after, between which its turns lie."""

    t_s: Floats
    swing: Swing
    from_i: int
    to_i: int
    noise: dict[str, float]

    def own(self, values: Floats) -> tuple[int, int, int, int]:
        """A trace's own middle of its rise, middle of its fall, bottom and top around the swing."""
        bottom, top, after = _own_turns(values, self.from_i, self.swing, self.to_i)
        return _crossing(values, bottom, top), _crossing(values, top, after), bottom, top


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
    around = _Around(t_s, swing, from_i, to_i, noise)
    start, end, half_rise_s = _inhale(regions, carriers, around)
    leave, rest = _exhale(carriers, around)
    start, end = _uncrossed(start, end)
    leave, rest = _uncrossed(leave, rest)
    end, leave = _met(end, leave)
    start, rest = min(start, end, key=_when), max(leave, rest, key=_when)
    cut_start = swing.cut_at_start and rise_mid - swing.trough < 2
    cut_end = swing.cut_at_end or fall_mid >= len(t_s) - 2
    hardly_fell = signal[swing.peak] - signal[-1] < CUT_FALL * (signal[swing.peak] - signal[swing.trough])
    return BreathTurns(
        inhale_start=None if cut_start else start,
        inhale_end=end,
        exhale_start=None if cut_end and hardly_fell else leave,
        exhale_end=None if cut_end else rest,
        half_rise_s=half_rise_s,
    )


def _inhale(regions: dict[str, Floats], carriers: dict[str, Floats], around: _Around) -> tuple[Turn, Turn, dict[str, float | None]]:
    """Start: the first region's. End: the last to fill of abdomen and upper trunk, the chest and shoulder in one. And each region's half rise."""
    t_s, noise, swing = around.t_s, around.noise, around.swing
    starts, ends = [], []
    half_rise_s: dict[str, float | None] = {}
    first_to_move = _moving(regions, swing, noise=noise, share_least=START_SHARE)
    moving = _moving(regions, swing, noise=noise, share_least=END_SHARE)
    for name, sign in moving.items():
        values = sign * regions[name]
        rise, _, bottom, top = around.own(values)
        half_rise_s[name] = _half_rise_s(t_s, values, bottom, top)
        if name in first_to_move:
            starts.append(leaving(t_s, values, from_i=around.from_i, middle_i=rise, noise=noise[name], steady=True, hidden=HIDDEN_PCT))
        if name != "chest":
            ends.append(_arrival(values, name, around))
    upper = {
        name: values
        for name, values in carriers.items()
        if name in ("chest", "shoulder") and _rises(values, swing, max(TIMES_NOISE * noise[name], LEAST_UPPER_PCT))
    }
    if upper:
        values, upper_noise = _joint(upper, noise, swing)
        rise, fall, *_ = around.own(values)
        ends.append(arriving(t_s, values, middle_i=rise, to_i=max(fall, rise + 1), noise=upper_noise))
    if not ends:  # only the chest moves, and it sinks: its own end is all there is
        ends = [_arrival(sign * regions[name], name, around) for name, sign in moving.items()]
    start, end = min(starts, key=_when), max(ends, key=_when)
    unseen_s = 0.0
    if len(regions) == 1 and "width" not in regions:  # the other region may still be filling where it cannot be seen
        unseen_s = UNSEEN_FILLING * (end.t_s - start.t_s)
    return start, Turn(end.t_s, FULLNESS_WIDER * end.half_width_s + unseen_s), half_rise_s


def _arrival(values: Floats, name: str, around: _Around) -> Turn:
    """When a trace that rises in this inhale came to rest."""
    rise, fall, *_ = around.own(values)
    return arriving(around.t_s, values, middle_i=rise, to_i=max(fall, rise + 1), noise=around.noise[name])


def _rises(values: Floats, swing: Swing, least: float) -> bool:
    return bool(values[swing.peak] - values[swing.trough] > least)


def _exhale(carriers: dict[str, Floats], around: _Around) -> tuple[Turn, Turn]:
    """When all that falls begins to fall, and when it has come to rest."""
    joint, noise = _joint(carriers, around.noise, around.swing)
    _, fall, _, top = around.own(joint)
    from_i = min(_crossing(joint, around.swing.trough, top), fall - 1)
    leave = leaving(around.t_s, -joint, from_i=from_i, middle_i=fall, noise=noise, hidden=HIDDEN_PCT)
    return leave, arriving(around.t_s, -joint, middle_i=fall, to_i=around.to_i, noise=noise)


def _met(end: Turn, leave: Turn) -> tuple[Turn, Turn]:
    """Fullness and the exhale's start; one turn, the mean weighted by how sure each is, where no pause can be told between them."""
    gap_s = leave.t_s - end.t_s
    if gap_s >= MEET * float(np.hypot(end.half_width_s, leave.half_width_s)):
        return end, Turn(leave.t_s, HOLD_WIDER * leave.half_width_s)
    sure = 1.0 / end.half_width_s**2, 1.0 / leave.half_width_s**2
    t_s = (sure[0] * end.t_s + sure[1] * leave.t_s) / sum(sure)
    turn = Turn(t_s, max(MET_NARROWER * max(end.half_width_s, leave.half_width_s), 0.5 * abs(gap_s)))
    return turn, turn


def _uncrossed(first: Turn, second: Turn) -> tuple[Turn, Turn]:
    """Two turns in their order; where they were read crossed, both stand between the two readings and may lie at either."""
    gap_s = first.t_s - second.t_s
    if gap_s <= 0:
        return first, second
    between = Turn(0.5 * (first.t_s + second.t_s), max(first.half_width_s, second.half_width_s, 0.5 * gap_s))
    return between, between


def _moving(regions: dict[str, Floats], swing: Swing, *, noise: dict[str, float], share_least: float) -> dict[str, float]:
    """Regions that move in this breath, each with the sign that makes its inhale a rise."""
    size = {name: values[swing.peak] - values[swing.trough] for name, values in regions.items()}
    largest = max(abs(s) for s in size.values())
    least = max(min(LEAST_REGION_PCT, largest), share_least * largest)
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


def _half_rise_s(t_s: Floats, values: Floats, start: int, end: int) -> float:
    """Time of half rise, between the samples."""
    i = _crossing(values, start, end)
    level = 0.5 * (values[start] + values[end])
    if i == start or values[i] == values[i - 1]:
        return float(t_s[i])
    part = (level - values[i - 1]) / (values[i] - values[i - 1])
    return float(t_s[i - 1] + np.clip(part, 0.0, 1.0) * (t_s[i] - t_s[i - 1]))


def _when(turn: Turn) -> float:
    return turn.t_s
