"""A backup comes back whole, or not at all."""

import gzip
import json
import os
import signal
from collections.abc import Callable
from pathlib import Path

import pytest

from brevin.cli import main
from brevin.ops import backup, dump
from brevin.ops import settings as known
from brevin.ops.backup_folder import MANIFEST, BackupFolder, BackupTrouble
from brevin.ops.only_run import database_of
from brevin.ops.restore import restore
from brevin.ops.settings import Settings
from brevin.store import backups, database, students, takes
from brevin.store.models import Take
from brevin.store.scope import HOUSE


@pytest.fixture
def elsewhere(store: Settings, tmp_path: Path):
    """Models are bound to the restored house in between."""
    yield tmp_path / "back" / "house"
    database.connect(socket=str(store.socket), password=store.values["db_password"])


def test_it_comes_back_whole_into_a_new_folder(scope, student, filmed, store: Settings, clip, place: Path, elsewhere: Path) -> None:
    (store.data / known.FILE).write_text("workers = 2\n")
    backup.make(store, place)
    (store.data / known.FILE).unlink()
    found = restore(place, elsewhere)
    assert (found.students, found.files, found.missing) == (1, 5, 0)
    assert (elsewhere / "clips" / clip.stored_name).read_bytes() == (store.clips / clip.stored_name).read_bytes()
    assert oct(elsewhere.stat().st_mode & 0o777) == "0o700" and not list(elsewhere.glob("*.sql.gz")) and not list(elsewhere.parent.glob("*.restoring"))
    back = known.load(elsewhere)
    assert back.values["workers"] == "2" and back.values["db_password"] != store.values["db_password"]
    with database_of(back):
        assert [one.name for one in students.students(HOUSE)] == [student.name] and takes.take_record(HOUSE, filmed).state == "read"
        assert backups.places(HOUSE) == [], "it does not write over the first one's backup"
        with database.db.connection_context():
            assert Take.select().count() == 1


def spoil_file(place: Path) -> None:
    (place / "files" / "clips" / "x.mp4").write_bytes(b"y" * 5000)


def lose_file(place: Path) -> None:
    (place / "files" / "evidence" / "x.evidence").unlink()


def cut_sql(place: Path) -> None:
    (packed,) = place.glob("*.sql.gz")
    packed.write_bytes(packed.read_bytes()[:-20])


def cut_manifest(place: Path) -> None:
    (place / MANIFEST).write_text((place / MANIFEST).read_text()[:200])


def no_manifest(place: Path) -> None:
    (place / MANIFEST).unlink()


def changed(place: Path, **facts: object) -> None:
    found = json.loads((place / MANIFEST).read_text())
    (place / MANIFEST).write_text(json.dumps(found | facts))


def newer(place: Path) -> None:
    changed(place, migrations=["9999_of_a_later_year"])


def climbing(place: Path) -> None:
    changed(place, files=[{"folder": "clips", "name": "../../outside", "size": 1, "sha256": "0"}])


def test_a_backup_from_which_something_went_before_the_next_failed_comes_back_without_it(scope, filmed, store, place, elsewhere, monkeypatch) -> None:
    (store.data / known.FILE).write_text("workers = 2\n")
    backup.make(store, place)
    takes.delete(scope, filmed)
    monkeypatch.setattr(dump, "write", lambda *_: (_ for _ in ()).throw(OSError(28, "No space left on device")))
    with pytest.raises(OSError, match="No space"):
        backup.make(store, place)
    (store.data / known.FILE).unlink()
    found = restore(place, elsewhere)
    assert (found.students, found.files, found.missing) == (1, 1, 4) and known.load(elsewhere).values["workers"] == "2"
    assert not list((elsewhere / "clips").iterdir()) and not list((elsewhere / "evidence").iterdir())


def other_sql(place: Path, sql: str) -> None:
    (packed,) = place.glob("*.sql.gz")
    packed.write_bytes(gzip.compress(f"CREATE TABLE half (n INT);\n{sql}\n".encode()))
    changed(place, database=BackupFolder(place).listed(packed).model_dump())


def bad_sql(place: Path) -> None:
    other_sql(place, "this is no SQL;")


def a_command_in_it(place: Path) -> None:
    other_sql(place, f"\\! touch {place.parent / 'outside'}")


def a_file_in_it(place: Path) -> None:
    other_sql(place, "LOAD DATA LOCAL INFILE '/etc/hostname' INTO TABLE half;")


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (spoil_file, "x.mp4 is damaged"), (lose_file, "x.evidence is missing"), (cut_sql, "is damaged"), (cut_manifest, "manifest.json is damaged"),
        (no_manifest, "never finished"), (newer, "newer release"), (climbing, "manifest.json is damaged"), (bad_sql, "did not go along"),
        (a_command_in_it, "did not go along"), (a_file_in_it, "did not go along"),
    ],
)  # fmt: skip
def test_a_backup_that_is_not_whole_makes_nothing(filmed, store: Settings, place: Path, elsewhere: Path, spoil: Callable[[Path], None], said: str) -> None:
    backup.make(store, place)
    spoil(place)
    with pytest.raises(BackupTrouble, match=said):
        restore(place, elsewhere)
    assert not elsewhere.exists() and not list(elsewhere.parent.glob("*.restoring")) and not (place.parent / "outside").exists()


def test_nothing_is_put_back_over_what_is_there(filmed, store: Settings, place: Path, elsewhere: Path, capsys) -> None:
    backup.make(store, place)
    elsewhere.mkdir(parents=True)
    (elsewhere / "mariadb").mkdir()
    assert main(["restore", str(place), "--data", str(elsewhere)]) == 2 and "is not empty" in capsys.readouterr().err
    assert [path.name for path in elsewhere.iterdir()] == ["mariadb"]


def test_a_stop_in_the_middle_leaves_nothing_half_made(filmed, store: Settings, place: Path, elsewhere: Path, monkeypatch, capsys) -> None:
    backup.make(store, place)

    def told_to_stop(settings: Settings, path: Path) -> None:
        os.kill(os.getpid(), signal.SIGTERM)

    monkeypatch.setattr(dump, "load", told_to_stop)
    assert main(["restore", str(place), "--data", str(elsewhere)]) == 2 and "stopped. Nothing was put back" in capsys.readouterr().err
    assert not elsewhere.exists() and not list(elsewhere.parent.glob("*.restoring"))
