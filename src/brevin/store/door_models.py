"""The tables of the door: who is signed in where, and codes that open one thing once. They go with the person or the programme."""

from peewee import CharField, ForeignKeyField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField
from brevin.store.models import Person, Programme


class SignedIn(Base):
    """token_hash: SHA-256 of what the browser's cookie holds."""

    token_hash = CharField(64, primary_key=True)
    person = ForeignKeyField(Person, on_delete="CASCADE")
    since = MomentField(default=now)
    of_token = CharField(64, default="")  # of a paired phone: the session it films for, with which it ends


class OneTime(Base):
    """A code that opens one thing once, until it runs out. facts: what it opens."""

    programme_id: int  # made by the foreign key
    person_id: int  # made by the foreign key
    code_hash = CharField(64, primary_key=True)
    kind = CharField(16)  # invitation, phone
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    person = ForeignKeyField(Person, on_delete="CASCADE")
    facts = JsonField(default=dict)
    until = MomentField()
    used_at = MomentField(null=True)
