"""What goes over the wire at the door: signing in, the first account, and which programme is looked at."""

from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints


class SignIn(BaseModel):
    login: str = Field(max_length=64)
    password: str = Field(max_length=256)


class FirstIn(BaseModel):
    """The programme and its first account."""

    programme: str = Field(min_length=1, max_length=120)
    time_zone: str = Field(default="UTC", max_length=64)
    name: str = Field(min_length=1, max_length=120)
    login: str = Field(min_length=1, max_length=64)
    password: str = Field(min_length=10, max_length=256)


class ProgrammeChoice(BaseModel):
    programme_id: int


class ProgrammeIn(BaseModel):
    """time_zone: by its name, as Europe/Lisbon."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    time_zone: str = Field(default="UTC", max_length=64)
