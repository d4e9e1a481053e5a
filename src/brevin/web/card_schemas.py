"""What goes over the wire of the ladder of count cards."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from brevin.core.kinds import Articulation, AskedPosition, Contrast, Dynamic, FeltQuestion
from brevin.core.plan.check import LONGEST_NOTES
from brevin.core.verdict.schools import FLIPPING, Question
from brevin.web.schemas import CheckOut


class LadderCard(BaseModel):
    """title: of its rung; lasts_s: the whole run with its count-in; students: whose newest take was on it."""

    id: int
    rung: int
    title: str
    check: CheckOut
    lasts_s: float
    students: int


class LadderOut(BaseModel):
    """empty_allowed: whether cards may ask to stay empty; after most_in_a_row breaths a student rests for rest_s."""

    cards: list[LadderCard]
    empty_allowed: bool
    most_in_a_row: int
    rest_s: float


class CardPath(BaseModel):
    card_id: int


class CardIn(BaseModel):
    """kind: what the count is of, breaths or bringing the instrument up, or breaths as a drill, which is no check of where somebody stands; card: in its short
    notation; countin_words: what is said on each beat of the count-in instead of its number; contrast: both sides on purpose; sets: further sets in the short
    notation, each filmed as a clip of its own; taught: by which other schools this card is judged; notes, dynamic, articulation: what is played."""

    rung: int = Field(ge=1, le=20)
    title: str = Field(min_length=1, max_length=64)
    kind: Literal["counted_breathing", "drill", "hold"] = "counted_breathing"
    card: str = Field(min_length=1, max_length=48)
    position: AskedPosition = "seated"
    with_instrument: bool = False
    full_breath: bool = False
    asks: FeltQuestion = "where"
    countin_words: list[str] = Field(default=[], max_length=9)
    contrast: Contrast = "none"
    sets: list[Annotated[str, Field(max_length=48)]] = Field(default=[], max_length=7)
    taught: dict[Question, str] = Field(default={}, max_length=len(FLIPPING))
    notes: str = Field(default="", max_length=LONGEST_NOTES)
    dynamic: Dynamic = "any"
    articulation: Articulation = "any"


class EmptyIn(BaseModel):
    allowed: bool


class ShownQuery(BaseModel):
    file_name: str = Field(default="shown", max_length=160)


class ShownPath(BaseModel):
    name: str = Field(pattern=r"^[0-9a-f]{32}\.[a-z0-9.]{2,12}$")
