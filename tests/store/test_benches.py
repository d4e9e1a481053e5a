"""The bench's records in the database: taps, tries, care, passports."""

from concurrent.futures import ThreadPoolExecutor

import pytest

from brevin.core.errors import InvalidInput
from brevin.core.handling.care import UNKNOWN, Passport
from brevin.store import benches, changes, instruments, programmes, sounds, students
from brevin.store.records import NotThere, StudentRecord
from brevin.store.scope import HOUSE, Scope

STEPS = ["ready", "case", "reed"]


@pytest.fixture
def run(scope: Scope) -> benches.RunRecord:
    return benches.begin(scope, card="clarinet", phase="together", steps=STEPS)


@pytest.fixture
def stranger(scope: Scope) -> Scope:
    return Scope(programmes.add_programme(HOUSE, name="Next door").id)


def test_a_section_goes_on_where_it_was_stopped(scope, student, run) -> None:
    benches.tap(scope, run.id, does="next", step="ready")
    benches.tap(scope, run.id, does="stop")
    kept = benches.open_runs(scope)[0]
    assert (kept.now.key, kept.now.stopped) == ("case", True)
    again = benches.begin(scope, card="clarinet", phase="together", steps=STEPS)
    assert again.id == run.id and again.now.key == "case" and not again.now.stopped
    assert benches.begin(scope, card="clarinet", phase="together", steps=STEPS).taps == again.taps, "to begin twice is to begin"


def test_at_its_end_the_next_begins_anew(scope, student, run) -> None:
    for step in STEPS:
        done = benches.tap(scope, run.id, does="next", step=step)
    assert done.now.done and done.finished_at and benches.open_runs(scope) == []
    assert benches.begin(scope, card="clarinet", phase="together", steps=STEPS).id != run.id
    assert {(one.step, one.by) for one in benches.behind(scope, [student.id])["clarinet"]} == {(step, scope.person_id) for step in STEPS}


def test_a_tap_that_changes_nothing_is_not_kept_and_no_page_is_told(scope, student, run) -> None:
    first = benches.tap(scope, run.id, does="help", step="ready", student=student.id)
    told = changes.last(scope)
    again = benches.tap(scope, run.id, does="help", step="ready", student=student.id)
    assert again.taps == first.taps and changes.last(scope) == told and list(again.now.helping) == [student.id]


def test_many_hands_at_once_leave_it_as_one_would(scope, student, run) -> None:
    def tap(_: int) -> None:
        benches.tap(scope, run.id, does="next", step="ready")
        benches.tap(scope, run.id, does="help", step="case", student=student.id)

    with ThreadPoolExecutor(6) as hands:
        list(hands.map(tap, range(6)))
    now = benches.run(scope, run.id)
    assert now.now.key == "case" and list(now.now.helping) == [student.id] and now.taps == 3


def test_two_who_begin_at_once_begin_one(scope, student) -> None:
    def begin(_: int) -> int:
        return benches.begin(scope, card="flute", phase="together", steps=STEPS).id

    with ThreadPoolExecutor(6) as hands:
        assert len(set(hands.map(begin, range(6)))) == 1
    assert benches.open_runs(scope)[0].taps == 1


def test_a_tap_says_whose_chair_and_which_step(scope, student, run) -> None:
    for wrong in ({"does": "help"}, {"does": "next"}):
        with pytest.raises(InvalidInput, match="bad_tap"):
            benches.tap(scope, run.id, **wrong)


def test_nothing_of_another_programme(scope, student, run, stranger) -> None:
    with pytest.raises(NotThere):
        benches.run(stranger, run.id)
    with pytest.raises(NotThere):
        benches.tap(stranger, run.id, does="stop")
    theirs = students.add_student(stranger, name="Somebody Else", instrument="clarinet")
    with pytest.raises(NotThere):
        benches.tap(scope, run.id, does="help", step="ready", student=theirs.id)
    assert benches.open_runs(stranger) == [] and benches.behind(stranger, [student.id]) == {}


