"""The quality gate: what makes a check unreadable, or worth a word of advice.

One code for all: ``picture_reasons`` and ``player_reason`` look at any stretch of time. The finished clip is the longest stretch, the live view's last
seconds a short one, so that readiness before filming and the verdict after it never disagree.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from brevin.core import filters
from brevin.core.errors import ClipUnusable
from brevin.core.kinds import State, View
from brevin.core.kinematics.tilt import Tilt
from brevin.core.kinematics.traces import Traces
from brevin.core.pose import player as pick
from brevin.core.report import Reason
from brevin.core.track import Facts, Floats, Picture, PoseSample
from brevin.core.verdict.reasons import REASONS

DARK_GREY, DARK_DETAIL = 22.0, 4.0  # of 255: median grey of the trunk and its spread
DARK_ROOM_GREY = 40.0  # of 255, upper quartile of the picture: nobody found in less light than this is a matter of light
SOFT_CLEAR = 4.0  # grey levels of contrast across the outline, median
SLOWEST_HZ = 12.0  # a 0.3 s inhale has three pictures at 12 a second
FROZEN_CHANGE = 0.002  # mean grey change from picture to picture: below it the coded pictures are the same
FROZEN_RUN_S, FROZEN_SHARE = 1.5, 0.2  # coders repeat a still picture for moments; a camera that hangs does it for longer
HOLES_NOTED_S, HOLES_MOST_SHARE = 0.5, 0.2  # of holes in all: said from here, refused from this share of the clip
ROOM_MOVES_PCT, ROOM_SHAKES_PCT = 1.5, 6.0  # of trunk, spread of the room's points: advice, refusal
MOST_LOST = 0.5  # of the strips at the belly's heights: where so many are not found again, nothing need be before it
SWAY_MOST_PCT = 5.0  # of trunk, standard deviation of the back's own motion
STALE_NOTED_S, STALE_MOST_S = 0.08, 0.25  # mean age of the picture while the trunk moves: said from here, refused from here
CHEST_UNSURE = 0.2  # share of its amplitude the assumed profile may be wrong by: from here on the chest is seen on the flank alone


@dataclass(frozen=True)
class Stretch:
    """A stretch of a clip, or of what a camera sees now. t_s: [n] times of the pictures; picture: their quality; samples: everyone seen meanwhile; tilt: of the
    camera, None where the room does not tell it; restless: much moves behind the player."""

    t_s: Floats
    picture: Picture
    samples: tuple[PoseSample, ...]
    tilt: Tilt | None = None
    restless: bool = False

    def between(self, from_s: float, to_s: float) -> "Stretch":
        """The part between two moments, both included."""
        kept = (self.t_s >= from_s) & (self.t_s <= to_s)
        picture = replace(self.picture, **{name: values[kept] for name, values in vars(self.picture).items() if len(values) == len(self.t_s)})
        return Stretch(self.t_s[kept], picture, tuple(s for s in self.samples if from_s <= s.t_s <= to_s), self.tilt, self.restless)


def reason(code: str, facts: dict[str, float | str] | None = None, *, from_s: float | None = None, to_s: float | None = None) -> Reason:
    """A reason by its code; its sentence is made when it is shown."""
    return Reason(code=code, check=REASONS[code].check, facts=dict(facts or {}), from_s=from_s, to_s=to_s)


def reasons_of(facts: Facts) -> list[Reason]:
    """What the edge noticed, as reasons."""
    return [reason(code, dict(values)) for code, values in facts]


def player_reason(samples: Sequence[PoseSample], *, width_px: float, height_px: float) -> Reason | None:
    """Why nobody can be picked in a stretch; None where a player stands clear."""
    try:
        pick.choose(samples, width_px=width_px, height_px=height_px)
    except ClipUnusable as why:
        return reason(refusal(why.code, samples), why.facts)  # pyrefly: ignore[bad-argument-type]
    return None


def refusal(code: str, samples: Sequence[PoseSample]) -> str:
    """Nobody found in the dark is a matter of light."""
    dark = bool(samples) and float(np.median([sample.light for sample in samples])) < DARK_ROOM_GREY
    return "too_dark" if code == "no_person" and dark else code


def picture_reasons(stretch: Stretch, *, view: View | None, moved: Traces | None = None) -> tuple[list[Reason], list[Reason]]:
    """What the pictures of a stretch make unreadable, and what is only advice. From the front the breath cannot be read; where its shoulders were followed that
    is advice: they are judged. moved: the traces, where the whole clip has told them."""
    if len(stretch.t_s) < 2:
        return [reason("too_short", {"duration_s": 0.0})], []
    picture = stretch.picture
    front = [reason("front_view_breath")] if view == "front" else []
    stops, seen_from = ([], front) if moved is not None and moved.seen["shoulder"] else (front, [])
    if is_dark(picture):
        stops.append(reason("too_dark"))
    rate_hz = 1.0 / max(float(np.median(np.diff(stretch.t_s))), 1e-6)
    if rate_hz < SLOWEST_HZ:
        stops.append(reason("low_frame_rate", {"rate_hz": round(rate_hz)}))
    missing_s = sum(end - start for start, end in filters.holes(stretch.t_s))
    if missing_s > HOLES_MOST_SHARE * float(stretch.t_s[-1] - stretch.t_s[0]):
        stops.append(reason("dropped_frames", {"missing_s": round(missing_s, 1)}))
    frozen = frozen_share(stretch)
    if frozen > FROZEN_SHARE:
        stops.append(reason("frozen_picture", {"frozen_pct": round(100 * frozen)}))
    if len(picture.clear) and np.median(picture.clear) < SOFT_CLEAR:
        stops.append(reason("too_blurred"))
    if camera_state(stretch) == "unreadable":
        stops.append(reason("camera_moving"))
    stale_s = 0.0 if moved is None else moved.stale_s  # how old the picture is while the trunk moves
    if stale_s > STALE_MOST_S:
        stops.append(reason("coded_hard"))
    squeezed = [reason("coded_hard")] if STALE_NOTED_S < stale_s <= STALE_MOST_S else []
    passed_s = 0.0 if moved is None else sum(end - start for start, end in moved.passed)
    passed = [_passed(moved.passed)] if moved is not None and moved.passed else []
    if passed_s > HOLES_MOST_SHARE * float(stretch.t_s[-1] - stretch.t_s[0]):
        stops, passed = [*stops, *passed], []
    return stops, seen_from + _holes_advice(stretch) + _camera_advice(stretch) + passed + squeezed


def is_dark(picture: Picture) -> bool:
    """Whether the trunk has too little light, or too little to tell by."""
    return bool(np.median(picture.light) < DARK_GREY or np.median(picture.detail) < DARK_DETAIL)


def camera_state(stretch: Stretch) -> State:
    """How still the camera stands: steady, watch, or unreadable where it moves too much."""
    spread_pct = room_spread_pct(stretch)
    return "unreadable" if spread_pct > ROOM_SHAKES_PCT else "watch" if spread_pct > ROOM_MOVES_PCT else "steady"


def frozen_share(stretch: Stretch) -> float:
    """Share of the stretch's time that lies in runs of the same picture of at least ``FROZEN_RUN_S``."""
    if len(stretch.t_s) < 2:
        return 0.0
    same = np.concatenate([[0], (stretch.picture.change[1:] < FROZEN_CHANGE).astype(int), [0]])
    edges = np.flatnonzero(np.diff(same))
    last = len(stretch.t_s) - 1
    runs = [stretch.t_s[min(end, last)] - stretch.t_s[start] for start, end in zip(edges[::2], edges[1::2], strict=True)]
    return float(sum(run for run in runs if run >= FROZEN_RUN_S) / max(stretch.t_s[-1] - stretch.t_s[0], 1e-6))


