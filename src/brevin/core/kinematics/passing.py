"""What passes behind the player, or before, for a moment: another child, a hand, a door that opens. The outline's strips are drawn along with it and not found
again meanwhile; what was followed is led over that time, and turns in it are as unsure as it lasts. Source: own.
"""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.rigid import followed_strips
from brevin.core.track import Floats, Points, Sighting, Strips

LOST, LOST_TIMES = 0.4, 3.0  # misfit from which a strip is not found again, and times what is usual of it
TOGETHER = 0.3  # of one side's strips, lost at once: folds and fingers take fewer
BESIDE_S = 0.15  # before and after: what is behind an edge in part draws it along, and is still like it
LOST_GREY, FARTHEST_PCT = 15.0, 15.0  # error of a point that is not found again, grey levels, and how far the shirt carries none, percent of trunk

Span = tuple[float, float]


def passings(sighting: Sighting) -> tuple[Sighting, tuple[Span, ...]]:
    """The sighting with its outlines and points led over what passed, and when that was, seconds."""
    if sighting.front is None or sighting.back is None or sighting.points is None:
        return sighting, ()
    t_s = sighting.t_s
    fronts, backs = _spans(sighting.front, t_s), _spans(sighting.back, t_s)
    spans = tuple(sorted({*fronts, *backs}))
    if not spans:
        return sighting, ()
    bridged = replace(
        sighting, front=_bridged(sighting.front, fronts, t_s), back=_bridged(sighting.back, backs, t_s), points=_led_over(sighting.points, spans, t_s)
    )
    return bridged, spans


def _spans(strips: Strips, t_s: Floats) -> list[Span]:
    """When so many of one side's strips are lost at once, with a little before and after."""
    use = followed_strips(strips)
    if not use.any():
        return []
    lost = strips.misfit[:, use] > np.maximum(LOST, LOST_TIMES * strips.usual_misfit[use])
    together = lost.mean(axis=1) > TOGETHER
    edges = np.flatnonzero(np.diff(np.concatenate([[False], together, [False]]).astype(int)))
    spans: list[Span] = []
    for first, end in zip(edges[::2], edges[1::2], strict=True):
        start_s, end_s = float(t_s[first]) - BESIDE_S, float(t_s[end - 1]) + BESIDE_S
        if spans and start_s <= spans[-1][1]:
            start_s = spans.pop()[0]
        spans.append((start_s, end_s))
    return spans


def _inside(spans: "list[Span] | tuple[Span, ...]", t_s: Floats) -> NDArray[np.bool_]:
    inside = np.zeros(len(t_s), bool)
    for start_s, end_s in spans:
        inside |= (t_s >= start_s) & (t_s <= end_s)
    return inside


def _bridged(strips: Strips, spans: list[Span], t_s: Floats) -> Strips:
    inside = _inside(spans, t_s)
    if not inside.any() or inside.all():
        return strips
    travel = strips.travel_pct.copy()
    for k in range(travel.shape[1]):
        travel[inside, k] = np.interp(t_s[inside], t_s[~inside], travel[~inside, k])
    return replace(strips, travel_pct=travel)


def unlike(points: Points) -> NDArray[np.bool_]:
    """In which pictures each point looks by far less like itself than usual, as where something stands before it: [n, p]."""
    return np.asarray(points.error > np.maximum(LOST_GREY, LOST_TIMES * points.usual_error))


def _led_over(points: Points, spans: tuple[Span, ...], t_s: Floats) -> Points:
    """Points that are not found again meanwhile, or for which something else is taken; those the passing does not reach go on."""
    gone = (unlike(points) | (np.abs(points.move_pct).max(axis=2) > FARTHEST_PCT)) & _inside(spans, t_s)[:, None]
    moves = points.move_pct.copy()
    for p in np.flatnonzero(gone.any(axis=0) & ~gone.all(axis=0)):
        here = gone[:, p]
        for axis in (0, 1):
            moves[here, p, axis] = np.interp(t_s[here], t_s[~here], moves[~here, p, axis])
    return replace(points, move_pct=moves)
