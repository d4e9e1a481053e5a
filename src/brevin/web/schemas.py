"""What goes over the wire, as types: the front end's are generated from these. The report's own types come from ``core.report``."""

from datetime import date, datetime
from typing import Literal

from pydantic import BaseModel, Field, RootModel

from brevin.core.report import Report

TakeState = Literal["queued", "reading", "read", "failed"]
Away = Literal["", "not_here", "not_today"]
VerdictState = Literal["steady", "watch", "work", "unreadable"]


class SignIn(BaseModel):
    login: str = Field(max_length=64)
    password: str = Field(max_length=256)


class Me(BaseModel):
    """Who is signed in; name is null before. csrf goes back in the X-CSRFToken header of every change."""

    name: str | None
    role: str | None
    csrf: str


class StudentOut(BaseModel):
    id: int
    name: str
    instrument: str
    note: str
    may_film_until: date | None


class HeadlineOut(BaseModel):
    state: VerdictState
    words: str
    cue: str
    report_version: int


class ClipOut(BaseModel):
    """url is null until a browser can play the clip."""

    original_name: str
    size_bytes: int
    url: str | None
    type: str


class TakeOut(BaseModel):
    id: str
    student: StudentOut
    made_at: datetime
    card: str
    instrument: str
    try_number: int
    state: TakeState
    stage: str
    progress: float
    reason_code: str
    reason_text: str
    clip: ClipOut | None
    headline: HeadlineOut | None


class TakeList(BaseModel):
    takes: list[TakeOut]


class SeatOut(BaseModel):
    id: int
    place: int
    minute: float
    card: str
    position: str
    side: str
    away: Away
    student: StudentOut
    take: TakeOut | None


class LessonOut(BaseModel):
    id: int
    title: str
    group_name: str
    minutes: int
    seats: list[SeatOut]


class TodayOut(BaseModel):
    """lesson is null before the first one is planned."""

    lesson: LessonOut | None
    just_read: list[TakeOut]
    last_time: dict[int, TakeOut]


class SeatChange(BaseModel):
    away: Away


class StudentList(BaseModel):
    students: list[StudentOut]


class ReportOut(RootModel[Report]):
    """The report's own records, described as they are."""


class NewTake(BaseModel):
    """Query of an upload; the body is the clip itself."""

    student_id: int
    card: str = Field(default="", max_length=48)
    lesson_id: int | None = None
    file_name: str = Field(default="clip", max_length=160)
    first_inhale_s: float | None = Field(default=None, ge=0, le=60, description="where the app's own count stood on the clip's clock")


class Done(BaseModel):
    done: bool
