"""What goes over the wire of what helps with a fault, and of the values of seat, stand and instrument that fit a student."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.core.kinds import Side
from brevin.core.verdict.rules import CriterionKey


class HelpQuery(BaseModel):
    """Which fault. side: low where the value lies under its band."""

    criterion: CriterionKey
    side: Side | None = None


class FitRange(BaseModel):
    """unit; low to high: what can be kept; step: by which it is changed; usual: where one begins."""

    unit: str
    low: float
    high: float
    step: float
    usual: float


class HelpPart(BaseModel):
    """A part of the equipment to look at. look: how it should be; fit: None where there is nothing to measure; value: what fitted, with when and by whom."""

    key: str
    title: str
    look: str
    fit: FitRange | None
    value: float | None
    kept_at: datetime | None
    by: str


class DrillOut(BaseModel):
    title: str
    words: str
    times: int


class HelpsOut(BaseModel):
    """fault: in a few words; parts: what to look at before the child; drill: then this; again: what is looked at once more."""

    fault: str
    parts: list[HelpPart]
    drill: DrillOut
    again: str


class FitOut(BaseModel):
    key: str
    title: str
    value: float
    unit: str


class FitsOut(BaseModel):
    """What fits one student."""

    fits: list[FitOut]


class FitIn(BaseModel):
    """value: None takes it back."""

    key: str = Field(max_length=24)
    value: float | None = Field(allow_inf_nan=False)
