"""Laying what was measured out as the report's records: the contract's keys, in the contract's places."""

from collections.abc import Sequence
from dataclasses import fields
from typing import Any

import numpy as np

from brevin.core.breath.patterns import Named
from brevin.core.breath.shape import RELEASES
from brevin.core.evidence import Evidence, Followed
from brevin.core.hold.held import HOLD_KEYS
from brevin.core.hold.levelled import facing
from brevin.core.hold.raising import Hands, Still
from brevin.core.hold.wrists import WRISTS, bent_px
from brevin.core.kinds import REGIONS, ExhaleShape, Instrument, View
from brevin.core.measure import Measure, NotMeasured, of_key
from brevin.core.pose import landmarks as lm
from brevin.core.report import Breath, HandsSeen, Hold, Posture, PostureValue, Scale, Segment, StillSeen, Trace
from brevin.core.track import Floats

AXIS_TRUNKS = 1.1  # length at which an axis is drawn, trunks
LEAST_PAUSE_S = 0.1  # a pause shorter than this is none
ARMS = {"left": (lm.SHOULDER_L, lm.ELBOW_L, lm.WRIST_L), "right": (lm.SHOULDER_R, lm.ELBOW_R, lm.WRIST_R)}


def breath_of(measures: Sequence[Measure], named: Named, *, exhale_shape: ExhaleShape | None, card_index: int | None) -> Breath:
    """One breath's numbers as the report has them."""
    shown = [m for m in measures if m.key not in RELEASES]
    amounts = {m.key: m.amount for m in shown}
    numbers: dict[str, Any] = {key: None if amount is None else amount.value for key, amount in amounts.items()}
    return Breath(
        **numbers,
        exhale_shape=exhale_shape, pattern=named.pattern, pattern_or=named.beside, card_index=card_index,
        uncertainty={key: None if amount is None else amount.half_width for key, amount in amounts.items()},
        withheld={m.key: m.value.reason for m in shown if isinstance(m.value, NotMeasured)},
    )  # fmt: skip


def posture_of(measures: Sequence[Measure]) -> Posture:
    """The clip's posture values, each with what it was in each kind of segment."""
    return Posture(**{one.name: _posture_value(of_key(measures, one.name)) for one in fields(Posture)})


def hold_of(measures: Sequence[Measure], instrument: Instrument, found: Evidence, who: Followed | None, hands: HandsSeen | None) -> Hold | None:
    """How the instrument was held; None where the check asks for none."""
    if instrument == "none":
        return None
    value = {key: _posture_value(of_key(measures, key)) for key in HOLD_KEYS}
    level = value["instrument_axis_deg"]
    drawn = None if level is None or who is None else _axis_px(found, who, level.value, value["axis_below_mouth_pct"])
    return Hold(
        instrument, level, value["axis_to_trunk_deg"], _sides(value, "elbow"), _sides(value, "wrist"), _sides(value, "finger_curl"), axis_px=drawn,
        head_travel_pct=value["head_travel_pct"], raise_spread_pct=value["raise_spread_pct"], axis_droop_deg=value["axis_droop_deg"],
        head_to_flute_deg=value["head_to_flute_deg"], hands_order_pct=value["hands_order_pct"], hands=hands,
    )  # fmt: skip


def _sides(value: dict[str, PostureValue | None], name: str) -> dict[str, PostureValue | None]:
    return {side: value[f"{name}_{side}_deg"] for side in ("left", "right")}


def hands_of(found: Evidence, who: Followed, hands: Hands, stills: Sequence[Still], measures: Sequence[Measure]) -> HandsSeen:
    """How high the hands were, with the moments worth a picture; hands are drawn whose wrists are measured."""
    return HandsSeen(hands.t_s.tolist(), hands.height_pct.tolist(), len(hands.raises), [_still(found, who.view, one, bent_sides(measures)) for one in stills])


def _still(found: Evidence, view: View, one: Still, bent: Sequence[str]) -> StillSeen:
    def px(place: Floats) -> list[float]:
        return [float(v) / found.shrink for v in place]

    points = one.body.points_px
    sides = [side for side in ARMS if not view.startswith("side") or view == f"side-{side}"]  # the far arm is guessed more than seen
    hands = bent_px(one.body)
    arms = [[*(points[at] for at in ARMS[side]), *([hands[side][-1]] if side in hands and side in bent else [])] for side in sides]
    lines = [[px(place) for place in line] for line in ([lm.hips(one.body), lm.shoulders(one.body)], *arms)]
    return StillSeen(one.kind, one.t_s, px(lm.mouth(one.body)), px(points[lm.INDEX_L]), px(points[lm.INDEX_R]), lines)


