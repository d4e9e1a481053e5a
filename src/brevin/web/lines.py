"""Lines drawn by example: takes to sort, the limit that agrees best with the teacher, and who changed which rules."""

from collections.abc import Mapping
from statistics import median
from typing import Any

from flask import Response

from brevin.core.errors import InvalidInput
from brevin.core.verdict.criteria import CRITERIA
from brevin.core.verdict.example import LINES, Example, proposed, usual
from brevin.core.verdict.words import CRITERIA as WORDS
from brevin.jobs import trying
from brevin.store import rulebook
from brevin.store.rule_records import RuleChangeRecord, StoodOn
from brevin.web.auth import scope
from brevin.web.method_schemas import ExampleOut, ExamplesOut, LineIn, LineQuery, ProposedOut, RuleChangeOut, RuleChangesOut, SortedAllIn
from brevin.web.routes import routes_of
from brevin.web.rules import changed_out
from brevin.web.schemas import Done
from brevin.web.shapes import answer

routes = routes_of("lines", __name__, below="/api/rules/lines")
UNITS = {row.key: row.unit for row in CRITERIA}


def _known(criterion: Any) -> None:
    if criterion not in LINES:
        raise InvalidInput("bad_profile", name=str(criterion), wanted="one of " + ", ".join(LINES))


@routes.get("", responses={200: ExamplesOut})
def examples(query: LineQuery) -> Response:
    """Takes to sort into fine and not fine, as the line in force has them."""
    _known(query.criterion)
    line = LINES[query.criterion]
    shown = trying.Trial(scope()).sortable(query.criterion, skip=query.skip)
    now = median([one.line for one in shown]) if shown else usual(query.criterion)
    found = [
        ExampleOut(
            take_id=one.take.take_id, student=one.take.student_name, value=one.value, fine=one.above == (line.fine == "above"),
            **{name: _middle(one.take, key) for name, key in TRAVEL.items()},
        )
        for one in shown
    ]  # fmt: skip
    titles = {key: WORDS[key].title for key in LINES}
    return answer(ExamplesOut(criterion=query.criterion, unit=UNITS[query.criterion], fine=line.fine, now=now, criteria=titles, examples=found))


TRAVEL = {"abdomen": "abdomen_amp", "chest": "chest_amp", "shoulder": "shoulder_rise"}


def _middle(take: StoodOn, key: str) -> float | None:
    """The median of a take's breaths; None where it was never measured."""
    values = [m.amount.value for m in take.ground.judged.measures if m.key == key and m.amount is not None]
    return median(values) if values else None


@routes.post("", responses={200: ProposedOut})
def line_of(body: SortedAllIn) -> Response:
    """The line that agrees best with what was sorted, and what it would change of the stored takes. Nothing is changed."""
    _known(body.criterion)
    line, trial = LINES[body.criterion], trying.Trial(scope())
    now = rulebook.Book(scope()).rules(instrument="none", exempt=(), taught={}).limit(line.limit)
    found = proposed(line, [Example(one.take_id, one.value, one.fine) for one in body.examples], now)
    changed = trial.by(rulebook.Book(scope(), own=rulebook.with_limit(scope(), line.limit, found.value)))
    return answer(
        ProposedOut(
            value=found.value, agrees=found.agrees, agrees_now=found.agrees_now, misjudged=list(found.misjudged), count=len(changed), takes=trial.takes,
            changed=changed_out(changed),
        )
    )  # fmt: skip


@routes.put("", responses={200: Done})
def use_line(body: LineIn) -> Response:
    """Draw a line there for the whole programme; the stored takes whose verdicts change by it are judged anew."""
    _known(body.criterion)
    with trying.followed(scope()):
        rulebook.change_rules(scope(), rulebook.with_limit(scope(), LINES[body.criterion].limit, body.value))
    return answer(Done(done=True))


@routes.get("/changes", responses={200: RuleChangesOut})
def changes() -> Response:
    """Who changed the rules, and when, the newest first."""
    return answer(RuleChangesOut(changes=[RuleChangeOut(made_at=one.made_at, by=one.by, what=_what(one)) for one in rulebook.changes(scope())]))


def _what(change: RuleChangeRecord) -> list[str]:
    """Each thing that was changed: its name, from, to."""
    before, after = _flat(change.before), _flat(change.after)
    keys = [key for key in {**before, **after} if before.get(key) != after.get(key)]
    return [f"{key}: {before.get(key, 'as usual')} to {after.get(key, 'as usual')}" for key in keys]


def _flat(document: Mapping[str, Any]) -> dict[str, Any]:
    parts = {**document.get("answers", {}), **document.get("limits", {})}
    lists = {key: ", ".join(document[key]) or "none" for key in ("off", "exempt", "order") if key in document}
    return parts | lists | {key: document[key] for key in ("strictness", "profile_id") if key in document}
