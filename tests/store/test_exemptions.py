"""What is left out for a student: every change is kept with who and when, is seen by nobody else, and goes with the student."""

import pytest

from brevin.core.errors import InvalidInput
from brevin.store import database, exemptions, programmes, students
from brevin.store.models import Person, Student
from brevin.store.records import NotThere, StudentRecord
from brevin.store.said_models import ExemptionChange
from brevin.store.scope import HOUSE, Scope


def changed(scope: Scope, student: StudentRecord) -> list[tuple[str, bool]]:
    return [(one.criterion, one.out_now) for one in exemptions.changes(scope, student.id)]


def test_each_row_that_is_left_out_or_taken_in_is_one_change_and_the_same_list_again_is_none(scope: Scope, student: StudentRecord) -> None:
    member = programmes.add_person(scope, login="second", name="Second Teacher", password="long enough", role="teacher")
    hers = Scope(scope.programme_id, member.person.id)
    exemptions.put(hers, student.id, ["pause", "feet_flat"])
    exemptions.put(hers, student.id, ["feet_flat", "pause", "pause"])
    exemptions.put(scope, student.id, ["feet_flat", "head_level"])
    assert changed(scope, student) == [("pause", False), ("head_level", True), ("pause", True), ("feet_flat", True)]
    by = [one.by for one in exemptions.changes(scope, student.id)]
    assert by[2:] == ["Second Teacher"] * 2 and students.student(scope, student.id).exempt == ("feet_flat", "head_level")
    with database.db.connection_context():
        Person.delete().where(Person.id == member.person.id).execute()
    assert [one.by for one in exemptions.changes(scope, student.id)][2:] == ["", ""], "they have left, and what they did stays"


def test_a_row_that_is_none_changes_nothing_and_another_programme_sees_and_changes_none(scope: Scope, student: StudentRecord) -> None:
    exemptions.put(scope, student.id, ["pause"])
    with pytest.raises(InvalidInput):
        exemptions.put(scope, student.id, ["no_such_row"])
    stranger = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    with pytest.raises(NotThere):
        exemptions.put(stranger, student.id, [])
    assert exemptions.changes(stranger, student.id) == [] and changed(scope, student) == [("pause", True)]


def test_what_was_kept_of_a_student_goes_with_the_student(scope: Scope, student: StudentRecord) -> None:
    exemptions.put(scope, student.id, ["pause"])
    with database.db.connection_context():
        Student.delete().where(Student.id == student.id).execute()
        assert not ExemptionChange.select().exists()
