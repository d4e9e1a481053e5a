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


class SeatChange(BaseModel):
    away: Away
