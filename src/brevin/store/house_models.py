"""The tables of the house: files that are to go, where backups of it are, and what open pages are to know. They hang on no other table."""

from peewee import AutoField, BigIntegerField, CharField, IntegerField

from brevin.store.database import MomentField, now
from brevin.store.fields import Base


class FileToGo(Base):
    """A file that is nobody's any more: deleted at once, and again at start until it is gone."""

    id = AutoField()
    folder = CharField(24)
    name = CharField(80)
    since = MomentField(default=now)

    class Meta:
        indexes = ((("folder", "name"), True),)


class PageChange(Base):
    """What open pages are to know: how far a take is, what somebody said of it, or something about the lesson."""

    id = AutoField()
    programme = IntegerField()
    kind = CharField(16)  # take, said, lesson, bench, care, cards, rules, people
    ref = CharField(32, default="")
    at = MomentField(default=now, index=True)


class Deletion(Base):
    """Something was deleted or withdrawn: a row each, and no more than that it was. A count in one row would make all who delete wait for each other."""

    id = AutoField()
    at = MomentField(default=now)


class BackupPlace(Base):
    """A folder that holds a backup. key: written into it, so that no other data folder's is taken for ours; made_at: the moment that it holds; knows: of how
    many deletions."""

    id = AutoField()
    path = CharField(512, unique=True)
    key = CharField(64)
    made_at = MomentField(null=True)
    files = IntegerField(default=0)
    size_bytes = BigIntegerField(default=0)
    knows = IntegerField(default=0)
