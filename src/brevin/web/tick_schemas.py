"""What goes over the wire of what no camera sees, and of what a teacher says instead of a verdict."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.core.hold.ticks import Near, TickState
from brevin.core.kinds import Side, State
from brevin.core.verdict.rules import CriterionKey


class SpotOut(BaseModel):
    """Where to look, trunk lengths from the key point of mouth or hand, or from the middle of the hips:
    ahead of it from the side, beside it from the front, above it."""

    ahead: float
    beside: float
    up: float


class TickOut(BaseModel):
    """near: on which part of the still; spot: and where there; fine: how it should be; wrong: the usual wrong place; state: None where nobody looked."""

    key: str
    near: Near
    spot: SpotOut
    title: str
    fine: str
    wrong: str
    state: TickState | None


class TicksOut(BaseModel):
    """In the order in which they are looked at."""

    items: list[TickOut]


class OverruledOut(BaseModel):
    """by: "" where they have left."""

    criterion: str
    state: State
    reason: str
    by: str
    said_at: datetime


class OverrulesOut(BaseModel):
    overrules: list[OverruledOut]


class CueQuery(BaseModel):
    """Which criterion's cue. side: low where the value lies under its band."""

    criterion: CriterionKey
    side: Side | None = None


class CueRecordOut(BaseModel):
    """ways: every way to say it; first: the one that was said, else that helped this student before, else the usual one; said: after this take; of all
    tries with the fault that were followed by another in the same sitting, how many there were and how many were better."""

    ways: list[str]
    first: int
    said: bool
    better_after: int
    after: int
    better_without: int
    without: int


class RepetitionsOut(BaseModel):
    """correct, tries: of this card, this student's up to this take; holds_after: so many correct ones it usually takes here, null where that is not known."""

    correct: int
    tries: int
    holds_after: int | None


class SinceFirstOut(BaseModel):
    """take_id, minutes: the first take of the sitting and how long before this one; sunk: what is said of it, nothing where nothing clearly sank."""

    take_id: str | None = None
    minutes: int = 0
    sunk: list[str] = []


class TickIn(BaseModel):
    """state: None takes the tick back."""

    item: str = Field(max_length=24)
    state: TickState | None
