"""Posture from the pose key points and the outline: how the trunk leans and bows, how level the shoulders are, over the clip and over each kind of segment."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinds import SIDE_VIEWS, Position, SegmentKind, View
from brevin.core.kinematics import feet, heads, trend
from brevin.core.kinematics.angles import head_forward_pct, inclination_deg, line_deg
from brevin.core.kinematics.shapes import LEAST_SHAPES, Back, back_of, enough, shoulders_seen
from brevin.core.kinematics.stickers import APART_PCT, LINE_DEG, NONE, Worn
from brevin.core.kinematics.sway import sway
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, Withheld
from brevin.core.report import Segment
from brevin.core.track import Body, Floats, Player, PoseSample

BACK_DEG, BACK_AHEAD_DEG = 1.4, 0.5  # how far the chord of the back's outline stands off the trunk's axis, and always does, forward; own, several makers
KEY_POINT_DEG = 2.4  # how far the network's shoulders and hips stand off the anatomical ones, as an angle of the trunk; own, several makers
BACK_SHARE = KEY_POINT_DEG**2 / (KEY_POINT_DEG**2 + BACK_DEG**2)  # what the outline counts beside the key points
EAR_PCT = 4.5  # of trunk: how far the network's ear and shoulders stand off each other's behind an instrument; own, over clips of several makers
BARE_EAR_PCT, BARE_EAR_AHEAD_PCT = 3.0, 2.8  # the same with nothing before the face, and how far ahead it always sees the ear there; own
SHOULDER_LINE_DEG = 2.0  # how far the line over both shoulders' tops, or armpits, stands off that of the joints; own, over clips of several makers
BOW_PCT, BOW_DRIFT_PCT = 0.6, 0.9  # standard error of one bow beside the player's others, and of a clip's change of it; own, over clips of several makers
SAG_DEG = 0.4  # standard error of one inclination beside the player's other ones; own
SAG_SHARE = 0.15  # of a sag: rounding carries the shoulders further than the trunk leans; own
LEAST_SAMPLES = 2  # key points of a segment from which it has a value of its own
MOST_TALL_PCT = 12.0  # of trunk: no back that is as tall as it can be bows out further; an arm that hangs behind it does
STANDS_FOR_S = 2.5  # most time that one look at the outline stands for: between raises nobody looked
SANK_BOW_PCT, SANK_LEAN_DEG = 4.0, 8.0  # between the first and the last looks: strips followed from the first on do not go along that far; own
TALL_UNTIL_S = 2.0  # "sit tall" is part of the count-in: its first looks are what a back is held against

Seen = Sequence[tuple[float, Body]]
"""The player's body at each moment it was found."""

Backs = Sequence[tuple[float, Back | None]]
"""The back at each moment whose outline was looked at; None where arms hide it."""


@dataclass(frozen=True)
class Stance:
    """Over what of a clip posture is taken. judged_s: the spans over which posture is judged, none = the whole clip: slumping at rest is allowed; room: times
    and how far the room had gone toward the face by then, percent of trunk: the camera's own moves; bare: nothing is held before the face;
    backs: the back at each moment whose outline was looked at from the side, None where arms hide it; picture_px: width and height of the picture;
    worn: the stickers that the player wears."""

    view: View
    position: Position
    segments: Sequence[Segment] = ()
    judged_s: Sequence[tuple[float, float]] = ()
    room: tuple[Floats, Floats] = (np.zeros(1), np.zeros(1))
    bare: bool = False
    backs: Backs = ()
    picture_px: tuple[float, float] = (np.inf, np.inf)
    worn: Worn = NONE


def bodies_of(samples: Sequence[PoseSample], player: Player) -> Seen:
    """The player's body at each moment it was found."""
    return [(s.t_s, s.bodies[i]) for s, i in zip(samples, player.chosen, strict=True) if i >= 0]


def backs_of(seen: Seen, player: Player) -> Backs:
    """The back at each moment whose outline was looked at."""
    return [(t_s, back_of(body, player.forward[0])) for t_s, body in seen if body.shape is not None]


