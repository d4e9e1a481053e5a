"""What was read of the same check before: for a few takes at once, in two queries whatever their number."""

from collections.abc import Sequence
from dataclasses import dataclass

from peewee import Tuple, fn

from brevin.core.plan.check import Check
from brevin.core.verdict.earlier import Earlier, Move, Reading, earlier
from brevin.store import cards, reports
from brevin.store.database import db
from brevin.store.models import AskedCheck, Programme, Take
from brevin.store.records import ProgrammeRecord
from brevin.store.scope import Scope

STEPS: dict[Move, int] = {"stay": 0, "up": 1, "back": -1}  # along the ladder
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


def own_cards(scope: Scope, student_ids: Sequence[int]) -> dict[int, Check]:
    """The card of the ladder that is each student's: the one they were last read on, the next where the last readings led up, the one before where they led
    back; the first for whoever was read on none. Empty where the ladder checks no breath."""
    ladder = [one.check for one in cards.cards(scope) if one.check.kind == "counted_breathing"]
    at = {check.name: i for i, check in reversed(list(enumerate(ladder)))}
    with db.connection_context():
        rows = Take.select(Take.id, Take.student).join(AskedCheck).where(
            Take.student.in_(list(student_ids) or [0]) & (Take.state == "read") & AskedCheck.name.in_(list(at) or [""]) & scope.sees(Take.programme)
        )  # fmt: skip
        last = {row.student_id: row.id for row in rows.order_by(Take.made_at)}
    found = beside(scope, list(last.values()))
    places = {student_id: at[found[take_id].asked] + STEPS[found[take_id].earlier.move] for student_id, take_id in last.items() if take_id in found}
    return {student_id: ladder[min(max(places.get(student_id, 0), 0), len(ladder) - 1)] for student_id in student_ids} if ladder else {}


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
