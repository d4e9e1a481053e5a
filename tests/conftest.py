"""Shared by all tests: one MariaDB of their own, an application on it, clips made on the spot."""

import hashlib
import os
import shutil
import signal
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import timedelta
from pathlib import Path

import hypothesis
import pytest
from argon2 import PasswordHasher
from xdist.scheduler import LoadScopeScheduling

from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.ops import demo
from brevin.ops import settings as known
from brevin.ops.mariadb import MariaDb, free_port
from brevin.ops.settings import ROOT, Settings
from brevin.store import database, programmes, students
from brevin.store.models import ALL
from brevin.store.records import ClipRecord, StudentRecord
from brevin.store.scope import HOUSE, Scope

# a red run is a change's doing, not chance's or a busy machine's; the same examples each time, so more of them say little more
hypothesis.settings.register_profile("repeatable", derandomize=True, deadline=None, max_examples=50)
hypothesis.settings.load_profile("repeatable")

DEMO_CLIP = ROOT / "demo" / "clips" / "standing-full-early.mp4"
PASSWORD = "a-long-password"
MIGRATIONS = sorted(path.stem for path in (ROOT / "src/brevin/store/migrations").glob("0*.py"))
STALLED_S = 4  # of the running program, so that a test has not to wait as long as a person
AT_THE_SECOND = ("tests/browser/test_class.py", "tests/browser/test_film.py", "tests/browser/test_phone.py", "tests/ops/test_killed.py")
ON_THE_RUNNING_PROGRAM = ("tests/browser/", *AT_THE_SECOND)  # folders and files; the longest of all, so they come first
LONG = (
    "tests/test_checks.py", "tests/edge/test_look.py", "tests/edge/test_restless_clips.py", "tests/jobs/test_reader.py", "tests/test_cli.py",
    "tests/core/test_hold.py", "tests/ops/test_start.py", "tests/edge/test_mirror.py",
)  # files of half a minute: begun early, so that no worker has one left when the others are done  # fmt: skip
CHECK = Check(card=parse("4-0-6@84x3"), instrument="clarinet")


HASHER, NOBODY = programmes._hasher, programmes._nobody  # as they are in use


@pytest.fixture(scope="session", autouse=True)
def quick_passwords() -> None:
    """Keeping a password is slow on purpose, and nearly every test keeps one."""
    programmes._hasher = PasswordHasher(time_cost=1, memory_cost=8, parallelism=1)
    programmes._nobody = programmes._hasher.hash("nobody")


@pytest.fixture(scope="session")
def data(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Path]:
    folder = tmp_path_factory.mktemp("data")
    yield folder
    shutil.rmtree(folder, ignore_errors=True)


BOUND: dict[Path, object] = {}  # by data folder: what the tests' own hands ask


@pytest.fixture(scope="session")
def settings(data: Path) -> Iterator[Settings]:
    """A data folder whose MariaDB runs, with all migrations applied."""
    found = known.load(data)
    server = MariaDb(found)
    server.start()
    database.connect(socket=str(found.socket), password=found.values["db_password"], user="root")
    assert database.migrate() == MIGRATIONS
    database.connect(socket=str(found.socket), password=found.values["db_password"])
    yield found
    server.process.kill()  # its folder goes with the session


@pytest.fixture
def as_root(store: Settings) -> Iterator[Settings]:
    """Empty tables, asked by the account that may change their shape."""
    database.connect(socket=str(store.socket), password=store.values["db_password"], user="root", connections=4)
    yield store
    database.connect(socket=str(store.socket), password=store.values["db_password"])


@pytest.fixture
def store(settings: Settings) -> Settings:
    """The same with empty tables and no files. A command that an earlier test ran in this process leaves the models bound with room for one hand."""
    if database.db.obj is not BOUND.get(settings.data):
        BOUND[settings.data] = database.connect(socket=str(settings.socket), password=settings.values["db_password"])
    with database.db.connection_context():
        for model in reversed(ALL):
            model.delete().execute()
    for folder in (settings.clips, settings.evidence):
        shutil.rmtree(folder, ignore_errors=True)
        folder.mkdir(parents=True)
    shutil.rmtree(settings.filming, ignore_errors=True)  # what is still filmed of an earlier test
    return settings


@pytest.fixture
def scope(store: Settings) -> Scope:
    """What the owner of a new programme may see."""
    found = Scope(programmes.add_programme(HOUSE, name="Made-up winds").id)
    member = programmes.add_person(found, login="owner", name="Ida Owner", role="owner", password=PASSWORD)
    return Scope(found.programme, member.person.id)


@pytest.fixture
def student(scope: Scope) -> StudentRecord:
    """A student who may be filmed."""
    made = students.add_student(scope, name="Ada Quillane", instrument="clarinet")
    consent(scope, made.id)
    return students.student(scope, made.id)


def consent(scope: Scope, student_id: int) -> None:
    today = database.now().date()
    students.give_consent(scope, student_id, given_by="guardian", from_day=today - timedelta(days=2), until_day=today + timedelta(days=30))


@pytest.fixture
def clip(store: Settings) -> ClipRecord:
    """A real clip in the clips folder."""
    name = "a" * 32 + ".mp4"
    shutil.copyfile(DEMO_CLIP, store.clips / name)
    content = DEMO_CLIP.read_bytes()
    return ClipRecord(name, "phone.mp4", hashlib.sha256(content).hexdigest(), len(content))


@dataclass(frozen=True)
class Running:
    """The program as ./start starts it, with the demo school: one for all tests that need it. process: of ./start; log: what it says."""

    address: str
    data: Path
    process: "subprocess.Popen[bytes]"
    log: Path

    def answers(self, *, within_s: float = 30.0) -> None:
        """Wait until the page answers."""
        until = time.monotonic() + within_s
        while True:
            try:
                urllib.request.urlopen(self.address, timeout=2).close()
                return
            except (urllib.error.URLError, OSError):
                assert self.process.poll() is None and time.monotonic() < until, self.log.read_text()
                time.sleep(0.1)


@pytest.fixture(scope="session")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    data, port = tmp_path_factory.mktemp("running") / "data", free_port()
    log = data.parent / "start.log"
    command = [str(ROOT / "start"), "--port", str(port), "--data", str(data)]
    patience = os.environ | {"BREVIN_STALLED_S": str(STALLED_S)}
    process = subprocess.Popen(command, stdout=log.open("w"), stderr=subprocess.STDOUT, start_new_session=True, env=patience)
    found = Running(f"http://127.0.0.1:{port}", data, process, log)
    found.answers(within_s=240.0)
    yield found
    os.kill(process.pid, signal.SIGTERM)
    assert process.wait(20) == 0, log.read_text()
    assert "ready" in log.read_text() and demo.LOGIN in log.read_text()
    left = subprocess.run(["pgrep", "-f", str(data)], capture_output=True, text=True).stdout
    assert left == "", "a process of the run stayed behind"


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    def place(item: pytest.Item) -> int:
        if item.nodeid.startswith(ON_THE_RUNNING_PROGRAM):
            return 0
        return 1 if item.nodeid.startswith(LONG) else 2

    items.sort(key=place)  # within each, in the order they stand


class Scheduling(LoadScopeScheduling):
    """Tests of a file stay together, and all that need the running program: two of it are enough, each with half of them."""

    def _split_scope(self, nodeid: str) -> str:
        if nodeid.startswith(AT_THE_SECOND):
            return "running too"
        return "running" if nodeid.startswith(ON_THE_RUNNING_PROGRAM) else nodeid.split("::")[0]


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config: pytest.Config, log: object) -> Scheduling:
    return Scheduling(config, log)
