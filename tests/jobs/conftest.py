import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from brevin.core.evidence import unpacked
from brevin.edge.clip_work import PRELOAD_READ
from brevin.edge.limited import Children
from brevin.jobs.judging import report_of
from brevin.jobs.reader import Reader
from brevin.ops import demo
from brevin.ops.settings import Settings
from brevin.store import readings, takes
from brevin.store.reading_records import Looked
from brevin.store.scope import HOUSE
from tests import clips
from tests.conftest import CHECK
from tests.sightings import kept_of

STANDING = demo.CLIPS / "standing-full-early.mp4"
FIRST_BREATH_S = 11.0


@pytest.fixture(scope="session")
def children() -> Children:
    """One helper for all tests: it has loaded the networks."""
    return Children(PRELOAD_READ)


@pytest.fixture(scope="session")
def short(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The count-in and the first breath of a demo clip."""
    return clips.lighter(STANDING, tmp_path_factory.mktemp("short") / STANDING.name, FIRST_BREATH_S, slice(230, 730))


@pytest.fixture
def reader(store: Settings, children: Children) -> Iterator[Reader]:
    made = Reader(store, children, most=2)
    yield made
    made.stop()


def read_all(reader: Reader, *, within_s: float = 180.0) -> None:
    """Until nothing is being read and nothing waits."""
    until = time.monotonic() + within_s
    while time.monotonic() < until:
        reader.step(wait_s=0.1)
        if not reader.busy and not readings.waiting(HOUSE):
            return
    raise AssertionError("still reading")


@pytest.fixture
def take_id(scope, student, clip, store) -> str:
    """A take whose clip was looked at earlier: what was seen of the demo clip is in its evidence."""
    made = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip)
    content = kept_of("standing-full-early")
    (store.evidence / "kept.evidence").write_bytes(content)
    held = readings.claim_next(HOUSE)
    report = report_of(scope, held.take, unpacked(content), rules=held.take.rules, edits=held.take.edits)
    assert readings.finish(HOUSE, made.id, held.token, Looked("kept.evidence", (clip.stored_name, "video/mp4"), report, held.take.rules))
    return made.id
