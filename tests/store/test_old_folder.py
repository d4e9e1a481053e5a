"""A data folder from before programmes, checks as documents and rows: it migrates, and everything in it is still shown."""

import json
from collections.abc import Iterator
from importlib import import_module

import pytest

from brevin.ops.settings import Settings
from brevin.store import database, files, lessons, programmes, readings, reports, students, takes
from brevin.store.records import LetGo
from brevin.store.scope import HOUSE, Scope
from tests.conftest import MIGRATIONS

BREATH = {"pattern": "low", "inhale_beats": 4.1, "share": None, "uncertainty": {"inhale_beats": 0.2, "chest_amp": None}}
OLD_REPORT = {
    "schema": "brevin.analysis/1", "readable_for": {"breath": True}, "reasons": [], "breaths": [BREATH],
    "posture": {"trunk_inclination_deg": {"value": 3.0, "uncertainty": 2.0, "n": 9, "by_segment": {}}, "sway_pct": None},
    "verdicts": [
        {"criterion": "with_count", "title": "Starts with the count", "state": "watch", "value": 0.5, "uncertainty": 0.1, "outside": True, "words": "late",
         "threshold": {"steady_low": -0.25, "steady_high": 0.25}, "why": "It started late.", "cue": "Listen.", "marks": []},
        {"criterion": "pause", "title": "No pause", "state": "steady", "value": 0.0, "uncertainty": 0.1, "outside": False, "words": "flows over",
         "threshold": {"steady_high": 0.3}, "why": "It flowed.", "cue": None, "marks": []},
    ],
    "cue": {"criterion": "with_count", "text": "Listen."},
}  # fmt: skip


