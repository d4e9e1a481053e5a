"""The tables of what people say beside the readings: what they changed of the rules, and what they ticked that no camera sees."""

from peewee import AutoField, CharField, ForeignKeyField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField
from brevin.store.models import OfTake, Person, Programme


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


class TickRow(OfTake):
    """What a teacher saw on the still. item: a row of ``TICKS``; one row an item."""

    item = CharField(24)
    state = CharField(16)  # fine, not_yet
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    said_at = MomentField(default=now)

    class Meta:
        table_name = "tick"
