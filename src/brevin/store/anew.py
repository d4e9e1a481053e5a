"""A stored take judged by other rules or edits than before: which of them wait for it, and how it is stored."""

import dataclasses
from collections.abc import Sequence

from brevin.core.edited import Edits
from brevin.core.verdict import rules as ruling
from brevin.core.verdict.rules import Rules
from brevin.store import blurring, changes, reports, rulebook, students
from brevin.store.database import db
from brevin.store.models import Take
from brevin.store.records import NewReport, TakeRecord
from brevin.store.scope import Scope
from brevin.store.takes import take_record


def judge_again(scope: Scope, take_ids: Sequence[str]) -> None:
    """Their verdicts are to follow the rules as they are now: the reader judges them anew when it has time."""
    with db.connection_context():
        Take.update(judge_due=True).where(Take.id.in_(list(take_ids) or [""]) & (Take.state == "read") & scope.sees(Take.programme)).execute()


def next_to_judge(scope: Scope) -> str | None:
    """A take that is to be judged anew, the newest first; None where there is none."""
    with db.connection_context():
        row = Take.select(Take.id).where(Take.judge_due & (Take.state == "read") & scope.sees(Take.programme)).order_by(Take.made_at.desc()).first()
    return None if row is None else str(row.id)


def cannot_judge(scope: Scope, take_id: str) -> None:
    """It stays as it was judged: what was seen of its clip is gone."""
    with db.connection_context():
        Take.update(judge_due=False).where((Take.id == take_id) & scope.sees(Take.programme)).execute()


def put(scope: Scope, known: TakeRecord, *, edits: Edits | None, rules: Rules, report: NewReport) -> TakeRecord:
    """Store a report that was judged anew from the evidence, with what it was judged by: all of it or nothing. known: the take as it was when its judging
    began; edits: None = judged with those it had: where somebody changed them, or its clip was read again meanwhile, the report is older than that, and is not
    stored. Raises NotThere."""
    with db.connection_context(), db.atomic():
        Take.select(Take.id).where((Take.id == known.id) & scope.sees(Take.programme)).for_update().first()
        now = take_record(scope, known.id)
        if edits is None and (now.edits != known.edits or now.evidence_name != known.evidence_name):
            return now
        take = dataclasses.replace(now, edits=edits or known.edits, rules=rules)  # the line for lists goes by the order of importance among its rules
        judged = {"edits": dataclasses.asdict(take.edits), "rules": ruling.to_document(rules)}
        Take.update(**judged).where((Take.id == take.id) & scope.sees(Take.programme)).execute()
        settle(scope, take, judged_by=rules, with_edits=take.edits, seen=known.evidence_name)
        line = reports.put(scope, take, report)
        blurring.look_again(scope, take.id)
        changes.note(scope, take.programme_id, "take", take.id)
    return dataclasses.replace(take, headline=line)


def settle(scope: Scope, take: TakeRecord, *, judged_by: Rules, with_edits: Edits, seen: str) -> None:
    """A new report is stored: it is to be judged once more only where rules, edits or evidence (seen: the file it was judged from) changed since. Needs the
    take's row locked, so that a change is either seen here or marks the take afterwards."""
    overtaken = (take.edits, take.evidence_name) != (with_edits, seen) or current_rules(scope, take).thresholds_id != judged_by.thresholds_id
    Take.update(judge_due=overtaken).where((Take.id == take.id) & scope.sees(Take.programme)).execute()


def current_rules(scope: Scope, take: TakeRecord) -> Rules:
    """The rules as they would be resolved for this take now."""
    pupil = students.student(scope, take.student.id)
    return rulebook.rules_for(Scope(take.programme_id), pupil, take.asked.check)
