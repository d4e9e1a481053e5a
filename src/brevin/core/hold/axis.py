"""The instrument's axis in the picture: the straight edges that come from the mouth and go where the hands are, their angles weighted by length.

A saxophone bends below the hands: its axis is the way from the mouth to the lower hand, and is as sure as those key points are.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core.hold.instruments import HELD, Held
from brevin.core.kinds import Instrument, View
from brevin.core.kinematics import trend
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, LinesSeen

NEAR_HANDS_DEG, NEAR_USUAL_DEG = 18.0, 25.0  # an edge of the instrument points this near to the hands, or to where the instrument usually points
FROM_MOUTH_TRUNKS = 0.16  # an edge of the instrument leads past the mouth this near: a flute lies under the lower lip
BEHIND_TRUNKS = 0.05  # and lies no further behind it
LEAST_EDGES_TRUNKS = 0.5  # of edges together: less may be a sleeve
MOST_SPREAD_DEG = 6.0  # between the pictures: more, and not always the same edges were found
LEAST_PICTURES = 2  # that agree
DROOP_MOST_UNSURE_DEG = 6.0  # half width; more, and the pictures do not show one line
BELOW_PCT = 2.0  # of trunk: how far the network's mouth stands off
EDGE_DEG, KEY_POINT_DEG = 1.0, 6.0  # standard errors of an angle from edges, and from mouth and hand alone; own, shows in ./brevin bench accuracy


@dataclass(frozen=True)
class Playing:
    """The player's body at the moments it was seen, and the edges seen then."""

    view: View
    bodies: Sequence[tuple[float, Body]]
    lines: Sequence[LinesSeen]
    forward_x: float


@dataclass(frozen=True)
class _Look:
    """One picture's axis: to level and to the trunk, degrees; how far below the mouth it leads past it, trunks."""

    t_s: float
    level_deg: float
    trunk_deg: float
    below_trunks: float


KEYS = ("instrument_axis_deg", "axis_to_trunk_deg", "axis_below_mouth_pct", "axis_droop_deg")


def axis(playing: Playing, instrument: Instrument) -> list[Measure]:
    """Angle of the axis to level and to the trunk, degrees, how far below the mouth it leads past it, percent of trunk, and how much further the far end
    points down at the end than at the beginning, degrees; nothing for an instrument that has no axis."""
    if instrument not in HELD:
        return []
    held = HELD[instrument]
    if playing.view not in held.views:
        return [Measure(key, NotMeasured("view_unserved")) for key in KEYS]
    found = _by_edges(playing, held) if held.straight else _by_hands(playing, held)
    level_deg = np.array([one.level_deg for one in found])
    if len(found) < LEAST_PICTURES or (held.straight and float(level_deg.std()) > MOST_SPREAD_DEG):
        return [Measure(key, NotMeasured("not_found"), samples=len(found)) for key in KEYS]
    unsure_deg = EDGE_DEG if held.straight else KEY_POINT_DEG
    to_trunk_deg = float(np.hypot(unsure_deg, KEY_POINT_DEG / 3.0))  # the line from shoulders to hips is a third as unsure: it is three times as long
    values = (
        _median(level_deg, unsure_deg), _median(np.array([one.trunk_deg for one in found]), to_trunk_deg),
        _median(np.array([100.0 * one.below_trunks for one in found]), BELOW_PCT),
        _droop(np.array([one.t_s for one in found]), level_deg, unsure_deg),
    )  # fmt: skip
    return [Measure(key, value, samples=len(found)) for key, value in zip(KEYS, values, strict=True)]


def _median(values: Floats, unsure: float) -> Amount:
    scatter = float(values.std()) / np.sqrt(len(values))
    return Amount(float(np.median(values)), NORMAL_90 * float(np.hypot(scatter, unsure)))


def _droop(t_s: Floats, level_deg: Floats, unsure_deg: float) -> Value:
    """What the least-squares line through the pictures' angles falls by from the first to the last of them."""
    if not trend.enough(t_s):
        return NotMeasured("held_briefly")
    found = trend.change(t_s, level_deg, unsure_deg)
    return found if found.half_width < DROOP_MOST_UNSURE_DEG else NotMeasured("not_found")


