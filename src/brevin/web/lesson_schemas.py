"""What is asked of the line of chairs."""

from pydantic import BaseModel, Field

from brevin.store.records import Away


class LessonPath(BaseModel):
    lesson_id: int


class InFrontIn(BaseModel):
    seat_id: int


class OrderIn(BaseModel):
    """The lesson's chairs, each once, in the order in which they come."""

    seat_ids: list[int] = Field(max_length=1000)


class SeatPath(BaseModel):
    seat_id: int


class SeatCard(BaseModel):
    card_id: int


class SeatChange(BaseModel):
    away: Away


class CountedIn(BaseModel):
    """Counted breaths in a row that were not filmed, and how long they took."""

    breaths: int = Field(ge=1, le=20)
    lasted_s: float = Field(gt=0, le=1800, allow_inf_nan=False)
