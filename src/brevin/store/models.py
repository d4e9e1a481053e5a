"""The tables. Their history stands in the migrations."""

import uuid

from peewee import (
    AutoField,
    BigIntegerField,
    BooleanField,
    CharField,
    DateField,
    DoubleField,
    FloatField,
    ForeignKeyField,
    IntegerField,
)

from brevin.store.database import MomentField, now
from brevin.store.fields import Base, JsonField, LongTextField
from brevin.store.house_models import BackupPlace, Deletion, FileToGo, PageChange


class Programme(Base):
    """A band class with its people, students, cards and rules."""

    id = AutoField()
    name = CharField(120)
    time_zone = CharField(64, default="UTC")
    rules = JsonField(default=dict)  # the programme's own layer
    empty_allowed = BooleanField(default=False)  # cards that ask to stay empty
    method = JsonField(null=True)  # how it teaches; null before it was asked
    bench = JsonField(null=True)  # gates, ways and intervals that it changed at the bench
    seating = JsonField(null=True)  # rows of students' keys, from the teacher's stand; null: nobody was seated by hand
    keep_days = IntegerField(null=True)  # clips and stills go after so many; null: when somebody deletes them


class Person(Base):
    id = AutoField()
    login = CharField(64, unique=True)
    name = CharField(120)
    password_hash = CharField(255)
    active = BooleanField(default=True)


class Membership(Base):
    programme_id: int  # made by the foreign key
    person_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    person = ForeignKeyField(Person, on_delete="CASCADE")
    role = CharField(16)

    class Meta:
        indexes = ((("programme", "person"), True),)


class StudentGroup(Base):
    programme_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    name = CharField(120)


class InstrumentRules(Base):
    """What a programme changes for one instrument."""

    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    instrument = CharField(24)
    rules = JsonField(default=dict)

    class Meta:
        indexes = ((("programme", "instrument"), True),)


class Student(Base):
    programme_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    name = CharField(120)
    instrument = CharField(24)
    note = CharField(255, default="")
    exempt = JsonField(default=list)  # criteria that are neither measured nor counted
    left_on = DateField(null=True)


class GroupStudent(Base):
    id = AutoField()
    group = ForeignKeyField(StudentGroup, on_delete="CASCADE")
    student = ForeignKeyField(Student, on_delete="CASCADE")

    class Meta:
        indexes = ((("group", "student"), True),)


class Consent(Base):
    student_id: int  # made by the foreign key
    id = AutoField()
    student = ForeignKeyField(Student, backref="consents", on_delete="CASCADE")
    purpose = CharField(32)  # filming
    given_by = CharField(120)
    from_day = DateField()
    until_day = DateField()
    withdrawn_on = DateField(null=True)


class AskedCheck(Base):
    """A check's document; never changed, so that a take keeps what it was read for."""

    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    fingerprint = CharField(64)
    name = CharField(64)
    document = JsonField()

    class Meta:
        indexes = ((("programme", "fingerprint"), True),)


class CountCardRow(Base):
    """A card of the programme's ladder. document: of a check."""

    programme_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    rung = IntegerField()
    title = CharField(64, default="")
    document = JsonField()
    shown_name = CharField(80, default="")  # the teacher's own demonstration, among the clips
    shown_type = CharField(32, default="")

    class Meta:
        table_name = "count_card"


class Lesson(Base):
    programme_id: int  # made by the foreign key
    group_id: int  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    group = ForeignKeyField(StudentGroup, null=True, on_delete="SET NULL")
    title = CharField(120)
    starts_at = MomentField()
    minutes = IntegerField(default=40)
    seats_now = JsonField(default=dict)  # by session: key of the chair in front on its screens, and how often it has changed


class Seat(Base):
    student_id: int  # made by the foreign key
    asked_id: int  # made by the foreign key
    id = AutoField()
    lesson = ForeignKeyField(Lesson, backref="seats", on_delete="CASCADE")
    student = ForeignKeyField(Student, on_delete="CASCADE")
    place = IntegerField()
    minute = FloatField()
    asked = ForeignKeyField(AskedCheck)
    side = CharField(16, default="right")
    away = CharField(16, default="")  # "", not_here, not_today
    counted = JsonField(null=True)  # the last counted breaths without a clip, as in the mirror: of a Run

    class Meta:
        indexes = ((("lesson", "place"), True),)


