"""Reports: the document is the record; its numbers and verdicts stand beside it as rows that can be asked for by student, criterion, instrument and time."""

import dataclasses
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from peewee import JOIN, Expression, Field, Tuple, Value, fn

from brevin.core.breath.fullness import OwnBreaths
from brevin.core.kinds import Position, Side, State, View
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.check import from_document
from brevin.core.report import Cue
from brevin.core.verdict.headline import Fault, Headline, Stood, as_said
from brevin.core.verdict.repetitions import Done
from brevin.core.verdict.tries import Try
from brevin.store import changes, grounds
from brevin.store.database import db, insert_all
from brevin.store.models import AskedCheck, CueGiven, MeasureRow, OfTake, Overrule, Person, Report, Take, VerdictRow
from brevin.store.records import HeadlineRecord, NewReport, NotThere, ReportRecord, ResultRecord, TakeRecord
from brevin.store.rule_records import OverruleRecord
from brevin.store.said_models import DrawingRow, TickRow
from brevin.store.scope import Scope


def newest(scope: Scope, take_id: str) -> ReportRecord | None:
    """The newest report of a take. Raises NotThere for a take that is none."""
    with db.connection_context():
        if not Take.select().where((Take.id == take_id) & scope.sees(Take.programme)).exists():
            raise NotThere(take_id)
        row = Report.select().where(Report.take == take_id).order_by(Report.version.desc()).first()
        if row is None:
            return None
        return ReportRecord(
            take_id=take_id, version=row.version, made_at=row.made_at, software_version=row.software_version,
            thresholds_id=row.thresholds_id, profile_id=row.profile_id, readable=bool(row.readable), document=row.document,
        )  # fmt: skip


def put(scope: Scope, take: TakeRecord, new: NewReport) -> HeadlineRecord:
    """The next version of a take's report, and its rows in place of the older ones'. Returns its line for lists. Needs an open transaction."""
    version = Report.select().where(Report.take == take.id).count() + 1
    judged = new.ground.judged if new.ground else None
    stood = [Stood(v.criterion, v.state, v.side, v.outside) for v in new.verdicts]
    line = _kept(scope, take, new.headline, stood)
    Report.create(
        take=take.id, version=version, document=new.document, readable=new.readable, headline=line,
        software_version=new.software_version, thresholds_id=new.thresholds_id, profile_id=new.profile_id,
        view=(judged.view if judged else None) or "", position=(judged.position if judged else None) or "",
        ground=grounds.document_of(new.ground) if new.ground else None,
    )  # fmt: skip
    own = take.columns
    MeasureRow.delete().where(MeasureRow.take == take.id).execute()
    VerdictRow.delete().where(VerdictRow.take == take.id).execute()
    insert_all(MeasureRow, [own | _measure(m) for m in judged.measures] if judged else [])
    insert_all(VerdictRow, [
        own | {
            "criterion": v.criterion, "state": v.state, "value": v.value, "half_width": v.uncertainty, "side": v.side or "", "outside": v.outside,
            "steady_breaths": v.steady_breaths, "counted_breaths": v.counted_breaths, "reason": v.reason or "",
        }
        for v in new.verdicts
    ])  # fmt: skip
    return HeadlineRecord(_line(line), version)


def _kept(scope: Scope, take: TakeRecord, line: Headline, stood: Sequence[Stood]) -> dict[str, object]:
    """The line for lists, with the teacher's word in it, and as it was read where the two differ."""
    said = {row.criterion: cast(State, row.state) for row in _overrules(scope, [take.id])}
    now = as_said(line, stood, said, take.rules.order)
    as_read = {"as_read": dataclasses.asdict(line)} if now != line else {}
    return {**dataclasses.asdict(now), **as_read}


def _measure(measure: Measure) -> dict[str, object]:
    amount = measure.amount
    return {
        "key": measure.key, "breath": measure.breath, "segment": measure.segment, "value": amount.value if amount else None,
        "half_width": amount.half_width if amount else None, "withheld": measure.value.reason if isinstance(measure.value, NotMeasured) else "",
    }  # fmt: skip


def headlines(scope: Scope, take_ids: Sequence[str]) -> dict[str, HeadlineRecord]:
    """The newest report's line of each take that has one; one query. Needs an open connection."""
    rows = Report.select(Report.take, Report.version, Report.headline).where(Report.take.in_(list(take_ids) or [""])).order_by(Report.version)
    return {row.take_id: HeadlineRecord(_line(row.headline), row.version) for row in rows}


