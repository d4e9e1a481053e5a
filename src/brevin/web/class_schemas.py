"""What goes over the wire of the class: who is in it, what is changed of it, letters, the next lesson."""

from datetime import date, datetime
from typing import Annotated, Literal, Self

from pydantic import BaseModel, Field, model_validator

from brevin.core.kinds import Instrument, Purpose, State
from brevin.core.plan.seating import MOST_ROWS
from brevin.web.list_schemas import SitsOf
from brevin.web.schemas import StudentOut


class ConsentOut(BaseModel):
    """A family's newest word for one purpose; withdrawn_on: when it was taken back."""

    purpose: Purpose
    given_by: str
    from_day: date
    until_day: date
    withdrawn_on: date | None


class MemberOut(BaseModel):
    """seen_at: when the last reading was made; state: the worst of it."""

    student: StudentOut
    seen_at: datetime | None
    state: State | None
    takes: int
    consents: list[ConsentOut]


class GroupOut(BaseModel):
    """A band that rehearses by itself, with who is in it, those who left as well."""

    id: int
    name: str
    student_ids: list[int]


class GroupIn(BaseModel):
    """Who is put into the group of that name."""

    name: str = Field(max_length=120, pattern=r"\S")
    student_ids: list[int] = Field(min_length=1, max_length=1000)


class GroupOf(BaseModel):
    id: int


class GroupPath(BaseModel):
    group_id: int


class OutOfGroup(BaseModel):
    student_ids: list[int] = Field(min_length=1, max_length=1000)


class ClassOut(BaseModel):
    """rows: how they sit from the teacher's stand, keys of students, the nearest row first, each from the teacher's left."""

    members: list[MemberOut]
    rows: list[list[int]]
    instruments: list[Instrument]
    groups: list[GroupOut]


class StudentWords(BaseModel):
    name: str = Field(min_length=1, max_length=120)
    instrument: Instrument
    note: str = Field(default="", max_length=255)


class NewStudentIn(StudentWords):
    sits: SitsOf | None = None


class EditedStudent(StudentWords):
    id: int


class OtherChair(BaseModel):
    id: int
    sits: SitsOf


class OtherInstrument(BaseModel):
    id: int
    instrument: Instrument


class ChangesIn(BaseModel):
    """edit: all that stands of a student, as it is to be; leave: who goes; back: who comes back; drop: who was added by mistake; sits: who gets which chair;
    rows: how everybody sat before."""

    add: list[NewStudentIn] = Field(default=[], max_length=1000)
    edit: list[EditedStudent] = Field(default=[], max_length=1000)
    instruments: list[OtherInstrument] = Field(default=[], max_length=1000)
    leave: list[int] = Field(default=[], max_length=1000)
    back: list[int] = Field(default=[], max_length=1000)
    drop: list[int] = Field(default=[], max_length=1000)
    sits: list[OtherChair] = Field(default=[], max_length=1000)
    rows: list[Annotated[list[int], Field(max_length=1000)]] = Field(default=[], max_length=MOST_ROWS)


class Added(BaseModel):
    ids: list[int]


class ConsentsIn(BaseModel):
    """purposes: what they said yes to; refused: what they said no to; nothing is asked again where a no stands."""

    student_ids: list[int] = Field(min_length=1, max_length=1000)
    given_by: str = Field(min_length=1, max_length=120)
    until_day: date
    purposes: list[Purpose] = Field(default=["filming", "keeping"], max_length=4)
    refused: list[Purpose] = Field(default=[], max_length=4)

    @model_validator(mode="after")
    def _answered(self) -> Self:
        if not self.purposes and not self.refused or set(self.purposes) & set(self.refused):
            raise ValueError("one answer for each purpose, and one at least")
        return self


class WithdrawQuery(BaseModel):
    """What a family takes back; filming takes all that hangs on it."""

    purpose: Purpose = "filming"


class Withdrawn(BaseModel):
    """clips: how many were deleted."""

    clips: int


class Erased(BaseModel):
    """takes, clips: how many were deleted with the student."""

    takes: int
    clips: int


class LessonIn(BaseModel):
    """card_id: null = each on the card of the ladder that is theirs; starts_at: now where it is not said; each_min: minutes a student takes; group_id: whose
    lesson it is, null = everybody's."""

    group_id: int | None = None
    title: str = Field(min_length=1, max_length=120)
    student_ids: list[int] = Field(min_length=1, max_length=1000)
    card_id: int | None
    side: Literal["left", "right"] = "right"
    starts_at: datetime | None = None
    minutes: int = Field(default=40, ge=5, le=240)
    each_min: float = Field(default=1.5, ge=0.5, le=30)
    before_min: float = Field(default=4, ge=0, le=120)
    after_min: float = Field(default=6, ge=0, le=120)


class LessonMade(BaseModel):
    """left: who has to wait for the next lesson."""

    placed: int
    left: list[int]
