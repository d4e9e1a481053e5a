"""Groups of a programme: the bands that rehearse apart. A student may be in several, or in none."""

from collections.abc import Sequence
from dataclasses import dataclass

from brevin.store import changes
from brevin.store.database import db, insert_all
from brevin.store.models import GroupStudent, Student, StudentGroup
from brevin.store.records import NotThere
from brevin.store.scope import Scope


@dataclass(frozen=True)
class GroupRecord:
    """student_ids: of those who are here, and those who left."""

    id: int
    name: str
    student_ids: tuple[int, ...]


def groups(scope: Scope) -> list[GroupRecord]:
    """All groups by name, with who is in them: two queries whatever their number."""
    with db.connection_context():
        rows = list(StudentGroup.select().where(scope.sees(StudentGroup.programme)).order_by(StudentGroup.name, StudentGroup.id))
        links = GroupStudent.select(GroupStudent.group, GroupStudent.student).where(GroupStudent.group.in_([row.id for row in rows] or [0]))
        inside: dict[int, list[int]] = {}
        for link in links:
            inside.setdefault(link.group_id, []).append(link.student_id)
    return [GroupRecord(row.id, row.name, tuple(sorted(inside.get(row.id, [])))) for row in rows]


def put_in(scope: Scope, name: str, student_ids: Sequence[int]) -> int:
    """Put students into the group of that name, which is made where there is none; who is in it already stays. Returns its key. Raises NotThere for a
    student of another programme; then nobody was put in."""
    with db.connection_context(), db.atomic():
        known = {row.id for row in Student.select(Student.id).where(Student.id.in_(list(student_ids) or [0]) & scope.sees(Student.programme))}
        if set(student_ids) - known:
            raise NotThere(str(sorted(set(student_ids) - known)))
        row = StudentGroup.get_or_none((StudentGroup.name == name) & scope.sees(StudentGroup.programme))
        row = row or StudentGroup.create(programme=scope.programme, name=name)
        already = {link.student_id for link in GroupStudent.select(GroupStudent.student).where(GroupStudent.group == row.id)}
        insert_all(GroupStudent, [{"group": row.id, "student": one} for one in sorted(known - already)])
        changes.note(scope, scope.programme, "lesson", "")
    return int(row.id)


def take_out(scope: Scope, group_id: int, student_ids: Sequence[int]) -> None:
    """Take students out of a group; one that nobody is left in goes, and its lessons stay. Raises NotThere."""
    with db.connection_context(), db.atomic():
        row = StudentGroup.get_or_none((StudentGroup.id == group_id) & scope.sees(StudentGroup.programme))
        if row is None:
            raise NotThere(str(group_id))
        GroupStudent.delete().where((GroupStudent.group == group_id) & GroupStudent.student.in_(list(student_ids) or [0])).execute()
        if not GroupStudent.select().where(GroupStudent.group == group_id).exists():
            StudentGroup.delete().where(StudentGroup.id == group_id).execute()
        changes.note(scope, scope.programme, "lesson", "")
