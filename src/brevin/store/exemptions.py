"""What is neither measured nor counted for one student; every change of it is kept with who made it, and when."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import cast

from peewee import JOIN

from brevin.core.verdict.rules import CriterionKey, layer_from
from brevin.store.database import db
from brevin.store.models import Person, Student
from brevin.store.records import NotThere
from brevin.store.said_models import ExemptionChange
from brevin.store.scope import Scope

MOST_LISTED = 20


@dataclass(frozen=True)
class ExemptionChangeRecord:
    """A criterion that was left out (out_now), or taken in again; by: "" where they have left."""

    criterion: CriterionKey
    out_now: bool
    by: str
    made_at: datetime


def put(scope: Scope, student_id: int, criteria: Sequence[str]) -> None:
    """What a student is exempt from; replaces what was. Raises NotThere, InvalidInput(bad_profile) for a criterion that is none."""
    layer_from({"exempt": list(criteria)})
    with db.connection_context(), db.atomic():
        row = Student.select().where((Student.id == student_id) & scope.sees(Student.programme)).for_update().first()
        if row is None:
            raise NotThere(str(student_id))
        before, after = set(row.exempt or ()), set(criteria)
        for criterion in sorted(before ^ after):
            ExemptionChange.create(student=row, criterion=criterion, out_now=criterion in after, by=scope.person_id)
        Student.update(exempt=sorted(after)).where(Student.id == student_id).execute()


def changes(scope: Scope, student_id: int) -> list[ExemptionChangeRecord]:
    """Who changed what is left out for a student, the newest first."""
    with db.connection_context():
        rows = (
            ExemptionChange.select(ExemptionChange, Person)
            .join(Student)
            .switch(ExemptionChange)
            .join(Person, JOIN.LEFT_OUTER)
            .where((Student.id == student_id) & scope.sees(Student.programme))
            .order_by(ExemptionChange.made_at.desc(), ExemptionChange.id.desc())
            .limit(MOST_LISTED)
        )
        return [ExemptionChangeRecord(cast(CriterionKey, row.criterion), row.out_now, row.by.name if row.by else "", row.made_at) for row in rows]