def sank(seen: Seen, backs: Backs, player: Player) -> bool:
    """Whether the trunk is another one at the end than in the first looks at its outline: it sank, straightened or rounded. backs: those of ``backs_of``."""
    looked = [body for _, body in seen if body.shape is not None]
    known = np.array(
        [(back.bow_pct, inclination_deg(body, player) + back.lean_deg) for body, (_, back) in zip(looked, backs, strict=True) if back is not None]
    ).reshape(-1, 2)
    if len(known) < 2 * LEAST_SHAPES:
        return False
    changed = np.abs(np.median(known[-LEAST_SHAPES:], axis=0) - np.median(known[:LEAST_SHAPES], axis=0))
    return bool(np.any(changed > (SANK_BOW_PCT, SANK_LEAN_DEG)))


def while_judged(seen: Seen, stance: Stance) -> Seen:
    """The moments over which posture is judged; all of them where those are too few."""
    inside = _inside(np.array([t_s for t_s, _ in seen]), stance.judged_s) if stance.judged_s and seen else np.zeros(0, bool)
    return [one for one, kept in zip(seen, inside, strict=True) if kept] if inside.sum() >= LEAST_SAMPLES else seen


def posture(seen: Seen, player: Player, stance: Stance) -> list[Measure]:
    """What the view can serve: trunk inclination, its sag, back rounding, head forward, sway from the side; head, shoulder line from the front; feet."""
    side = _served(stance.view in SIDE_VIEWS, stance.position)
    front = _served(stance.view == "front", stance.position)
    return [
        *_inclination(seen, player, stance, side),
        *_head_forward(seen, player, stance, side),
        *([Measure("back_rounding_pct", NotMeasured(side))] if side else _rounding(stance)),
        *_ear_height(seen, player, stance, front if side else None),
        *([Measure("shoulder_tilt_deg", NotMeasured(front))] if front else _shoulder_line(seen, stance)),
        *([Measure(heads.TILT, NotMeasured(front))] if front else _head_tilt(seen, stance)),
        *([Measure(key, NotMeasured(side)) for key in ("sag_deg", "sag_deg_per_min")] if side else _sag(while_judged(seen, stance), stance, player)),
        Measure("sway_pct", NotMeasured(side) if side else _sway(while_judged(seen, stance), player, stance), samples=len(seen)),
        _feet(while_judged(seen, stance), player, stance),
    ]


def _feet(seen: Seen, player: Player, stance: Stance) -> Measure:
    served = _served(stance.view in (*SIDE_VIEWS, "front"), stance.position)
    return Measure(feet.KEY, NotMeasured(served)) if served else feet.feet(list(seen), player.forward[0], stance.view, np.array(stance.picture_px))


def _served(view: bool, position: Position) -> Withheld | None:
    if position == "lying":
        return "lying"
    return None if view else "view_unserved"


def lean_off_deg(stance: Stance, player: Player) -> tuple[float, float]:
    """What is added to the key points' inclination, + = further forward, and the standard error of what that makes: the mean of theirs, of the back's outline
    and of stickers on shoulder and hip, each by how sure it is."""
    leans = _told([(t_s, None if back is None else back.lean_deg) for t_s, back in stance.backs])
    off_deg, unsure_deg = (BACK_SHARE * (_usual(_judged(leans, stance)) - BACK_AHEAD_DEG), BACK_DEG) if len(leans) else (0.0, KEY_POINT_DEG)
    return stance.worn.surer(lambda body: inclination_deg(body, player), off_deg, unsure_deg, LINE_DEG, "shoulder", "hip")


def _inclination(seen: Seen, player: Player, stance: Stance, withheld: Withheld | None) -> list[Measure]:
    off_deg, bias = lean_off_deg(stance, player)
    return _angle("trunk_inclination_deg", seen, stance, lambda body: inclination_deg(body, player) + off_deg, bias=bias, withheld=withheld)


