"""Sessions: who is signed in in which browser. A cookie counts only as long as its row stands."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import timedelta

from brevin.store.database import db, now
from brevin.store.door_models import SignedIn
from brevin.store.models import Person
from brevin.store.scope import Scope

LASTS = timedelta(hours=10)  # a school day


@dataclass(frozen=True)
class Standing:
    """A session that counts. phone: it films for another, and does nothing else; of: fingerprint of that one, else of itself."""

    phone: bool
    of: str


def begin(scope: Scope, person_id: int, *, of_token: str = "") -> str:
    """A new session; returns what the browser keeps. Those that have run out go. of_token: fingerprint of the session that a paired phone films for."""
    token = secrets.token_urlsafe(32)
    with db.connection_context(), db.atomic():
        SignedIn.delete().where(SignedIn.since < now() - LASTS).execute()
        SignedIn.create(token_hash=fingerprint(token), person=person_id, since=now(), of_token=of_token)
    return token


def stands(scope: Scope, token: str) -> Standing | None:
    """How the scope's person is still signed in with this token; None where not any more."""
    own = fingerprint(token)
    with db.connection_context():
        fits = (SignedIn.token_hash == own) & (SignedIn.person == scope.person_id) & (SignedIn.since >= now() - LASTS)
        row = SignedIn.get_or_none(fits)
        return None if row is None else Standing(phone=bool(row.of_token), of=row.of_token or own)


def end(scope: Scope, token: str) -> None:
    """Sign out of this browser, and of the phones that film for it."""
    own = fingerprint(token)
    with db.connection_context():
        SignedIn.delete().where((SignedIn.token_hash == own) | (SignedIn.of_token == own)).execute()


def end_all(scope: Scope, login: str) -> None:
    """End every session of a person, as a new password does."""
    with db.connection_context():
        SignedIn.delete().where(SignedIn.person.in_(Person.select(Person.id).where(Person.login == login))).execute()


def fingerprint(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()
