"""Sessions: who is signed in in which browser. A cookie counts only as long as its row stands."""

import hashlib
import secrets
from datetime import timedelta

from brevin.store.database import db, now
from brevin.store.door_models import SignedIn
from brevin.store.models import Person
from brevin.store.scope import Scope

LASTS = timedelta(hours=10)  # a school day


def begin(scope: Scope, person_id: int) -> str:
    """A new session; returns what the browser keeps. Those that have run out go."""
    token = secrets.token_urlsafe(32)
    with db.connection_context(), db.atomic():
        SignedIn.delete().where(SignedIn.since < now() - LASTS).execute()
        SignedIn.create(token_hash=_hash(token), person=person_id, since=now())
    return token


def stands(scope: Scope, token: str) -> bool:
    """Whether the scope's person is still signed in with this token."""
    with db.connection_context():
        fits = (SignedIn.token_hash == _hash(token)) & (SignedIn.person == scope.person_id) & (SignedIn.since >= now() - LASTS)
        return bool(SignedIn.select().where(fits).exists())


def end(scope: Scope, token: str) -> None:
    """Sign out of this browser."""
    with db.connection_context():
        SignedIn.delete().where(SignedIn.token_hash == _hash(token)).execute()


def end_all(scope: Scope, login: str) -> None:
    """End every session of a person, as a new password does."""
    with db.connection_context():
        SignedIn.delete().where(SignedIn.person.in_(Person.select(Person.id).where(Person.login == login))).execute()


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()
