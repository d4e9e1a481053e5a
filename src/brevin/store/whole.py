"""Everything that is held about one student: told to the family as tables, or erased. Whatever table names a student or a take is in both by itself."""

from collections.abc import Iterator
from dataclasses import dataclass

from peewee import ForeignKeyField, Model

from brevin.store import backups, bench_models, changes, models, said_models, students, takes
from brevin.store.database import db
from brevin.store.fields import Base
from brevin.store.models import Clip, Report, Student, Take
from brevin.store.records import NotThere, StudentRecord
from brevin.store.scope import Scope

ELSEWHERE = {"document", "ground", "lease_token"}  # columns of no table: reports are files of their own, the rest is how the program works
TABLES = (models, bench_models, said_models)  # loaded, so that every table is known


@dataclass(frozen=True)
class Table:
    """Rows of one table that are about a student, every cell as text."""

    name: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class Erased:
    """How much was held about somebody: takes, those of them with pictures."""

    takes: int
    clips: int


def named(scope: Scope, who: str) -> StudentRecord:
    """A student by number, or by the whole name, those who left as well. Raises NotThere, also where two are called so."""
    with db.connection_context():
        called = Student.id == int(who) if who.isdigit() else Student.name == who
        found = [row.id for row in Student.select(Student.id).where(called & scope.sees(Student.programme)).limit(2)]
    if len(found) != 1:
        raise NotThere(who)
    return students.student(scope, found[0])


def tables(scope: Scope, student_id: int) -> list[Table]:
    """Every row about a student, by table. Raises NotThere."""
    students.student(scope, student_id)
    with db.connection_context():
        return [table for model in _models() if (table := _rows(model, student_id)).rows]


def documents(scope: Scope, student_id: int) -> Iterator[tuple[str, int, str]]:
    """Take, version and document of every report, one after the other: they are large. Raises NotThere."""
    students.student(scope, student_id)
    with db.connection_context():
        made = Report.select(Report.take, Report.version, Report.document).join(Take).where(Take.student == student_id).order_by(Report.id)
        for row in made.iterator():
            yield row.take_id, row.version, row.document


def erase(scope: Scope, student_id: int) -> Erased:
    """Delete a student with everything that is held about them; their files are on the list of what is to go. Raises NotThere."""
    with db.connection_context(), db.atomic():
        known = students.student(scope, student_id)
        filmed = [row.id for row in Take.select(Take.id).where(Take.student == student_id)]
        clips = int(Clip.select().join(Take).where(Take.student == student_id).count())
        for take_id in filmed:
            takes.delete(scope, take_id)
        Student.delete().where(Student.id == student_id).execute()
        backups.deleted(scope)
        changes.note(scope, known.programme_id, "lesson", "")
    return Erased(len(filmed), clips)


def _models() -> list[type[Model]]:
    """Every table with rows about a student, the student's own first."""
    found: list[type[Model]] = []
    waiting = list(Base.__subclasses__())
    while waiting:
        model = waiting.pop()
        waiting += model.__subclasses__()
        if model.__subclasses__() == [] and (model is Student or _link(model) is not None):
            found.append(model)
    return sorted(found, key=lambda one: (one is not Student, one._meta.table_name))


def _link(model: type[Model]) -> ForeignKeyField | None:
    """The column that says whose a row is: the student, or the take."""
    links = {one.rel_model: one for one in model._meta.refs}
    return links.get(Student) or links.get(Take)


def _rows(model: type[Model], student_id: int) -> Table:
    columns = [column for name, column in model._meta.columns.items() if name not in ELSEWHERE]
    link = _link(model)
    whose = model.id == student_id if link is None else link == student_id if link.rel_model is Student else link.in_(_takes_of(student_id))
    rows = model.select(*columns).where(whose).tuples()
    names = tuple(column.column_name for column in columns)
    return Table(model._meta.table_name, names, tuple(tuple("" if cell is None else str(cell) for cell in row) for row in rows))


def _takes_of(student_id: int) -> object:
    return Take.select(Take.id).where(Take.student == student_id)
