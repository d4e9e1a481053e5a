"""What a student did lately that a rest is asked for: counted breaths of clips and of the mirror, and longest tries at the bench, together."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Any

from brevin.core.handling.firsts import ALONE
from brevin.core.plan.limits import Run, of_card
from brevin.store import takes
from brevin.store.bench_models import SoundTry
from brevin.store.database import db, now
from brevin.store.models import Lesson, Seat, Take
from brevin.store.records import TakeRecord
from brevin.store.scope import Scope

LATELY = timedelta(minutes=10)  # further back no row reaches: a longest card lasts three, and a minute without anything ends every row


def runs(scope: Scope, student_id: int) -> list[Run]:
    """What one student did in the last minutes."""
    with db.connection_context():
        filmed = takes.records(scope, (Take.student == student_id) & (Take.made_at >= now() - LATELY))
        chairs = Seat.select(Seat, Lesson).join(Lesson).where((Seat.student == student_id) & Seat.counted.is_null(False) & scope.sees(Lesson.programme))
        return together(scope, [student_id], filmed=filmed, chairs=list(chairs))[student_id]


def together(scope: Scope, students: Sequence[int], *, filmed: Iterable[TakeRecord], chairs: Iterable[Seat]) -> dict[int, list[Run]]:
    """The same of several, their takes and chairs known: one query whatever their number. Needs an open connection."""
    since = now() - LATELY
    found: dict[int, list[Run]] = {student: [] for student in students}
    for take in filmed:
        card = take.asked.check.card
        if card is not None and take.asked.check.counts_breaths and take.student.id in found and not take.refused:
            found[take.student.id].append(of_card(card, take.made_at))
    for chair in chairs:
        counted = counted_run(chair.counted)
        if counted is not None:
            found[chair.student_id].append(counted)
    alone = (SoundTry.rung == ALONE) & (SoundTry.at >= since) & SoundTry.student.in_(list(students) or [0]) & scope.sees(SoundTry.programme)
    for effort in SoundTry.select().where(alone):
        found[effort.student_id].append(Run(effort.at, 0, 0.0, efforts=1))
    return {student: [run for run in done if run.ended_at >= since] for student, done in found.items()}


def counted_run(kept: dict[str, Any] | None) -> Run | None:
    """Counted breaths without a clip, as a chair keeps them."""
    return None if kept is None else Run(datetime.fromisoformat(kept["ended_at"]), int(kept["breaths"]), float(kept["lasted_s"]))
