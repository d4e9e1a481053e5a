"""Breath signals with planted truth: what a player who follows a script does, exact to the sample. Used by the stand-in camera, the breath lab and tests.

Every region moves inside its own window of the inhale and falls together with the others in the exhale; starts and ends are eased, as
breath is. Amplitudes in whatever unit they are given; times in seconds.
"""

from dataclasses import dataclass

import numpy as np

from brevin.core.plan.card import CountCard
from brevin.core.track import Floats

EASE_S = 0.35  # start and end of a movement are rounded over this long, at most a third of it


@dataclass(frozen=True)
class Cycle:
    """One planted breath. region windows: shares of the inhale in which each region moves; full_after: share of the inhale after which
    all is in (1 = spread over all counts); exhale_shape: even, collapsing, kept back; ease_share: of each movement's own time, instead of
    ``EASE_S``."""

    abdomen: float
    chest: float
    shoulder: float
    abdomen_window: tuple[float, float] = (0.0, 0.8)
    chest_window: tuple[float, float] = (0.2, 1.0)
    late_s: float = 0.0
    full_after: float = 1.0
    exhale_late_s: float = 0.0
    exhale_shape: str = "even"
    ease_share: float | None = None

    def ease(self, length_s: float) -> float:
        """Share of a movement of this length over which its speed grows, and falls."""
        return EASE_S / length_s if self.ease_share is None else self.ease_share


@dataclass(frozen=True)
class Planted:
    """Truth of one breath, seconds: the four turns, moments of half rise, and the amplitudes."""

    inhale_start_s: float
    inhale_end_s: float
    exhale_start_s: float
    exhale_end_s: float
    half_s: dict[str, float]
    amplitude: dict[str, float]


@dataclass(frozen=True)
class Signals:
    """Traces [n] with their truth."""

    t_s: Floats
    abdomen: Floats
    chest: Floats
    shoulder: Floats
    planted: tuple[Planted, ...]


def signals(t_s: Floats, card: CountCard, cycles: list[Cycle], *, first_inhale_s: float) -> Signals:
    """Play the card with one ``Cycle`` a breath. Raises ValueError where the card's exhale is open."""
    if card.exhale_beats is None or card.cycle_beats is None:
        raise ValueError("a planted breath needs a counted exhale")
    traces = {name: np.zeros(len(t_s)) for name in ("abdomen", "chest", "shoulder")}
    planted = []
    for index, cycle in enumerate(cycles):
        due_s = first_inhale_s + index * card.cycle_beats * card.beat_s
        start = due_s + cycle.late_s
        asked_end = due_s + card.inhale_beats * card.beat_s
        end = start + (asked_end - start) * cycle.full_after
        leave = max(asked_end + card.pause_beats * card.beat_s + cycle.exhale_late_s, end)
        rest = due_s + (card.cycle_beats - card.empty_beats) * card.beat_s - 0.08
        planted.append(_play(t_s, traces, cycle, start, end, leave, rest))
    return Signals(t_s=t_s, planted=tuple(planted), **traces)


def _play(t_s: Floats, traces: dict[str, Floats], cycle: Cycle, start: float, end: float, leave: float, rest: float) -> Planted:
    windows = {"abdomen": cycle.abdomen_window, "chest": cycle.chest_window, "shoulder": cycle.chest_window}
    size = {"abdomen": cycle.abdomen, "chest": cycle.chest, "shoulder": cycle.shoulder}
    half: dict[str, float] = {}
    for name, (first, last) in windows.items():
        low, high = start + first * (end - start), start + last * (end - start)
        rise = eased((t_s - low) / (high - low), ease=cycle.ease(high - low))
        fall = fallen((t_s - leave) / (rest - leave), cycle.exhale_shape, ease=cycle.ease(rest - leave))
        traces[name] += size[name] * (rise - fall)
        half[name] = 0.5 * (low + high)
    return Planted(start, end, leave, rest, half, size)


def eased(x: Floats, *, ease: float) -> Floats:
    """From 0 at x = 0 to 1 at x = 1: speed grows over ``ease``, is even, falls over ``ease``. ease: 0 to 0.5, cut at a third."""
    e = float(np.clip(ease, 1e-3, 1 / 3))
    x = np.clip(x, 0.0, 1.0)
    top = 1.0 / (1.0 - e)
    early, late = 0.5 * top * x**2 / e, 1.0 - 0.5 * top * (1.0 - x) ** 2 / e
    return np.where(x < e, early, np.where(x > 1.0 - e, late, top * (x - 0.5 * e)))


def fallen(x: Floats, shape: str, *, ease: float) -> Floats:
    """Share of the breath that has gone at x of the exhale's time. Raises ValueError for a shape that is none."""
    if shape == "even":
        return eased(x, ease=ease)
    if shape == "collapsing":
        return np.where(x <= 0, 0.0, 0.72 * eased(x / 0.25, ease=0.3) + 0.28 * eased(x, ease=ease))
    if shape == "kept back":
        return np.where(x <= 0, 0.0, 0.15 * eased(x / 0.6, ease=ease) + 0.85 * eased((x - 0.55) / 0.45, ease=0.2))
    raise ValueError(f"no exhale shape {shape!r}")
