"""What a backup is made of."""

from pathlib import Path

import pytest

from brevin.ops.settings import Settings
from brevin.store import database
from brevin.store.models import Clip
from brevin.store.scope import Scope
from tests.store.test_takes import new_take, read_once


@pytest.fixture
def filmed(scope: Scope, student, clip, store: Settings) -> str:
    """A take that was read, with a clip that may be seen and evidence."""
    take = new_take(scope, student, clip)
    read_once(take.id)
    for folder, name in (("evidence", "x.evidence"), ("evidence", "x.stills.zip"), ("clips", "x.mp4")):
        (store.folder(folder) / name).write_bytes(name.encode() * 1000)
    with database.db.connection_context():
        Clip.update(blurred_for=0).execute()
    return take.id


@pytest.fixture
def place(tmp_path: Path) -> Path:
    return tmp_path / "stick" / "brevin"
