"""The one table of criteria: what is judged, where it applies, in which band it is steady, beyond which it is worked on, and where it is drawn.

Each row judges one measure, breath by breath or for the whole clip. The numbers of its band come from the rules in force.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from brevin.core.kinds import INSTRUMENTS, SIDE_VIEWS, CheckKind, Importance, Instrument, Lane, Position, TurnKind, View
from brevin.core.plan.card import CountCard
from brevin.core.verdict import bands
from brevin.core.verdict.bands import Amounts, Asked, Band
from brevin.core.verdict.rules import CriterionKey, Rules

Area = Literal["breath", "posture", "hold"]
BREATHED: tuple[CheckKind, ...] = ("counted_breathing", "drill")  # checks that ask how one breathes


@dataclass(frozen=True)
class Where:
    """Where a row applies; None = everywhere. views: from which it can be read; card: what a card must ask, None = no card needed;
    two_sides: only where the check asks for both sides on purpose; held: only where the instrument is held in it, or only where it is not."""

    views: tuple[View, ...] | None = None
    positions: tuple[Position, ...] | None = None
    instruments: tuple[Instrument, ...] | None = None
    kinds: tuple[CheckKind, ...] = BREATHED
    card: Callable[[CountCard], bool] | None = None
    two_sides: bool = False
    held: bool | None = None


@dataclass(frozen=True)
class Criterion:
    """One row. measure: the key it judges; area: what it is part of; limits: those its band is made of, by the beginnings of their names; lane: line of the
    breath score; span: turns its mark covers, None for a row of the whole clip; unless: a row whose fault takes this one's with it, so that one fault is said
    once."""

    key: CriterionKey
    measure: str
    area: Area
    unit: str
    band: Callable[[Amounts, Asked], Band | None]
    where: Where
    limits: tuple[str, ...]
    lane: Lane = "count"
    span: tuple[TurnKind, TurnKind] | None = ("inhale_start", "inhale_end")
    unless: CriterionKey | None = None


LONG_INHALE_BEATS = 1.0  # inhales over one beat only: a quick one has no evenness that could be seen
UPRIGHT: tuple[Position, ...] = ("seated", "standing")
SEEN_MOVING: tuple[View, ...] = (*SIDE_VIEWS, "three-quarter")
STILL = Where(views=(*SIDE_VIEWS, "front"))  # half turned away, shoulders were read 4 % of trunk too small: not judged from there
LEADS = Where(views=SEEN_MOVING, positions=UPRIGHT)  # lying down the belly moves by itself: shown, not judged
COUNTED = Where(views=SEEN_MOVING, card=lambda card: True)
SPREAD = Where(views=SEEN_MOVING, card=lambda card: card.inhale_beats > LONG_INHALE_BEATS)
CLOSED = Where(views=SEEN_MOVING, card=lambda card: card.exhale_beats is not None)
LOOKED_AT: tuple[CheckKind, ...] = ("counted_breathing", "posture", "hold", "drill", "tone")

LEVEL = Where((*SEEN_MOVING, "front"), UPRIGHT, ("flute", "trumpet", "cornet", "trombone", "horn"), LOOKED_AT, held=True)
TO_TRUNK = Where(SEEN_MOVING, UPRIGHT, ("clarinet", "oboe"), LOOKED_AT, held=True)
HELD_UP = Where((*SEEN_MOVING, "front"), UPRIGHT, ("flute", "oboe", "clarinet", "trumpet", "cornet", "trombone"), LOOKED_AT, held=True)
RAISED = Where(SIDE_VIEWS, UPRIGHT, kinds=("hold",), held=True)
CLEAR = Where(("front",), UPRIGHT, ("flute", "oboe", "clarinet", "alto_sax", "tenor_sax", "trumpet", "cornet"), LOOKED_AT, held=True)
FINGERED = Where((*SEEN_MOVING, "front"), UPRIGHT, ("flute", "oboe", "clarinet"), LOOKED_AT, held=True)  # one hand behind the other, both in sight
BOTH_HANDS = Where(("front",), UPRIGHT, ("flute", "oboe", "clarinet", "alto_sax", "tenor_sax"), LOOKED_AT, held=True)
FEET = Where((*SIDE_VIEWS, "front"), ("seated",), kinds=LOOKED_AT)
LEANS = Where(SIDE_VIEWS, UPRIGHT, kinds=LOOKED_AT)
BARE = Where(SIDE_VIEWS, UPRIGHT, kinds=LOOKED_AT, held=False)
TILTS = Where(("front",), UPRIGHT, kinds=LOOKED_AT)
LOOKS_AHEAD = Where(("front",), UPRIGHT, tuple(one for one in INSTRUMENTS if one != "flute"), LOOKED_AT)
ALONG_IT = Where(("front",), UPRIGHT, ("flute",), LOOKED_AT, held=True)
MOVING = Where(views=SEEN_MOVING)
BOTH = Where(views=SEEN_MOVING, two_sides=True)
EXHALE: tuple[TurnKind, TurnKind] = ("exhale_start", "exhale_end")

# Of faults that weigh alike the first of the table is spoken of: what lies beneath comes first.
CRITERIA: tuple[Criterion, ...] = (
    Criterion("feet_flat", "feet_flat", "posture", "of the time", bands.feet, FEET, ("feet_flat",), span=None),
    Criterion("trunk_inclination", "trunk_inclination_deg", "posture", "deg", bands.inclination, LEANS, ("inclination",), span=None),
    Criterion("keeps_tall", "sag_deg", "posture", "deg", bands.sag, LEANS, ("tall",), span=None),
    Criterion("back_rounding", "back_rounding_pct", "posture", "% of trunk", bands.rounding, LEANS, ("rounding",), span=None),
    Criterion("head_forward", "head_forward_pct", "posture", "% of trunk", bands.head, BARE, ("head_forward",), span=None),
    Criterion("shoulder_tilt", "shoulder_tilt_deg", "posture", "deg", bands.tilt, TILTS, ("shoulder_tilt",), span=None),
    Criterion("head_level", "head_tilt_deg", "posture", "deg", bands.head_level, LOOKS_AHEAD, ("head_level",), span=None),
    Criterion("body_still", "sway_pct", "posture", "% of trunk", bands.still, LEANS, ("body_still",), span=None),
    Criterion("real_breath", "against_pct", "breath", "% of trunk", bands.real, LEADS, ("pattern.pushed_chest", "pattern.paradoxical_abdomen"), "abdomen"),
    Criterion(
        "abdomen_leads",
        "abdominal_share",
        "breath",
        "of the breath",
        bands.abdomen,
        LEADS,
        ("abdomen_leads", "pattern.chest_first_s"),
        "chest",
        unless="real_breath",
    ),  # fmt: skip
    Criterion("shoulders_still", "shoulder_rise", "breath", "% of trunk", bands.shoulders, STILL, ("shoulders_still",), "shoulder"),
    Criterion("full_breath", "size_pct", "breath", "% of trunk", bands.full_size, MOVING, ("full_breath", "pattern.shallow"), "abdomen"),
    Criterion("axis_level", "instrument_axis_deg", "hold", "deg", bands.axis_level, LEVEL, ("axis_level",), span=None),
    Criterion("axis_to_trunk", "axis_to_trunk_deg", "hold", "deg", bands.axis_to_trunk, TO_TRUNK, ("axis_to_trunk",), span=None),
    Criterion("head_with_flute", "head_to_flute_deg", "hold", "deg", bands.head_with_flute, ALONG_IT, ("head_with_flute",), span=None),
    Criterion("arms_stay_up", "axis_droop_deg", "hold", "deg", bands.arms_stay_up, HELD_UP, ("arms_stay_up",), span=None),
    Criterion("hands_in_order", "hands_order_pct", "hold", "% of trunk", bands.hands_in_order, BOTH_HANDS, ("hands_in_order",), span=None),
    Criterion("elbow_left", "elbow_left_deg", "hold", "deg", bands.elbow, CLEAR, ("elbow",), span=None),
    Criterion("elbow_right", "elbow_right_deg", "hold", "deg", bands.elbow, CLEAR, ("elbow",), span=None),
    Criterion("wrist_left", "wrist_left_deg", "hold", "deg", bands.wrist, FINGERED, ("wrist",), span=None),
    Criterion("wrist_right", "wrist_right_deg", "hold", "deg", bands.wrist, FINGERED, ("wrist",), span=None),
    Criterion("head_travel", "head_travel_pct", "hold", "% of trunk", bands.head_travel, RAISED, ("head_travel",), span=None),
    Criterion("raise_spread", "raise_spread_pct", "hold", "% of trunk", bands.raise_spread, RAISED, ("raise_spread",), span=None),
    Criterion("not_full_early", "full_at_beat", "breath", "beat", bands.full, SPREAD, ("full_early",)),
    Criterion("with_count", "inhale_offset_beats", "breath", "beat", bands.start, COUNTED, ("with_count",)),
    Criterion("inhale_counts", "inhale_beats", "breath", "beats", bands.inhale_length, COUNTED, ("counts",), unless="not_full_early"),
    Criterion("pause", "pause_beats", "breath", "beat", bands.pause, COUNTED, ("pause",), span=("inhale_end", "exhale_start"), unless="not_full_early"),
    Criterion("exhale_with_count", "exhale_offset_beats", "breath", "beat", bands.start, CLOSED, ("with_count",), span=EXHALE, unless="pause"),
    Criterion("exhale_counts", "exhale_beats", "breath", "beats", bands.exhale_length, CLOSED, ("exhale_counts", "with_count.steady"), span=EXHALE),
    Criterion("even_intake", "intake_unevenness", "breath", "of the breath", bands.even, SPREAD, ("even_intake",), unless="not_full_early"),
    Criterion("even_exhale", "exhale_unevenness", "breath", "of the breath", bands.even_out, COUNTED, ("even_exhale",), span=EXHALE),
    Criterion("both_sides", "both_sides", "breath", "of the breath", bands.apart, BOTH, (), span=None),
)


def asked_for(row: Criterion, asked: Asked, *, view: View | None, position: Position | None) -> bool:
    """Whether a check asks for a row at all: then it has a verdict, if only that it is unreadable. Breath is asked of every view; posture of those that the
    check names, or that the clip was filmed from."""
    where, check, rules = row.where, asked.check, asked.rules
    if row.key in rules.off or row.key in rules.exempt or check.kind not in where.kinds:
        return False
    if where.held is not None and where.held != check.held:
        return False
    if where.two_sides and check.contrast == "none":
        return False
    if where.instruments is not None and check.instrument not in where.instruments:
        return False
    if where.positions is not None and position is not None and position not in where.positions:
        return False
    if where.card is not None and (check.card is None or not where.card(check.card)):
        return False
    if row.area == "breath" or where.views is None:
        return True
    return view in where.views if check.view == "auto" else any(served.startswith(check.view) for served in where.views)


OF_THE_COUNT: frozenset[CriterionKey] = frozenset(
    ("not_full_early", "with_count", "inhale_counts", "pause", "exhale_with_count", "exhale_counts", "even_intake", "even_exhale", "both_sides")
)
_AREA_WEIGHS: dict[Area, Importance] = {"posture": "seat", "breath": "breath", "hold": "hold"}
AREAS: dict[str, Area] = {row.key: row.area for row in CRITERIA}
MEASURED: dict[str, str] = {row.key: row.measure for row in CRITERIA}
WEIGHS: dict[str, Importance] = {row.key: "count" if row.key in OF_THE_COUNT else _AREA_WEIGHS[row.area] for row in CRITERIA}
"""What each row belongs to, for which fault is spoken of first."""
GOES_WITH = {
    "abdominal_share": ("chest_lag_s",), "inhale_offset_beats": ("next_offset_beats",), "exhale_unevenness": ("exhale_from_even", "exhale_from_fall"),
    "head_to_flute_deg": ("head_tilt_deg",), "wrist_left_deg": ("finger_curl_left_deg",), "wrist_right_deg": ("finger_curl_right_deg",),
    "feet_flat": ("foot_late_s", "foot_on_beats"),
}  # fmt: skip
"""Numbers that a row takes beside its own: exempt with it."""


def exempt_measures(rules: Rules) -> frozenset[str]:
    """Measures that only exempt criteria judge: they are not measured either."""
    kept = {row.measure for row in CRITERIA if row.key not in rules.exempt}
    dropped = frozenset(row.measure for row in CRITERIA if row.key in rules.exempt) - kept
    return dropped | {other for measure in dropped for other in GOES_WITH.get(measure, ())}
