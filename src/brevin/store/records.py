"""What ``store`` takes and gives: frozen records, no rows. Times are UTC."""

from dataclasses import dataclass
from datetime import date, datetime


class NotThere(LookupError):
    """Nothing with that key."""


class NoConsent(PermissionError):
    """The student may not be filmed on that day."""


@dataclass(frozen=True)
class TeacherRecord:
    id: int
    login: str
    name: str
    role: str


@dataclass(frozen=True)
class StudentRecord:
    """may_film_until: last day filming is allowed, None where there is no consent today."""

    id: int
    name: str
    instrument: str
    note: str
    may_film_until: date | None


@dataclass(frozen=True)
class ClipRecord:
    """stored_name, playable_name: files below the clips folder; playable_name is empty until there is one a browser plays."""

    stored_name: str
    original_name: str
    sha256: str
    size_bytes: int
    playable_name: str
    playable_type: str


@dataclass(frozen=True)
class TakeRecord:
    """state: queued, reading, read or failed; progress: 0 to 1; first_inhale_s: due time on the clip's clock where the app kept the count."""

    id: str
    student: StudentRecord
    made_at: datetime
    card: str
    first_inhale_s: float | None
    instrument: str
    try_number: int
    state: str
    stage: str
    progress: float
    reason_code: str
    reason_text: str
    attempts: int
    clip: ClipRecord | None
    headline: "HeadlineRecord | None"


@dataclass(frozen=True)
class HeadlineRecord:
    """The last report in one line: worst state of its verdicts, words, the cue."""

    state: str
    words: str
    cue: str
    report_version: int


@dataclass(frozen=True)
class NewReport:
    """A report to be stored: document as JSON text, its line for lists, and what made it."""

    document: str
    readable: bool
    state: str
    words: str
    cue: str
    software_version: str
    thresholds_id: str
    profile_id: str


@dataclass(frozen=True)
class ReportRecord:
    """document: the report as JSON text, schema brevin.analysis/1."""

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
    """One chair of a lesson. minute: when it is due; away: empty, not_here or not_today; take: the last one of this lesson."""

    id: int
    place: int
    minute: float
    card: str
    position: str
    side: str
    away: str
    student: StudentRecord
    take: TakeRecord | None


@dataclass(frozen=True)
class LessonRecord:
    id: int
    title: str
    group_name: str
    starts_at: datetime
    minutes: int
    seats: tuple[SeatRecord, ...]
