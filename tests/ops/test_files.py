"""Files that are to go go, files that are nobody's are found, and what belongs to a take stays."""

from brevin.ops import files as sweeping
from brevin.store import files, takes
from brevin.store.database import db
from brevin.store.records import LetGo
from brevin.store.scope import HOUSE
from tests.store.test_takes import new_take, read_once


def test_what_is_nobodys_is_found_and_swept_and_what_is_owned_stays(scope, student, clip, store) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    for folder, name in (
        ("clips", "left.mp4"),
        ("clips", "half.mp4.part"),
        ("evidence", "left.evidence"),
        ("evidence", "x.evidence"),
        ("evidence", "x.stills.zip"),
        ("clips", "x.mp4"),
    ):
        (store.folder(folder) / name).write_bytes(b"-")
    assert sweeping.orphans(store) == [LetGo("clips", "half.mp4.part"), LetGo("clips", "left.mp4"), LetGo("evidence", "left.evidence")]
    assert sweeping.missing(store) == []
    assert sweeping.sweep(store) == 3 and sweeping.orphans(store) == []
    assert {p.name for p in store.clips.iterdir()} == {clip.stored_name, "x.mp4"} and {p.name for p in store.evidence.iterdir()} == {
        "x.evidence",
        "x.stills.zip",
    }
    (store.clips / "x.mp4").unlink()
    assert sweeping.missing(store) == [LetGo("clips", "x.mp4")]


def test_a_file_that_could_not_be_deleted_goes_at_the_next_start(scope, student, clip, store) -> None:
    take = new_take(scope, student, clip)
    path = store.clips / clip.stored_name
    path.unlink()
    path.mkdir()  # nothing that can be unlinked
    takes.delete(scope, take.id)
    assert sweeping.work_off(store) == 0 and files.to_go(HOUSE) == [LetGo("clips", clip.stored_name)]
    path.rmdir()
    path.write_bytes(b"a clip")
    assert sweeping.sweep(store) == 1 and not path.exists() and files.to_go(HOUSE) == []


def test_a_program_that_ends_between_deleting_and_unlinking_loses_no_file(scope, student, clip, store) -> None:
    take = new_take(scope, student, clip)
    takes.delete(scope, take.id)  # and here it is killed
    assert (store.clips / clip.stored_name).exists()
    sweeping.sweep(store)
    assert not (store.clips / clip.stored_name).exists() and files.to_go(HOUSE) == []


def test_a_file_listed_twice_goes_once(scope, store) -> None:
    with db.connection_context():
        files.let_go(HOUSE, [LetGo("clips", "a"), LetGo("clips", "a")])
    assert files.to_go(HOUSE) == [LetGo("clips", "a")]
