"""A take beside the first of its sitting: only what can be compared, and nothing of anybody else's."""

from dataclasses import replace
from datetime import timedelta

from brevin.core.measure import Amount, Measure
from brevin.store import database, readings, sittings, students, takes
from brevin.store.reading_records import Looked
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK, consent
from tests.store.test_takes import REPORT, ground

KEYS = ("trunk_inclination_deg", "instrument_axis_deg")


def read(scope: Scope, student, clip, lean: float, *, minutes_ago: float, check=CHECK, view="side-left"):
    made_at = database.now() - timedelta(minutes=minutes_ago)
    take = takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=replace(clip, stored_name=f"{lean}-{minutes_ago}.mp4"), made_at=made_at)
    measures = (Measure(KEYS[0], Amount(lean, 1.0)), Measure(KEYS[0], Amount(40.0, 1.0), segment="pause"), Measure("sway_pct", Amount(1.0, 0.1)))
    held = readings.claim_next(HOUSE)
    report = replace(REPORT, ground=ground(measures, view, "seated"))
    assert readings.finish(HOUSE, take.id, held.token, Looked(f"{lean}-{minutes_ago}.evidence", ("x.mp4", "video/mp4"), report, held.take.rules))
    return takes.take_record(scope, take.id)


def test_the_first_of_the_sitting_that_can_be_compared_is_taken_and_its_amounts_of_the_whole_clip(scope, student, clip) -> None:
    other = students.add_student(scope, name="Bo Vantreen", instrument="clarinet")
    consent(scope, other.id)
    read(scope, other, clip, 9.0, minutes_ago=50)
    read(scope, student, clip, 8.0, minutes_ago=400)
    read(scope, student, clip, 7.0, minutes_ago=60, view="front")
    read(scope, student, clip, 6.0, minutes_ago=59, check=replace(CHECK, instrument="flute"))
    first = read(scope, student, clip, 2.0, minutes_ago=40)
    read(scope, student, clip, 4.0, minutes_ago=20)
    now = read(scope, student, clip, 11.0, minutes_ago=5)
    beside = sittings.beside_first(scope, now, KEYS)
    assert (beside.take_id, beside.first, beside.now) == (first.id, {KEYS[0]: Amount(2.0, 1.0)}, {KEYS[0]: Amount(11.0, 1.0)})
    assert sittings.beside_first(scope, first, KEYS) is None, "nothing came before it"
    assert sittings.beside_first(Scope(scope.programme + 1), now, KEYS) is None


def test_it_is_said_over_the_wire_with_the_way_to_the_first_and_nothing_where_nothing_sank(page, scope, student, clip) -> None:
    first = read(scope, student, clip, 2.0, minutes_ago=30)
    calm, sunk = read(scope, student, clip, 3.0, minutes_ago=20), read(scope, student, clip, 11.0, minutes_ago=6)
    nothing = {"take_id": None, "minutes": 0, "sunk": []}
    assert page("GET", f"/api/takes/{first.id}/since").json == page("GET", f"/api/takes/{calm.id}/since").json == nothing
    assert page("GET", f"/api/takes/{sunk.id}/since").json == {"take_id": first.id, "minutes": 24, "sunk": ["trunk 9° further forward"]}
    assert page("GET", "/api/takes/nowhere/since").status_code == 404
