"""A foot that taps the beat: its toes go up before each beat and strike the floor on it, or so much later."""

import numpy as np

from brevin.standin.raising import Stage
from brevin.standin.scripts import Script

STAGES = 7  # between flat and up, both among them
UP_BEATS, HELD_BEATS, DOWN_S = 0.5, 0.2, 0.1  # before the strike: when the toes leave the floor, until when they are up, how long they fall


def strikes_s(script: Script, t_s: np.ndarray, first_s: float, beat_s: float) -> np.ndarray:
    """When the foot strikes: [k]. first_s: of any beat."""
    beats = np.arange(np.ceil((t_s[0] + beat_s - first_s) / beat_s), np.floor((t_s[-1] - beat_s - first_s) / beat_s) + 1.0)
    wander_s = np.random.default_rng(script.seed + 300).normal(0.0, script.taps_spread_s, len(beats))
    return first_s + beat_s * beats + script.taps_late_s + wander_s


def stages(t_s: np.ndarray, struck_s: np.ndarray, beat_s: float) -> tuple[list[Stage], np.ndarray]:
    """Every stage that is drawn, and which of them each picture shows: [n]."""
    up = np.zeros(len(t_s))
    for at_s in struck_s:
        ahead_s = at_s - t_s
        lifts = np.clip((UP_BEATS * beat_s - ahead_s) / (HELD_BEATS * beat_s), 0.0, 1.0)
        falls = np.clip(ahead_s / DOWN_S, 0.0, 1.0)
        up = np.maximum(up, np.where(ahead_s > 0.0, np.minimum(lifts, 1.0 - (1.0 - falls) ** 2), 0.0))
    return [Stage(1.0, toes=float(share)) for share in np.linspace(0.0, 1.0, STAGES)], np.round(up * (STAGES - 1)).astype(int)
