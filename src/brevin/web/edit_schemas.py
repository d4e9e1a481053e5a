"""What goes over the wire of what a person changes of a reading."""

from pydantic import BaseModel, Field

from brevin.core.kinds import TurnKind


class TurnMoved(BaseModel):
    """was_s: where the reading had put it; t_s: where it is now."""

    turn: TurnKind
    was_s: float = Field(ge=0, le=7200, allow_inf_nan=False)
    t_s: float = Field(ge=0, le=7200, allow_inf_nan=False)


class LineTapped(BaseModel):
    """Where the instrument is at one moment: from the mouth's end to the far end, x and y in the clip's pixels."""

    t_s: float = Field(ge=0, le=7200, allow_inf_nan=False)
    near_px: tuple[float, float]
    far_px: tuple[float, float]


class EditsIn(BaseModel):
    """What a person changes of a reading; replaces what was changed before. player: whom to read; first_inhale_s: where beat one is; line: the instrument's."""

    player: int | None = Field(default=None, ge=0, le=9)
    first_inhale_s: float | None = Field(default=None, ge=-30, le=7200, allow_inf_nan=False)
    turns: list[TurnMoved] = Field(default=[], max_length=100)
    line: LineTapped | None = None
