"""What passes behind the player, or before, for a moment: another child, a hand, a door that opens. The outline's strips are drawn along with it and not found
again meanwhile; what was followed is led over that time, and turns in it are as unsure as it lasts. Source: own.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.rigid import followed_strips
from brevin.core.track import Floats, Points, Sighting, Strips

LOST, LOST_TIMES = 0.4, 3.0  # misfit from which a strip is not found again, and times what is usual of it
TOGETHER = 0.3  # of one side's strips, lost at once: folds and fingers take fewer
WHOLE = 0.6  # of them: it reaches all of that side; an arm or an instrument that goes up passes only some
BESIDE_S = 0.15  # before and after: what is behind an edge in part draws it along, and is still like it
ALONE_S = 2 * BESIDE_S + 0.01  # one picture alone is nobody: a coder begins anew with a blurred one
LOST_GREY, FARTHEST_PCT = 15.0, 15.0  # error of a point that is not found again, grey levels, and how far the shirt carries none, percent of trunk

Span = tuple[float, float]


def passings(sighting: Sighting) -> tuple[Sighting, tuple[Span, ...]]:
    """The sighting with its outlines and points led over what passed, and when that was, seconds; over single pictures as well, which are none that passed."""
    if sighting.front is None or sighting.back is None or sighting.points is None:
        return sighting, ()
    t_s = sighting.t_s
    spans = _spans(_together(sighting.front) | _together(sighting.back), t_s)  # what passes one side reaches the other soon, and the points between
    if not spans:
        return sighting, ()
    bridged = replace(
        sighting, front=_bridged(sighting.front, spans, t_s), back=_bridged(sighting.back, spans, t_s), points=_led_over(sighting.points, spans, t_s)
    )
    return bridged, tuple(span for span in spans if span[1] - span[0] > ALONE_S)


def _together(strips: Strips) -> NDArray[np.bool_]:
    """In which pictures so many of one side's strips are lost at once: [n]."""
    use = followed_strips(strips)
    return np.asarray(_lost(strips)[:, use].mean(axis=1) > TOGETHER) if use.any() else np.zeros(len(strips.misfit), bool)


def _spans(passed: NDArray[np.bool_], t_s: Floats) -> list[Span]:
    """From when to when something passed, with a little before and after."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], passed, [False]]).astype(int)))
    spans: list[Span] = []
    for first, end in zip(edges[::2], edges[1::2], strict=True):
        start_s, end_s = float(t_s[first]) - BESIDE_S, float(t_s[end - 1]) + BESIDE_S
        if spans and start_s <= spans[-1][1]:
            start_s = spans.pop()[0]
        spans.append((start_s, end_s))
    return spans


def _inside(spans: Sequence[Span], t_s: Floats) -> NDArray[np.bool_]:
    inside = np.zeros(len(t_s), bool)
    for start_s, end_s in spans:
        inside |= (t_s >= start_s) & (t_s <= end_s)
    return inside


def _lost(strips: Strips) -> NDArray[np.bool_]:
    """In which pictures each strip is not found again: [n, k]."""
    return np.asarray(strips.misfit > np.maximum(LOST, LOST_TIMES * strips.usual_misfit))


def _bridged(strips: Strips, spans: list[Span], t_s: Floats) -> Strips:
    """Strips that something passes, led over that time; those it does not reach go on."""
    lost, gone, use = _lost(strips), np.zeros(strips.misfit.shape, bool), followed_strips(strips)
    for span in spans:
        inside = _inside([span], t_s)
        whole = use.any() and lost[inside][:, use].mean(axis=1).max(initial=0.0) > WHOLE
        gone[inside] |= lost[inside].any(axis=0) | whole
    return replace(strips, travel_pct=_led(strips.travel_pct[..., None], gone, t_s)[..., 0])


def _led(moves: Floats, gone: NDArray[np.bool_], t_s: Floats) -> Floats:
    """The moves [n, k, d] in straight lines from before to after where something was gone: [n, k]; what was gone throughout stays."""
    led = moves.copy()
    for k in np.flatnonzero(gone.any(axis=0) & ~gone.all(axis=0)):
        here = gone[:, k]
        for axis in range(moves.shape[2]):
            led[here, k, axis] = np.interp(t_s[here], t_s[~here], moves[~here, k, axis])
    return led


def unlike(points: Points) -> NDArray[np.bool_]:
    """In which pictures each point looks by far less like itself than usual, as where something stands before it: [n, p]."""
    return np.asarray(points.error > np.maximum(LOST_GREY, LOST_TIMES * points.usual_error))


def _led_over(points: Points, spans: Sequence[Span], t_s: Floats) -> Points:
    """Points that are not found again meanwhile, or for which something else is taken; those the passing does not reach go on."""
    gone = (unlike(points) | (np.abs(points.move_pct).max(axis=2) > FARTHEST_PCT)) & _inside(spans, t_s)[:, None]
    return replace(points, move_pct=_led(points.move_pct, gone, t_s))
