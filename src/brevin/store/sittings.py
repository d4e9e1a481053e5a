"""A take beside the first one of the same sitting: the same student, lesson, check's instrument, view and position."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from peewee import fn

from brevin.core.measure import Amount
from brevin.store.database import db
from brevin.store.models import AskedCheck, MeasureRow, Report, Take
from brevin.store.records import TakeRecord
from brevin.store.scope import Scope

SITTING = timedelta(hours=2)  # takes of no lesson further apart belong to two sittings


@dataclass(frozen=True)
class Beside:
    """take_id, made_at: of the first take; first, now: the amounts of both by key."""

    take_id: str
    made_at: datetime
    first: dict[str, Amount]
    now: dict[str, Amount]


def beside_first(scope: Scope, take: TakeRecord, keys: Sequence[str]) -> Beside | None:
    """The amounts of a take and of the first it may be held beside; None where it is the first itself, or was not read. Four queries."""
    with db.connection_context():
        own = Report.select().join(Take).where((Report.take == take.id) & scope.sees(Take.programme)).order_by(Report.version.desc()).first()
        if own is None:
            return None
        newest = Report.select(Report.take, fn.MAX(Report.version).alias("version")).group_by(Report.take).alias("newest")
        together = Take.lesson == take.lesson_id if take.lesson_id else Take.lesson.is_null() & (Take.made_at >= take.made_at - SITTING)
        sooner = (Take.student == take.student.id) & (Take.made_at < take.made_at) & (Take.state == "read") & together & scope.sees(Take.programme)
        like = (Report.view == own.view) & (Report.position == own.position)
        rows = (
            Take.select(Take, AskedCheck.document.alias("document"))
            .join(AskedCheck)
            .switch(Take)
            .join(Report)
            .join(newest, on=(Report.take == newest.c.take_id) & (Report.version == newest.c.version))
            .where(sooner & like)
            .order_by(Take.made_at, Take.id)
            .objects()
        )
        check = take.asked.check
        same = (row for row in rows if (row.document["instrument"], row.document["with_instrument"]) == (check.instrument, check.with_instrument))
        first = next(same, None)
        if first is None:
            return None
        found: dict[str, dict[str, Amount]] = {first.id: {}, take.id: {}}
        whole = MeasureRow.breath.is_null() & MeasureRow.segment.is_null() & MeasureRow.value.is_null(False) & MeasureRow.key.in_(list(keys))
        for row in MeasureRow.select().where(MeasureRow.take.in_(list(found)) & whole & scope.sees(MeasureRow.programme)):
            found[row.take_id][row.key] = Amount(row.value, row.half_width)
        return Beside(first.id, first.made_at, found[first.id], found[take.id])
