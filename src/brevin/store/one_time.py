"""One-time codes: a phone is paired, a person invited. Each opens one thing once, and runs out."""

import hashlib
import secrets
from datetime import datetime, timedelta
from typing import Literal

from brevin.store.database import db, now
from brevin.store.door_models import OneTime
from brevin.store.records import Opened
from brevin.store.scope import Scope

Kind = Literal["phone", "invitation"]
LASTS: dict[Kind, timedelta] = {"phone": timedelta(minutes=5), "invitation": timedelta(days=7)}
ALPHABET = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"  # nothing that is taken for something else
LETTERS: dict[Kind, int] = {"phone": 8, "invitation": 24}


class CodeRefused(Exception):
    """code: code_unknown, code_used or code_old."""

    def __init__(self, code: str) -> None:
        super().__init__(code)
        self.code = code


def issue(scope: Scope, kind: Kind, facts: dict[str, str]) -> tuple[str, datetime]:
    """A new code and until when it opens. Only its fingerprint is kept; codes long run out go."""
    code = "".join(secrets.choice(ALPHABET) for _ in range(LETTERS[kind]))
    until = now() + LASTS[kind]
    with db.connection_context(), db.atomic():
        OneTime.delete().where(OneTime.until < now() - timedelta(days=30)).execute()
        OneTime.create(code_hash=_hash(code), kind=kind, programme=scope.programme, person=scope.person_id, facts=facts, until=until)
    return code, until


def open_with(scope: Scope, kind: Kind, code: str) -> Opened:
    """What the code opens; it opens nothing again, however many ask at once. Only the house may. Raises CodeRefused."""
    assert scope.programme_id is None
    plain = "".join(letter for letter in code.upper() if letter in ALPHABET)
    with db.connection_context(), db.atomic():
        row = OneTime.select().where((OneTime.code_hash == _hash(plain)) & (OneTime.kind == kind)).for_update().first()
        if row is None:
            raise CodeRefused("code_unknown")
        if row.used_at is not None:
            raise CodeRefused("code_used")
        if row.until < now():
            raise CodeRefused("code_old")
        OneTime.update(used_at=now()).where(OneTime.code_hash == row.code_hash).execute()
        return Opened(row.programme_id, row.person_id, dict(row.facts))


def _hash(code: str) -> str:
    return hashlib.sha256(code.encode()).hexdigest()
