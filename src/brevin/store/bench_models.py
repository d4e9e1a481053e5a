"""The tables of the instrument bench."""

from peewee import AutoField, BooleanField, CharField, DoubleField, ForeignKeyField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField
from brevin.store.models import Person, Programme, Student


class BenchRun(Base):
    """A section's way through the steps; finished_at: when the last was over. Where it stands follows from its taps."""

    programme_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    card = CharField(16)
    phase = CharField(16)
    steps = JsonField()
    begun_at = MomentField(default=now)
    finished_at = MomentField(null=True)


class BenchTap(Base):
    student_id: int | None  # made by the foreign key
    by_id: int | None  # made by the foreign key
    run_id: int  # made by the foreign key
    id = AutoField()
    run = ForeignKeyField(BenchRun, on_delete="CASCADE")
    does = CharField(16)
    at = MomentField(default=now)
    step = CharField(24, default="")
    student = ForeignKeyField(Student, null=True, on_delete="CASCADE")
    word = CharField(64, default="")
    steps_order = JsonField(null=True)
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")


class OfStudent(Base):
    """Something about one student's instrument that somebody put on record."""

    student_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    student = ForeignKeyField(Student, on_delete="CASCADE")
    at = MomentField(default=now)
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")


class OwnValue(OfStudent):
    """A student's own value of a step."""

    key = CharField(24, column_name="value_key")
    value = DoubleField()


class SoundTry(OfStudent):
    """What came out. rung: the written note, or "alone"; fixed_by: the name of the check that was the reason; length_s: how long the part alone sounded."""

    instrument = CharField(16)
    rung = CharField(16)
    outcome = CharField(16)
    fixed_by = CharField(32, default="")
    length_s = DoubleField(null=True)


class CareDone(OfStudent):
    """batch: what one tap logged together, so that it can be taken back together."""

    task = CharField(24)
    batch = CharField(32)


class Passport(OfStudent):
    """One row a student."""

    answers = JsonField(default=dict)
    shown = JsonField(default=list)
    size = CharField(40, default="")
    number = CharField(40, default="")
    own = BooleanField(default=False)


class Repair(OfStudent):
    """What needs somebody who repairs instruments."""

    what = CharField(160)
    done_at = MomentField(null=True)
