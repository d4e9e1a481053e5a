"""A backup holds the house as it is now, follows what is deleted, and comes back whole or not at all."""

import gzip
import json
import shutil
import time
from collections.abc import Callable, Iterator
from contextlib import nullcontext
from pathlib import Path

import pytest

from brevin.cli import main
from brevin.ops import backing_up, backup, dump, operate
from brevin.ops.backing_up import Due
from brevin.ops.backup_folder import MANIFEST, BackupFolder, BackupTrouble
from brevin.ops.only_run import only_run
from brevin.ops.settings import Settings
from brevin.store import backups, classes, database, sessions, students, takes, whole
from brevin.store.models import Clip
from brevin.store.scope import HOUSE, Scope

BESIDE = {"README.txt", "backup.key", "manifest.json"}


def names(place: Path) -> set[str]:
    return {str(path.relative_to(place)) for path in place.rglob("*") if path.is_file() and not path.name.endswith(".sql.gz")}


def sql(place: Path) -> str:
    (packed,) = place.glob("*.sql.gz")
    return gzip.decompress(packed.read_bytes()).decode()


def test_a_backup_holds_every_file_and_row_and_nothing_that_opens_a_door(scope, student, filmed, store: Settings, clip, place: Path) -> None:
    token = sessions.begin(scope, scope.person_id)
    made = backup.make(store, place)
    assert names(place) == BESIDE | {f"files/clips/{clip.stored_name}", "files/clips/x.mp4", "files/evidence/x.evidence", "files/evidence/x.stills.zip"}
    assert student.name in sql(place) and sessions.fingerprint(token) not in sql(place) and store.values["db_password"] not in sql(place)
    assert made.migrations == database.migrations() and json.loads((place / MANIFEST).read_text())["schema"] == "brevin.backup/1"
    assert {oct(path.stat().st_mode & 0o777) for path in place.rglob("*") if path.is_file()} == {"0o600"} and oct(place.stat().st_mode & 0o777) == "0o700"
    known_now = backups.place(HOUSE, str(place))
    assert known_now.made_at == made.made_at and (known_now.files, known_now.due) == (4, False)


def test_a_clip_in_which_nobody_looked_for_others_yet_stays_out(filmed, store: Settings, place: Path) -> None:
    with database.db.connection_context():
        Clip.update(blurred_for=None).execute()
    backup.make(store, place)
    assert names(place) == BESIDE | {"files/evidence/x.evidence", "files/evidence/x.stills.zip"}


def withdrawn(scope: Scope, student_id: int, take_id: str) -> None:
    classes.withdraw(scope, student_id)


def deleted(scope: Scope, student_id: int, take_id: str) -> None:
    takes.delete(scope, take_id)


def erased(scope: Scope, student_id: int, take_id: str) -> None:
    whole.erase(scope, student_id)


@pytest.mark.parametrize(
    ("goes", "stays"), [(withdrawn, {"files/evidence/x.evidence"}), (deleted, set()), (erased, set())], ids=lambda one: getattr(one, "__name__", "")
)
def test_what_is_deleted_here_is_due_there_and_goes(
    scope, student, filmed, store: Settings, place: Path, goes: Callable[[Scope, int, str], None], stays: set[str]
) -> None:
    backup.make(store, place)
    goes(scope, student.id, filmed)
    assert backups.place(HOUSE, str(place)).behind
    backup.make(store, place)
    assert names(place) == BESIDE | stays and not backups.place(HOUSE, str(place)).due
    assert (student.name in sql(place)) == (goes is not erased)


