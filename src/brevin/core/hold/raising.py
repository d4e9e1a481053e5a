"""The instrument brought to the mouth: when it is down, raised and up; what the head does meanwhile, and whether each raise lands in one place.

Told by the hands on the instrument: how far below the mouth they are, in trunk lengths. Source: own.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from brevin.core.hold.instruments import HANDS
from brevin.core.hold.looks import Look
from brevin.core.hold.wrists import bent_px
from brevin.core.kinds import SIDE_VIEWS, Instrument, View
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, Withheld
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body, Floats

LEAST_WAY_PCT = 30.0  # of trunk: hands that go less far neither raise nor put down
HIGH, LOW = 0.75, 0.25  # shares of the way: above it is up, below it is down, between them on the way
LONGEST_S = 4.0  # a way up that takes longer is no raise but something else
SETTLED_S = 0.3  # after a raise until the head and the hands are looked at; and before it
LOOKED_S = 2.5  # and so long
KEY_POINT_PCT = 1.2  # of trunk: scatter of a key point between pictures; own
AXIS_PCT = 0.7  # of trunk: scatter of where the axis leads past the mouth, a picture; own
BIAS_PCT = 0.5  # of trunk: what the network's head is drawn along by a hand that comes near; own
LEAST_LOOKS = 2  # key points on either side of a raise

LANDS = (lm.INDEX_L, lm.INDEX_R, lm.WRIST_L, lm.WRIST_R, lm.ELBOW_L, lm.ELBOW_R)  # by which it is told where a raise lands

KEYS = ("head_travel_pct", "raise_spread_pct")


@dataclass(frozen=True)
class Raise:
    """A way up, seconds; until_s: when the instrument is put down again, or the clip ends."""

    from_s: float
    to_s: float
    until_s: float


@dataclass(frozen=True)
class Hands:
    """The hands over a clip. t_s: [n]; height_pct: how far they are below the mouth (under 0) or above it, percent of trunk: [n]; raises: in order;
    down_pct: under it the instrument is down."""

    t_s: Floats
    height_pct: Floats
    raises: tuple[Raise, ...] = ()
    down_pct: float = 0.0

    @property
    def moves(self) -> bool:
        """Whether the instrument is down at times and up at others."""
        return bool(self.raises)


Seen = Sequence[tuple[float, Body]]
"""The player's body at each moment it was found."""


def heights(seen: Seen, instrument: Instrument) -> Hands:
    """How high the hands on the instrument are, and every time they were raised; nothing without an instrument."""
    if instrument == "none" or len(seen) < 2 * LEAST_LOOKS:
        return Hands(np.zeros(0), np.zeros(0))
    t_s = np.array([t for t, _ in seen])
    height = np.array([_below_pct(body, instrument) for _, body in seen])
    low, high = np.percentile(height, (10, 90)) if np.ptp(height) > 0 else (0.0, 0.0)
    if high - low < LEAST_WAY_PCT:
        return Hands(t_s, height)
    return Hands(t_s, height, _raises(t_s, (height - low) / (high - low)), float(low + LOW * (high - low)))


def _below_pct(body: Body, instrument: Instrument) -> float:
    at = body.points_px[list(HANDS[instrument])].mean(axis=0)
    return float(100.0 * (lm.mouth(body)[1] - at[1]) / max(lm.trunk_px(body), 1e-9))


def _raises(t_s: Floats, share: Floats) -> tuple[Raise, ...]:
    """From the last look at which it is down to the first at which it is up; ways between them that are too long are left out."""
    found: list[Raise] = []
    down: int | None = None
    for i, at in enumerate(share):
        if at < LOW:
            down = i
        elif at > HIGH and down is not None:
            if t_s[i] - t_s[down] <= LONGEST_S:
                later = np.flatnonzero(share[i:] < HIGH)
                until_s = float(t_s[i + later[0] - 1]) if len(later) else float(t_s[-1])
                found.append(Raise(_crossing(t_s, share, down, LOW), _crossing(t_s, share, i - 1, HIGH), until_s))
            down = None
    return tuple(found)


def _crossing(t_s: Floats, share: Floats, i: int, level: float) -> float:
    """When the line between two looks passes a level."""
    way = share[i + 1] - share[i]
    return float(t_s[i] + np.clip((level - share[i]) / way, 0.0, 1.0) * (t_s[i + 1] - t_s[i])) if way > 0 else float(t_s[i])


StillKind = Literal["rest", "raising", "playing"]


@dataclass(frozen=True)
class Still:
    """A moment that is worth a picture of its own, with the player's body then."""

    kind: StillKind
    t_s: float
    body: Body


def stills(hands: Hands, seen: Seen, judged_s: Sequence[tuple[float, float]]) -> list[Still]:
    """Of the first raise: the last look before it, the one on its way, one with the instrument up. Without a raise, one of the time that is judged."""
    if not hands.raises:
        spans = list(judged_s) or [(0.0, np.inf)]
        return _looked("playing", seen, spans[0][0], spans[0][1], 0.5)
    first = hands.raises[0]
    return [
        *_looked("rest", seen, 0.0, first.from_s, 0.9), *_looked("raising", seen, first.from_s, first.to_s, 0.5),
        *_looked("playing", seen, first.to_s, first.until_s, 0.5),
    ]  # fmt: skip


def _looked(kind: StillKind, seen: Seen, from_s: float, to_s: float, share: float) -> list[Still]:
    """The look nearest to a share of the span, of those that found a hand where there are any; none where nobody looked in it."""
    inside = [(t_s, body) for t_s, body in seen if from_s <= t_s <= to_s]
    if not inside:
        return []
    wanted_s = inside[0][0] + share * (inside[-1][0] - inside[0][0])
    t_s, body = min([one for one in inside if bent_px(one[1])] or inside, key=lambda one: abs(one[0] - wanted_s))
    return [Still(kind, t_s, body)]