def _rounding(stance: Stance) -> list[Measure]:
    """How much further the back bows out than in the count-in's first looks, + = rounder."""
    bows = _told([(t_s, None if back is None else back.bow_pct) for t_s, back in stance.backs])
    tall = bows[bows[:, 0] <= bows[0, 0] + TALL_UNTIL_S] if len(bows) else bows
    if len(tall) < LEAST_SHAPES or float(np.median(tall[:, 1])) > MOST_TALL_PCT:
        return [Measure("back_rounding_pct", NotMeasured("arms_across" if stance.backs else "not_looked"))]  # nobody looks in readings of older releases
    tall_unsure = NORMAL_90 * float(np.hypot(BOW_DRIFT_PCT, BOW_PCT / np.sqrt(len(tall))))
    return _medians("back_rounding_pct", bows - [0.0, float(np.median(tall[:, 1]))], stance, (BOW_PCT, tall_unsure))


def _shoulder_line(seen: Seen, stance: Stance) -> list[Measure]:
    """From stickers on both, else from the outline: where arms hide that, the key points read a third of it, and level shoulders 6.5 deg off."""
    if "shoulder" in stance.worn.places:
        marked = np.array([(t_s, line_deg(body)) for t_s, _, body in stance.worn.bodies])
        return _medians("shoulder_tilt_deg", marked, stance, (SHOULDER_LINE_DEG, NORMAL_90 * SHOULDER_LINE_DEG))
    lines = shoulders_seen(seen)
    if not lines:
        return [Measure("shoulder_tilt_deg", NotMeasured("arms_across" if any(body.shape is not None for _, body in seen) else "not_looked"))]
    by_moment = np.array([(t_s, across.line_deg) for t_s, across in lines])
    return _medians("shoulder_tilt_deg", by_moment, stance, (SHOULDER_LINE_DEG, NORMAL_90 * SHOULDER_LINE_DEG))


def _head_tilt(seen: Seen, stance: Stance) -> list[Measure]:
    """From the face, where it looks into the camera with nothing before it."""
    looked = [(t_s, heads.tilt_deg(body)) for t_s, body in seen if body.features is not None]
    found = np.array([(t_s, tilt_deg) for t_s, tilt_deg in looked if tilt_deg is not None]).reshape(-1, 2)
    tilts = found if heads.alike(found[:, 1]) else _told(looked)
    if not len(tilts):
        return [Measure(heads.TILT, NotMeasured("face_hidden" if looked else "not_looked"))]
    return _medians(heads.TILT, tilts, stance, (heads.LOOK_DEG, NORMAL_90 * heads.LINE_DEG))


def _told(looked: Sequence[tuple[float, float | None]]) -> Floats:
    """Times and values of the moments whose outline tells one: [k, 2]; none where most of them tell nothing."""
    found = np.array([(t_s, value) for t_s, value in looked if value is not None]).reshape(-1, 2)
    return found if enough(len(found), len(looked)) else np.zeros((0, 2))


def _judged(values: Floats, stance: Stance) -> Floats:
    """Those of the time that is judged; all of them where those are too few. values: [k, 2] times and values."""
    inside = values[_inside(values[:, 0], stance.judged_s)] if stance.judged_s else values
    return inside if len(inside) >= LEAST_SHAPES else values


def _medians(key: str, values: Floats, stance: Stance, unsure: tuple[float, float]) -> list[Measure]:
    """Over the time that is judged, then over each kind of segment. values: [k, 2] times and values; unsure: of one value, standard error, and of them all,
    half width."""
    spans = {kind: [(s.from_s, s.to_s) for s in stance.segments if s.kind == kind] for kind in dict.fromkeys(s.kind for s in stance.segments)}
    of_each = [(kind, values[_inside(values[:, 0], times)]) for kind, times in spans.items()]
    found: list[tuple[SegmentKind | None, Floats]] = [(None, _judged(values, stance)), *((kind, own) for kind, own in of_each if len(own) >= LEAST_SAMPLES)]
    each, always = unsure
    return [
        Measure(key, Amount(_usual(own), float(np.hypot(always, NORMAL_90 * each / np.sqrt(len(own))))), segment=kind, samples=len(own)) for kind, own in found
    ]


def _usual(values: Floats) -> float:
    """Median over time, not over looks: the first seconds are looked at more often. values: [k, 2] times and values."""
    return filters.weighted_quantile(values[:, 1], np.minimum(np.gradient(values[:, 0]), STANDS_FOR_S), 0.5)


