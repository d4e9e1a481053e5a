"""What goes over the wire of how long clips are kept."""

from pydantic import BaseModel, Field

from brevin.store.keeping import LEAST_DAYS, MOST_DAYS


class OfferedOut(BaseModel):
    """older: takes whose clip or stills are older than that."""

    days: int
    older: int


class KeepOut(BaseModel):
    """days: None = until somebody deletes them."""

    days: int | None
    offered: list[OfferedOut]


class KeepIn(BaseModel):
    """days: None = until somebody deletes them."""

    days: int | None = Field(ge=LEAST_DAYS, le=MOST_DAYS)


class LetGoOut(BaseModel):
    """gone: takes whose clip and stills were deleted."""

    gone: int
