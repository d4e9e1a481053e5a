"""First notes: what came out, try by try, and what was the reason."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from peewee import fn

from brevin.core.handling.cards import Outcome
from brevin.core.kinds import Instrument
from brevin.store.bench_models import SoundTry
from brevin.store.database import db, now
from brevin.store.models import Person
from brevin.store.records import NotThere
from brevin.store.scope import Scope
from brevin.store.students import student


@dataclass(frozen=True)
class TryRecord:
    """One try. fixed_by: the name of the check that was the reason, "" where nobody said; by: who tapped it, "" where they have left; length_s: how long the
    part alone sounded, None where nobody measured."""

    id: int
    student_id: int
    instrument: Instrument
    rung: str
    outcome: Outcome
    at: datetime
    fixed_by: str
    by: str
    length_s: float | None


def add(scope: Scope, student_id: int, *, rung: str, outcome: Outcome, at: datetime | None = None, length_s: float | None = None) -> int:
    """Put on record what came out; returns the try's key. Raises NotThere."""
    who = student(scope, student_id)
    with db.connection_context():
        made = SoundTry.create(
            programme=who.programme_id, student=who.id, instrument=who.instrument, rung=rung, outcome=outcome, at=at or now(), by=scope.person_id,
            length_s=length_s,
        )  # fmt: skip
        return int(made.id)


def fixed(scope: Scope, try_id: int, by: str) -> None:
    """Say what was the reason; "" takes it back. Raises NotThere."""
    with db.connection_context():
        own = (SoundTry.id == try_id) & scope.sees(SoundTry.programme)
        if not SoundTry.select().where(own).exists():
            raise NotThere(str(try_id))
        SoundTry.update(fixed_by=by).where(SoundTry.id == try_id).execute()


def take_back(scope: Scope, try_id: int) -> None:
    """A try that was tapped by mistake. Raises NotThere."""
    with db.connection_context():
        if not SoundTry.delete().where((SoundTry.id == try_id) & scope.sees(SoundTry.programme)).execute():
            raise NotThere(str(try_id))


def tries(scope: Scope, students: Sequence[int]) -> list[TryRecord]:
    """All tries of these students, the oldest first."""
    with db.connection_context():
        own = scope.sees(SoundTry.programme) & SoundTry.student.in_(list(students) or [0])
        rows = SoundTry.select(SoundTry, Person).left_outer_join(Person).where(own).order_by(SoundTry.at, SoundTry.id)
        return [
            TryRecord(
                row.id, row.student_id, cast(Instrument, row.instrument), row.rung, cast(Outcome, row.outcome), row.at, row.fixed_by,
                row.by.name if row.by else "", row.length_s,
            )
            for row in rows
        ]  # fmt: skip


def reasons(scope: Scope, instruments: Sequence[Instrument]) -> dict[tuple[Outcome, str], int]:
    """How often each check was the reason for what came out, on these instruments."""
    with db.connection_context():
        own = scope.sees(SoundTry.programme) & SoundTry.instrument.in_(list(instruments)) & (SoundTry.fixed_by != "")
        counted = SoundTry.select(SoundTry.outcome, SoundTry.fixed_by, fn.COUNT(SoundTry.id)).where(own).group_by(SoundTry.outcome, SoundTry.fixed_by)
        return {(cast(Outcome, outcome), name): int(times) for outcome, name, times in cast(Any, counted.tuples())}
