"""Others in a clip: blurred before anybody sees it, and again where somebody else is read; what was kept before is looked at once."""

import time
from dataclasses import asdict, replace
from pathlib import Path

import cv2
import numpy as np
import pytest
from peewee import OperationalError

from brevin.bench.blur import _fine
from brevin.bench.company import Head
from brevin.bench.worse import remade
from brevin.core.edited import Edits
from brevin.core.evidence import packed, unpacked
from brevin.core.pose.others import LEFT, NOBODY_ELSE, UNCHOSEN
from brevin.edge.video import video_frames
from brevin.jobs.reader import Reader
from brevin.ops.settings import ROOT, Settings
from brevin.store import blurring, database, files, readings, reports, takes
from brevin.store.models import Clip, Take
from brevin.store.scope import HOUSE
from tests.jobs.conftest import read_all
from tests.jobs.test_reader import document_of, queued

FACE = cv2.imread(str(ROOT / "tests" / "pictures" / "face.jpg"))[40:150, 190:300, ::-1]
SIDE_PX, LEFT_PX, TOP_PX = 70, 8, 40
HEAD = Head(0.0, np.array([LEFT_PX + SIDE_PX / 2, TOP_PX + SIDE_PX / 2]), 14.0)
TRUNK = Head(0.0, np.array([250.0, 250.0]), 30.0)