class Take(Base):
    programme_id: int  # made by the foreign key
    student_id: int  # made by the foreign key
    asked_id: int  # made by the foreign key
    filmed_by_id: int  # made by the foreign key
    lesson_id: int | None  # made by the foreign key
    id = CharField(32, primary_key=True, default=lambda: uuid.uuid4().hex)
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    student = ForeignKeyField(Student, backref="takes", on_delete="CASCADE")
    filmed_by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    lesson = ForeignKeyField(Lesson, null=True, on_delete="SET NULL")
    made_at = MomentField(default=now, index=True)
    asked = ForeignKeyField(AskedCheck)
    first_inhale_s = FloatField(null=True)  # where the app counted it; None where nobody but the clip knows
    rules = JsonField(default=dict)  # resolved for this take
    edits = JsonField(default=dict)  # what a person changed of the reading
    try_number = IntegerField(default=1)
    state = CharField(16, default="queued", index=True)  # queued, reading, read, failed
    stage = CharField(48, default="waiting")
    progress = FloatField(default=0.0)
    reason_code = CharField(48, default="")
    reason_facts = JsonField(default=dict)
    attempts = IntegerField(default=0)
    lease_token = CharField(32, default="")
    lease_until = MomentField(null=True)
    evidence_name = CharField(80, default="")
    stills_name = CharField(80, default="")  # pictures of the moments that its report shows as stills
    claimed_at = MomentField(null=True)
    read_s = FloatField(null=True)  # how long the last reading took
    judge_due = BooleanField(default=False, index=True)  # its verdicts are to follow rules that were changed since
    felt = CharField(16, default="")  # what the student said before the reading was there
    sent_as = CharField(36, null=True, unique=True)  # the recording's own name in the browser it was filmed in: sent twice, it is one take


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
    blurred_for = IntegerField(null=True, index=True)  # as records.ClipRecord has it; null = to be looked at for others


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
    headline = JsonField(default=dict)  # the line for lists, as codes
    document = LongTextField()
    view = CharField(16, default="")  # with the position: what other readings this one may be compared with
    position = CharField(16, default="")
    ground = JsonField(null=True)  # what its verdicts stand on beside the measures; None where nobody was read, or by an older release

    class Meta:
        indexes = ((("take", "version"), True),)


class OfTake(Base):
    """A row about one take that is asked for by student, criterion, instrument and time."""

    student_id: int  # made by the foreign key
    take_id: str  # made by the foreign key
    id = AutoField()
    programme = ForeignKeyField(Programme, on_delete="CASCADE")
    student = ForeignKeyField(Student, on_delete="CASCADE")
    take = ForeignKeyField(Take, on_delete="CASCADE")
    instrument = CharField(24)
    made_at = MomentField()


class MeasureRow(OfTake):
    """A number of the newest report."""

    key = CharField(32, column_name="measure_key")
    breath = IntegerField(null=True)
    segment = CharField(24, null=True)
    value = DoubleField(null=True)
    half_width = DoubleField(null=True)
    withheld = CharField(32, default="")

    class Meta:
        table_name = "measure"


class VerdictRow(OfTake):
    """A verdict of the newest report."""

    criterion = CharField(32)
    state = CharField(16)
    value = DoubleField(null=True)
    half_width = DoubleField(null=True)
    side = CharField(8, default="")
    outside = BooleanField(default=False)
    steady_breaths = IntegerField(null=True)
    counted_breaths = IntegerField(null=True)
    reason = CharField(32, default="")

    class Meta:
        table_name = "verdict"


class Overrule(OfTake):
    """What the teacher says instead, with the reason."""

    criterion = CharField(32)
    breath = IntegerField(null=True)
    state = CharField(16)
    reason = CharField(255, default="")
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    said_at = MomentField(default=now)


class CueGiven(OfTake):
    """A cue that was said after a take. way: in which words, by their place in ``cues``."""

    criterion = CharField(32)
    side = CharField(8, default="")
    way = IntegerField(default=0)
    by = ForeignKeyField(Person, null=True, on_delete="SET NULL")
    said_at = MomentField(default=now)


ALL = (
    Programme, Person, Membership, StudentGroup, InstrumentRules, Student, GroupStudent, Consent, AskedCheck, CountCardRow, Lesson, Seat, Take, Clip, Report,
    MeasureRow, VerdictRow, Overrule, CueGiven, FileToGo, Deletion, BackupPlace, PageChange,
)  # fmt: skip
