"""From a take and its evidence to a report that can be stored. Thin: core and store do the work."""

import json
from collections.abc import Mapping
from dataclasses import replace

from brevin.core.edited import Edits
from brevin.core.errors import InvalidInput
from brevin.core.evidence import Evidence, unpacked
from brevin.core.plain import to_json
from brevin.core.read import Task, judge, seen_as
from brevin.core.verdict.headline import headline
from brevin.core.verdict.rules import Rules
from brevin.ops.settings import Settings
from brevin.store import anew, reports, takes
from brevin.store.records import NewReport, TakeRecord
from brevin.store.scope import Scope


class ReadAgain(Exception):
    """There is no evidence to judge: it was never kept, is damaged, or comes from another release. The clip has to be read again."""


def report_of(scope: Scope, take: TakeRecord, found: Evidence, *, rules: Rules, edits: Edits) -> NewReport:
    """Judge a take's evidence, beside what is known of the same student's breaths. Raises InvalidInput(bad_edit)."""
    task = Task(take.asked.check, take.first_inhale_s)
    like = seen_as(found, task, edits)
    if like is not None:
        task = replace(task, known=reports.own_breaths(scope, take, view=like[0], position=like[1]))
    reading = judge(found, task, rules, edits)
    name = take.clip.original_name if take.clip else reading.report.clip.file
    report = replace(reading.report, clip=replace(reading.report.clip, file=name))
    return NewReport(
        document=json.dumps(to_json(report), allow_nan=False), readable=report.readable, headline=headline(report),
        software_version=report.software.version, thresholds_id=report.software.thresholds_id, profile_id=report.software.profile_id,
        ground=reading.ground, verdicts=tuple(report.verdicts), stills_s=report.stills_s,
    )  # fmt: skip


def evidence_of(take: TakeRecord, settings: Settings) -> Evidence:
    """What was kept of a take's clip. Raises ReadAgain."""
    if not take.evidence_name:
        raise ReadAgain(take.id)
    try:
        return unpacked((settings.evidence / take.evidence_name).read_bytes())
    except (OSError, InvalidInput) as why:
        raise ReadAgain(take.id) from why


def judge_anew(scope: Scope, take_id: str, settings: Settings, *, edits: Edits | None = None) -> TakeRecord:
    """Judge a stored take anew by the rules as they are now, without its clip. edits: None = as they are.

    Raises NotThere, ReadAgain, InvalidInput(bad_edit).
    """
    take = takes.take_record(scope, take_id)
    rules = anew.current_rules(scope, take)
    new = report_of(scope, take, evidence_of(take, settings), rules=rules, edits=take.edits if edits is None else edits)
    return anew.put(scope, take, edits=edits, rules=rules, report=new)


def facts_of(facts: Mapping[str, object]) -> dict[str, float | str]:
    """Facts of an error as they are stored: numbers and short texts."""
    return {str(k): v if isinstance(v, (int, float)) else str(v)[:80] for k, v in facts.items()}
