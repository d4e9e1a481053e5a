"""What goes over the wire of a reading beside earlier days."""

from datetime import date

from pydantic import BaseModel, Field

from brevin.core.kinds import State
from brevin.core.verdict.earlier import Move

MOST_ASKED = 60


class EarlierQuery(BaseModel):
    """takes: their keys, with commas between them."""

    takes: str = Field(pattern=r"^[0-9a-f]{32}(,[0-9a-f]{32})*$", max_length=33 * MOST_ASKED)

    @property
    def ids(self) -> list[str]:
        """The keys."""
        return self.takes.split(",")


class MarkOut(BaseModel):
    take_id: str
    day: date
    state: State


class EarlierOut(BaseModel):
    """marks: earlier days, the oldest first; running: days in a row with the same first fault, this one among them, 0 where it is new; move, to: along the
    ladder, and to which card."""

    marks: list[MarkOut]
    running: int
    steady_since: date | None
    move: Move
    to: str


class PastOut(BaseModel):
    takes: dict[str, EarlierOut]
