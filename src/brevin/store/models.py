"""The tables. Frozen copies of their first form stand in the migrations."""

import uuid

from peewee import AutoField, BigIntegerField, BooleanField, CharField, DateField, FloatField, ForeignKeyField, IntegerField, Model, TextField

from brevin.store.database import MomentField, db, now


class LongTextField(TextField):
    """Reports are larger than the 64 KiB of a plain text."""

    field_type = "LONGTEXT"


class Base(Model):
    class Meta:
        database = db
        legacy_table_names = False
        table_settings = ["DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci"]


class Teacher(Base):
    id = AutoField()
    login = CharField(64, unique=True)
    name = CharField(120)
    role = CharField(16)  # teacher or assistant
    password_hash = CharField(255)
    active = BooleanField(default=True)


class Student(Base):
    id = AutoField()
    name = CharField(120)
    instrument = CharField(24)
    note = CharField(255, default="")
    left_on = DateField(null=True)


class Consent(Base):
    student_id: int  # made by the foreign key
    id = AutoField()
    student = ForeignKeyField(Student, backref="consents", on_delete="CASCADE")
    purpose = CharField(32)  # filming
    given_by = CharField(120)
    from_day = DateField()
    until_day = DateField()
    withdrawn_on = DateField(null=True)


class Lesson(Base):
    id = AutoField()
    title = CharField(120)
    group_name = CharField(120)
    starts_at = MomentField()
    minutes = IntegerField(default=40)


class Seat(Base):
    student_id: int  # made by the foreign key
    id = AutoField()
    lesson = ForeignKeyField(Lesson, backref="seats", on_delete="CASCADE")
    student = ForeignKeyField(Student, on_delete="CASCADE")
    place = IntegerField()
    minute = FloatField()
    card = CharField(48)
    position = CharField(16, default="seated")
    side = CharField(16, default="right")
    away = CharField(16, default="")  # "", not_here, not_today

    class Meta:
        indexes = ((("lesson", "place"), True),)


class Take(Base):
    student_id: int  # made by the foreign key
    id = CharField(32, primary_key=True, default=lambda: uuid.uuid4().hex)
    student = ForeignKeyField(Student, backref="takes", on_delete="CASCADE")
    teacher = ForeignKeyField(Teacher, null=True, on_delete="SET NULL")
    lesson = ForeignKeyField(Lesson, null=True, on_delete="SET NULL")
    made_at = MomentField(default=now, index=True)
    card = CharField(48, default="")
    first_inhale_s = FloatField(null=True)  # where the app counted it; None where nobody but the clip knows
    instrument = CharField(24, default="none")
    try_number = IntegerField(default=1)
    state = CharField(16, default="queued", index=True)  # queued, reading, read, failed
    stage = CharField(48, default="waiting")
    progress = FloatField(default=0.0)
    reason_code = CharField(48, default="")
    reason_text = CharField(400, default="")
    attempts = IntegerField(default=0)
    lease_token = CharField(32, default="")
    lease_until = MomentField(null=True)


class Clip(Base):
    take_id: str  # made by the foreign key
    id = AutoField()
    take = ForeignKeyField(Take, unique=True, backref="clips", on_delete="CASCADE")
    stored_name = CharField(80)
    original_name = CharField(160)
    sha256 = CharField(64, index=True)
    size_bytes = BigIntegerField()
    playable_name = CharField(80, default="")
    playable_type = CharField(32, default="video/mp4")


class Report(Base):
    take_id: str  # made by the foreign key
    id = AutoField()
    take = ForeignKeyField(Take, backref="reports", on_delete="CASCADE")
    version = IntegerField()
    made_at = MomentField(default=now)
    software_version = CharField(24)
    thresholds_id = CharField(24)
    profile_id = CharField(64)
    readable = BooleanField()
    state = CharField(16)  # the line for lists: worst state, words, cue
    words = CharField(400)
    cue = CharField(255)
    document = LongTextField()

    class Meta:
        indexes = ((("take", "version"), True),)


ALL = (Teacher, Student, Consent, Lesson, Seat, Take, Clip, Report)
