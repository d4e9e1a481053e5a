"""Checks as documents. A document is never changed: whoever asks for something else gets another one, so that a take keeps what it was read for."""

import hashlib
import json
from collections.abc import Iterable

from brevin.core.plan.check import Check, from_document, to_document
from brevin.store.database import db
from brevin.store.models import AskedCheck
from brevin.store.records import CheckRecord
from brevin.store.scope import Scope

NOTHING_BESIDE: dict[str, object] = {}  # stood beside the document when the first fingerprints were made: they have to stay the same


def same(scope: Scope, check: Check) -> CheckRecord:
    """The programme's check with this document; made where it is new."""
    document = to_document(check)
    fingerprint = hashlib.sha256(json.dumps([document, NOTHING_BESIDE], sort_keys=True).encode()).hexdigest()
    with db.connection_context():
        AskedCheck.insert(programme=scope.programme, fingerprint=fingerprint, name=check.name, document=document).on_conflict_ignore().execute()
        row = AskedCheck.get((AskedCheck.programme == scope.programme) & (AskedCheck.fingerprint == fingerprint))
        return CheckRecord(row.id, check)


def check_records(scope: Scope, check_ids: Iterable[int]) -> dict[int, CheckRecord]:
    """Checks by key; one query. Needs an open connection."""
    rows = AskedCheck.select().where(AskedCheck.id.in_(sorted(set(check_ids)) or [0]) & scope.sees(AskedCheck.programme))
    return {row.id: CheckRecord(row.id, from_document(row.document)) for row in rows}
