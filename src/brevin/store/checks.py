"""Checks as documents. A document is never changed: whoever asks for something else gets another one, so that a take keeps what it was read for."""

import hashlib
import json
from collections.abc import Iterable, Mapping

from brevin.core.plan.check import Check, from_document, to_document
from brevin.core.verdict.rules import layer_from
from brevin.store.database import db
from brevin.store.models import AskedCheck
from brevin.store.records import CheckRecord, NotThere
from brevin.store.scope import Scope

NO_RULES: Mapping[str, object] = {}


def same(scope: Scope, check: Check, rules: Mapping[str, object] = NO_RULES) -> CheckRecord:
    """The programme's check with this document and these rules of the card; made where it is new. Raises InvalidInput(bad_profile)."""
    layer_from(rules)
    document = to_document(check)
    fingerprint = hashlib.sha256(json.dumps([document, dict(rules)], sort_keys=True).encode()).hexdigest()
    with db.connection_context():
        AskedCheck.insert(
            programme=scope.programme, fingerprint=fingerprint, name=check.name, document=document, rules=dict(rules)
        ).on_conflict_ignore().execute()
        row = AskedCheck.get((AskedCheck.programme == scope.programme) & (AskedCheck.fingerprint == fingerprint))
        return CheckRecord(row.id, check)


def check_rules(scope: Scope, check_id: int) -> dict[str, object]:
    """The card's own layer of rules. Raises NotThere."""
    with db.connection_context():
        row = AskedCheck.get_or_none((AskedCheck.id == check_id) & scope.sees(AskedCheck.programme))
        if row is None:
            raise NotThere(str(check_id))
        return dict(row.rules)


def check_records(scope: Scope, check_ids: Iterable[int]) -> dict[int, CheckRecord]:
    """Checks by key; one query. Needs an open connection."""
    rows = AskedCheck.select().where(AskedCheck.id.in_(sorted(set(check_ids)) or [0]) & scope.sees(AskedCheck.programme))
    return {row.id: CheckRecord(row.id, from_document(row.document)) for row in rows}
