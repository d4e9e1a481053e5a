"""Posture from the pose key points: angles of the trunk and of the shoulder line, over the clip and over each kind of segment."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core.kinds import SIDE_VIEWS, Position, SegmentKind, View
from brevin.core.kinematics import trend
from brevin.core.kinematics.sway import sway
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, Withheld
from brevin.core.pose import landmarks as lm
from brevin.core.report import Segment
from brevin.core.track import Body, Floats, Player, PoseSample

KEY_POINT_DEG = 2.0  # how far the network's shoulders and hips stand off the anatomical ones, as an angle of the trunk; own
EAR_PCT = 4.5  # of trunk: how far the network's ear and shoulders stand off each other's; own, over clips of several makers
SHOULDER_LINE_DEG = 6.0  # the same for the shoulder line, which the network draws nearer to level than it is; own, over clips of several makers
SAG_DEG = 0.4  # standard error of one inclination beside the player's other ones; own
SAG_SHARE = 0.15  # of a sag: rounding carries the shoulders further than the trunk leans; own
LEAST_SAMPLES = 2  # key points of a segment from which it has a value of its own

Seen = Sequence[tuple[float, Body]]
"""The player's body at each moment it was found."""


@dataclass(frozen=True)
class Stance:
    """Over what of a clip posture is taken. judged_s: the spans over which posture is judged, none = the whole clip: slumping at rest is allowed; room: times
    and how far the room had gone toward the face by then, percent of trunk: the camera's own moves."""

    view: View
    position: Position
    segments: Sequence[Segment] = ()
    judged_s: Sequence[tuple[float, float]] = ()
    room: tuple[Floats, Floats] = (np.zeros(1), np.zeros(1))


def bodies_of(samples: Sequence[PoseSample], player: Player) -> Seen:
    """The player's body at each moment it was found."""
    return [(s.t_s, s.bodies[i]) for s, i in zip(samples, player.chosen, strict=True) if i >= 0]


def while_judged(seen: Seen, stance: Stance) -> Seen:
    """The moments over which posture is judged; all of them where those are too few."""
    inside = _inside(np.array([t_s for t_s, _ in seen]), stance.judged_s) if stance.judged_s and seen else np.zeros(0, bool)
    return [one for one, kept in zip(seen, inside, strict=True) if kept] if inside.sum() >= LEAST_SAMPLES else seen


def posture(seen: Seen, player: Player, stance: Stance) -> list[Measure]:
    """What the view can serve: trunk inclination, its sag, head forward and sway from the side, shoulder tilt from the front."""
    side = _served(stance.view in SIDE_VIEWS, stance.position)
    front = _served(stance.view == "front", stance.position)
    return [
        *_angle("trunk_inclination_deg", seen, stance, lambda body: inclination_deg(body, player), bias=KEY_POINT_DEG, withheld=side),
        *_angle("head_forward_pct", seen, stance, lambda body: head_forward_pct(body, player), bias=EAR_PCT, withheld=side),
        *_angle("shoulder_tilt_deg", seen, stance, shoulder_tilt_deg, bias=SHOULDER_LINE_DEG, withheld=front),
        *([Measure(key, NotMeasured(side)) for key in ("sag_deg", "sag_deg_per_min")] if side else _sag(while_judged(seen, stance), player)),
        Measure("sway_pct", NotMeasured(side) if side else _sway(while_judged(seen, stance), player, stance), samples=len(seen)),
    ]


def _served(view: bool, position: Position) -> Withheld | None:
    if position == "lying":
        return "lying"
    return None if view else "view_unserved"


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


def _sag(seen: Seen, player: Player) -> list[Measure]:
    """What the trunk's inclination changes by from beginning to end, + = it sinks forward; and how fast, where that is told of a minute and not of less."""
    t_s = np.array([t_s for t_s, _ in seen])
    changed: Value = NotMeasured("seen_briefly")
    a_minute: Value = NotMeasured("seen_briefly")
    if trend.enough(t_s):
        found = trend.change(t_s, np.array([inclination_deg(body, player) for _, body in seen]), SAG_DEG)
        changed = Amount(found.value, float(np.hypot(found.half_width, NORMAL_90 * SAG_SHARE * found.value)))
        minutes = float(t_s[-1] - t_s[0]) / 60.0
        a_minute = Amount(changed.value / minutes, changed.half_width / minutes) if minutes >= 1.0 else a_minute
    return [Measure("sag_deg", changed, samples=len(seen)), Measure("sag_deg_per_min", a_minute, samples=len(seen))]


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
    """Shoulder line against level in a front view; + = the player's left shoulder higher."""
    line = body.points_px[lm.SHOULDER_L] - body.points_px[lm.SHOULDER_R]
    return float(np.degrees(np.arctan2(-line[1], abs(line[0]))))
