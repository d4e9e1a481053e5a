"""Sections at the bench: the taps that were made, and where each section stands by them."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import cast

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import Phase
from brevin.core.handling.run import OF_A_CHAIR, OF_A_STEP, Standing, Tap, Tapped, Through, after, standing, through
from brevin.store import changes
from brevin.store.bench_models import BenchRun, BenchTap
from brevin.store.database import db, now
from brevin.store.models import Programme, Student
from brevin.store.records import NotThere
from brevin.store.scope import Scope


@dataclass(frozen=True)
class RunRecord:
    """A section's way through the steps of one phase. taps: how many there were."""

    id: int
    programme_id: int
    card: str
    phase: Phase
    begun_at: datetime
    finished_at: datetime | None
    now: Standing
    taps: int


def begin(scope: Scope, *, card: str, phase: Phase, steps: Sequence[str], away: Sequence[int] = ()) -> RunRecord:
    """The section's way that is not at its end yet, gone on with where it was stopped; else a new one. away: who is not here today."""
    with db.connection_context(), db.atomic():
        Programme.select().where(Programme.id == scope.programme).for_update().get()  # two who begin at once begin one
        own = scope.sees(BenchRun.programme) & (BenchRun.card == card) & (BenchRun.phase == phase) & BenchRun.finished_at.is_null()
        row = BenchRun.select().where(own).order_by(BenchRun.id.desc()).first()
        does: Tap = "begin" if row is None else "go_on"
        if row is None:
            row = BenchRun.create(programme=scope.programme, card=card, phase=phase, steps=list(steps), begun_at=now())
        known = _taps(row.id)
        if after(standing(row.steps, known), Tapped(does, now())) == standing(row.steps, known):
            return _record(row, known)
        _keep(scope, row.id, Tapped(does, now()))
        for student in away:
            _keep(scope, row.id, Tapped("away", now(), student=student))
        changes.note(scope, row.programme_id, "bench", str(row.id))
        return _record(row, _taps(row.id))


def tap(scope: Scope, run_id: int, *, does: Tap, step: str = "", student: int | None = None, word: str = "", order: Sequence[str] = ()) -> RunRecord:
    """One more tap; one that changes nothing is not kept. Raises NotThere, InvalidInput(bad_tap) for one that leaves out whose chair or which step it means."""
    if (does in OF_A_CHAIR and student is None) or (does in OF_A_STEP and not step):
        raise InvalidInput("bad_tap", does=does)
    with db.connection_context(), db.atomic():
        row = BenchRun.select().where((BenchRun.id == run_id) & scope.sees(BenchRun.programme)).for_update().first()
        if row is None or (student is not None and not Student.select().where((Student.id == student) & (Student.programme == row.programme_id)).exists()):
            raise NotThere(str(run_id))
        made = Tapped(does, now(), step, student, word, tuple(order), scope.person_id)
        known = _taps(run_id)
        before = standing(row.steps, known)
        later = after(before, made)
        if later != before:
            _keep(scope, run_id, made)
            if later.done or before.done:
                row.finished_at = now() if later.done else None
                row.save()
            changes.note(scope, row.programme_id, "bench", str(run_id))
            known = [*known, made]
        return _record(row, known)


def run(scope: Scope, run_id: int) -> RunRecord:
    """One section's way. Raises NotThere."""
    with db.connection_context():
        row = BenchRun.get_or_none((BenchRun.id == run_id) & scope.sees(BenchRun.programme))
        if row is None:
            raise NotThere(str(run_id))
        return _record(row, _taps(run_id))


def open_runs(scope: Scope) -> list[RunRecord]:
    """Every way that is not at its end, the one begun last first."""
    with db.connection_context():
        rows = list(BenchRun.select().where(scope.sees(BenchRun.programme) & BenchRun.finished_at.is_null()).order_by(BenchRun.id.desc()))
        return _records(rows)


def behind(scope: Scope, students: Sequence[int]) -> dict[str, list[Through]]:
    """Which steps these students have behind them, by the instrument's card; of a step that was done again the last time."""
    with db.connection_context():
        rows = list(BenchRun.select().where(scope.sees(BenchRun.programme)).order_by(BenchRun.id))
        taps = _taps_of([row.id for row in rows])
    found: dict[str, list[Through]] = {}
    for row in rows:
        found.setdefault(row.card, []).extend(through(row.steps, taps.get(row.id, []), students))
    return found


def _keep(scope: Scope, run_id: int, made: Tapped) -> None:
    BenchTap.create(
        run=run_id, does=made.does, at=made.at, step=made.step, student=made.student, word=made.word, steps_order=list(made.order) or None, by=scope.person_id
    )  # fmt: skip


def _taps(run_id: int) -> list[Tapped]:
    return _taps_of([run_id]).get(run_id, [])


def _taps_of(run_ids: Sequence[int]) -> dict[int, list[Tapped]]:
    found: dict[int, list[Tapped]] = {}
    for one in BenchTap.select().where(BenchTap.run.in_(list(run_ids) or [0])).order_by(BenchTap.id):
        made = Tapped(cast(Tap, one.does), one.at, one.step, one.student_id, one.word, tuple(one.steps_order or ()), one.by_id)
        found.setdefault(one.run_id, []).append(made)
    return found


def _records(rows: list[BenchRun]) -> list[RunRecord]:
    taps = _taps_of([row.id for row in rows])
    return [_record(row, taps.get(row.id, [])) for row in rows]


def _record(row: BenchRun, known: list[Tapped]) -> RunRecord:
    return RunRecord(row.id, row.programme_id, row.card, cast(Phase, row.phase), row.begun_at, row.finished_at, standing(row.steps, known), len(known))