def test_what_came_out_and_what_fixed_it(scope, student, stranger) -> None:
    first = sounds.add(scope, student.id, rung="E4", outcome="squeak")
    sounds.add(scope, student.id, rung="E4", outcome="note")
    sounds.fixed(scope, first, "reed")
    assert [(one.outcome, one.fixed_by, one.by) for one in sounds.tries(scope, [student.id])] == [("squeak", "reed", "Ida Owner"), ("note", "", "Ida Owner")]
    assert sounds.reasons(scope, ["clarinet"]) == {("squeak", "reed"): 1} and sounds.reasons(scope, ["oboe"]) == {}
    assert sounds.tries(stranger, [student.id]) == [] and sounds.reasons(stranger, ["clarinet"]) == {}
    with pytest.raises(NotThere):
        sounds.fixed(stranger, first, "reed")
    sounds.take_back(scope, first)
    assert len(sounds.tries(scope, [student.id])) == 1
    with pytest.raises(NotThere):
        sounds.take_back(scope, first)


def test_care_is_logged_for_all_or_none_and_taken_back_together(scope, student, stranger) -> None:
    other = students.add_student(scope, name="Other One", instrument="clarinet")
    with pytest.raises(NotThere):
        instruments.log_care(scope, [student.id, 999_999], "dry")
    assert instruments.last_care(scope, [student.id]) == {}
    undo = instruments.log_care(scope, [student.id, other.id], "dry")
    assert set(instruments.last_care(scope, [student.id, other.id])) == {(student.id, "dry"), (other.id, "dry")}
    with pytest.raises(NotThere):
        instruments.undo_care(stranger, undo)
    instruments.undo_care(scope, undo)
    assert instruments.care_log(scope, [student.id, other.id]) == []


def test_a_passport_is_one_and_goes_with_the_student(scope, student: StudentRecord) -> None:
    assert instruments.passports(scope, [student.id]) == {student.id: UNKNOWN}
    for number in ("12", "14"):
        instruments.keep_passport(scope, student.id, Passport({"new_wood": True}, frozenset({"cork"}), "B flat", number, own=True))
    assert instruments.passports(scope, [student.id])[student.id] == Passport({"new_wood": True}, frozenset({"cork"}), "B flat", "14", own=True)


def test_two_who_write_one_passport_at_once_leave_one(scope, student) -> None:
    def write(number: int) -> None:
        instruments.keep_passport(scope, student.id, Passport({}, frozenset(), "", str(number)))
        instruments.keep_value(scope, student.id, "reed_tip_mm", 0.3)

    with ThreadPoolExecutor(6) as hands:
        list(hands.map(write, range(12)))
    assert instruments.passports(scope, [student.id])[student.id].number in {str(n) for n in range(12)}
    assert len(instruments.values(scope, [student.id])) == 1


def test_own_values_and_repairs(scope, student, stranger) -> None:
    instruments.keep_value(scope, student.id, "reed_tip_mm", 0.4)
    instruments.keep_value(scope, student.id, "reed_tip_mm", 0.3)
    assert [(one.key, one.value, one.by) for one in instruments.values(scope, [student.id])] == [("reed_tip_mm", 0.3, "Ida Owner")]
    instruments.keep_value(scope, student.id, "reed_tip_mm", None)
    assert instruments.values(scope, [student.id]) == []
    instruments.report_repair(scope, student.id, "bent key")
    repair = instruments.repairs(scope, [student.id])[0]
    with pytest.raises(NotThere):
        instruments.repaired(stranger, repair.id, done=True)
    instruments.repaired(scope, repair.id, done=True)
    assert instruments.repairs(scope, [student.id])[0].done_at


def test_what_a_programme_changed_is_its_own(scope, stranger) -> None:
    instruments.keep_bench_rules(scope, {"gates": {"clarinet": False}})
    assert instruments.bench_rules(scope) == {"gates": {"clarinet": False}} and instruments.bench_rules(stranger) == {}