@pytest.fixture
def old(as_root: Settings) -> Iterator[None]:
    """The tables as the second migration left them, with a lesson in the middle of a reading; put back afterwards."""
    schema = "brevin_old"
    with database.db.connection_context():
        database.db.execute_sql(f"DROP DATABASE IF EXISTS {schema}")
        database.db.execute_sql(f"CREATE DATABASE {schema} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    database.connect(socket=str(as_root.socket), password=as_root.values["db_password"], schema=schema, user="root", connections=4)
    with database.db.connection_context():
        for name in ("0001_first", "0002_counted"):
            import_module(f"brevin.store.migrations.{name}").up(None, database.db.obj)
        for statement, *values in _rows():
            database.db.execute_sql(statement, values)
    yield


def _rows() -> list[tuple]:
    person = "INSERT INTO teacher (login, name, role, password_hash, active) VALUES (%s, %s, %s, 'x', 1)"
    take = """INSERT INTO take (id, student_id, teacher_id, lesson_id, made_at, card, instrument, try_number, state, stage, progress, reason_code, reason_text,
        attempts, lease_token) VALUES (%s, 1, 1, 1, NOW(6), %s, 'clarinet', 1, %s, 'x', 0.4, %s, %s, 1, 't')"""
    report = """INSERT INTO report (take_id, version, made_at, software_version, thresholds_id, profile_id, readable, state, words, cue, document)
        VALUES ('aaa', %s, NOW(6), '0', 't', 'p', 1, 'watch', 'starts: late', 'Listen.', %s)"""
    return [
        (person, "helper", "Hal", "assistant"), (person, "boss", "Bo", "teacher"), (person, "second", "Sy", "teacher"),
        ("INSERT INTO student (name, instrument, note) VALUES ('Ada Old', 'clarinet', 'strap')",),
        ("INSERT INTO consent (student_id, purpose, given_by, from_day, until_day) VALUES (1, 'filming', 'g', '2020-01-01', '2099-01-01')",),
        ("INSERT INTO lesson (title, group_name, starts_at, minutes) VALUES ('Third', 'Old winds', NOW(6), 40)",),
        ("INSERT INTO seat (lesson_id, student_id, place, minute, card, position, side, away) VALUES (1, 1, 1, 4, '4-0-4@72x3', 'seated', 'left', '')",),
        (take, "aaa", "4-0-4@72x3", "read", "", ""), (take, "bbb", "", "reading", "", ""), (take, "ccc", "no card", "failed", "too_far", "Step closer."),
        ("INSERT INTO clip (take_id, stored_name, original_name, sha256, size_bytes, playable_name, playable_type) VALUES ('aaa', 'a.mp4', 'p.mp4', '', 1, "
         "'a.mp4', 'video/mp4')",),
        (report, 1, json.dumps(OLD_REPORT)), (report, 2, json.dumps(OLD_REPORT)),
    ]  # fmt: skip


def test_an_old_folder_is_taken_over_whole(old) -> None:
    assert database.migrate() == MIGRATIONS
    assert database.migrate() == []
    [programme] = programmes.all_programmes(HOUSE)
    scope = Scope(programme.id)
    assert programme.name == "Old winds"
    assert {(m.person.login, m.role) for m in programmes.members(scope)} == {("helper", "assistant"), ("boss", "owner"), ("second", "teacher")}
    assert [s.name for s in students.students(scope)] == ["Ada Old"] and students.students(scope)[0].may_film_until.year == 2099
    lesson = lessons.last_lesson(scope)
    assert lesson.group_name == "Old winds" and lesson.seats[0].asked.check.name == "4-0-4@72x3" and lesson.seats[0].asked.check.position == "seated"


def test_old_takes_are_shown_with_their_reports_and_rows(old) -> None:
    database.migrate()
    scope = Scope(1)
    take = takes.take_record(scope, "aaa")
    assert (take.asked.check.name, take.asked.check.instrument, take.evidence_name) == ("4-0-4@72x3", "clarinet", "")
    assert take.headline.line.state == "watch" and [(f.criterion, f.side) for f in take.headline.line.faults] == [("with_count", "high")]
    assert take.headline.line.pattern == "low" and take.headline.report_version == 2
    assert json.loads(reports.newest(scope, "aaa").document) == OLD_REPORT
    assert [(v.key, v.state) for v in reports.verdicts(scope, student_id=1)] == [("with_count", "watch"), ("pause", "steady")], "of the newest report alone"
    assert [(m.key, m.value, m.withheld) for m in reports.measures(scope)] == [
        ("inhale_beats", 4.1, ""), ("chest_amp", None, "unknown"), ("trunk_inclination_deg", 3.0, ""),
    ]  # fmt: skip
    assert files.owned(HOUSE) == {LetGo("clips", "a.mp4")}


def test_a_reading_that_was_under_way_waits_again_and_a_failed_one_keeps_its_reason(old) -> None:
    database.migrate()
    scope = Scope(1)
    readings.free_leases(HOUSE)
    assert takes.take_record(scope, "bbb").state == "queued" and takes.take_record(scope, "bbb").asked.check.card is None
    failed = takes.take_record(scope, "ccc")
    assert (failed.state, failed.reason_code) == ("failed", "too_far") and failed.asked.check.card is None, "a card that is none is none"


def test_a_migration_that_was_cut_off_goes_on_where_it_was(old) -> None:
    house = import_module("brevin.store.migrations.0003_house")
    with database.db.connection_context():
        database.db.execute_sql("RENAME TABLE teacher TO person")
        for statement in (*house.TABLES, *house.COLUMNS[:3]):
            database.db.execute_sql(statement)
    assert "0003_house" in database.migrate()
    assert takes.take_record(Scope(1), "aaa").headline is not None and len(programmes.members(Scope(1))) == 3


def test_a_limit_of_a_minute_becomes_one_of_the_clip_once_however_often_it_is_said(as_root: Settings, scope: Scope) -> None:
    """What a programme had changed of how far a trunk may sink keeps its meaning; everything else stays as it is."""
    kept = {"limits": {"sag.steady": 15.0, "pause.steady_s": 0.4}, "set_by": {"sag.steady": "programme", "pause.steady_s": "programme"}, "off": []}
    plain = {"limits": {}, "off": ["even_exhale"]}
    step = import_module("brevin.store.migrations.0014_tall_in_a_clip")
    with database.db.connection_context():
        run = database.db.execute_sql
        run("UPDATE programme SET rules = %s WHERE id = %s", (json.dumps(kept), scope.programme))
        other = programmes.add_programme(HOUSE, name="Other winds").id
        run("UPDATE programme SET rules = %s WHERE id = %s", (json.dumps(plain), other))
        for _ in range(2):
            step.up(None, database.db.obj)
        [[now], [beside]] = (run("SELECT rules FROM programme WHERE id = %s", (one,)).fetchone() for one in (scope.programme, other))
    assert json.loads(beside) == plain
    assert json.loads(now) == {
        "limits": {"tall.steady": 6.0, "pause.steady_s": 0.4}, "set_by": {"tall.steady": "programme", "pause.steady_s": "programme"}, "off": [],
    }  # fmt: skip
