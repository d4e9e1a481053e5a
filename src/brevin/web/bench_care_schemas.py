"""What goes over the wire of care, passports and repairs."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.core.handling.cards import Who
from brevin.web.bench_schemas import BenchChair


class CareRow(BaseModel):
    """last_at: when it was done last; days_left: negative when over, None where it was never logged; applies: whether it is this instrument's and was shown."""

    student: int
    last_at: datetime | None
    days_left: int | None
    due: bool
    today: bool
    applies: bool


class CareTaskOut(BaseModel):
    key: str
    title: str
    does: str
    every_days: int
    say: str
    drops: int
    rice: int
    who: Who
    shown: bool
    drawing: str
    rows: list[CareRow]


class RepairOut(BaseModel):
    id: int
    student: int
    what: str
    said_at: datetime
    done_at: datetime | None


class CareOut(BaseModel):
    """due: chairs with something due, by card."""

    card: str
    section: str
    chairs: list[BenchChair]
    tasks: list[CareTaskOut]
    repairs: list[RepairOut]
    due: dict[str, int]


class CareIn(BaseModel):
    """but: students that are left out."""

    card: str = Field(max_length=16)
    task: str = Field(max_length=24)
    but: list[int] = Field(default=[], max_length=200)


class CareLogged(BaseModel):
    """undo: what takes it back."""

    undo: str
    students: list[int]


class UndoPath(BaseModel):
    undo: str = Field(max_length=32)


class PassportOut(BaseModel):
    """answers: to the card's own questions; shown: tasks and parts that were shown; values: own values by key."""

    answers: dict[str, bool]
    shown: list[str]
    size: str
    number: str
    own: bool
    values: dict[str, float]


class PassportIn(BaseModel):
    answers: dict[str, bool] = Field(default={}, max_length=20)
    shown: list[str] = Field(default=[], max_length=40)
    size: str = Field(default="", max_length=40)
    number: str = Field(default="", max_length=40)
    own: bool = False


class ValueIn(BaseModel):
    """value: None takes it back; sure: it was asked back, and is meant."""

    key: str = Field(max_length=24)
    value: float | None = Field(allow_inf_nan=False)
    sure: bool = False


class RepairIn(BaseModel):
    what: str = Field(min_length=2, max_length=160)


class RepairPath(BaseModel):
    repair_id: int


class RepairedIn(BaseModel):
    done: bool
