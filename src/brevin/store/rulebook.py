"""The programme's rules: how it teaches, its own layer and those of its instruments, and what is in force for a take."""

from collections.abc import Mapping

from brevin.core.kinds import Instrument
from brevin.core.verdict import schools
from brevin.core.verdict.rules import Rules, layer_from, resolve
from brevin.core.verdict.schools import Method, method_from
from brevin.store.database import db
from brevin.store.models import InstrumentRules, Programme
from brevin.store.records import NotThere, StudentRecord
from brevin.store.scope import Scope


def change_rules(scope: Scope, document: Mapping[str, object], *, instrument: Instrument | None = None) -> None:
    """Replace the programme's own layer, or that of one instrument. Raises InvalidInput(bad_profile)."""
    layer_from(document)
    with db.connection_context():
        if instrument is None:
            Programme.update(rules=dict(document)).where(Programme.id == scope.programme).execute()
        else:
            InstrumentRules.delete().where((InstrumentRules.programme == scope.programme) & (InstrumentRules.instrument == instrument)).execute()
            InstrumentRules.create(programme=scope.programme, instrument=instrument, rules=dict(document))


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


def teach(scope: Scope, how: Method) -> None:
    """Replace how the programme teaches; takes judged from now on follow it."""
    with db.connection_context():
        Programme.update(method=schools.to_document(how)).where(Programme.id == scope.programme).execute()


def rules_for(scope: Scope, student: StudentRecord, *, instrument: Instrument, card_rules: Mapping[str, object]) -> Rules:
    """The rules of a take: method, programme, instrument, student's exemptions, card."""
    return resolve([
        schools.layer_of(method(scope) or Method()),
        layer_from(rules_document(scope), name="programme"),
        layer_from(rules_document(scope, instrument=instrument), name="instrument"),
        layer_from({"exempt": list(student.exempt)}, name="student"),
        layer_from(card_rules, name="card"),
    ])  # fmt: skip