def _by_edges(playing: Playing, held: Held) -> list[_Look]:
    at = dict(playing.bodies)
    found = []
    for seen in playing.lines:
        body = at.get(seen.t_s)
        pointing = None if body is None else _pointing(body, seen.segments_px, held, playing)
        if body is not None and pointing is not None:
            found.append(_look(seen.t_s, *pointing, body))
    return found


def _by_hands(playing: Playing, held: Held) -> list[_Look]:
    return [_look(t_s, _to_hands(body, held), 0.0, body) for t_s, body in playing.bodies]


def _to_hands(body: Body, held: Held) -> Floats:
    way: Floats = body.points_px[list(held.hands)].mean(axis=0) - lm.mouth(body)
    return way / max(float(np.hypot(*way)), 1e-9)


def _pointing(body: Body, segments_px: Floats, held: Held, playing: Playing) -> tuple[Floats, float] | None:
    """Direction and place of the edges that can be the instrument's, first those toward the hands, else those toward where it usually points."""
    usual = np.radians(held.points_deg)
    side = np.sign(playing.forward_x) or 1.0
    if playing.view == "front":  # a flute goes to the player's right, to the left of the picture
        side = np.sign(body.points_px[lm.SHOULDER_R, 0] - body.points_px[lm.SHOULDER_L, 0]) or -1.0
    for toward, near_deg in ((_to_hands(body, held), NEAR_HANDS_DEG), (np.array([side * np.cos(usual), np.sin(usual)]), NEAR_USUAL_DEG)):
        found = _edges_toward(body, segments_px, toward, near_deg)
        if found is not None:
            return found
    return None


def _edges_toward(body: Body, segments_px: Floats, toward: Floats, near_deg: float) -> tuple[Floats, float] | None:
    """Direction of the edges that lead from the mouth this way, the middle of them by length, and how far below the mouth they lead past it, trunks; None
    where they are too few."""
    trunk_px, mouth = lm.trunk_px(body), lm.mouth(body)
    way = segments_px[:, 2:] - segments_px[:, :2]
    length = np.maximum(np.hypot(way[:, 0], way[:, 1]), 1e-9)
    unit = way / length[:, None] * np.where(way @ toward < 0, -1.0, 1.0)[:, None]
    middle = (segments_px[:, 2:] + segments_px[:, :2]) / 2 - mouth
    along = np.einsum("ij,ij->i", middle, unit)
    beside = np.abs(middle[:, 0] * unit[:, 1] - middle[:, 1] * unit[:, 0])
    turned_deg = np.degrees(np.arctan2(toward[0] * unit[:, 1] - toward[1] * unit[:, 0], unit @ toward))
    own = (np.abs(turned_deg) < near_deg) & (beside < FROM_MOUTH_TRUNKS * trunk_px) & (along > -BEHIND_TRUNKS * trunk_px)
    if length[own].sum() < LEAST_EDGES_TRUNKS * trunk_px:
        return None
    order = np.argsort(turned_deg[own])
    reached = np.cumsum(length[own][order])
    chosen: Floats = unit[own][order][int(np.searchsorted(reached, reached[-1] / 2))]
    below = middle[own] @ _downward(chosen)
    return chosen, float(np.average(below, weights=length[own])) / trunk_px


def _downward(pointing: Floats) -> Floats:
    """Across an axis, toward the floor: [2]."""
    return np.array([-pointing[1], pointing[0]]) * (np.sign(pointing[0]) or 1.0)


def _look(t_s: float, pointing: Floats, below_trunks: float, body: Body) -> _Look:
    down = lm.hips(body) - lm.shoulders(body)
    level_deg = float(np.degrees(np.arctan2(pointing[1], abs(pointing[0]))))
    cosine = float(pointing @ down) / max(float(np.hypot(*down)), 1e-9)
    return _Look(t_s, level_deg, float(np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0)))), below_trunks)
