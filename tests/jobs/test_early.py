"""A clip that is read while it is filmed: begun before its take is there, taken over by it, and let go where none comes."""

import os
import signal
import time
import uuid
from pathlib import Path

import pytest

from brevin.core.evidence import unpacked
from brevin.edge.growing import Growing, begun, growing
from brevin.jobs import early
from brevin.jobs.reader import Reader
from brevin.ops import demo
from brevin.ops.settings import Settings
from brevin.store import takes
from brevin.store.records import ClipRecord
from tests import clips
from tests.conftest import CHECK
from tests.jobs.conftest import read_all


@pytest.fixture(scope="session")
def recording(tmp_path_factory: pytest.TempPathFactory) -> bytes:
    """Four seconds as a browser codes them."""
    path = tmp_path_factory.mktemp("recording") / "c.webm"
    return clips.write(path, clips.pictures_of(demo.CLIPS / "standing-full-early.mp4", 90), codec="vp8").read_bytes()


@pytest.fixture
def filmed(store: Settings, student, recording: bytes) -> Growing:
    """Half of it has come."""
    store.filming.mkdir(exist_ok=True)
    for left in growing(store.filming):
        left.drop()
    one = begun(store.filming, student.programme_id, student.id, str(uuid.uuid4()), "auto")
    one.path.write_bytes(recording[: len(recording) // 2])
    return one


def looked_at(reader: Reader) -> None:
    until = time.monotonic() + 60  # a busy machine takes its time to load the network
    while time.monotonic() < until:
        reader.step(wait_s=0.05)
        if any(one.child and one.child.progress and one.child.progress[0] == "watching" for one in reader._early._looks.values()):
            return
    raise AssertionError("never begun")


def became_a_take(one: Growing, recording: bytes, store: Settings, scope, student) -> str:
    with one.path.open("ab") as file:
        file.write(recording[one.path.stat().st_size :])
    clip = ClipRecord(f"{one.key.replace('-', '')}.webm", "filmed-here.webm", "0" * 64, len(recording))
    (store.clips / clip.stored_name).write_bytes(recording)
    made = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip, sent_as=one.key)
    one.end(store.clips / clip.stored_name)
    return made.id


def test_what_was_begun_while_it_was_filmed_becomes_the_reading_of_its_take(scope, student, store, reader, filmed, recording) -> None:
    looked_at(reader)
    [look] = reader._early._looks.values()
    began = look.child.process.pid
    take_id = became_a_take(filmed, recording, store, scope, student)
    reader.step(wait_s=0.0)
    assert reader._jobs[0].child.process.pid == began, "the same look goes on"
    read_all(reader)
    take = takes.take_record(scope, take_id)
    assert take.state == "read" and take.evidence_name == look.evidence_name and take.clip.playable_name.endswith(".webm")
    assert unpacked((store.evidence / take.evidence_name).read_bytes()).clip.file == take.clip.stored_name
    assert not list(store.filming.iterdir()) and [path.name for path in store.evidence.iterdir()] == [take.evidence_name]


def test_one_that_is_done_before_its_take_has_its_turn_waits_with_its_answer(scope, student, store, reader, filmed, recording) -> None:
    looked_at(reader)
    reader._most = 0  # others are being read
    take_id = became_a_take(filmed, recording, store, scope, student)
    [look] = reader._early._looks.values()
    until = time.monotonic() + 30
    while look.answered is None and time.monotonic() < until:
        reader.step(wait_s=0.05)
    assert takes.take_record(scope, take_id).state == "queued" and look.answered is not None
    reader._most = 1
    read_all(reader, within_s=5.0)
    assert takes.take_record(scope, take_id).evidence_name == look.evidence_name and not list(store.filming.iterdir())


def test_the_next_clip_stands_still_until_the_one_that_is_over_has_been_read(scope, student, store, reader, filmed, recording) -> None:
    looked_at(reader)
    following = begun(store.filming, student.programme_id, student.id, str(uuid.uuid4()), "auto")
    following.path.write_bytes(recording[: len(recording) // 2])
    reader.step(wait_s=0.0)
    child = reader._early._looks[following.key].child.process
    assert not stopped(child.pid)
    became_a_take(filmed, recording, store, scope, student)
    reader.step(wait_s=0.0)
    assert stopped(child.pid) and not stopped(reader._jobs[0].child.process.pid)
    read_all(reader)
    reader.step(wait_s=0.0)
    assert not stopped(child.pid), "it goes on where it was"
    second = became_a_take(following, recording, store, scope, student)
    read_all(reader)
    assert takes.take_record(scope, second).state == "read"


def stopped(pid: int) -> bool:
    """Whether the kernel holds a process where it is; it takes it a moment to."""
    states = set()
    for _ in range(10):
        states.add(Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0])
        time.sleep(0.02)
    return "T" in states


@pytest.mark.parametrize("end", ["let go", "stale"])
def test_what_nobody_sends_on_is_deleted_with_what_was_seen_of_it(store, reader, filmed, end: str) -> None:
    looked_at(reader)
    [look] = reader._early._looks.values()
    if end == "let go":
        filmed.drop()
    else:
        os.utime(filmed.path, (1, 1))
    for _ in range(3):
        reader.step(wait_s=0.0)
    assert not reader._early._looks and look.child is None and not list(store.filming.iterdir()) and not list(store.evidence.iterdir())


def test_a_look_that_fails_is_not_begun_again_and_its_take_is_read_like_any_other(scope, student, store, reader, filmed, recording) -> None:
    looked_at(reader)
    [look] = reader._early._looks.values()
    os.kill(look.child.process.pid, signal.SIGKILL)
    look.child.process.join()
    for _ in range(2):
        reader.step(wait_s=0.0)
    assert look.child is None and reader._early._looks == {filmed.key: look} and filmed.path.exists(), "the page may still want to hand it in"
    take_id = became_a_take(filmed, recording, store, scope, student)
    read_all(reader)
    assert takes.take_record(scope, take_id).state == "read" and not list(store.filming.iterdir())


def test_no_more_are_looked_at_at_once_than_the_machine_bears(store, reader, filmed: Growing, student, recording) -> None:
    for _ in range(early.MOST):
        another = begun(Path(filmed.path.parent), student.programme_id, student.id, str(uuid.uuid4()), "auto")
        another.path.write_bytes(recording[: len(recording) // 2])
    reader.step(wait_s=0.0)
    assert len(growing(store.filming)) == early.MOST + 1 and len(reader._early._looks) == early.MOST
