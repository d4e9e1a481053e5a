"""Clips and stills are kept as long as the programme says and the families allow, and no longer; readings stay."""

from dataclasses import replace
from datetime import timedelta

import pytest

from brevin.core.kinds import Purpose
from brevin.ops import files as sweeping
from brevin.ops.settings import Settings
from brevin.store import classes, database, keeping, programmes, students, takes
from brevin.store.records import ClipRecord, StudentRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK
from tests.store.test_takes import FOUND, read_once


def made(scope: Scope, student: StudentRecord, store: Settings, clip: ClipRecord, *, days_ago: float, read: bool = True):
    name = f"{student.id}-{days_ago}.mp4"
    (store.clips / clip.stored_name).unlink(missing_ok=True)
    (store.clips / name).write_bytes(b"pictures")
    at = database.now() - timedelta(days=days_ago)
    take = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=replace(clip, stored_name=name), made_at=at)
    if read:
        read_once(take.id, replace(FOUND, evidence_name=f"{name}.evidence", stills_name="", playable=(name, "video/mp4")))
    return take


def left(scope: Scope, store: Settings) -> int:
    """Takes that still have their clip, of which as many lie in the folder."""
    sweeping.work_off(store)
    held = [take for take in takes.latest(scope) if take.clip is not None]
    assert {path.name for path in store.clips.iterdir()} == {take.clip.stored_name for take in held if take.clip is not None}
    return len(held)


def test_what_is_older_than_the_programme_keeps_goes_and_its_reading_stays(scope: Scope, store: Settings, student, clip) -> None:
    old, young = (made(scope, student, store, clip, days_ago=days) for days in (30.0, 5.0))
    assert keeping.keep_days(scope) is None and keeping.let_go(scope) == 0 and left(scope, store) == 2
    assert keeping.older(scope, (7, 28, 91)) == {7: 1, 28: 1, 91: 0}
    keeping.set_keep_days(scope, 28)
    assert keeping.let_go(HOUSE) == 1 and left(scope, store) == 1 and keeping.let_go(HOUSE) == 0
    gone = takes.take_record(scope, old.id)
    assert gone.clip is None and gone.state == "read" and gone.evidence_name and takes.take_record(scope, young.id).clip is not None
    keeping.set_keep_days(scope, None)
    assert keeping.let_go(HOUSE) == 0


def test_a_clip_that_waits_to_be_read_waits_for_it(scope: Scope, store: Settings, student, clip) -> None:
    made(scope, student, store, clip, days_ago=30.0, read=False)
    keeping.set_keep_days(scope, 7)
    assert keeping.let_go(scope) == 0 and left(scope, store) == 1


def test_a_familys_word_to_keep_ends_with_its_last_day(scope: Scope, store: Settings, clip) -> None:
    today = database.now().date()

    def child(name: str, *purposes: Purpose) -> StudentRecord:
        made_up = students.add_student(scope, name=name, instrument="oboe")
        classes.give_consents(scope, [made_up.id], given_by="g", from_day=today - timedelta(days=9), until_day=today + timedelta(days=9), purposes=purposes)
        return made_up

    def keeping_until(one: StudentRecord, days_ago: int) -> None:
        until = today - timedelta(days=days_ago)
        classes.give_consents(scope, [one.id], given_by="g", from_day=today - timedelta(days=9), until_day=until, purposes=["keeping"])

    ended, last_day, no_word = child("Ada Ended", "filming"), child("Bo Lastday", "filming"), child("Cy Noword", "filming")
    keeping_until(ended, 1)
    keeping_until(last_day, 0)
    for one in (ended, last_day, no_word):
        made(scope, one, store, clip, days_ago=3.0)
    assert keeping.let_go(HOUSE) == 1 and left(scope, store) == 2
    assert [take.student.name for take in takes.latest(scope) if take.clip is None] == ["Ada Ended"]


def test_each_programme_keeps_by_its_own_time(scope: Scope, store: Settings, student, clip) -> None:
    next_door = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    made(scope, student, store, clip, days_ago=30.0)
    keeping.set_keep_days(next_door, 7)
    assert keeping.let_go(HOUSE) == 0 and keeping.let_go(next_door) == 0 and keeping.keep_days(scope) is None


@pytest.mark.parametrize("days", [0, -3, 4000])
def test_a_time_that_is_none_is_refused(scope: Scope, days: int) -> None:
    with pytest.raises(ValueError, match=str(days)):
        keeping.set_keep_days(scope, days)
    assert keeping.keep_days(scope) is None
