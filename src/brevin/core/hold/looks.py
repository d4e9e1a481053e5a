"""Where the instrument points in each picture: by its own straight edges, by mouth and hand, or by the line that somebody tapped, followed through the clip."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brevin.core.hold.instruments import Held
from brevin.core.hold.shared_line import FROM_MOUTH_TRUNKS, Edges, downward, shared_line
from brevin.core.kinds import View
from brevin.core.kinematics.arms import distance
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats, LinesSeen

ALONG_DEG = 3.0  # once the instrument's line is found, edges this near to it tell it more closely, those beside a sleeve as well
NEAR_TAPPED_DEG = 4.0  # or to a tapped line that has gone along with mouth and hands
LEAST_EDGES_TRUNKS = 0.4  # of edges together: less may be folds and fingers
ARM_TRUNKS = 0.09  # half an arm's width: edges nearer to an arm's bones are stripes, folds and outline of a sleeve
LEAST_PICTURES = 2  # that agree
MOST_SPREAD_DEG = 6.0  # between the pictures: more, and not always the same edges were found
LEAST_SINKING = 4  # pictures: of fewer a line through them tells nothing
SAME_EDGES_DEG, MOST_OF_THEM = 3.0, 0.7  # so near to each other so many of the pictures are, or two things were seen by turns; own
EDGE_DEG, LINE_DEG, KEY_POINT_DEG = 1.0, 2.0, 6.0  # standard errors of an angle from edges along the tube, from the line through all, from mouth and hand alone
TAPPED_DEG = 2.0  # of a tapped line: two taps a few pixels off on a hundred and fifty; own
SAME_MOMENT_S = 1.6  # between a tap and the look at the player that goes with it: key points are asked for at least so often


@dataclass(frozen=True)
class Tapped:
    """A line that somebody set: when, and from the mouth's end to the far end, px of the working picture: [2] each."""

    t_s: float
    near_px: Floats
    far_px: Floats

    @property
    def way(self) -> Floats:
        """Toward the far end, one long: [2]."""
        way: Floats = self.far_px - self.near_px
        return way / max(float(np.hypot(*way)), 1e-9)


@dataclass(frozen=True)
class Playing:
    """The player's body at the moments it was seen, the edges seen then, and the line that was set by hand, None where none was; lean_off_deg: what the key
    points' inclination is short of."""

    view: View
    bodies: Sequence[tuple[float, Body]]
    lines: Sequence[LinesSeen]
    forward_x: float
    tapped: Tapped | None = None
    lean_off_deg: float = 0.0


@dataclass(frozen=True)
class Look:
    """One picture's axis: to level and to the trunk, degrees; how far below the mouth it leads past it, trunks; the standard error of its angle, degrees;
    way: toward the far end, one long, and near_px: where it leads past the mouth: [2] each."""

    t_s: float
    level_deg: float
    trunk_deg: float
    below_trunks: float
    unsure_deg: float
    way: Floats
    near_px: Floats


def looks(playing: Playing, held: Held) -> list[Look]:
    """Every picture's axis; none where it was not found."""
    if playing.tapped is not None:
        return _by_tap(playing, playing.tapped, held)
    if not held.straight:
        found = [_look(t_s, body, _to_hands(body, held), 0.0, KEY_POINT_DEG) for t_s, body in playing.bodies]
        return found if len(found) >= LEAST_PICTURES else []
    return _agreeing(_by_edges(playing, held))


def _agreeing(found: list[Look]) -> list[Look]:
    """All of them where they are enough and most show one axis, that may sink evenly: not now the instrument's edges, now a shelf's."""
    t_s, level_deg = np.array([one.t_s for one in found]), np.array([one.level_deg for one in found])
    if len(found) < LEAST_PICTURES or float(level_deg.std()) > MOST_SPREAD_DEG:
        return []
    if len(found) < LEAST_SINKING:
        return found
    return found if float(np.mean(same_edges(t_s, level_deg))) >= MOST_OF_THEM else []


def same_edges(t_s: Floats, level_deg: Floats) -> NDArray[np.bool_]:
    """Which pictures show the edges that most of them show, of an axis that may sink evenly; another shows one side of its bell, or a shelf: [n]."""
    return np.abs(level_deg - np.polyval(np.polyfit(t_s, level_deg, 1), t_s)) < SAME_EDGES_DEG


def _by_tap(playing: Playing, tapped: Tapped, held: Held) -> list[Look]:
    """The edges nearest to the tapped line in every picture, the line going along with the way from mouth to hands; the line alone where they are none."""
    then = min(playing.bodies, key=lambda one: abs(one[0] - tapped.t_s), default=None)
    if then is None or abs(then[0] - tapped.t_s) > SAME_MOMENT_S:
        return []
    at, found = dict(playing.bodies), []
    for seen in playing.lines:
        body = at.get(seen.t_s)
        if body is not None:
            toward = _turned(tapped.way, _to_hands(then[1], held), _to_hands(body, held))
            pointing = _edges_toward(body, seen.segments_px, toward, NEAR_TAPPED_DEG, held)
            found += [] if pointing is None else [_look(seen.t_s, body, *pointing, EDGE_DEG)]
    agreed = _agreeing(found) if held.straight else []
    below = float((tapped.near_px - lm.mouth(then[1])) @ downward(tapped.way)) / max(lm.trunk_px(then[1]), 1e-9)
    return agreed or [_look(*then, tapped.way, below, TAPPED_DEG)]


