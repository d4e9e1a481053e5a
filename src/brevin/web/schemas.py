"""What goes over the wire, as types: the front end's are generated from these. The report's own types come from ``core.report``."""

from datetime import date, datetime

from pydantic import BaseModel, Field, RootModel

from brevin.core.kinds import Articulation, AskedPosition, AskedView, CheckKind, Contrast, Dynamic, Felt, FeltQuestion, Instrument, Side, State
from brevin.core.report import Report
from brevin.core.verdict.rules import CriterionKey
from brevin.core.verdict.schools import Question
from brevin.store.records import Away, Facing, TakeState
from brevin.store.scope import Acting, Role
from brevin.web.permissions import Permission


class ProgrammeOut(BaseModel):
    id: int
    name: str
    time_zone: str


class Me(BaseModel):
    """Who is signed in; name is null before. may: what this role is allowed to; csrf goes back in the X-CSRFToken header of every change."""

    name: str | None
    role: Acting | None
    programme: ProgrammeOut | None
    programmes: list[ProgrammeOut]
    may: list[Permission]
    csrf: str
    empty: bool = Field(default=False, description="nobody has an account yet")


class CardOut(BaseModel):
    """A count card, lengths in beats; exhale_beats null = as long as it lasts."""

    inhale_beats: float
    pause_beats: float
    exhale_beats: float | None
    empty_beats: float
    tempo_bpm: float
    cycles: int
    countin_beats: float


class CheckOut(BaseModel):
    """What is asked; id: of what a chair or a take asks, 0 of a card; name: the card's short notation, or the kind; shown: address of the teacher's own
    demonstration, empty where there is none."""

    id: int
    name: str
    kind: CheckKind
    card: CardOut | None
    view: AskedView
    position: AskedPosition
    instrument: Instrument
    with_instrument: bool
    asks: FeltQuestion
    full_breath: bool
    countin_words: list[str]
    contrast: Contrast
    sets: list[CardOut]
    shown: str
    taught: dict[Question, str]
    notes: str
    dynamic: Dynamic
    articulation: Articulation


class StudentOut(BaseModel):
    id: int
    name: str
    instrument: Instrument
    note: str
    exempt: list[str]
    may_film_until: date | None
    may_lie: bool


class HeadlineOut(BaseModel):
    """The line of a list, with the teacher's own word in it where verdicts were seen otherwise. cue_criterion: what the cue is for, "" where there is none;
    hidden: arms or instrument hid some of what the check asks for, so that the same is better asked for without it."""

    state: State
    words: str
    cue: str
    cue_criterion: str
    cue_side: Side | None
    hidden: bool
    report_version: int


class ClipOut(BaseModel):
    """url is null until a browser can play the clip; others_blurred: others were in the picture, and all but the player is blurred; coming: once they are."""

    original_name: str
    size_bytes: int
    url: str | None
    type: str
    others_blurred: bool
    coming: bool


class TakeOut(BaseModel):
    """judged_anew: whether it can be judged without its clip being read again; felt: what the student said before the reading was there;
    filmed: in the page, so it is read before files that were added; stills: where the pictures of the report's stills are, each by its moment in ms."""

    id: str
    student: StudentOut
    filmed: bool
    made_at: datetime
    check: CheckOut
    instrument: Instrument
    try_number: int
    state: TakeState
    stage: str
    progress: float
    reason_code: str
    reason_text: str
    clip: ClipOut | None
    stills: str | None
    judged_anew: bool
    felt: Felt
    headline: HeadlineOut | None


class TakeList(BaseModel):
    takes: list[TakeOut]


class SeatOut(BaseModel):
    id: int
    place: int
    minute: float
    check: CheckOut
    side: Facing
    away: Away
    student: StudentOut
    take: TakeOut | None
    rest_s: float = Field(description="how long the student still breathes as usual before the next counted breath")


class InFrontOut(BaseModel):
    """number: counts the changes, so that a late answer is told from a new one."""

    seat_id: int
    number: int


class LessonOut(BaseModel):
    """seat_now: the chair in front, on this page and the phones that film for it."""

    id: int
    title: str
    group_name: str
    starts_at: datetime
    minutes: int
    seat_now: InFrontOut | None
    seats: list[SeatOut]


