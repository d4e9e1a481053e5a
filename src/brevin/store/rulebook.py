"""The programme's rules: how it teaches, its own layer and those of its instruments, and what is in force for a take."""

from collections.abc import Mapping, Sequence
from functools import cache
from typing import cast

from peewee import JOIN

from brevin.core.kinds import Instrument
from brevin.core.plan.check import Check
from brevin.core.verdict import schools
from brevin.core.verdict.rules import Layer, Rules, layer_from, resolve
from brevin.core.verdict.schools import Method, Question, method_from
from brevin.store import changes as page_changes
from brevin.store.database import db
from brevin.store.models import InstrumentRules, Person, Programme
from brevin.store.records import NotThere, StudentRecord
from brevin.store.rule_records import RuleChangeRecord, RuleKind
from brevin.store.said_models import RuleChange
from brevin.store.scope import Scope

NOTHING = Layer(name="instrument")
MOST_LISTED = 50


def change_rules(scope: Scope, document: Mapping[str, object], *, instrument: Instrument | None = None) -> None:
    """Replace the programme's own layer, or that of one instrument. Raises InvalidInput(bad_profile)."""
    layer_from(document)
    with db.connection_context(), db.atomic():
        _held(scope)
        _note(scope, "limits", rules_document(scope, instrument=instrument), document, instrument)
        if instrument is None:
            Programme.update(rules=dict(document)).where(Programme.id == scope.programme).execute()
        else:
            InstrumentRules.delete().where((InstrumentRules.programme == scope.programme) & (InstrumentRules.instrument == instrument)).execute()
            InstrumentRules.create(programme=scope.programme, instrument=instrument, rules=dict(document))
        page_changes.note(scope, scope.programme, "rules", "")


def with_limit(scope: Scope, name: str, value: float) -> dict[str, object]:
    """The programme's own layer with one more limit; nothing is changed by asking."""
    own = rules_document(scope)
    return {**own, "limits": {**cast(Mapping[str, float], own.get("limits", {})), name: value}}


def rules_document(scope: Scope, *, instrument: Instrument | None = None) -> dict[str, object]:
    """The programme's own layer, or that of one instrument; empty where nothing was changed. Raises NotThere."""
    with db.connection_context():
        if instrument is not None:
            own = InstrumentRules.get_or_none((InstrumentRules.programme == scope.programme) & (InstrumentRules.instrument == instrument))
            return dict(own.rules) if own else {}
        row = Programme.get_or_none(Programme.id == scope.programme)
        if row is None:
            raise NotThere(str(scope.programme_id))
        return dict(row.rules)


def method(scope: Scope) -> Method | None:
    """How the programme teaches; None before it was asked. Raises NotThere."""
    with db.connection_context():
        row = Programme.get_or_none(Programme.id == scope.programme)
    if row is None:
        raise NotThere(str(scope.programme_id))
    return None if row.method is None else method_from(row.method)


def teach(scope: Scope, said: Mapping[str, object]) -> None:
    """Change of how the programme teaches what is said, as a method's document has it; the rest stays, so that two who answer different questions at once are
    both heard. Takes judged from now on follow it. Raises InvalidInput(bad_method, bad_profile)."""
    with db.connection_context(), db.atomic():
        _held(scope)
        before = method(scope) or Method()
        answers = {**before.answers, **cast(Mapping[Question, str], said.get("answers", {}))}
        after = schools.to_document(method_from(schools.to_document(before) | {**said, "answers": answers}))
        _note(scope, "method", schools.to_document(before), after, None)
        Programme.update(method=after).where(Programme.id == scope.programme).execute()
        page_changes.note(scope, scope.programme, "rules", "")


def _held(scope: Scope) -> None:
    """Hold the programme's row from the beginning: two changes that both noted theirs first would wait for each other. Needs an open transaction."""
    Programme.select(Programme.id).where(Programme.id == scope.programme).for_update().first()


def _note(scope: Scope, what: RuleKind, before: Mapping[str, object], after: Mapping[str, object], instrument: Instrument | None) -> None:
    """Keep who changed what, and when. Needs an open transaction."""
    if dict(before) != dict(after):
        RuleChange.create(programme=scope.programme, by=scope.person_id, what=what, instrument=instrument or "", before=dict(before), after=dict(after))


def changes(scope: Scope, limit: int = MOST_LISTED) -> list[RuleChangeRecord]:
    """Who changed the rules, and when, the newest first."""
    with db.connection_context():
        rows = (
            RuleChange.select(RuleChange, Person)
            .join(Person, JOIN.LEFT_OUTER)
            .where(RuleChange.programme == scope.programme)
            .order_by(RuleChange.made_at.desc(), RuleChange.id.desc())
            .limit(limit)
        )
        return [_change(row) for row in rows]


def _change(row: RuleChange) -> RuleChangeRecord:
    by = row.by.name if row.by else ""
    return RuleChangeRecord(row.made_at, by, cast(RuleKind, row.what), row.instrument, before=row.before, after=row.after)


class Book:
    """The programme's layers, read once, for as many takes as are asked for. how: another way to teach than the programme's; own: another layer of its own."""

    def __init__(self, scope: Scope, how: Method | None = None, own: Mapping[str, object] | None = None) -> None:
        taught = how or method(scope) or Method()
        self._taught = cache(lambda own: (schools.layer_of(taught, dict(own)), schools.card_layer(dict(own))))  # few cards answer by themselves
        self._programme = layer_from(rules_document(scope) if own is None else own, name="programme")
        with db.connection_context():
            rows = InstrumentRules.select().where(InstrumentRules.programme == scope.programme)
            self._instruments = {row.instrument: layer_from(dict(row.rules), name="instrument") for row in rows}

    def rules(self, *, instrument: Instrument, exempt: Sequence[str], taught: Mapping[Question, str]) -> Rules:
        """The rules of a take: method, programme, instrument, student's exemptions, and what its card answers by itself of how one teaches."""
        of_method, of_card = self._taught(tuple(sorted(taught.items())))
        spared = layer_from({"exempt": list(exempt)}, name="student")
        return resolve([of_method, self._programme, self._instruments.get(instrument, NOTHING), spared, of_card])


def rules_for(scope: Scope, student: StudentRecord, check: Check) -> Rules:
    """The rules of one take as they are now."""
    return Book(scope).rules(instrument=check.instrument, exempt=student.exempt, taught=check.taught)
