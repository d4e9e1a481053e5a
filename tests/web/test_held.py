"""Everything that is held about a student: given out whole, or gone whole, for the page and for the operator."""

import csv
import io
import json
import zipfile
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from brevin.cli import main
from brevin.edge.growing import begun, growing
from brevin.edge.pictures import Pictures
from brevin.ops import files as sweeping
from brevin.ops import held
from brevin.ops.settings import Settings
from brevin.store import database, drawings, files, instruments, programmes, sounds, students, takes, whole
from brevin.store.fields import Base
from brevin.store.models import Clip, Student, Take
from brevin.store.records import NotThere
from brevin.store.scope import HOUSE, Scope
from tests.store.test_takes import FOUND, lesson_of, new_take, read_once


@pytest.fixture
def known(scope: Scope, store: Settings, student, clip):
    """A student of whom a little of everything is held; the clip is one that may be seen."""
    lesson_of(scope, student.id)
    take = new_take(scope, student, clip)
    with Pictures(store.evidence / FOUND.stills_name) as pictures:
        pictures.keep(1.0, np.zeros((9, 16, 3), np.uint8))
    (store.evidence / FOUND.evidence_name).write_bytes(b"seen")
    read_once(take.id, replace(FOUND, playable=(clip.stored_name, "video/mp4")))
    drawings.draw(scope, takes.take_record(scope, take.id), drawings.Drawn("note", 1.0, (1.0, 1.0), (9.0, 9.0), "elbow"))
    sounds.add(scope, student.id, rung="alone", outcome="thin")
    instruments.report_repair(scope, student.id, "bent key")
    return take


def unpacked(content: bytes) -> zipfile.ZipFile:
    return zipfile.ZipFile(io.BytesIO(content))


def rows(file: zipfile.ZipFile, table: str) -> list[dict[str, str]]:
    return list(csv.DictReader(io.StringIO(file.read(f"tables/{table}.csv").decode("utf-8-sig"))))


def everything_about(student_id: int) -> int:
    """Rows of any table that name the student or a take of theirs, found without the code under test."""
    with database.db.connection_context():
        own = [row.id for row in Take.select(Take.id).where(Take.student == student_id)]
        named = database.db.execute_sql(
            "SELECT table_name, column_name, referenced_table_name FROM information_schema.key_column_usage"
            " WHERE table_schema = DATABASE() AND referenced_table_name IN ('student', 'take')"
        ).fetchall()
        count = Student.select().where(Student.id == student_id).count()
        for table, column, about in named:
            ids = [student_id] if about == "student" else own
            if ids:
                marks = ", ".join(["%s"] * len(ids))
                count += database.db.execute_sql(f"SELECT COUNT(*) FROM `{table}` WHERE `{column}` IN ({marks})", ids).fetchone()[0]  # noqa: S608 (names of the schema)
        return count


def test_the_zip_holds_every_table_report_clip_and_still(page, store: Settings, student, known, clip) -> None:
    answer = page("GET", f"/api/students/{student.id}/held")
    assert answer.status_code == 200 and answer.mimetype == "application/zip" and "no-store" in answer.headers["Cache-Control"]
    with unpacked(answer.data) as file:
        assert file.testzip() is None and student.name in file.read("README.txt").decode()
        assert rows(file, "student")[0]["name"] == student.name and rows(file, "consent")[0]["purpose"] == "filming"
        assert [row["id"] for row in rows(file, "take")] == [known.id]
        for table in ("seat", "clip", "report", "drawing", "sound_try", "repair"):
            assert rows(file, table), table
        assert json.loads(file.read(f"reports/{known.id}-1.json")) == json.loads(FOUND.report.document)
        assert file.read(f"clips/{known.id}.mp4") == (store.clips / clip.stored_name).read_bytes()
        assert unpacked(file.read(f"stills/{known.id}.zip")).namelist() == ["0001000.jpg"] and file.read(f"evidence/{known.id}.evidence") == b"seen"
        assert "lease_token" not in rows(file, "take")[0]
    assert [path.name for path in store.data.iterdir() if path.is_dir() and path.name.startswith("tmp")] == []


def test_no_table_about_students_is_left_out() -> None:
    about = set()
    waiting = [Base]
    while waiting:
        model = waiting.pop()
        waiting += model.__subclasses__()
        if not model.__subclasses__() and any(link.rel_model in (Student, Take) for link in model._meta.refs):
            about.add(model)
    assert set(whole._models()) == about | {Student} and len(about) > 10


def test_a_clip_in_which_others_are_not_blurred_yet_is_given_to_nobody(page, student, known) -> None:
    with database.db.connection_context():
        Clip.update(playable_name="", blurred_for=None).execute()
    with unpacked(page("GET", f"/api/students/{student.id}/held").data) as file:
        assert not [name for name in file.namelist() if name.startswith(("clips/", "stills/"))]


