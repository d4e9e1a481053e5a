"""What was read of the same check before: for a few takes at once, in two queries whatever their number."""

from collections.abc import Sequence
from dataclasses import dataclass

from peewee import Tuple, fn

from brevin.core.verdict.earlier import Earlier, Reading, earlier
from brevin.store import reports
from brevin.store.database import db
from brevin.store.models import AskedCheck, Programme, Take
from brevin.store.records import ProgrammeRecord
from brevin.store.scope import Scope

MOST = 40  # of one student and check, the newest: a school year of lessons


@dataclass(frozen=True)
class Before:
    """asked: the check's short notation; earlier: what stands before a take of it."""

    asked: str
    earlier: Earlier


def beside(scope: Scope, take_ids: Sequence[str]) -> dict[str, Before]:
    """What stands before each of these takes that was read; nothing of one that is not there."""
    with db.connection_context():
        rows = _alike(scope, take_ids)
        lines = reports.headlines(scope, [row.id for row in rows])
    found: dict[tuple[int, int], list[Reading]] = {}
    names = {row.asked_id: row.asked.name for row in rows}
    for row in rows:
        if row.id in lines:
            zone = ProgrammeRecord(id=0, name="", time_zone=row.programme.time_zone).zone
            reading = Reading(row.id, row.made_at, row.made_at.astimezone(zone).date(), lines[row.id].line)
            found.setdefault((row.student_id, row.asked_id), []).append(reading)
    return {one.take_id: Before(names[asked], earlier(one, same)) for (_, asked), same in found.items() for one in same if one.take_id in take_ids}


def _alike(scope: Scope, take_ids: Sequence[str]) -> list[Take]:
    """These takes and all that were read of the same student and check."""
    read = (Take.state == "read") & scope.sees(Take.programme)
    asked = Take.select(Take.student, Take.asked).where(Take.id.in_(list(take_ids) or [""]) & read)
    place = fn.ROW_NUMBER().over(partition_by=[Take.student, Take.asked], order_by=[Take.made_at.desc()])
    ranked = Take.select(Take.id, place.alias("place")).where(read & Tuple(Take.student, Take.asked).in_(asked)).alias("ranked")
    found = (
        Take.select(Take.id, Take.student, Take.asked, Take.made_at, AskedCheck.id, AskedCheck.name, Programme.time_zone)
        .join(Programme)
        .switch(Take)
        .join(AskedCheck)
        .switch(Take)
        .join(ranked, on=(ranked.c.id == Take.id))
        .where(ranked.c.place <= MOST)
    )
    return list(found)
