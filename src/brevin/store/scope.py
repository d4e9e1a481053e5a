"""What a caller of the store may see: one programme, or the whole house for the program's own processes. Every function of the store takes a scope first."""

from dataclasses import dataclass
from typing import Literal

from peewee import Expression, Field, Value

Role = Literal["owner", "teacher", "assistant"]
Acting = Literal["owner", "teacher", "assistant", "phone"]
"""A role, or a phone in the room that films for somebody's session and does nothing else."""
ROLES: tuple[Role, ...] = ("owner", "teacher", "assistant")


@dataclass(frozen=True)
class Scope:
    """programme_id: None = everything (readers, start, operator); person_id: who asks, None = the program itself."""

    programme_id: int | None
    person_id: int | None = None

    def sees(self, programme: Field) -> Expression:
        """The condition under which a row with this column may be seen."""
        return Value(1) == 1 if self.programme_id is None else programme == self.programme_id

    @property
    def programme(self) -> int:
        """The programme that something new belongs to. Raises ValueError for the whole house."""
        if self.programme_id is None:
            raise ValueError("something new belongs to one programme")
        return self.programme_id


HOUSE = Scope(None)