@pytest.fixture(scope="session")
def watched(short: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The same breath, and somebody looks on from the corner."""
    face = cv2.resize(FACE, (SIDE_PX, SIDE_PX), interpolation=cv2.INTER_AREA)

    def with_face(rgb: np.ndarray, _: int) -> np.ndarray:
        seen = rgb.copy()
        seen[TOP_PX : TOP_PX + SIDE_PX, LEFT_PX : LEFT_PX + SIDE_PX] = face
        return seen

    target = tmp_path_factory.mktemp("watched") / "watched.mp4"
    remade(short, target, with_face)
    return target


def lumas(path: Path) -> list[np.ndarray]:
    return [frame.luma for i, frame in enumerate(video_frames(path, until_s=99.0, fastest_hz=30.0)) if i % 20 == 0]


def blur_all(reader: Reader, *, within_s: float = 120.0) -> None:
    """Until no stored clip is to be looked at, and none is being looked at."""
    until = time.monotonic() + within_s
    while time.monotonic() < until:
        reader.step(wait_s=0.05)
        if reader._blurs._job is None and blurring.next_to_blur(HOUSE) is None:
            return
    raise AssertionError("still blurring")


def set_back(take_id: str, **columns: object) -> None:
    with database.db.connection_context():
        Clip.update(**columns).where(Clip.take == take_id).execute()


def test_who_looks_on_is_past_knowing_before_the_clip_is_shown_and_the_breath_is_read_as_before(scope, student, store: Settings, reader, watched) -> None:
    take_id = queued(scope, student, store, watched)
    first = takes.take_record(scope, take_id).clip.stored_name
    assert takes.take_record(scope, take_id).clip.playable_name == "", "nobody sees it before"
    read_all(reader)
    read = takes.take_record(scope, take_id)
    assert read.state == "read" and document_of(scope, take_id)["breaths"], "what is said of the breath does not wait"
    assert read.clip.playable_name == "" and read.clip.blurred_for is None and not read.shows_stills
    blur_all(reader)
    take = takes.take_record(scope, take_id)
    kept = take.clip.stored_name
    assert take.clip.blurred_for == 0 and take.clip.others_blurred and take.clip.playable_name == kept != first
    assert [path.name for path in store.clips.iterdir()] == [kept], "what was sent is gone"
    for was, now in zip(lumas(watched), lumas(store.clips / kept), strict=True):
        assert _fine(now, HEAD) < 0.25 * _fine(was, HEAD) and _fine(now, TRUNK) > 0.8 * _fine(was, TRUNK)
    before = document_of(scope, take_id)
    readings.read_again(scope, take_id)
    read_all(reader)
    again, after = takes.take_record(scope, take_id), document_of(scope, take_id)
    assert reports.newest(scope, take_id).version == 2 and [b["pattern"] for b in after["breaths"]] == [b["pattern"] for b in before["breaths"]]
    assert after["breaths"][0]["inhale_start_s"] == pytest.approx(before["breaths"][0]["inhale_start_s"], abs=0.08)
    assert after["beats"]["first_inhale_s"] == pytest.approx(before["beats"]["first_inhale_s"], abs=0.02), "its clicks are where they were"
    assert again.clip.stored_name == kept and again.clip.blurred_for == 0, "nobody is left in it whom one could know"
    assert [path.name for path in store.clips.iterdir()] == [kept]


def test_a_clip_with_the_player_alone_stays_as_it_was_sent(scope, student, store: Settings, reader, short) -> None:
    take_id = queued(scope, student, store, short)
    read_all(reader)
    clip = takes.take_record(scope, take_id).clip
    assert clip.blurred_for == NOBODY_ELSE and not clip.others_blurred and (store.clips / clip.stored_name).read_bytes() == short.read_bytes()


def test_what_an_older_release_kept_is_looked_at_once(scope, student, store: Settings, reader, watched) -> None:
    take_id = queued(scope, student, store, watched)
    read_all(reader)
    blur_all(reader)
    seen = store.evidence / takes.take_record(scope, take_id).evidence_name
    seen.write_bytes(packed(replace(unpacked(seen.read_bytes()), faces=None)))
    watched_again = store.clips / "sent.mp4"
    watched_again.write_bytes(watched.read_bytes())
    old = takes.take_record(scope, take_id).clip.stored_name
    set_back(take_id, blurred_for=None, stored_name="sent.mp4", playable_name="sent.mp4")
    (store.clips / old).unlink()
    blur_all(reader)
    clip = takes.take_record(scope, take_id).clip
    assert clip.blurred_for == 0 and clip.playable_name == clip.stored_name != "sent.mp4"
    assert [path.name for path in store.clips.iterdir()] == [clip.stored_name] and files.to_go(HOUSE) == []
    assert max(_fine(now, HEAD) for now in lumas(store.clips / clip.stored_name)) < 0.25 * _fine(lumas(watched)[0], HEAD)
    assert reports.newest(scope, take_id).version == 1, "the reading stands"


@pytest.mark.parametrize("harm", ["no evidence", "damaged", "no clip"])
def test_what_cannot_be_looked_at_any_more_is_left_and_asked_for_once(scope, store: Settings, reader, take_id, harm: str) -> None:
    (store.clips / takes.take_record(scope, take_id).clip.stored_name).write_bytes(b"no clip")
    if harm == "no evidence":
        with database.db.connection_context():
            Take.update(evidence_name="").where(Take.id == take_id).execute()
    elif harm == "damaged":
        (store.evidence / "kept.evidence").write_bytes(b"evidence")
    set_back(take_id, blurred_for=None)
    blur_all(reader)
    clip = takes.take_record(scope, take_id).clip
    assert clip.blurred_for == LEFT and clip.playable_name
    assert [path.name for path in store.clips.iterdir()] == [clip.stored_name], "nothing half-written"


@pytest.mark.parametrize(("kept_for", "player", "due"), [
    (0, None, False), (0, 0, False), (0, 1, True), (1, None, True), (1, 1, False), (UNCHOSEN, None, False), (UNCHOSEN, 0, True), (NOBODY_ELSE, 1, False),
])  # fmt: skip
def test_somebody_else_who_is_read_is_the_one_it_is_blurred_for(scope, take_id, kept_for: int, player: int | None, due: bool) -> None:
    set_back(take_id, blurred_for=kept_for)
    with database.db.connection_context():
        Take.update(edits=asdict(Edits(player=player))).where(Take.id == take_id).execute()
        blurring.look_again(scope, take_id)
    found = blurring.next_to_blur(HOUSE)
    assert (found is not None and found.id == take_id) == due


def test_a_clip_that_was_deleted_meanwhile_takes_its_copy_with_it(scope, student, store: Settings, reader, watched) -> None:
    take_id = queued(scope, student, store, watched)
    read_all(reader)
    while reader._blurs._job is None:
        reader.step(wait_s=0.05)
    takes.delete(scope, take_id)
    blur_all(reader)
    assert list(store.clips.iterdir()) == []


def test_what_was_blurred_while_the_database_was_away_is_stored_afterwards(scope, student, store: Settings, reader, watched, monkeypatch) -> None:
    take_id = queued(scope, student, store, watched)
    read_all(reader)
    kept, away = blurring.kept, [True, True]

    def sometimes(*given: object, **told: object) -> bool:
        if away:
            away.pop()
            raise OperationalError("gone away")
        return kept(*given, **told)

    monkeypatch.setattr(blurring, "kept", sometimes)
    for _ in range(2):
        with pytest.raises(OperationalError):
            blur_all(reader)
    blur_all(reader)
    clip = takes.take_record(scope, take_id).clip
    assert clip.blurred_for == 0 and [path.name for path in store.clips.iterdir()] == [clip.stored_name]