def _line(kept: dict[str, Any]) -> Headline:
    kept = {key: value for key, value in kept.items() if key != "as_read"}
    faults = [Fault(**fault) for fault in kept.get("faults") or []]
    cue = kept.get("cue")
    return Headline(**(kept | {"faults": faults, "cue": Cue(**cue) if cue else None}))


def overrule(scope: Scope, take: TakeRecord, *, criterion: str, state: State | None, reason: str, breath: int | None = None) -> None:
    """Put on record what the teacher says instead of a verdict; an earlier word on the same is replaced, or taken back where there is no state."""
    with db.connection_context(), db.atomic():
        same = (Overrule.take == take.id) & (Overrule.criterion == criterion)
        Overrule.delete().where(same & (Overrule.breath.is_null() if breath is None else Overrule.breath == breath)).execute()
        if state is not None:
            Overrule.create(**take.columns, criterion=criterion, breath=breath, state=state, reason=reason, by=scope.person_id)
        newest_report = Report.select().where(Report.take == take.id).order_by(Report.version.desc()).first()
        if newest_report is not None:
            rows = VerdictRow.select().where(VerdictRow.take == take.id).order_by(VerdictRow.id)
            stood = [Stood(row.criterion, cast(State, row.state), cast(Side | None, row.side or None), row.outside) for row in rows]
            line = _line(newest_report.headline.get("as_read") or newest_report.headline)
            Report.update(headline=_kept(scope, take, line, stood)).where(Report.id == newest_report.id).execute()
        changes.note(scope, take.programme_id, "said", take.id)


def overruled(scope: Scope, take_id: str) -> list[OverruleRecord]:
    """What the teacher says instead of a take's verdicts, those on the whole clip."""
    with db.connection_context():
        rows = Overrule.select(Overrule, Person).join(Person, JOIN.LEFT_OUTER)
        own = rows.where((Overrule.take == take_id) & Overrule.breath.is_null() & scope.sees(Overrule.programme))
        return [OverruleRecord(row.criterion, cast(State, row.state), row.reason, row.by.name if row.by else "", row.said_at) for row in own]


def give_cue(scope: Scope, take: TakeRecord, *, criterion: str, side: str = "", way: int = 0) -> None:
    """Put on record that a cue was said after a take; said twice, it is one."""
    if cue_given(scope, take.id, criterion) is not None:
        return
    with db.connection_context(), db.atomic():
        CueGiven.create(**take.columns, criterion=criterion, side=side, way=way, by=scope.person_id)
        changes.note(scope, take.programme_id, "said", take.id)


def cue_given(scope: Scope, take_id: str, criterion: str) -> int | None:
    """In which words a criterion's cue was said after a take; None where it was not."""
    with db.connection_context():
        given = (CueGiven.take == take_id) & (CueGiven.criterion == criterion)
        row = CueGiven.select(CueGiven.way).where(given & scope.sees(CueGiven.programme)).first()
        return None if row is None else int(row.way)


def tries(scope: Scope, criterion: str) -> list[Try]:
    """Every take under one criterion, with whether its cue was said after it, and in which words: two queries whatever their number."""
    found = verdicts(scope, criterion=criterion)
    with db.connection_context():
        given = CueGiven.select(CueGiven.take, CueGiven.way).where((CueGiven.criterion == criterion) & scope.sees(CueGiven.programme))
        ways = {row.take_id: row.way for row in given}
    return [
        Try(one.student_id, one.made_at, cast(State, one.overruled or one.state), one.take_id in ways, ways.get(one.take_id, 0)) for one in found
    ]  # fmt: skip


def done(scope: Scope, asked_id: int) -> list[Done]:
    """Every read try of one check, with whether a fault was left to speak of: two queries whatever their number."""
    with db.connection_context():
        rows = list(Take.select(Take.id, Take.student, Take.made_at).where((Take.asked == asked_id) & (Take.state == "read") & scope.sees(Take.programme)))
        heads = headlines(scope, [row.id for row in rows])
    said = [(row, heads[row.id].line.cue) for row in rows if row.id in heads and heads[row.id].line.state != "unreadable"]
    return [Done(row.student_id, row.made_at, cue is not None and cue.criterion == "all") for row, cue in said]


def move_rows(scope: Scope, take_id: str, student_id: int) -> None:
    """The rows of a take go with it to another student. Needs an open transaction."""
    for table in (MeasureRow, VerdictRow, Overrule, CueGiven, TickRow, DrawingRow):
        table.update(student=student_id).where(table.take == take_id).execute()


