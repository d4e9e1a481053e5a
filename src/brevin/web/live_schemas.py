"""What goes over the wire of the live view: readiness, and the mirror's lanes."""

from typing import Literal

from pydantic import BaseModel, Field

from brevin.core.kinds import State
from brevin.core.readiness import About


class LiveQuery(BaseModel):
    """camera: a name of the page's own for its camera; t_s: when the picture was taken, on the page's clock."""

    camera: str = Field(pattern="^[0-9a-f-]{36}$")
    t_s: float = Field(ge=0, allow_inf_nan=False)


class MirrorOut(BaseModel):
    """state: wait until a player is followed, with what to do; t_s: on the page's clock; lanes in percent of trunk, empty where a region is hidden; at: where
    each lane's mark stands in the picture, shares of its width and height."""

    state: Literal["wait", "seen"]
    title: str
    do: str
    t_s: list[float] = []
    abdomen: list[float] = []
    chest: list[float] = []
    shoulder: list[float] = []
    at: dict[str, list[float]] = {}


class FaceOut(BaseModel):
    """state: wait until a face looks into the camera, with what to do; eyes: between them; across: from the player's right eye to the left; mouth: its middle;
    shares of the picture's width and height."""

    state: Literal["wait", "seen"]
    title: str
    do: str
    eyes: list[float] = []
    across: list[float] = []
    mouth: list[float] = []


class ReadyQuery(LiveQuery):
    """wanted: from where the check is filmed; held: whether it asks for a breath with the instrument."""

    wanted: Literal["side-left", "side-right", "front"] = "side-right"
    held: bool = False


class ReadyLine(BaseModel):
    """state: steady, watch, or unreadable where filming now would be in vain; do: what to do about it."""

    about: About
    state: State
    code: str
    title: str
    do: str


class ReadyOut(BaseModel):
    lines: list[ReadyLine]
