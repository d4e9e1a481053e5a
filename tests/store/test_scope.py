"""Nobody sees another programme: every function of the store that takes a key is tried with the keys of somebody else's."""

import inspect
from dataclasses import replace
from datetime import timedelta

import pytest

from brevin.core.edited import Edits
from brevin.core.verdict.rules import Rules
from brevin.store import anew, chairs, changes, checks, database, exemptions, files, lessons, programmes, readings, reports, students, takes
from brevin.store.records import ClipRecord, NotThere, StudentRecord, TakeRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK, consent
from tests.store.test_takes import REPORT, lesson_of, new_take, read_once

MODULES = (changes, checks, files, lessons, programmes, readings, reports, students, takes)


@pytest.fixture
def stranger(scope: Scope) -> Scope:
    """The owner of another programme."""
    other = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    return Scope(other.programme, programmes.add_person(other, login="nosy", name="Nosy", role="owner", password="long enough").person.id)


@pytest.fixture
def take(scope: Scope, student: StudentRecord, clip: ClipRecord) -> TakeRecord:
    lesson_of(scope, student.id)
    made = new_take(scope, student, clip)
    read_once(made.id)
    return takes.take_record(scope, made.id)


def test_every_function_of_the_store_takes_the_scope_it_may_see() -> None:
    free = {"student_record", "edits_from"}  # from rows that were found already
    for module in MODULES:
        for name, function in inspect.getmembers(module, inspect.isfunction):
            if function.__module__ == module.__name__ and not name.startswith("_") and name not in free:
                assert next(iter(inspect.signature(function).parameters)) == "scope", f"{module.__name__}.{name}"


def test_lists_hold_nothing_of_another_programme(scope: Scope, stranger: Scope, take: TakeRecord) -> None:
    assert takes.latest(stranger) == takes.of_student(stranger, take.student.id) == [] == students.students(stranger)
    seen = takes.of_today(stranger, lesson_id=lessons.last_lesson(scope).id, waiting=[take.student.id], since=database.now() - timedelta(days=1))
    assert seen == []
    assert reports.verdicts(stranger) == reports.measures(stranger) == [] and lessons.last_lesson(stranger) is None
    assert {one.programme_id for one in changes.after(stranger, 0)} <= {stranger.programme} < {one.programme_id for one in changes.after(HOUSE, 0)}
    assert [m.person.login for m in programmes.members(stranger)] == ["nosy"] and files.owned(stranger) == set()
    assert readings.claim_next(stranger) is None and readings.waiting(stranger) == 0


def test_keys_of_another_programme_open_nothing(scope: Scope, stranger: Scope, take: TakeRecord, clip: ClipRecord) -> None:
    own = students.add_student(stranger, name="Own", instrument="tuba")
    consent(stranger, own.id)
    seat = lessons.last_lesson(scope).seats[0]
    lesson = lessons.last_lesson(scope).id
    group = students.add_group(scope, "Theirs")
    tries = {
        "take": lambda: takes.take_record(stranger, take.id), "report": lambda: reports.newest(stranger, take.id),
        "delete": lambda: takes.delete(stranger, take.id), "drop": lambda: takes.drop_clip(stranger, take.id),
        "move": lambda: takes.move(stranger, take.id, own.id), "take theirs": lambda: takes.move(scope, take.id, own.id),
        "again": lambda: readings.read_again(stranger, take.id),
        "judge": lambda: anew.put(stranger, take, edits=Edits(), rules=Rules(), report=REPORT),
        "student": lambda: students.student(stranger, take.student.id), "film": lambda: students.may_film(stranger, take.student.id),
        "exempt": lambda: exemptions.put(stranger, take.student.id, []), "withdraw": lambda: students.withdraw_consent(stranger, take.student.id),
        "consent": lambda: students.give_consent(stranger, take.student.id, given_by="x", from_day=take.made_at.date(), until_day=take.made_at.date()),
        "seat": lambda: chairs.set_away(stranger, seat.id, "not_here"), "their group": lambda: students.add_student(
            stranger, name="x", instrument="flute", group_id=group),
        "new take": lambda: takes.add(stranger, student_id=take.student.id, lesson_id=None, check=CHECK, clip=clip),
        "in their lesson": lambda: takes.add(stranger, student_id=own.id, lesson_id=lesson, check=CHECK, clip=clip),
        "their seat's check": lambda: chairs.seat_check(stranger, seat.id, student_id=take.student.id),
        "a chair in theirs": lambda: lessons.add_seat(stranger, lesson, student_id=own.id, place=9, minute=1, check=CHECK, side="left"),
        "a lesson of theirs": lambda: lessons.add_lesson(stranger, title="x", group_id=group, starts_at=database.now(), minutes=1),
        "membership": lambda: programmes.membership(Scope(take.programme_id, stranger.person_id)),
        "password": lambda: programmes.set_password(stranger, "owner", "taken over now"),
    }  # fmt: skip
    for name, attempt in tries.items():
        with pytest.raises(NotThere):
            attempt()
            pytest.fail(name)
    assert takes.take_record(scope, take.id) == take, "and nothing was changed"


def test_the_same_check_is_one_document_a_programme(scope: Scope, stranger: Scope) -> None:
    first, again, theirs = checks.same(scope, CHECK), checks.same(scope, CHECK), checks.same(stranger, CHECK)
    assert first == again and theirs.id != first.id and theirs.check == first.check
    assert checks.same(scope, replace(CHECK, taught={"between": "counted_pause"})).id != first.id


def test_a_person_may_belong_to_several_programmes(scope: Scope, stranger: Scope) -> None:
    programmes.join(scope, login="nosy", role="assistant")
    own = programmes.memberships(HOUSE, stranger.person_id)
    assert [(m.programme.name, m.role) for m in own] == [("Next door", "owner"), ("Made-up winds", "assistant")]
    with pytest.raises(NotThere):
        programmes.join(scope, login="nobody", role="teacher")
