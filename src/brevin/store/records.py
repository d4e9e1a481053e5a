"""What ``store`` takes and gives: frozen records, no rows. Times are UTC, days are those of the programme's time zone."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal
from zoneinfo import ZoneInfo

from brevin.core.edited import Edits
from brevin.core.kinds import Felt, Instrument, Purpose, State
from brevin.core.plan.check import Check
from brevin.core.report import Verdict
from brevin.core.verdict.again import Ground
from brevin.core.verdict.headline import Headline
from brevin.core.verdict.rules import Rules
from brevin.store.scope import Acting

TakeState = Literal["queued", "reading", "read", "failed"]
Folder = Literal["clips", "evidence", "filming"]
ChangeKind = Literal["take", "said", "lesson", "bench", "care", "cards", "rules", "people"]
Away = Literal["", "not_here", "not_today"]
Facing = Literal["left", "right"]


class NotThere(LookupError):
    """Nothing with that key in what the caller may see."""


class NameTaken(ValueError):
    """Another of the same kind is called so already."""


class NoConsent(PermissionError):
    """The student may not be filmed on that day."""


@dataclass(frozen=True)
class ProgrammeRecord:
    id: int
    name: str
    time_zone: str

    @property
    def zone(self) -> ZoneInfo:
        """Its time zone: "today" and the days of consents follow it."""
        return ZoneInfo(self.time_zone)


@dataclass(frozen=True)
class PersonRecord:
    id: int
    login: str
    name: str


@dataclass(frozen=True)
class MemberRecord:
    """A person's place in one programme."""

    programme: ProgrammeRecord
    person: PersonRecord
    role: Acting


@dataclass(frozen=True)
class Opened:
    """What a one-time code opens: for whom, by whom it was made."""

    programme_id: int
    person_id: int
    facts: dict[str, str]


@dataclass(frozen=True)
class StudentRecord:
    """may_film_until: last day filming is allowed, None where there is no consent today; may_lie: whether they may lie down for it; exempt: criteria that are
    neither measured nor counted."""

    id: int
    programme_id: int
    name: str
    instrument: Instrument
    note: str
    exempt: tuple[str, ...]
    may_film_until: date | None
    may_lie: bool

    def may_be_asked(self, check: Check) -> bool:
        """Whether the consents that this check needs hold today."""
        return self.may_film_until is not None and (self.may_lie or check.position != "lying")


@dataclass(frozen=True)
class ConsentRecord:
    """A family's newest word for one purpose. withdrawn_on: when it was taken back."""

    purpose: Purpose
    given_by: str
    from_day: date
    until_day: date
    withdrawn_on: date | None


@dataclass(frozen=True)
class CheckRecord:
    """A check that a seat or a take refers to."""

    id: int
    check: Check


@dataclass(frozen=True)
class CardRecord:
    """A card of the programme's ladder. title: of its rung; students: whose newest take was on it."""

    id: int
    rung: int
    title: str
    check: Check
    students: int


@dataclass(frozen=True)
class ClipRecord:
    """stored_name, playable_name: files below the clips folder; playable_name is empty until there is one a browser plays. blurred_for: the place of the
    player about whom all else is blurred, among those who are followed, or ``NOBODY_ELSE``, ``UNCHOSEN``, ``LEFT`` (core/pose/others.py); None while it is
    to be looked at."""

    stored_name: str
    original_name: str
    sha256: str
    size_bytes: int
    playable_name: str = ""
    playable_type: str = ""
    blurred_for: int | None = None

    @property
    def others_blurred(self) -> bool:
        """Whether others are in it, and were blurred."""
        return self.blurred_for is not None and self.blurred_for >= 0


@dataclass(frozen=True)
class HeadlineRecord:
    """The newest report in one line, with its version."""

    line: Headline
    report_version: int