def room_spread_pct(stretch: Stretch) -> float:
    """How far the room's points move together over the stretch, percent of trunk: standard deviation of their common way."""
    return float(np.hypot(*stretch.picture.room_pct.std(axis=0))) if len(stretch.picture.room_pct) else 0.0


def _passed(spans: Sequence[tuple[float, float]]) -> Reason:
    """That something passed behind the player, or before, the first time."""
    start, end = spans[0]
    return reason("passed_by", {"at_s": round(max(start, 0.0), 1)}, from_s=start, to_s=end)


def _holes_advice(stretch: Stretch) -> list[Reason]:
    holes = filters.holes(stretch.t_s)
    missing_s = sum(end - start for start, end in holes)
    if not HOLES_NOTED_S < missing_s <= HOLES_MOST_SHARE * float(stretch.t_s[-1] - stretch.t_s[0]):
        return []
    start, end = max(holes, key=lambda hole: hole[1] - hole[0])
    return [reason("dropped_frames", {"missing_s": round(missing_s, 1)}, from_s=start, to_s=end)]


def _camera_advice(stretch: Stretch) -> list[Reason]:
    moving = [reason("camera_moving")] if camera_state(stretch) == "watch" else []
    return [*moving, *([reason("camera_tilted", stretch.tilt.facts())] if stretch.tilt and stretch.tilt.told else [])]