def test_a_student_is_gone_with_everything(page, scope: Scope, store: Settings, student, known, clip) -> None:
    other = students.add_student(scope, name="Bela Ostrander", instrument="flute")
    filmed = begun(store.filming, student.programme_id, student.id, "0" * 36, "auto")
    filmed.path.parent.mkdir(exist_ok=True)
    filmed.path.touch()
    assert everything_about(student.id) > 10
    answer = page("DELETE", f"/api/students/{student.id}")
    assert (answer.status_code, answer.json) == (200, {"takes": 1, "clips": 1})
    assert everything_about(student.id) == 0
    assert not list(store.clips.iterdir()) and not [path for path in store.evidence.iterdir() if path.is_file()] and files.to_go(HOUSE) == []
    assert growing(store.filming, student_id=student.id) == []
    assert [one.id for one in students.students(scope)] == [other.id] and sweeping.orphans(store) == []
    assert page("GET", f"/api/students/{student.id}/held").status_code == 404 and page("DELETE", f"/api/students/{student.id}").status_code == 404


def test_what_was_filmed_of_one_who_is_gone_is_told_so_and_of_anothers_student_nothing(page, scope: Scope, student) -> None:
    stranger = students.add_student(Scope(programmes.add_programme(HOUSE, name="Next door").id), name="Bela Ostrander", instrument="flute")
    send = {"data": b"no clip", "headers": {"Content-Type": "application/octet-stream"}}
    page("DELETE", f"/api/students/{student.id}")
    answers = [page("POST", "/api/takes", query_string={"student_id": one}, **send) for one in (student.id, stranger.id)]
    assert [(one.status_code, one.json["code"]) for one in answers] == [(410, "student_gone"), (404, "not_there")]


def test_where_erasing_breaks_off_nothing_has_gone(scope: Scope, store: Settings, student, known, monkeypatch: pytest.MonkeyPatch) -> None:
    before = everything_about(student.id)
    monkeypatch.setattr(whole.changes, "note", lambda *_: (_ for _ in ()).throw(RuntimeError("the database went away")))
    with pytest.raises(RuntimeError):
        whole.erase(scope, student.id)
    assert everything_about(student.id) == before and files.to_go(HOUSE) == []


def test_nobody_of_another_programme_is_given_out_or_erased(scope: Scope, store: Settings, student, known, tmp_path: Path) -> None:
    stranger = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    for ask in (lambda: whole.erase(stranger, student.id), lambda: whole.tables(stranger, student.id), lambda: whole.named(stranger, student.name)):
        with pytest.raises(NotThere):
            ask()
    with pytest.raises(NotThere):
        held.write(stranger, student.id, store, tmp_path / "x.zip")
    assert list(tmp_path.glob("x.zip*")) == [], "nothing half-written"


def operate(monkeypatch: pytest.MonkeyPatch, store: Settings, *words: str, typed: str = "") -> int:
    from brevin.ops import operate as asked

    monkeypatch.setattr(asked, "_open", lambda _: store)
    monkeypatch.setattr("sys.stdin", io.StringIO(typed))
    return main([*words, "--data", str(store.data)])


def test_the_operator_writes_the_same_file(scope, store: Settings, student, known, tmp_path: Path, monkeypatch, capsys) -> None:
    target = tmp_path / "held.zip"
    assert operate(monkeypatch, store, "export", student.name, "--out", str(target)) == 0
    assert "1 takes" in capsys.readouterr().out and oct(target.stat().st_mode & 0o777) == "0o600"
    assert set(unpacked(target.read_bytes()).namelist()) >= {"README.txt", f"reports/{known.id}-1.json", f"clips/{known.id}.mp4"}
    assert operate(monkeypatch, store, "export", str(student.id), "--out", str(tmp_path / "no" / "held.zip")) == 2
    assert "cannot be written" in capsys.readouterr().err


def test_the_operator_erases_only_who_was_named_and_confirmed(scope, store: Settings, student, known, monkeypatch, capsys) -> None:
    students.add_student(scope, name="Bela Ostrander", instrument="flute")
    students.add_student(scope, name="Bela Ostrander", instrument="horn")
    assert operate(monkeypatch, store, "erase", "Bela Ostrander", "--yes") == 2 and operate(monkeypatch, store, "erase", "Nobody", "--yes") == 2
    assert operate(monkeypatch, store, "erase", student.name, typed="yes\n") == 2 and "nothing was deleted" in capsys.readouterr().err
    assert everything_about(student.id) > 10
    assert operate(monkeypatch, store, "erase", student.name, typed=f"{student.name}\n") == 0
    assert "1 takes and 1 clips" in capsys.readouterr().out and everything_about(student.id) == 0 and not list(store.clips.iterdir())
