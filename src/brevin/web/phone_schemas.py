"""What goes over the wire of pairing and inviting."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.store.scope import Role


class Pairing(BaseModel):
    """code: what is typed on the phone; addresses: where it goes, code included, none without --lan; qr: the first of them as a picture (data address)."""

    code: str
    until: datetime
    lan: bool
    addresses: list[str]
    qr: str


class CodeIn(BaseModel):
    code: str = Field(min_length=1, max_length=64)


class InvitationIn(BaseModel):
    name: str = Field(min_length=1, max_length=120)
    role: Role


class InvitationOut(BaseModel):
    """link: opens once, until a moment; it is shown now and kept nowhere."""

    link: str
    until: datetime


class InvitedIn(BaseModel):
    """name: empty = as it was invited."""

    code: str = Field(min_length=1, max_length=64)
    name: str = Field(default="", max_length=120)
    login: str = Field(min_length=2, max_length=64)
    password: str = Field(min_length=10, max_length=256)
