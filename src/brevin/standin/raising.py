"""How player and instrument are held at each moment, in stages that are drawn one by one: brought from the lap to the mouth and back, or slowly sinking."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from brevin.standin.scripts import HELD_S, RAISE_S, Script

STAGES = 9  # between lap and mouth, both among them
SINKS_IN = 33  # stages of a clip in which trunk or arms tire: coarser ones would be a sway
LAP_M = (0.10, 0.0, -0.42)  # from the mouth to where the mouthpiece is at rest
LAP_DEG = 6.0  # axis at rest, below level


@dataclass(frozen=True)
class Stage:
    """How the instrument is held. up: 0 in the lap, 1 at the mouth; beside_m: how far beside its usual place it landed; sunk: 0 at the beginning, 1 at the
    end of a clip in which trunk or arms tire; toes: of the foot that taps, 0 flat, 1 up."""

    up: float
    beside_m: float = 0.0
    sunk: float = 0.0
    toes: float = 0.0

    def mouthpiece_m(self) -> np.ndarray:
        """From the mouth to the mouthpiece: [3]."""
        return (1.0 - self.up) * np.array(LAP_M) + self.up * np.array([0.0, 0.0, self.beside_m])

    def axis_deg(self, script: Script) -> float:
        """The axis against level, + = far end low."""
        return LAP_DEG + self.up * (script.axis_deg + self.sunk * script.droops_deg - LAP_DEG)

    def lean_deg(self, script: Script) -> float:
        """The trunk against upright, + = forward."""
        return script.lean_deg + self.sunk * script.sinks_deg


def stages(script: Script, t_s: np.ndarray) -> tuple[list[Stage], np.ndarray]:
    """Every stage that is drawn, and which of them each picture shows: [n]. One alone where nothing is raised."""
    if script.sinks_deg or script.droops_deg or script.rounds_m:
        sunk = np.clip(t_s / (t_s[-1] * script.sinks_until), 0.0, 1.0)
        return [Stage(1.0, sunk=share) for share in np.linspace(0.0, 1.0, SINKS_IN)], np.round(sunk * (SINKS_IN - 1)).astype(int)
    if not script.raises:
        return [Stage(1.0)], np.zeros(len(t_s), int)
    each: list[Stage] = []
    shown = np.zeros(len(t_s), int)
    for number, from_s in enumerate(script.raises):
        first = len(each)
        beside = script.lands_m[number] if script.lands_m else 0.0
        each += [Stage(up, beside) for up in np.linspace(0.0, 1.0, STAGES)]
        last = number + 1 == len(script.raises)
        own = (t_s >= (from_s if number else 0.0)) & (t_s < (np.inf if last else script.raises[number + 1]))
        shown[own] = first + np.round(_up(t_s[own] - from_s, back=not last) * (STAGES - 1)).astype(int)
    return each, shown


def _up(since_s: np.ndarray, *, back: bool) -> np.ndarray:
    """Share of the way: up within ``RAISE_S``, held, and back again."""
    rise = _smooth(since_s / RAISE_S)
    return rise - _smooth((since_s - RAISE_S - HELD_S) / RAISE_S) if back else rise


def _smooth(share: np.ndarray) -> np.ndarray:
    x = np.clip(share, 0.0, 1.0)
    return x * x * x * (10.0 + x * (6.0 * x - 15.0))  # least jerk, as arms move


def truth(script: Script, each: list[Stage], shown: np.ndarray, trunk_mm: float) -> dict[str, Any]:
    """What was planted of the raises, for the truth file."""
    lands = np.array(script.lands_m or (0.0,)) * 1000.0
    return {
        "up": [round(each[i].up, 3) for i in shown],
        "raises_s": [[from_s, from_s + RAISE_S] for from_s in script.raises],
        "head_travel_pct": round(100_000.0 * script.head_out_m / trunk_mm, 3),
        "raise_spread_pct": round(100.0 * float(np.ptp(lands)) / trunk_mm, 3),
    }