def verdicts(
    scope: Scope, *, student_id: int | None = None, criterion: str | None = None, instrument: str | None = None, since: datetime | None = None
) -> list[ResultRecord]:
    """Verdicts by any of student, criterion, instrument and time, the oldest first, each with what the teacher said instead."""
    with db.connection_context():
        asked = _where(VerdictRow, scope, _Asked(student_id, instrument, since)) & _is(VerdictRow.criterion, criterion)
        rows = list(VerdictRow.select().where(asked).order_by(VerdictRow.made_at, VerdictRow.id))
        said = {(o.take_id, o.criterion): o.state for o in _overrules(scope, [row.take_id for row in rows])}
        return [
            ResultRecord(
                take_id=row.take_id, student_id=row.student_id, key=row.criterion, instrument=row.instrument, made_at=row.made_at, value=row.value,
                half_width=row.half_width, state=cast(State, row.state), withheld=row.reason, steady_breaths=row.steady_breaths,
                counted_breaths=row.counted_breaths, overruled=said.get((row.take_id, row.criterion), ""),
            )
            for row in rows
        ]  # fmt: skip


def measures(
    scope: Scope, *, student_id: int | None = None, key: str | None = None, instrument: str | None = None, since: datetime | None = None
) -> list[ResultRecord]:
    """Numbers by any of student, key, instrument and time, the oldest first."""
    with db.connection_context():
        asked = _where(MeasureRow, scope, _Asked(student_id, instrument, since)) & _is(MeasureRow.key, key)
        rows = MeasureRow.select().where(asked).order_by(MeasureRow.made_at, MeasureRow.id)
        return [
            ResultRecord(
                take_id=row.take_id, student_id=row.student_id, key=row.key, instrument=row.instrument, made_at=row.made_at, value=row.value,
                half_width=row.half_width, withheld=row.withheld, breath=row.breath,
            )
            for row in rows
        ]  # fmt: skip


def own_breaths(scope: Scope, take: TakeRecord, *, view: View, position: Position) -> OwnBreaths:
    """How large the same student's breaths were in other takes until then that can be compared with this one: same view, position, instrument."""
    newest = Report.select(Report.take, fn.MAX(Report.version)).join(Take).where(Take.student == take.student.id).group_by(Report.take)
    like = (Report.view == view) & (Report.position == position) & Tuple(Report.take, Report.version).in_(newest)
    own = (MeasureRow.student == take.student.id) & (MeasureRow.instrument == take.asked.check.instrument) & (MeasureRow.key == "size_pct")
    other = (MeasureRow.take != take.id) & (MeasureRow.made_at <= take.made_at) & MeasureRow.value.is_null(False)
    with db.connection_context():
        rows = (
            MeasureRow.select(MeasureRow.value, MeasureRow.half_width, AskedCheck.id, AskedCheck.document)
            .join(Take, on=(Take.id == MeasureRow.take))
            .join(AskedCheck, on=(AskedCheck.id == Take.asked))
            .join(Report, on=(Report.take == Take.id))
            .where(own & other & like & scope.sees(MeasureRow.programme))
        )
        found = list(cast(Any, rows.tuples()))
    checks = {asked: from_document(document) for asked, document in {key: document for *_, key, document in found}.items()}
    sizes = [(checks[asked], Amount(value, half_width)) for value, half_width, asked, _ in found]
    held = take.asked.check.with_instrument
    same = [(check.full_breath, size) for check, size in sizes if check.counts_breaths and check.with_instrument == held]
    return OwnBreaths(tuple(size for asked, size in same if asked), tuple(size for asked, size in same if not asked))


@dataclass(frozen=True)
class _Asked:
    """What rows are asked for by; None = any."""

    student_id: int | None
    instrument: str | None
    since: datetime | None


def _where(table: type[OfTake], scope: Scope, asked: _Asked) -> Expression:
    later = Value(1) == 1 if asked.since is None else table.made_at >= asked.since
    return scope.sees(table.programme) & _is(table.student, asked.student_id) & _is(table.instrument, asked.instrument) & later


def _is(column: Field, wanted: object) -> Expression:
    return Value(1) == 1 if wanted is None else column == wanted


def _overrules(scope: Scope, take_ids: Iterable[str]) -> list[Overrule]:
    whole = Overrule.breath.is_null() & Overrule.take.in_(sorted(set(take_ids)) or [""])
    return list(Overrule.select().where(whole & scope.sees(Overrule.programme)))