def raising(hands: Hands, seen: Seen, view: View, ahead: float, axis: Sequence[Look]) -> list[Measure]:
    """How far the head goes to meet the instrument, the most of all raises, and how far apart they land, by the instrument's axis where it was seen after
    each, else by the arms; percent of trunk. axis: of the pictures in which it was found."""
    if view not in SIDE_VIEWS:
        return [Measure(key, NotMeasured("view_unserved")) for key in KEYS]
    head, lands = _travel(hands, seen, ahead), _axis_spread(hands, seen, axis) or _spread(hands, seen)
    return [Measure(key, value, samples=len(hands.raises)) for key, value in zip(KEYS, (head, lands), strict=True)]


def _travel(hands: Hands, seen: Seen, ahead: float) -> Value:
    ways = []
    for one in hands.raises:
        down = [
            body for (t_s, body), height in zip(seen, hands.height_pct, strict=True) if one.from_s - LOOKED_S <= t_s < one.from_s and height < hands.down_pct
        ]
        raised = [body for t_s, body in seen if one.to_s + SETTLED_S / 2 <= t_s <= min(one.until_s, one.to_s + LOOKED_S)]
        before, after = _head_pct(down, ahead), _head_pct(raised, ahead)
        if min(len(before), len(after)) >= LEAST_LOOKS:
            unsure = KEY_POINT_PCT * np.hypot(1 / np.sqrt(len(before)), 1 / np.sqrt(len(after)))
            ways.append(Amount(float(np.median(after) - np.median(before)), float(NORMAL_90 * np.hypot(unsure, BIAS_PCT))))
    return max(ways, key=lambda way: way.value) if ways else NotMeasured(_why(hands))


def _head_pct(bodies: Sequence[Body], ahead: float) -> Floats:
    """How far the head is ahead of the hips, percent of trunk, toward the face: [looks]. By the ear that the camera sees."""
    ear = lm.EAR_R if ahead > 0 else lm.EAR_L
    return np.array([100.0 * ahead * (b.points_px[ear, 0] - lm.hips(b)[0]) / max(lm.trunk_px(b), 1e-9) for b in bodies])


def _axis_spread(hands: Hands, seen: Seen, axis: Sequence[Look]) -> Value | None:
    """Largest distance between the heights at which the axis leads past the mouth after each raise, against the shoulders of the same time: the mouth's own
    key points are drawn along by what is held to it. None where it was not seen after every raise."""
    if len(hands.raises) < 2 or not axis:
        return None
    mouth_px = float(np.median([one.near_px[0] for one in axis]))
    heights, fewest = [], (len(axis), len(seen))
    for one in hands.raises:
        shown = [look for look in axis if one.to_s + SETTLED_S / 2 <= look.t_s <= one.until_s]
        bodies = [body for t_s, body in seen if one.to_s + SETTLED_S / 2 <= t_s <= one.until_s]
        if not shown or len(bodies) < LEAST_LOOKS:
            return None
        past_px = np.mean([look.near_px[1] + (mouth_px - look.near_px[0]) * look.way[1] / look.way[0] for look in shown])
        heights.append(float(past_px - np.median([lm.shoulders(body)[1] for body in bodies])))
        fewest = (min(fewest[0], len(shown)), min(fewest[1], len(bodies)))
    unsure = np.hypot(AXIS_PCT / np.sqrt(fewest[0]), KEY_POINT_PCT / np.sqrt(2 * fewest[1]))
    return Amount(100.0 * float(np.ptp(heights)) / float(np.median([lm.trunk_px(body) for _, body in seen])), float(NORMAL_90 * np.sqrt(2.0) * unsure))


def _spread(hands: Hands, seen: Seen) -> Value:
    """Largest distance between the heights at which the raises come to rest, as most points of both arms have it. One point alone may sit elsewhere on the
    hand from one raise to the next, however often it is looked at: what the points differ by is how unsure it is."""
    rests = [rest for one in hands.raises if (rest := _rest_pct(seen, one)) is not None]
    if len(rests) < 2:
        return NotMeasured("raised_once" if hands.raises else _why(hands))
    heights = np.array([rest for rest, _ in rests])
    against = heights - heights.mean(axis=0)  # each point against itself: [raises, points]
    places, looks = np.median(against, axis=1), min(looks for _, looks in rests)
    differ = float((against - places[:, None]).std(axis=1).max()) / np.sqrt(len(LANDS))
    unsure = np.hypot(KEY_POINT_PCT / np.sqrt(looks), differ)
    return Amount(float(np.ptp(places)), float(NORMAL_90 * np.sqrt(2.0) * unsure))


def _rest_pct(seen: Seen, one: Raise) -> tuple[Floats, int] | None:
    """How far below the mouth each point of the arms rests after a raise, percent of trunk: [points], and of how many looks; None of too few."""
    bodies = [body for (t_s, body) in seen if one.to_s + SETTLED_S / 2 <= t_s <= one.until_s]
    if len(bodies) < LEAST_LOOKS:
        return None
    below = [100.0 * (b.points_px[list(LANDS), 1] - lm.mouth(b)[1]) / max(lm.trunk_px(b), 1e-9) for b in bodies]
    return np.median(below, axis=0), len(bodies)


def _why(hands: Hands) -> Withheld:
    return "not_raised" if not hands.raises else "cut_by_clip"
