"""The analysis report, schema brevin.analysis/1: frozen records whose names and units are the contract's. Times in seconds from the first video frame."""

import dataclasses
import math
from dataclasses import dataclass
from typing import Any

SCHEMA = "brevin.analysis/1"
DECIMALS = 4


@dataclass(frozen=True)
class Software:
    version: str
    thresholds_id: str
    profile_id: str


@dataclass(frozen=True)
class Clip:
    file: str
    duration_s: float
    frame_rate_hz: float
    width_px: int
    height_px: int
    rotation_deg: int
    has_sound: bool


@dataclass(frozen=True)
class ReadableFor:
    breath: bool
    posture: bool
    hold: bool
    sound: bool


@dataclass(frozen=True)
class Reason:
    """Why a check could not be read, or what to improve. check: all, breath, posture, hold or sound."""

    code: str
    check: str
    message: str
    from_s: float | None
    to_s: float | None


@dataclass(frozen=True)
class PlayerSeen:
    """Who was read. Box in clip pixels. Further keys: hip_px, up and forward, the body's axes in the picture (y down)."""

    from_s: float
    box_px: list[float]
    others: int
    hip_px: list[float]
    up: list[float]
    forward: list[float]


@dataclass(frozen=True)
class Scale:
    trunk_px: float | None
    mm_per_px: float | None
    source: str | None


@dataclass(frozen=True)
class BeatGrid:
    tempo_bpm: float | None
    first_inhale_s: float | None
    source: str | None
    residual_s: float | None


@dataclass(frozen=True)
class Trace:
    """Percent of trunk, + = outward and upward; a region that was not seen is an empty list."""

    t_s: list[float]
    abdomen: list[float]
    chest: list[float]
    shoulder: list[float]
    confidence: list[float]


@dataclass(frozen=True)
class Segment:
    kind: str
    from_s: float
    to_s: float


@dataclass(frozen=True, kw_only=True)
class Breath:
    """One breath; None where a value could not be measured. uncertainty: half width of the 90 % interval of each number."""

    inhale_start_s: float | None = None
    inhale_end_s: float | None = None
    exhale_start_s: float | None = None
    exhale_end_s: float | None = None
    inhale_beats: float | None = None
    pause_beats: float | None = None
    exhale_beats: float | None = None
    empty_beats: float | None = None
    inhale_offset_beats: float | None = None
    exhale_offset_beats: float | None = None
    full_at_beat: float | None = None
    abdomen_amp: float | None = None
    chest_amp: float | None = None
    shoulder_rise: float | None = None
    abdominal_share: float | None = None
    chest_lag_s: float | None = None
    phase_angle_deg: float | None = None
    intake_unevenness: float | None = None
    exhale_unevenness: float | None = None
    exhale_shape: str | None = None
    pattern: str = "unclear"
    card_index: int | None = None
    uncertainty: dict[str, float | None]


@dataclass(frozen=True)
class PostureValue:
    value: float
    uncertainty: float
    n: int
    by_segment: dict[str, float]


@dataclass(frozen=True)
class Posture:
    trunk_inclination_deg: PostureValue | None = None
    back_rounding_pct: PostureValue | None = None
    head_forward_pct: PostureValue | None = None
    head_tilt_deg: PostureValue | None = None
    shoulder_tilt_deg: PostureValue | None = None
    shoulder_height_pct: PostureValue | None = None
    feet_flat: PostureValue | None = None
    sag_deg_per_min: PostureValue | None = None
    sway_pct: PostureValue | None = None


@dataclass(frozen=True)
class Hold:
    instrument: str
    instrument_axis_deg: PostureValue | None = None
    axis_to_trunk_deg: PostureValue | None = None
    elbow_abduction_deg: dict[str, PostureValue | None] | None = None
    wrist_deg: dict[str, PostureValue | None] | None = None
    finger_curl_deg: dict[str, PostureValue | None] | None = None


@dataclass(frozen=True)
class SoundHeard:
    tones: list[dict[str, float]]
    clicks_s: list[float]
    breath_noise: list[dict[str, float]]


@dataclass(frozen=True)
class Mark:
    """What is thought of one breath under a criterion. breath: its place in ``breaths``; lane: the line of the score it is drawn on;
    outside: the value itself lies outside its steady band, not only its interval."""

    breath: int
    state: str
    value: float
    uncertainty: float
    from_s: float
    to_s: float
    lane: str
    words: str
    outside: bool


@dataclass(frozen=True)
class Verdict:
    """state: steady, watch, work or unreadable. threshold: the two limits with which side is good. marks: the same for each breath."""

    criterion: str
    title: str
    state: str
    value: float | None
    unit: str
    threshold: dict[str, float | str] | None
    uncertainty: float | None
    from_s: float | None
    to_s: float | None
    words: str
    outside: bool
    why: str
    cue: str | None
    marks: list[Mark]


@dataclass(frozen=True)
class Report:
    """The whole reading of one clip. cue: the one sentence to say next, with the criterion it comes from."""

    schema: str
    software: Software
    clip: Clip
    view: str | None
    position: str | None
    readable: bool
    readable_for: ReadableFor
    reasons: list[Reason]
    player: PlayerSeen | None
    scale: Scale | None
    beats: BeatGrid
    trace: Trace
    segments: list[Segment]
    breaths: list[Breath]
    partial_breaths: list[Breath]
    posture: Posture
    hold: Hold | None
    drill: dict[str, float] | None
    sound: SoundHeard | None
    verdicts: list[Verdict]
    cue: dict[str, str] | None


def to_json(report: Report) -> dict[str, Any]:
    """The report as plain JSON values, numbers rounded to ``DECIMALS``. Raises ValueError on a number that is not finite."""
    return {key: _plain(value) for key, value in dataclasses.asdict(report).items()}


def _plain(value: Any) -> Any:
    if isinstance(value, dict):
        return {key: _plain(inner) for key, inner in value.items()}
    if isinstance(value, (list, tuple)):
        return [_plain(inner) for inner in value]
    if isinstance(value, float):
        if not math.isfinite(value):
            raise ValueError("a number in the report is not finite")
        return round(value, DECIMALS)
    return value
