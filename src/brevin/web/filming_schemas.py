"""What goes over the wire while a clip is filmed."""

from pydantic import BaseModel, Field

KEY = "^[0-9a-f-]{36}$"


class FilmingPath(BaseModel):
    """key: the recording's own name in the browser it is filmed in."""

    key: str = Field(pattern=KEY)


class PieceIn(BaseModel):
    """Whose recording it is, and for which set of the chair's card; asked_id: as for a whole clip. at: bytes of it that came before this piece."""

    student_id: int
    seat_id: int
    asked_id: int | None = None
    set_number: int = Field(default=0, ge=0, le=7)
    at: int = Field(ge=0)


class PiecesOut(BaseModel):
    """size_bytes: what has come."""

    size_bytes: int
