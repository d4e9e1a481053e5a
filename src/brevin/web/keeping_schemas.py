"""What goes over the wire of how long clips are kept."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.store.keeping import LEAST_DAYS, MOST_DAYS


class OfferedOut(BaseModel):
    """older: takes whose clip or stills are older than that."""

    days: int
    older: int


class BackupOut(BaseModel):
    """A folder with a backup. made_at: the moment that it holds, None before the first is whole; behind: it still holds what was deleted or withdrawn since;
    here: its folder can be reached now."""

    path: str
    made_at: datetime | None
    behind: bool
    here: bool


class KeepOut(BaseModel):
    """days: None = until somebody deletes them."""

    days: int | None
    offered: list[OfferedOut]
    backups: list[BackupOut]


class KeepIn(BaseModel):
    """days: None = until somebody deletes them."""

    days: int | None = Field(ge=LEAST_DAYS, le=MOST_DAYS)


class LetGoOut(BaseModel):
    """gone: takes whose clip and stills were deleted."""

    gone: int
