"""Posture from the pose key points and the outline: how the trunk leans and bows, how level the shoulders are, over the clip and over each kind of segment."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.kinds import SIDE_VIEWS, Position, SegmentKind, View
from brevin.core.kinematics import shapes, trend
from brevin.core.kinematics.sway import sway
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, Withheld
from brevin.core.pose import landmarks as lm
from brevin.core.report import Segment
from brevin.core.track import Body, Floats, Player, PoseSample

BACK_DEG, BACK_AHEAD_DEG = 1.4, 0.5  # how far the chord of the back's outline stands off the trunk's axis, and always does, forward; own, several makers
KEY_POINTS_DEG = 2.4  # the same of the key points' axis beside that; own
BACK_SHARE = KEY_POINTS_DEG**2 / (KEY_POINTS_DEG**2 + BACK_DEG**2)  # what the outline counts beside the key points
KEY_POINT_DEG = 2.0  # how far the network's shoulders and hips stand off the anatomical ones, as an angle of the trunk; own
EAR_PCT = 4.5  # of trunk: how far the network's ear and shoulders stand off each other's behind an instrument; own, over clips of several makers
BARE_EAR_PCT, BARE_EAR_AHEAD_PCT = 3.0, 2.8  # the same with nothing before the face, and how far ahead it always sees the ear there; own
SHOULDER_LINE_DEG = 2.0  # how far the line over both shoulders' tops stands off that of the joints; own, over clips of several makers
SHOULDER_POINTS_DEG = 6.0  # the same for the network's shoulders, which it draws nearer to level than they are; own, over clips of several makers
BOW_PCT, BOW_DRIFT_PCT = 0.6, 0.9  # standard error of one bow beside the player's others, and of a clip's change of it; own, over clips of several makers
SAG_DEG = 0.4  # standard error of one inclination beside the player's other ones; own
SAG_SHARE = 0.15  # of a sag: rounding carries the shoulders further than the trunk leans; own
LEAST_SAMPLES = 2  # key points of a segment from which it has a value of its own
LEAST_SHAPES, LEAST_SHARE = 3, 0.5  # outlines from which a clip has one, and how many of those looked at: a few among hidden ones are chance
MOST_TALL_PCT = 12.0  # of trunk: no back that is as tall as it can be bows out further; an arm that hangs behind it does
STANDS_FOR_S = 2.5  # most time that one look at the outline stands for: between raises nobody looked
TALL_UNTIL_S = 2.0  # "sit tall" is part of the count-in: its first looks are what a back is held against

Seen = Sequence[tuple[float, Body]]
"""The player's body at each moment it was found."""


@dataclass(frozen=True)
class Stance:
    """Over what of a clip posture is taken. judged_s: the spans over which posture is judged, none = the whole clip: slumping at rest is allowed; room: times
    and how far the room had gone toward the face by then, percent of trunk: the camera's own moves; bare: nothing is held before the face;
    lean_off_deg: what the key points' inclination is short of, None where no outline tells."""

    view: View
    position: Position
    segments: Sequence[Segment] = ()
    judged_s: Sequence[tuple[float, float]] = ()
    room: tuple[Floats, Floats] = (np.zeros(1), np.zeros(1))
    bare: bool = False
    lean_off_deg: float | None = None


def bodies_of(samples: Sequence[PoseSample], player: Player) -> Seen:
    """The player's body at each moment it was found."""
    return [(s.t_s, s.bodies[i]) for s, i in zip(samples, player.chosen, strict=True) if i >= 0]


def while_judged(seen: Seen, stance: Stance) -> Seen:
    """The moments over which posture is judged; all of them where those are too few."""
    inside = _inside(np.array([t_s for t_s, _ in seen]), stance.judged_s) if stance.judged_s and seen else np.zeros(0, bool)
    return [one for one, kept in zip(seen, inside, strict=True) if kept] if inside.sum() >= LEAST_SAMPLES else seen


