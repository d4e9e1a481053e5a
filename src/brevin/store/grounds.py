"""What the verdicts of stored readings stand on, so that other rules can be tried on them: the newest reports' measures and facts, in two queries."""

from collections.abc import Mapping
from typing import Any, cast

from peewee import fn

from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.check import from_document
from brevin.core.verdict.again import Ground
from brevin.core.verdict.judge import Judged
from brevin.store.database import db
from brevin.store.models import AskedCheck, Overrule, Report, Student, Take
from brevin.store.rule_records import StoodOn
from brevin.store.scope import Scope

MOST_TRIED = 500  # takes, the newest


def document_of(ground: Ground) -> dict[str, object]:
    """A ground as it is kept with its report: its measures once more beside their rows, so that five hundred are there in half a second."""
    full = ground.own_full
    return {
        "breath": ground.judged.breath_readable, "aside": sorted(ground.judged.aside), "beat_s": ground.beat_s,
        "own_full": [full.value, full.half_width] if full else None,
        "measures": [_kept(m) for m in ground.judged.measures if m.segment is None],
    }  # fmt: skip


def _kept(measure: Measure) -> list[object]:
    amount = measure.amount
    why = measure.value.reason if isinstance(measure.value, NotMeasured) else ""
    return [measure.key, measure.breath, amount.value if amount else None, amount.half_width if amount else None, why]


def stood_on(scope: Scope) -> list[StoodOn]:
    """The newest readings that were judged, newest first, each with what its verdicts stand on and with whatever of them the teacher overruled."""
    with db.connection_context():
        newest = Report.select(Report.take.alias("of_take"), fn.MAX(Report.version).alias("last")).group_by(Report.take).alias("newest")
        rows = (
            Take.select(
                Take.id, Take.made_at, Student.id, Student.name, Student.exempt, AskedCheck.document, Report.ground, Report.view,
                Report.position,
            )
            .join(Student)
            .switch(Take)
            .join(AskedCheck)
            .switch(Take)
            .join(newest, on=(newest.c.of_take == Take.id))
            .join(Report, on=((Report.take == Take.id) & (Report.version == newest.c.last)))
            .where((Take.state == "read") & Report.ground.is_null(False) & scope.sees(Take.programme))
            .order_by(Take.made_at.desc(), Take.id.desc())
            .limit(MOST_TRIED)
        )  # fmt: skip
        found: list[tuple[Any, ...]] = list(cast(Any, rows.tuples()))
        ids = [str(row[0]) for row in found]
        said = _overruled(scope, ids)
    return [
        StoodOn(
            take_id=take_id, student_id=student_id, student_name=name, made_at=made_at, exempt=tuple(exempt),
            ground=_ground(ground, document, view, position), overruled=said.get(take_id, frozenset()),
        )
        for take_id, made_at, student_id, name, exempt, document, ground, view, position in found
    ]  # fmt: skip


def _ground(kept: Mapping[str, Any], check: dict[str, object], view: Any, position: Any) -> Ground:
    measures = [_measure(*each) for each in kept["measures"]]
    judged = Judged(measures, view or None, position or None, kept["breath"], (), frozenset(kept["aside"]))
    return Ground(judged, from_document(check), kept["beat_s"], Amount(*kept["own_full"]) if kept["own_full"] else None)


def _measure(key: str, breath: int | None, value: float | None, half_width: float | None, why: Any) -> Measure:
    return Measure(key, NotMeasured(why) if value is None or half_width is None else Amount(value, half_width), breath)


def _overruled(scope: Scope, take_ids: list[str]) -> dict[str, frozenset[str]]:
    found: dict[str, frozenset[str]] = {}
    for row in Overrule.select().where(Overrule.take.in_(take_ids or [""]) & Overrule.breath.is_null() & scope.sees(Overrule.programme)):
        found[row.take_id] = found.get(row.take_id, frozenset()) | {row.criterion}
    return found
