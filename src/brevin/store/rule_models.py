"""The table of what was changed of the rules."""

from peewee import AutoField, CharField, ForeignKeyField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField
from brevin.store.models import Person, Programme


class RuleChange(Base):
    """Who changed the rules, and when."""

    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    made_at = MomentField(default=now)
    what = CharField(16)
    instrument = CharField(16, default="")
    before = JsonField(default=dict)
    after = JsonField(default=dict)
