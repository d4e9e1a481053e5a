"""A queued reading from claim to stored report, on the real database with real clips."""

import hashlib
import json
import shutil
from pathlib import Path

import pytest

from brevin.jobs.queue import put_back, queue_on
from brevin.jobs.reading import read_take
from brevin.ops import demo
from brevin.ops.settings import Settings
from brevin.store import lessons, people, takes
from brevin.store.records import ClipRecord, StudentRecord
from tests import clips


def queued(student: StudentRecord, settings: Settings, source: Path, card: str = "4-0-6@84x3", first_inhale_s: float | None = None) -> str:
    name = hashlib.sha256(str(source).encode()).hexdigest()[:32] + source.suffix
    shutil.copyfile(source, settings.clips / name)
    clip = ClipRecord(name, source.name, "0" * 64, source.stat().st_size, "", "")
    return takes.add(student_id=student.id, teacher_id=None, lesson_id=None, card=card, clip=clip, first_inhale_s=first_inhale_s).id


def test_a_demo_clip_is_read_and_kept_with_what_made_it(student, store) -> None:
    take_id = queued(student, store, demo.CLIPS / "standing-full-early.mp4")
    read_take(take_id, store)
    take, report = takes.take_record(take_id), takes.report(take_id)
    assert take.state == "read" and take.clip.playable_name == take.clip.stored_name
    document = json.loads(report.document)
    assert document["schema"] == "brevin.analysis/1" and len(document["breaths"]) == 3
    assert document["clip"]["file"] == "standing-full-early.mp4"
    assert (report.software_version, report.thresholds_id) == (document["software"]["version"], document["software"]["thresholds_id"])
    read_take(take_id, store)
    assert takes.report(take_id).version == 1, "a take that is read is not read twice"


def test_a_clip_without_sound_is_counted_as_the_app_counted(student, store, tmp_path) -> None:
    silent = clips.without_sound(demo.CLIPS / "standing-full-early.mp4", tmp_path / "silent.mp4")
    take_id = queued(student, store, silent, first_inhale_s=3.66)
    read_take(take_id, store)
    document = json.loads(takes.report(take_id).document)
    assert (document["beats"]["source"], document["beats"]["first_inhale_s"]) == ("recorded", 3.66)
    assert document["readable_for"]["breath"] and not document["readable_for"]["sound"]


def test_a_clip_that_cannot_be_read_ends_in_its_reason_and_the_worker_goes_on(student, store, tmp_path) -> None:
    room = queued(student, store, clips.write(tmp_path / "room.mp4", clips.room(90)))
    broken = queued(student, store, clips.write(tmp_path / "b.mp4", clips.room(5)))
    (store.clips / takes.take_record(broken).clip.stored_name).write_bytes(b"overwritten since")
    for take_id in (room, broken):
        read_take(take_id, store)
    assert takes.take_record(room).headline.state == "unreadable" and "Nobody" in takes.take_record(room).headline.words
    assert (takes.take_record(broken).state, takes.take_record(broken).reason_code) == ("failed", "not_a_video")


def test_an_error_of_ours_is_stored_as_such(student, store, monkeypatch) -> None:
    from brevin.jobs import reading

    take_id = queued(student, store, demo.CLIPS / "standing-full-early.mp4")
    monkeypatch.setattr(reading, "look", lambda *a, **k: 1 / 0)
    read_take(take_id, store)
    assert (takes.take_record(take_id).state, takes.take_record(take_id).reason_code) == ("failed", "reading_failed")


def test_a_take_deleted_while_it_is_read_leaves_nothing(student, store, monkeypatch) -> None:
    from brevin.jobs import reading

    take_id = queued(student, store, demo.CLIPS / "standing-full-early.mp4")

    def look(path, model, *, progress):
        takes.delete(take_id)
        progress("watching", 0.2)

    monkeypatch.setattr(reading, "look", look)
    read_take(take_id, store)
    assert takes.latest(5) == []


def test_the_queue_takes_an_id_and_waiting_takes_are_put_back(student, store) -> None:
    readings = queue_on(store)
    readings.huey.storage.flush_queue()
    take_id = queued(student, store, demo.CLIPS / "standing-full-early.mp4")
    assert put_back(readings.send) == 1 and readings.huey.storage.queue_size() == 1
    task = readings.huey.dequeue()
    assert task.args == (take_id,) and readings.huey.storage.queue_size() == 0
    readings.huey.storage.close()


def test_the_demo_school_is_made_once_of_people_nobody_knows(store) -> None:
    assert demo.fill(store) and not demo.fill(store)
    students = people.students()
    assert len(students) == 24 and len({s.name for s in students}) == 24 and sum(s.may_film_until is None for s in students) == 2
    lesson = lessons.last_lesson()
    assert len(lesson.seats) == len(demo.LESSON_ORDER) and {s.take.state for s in lesson.seats if s.take} == {"queued"}
    assert people.sign_in(demo.LOGIN, demo.PASSWORD).role == "teacher"
    assert len(takes.latest(9)) == len(demo.TAKES) + len(demo.LAST_WEEK)


@pytest.mark.parametrize("text", ["", "nonsense"])
def test_a_take_without_a_usable_card_is_read_without_one(text: str) -> None:
    from brevin.jobs.reading import card_of

    assert card_of(text) is None