def test_what_is_deleted_while_a_backup_is_made_leaves_it_behind(scope, filmed, store: Settings, place: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    written = dump.write

    def meanwhile(settings: Settings, file) -> None:
        written(settings, file)
        takes.delete(scope, filmed)

    monkeypatch.setattr(dump, "write", meanwhile)
    backup.make(store, place)
    assert names(place) == BESIDE and backups.place(HOUSE, str(place)).behind, "its files are gone, its rows go with the next"


def test_where_the_rest_fails_what_was_deleted_is_gone_and_the_last_backup_stands(scope, student, filmed, store, clip, place, monkeypatch) -> None:
    backup.make(store, place)
    before = sql(place)
    takes.delete(scope, filmed)
    monkeypatch.setattr(dump, "program", lambda *_: "/bin/false")
    with pytest.raises(BackupTrouble, match="did not go along"):
        backup.make(store, place)
    assert names(place) == BESIDE and sql(place) == before and backups.place(HOUSE, str(place)).behind
    assert not list(place.rglob("*.part")) and not list(store.data.glob("client.cnf"))
    monkeypatch.undo()
    monkeypatch.setattr(backup, "SPARE_BYTES", 1 << 60)
    with pytest.raises(BackupTrouble, match="no room"):
        backup.make(store, place)


def test_a_second_backup_reads_no_clip_again_and_lets_go_of_what_is_not_its_own(filmed, store: Settings, clip, place: Path) -> None:
    backup.make(store, place)
    at = (place / "files" / "clips" / clip.stored_name).stat().st_mtime_ns
    (place / "files" / "clips" / "old.mp4").write_bytes(b"of a run that was killed")
    (place / "files" / "clips" / "y.mp4.part").write_bytes(b"half")
    (place / "my own.txt").write_text("kept")
    backup.make(store, place)
    assert (place / "files" / "clips" / clip.stored_name).stat().st_mtime_ns == at and "files/clips/old.mp4" not in names(place)
    assert "my own.txt" in names(place) and len(list(place.glob("*.sql.gz"))) == 1 and not list(place.rglob("*.part"))


def test_a_folder_of_another_s_is_not_filled_unless_asked(filmed, store: Settings, place: Path) -> None:
    place.mkdir(parents=True)
    (place / "homework.txt").write_text("mine")
    with pytest.raises(BackupTrouble, match="other things"):
        backup.make(store, place)
    assert names(place) == {"homework.txt"} and backups.places(HOUSE) == []
    (place / "homework.txt").unlink()
    backup.make(store, place)
    backups.forget(HOUSE, str(place))  # as another data folder sees it
    with pytest.raises(BackupTrouble, match="another data folder"):
        backup.make(store, place)
    backup.make(store, place, replace=True)
    assert backups.place(HOUSE, str(place)).key == BackupFolder(place).key
    for inside in (store.data / "backup", store.data.parent):
        with pytest.raises(BackupTrouble, match="lie in each other"):
            backup.make(store, inside)


def test_a_disk_that_is_not_there_is_asked_for_and_nothing_is_written_where_it_was(filmed, store: Settings, place: Path) -> None:
    backup.make(store, place)
    away = place.rename(place.with_name("away"))
    place.mkdir()  # where it is mounted
    with pytest.raises(BackupTrouble, match="plug its disk in"):
        backup.make(store, place)
    assert names(place) == set()
    backup.forget(store, place)
    backup.make(store, place)
    assert BackupFolder(away).key != BackupFolder(place).key


def test_only_one_is_made_at_a_time(filmed, store: Settings, place: Path) -> None:
    with backup._alone(store), pytest.raises(BackupTrouble, match="at this moment"):
        backup.make(store, place)


def test_a_forgotten_backup_is_deleted_and_other_files_stay(filmed, store: Settings, place: Path) -> None:
    with pytest.raises(BackupTrouble, match="not known"):
        backup.forget(store, place)
    backup.make(store, place)
    (place / "my own.txt").write_text("kept")
    backup.forget(store, place)
    assert names(place) == {"my own.txt"} and list(place.glob("*.sql.gz")) == [] and backups.places(HOUSE) == []


def test_the_operator_s_commands(scope, student, filmed, store: Settings, clip, place: Path, monkeypatch, capsys) -> None:
    monkeypatch.setattr(operate, "database_of", lambda _: nullcontext())
    at = ["--data", str(store.data)]
    assert main(["backup", str(place), *at]) == 0 and "4 files" in capsys.readouterr().out
    assert main(["backup", str(place.parent), *at]) == 2 and "other things" in capsys.readouterr().err
    assert main(["backup", str(place), "--data", str(place)]) == 2 and "nothing to back up" in capsys.readouterr().err
    takes.delete(scope, filmed)
    monkeypatch.setattr(operate.sweeping, "work_off", lambda _: 0)
    assert main(["check", *at]) == 1
    assert f"{place}, as of" in (said := capsys.readouterr().out) and "still holds what was deleted" in said
    assert main(["backup", str(place), "--forget", *at]) == 0 and names(place) == set()
    blocked = place.parent / "file"
    blocked.write_text("")
    assert main(["backup", str(blocked / "x"), *at]) == 2 and "cannot be written" in capsys.readouterr().err


@pytest.fixture
def due(store: Settings, monkeypatch: pytest.MonkeyPatch) -> Iterator[Due]:
    """As beside a run, which holds the data folder."""
    monkeypatch.setattr(backing_up, "LOOK_EVERY_S", 0.0)
    with only_run(store):
        yield Due(store)


def made_by(due: Due) -> bool:
    """Whether one was due, which is then made."""
    due.look()
    if due._running is None:
        return False
    due._running[1].wait(60)
    due.look()
    return True


def test_while_brevin_runs_a_backup_is_made_when_it_is_due_and_its_folder_is_there(scope, filmed, store: Settings, place: Path, due: Due, capsys) -> None:
    backup.make(store, place)
    assert not made_by(due), "it is up to date"
    takes.delete(scope, filmed)
    away = place.rename(place.with_name("away"))
    assert not made_by(due), "the stick is not there"
    away.rename(place)
    assert made_by(due) and not backups.place(HOUSE, str(place)).due and names(place) == BESIDE and capsys.readouterr().err == ""
    students.withdraw_consent(scope, students.students(scope)[0].id)
    for other in (b"another's", b"\xff\xfe\x00 spoiled"):
        (place / "backup.key").write_bytes(other)
        assert not made_by(due), "another's backup is left alone"
    (place / "backup.key").unlink()
    (place / "backup.key").mkdir()
    assert not made_by(due), "a disk that cannot be read"


def test_one_that_fails_is_told_and_tried_again_later(scope, student, filmed, store: Settings, place: Path, due: Due, monkeypatch, capsys) -> None:
    backup.make(store, place)
    students.withdraw_consent(scope, student.id)
    shutil.rmtree(place / "files")
    (place / "files").write_text("no folder")
    assert made_by(due) and "cannot be written" in capsys.readouterr().err
    (place / "files").unlink()
    assert not made_by(due), "a full disk does not mend itself by the minute"
    monkeypatch.setattr(backing_up, "AGAIN_AFTER_S", 0.0)
    assert made_by(due) and not backups.place(HOUSE, str(place)).due


def test_it_looks_by_itself_until_it_is_stopped(scope, student, filmed, store: Settings, place: Path, due: Due, monkeypatch) -> None:
    backup.make(store, place)
    students.withdraw_consent(scope, student.id)
    monkeypatch.setattr(backing_up, "EACH_S", 0.02)
    due.begin()
    until = time.monotonic() + 60
    while backups.place(HOUSE, str(place)).due and time.monotonic() < until:
        time.sleep(0.05)
    due.stop()
    assert not backups.place(HOUSE, str(place)).due


def test_a_stop_ends_what_is_being_made_and_the_last_one_stands(scope, student, filmed, store: Settings, place: Path, due: Due) -> None:
    backup.make(store, place)
    students.withdraw_consent(scope, student.id)
    due.look()
    due.stop()
    assert due._running is not None and due._running[1].poll() is not None and BackupFolder(place).manifest is not None