class TodayOut(BaseModel):
    """lesson is null before the first one is planned; usual_read_s: how long a reading takes, for those who wait for one."""

    lesson: LessonOut | None
    just_read: list[TakeOut]
    last_time: dict[int, TakeOut]
    usual_read_s: float


class StudentList(BaseModel):
    students: list[StudentOut]


class StudentPath(BaseModel):
    student_id: int


class ExemptChange(BaseModel):
    exempt: list[str] = Field(max_length=64)


class ExemptionChangeOut(BaseModel):
    """A criterion that was left out (out_now) or taken in again; by: "" where they have left."""

    criterion: CriterionKey
    out_now: bool
    by: str
    made_at: datetime


class ExemptionChanges(BaseModel):
    changes: list[ExemptionChangeOut]


class ConsentIn(BaseModel):
    given_by: str = Field(min_length=1, max_length=120)
    from_day: date
    until_day: date


class ResultOut(BaseModel):
    """One verdict of one take; overruled: what the teacher says instead, or empty."""

    take_id: str
    criterion: str
    instrument: str
    made_at: datetime
    state: State
    value: float | None
    half_width: float | None
    steady_breaths: int | None
    counted_breaths: int | None
    overruled: str


class ResultList(BaseModel):
    results: list[ResultOut]


class ResultQuery(BaseModel):
    criterion: str | None = Field(default=None, max_length=32)
    instrument: str | None = Field(default=None, max_length=24)
    since: datetime | None = None


class TakePath(BaseModel):
    take_id: str = Field(max_length=32)


class StillPath(TakePath):
    at_ms: int = Field(ge=0)


class ReportOut(RootModel[Report]):
    """The report's own records, described as they are, with their sentences."""


class NewTake(BaseModel):
    """Query of an upload; the body is the clip itself. seat_id: the chair whose check it was filmed for, else the check by its parts, card in its short
    notation, empty without a count."""

    student_id: int
    seat_id: int | None = None
    asked_id: int | None = Field(default=None, description="what the chair asked when the count began, where it has been given another card since")
    set_number: int = Field(default=0, ge=0, le=7, description="which set of the chair's card, from 0")
    card: str = Field(default="", max_length=48)
    kind: CheckKind = "counted_breathing"
    view: AskedView = "auto"
    position: AskedPosition = "auto"
    with_instrument: bool = False
    without_it: bool = Field(default=False, description="the chair's check, but for this once without the instrument")
    from_front: bool = Field(default=False, description="the chair's check, but for this once from the front, which tells the shoulders")
    lesson_id: int | None = None
    file_name: str = Field(default="clip", max_length=160)
    first_inhale_s: float | None = Field(default=None, ge=0, le=60, description="where the app's own count stood on the clip's clock")
    sent_as: str | None = Field(default=None, pattern="^[0-9a-f-]{36}$", description="own name of a recording made in the page: sent twice, it is one take")
    came_bytes: int | None = Field(default=None, ge=1, description="the clip came already, in pieces while it was filmed, so long; then there is no body")
    felt: Felt = ""


class FeltIn(BaseModel):
    felt: Felt


class OverruleIn(BaseModel):
    """What the teacher says instead of a verdict, of one breath or of the clip; without a state it is taken back."""

    criterion: str = Field(max_length=32)
    state: State | None
    reason: str = Field(default="", max_length=255)
    breath: int | None = Field(default=None, ge=0, le=500)


class CueIn(BaseModel):
    """way: in which of the cue's words."""

    criterion: CriterionKey
    side: Side | None = None
    way: int = Field(default=0, ge=0, le=20)


class MoveIn(BaseModel):
    student_id: int


class RulesOut(BaseModel):
    """The programme's own layer and those of its instruments, as documents."""

    programme: dict[str, object]
    instruments: dict[str, dict[str, object]]


class RulesIn(BaseModel):
    """A layer's document; instrument null = the programme's own."""

    instrument: Instrument | None = None
    document: dict[str, object]


class PersonOut(BaseModel):
    login: str
    name: str
    role: Acting


class PersonList(BaseModel):
    people: list[PersonOut]


class PersonIn(BaseModel):
    login: str = Field(min_length=2, max_length=64)
    name: str = Field(min_length=1, max_length=120)
    role: Role
    password: str = Field(min_length=10, max_length=256)


class Done(BaseModel):
    done: bool
