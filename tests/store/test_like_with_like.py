"""A student's own breaths in other takes: only what can be compared, and nothing of anybody else's."""

import json
from dataclasses import replace
from datetime import timedelta

from brevin.core.measure import Amount, Measure
from brevin.core.plan.check import Check
from brevin.core.verdict.rules import Rules
from brevin.store import anew, database, readings, reports, students, takes
from brevin.store.reading_records import Looked
from brevin.store.records import ClipRecord, StudentRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK, consent
from tests.store.test_takes import REPORT, ground


def read(scope: Scope, student: StudentRecord, clip: ClipRecord, size: float, *, check: Check = CHECK, view="side-left", position="seated", days_ago=0):
    made_at = database.now() - timedelta(days=days_ago)
    take = takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=replace(clip, stored_name=f"{size}.mp4"), made_at=made_at)
    held = readings.claim_next(HOUSE)
    measures = (Measure("size_pct", Amount(size, 0.2), breath=0), Measure("abdomen_amp", Amount(2.0, 0.1), breath=0))
    report = replace(REPORT, ground=ground(measures, view, position))
    assert readings.finish(HOUSE, take.id, held.token, Looked(f"{size}.evidence", ("x.mp4", "video/mp4"), report, Rules()))
    return take


def own(scope: Scope, take, view="side-left", position="seated"):
    found = reports.own_breaths(scope, take, view=view, position=position)
    return sorted(size.value for size in found.reference), sorted(size.value for size in found.others)


def test_only_the_same_students_breaths_of_the_same_view_position_and_instrument_until_then(scope, student, clip) -> None:
    other = students.add_student(scope, name="Bo Vantreen", instrument="clarinet")
    consent(scope, other.id)
    read(scope, other, clip, 9.0)
    read(scope, student, clip, 8.0, view="side-right")
    read(scope, student, clip, 7.0, position="standing")
    read(scope, student, clip, 6.0, check=replace(CHECK, instrument="flute"))
    read(scope, student, clip, 5.9, check=replace(CHECK, with_instrument=True))
    read(scope, student, clip, 5.8, check=replace(CHECK, kind="hold"), days_ago=3)  # what arms that come up leave of a breath is none to compare with
    read(scope, student, clip, 5.0, days_ago=3)
    read(scope, student, clip, 4.0, days_ago=2)
    now = read(scope, student, clip, 3.0, days_ago=1)
    read(scope, student, clip, 2.0)
    assert own(scope, now) == ([], [4.0, 5.0]), "neither its own nor a later one"
    assert own(scope, now, position="standing") == ([], []), "that one was made later"
    assert own(Scope(scope.programme + 1), now) == ([], [])


def test_a_check_that_asked_for_the_full_breath_is_the_reference_and_a_new_report_takes_the_olds_place(scope, student, clip) -> None:
    asked = read(scope, student, clip, 6.5, check=replace(CHECK, full_breath=True), days_ago=2)
    again = replace(REPORT, ground=ground([Measure("size_pct", Amount(6.0, 0.2), breath=0)], "side-left"))
    anew.put(scope, takes.take_record(scope, asked.id), edits=None, rules=asked.rules, report=again)
    now = read(scope, student, clip, 3.0)
    assert own(scope, now) == ([6.0], [])


def test_readings_from_before_it_was_kept_are_compared_as_well(as_root, scope, student, clip) -> None:
    old = read(scope, student, clip, 5.0, days_ago=1)
    now = read(scope, student, clip, 3.0)
    document = json.dumps({"view": "side-left", "position": "seated"})
    with database.db.connection_context():
        database.db.execute_sql("DELETE FROM measure WHERE measure_key = 'size_pct'")
        database.db.execute_sql("UPDATE report SET view = '', position = '', document = %s", (document,))
        for key, value in (("abdomen_amp", -1.5), ("chest_amp", 2.5)):
            database.db.execute_sql("DELETE FROM measure WHERE take_id = %s AND measure_key = %s", (old.id, key))
            database.db.execute_sql(
                "INSERT INTO measure (programme_id, student_id, take_id, instrument, made_at, measure_key, breath, value, half_width, withheld) "
                "SELECT programme_id, student_id, id, 'clarinet', made_at, %s, 0, %s, 0.3, '' FROM take WHERE id = %s", (key, value, old.id),
            )  # fmt: skip
        database.db.execute_sql("DELETE FROM schema_migration WHERE name LIKE '0005%%'")
    assert database.migrate() == ["0005_like_with_like"]
    assert own(scope, now) == ([], [4.0])
