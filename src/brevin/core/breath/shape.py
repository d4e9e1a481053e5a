"""The course of one movement between two turns: how it fills or empties, how evenly, where it stops."""

from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinds import ExhaleShape
from brevin.core.track import Floats

LEAST_SAMPLES, LEAST_WAY_PCT = 4, 0.5  # samples, and percent of trunk: less has no course
FULL = 0.9  # of the excursion
STOPS_PULSING, STOP_S = 3, 0.12
SLOW_SHARE = 0.2  # of the mean speed: slower is a stop
INNER = (0.08, 0.92)  # shares of the way between which a stop counts
RELEASES = {"exhale_from_even": 0.0, "exhale_from_fall": 3.0}
"""The shapes that schools teach. Evenness is kept against each of them, so that another school can be tried without the trace."""


@dataclass(frozen=True)
class Course:
    """time_s: since the movement's start; done: share of the way, 0 to 1: [n] each."""

    time_s: Floats
    done: Floats


def course(t_s: Floats, values: Floats, start_s: float, end_s: float) -> Course | None:
    """The course of a trace between two moments; None where it is too short or too small to tell."""
    window = (t_s >= start_s) & (t_s <= end_s)
    if window.sum() < LEAST_SAMPLES:
        return None
    moved = values[window]
    way = moved[-1] - moved[0]
    if abs(way) < LEAST_WAY_PCT:
        return None
    return Course(t_s[window] - start_s, (moved - moved[0]) / way)


def full_s(fill: Course) -> float:
    """Seconds until nine tenths are in, the fill taken as never falling."""
    return float(np.interp(FULL, np.maximum.accumulate(fill.done), fill.time_s))


def unevenness(moved: Course, *, release: float = 0.0) -> float:
    """Largest distance between the course and the taught one, share of the way. release: 0 = even, more = most of it at first, running out as exp(-release)."""
    even = moved.time_s / moved.time_s[-1]
    taught = even if release < 1e-6 else np.expm1(-release * even) / np.expm1(-release)
    return float(np.abs(moved.done - taught).max())


def exhale_shape(emptied: Course) -> ExhaleShape:
    """collapsing: over half gone in the first quarter of its time; pulsing: three or more stops; kept back: under a quarter gone at half time; else even."""
    length_s = emptied.time_s[-1]
    if np.interp(0.25 * length_s, emptied.time_s, emptied.done) > 0.5:
        return "collapsing"
    if stops(emptied) >= STOPS_PULSING:
        return "pulsing"
    return "kept back" if np.interp(0.5 * length_s, emptied.time_s, emptied.done) < 0.25 else "even"


def stops(moved: Course) -> int:
    """How often a movement nearly stops inside: under a fifth of its mean speed for at least ``STOP_S``."""
    inner = (moved.done > INNER[0]) & (moved.done < INNER[1])
    slow = (np.gradient(moved.done, moved.time_s) < SLOW_SHARE / moved.time_s[-1]) & inner
    edges = np.flatnonzero(np.diff(np.concatenate([[0], slow.astype(int), [0]])))
    return int(sum((end - start) / filters.GRID_HZ >= STOP_S for start, end in zip(edges[::2], edges[1::2], strict=True)))
