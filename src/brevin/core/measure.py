"""One record for every number of breath, posture, hold, drill and sound: what it is, how sure it is, and where it belongs.

A number that could not be measured is a value as well: ``NotMeasured`` with the code of its reason. The sentences for the codes are in
``core.verdict.reasons``; the formulas in the functions named in docs/method.md.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from brevin.core.kinds import SegmentKind

Withheld = Literal[
    "no_beats", "no_card", "open_exhale", "cut_by_clip", "region_unseen", "too_small", "too_short_to_tell", "off_the_card", "exempt", "breath_unreadable",
    "view_unserved", "lying", "another_count_in", "by_ear", "one_side_only", "not_found", "not_raised", "raised_once", "held_briefly", "seen_briefly",
    "points_apart", "arm_crosses", "arms_across", "points_elsewhere", "face_hidden", "hand_unseen", "feet_unseen", "not_looked", "too_unsure",
    "not_tapped", "off_the_beat",
]  # fmt: skip
NORMAL_90 = 1.645  # standard deviations to the half width of a 90 % interval


@dataclass(frozen=True)
class NotMeasured:
    """reason: why there is no number."""

    reason: Withheld


@dataclass(frozen=True)
class Amount:
    """A number with the half width of its 90 % interval, same unit."""

    value: float
    half_width: float


Value = Amount | NotMeasured


@dataclass(frozen=True)
class Measure:
    """key: a row of ``UNITS``; breath: its place in the report's breaths, None for the whole clip; segment: the part of the clip it was taken over, None = all;
    samples: how many it was taken from."""

    key: str
    value: Value
    breath: int | None = None
    segment: SegmentKind | None = None
    samples: int = 1

    @property
    def unit(self) -> str:
        """Of the number and its half width."""
        return UNITS[self.key]

    @property
    def amount(self) -> Amount | None:
        """The number, None where it was not measured."""
        return self.value if isinstance(self.value, Amount) else None


UNITS: dict[str, str] = {
    "inhale_start_s": "s", "inhale_end_s": "s", "exhale_start_s": "s", "exhale_end_s": "s",
    "inhale_beats": "beats", "pause_beats": "beats", "exhale_beats": "beats", "empty_beats": "beats",
    "inhale_offset_beats": "beats", "exhale_offset_beats": "beats", "full_at_beat": "beats",
    "abdomen_amp": "% of trunk", "chest_amp": "% of trunk", "shoulder_rise": "% of trunk", "abdominal_share": "share",
    "size_pct": "% of trunk", "chest_lag_s": "s", "against_pct": "% of trunk", "next_offset_beats": "beats",
    "phase_angle_deg": "deg", "intake_unevenness": "share", "exhale_unevenness": "share",
    "exhale_from_even": "share", "exhale_from_fall": "share",
    "both_sides": "share", "instrument_axis_deg": "deg", "axis_to_trunk_deg": "deg", "axis_below_mouth_pct": "% of trunk", "axis_droop_deg": "deg",
    "elbow_left_deg": "deg", "elbow_right_deg": "deg", "wrist_left_deg": "deg", "wrist_right_deg": "deg", "finger_curl_left_deg": "deg",
    "finger_curl_right_deg": "deg", "head_travel_pct": "% of trunk", "raise_spread_pct": "% of trunk",
    "trunk_inclination_deg": "deg", "back_rounding_pct": "% of trunk", "head_forward_pct": "% of trunk", "head_tilt_deg": "deg", "head_to_flute_deg": "deg",
    "hands_order_pct": "% of trunk",
    "shoulder_tilt_deg": "deg", "shoulder_height_pct": "% of trunk", "feet_flat": "share", "foot_late_s": "s", "foot_on_beats": "share",
    "sag_deg": "deg", "sag_deg_per_min": "deg/min", "sway_pct": "% of trunk",
}  # fmt: skip
"""Every number there is, with its unit."""


def of_key(measures: Iterable[Measure], key: str) -> list[Measure]:
    """The measures of one key, in their order."""
    return [m for m in measures if m.key == key]


def withheld(measures: Sequence[Measure], keys: Iterable[str], reason: Withheld) -> list[Measure]:
    """The same measures, those of the given keys without their number."""
    hidden = set(keys)
    return [Measure(m.key, NotMeasured(reason), m.breath, m.segment, m.samples) if m.key in hidden else m for m in measures]
