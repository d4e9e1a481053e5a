"""What goes over the wire of a class list: its rows, and what they would change."""

from pydantic import BaseModel, Field

from brevin.core.kinds import Instrument
from brevin.core.plan.seating import MOST_CHAIRS, MOST_ROWS


class SitsOf(BaseModel):
    """A chair: its row from the teacher's stand, its place from the teacher's left; the first of both is 1."""

    row: int = Field(ge=1, le=MOST_ROWS)
    chair: int = Field(ge=1, le=MOST_CHAIRS)


class ListRow(BaseModel):
    """A row of a class list. said: what stands where the instrument, or the chair, should; id, was: the student whose instrument or chair would change, and
    what it is; sits: the chair it has."""

    number: int
    name: str
    instrument: Instrument | None
    said: str = ""
    note: str = ""
    id: int | None = None
    was: Instrument | None = None
    sits: SitsOf | None = None


class ChairOut(BaseModel):
    """A chair of the band as a list would change it. student: who sits there now; number: of the row by which somebody would sit there then."""

    student: int | None
    number: int | None


class ListLeft(BaseModel):
    id: int
    name: str
    instrument: Instrument


class ListOut(BaseModel):
    """What a list would change; nothing is changed yet."""

    new: list[ListRow]
    changed: list[ListRow]
    elsewhere: list[ListRow]
    left: list[ListLeft]
    unreadable: list[ListRow]
    unseated: list[ListRow]
    twice: list[ListRow]
    same: int
    chairs: list[list[ChairOut]]
