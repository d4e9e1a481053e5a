"""One swing with its surroundings: which traces carry it, how clearly, and where each has its own bottom, middles and top."""

from dataclasses import dataclass

import numpy as np

from brevin.core.breath.cycles import Swing
from brevin.core.track import Floats

LEAST_REGION_PCT = 0.35  # of trunk: a region that moves less has no turns of its own
LEAST_NOISE_PCT = 0.02  # of trunk: no trace is surer than this
TIMES_NOISE = 6.0  # a region that moves stands this far out of its own noise
JOINT_SHARE = 0.2  # of the largest: what moves less says nothing about the exhale
LEAST_UPPER_PCT = 0.3  # of trunk: chest and shoulder together begin and end an inhale from this rise on


@dataclass(frozen=True)
class Around:
    """A swing with its surroundings. from_i, to_i: the middles of the exhale before and the inhale after, between which its turns lie; noise: of each trace;
    wander: the same with what does not come again from breath to breath, by which it is told whether, and how surely, a trace carries this breath."""

    t_s: Floats
    swing: Swing
    from_i: int
    to_i: int
    noise: dict[str, float]
    wander: dict[str, float]

    def own(self, values: Floats) -> tuple[int, int, int, int]:
        """A trace's own middle of its rise, middle of its fall, bottom and top around the swing."""
        bottom, top, after = _own_turns(values, self.from_i, self.swing, self.to_i)
        return crossing(values, bottom, top), crossing(values, top, after), bottom, top

    def rise(self, values: Floats) -> float:
        """How far a trace goes from the swing's bottom to its top, in its own unit."""
        return float(values[self.swing.peak] - values[self.swing.trough])


def around_of(
    t_s: Floats, noise: dict[str, float], wander: dict[str, float], signal: Floats, earlier: Swing | None, swing: Swing, later: Swing | None
) -> Around:  # fmt: skip
    """A swing between the one before and the one after."""
    from_i = crossing(signal, earlier.peak, swing.trough) if earlier else 0
    to_i = crossing(signal, later.trough, later.peak) if later else len(t_s) - 1
    return Around(t_s, swing, from_i, to_i, noise, wander)


def joint_of(carriers: dict[str, Floats], around: Around) -> tuple[Floats, float]:
    """Several traces as one, each weighted by how clearly it moves; + = inhale. Returns it with its noise. A trace that goes on the same way after the peak
    drifts, and carries nothing while another does not."""
    clear = {name: size / max(around.noise[name], LEAST_NOISE_PCT) ** 2 for name, size in _clear(carriers, around).items()}
    total = sum(abs(w) for w in clear.values())
    joint = np.sum([w / total * carriers[n] for n, w in clear.items()], axis=0)
    return joint, float(np.sqrt(sum((w / total * around.noise[n]) ** 2 for n, w in clear.items())))


def upper_of(carriers: dict[str, Floats], around: Around) -> dict[str, Floats]:
    """Those of chest and shoulder that rise clearly in this breath: the upper trunk."""
    least = {name: max(TIMES_NOISE * around.wander[name], LEAST_UPPER_PCT) for name in ("chest", "shoulder") if name in carriers}
    return {name: carriers[name] for name in least if around.rise(carriers[name]) > least[name]}


def carrying(carriers: dict[str, Floats], around: Around) -> dict[str, float]:
    """Traces that carry this breath clearly, each with the sign that makes its inhale a rise."""
    return {name: float(np.sign(size) or 1.0) for name, size in _clear(carriers, around).items()}


def _clear(carriers: dict[str, Floats], around: Around) -> dict[str, float]:
    """How far each trace that moves clearly goes in the inhale; of none that does, the largest."""
    wander, swing = around.wander, around.swing
    size = {name: float(values[swing.peak] - values[swing.trough]) for name, values in carriers.items()}
    size = {name: s for name, s in size.items() if swing.cut_at_end or _comes_back(carriers[name], swing)} or size
    largest = max(abs(s) for s in size.values())
    clear = {n: s for n, s in size.items() if abs(s) >= max(TIMES_NOISE * wander[n], JOINT_SHARE * largest)}
    return clear or dict([max(size.items(), key=lambda one: abs(one[1]))])


def _comes_back(values: Floats, swing: Swing) -> bool:
    return bool((values[swing.peak] - values[swing.trough]) * (values[swing.peak] - values[swing.next_trough]) > 0.0)


def moving(regions: dict[str, Floats], swing: Swing, *, noise: dict[str, float], share_least: float) -> dict[str, float]:
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


def crossing(values: Floats, start: int, end: int) -> int:
    """First place after ``start`` at which half of the way to ``end`` is done."""
    if end <= start:
        return start
    level = 0.5 * (values[start] + values[end])
    way = (values[start : end + 1] - level) * np.sign(values[end] - values[start])
    past = np.flatnonzero(way >= 0)
    return start + int(past[0]) if len(past) else end


def half_rise(t_s: Floats, values: Floats, start: int, end: int) -> float:
    """Time of half rise, between the samples."""
    i = crossing(values, start, end)
    level = 0.5 * (values[start] + values[end])
    if i == start or values[i] == values[i - 1]:
        return float(t_s[i])
    part = (level - values[i - 1]) / (values[i] - values[i - 1])
    return float(t_s[i - 1] + np.clip(part, 0.0, 1.0) * (t_s[i] - t_s[i - 1]))
