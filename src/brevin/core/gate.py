"""The quality gate: what in a sighting makes a check unreadable, or worth a word of advice."""

from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.breath.breaths import BreathTurns
from brevin.core.kinematics.trunk import Traces
from brevin.core.report import Reason
from brevin.core.track import Sighting
from brevin.core.verdict.words import REASONS, reason_text

DARK_GREY, DARK_DETAIL = 22.0, 4.0  # of 255: median grey of the trunk and its spread
SOFT_CLEAR = 4.0  # grey levels of contrast across the outline, median
SLOWEST_HZ = 12.0  # a 0.3 s inhale has three pictures at 12 a second
FROZEN_CHANGE = 0.002  # mean grey change from picture to picture: below it the coded pictures are the same
FROZEN_RUN_S, FROZEN_SHARE = 1.5, 0.2  # coders repeat a still picture for moments; a camera that hangs does it for longer
HOLES_NOTED_S, HOLES_MOST_SHARE = 0.5, 0.2  # of holes in all: said from here, refused from this share of the clip
ROOM_MOVES_PCT, ROOM_SHAKES_PCT = 1.5, 6.0  # of trunk, spread of the room's points: advice, refusal
SWAY_MOST_PCT = 5.0  # of trunk, standard deviation of the back's own motion


@dataclass(frozen=True)
class Judged:
    """reasons: all of them; breath: whether the breath may be judged; posture: whether posture may."""

    reasons: list[Reason]
    breath: bool
    posture: bool


def reason(code: str, facts: dict[str, object] | None = None, *, from_s: float | None = None, to_s: float | None = None) -> Reason:
    """A reason with its sentence filled in."""
    return Reason(code=code, check=REASONS[code].check, message=reason_text(code, facts or {}), from_s=from_s, to_s=to_s)


def refused(sighting: Sighting) -> list[Reason]:
    """Why nothing could be read: the sighting's own refusal first, then its notes."""
    return [reason(code, dict(facts)) for code, facts in (*sighting.refused, *sighting.notes)]


def judge(sighting: Sighting, traces: Traces, breaths: list[BreathTurns]) -> Judged:
    """Check a clip whose player was found. Front views never serve the breath; every other reason is measured."""
    stops = _stops(sighting, traces, breaths)
    advice = [reason(code, dict(facts)) for code, facts in sighting.notes] + _advice(sighting, traces)
    return Judged(reasons=stops + advice, breath=not stops, posture=True)


def _stops(sighting: Sighting, traces: Traces, breaths: list[BreathTurns]) -> list[Reason]:
    picture = sighting.picture
    found: list[Reason] = []
    if sighting.view == "front":
        return [reason("front_view_breath")]
    if np.median(picture.light) < DARK_GREY or np.median(picture.detail) < DARK_DETAIL:
        found.append(reason("too_dark"))
    rate_hz = 1.0 / max(float(np.median(np.diff(sighting.t_s))), 1e-6)
    if rate_hz < SLOWEST_HZ:
        found.append(reason("low_frame_rate", {"rate_hz": round(rate_hz)}))
    missing_s = float(sum(end - start for start, end in filters.holes(sighting.t_s)))
    if missing_s > HOLES_MOST_SHARE * float(sighting.t_s[-1]):
        found.append(reason("dropped_frames", {"missing_s": f"{missing_s:.1f}"}))
    frozen = frozen_share(sighting)
    if frozen > FROZEN_SHARE:
        found.append(reason("frozen_picture", {"frozen_share": f"{100 * frozen:.0f} %"}))
    if sighting.front is not None and len(sighting.front.clear) and np.median(sighting.front.clear) < SOFT_CLEAR:
        found.append(reason("too_blurred"))
    if room_spread_pct(sighting) > ROOM_SHAKES_PCT:
        found.append(reason("camera_moving"))
    if traces.sway_pct > SWAY_MOST_PCT and not found:
        found.append(reason("player_moving"))
    if not traces.seen["abdomen"]:
        found.append(reason("trunk_covered"))
    elif not breaths and not found:
        found.append(reason("no_breathing"))
    return found


def frozen_share(sighting: Sighting) -> float:
    """Share of the clip's time that lies in runs of the same picture of at least ``FROZEN_RUN_S``."""
    same = np.concatenate([[0], (sighting.picture.change[1:] < FROZEN_CHANGE).astype(int), [0]])
    edges = np.flatnonzero(np.diff(same))
    last = len(sighting.t_s) - 1
    runs = [sighting.t_s[min(end, last)] - sighting.t_s[start] for start, end in zip(edges[::2], edges[1::2], strict=True)]
    return float(sum(run for run in runs if run >= FROZEN_RUN_S) / max(sighting.t_s[-1], 1e-6)) if last > 0 else 0.0


def _advice(sighting: Sighting, traces: Traces) -> list[Reason]:
    found = []
    holes = filters.holes(sighting.t_s)
    missing_s = sum(end - start for start, end in holes)
    if HOLES_NOTED_S < missing_s <= HOLES_MOST_SHARE * float(sighting.t_s[-1]):
        start, end = max(holes, key=lambda hole: hole[1] - hole[0])
        found.append(reason("dropped_frames", {"missing_s": f"{missing_s:.1f}"}, from_s=start, to_s=end))
    if sighting.view != "front" and traces.seen["abdomen"] and (not traces.seen["chest"] or traces.model["chest"] > 0.2):
        found.append(reason("chest_covered"))
    if ROOM_MOVES_PCT < room_spread_pct(sighting) <= ROOM_SHAKES_PCT:
        found.append(reason("camera_moving"))
    return found


def room_spread_pct(sighting: Sighting) -> float:
    """How far the room's points move together over the clip, percent of trunk: median of their standard deviations."""
    points = sighting.points
    if points is None or points.on_body.all() or not len(points.on_body):
        return 0.0
    room = points.move_pct[:, ~points.on_body]
    common = np.median(room, axis=1)
    return float(np.hypot(*common.std(axis=0)))