def posture(seen: Seen, player: Player, stance: Stance) -> list[Measure]:
    """What the view can serve: trunk inclination, its sag, back rounding, head forward and sway from the side, the shoulder line from the front."""
    side = _served(stance.view in SIDE_VIEWS, stance.position)
    front = _served(stance.view == "front", stance.position)
    return [
        *_inclination(seen, player, stance, side),
        *_head_forward(seen, player, stance, side),
        *([Measure("back_rounding_pct", NotMeasured(side))] if side else _rounding(seen, player, stance)),
        *([Measure("shoulder_tilt_deg", NotMeasured(front))] if front else _shoulder_line(seen, stance)),
        *([Measure(key, NotMeasured(side)) for key in ("sag_deg", "sag_deg_per_min")] if side else _sag(while_judged(seen, stance), player)),
        Measure("sway_pct", NotMeasured(side) if side else _sway(while_judged(seen, stance), player, stance), samples=len(seen)),
    ]


def _served(view: bool, position: Position) -> Withheld | None:
    if position == "lying":
        return "lying"
    return None if view else "view_unserved"


def lean_off_deg(seen: Seen, player: Player, stance: Stance) -> float | None:
    """What is added to the key points' inclination so that it is the mean of theirs and of the back's outline, each by how sure it is; + = further forward."""
    if _served(stance.view in SIDE_VIEWS, stance.position):
        return None
    for looked in (while_judged(seen, stance), seen):
        off = _shaped(looked, lambda body: shapes.back_lean_deg(body, player.forward[0]))
        if len(off):
            return BACK_SHARE * (_usual(off) - BACK_AHEAD_DEG)
    return None


def _inclination(seen: Seen, player: Player, stance: Stance, withheld: Withheld | None) -> list[Measure]:
    off_deg, bias = (0.0, KEY_POINT_DEG) if stance.lean_off_deg is None else (stance.lean_off_deg, BACK_DEG)
    return _angle("trunk_inclination_deg", seen, stance, lambda body: inclination_deg(body, player) + off_deg, bias=bias, withheld=withheld)


def _rounding(seen: Seen, player: Player, stance: Stance) -> list[Measure]:
    """How much further the back bows out than in the count-in's first looks, + = rounder."""
    bows = _shaped(seen, lambda body: shapes.bow_pct(body, player.forward[0]))
    tall = bows[bows[:, 0] <= bows[0, 0] + TALL_UNTIL_S] if len(bows) else bows
    tall_unsure = NORMAL_90 * float(np.hypot(BOW_DRIFT_PCT, BOW_PCT / np.sqrt(max(len(tall), 1))))
    if len(tall) < LEAST_SHAPES or float(np.median(tall[:, 1])) > MOST_TALL_PCT:
        return [Measure("back_rounding_pct", _unseen(seen))]
    changed = bows - [0.0, float(np.median(tall[:, 1]))]
    return _medians("back_rounding_pct", changed, seen, stance, (BOW_PCT, tall_unsure))


def _shoulder_line(seen: Seen, stance: Stance) -> list[Measure]:
    """From the outline; where arms hide it, from the key points, which are too unsure to be judged."""
    lines = _shaped(seen, shapes.shoulder_line_deg)
    if not len(lines):
        return _angle("shoulder_tilt_deg", seen, stance, shoulder_tilt_deg, bias=SHOULDER_POINTS_DEG, withheld=None)
    return _medians("shoulder_tilt_deg", lines, seen, stance, (SHOULDER_LINE_DEG, NORMAL_90 * SHOULDER_LINE_DEG))


def _shaped(seen: Seen, value: Callable[[Body], float]) -> Floats:
    """Times and values of the moments whose outline tells one: [k, 2]; none where most of them tell nothing."""
    looked = np.array([(t_s, value(body)) for t_s, body in seen if body.shape is not None]).reshape(-1, 2)
    found = looked[np.isfinite(looked[:, 1])]
    return found if len(found) >= max(LEAST_SHAPES, LEAST_SHARE * len(looked)) else np.zeros((0, 2))


