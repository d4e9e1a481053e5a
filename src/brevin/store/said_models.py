"""The tables of what people say beside the readings: what they changed of the rules and of exemptions, what they ticked that no camera sees, what they drew."""

from peewee import AutoField, BooleanField, CharField, DoubleField, ForeignKeyField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField
from brevin.store.models import OfTake, Person, Programme, Student


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


class ExemptionChange(Base):
    """Who left a criterion out for a student, or took it in again, and when. It goes with the student."""

    id = AutoField()
    student = ForeignKeyField(Student, on_delete="CASCADE")
    criterion = CharField(32)
    out_now = BooleanField()
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    made_at = MomentField(default=now)


class TickRow(OfTake):
    """What a teacher saw on the still. item: a row of ``TICKS``; one row an item."""

    item = CharField(24)
    state = CharField(16)  # fine, not_yet
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    said_at = MomentField(default=now)

    class Meta:
        table_name = "tick"


class DrawingRow(OfTake):
    """What a teacher drew on a clip at one moment, in the clip's pixels. shape: circle, its middle and a place on it; arrow, its tail and its tip; note, its
    place, twice."""

    shape = CharField(8)
    t_s = DoubleField()
    x_px = DoubleField()
    y_px = DoubleField()
    to_x_px = DoubleField()
    to_y_px = DoubleField()
    words = CharField(160, default="")
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    said_at = MomentField(default=now)

    class Meta:
        table_name = "drawing"