def _axis_px(found: Evidence, who: Followed, level_deg: float, below: PostureValue | None) -> list[float]:
    """From where it passes the mouth on, as long as most instruments are, toward the side it is held to."""
    mouths = [lm.mouth(sample.bodies[i]) for sample, i in zip(found.poses, who.player.chosen, strict=True) if i >= 0]
    side, tilt = facing(who.view, who.player), found.tilt(who)
    level = np.radians(level_deg + (side * tilt.deg if tilt is not None and tilt.told else 0.0))  # as the picture shows it
    down = 0.01 * (below.value if below else 0.0) * np.array([-side * np.sin(level), np.cos(level)])
    start = np.median(mouths, axis=0) + who.player.trunk_px * down
    far = start + AXIS_TRUNKS * who.player.trunk_px * np.array([side * np.cos(level), np.sin(level)])
    return [float(v) / found.shrink for v in (*start, *far)]


def is_held(hold: Hold | None) -> bool:
    """Whether anything of the hold could be measured."""
    return hold is not None and any((hold.instrument_axis_deg, hold.axis_to_trunk_deg, *(hold.elbow_abduction_deg or {}).values()))


def _posture_value(own: Sequence[Measure]) -> PostureValue | None:
    whole = next((m for m in own if m.segment is None), None)
    if whole is None or whole.amount is None:
        return None
    by_segment: dict[str, float] = {m.segment: m.amount.value for m in own if m.segment is not None and m.amount is not None}
    return PostureValue(value=whole.amount.value, uncertainty=whole.amount.half_width, n=whole.samples, by_segment=by_segment)


def segments_of(whole: Sequence[Breath]) -> list[Segment]:
    """Inhales, pauses and exhales in order of time."""
    found: list[Segment] = []
    for breath in whole:
        start, full, leave, rest = breath.inhale_start_s, breath.inhale_end_s, breath.exhale_start_s, breath.exhale_end_s
        assert start is not None and full is not None and leave is not None and rest is not None
        found.append(Segment("inhale", start, full))
        if leave - full > LEAST_PAUSE_S:
            found.append(Segment("pause", full, leave))
        found.append(Segment("exhale", leave, rest))
    return found


def trace_of(who: Followed | None, exempt: frozenset[str] = frozenset()) -> Trace:
    """The three traces; a region that was not seen is an empty list, and the shoulders where their rise is among the measures a student is exempt from."""
    if who is None:
        return Trace([], [], [], [], [])
    moved = who.traces
    shown = {name: moved.seen[name] and region_shown(name, exempt) for name in REGIONS}
    values = {name: getattr(moved, name).tolist() if shown[name] else [] for name in REGIONS}
    return Trace(t_s=moved.t_s.tolist(), confidence=moved.confidence.tolist(), **values)


def regionregion_shown(region: str, exempt: frozenset[str]) -> bool:
    """Whether a region is drawn: the shoulders are not where a student is exempt from their rise."""
    return not (region == "shoulder" and "shoulder_rise" in exempt)


def region_shown(region: str, exempt: frozenset[str]) -> bool:
    """Whether a region is drawn: the shoulders are not where a student is exempt from their rise."""
    return not (region == "shoulder" and "shoulder_rise" in exempt)


def bent_sides(measures: Sequence[Measure]) -> list[str]:
    """The sides whose wrist is measured."""
    return [side for side, key in WRISTS.items() if any(m.amount is not None for m in of_key(measures, key))]


def scale_of(found: Evidence, who: Followed | None) -> Scale | None:
    """The player's trunk in pixels of the clip, and millimetres where the printed card was seen."""
    if who is None:
        return None
    mm_per_px = None if found.mm_per_px is None else found.mm_per_px * found.shrink
    return Scale(trunk_px=who.player.trunk_px / found.shrink, mm_per_px=mm_per_px, source="key points" if mm_per_px is None else "card")