def _angle(key: str, seen: Seen, stance: Stance, angle: Callable[[Body], float], *, bias: float, withheld: Withheld | None) -> list[Measure]:
    if withheld is not None or not seen:
        return [Measure(key, NotMeasured(withheld or "region_unseen"))]
    times = np.array([t_s for t_s, _ in seen])
    angles = np.array([angle(body) for _, body in seen])
    found = [_median(key, np.array([angle(body) for _, body in while_judged(seen, stance)]), bias, None)]
    for kind in dict.fromkeys(segment.kind for segment in stance.segments):
        inside = _inside(times, [(s.from_s, s.to_s) for s in stance.segments if s.kind == kind])
        if inside.sum() >= LEAST_SAMPLES:
            found.append(_median(key, angles[inside], bias, kind))
    return found


def _head_forward(seen: Seen, player: Player, stance: Stance, withheld: Withheld | None) -> list[Measure]:
    off_pct, bias = (-BARE_EAR_AHEAD_PCT, BARE_EAR_PCT) if stance.bare else (0.0, EAR_PCT)
    if stance.bare:
        drawn = _told([(t_s, heads.drawn_pct(body, player.forward[0])) for t_s, body in seen if body.shape is not None])
        if len(drawn) and (drawn_pct := _usual(_judged(drawn, stance))):
            off_pct, bias = off_pct + drawn_pct, float(np.hypot(bias, heads.DRAWN_PCT))
    off_pct, bias = stance.worn.surer(lambda body: head_forward_pct(body, player), off_pct, bias, APART_PCT, "ear", "shoulder")
    return _angle("head_forward_pct", seen, stance, lambda body: head_forward_pct(body, player) + off_pct, bias=bias, withheld=withheld)


def _ear_height(seen: Seen, player: Player, stance: Stance, withheld: Withheld | None) -> list[Measure]:
    def height(body: Body) -> float:
        return heads.height_pct(body, player, front=stance.view == "front")

    off_pct, bias = stance.worn.surer(height, 0.0, heads.EAR_HEIGHT_PCT, APART_PCT, "ear", "shoulder")
    return _angle(heads.HEIGHT, seen, stance, lambda body: height(body) + off_pct, bias=bias, withheld=withheld)


def _sag(seen: Seen, stance: Stance, player: Player) -> list[Measure]:
    """What the trunk's inclination changes by from beginning to end, + = it sinks forward, as the back's outline has it, else the key points; and how fast,
    where that is told of a minute and not of less."""
    points = [(t_s, inclination_deg(body, player)) for t_s, body in seen]
    backs = dict(stance.backs)
    leans = _told([(t_s, None if (back := backs[t_s]) is None else deg + back.lean_deg) for t_s, deg in points if t_s in backs])
    if not len(leans) or not trend.enough(leans[:, 0]):
        leans = np.array(points).reshape(-1, 2)
    t_s, inclinations = leans.T
    changed: Value = NotMeasured("seen_briefly")
    a_minute: Value = NotMeasured("seen_briefly")
    if trend.enough(t_s):
        found = trend.change(t_s, inclinations, SAG_DEG)
        changed = Amount(found.value, float(np.hypot(found.half_width, NORMAL_90 * SAG_SHARE * found.value)))
        minutes = float(t_s[-1] - t_s[0]) / 60.0
        a_minute = Amount(changed.value / minutes, changed.half_width / minutes) if minutes >= 1.0 else a_minute
    return [Measure(key, value, samples=len(leans)) for key, value in (("sag_deg", changed), ("sag_deg_per_min", a_minute))]


def _sway(seen: Seen, player: Player, stance: Stance) -> Value:
    return sway(seen, player, np.interp([t_s for t_s, _ in seen], *stance.room))


def _inside(times: np.ndarray, spans_s: Sequence[tuple[float, float]]) -> np.ndarray:
    return np.any([(times >= from_s) & (times <= to_s) for from_s, to_s in spans_s], axis=0)


def _median(key: str, angles: np.ndarray, bias: float, segment: SegmentKind | None) -> Measure:
    scatter_deg = float(angles.std() / np.sqrt(len(angles)))
    return Measure(key, Amount(float(np.median(angles)), float(NORMAL_90 * np.hypot(scatter_deg, bias))), segment=segment, samples=len(angles))