def _medians(key: str, values: Floats, seen: Seen, stance: Stance, unsure: tuple[float, float]) -> list[Measure]:
    """Over the time that is judged, then over each kind of segment. values: [k, 2] times and values; unsure: of one value, standard error, and of them all,
    half width."""
    judged = values[_inside(values[:, 0], stance.judged_s)] if stance.judged_s else values
    judged = judged if len(judged) >= LEAST_SHAPES else values
    if len(judged) < LEAST_SHAPES:
        return [Measure(key, _unseen(seen))]
    spans = {kind: [(s.from_s, s.to_s) for s in stance.segments if s.kind == kind] for kind in dict.fromkeys(s.kind for s in stance.segments)}
    of_each = [(kind, values[_inside(values[:, 0], times)]) for kind, times in spans.items()]
    found: list[tuple[SegmentKind | None, Floats]] = [(None, judged), *((kind, own) for kind, own in of_each if len(own) >= LEAST_SAMPLES)]
    each, always = unsure
    return [
        Measure(key, Amount(_usual(own), float(np.hypot(always, NORMAL_90 * each / np.sqrt(len(own))))), segment=kind, samples=len(own)) for kind, own in found
    ]


def _usual(values: Floats) -> float:
    """Median over time, not over looks: the first seconds are looked at more often. values: [k, 2] times and values."""
    return filters.weighted_quantile(values[:, 1], np.minimum(np.gradient(values[:, 0]), STANDS_FOR_S), 0.5)


def _unseen(seen: Seen) -> NotMeasured:
    """Why an outline tells nothing: arms are across it, or nobody looked at it when the clip was read."""
    return NotMeasured("arms_across" if any(body.shape is not None for _, body in seen) else "not_looked")


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
    ahead_pct, bias = (BARE_EAR_AHEAD_PCT, BARE_EAR_PCT) if stance.bare else (0.0, EAR_PCT)
    return _angle("head_forward_pct", seen, stance, lambda body: head_forward_pct(body, player) - ahead_pct, bias=bias, withheld=withheld)


def _sag(seen: Seen, player: Player) -> list[Measure]:
    """What the trunk's inclination changes by from beginning to end, + = it sinks forward, as the back's outline has it, else the key points; and how fast,
    where that is told of a minute and not of less."""
    leans = _shaped(seen, lambda body: inclination_deg(body, player) + shapes.back_lean_deg(body, player.forward[0]))
    if not len(leans) or not trend.enough(leans[:, 0]):
        leans = np.array([(t_s, inclination_deg(body, player)) for t_s, body in seen]).reshape(-1, 2)
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


def inclination_deg(body: Body, player: Player) -> float:
    """Middle of the hips to middle of the shoulders against the picture's vertical; + = forward, toward the face."""
    axis = lm.shoulders(body) - lm.hips(body)
    ahead = np.sign(player.forward[0]) or 1.0
    return float(np.degrees(np.arctan2(ahead * axis[0], -axis[1])))


def head_forward_pct(body: Body, player: Player) -> float:
    """How far the ear that the camera sees is ahead of the middle of the shoulders, percent of trunk, toward the face."""
    ahead = np.sign(player.forward[0]) or 1.0
    ear = lm.EAR_R if ahead > 0 else lm.EAR_L
    return float(100.0 * ahead * (body.points_px[ear, 0] - lm.shoulders(body)[0]) / max(player.trunk_px, 1e-9))


def shoulder_tilt_deg(body: Body) -> float:
    """The network's shoulders against level in a front view; + = the player's left shoulder higher."""
    line = body.points_px[lm.SHOULDER_L] - body.points_px[lm.SHOULDER_R]
    return float(np.degrees(np.arctan2(-line[1], abs(line[0]))))