def _turned(way: Floats, before: Floats, after: Floats) -> Floats:
    """A direction turned by as much as another one was, from before to after: [2], one long each."""
    cosine, sine = float(before @ after), float(before[0] * after[1] - before[1] * after[0])
    return np.array([cosine * way[0] - sine * way[1], sine * way[0] + cosine * way[1]])


def _by_edges(playing: Playing, held: Held) -> list[Look]:
    at = dict(playing.bodies)
    pictures = [(seen.t_s, at[seen.t_s], seen.segments_px) for seen in playing.lines if seen.t_s in at]
    found = [_pointing(t_s, body, segments_px, held, playing) for t_s, body, segments_px in pictures]
    return [one for one in found if one is not None]


def _to_hands(body: Body, held: Held) -> Floats:
    way: Floats = body.points_px[list(held.hands)].mean(axis=0) - lm.mouth(body)
    return way / max(float(np.hypot(*way)), 1e-9)


def _pointing(t_s: float, body: Body, segments_px: Floats, held: Held, playing: Playing) -> Look | None:
    """The axis in one picture: found by the line that what lies on no arm shares, and told by all edges that go along it, or by that line alone."""
    side = np.sign(playing.forward_x) or 1.0
    if playing.view == "front":  # a flute goes to the player's right, to the left of the picture
        side = np.sign(body.points_px[lm.SHOULDER_R, 0] - body.points_px[lm.SHOULDER_L, 0]) or -1.0
    trunk_px, mouth = lm.trunk_px(body), lm.mouth(body)
    free_px, hands_px = segments_px[_off_arms(body, segments_px)], body.points_px[list(held.hands)].mean(axis=0)
    shared = shared_line(Edges((free_px.reshape(-1, 2, 2) - mouth) / max(trunk_px, 1e-9), (hands_px - mouth) / max(trunk_px, 1e-9), float(side)), held)
    if shared is None:
        return None
    along = _edges_toward(body, segments_px, shared.way, ALONG_DEG, held)
    return _look(t_s, body, shared.way, shared.below, LINE_DEG) if along is None else _look(t_s, body, *along, EDGE_DEG)


def _off_arms(body: Body, segments_px: Floats) -> NDArray[np.bool_]:
    """Which edges lie on no arm: [k]."""
    return distance((segments_px[:, 2:] + segments_px[:, :2]) / 2, body.points_px[np.array(lm.SLEEVES)]) > ARM_TRUNKS * lm.trunk_px(body)


def _edges_toward(body: Body, segments_px: Floats, toward: Floats, near_deg: float, held: Held) -> tuple[Floats, float] | None:
    """Direction of the edges that lead from the mouth this way and no further than the instrument reaches, the middle of them by length, and how far below
    the mouth they lead past it, trunks; None where they are too few."""
    trunk_px, mouth = lm.trunk_px(body), lm.mouth(body)
    way = segments_px[:, 2:] - segments_px[:, :2]
    length = np.maximum(np.hypot(way[:, 0], way[:, 1]), 1e-9)
    unit = way / length[:, None] * np.where(way @ toward < 0, -1.0, 1.0)[:, None]
    middle = (segments_px[:, 2:] + segments_px[:, :2]) / 2 - mouth
    along = np.einsum("ij,ij->i", middle, unit)
    beside = np.abs(middle[:, 0] * unit[:, 1] - middle[:, 1] * unit[:, 0])
    turned_deg = np.degrees(np.arctan2(toward[0] * unit[:, 1] - toward[1] * unit[:, 0], unit @ toward))
    own = (
        (np.abs(turned_deg) < near_deg)
        & (beside < FROM_MOUTH_TRUNKS * trunk_px)
        & (along > -held.behind_trunks * trunk_px)
        & (along < held.reach_trunks * trunk_px)
    )
    if length[own].sum() < LEAST_EDGES_TRUNKS * trunk_px:
        return None
    order = np.argsort(turned_deg[own])
    reached = np.cumsum(length[own][order])
    chosen: Floats = unit[own][order][int(np.searchsorted(reached, reached[-1] / 2))]
    below = middle[own] @ downward(chosen)
    return chosen, float(np.average(below, weights=length[own])) / trunk_px


def _look(t_s: float, body: Body, pointing: Floats, below_trunks: float, unsure_deg: float) -> Look:
    down = lm.hips(body) - lm.shoulders(body)
    level_deg = float(np.degrees(np.arctan2(pointing[1], abs(pointing[0]))))
    near_px = lm.mouth(body) + below_trunks * lm.trunk_px(body) * downward(pointing)
    cosine = float(pointing @ down) / max(float(np.hypot(*down)), 1e-9)
    return Look(t_s, level_deg, float(np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0)))), below_trunks, unsure_deg, pointing, near_px)