@dataclass(frozen=True)
class TakeRecord:
    """progress: 0 to 1; first_inhale_s: due time on the clip's clock where the app kept the count; evidence_name, stills_name: files below the evidence
    folder, the second "" where the report shows no still; felt: what the student said before the reading was there; sent_as: a recording's own name in the
    browser it was filmed in."""

    id: str
    programme_id: int
    student: StudentRecord
    lesson_id: int | None
    made_at: datetime
    asked: CheckRecord
    first_inhale_s: float | None
    rules: Rules
    edits: Edits
    try_number: int
    state: TakeState
    stage: str
    progress: float
    reason_code: str
    reason_facts: dict[str, float | str]
    attempts: int
    clip: ClipRecord | None
    evidence_name: str
    stills_name: str
    headline: HeadlineRecord | None
    felt: Felt
    sent_as: str | None

    @property
    def refused(self) -> bool:
        """Whether the file was never taken in: on record with its reason, but no try."""
        return self.state == "failed" and self.clip is None and not self.evidence_name

    @property
    def shows_stills(self) -> bool:
        """Whether there are stills that may be seen: not before its clip may."""
        return bool(self.stills_name) and (self.clip is None or bool(self.clip.playable_name))

    @property
    def columns(self) -> dict[str, object]:
        """Of a row about this take, by which it is asked for."""
        return {
            "programme": self.programme_id, "student": self.student.id, "take": self.id, "instrument": self.asked.check.instrument, "made_at": self.made_at,
        }  # fmt: skip


@dataclass(frozen=True)
class NewReport:
    """A report to be stored: document as JSON text, its line for lists, what made it, and its numbers and verdicts as rows. ground: None where nobody was
    read."""

    document: str
    readable: bool
    headline: Headline
    software_version: str
    thresholds_id: str
    profile_id: str
    ground: Ground | None = None
    verdicts: tuple[Verdict, ...] = ()
    stills_s: tuple[float, ...] = ()


@dataclass(frozen=True)
class ReportRecord:
    """document: the report as JSON text, schema brevin.analysis/1, without its sentences."""

    take_id: str
    version: int
    made_at: datetime
    software_version: str
    thresholds_id: str
    profile_id: str
    readable: bool
    document: str


@dataclass(frozen=True)
class SeatRecord:
    """One chair of a lesson. minute: when it is due; take: the last one of this lesson; rest_s: how long the student still breathes as usual before the
    next counted breath."""

    id: int
    place: int
    minute: float
    asked: CheckRecord
    side: Facing
    away: Away
    student: StudentRecord
    take: TakeRecord | None
    rest_s: float


@dataclass(frozen=True)
class InFront:
    """seat_id: key of the chair; number: counts the changes, so that a late answer is told from a new one."""

    seat_id: int
    number: int


@dataclass(frozen=True)
class LessonRecord:
    """seats_now: by session, what is in front on its screens: a page and the phones that film for it."""

    id: int
    title: str
    group_name: str
    starts_at: datetime
    minutes: int
    seats_now: dict[str, InFront]
    seats: tuple[SeatRecord, ...]


@dataclass(frozen=True)
class TodayRecord:
    """lesson: None before the first; just_made: takes made lately, newest first; last_time: by student who waits, the newest earlier take that was read;
    usual_read_s: how long a reading takes."""

    lesson: LessonRecord | None
    just_made: tuple[TakeRecord, ...]
    last_time: dict[int, TakeRecord]
    usual_read_s: float


@dataclass(frozen=True)
class ResultRecord:
    """One verdict or number of a take, as it is asked for by student, criterion, instrument and time. overruled: what the teacher says instead."""

    take_id: str
    student_id: int
    key: str
    instrument: str
    made_at: datetime
    value: float | None
    half_width: float | None
    state: State | None = None
    withheld: str = ""
    breath: int | None = None
    steady_breaths: int | None = None
    counted_breaths: int | None = None
    overruled: str = ""


@dataclass(frozen=True)
class LetGo:
    """A file that is nobody's any more. folder: clips or evidence."""

    folder: Folder
    name: str


@dataclass(frozen=True)
class ChangeRecord:
    """Something that open pages are to know."""

    id: int
    programme_id: int
    kind: ChangeKind
    ref: str
