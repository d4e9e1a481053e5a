"""The analysis report, schema brevin.analysis/1: frozen records whose names and units are the contract's. Times in seconds from the first video frame.

What is stored are codes, facts and numbers; the fields that hold sentences stay empty until ``core.verdict.wording`` fills them for whoever looks.
"""

from dataclasses import dataclass, field

from brevin.core.edited import Edits
from brevin.core.kinds import CheckArea, ExhaleShape, GridSource, Lane, Pattern, Position, SegmentKind, Side, State, View
from brevin.core.measure import Amount
from brevin.core.player_seen import PlayerSeen
from brevin.core.track import ClipFacts

SCHEMA = "brevin.analysis/1"


@dataclass(frozen=True)
class Software:
    version: str
    thresholds_id: str
    profile_id: str


@dataclass(frozen=True)
class ReadableFor:
    breath: bool
    posture: bool
    hold: bool
    sound: bool


@dataclass(frozen=True)
class Reason:
    """Why a check could not be read, or what to improve. facts: values for its sentence."""

    code: str
    check: CheckArea
    from_s: float | None
    to_s: float | None
    facts: dict[str, float | str] = field(default_factory=dict)
    message: str = ""


@dataclass(frozen=True)
class Scale:
    trunk_px: float | None
    mm_per_px: float | None
    source: str | None


@dataclass(frozen=True)
class BeatGrid:
    tempo_bpm: float | None
    first_inhale_s: float | None
    source: GridSource | None
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
    kind: SegmentKind
    from_s: float
    to_s: float


@dataclass(frozen=True, kw_only=True)
class Breath:
    """One breath; None where a value could not be measured, and ``withheld`` says why. uncertainty: half width of the 90 % interval of each number;
    pattern_or: the other pattern that the intervals hold as well; words: both as they are said."""

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
    next_offset_beats: float | None = None
    full_at_beat: float | None = None
    abdomen_amp: float | None = None
    chest_amp: float | None = None
    shoulder_rise: float | None = None
    size_pct: float | None = None
    abdominal_share: float | None = None
    chest_lag_s: float | None = None
    against_pct: float | None = None
    phase_angle_deg: float | None = None
    intake_unevenness: float | None = None
    exhale_unevenness: float | None = None
    exhale_shape: ExhaleShape | None = None
    pattern: Pattern = "unclear"
    pattern_or: Pattern | None = None
    words: str = ""
    card_index: int | None = None
    on_purpose: bool = False  # the other side of a card that asks for both: shown, not judged
    uncertainty: dict[str, float | None]
    withheld: dict[str, str] = field(default_factory=dict)


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
    foot_late_s: PostureValue | None = None
    foot_on_beats: PostureValue | None = None
    sag_deg: PostureValue | None = None
    sag_deg_per_min: PostureValue | None = None
    sway_pct: PostureValue | None = None


@dataclass(frozen=True)
class StillSeen:
    """kind: rest, raising, playing; lines_px: trunk, then each arm that the camera sees, to the knuckles where they were found; all in the clip's pixels."""

    kind: str
    t_s: float
    mouth_px: list[float]
    left_hand_px: list[float]
    right_hand_px: list[float]
    lines_px: list[list[list[float]]] = field(default_factory=list)


@dataclass(frozen=True)
class HandsSeen:
    """How high the hands on the instrument were, percent of trunk above the mouth (under 0: below it); raised: how often; stills: moments worth a picture."""

    t_s: list[float]
    height_pct: list[float]
    raised: int
    stills: list[StillSeen]


@dataclass(frozen=True)
class Hold:
    """hands: None without an instrument; axis_px: x, y and x, y of its axis from the mouth on, clip pixels; mouthpiece_to_face_deg: ticked by hand, so None."""

    instrument: str
    instrument_axis_deg: PostureValue | None = None
    axis_to_trunk_deg: PostureValue | None = None
    elbow_abduction_deg: dict[str, PostureValue | None] | None = None
    wrist_deg: dict[str, PostureValue | None] | None = None
    finger_curl_deg: dict[str, PostureValue | None] | None = None
    axis_px: list[float] | None = None
    head_travel_pct: PostureValue | None = None
    raise_spread_pct: PostureValue | None = None
    axis_droop_deg: PostureValue | None = None
    head_to_flute_deg: PostureValue | None = None
    hands_order_pct: PostureValue | None = None
    mouthpiece_to_face_deg: PostureValue | None = None
    hands: HandsSeen | None = None


@dataclass(frozen=True)
class SoundHeard:
    tones: list[dict[str, float]]
    clicks_s: list[float]
    breath_noise: list[dict[str, float]]


@dataclass(frozen=True)
class Mark:
    """What is thought of one breath under a criterion. breath: its place in ``breaths``; lane: of the score; outside: the value itself is, on which side."""

    breath: int
    state: State
    value: float
    uncertainty: float
    from_s: float
    to_s: float
    lane: Lane
    outside: bool
    side: Side | None = None
    words: str = ""


@dataclass(frozen=True)
class Verdict:
    """threshold: limits with which side is good; steady of counted breaths: what the state was counted from; reason: code why it is unreadable; area: breath,
    posture or hold, and by_segment: what a row of posture came to in each kind of segment, both filled in with the sentences."""

    criterion: str
    state: State
    value: float | None
    unit: str
    threshold: dict[str, float] | None
    uncertainty: float | None
    from_s: float | None
    to_s: float | None
    outside: bool
    marks: list[Mark]
    side: Side | None = None
    steady_breaths: int | None = None
    counted_breaths: int | None = None
    reason: str | None = None
    facts: dict[str, float | str] = field(default_factory=dict)
    title: str = ""
    words: str = ""
    line: str = ""
    why: str = ""
    cue: str | None = None
    area: str = ""
    by_segment: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Exempt:
    """What is asked for of everybody else: neither measured nor counted for this student."""

    criterion: str
    title: str = ""


@dataclass(frozen=True)
class Cue:
    """The one sentence to say next. criterion: the one it comes from, ``all`` for praise; side: of its fault."""

    criterion: str
    side: Side | None = None
    text: str = ""


@dataclass(frozen=True)
class Report:
    """The whole reading of one clip. check, rules: the documents it was read for and judged by; edits: what a person changed; people: how many can be read;
    own_full: the student's own full breath, % of trunk, that sizes were held against; exempt: what the check asks for and the student is exempt from;
    breathed: what most of the breaths were like, in words."""

    schema: str
    software: Software
    clip: ClipFacts
    view: View | None
    position: Position | None
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
    cue: Cue | None
    check: dict[str, object] = field(default_factory=dict)
    rules: dict[str, object] = field(default_factory=dict)
    edits: Edits = field(default_factory=Edits)
    people: int = 1
    own_full: Amount | None = None
    exempt: list[Exempt] = field(default_factory=list)
    breathed: str = ""

    @property
    def stills_s(self) -> tuple[float, ...]:
        """The moments that are shown as pictures of their own."""
        return tuple(still.t_s for still in self.hold.hands.stills) if self.hold and self.hold.hands else ()
