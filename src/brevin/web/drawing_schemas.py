"""What goes over the wire of what a teacher draws on a clip."""

from typing import Annotated

from pydantic import BaseModel, Field

from brevin.store.drawings import Shape

Px = Annotated[float, Field(ge=0, le=16384, allow_inf_nan=False)]


class DrawingIn(BaseModel):
    """In the clip's pixels. circle: from its middle to a place on it; arrow: from its tail to its tip; note: at a place, with words."""

    shape: Shape
    t_s: float = Field(ge=0, le=7200, allow_inf_nan=False)
    at_px: tuple[Px, Px]
    to_px: tuple[Px, Px]
    words: Annotated[str, Field(max_length=160)] = ""


class DrawingOut(DrawingIn):
    id: int


class DrawingsOut(BaseModel):
    drawings: list[DrawingOut]


class DrawingPath(BaseModel):
    take_id: str = Field(max_length=64)
    drawing_id: int = Field(ge=1)


class DrawnOut(BaseModel):
    id: int
