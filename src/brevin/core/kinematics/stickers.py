"""Stickers that somebody wears on ear, shoulder and hip: when spots of colour are believed to be them, and what they change of the key points there."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from brevin.core.kinds import SIDE_VIEWS, View
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

Place = Literal["ear", "shoulder", "hip"]
PAIRS: dict[Place, tuple[int, int]] = {"ear": (0, 1), "shoulder": (2, 3), "hip": (4, 5)}  # the left and the right one among ``landmarks.STICKERS``
LEAST_LOOKS, LEAST_SHARE = 4, 0.6  # at which one was found, and of all looks: what lies on a hand passes by
SAME_HUE_DEG = 28.0  # stickers of one sheet, in light and in shade
STEADY_PCT = 3.0  # of trunk, median distance from where it usually is beside the key point: the key point's own unrest
LEAST_APART_TRUNKS = 0.25  # between two of them: no shoulders, and no ear and shoulder, are nearer
PLACED_PCT = 1.6  # of trunk: standard error of one that is put on by hand, 7 mm on a child
APART_PCT = float(np.hypot(PLACED_PCT, PLACED_PCT))  # of how far two of them are apart
LINE_DEG = float(np.degrees(APART_PCT / 100.0))  # of a line between two that are a trunk apart

RING_TRUNKS = 0.035  # of a ring that is drawn about one
RING = np.column_stack([np.cos(np.linspace(0.0, 2.0 * np.pi, 13)), np.sin(np.linspace(0.0, 2.0 * np.pi, 13))])

Seen = Sequence[tuple[float, Body]]


@dataclass(frozen=True)
class Worn:
    """places: where stickers are believed; at: by sticker, of ``landmarks.STICKERS``, those that are; bodies: as key points have them, and with the key points
    at the stickers, at each moment that shows all of them."""

    places: frozenset[Place] = frozenset()
    at: tuple[int, ...] = ()
    bodies: tuple[tuple[float, Body, Body], ...] = ()

    def surer(self, value: Callable[[Body], float], off: float, unsure: float, by: float, *needed: Place) -> tuple[float, float]:
        """What is added to a value of key points, and its standard error: the mean of what was to be added without stickers and of what makes it theirs, the
        median over the looks, each by how sure it is. off, unsure: without them; by: standard error of theirs; needed: without these nothing changes."""
        if not self.places.issuperset(needed):
            return off, unsure
        marked = float(np.median([value(moved) - value(body) for _, body, moved in self.bodies]))
        return off + unsure**2 / (unsure**2 + by**2) * (marked - off), unsure * by / float(np.hypot(unsure, by))


NONE = Worn()


def worn(seen: Seen, view: View) -> Worn:
    """Those of one colour that stay where they are on a body: from the side on two of ear, shoulder and hip of the side that the camera sees, from the front
    on both shoulders; none where the cloth has such spots, or nobody looked."""
    wanted = _wanted(view)
    looks = [(t_s, body) for t_s, body in seen if body.stickers is not None]
    if not wanted or len(looks) < LEAST_LOOKS or len(looks) < LEAST_SHARE * len(seen):
        return NONE
    found = [at for at in wanted if _steady(looks, at, len(seen))]
    same = max((_alike(looks, found, at) for at in found), key=len, default=())
    if len(same) < 2:
        return NONE
    whole = [(t_s, body) for t_s, body in looks if np.isfinite(_at(body)[list(same)]).all()]
    if len(whole) < LEAST_LOOKS or _one_twice(whole, same):
        return NONE
    places = frozenset(place for place, pair in PAIRS.items() if set(pair) & set(same))
    return Worn(places, tuple(same), tuple((t_s, body, _moved(body, same, view)) for t_s, body in whole))


def rings_px(worn: Worn) -> list[tuple[float, Floats]]:
    """What is drawn about each sticker at each moment: [13, 2] places of a ring."""
    return [(t_s, _at(body)[at] + RING_TRUNKS * lm.trunk_px(body) * RING) for t_s, body, _ in worn.bodies for at in worn.at]


def _wanted(view: View) -> tuple[int, ...]:
    if view == "front":
        return PAIRS["shoulder"]
    return tuple(pair[0 if view == "side-left" else 1] for pair in PAIRS.values()) if view in SIDE_VIEWS else ()


def _at(body: Body) -> Floats:
    assert body.stickers is not None
    return body.stickers.at_px


def _steady(looks: Seen, at: int, of_all: int) -> bool:
    """Whether one is found at most looks, and always at the same place of the body."""
    key = lm.STICKERS[at]
    off_pct = np.array([100.0 * (_at(body)[at] - body.points_px[key]) / max(lm.trunk_px(body), 1e-9) for _, body in looks])
    off_pct = off_pct[np.isfinite(off_pct).all(axis=1)]
    if len(off_pct) < max(LEAST_LOOKS, LEAST_SHARE * of_all):
        return False
    return float(np.median(np.hypot(*(off_pct - np.median(off_pct, axis=0)).T))) <= STEADY_PCT


def _one_twice(whole: Seen, same: Sequence[int]) -> bool:
    """Whether one sticker is taken for two, as where a key point of the other shoulder lies near it."""
    apart = [np.hypot(*np.diff(_at(body)[list(same)], axis=0).T).min() / max(lm.trunk_px(body), 1e-9) for _, body in whole]
    return float(np.median(apart)) < LEAST_APART_TRUNKS


def _alike(looks: Seen, found: Sequence[int], at: int) -> tuple[int, ...]:
    """Those of the colour that one of them has."""
    hues = {one: _hue_deg(looks, one) for one in found}
    return tuple(one for one in found if abs((hues[one] - hues[at] + 180.0) % 360.0 - 180.0) <= SAME_HUE_DEG)


def _hue_deg(looks: Seen, at: int) -> float:
    """Mean hue: of directions, since it goes round."""
    own = np.radians([body.stickers.hue_deg[at] for _, body in looks if body.stickers is not None and np.isfinite(body.stickers.hue_deg[at])])
    return float(np.degrees(np.arctan2(np.sin(own).mean(), np.cos(own).mean())))


def _moved(body: Body, same: Sequence[int], view: View) -> Body:
    """The body with its key points at the stickers. From the side the far shoulder, hip and ear are taken to lie behind those that are seen."""
    points = body.points_px.copy()
    for pair in PAIRS.values():
        for at in set(pair) & set(same):
            keys = [lm.STICKERS[at]] if view == "front" else [lm.STICKERS[one] for one in pair]
            points[keys] = _at(body)[at]
    return replace(body, points_px=points)
