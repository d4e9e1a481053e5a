"""What stored verdicts stand on: the newest report of each take that was judged, with its rules' own parts, and nothing of another programme."""

from dataclasses import replace

import pytest

from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.store import anew, database, exemptions, programmes, readings, reports, takes
from brevin.store.grounds import stood_on
from brevin.store.records import ClipRecord, StudentRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK
from tests.store.test_takes import FOUND, REPORT, ground, new_take, read_once

MEASURES = [
    Measure("abdominal_share", Amount(0.62, 0.05), breath=0), Measure("abdominal_share", NotMeasured("region_unseen"), breath=1),
    Measure("trunk_inclination_deg", Amount(3.0, 2.0)), Measure("trunk_inclination_deg", Amount(5.0, 2.0), segment="inhale"),
]  # fmt: skip


def found_with(measures, **more):
    stands = ground(measures, "side-left", "standing")
    stands = replace(stands, beat_s=0.75, own_full=Amount(6.0, 0.4), judged=replace(stands.judged, aside=frozenset({1})))
    return replace(FOUND, report=replace(REPORT, ground=replace(stands, **more)))


@pytest.fixture
def take(scope: Scope, student: StudentRecord, clip: ClipRecord):
    """A take that was read."""
    made = new_take(scope, student, clip)
    assert read_once(made.id, found_with(MEASURES))
    return made


def test_a_ground_comes_back_as_it_was_stored(scope: Scope, student: StudentRecord, take) -> None:
    [stood] = stood_on(scope)
    assert (stood.take_id, stood.student_id, stood.student_name, stood.exempt) == (take.id, student.id, student.name, ())
    kept = stood.ground
    assert (kept.beat_s, kept.own_full, kept.check) == (0.75, Amount(6.0, 0.4), CHECK)
    assert (kept.judged.view, kept.judged.position, kept.judged.breath_readable, kept.judged.aside) == ("side-left", "standing", True, frozenset({1}))
    assert {(m.key, m.breath, m.value) for m in kept.judged.measures} == {(m.key, m.breath, m.value) for m in MEASURES if m.segment is None}


def test_the_newest_report_speaks(scope: Scope, take) -> None:
    readings.read_again(scope, take.id)
    assert read_once(take.id, found_with([Measure("abdominal_share", Amount(0.3, 0.05), breath=0)], beat_s=None, own_full=None))
    [stood] = stood_on(scope)
    assert [m.value for m in stood.ground.judged.measures] == [Amount(0.3, 0.05)] and stood.ground.beat_s is None and stood.ground.own_full is None


def test_exemptions_the_cards_rules_and_the_teachers_word_come_along(scope: Scope, student: StudentRecord, take) -> None:
    exemptions.put(scope, student.id, ["pause"])
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="abdomen_leads", state="steady", reason="seen")
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="with_count", state="work", reason="", breath=0)
    [stood] = stood_on(scope)
    assert stood.exempt == ("pause",) and stood.overruled == {"abdomen_leads"}, "a word on one breath leaves the clip's verdict to the rules"


def test_what_was_never_judged_or_lies_in_another_programme_is_not_tried(scope: Scope, student: StudentRecord, clip: ClipRecord, take) -> None:
    new_take(scope, student, replace(clip, sha256="1" * 64))
    nobody = new_take(scope, student, replace(clip, sha256="2" * 64))
    stranger = Scope(programmes.add_programme(HOUSE, name="Other winds").id)
    assert [one.take_id for one in stood_on(scope)] == [take.id] and stood_on(stranger) == []
    with database.db.connection_context():
        assert nobody.id not in {one.take_id for one in stood_on(scope)}


def test_takes_that_are_due_are_judged_one_by_one_newest_first_and_only_those_read(scope: Scope, student: StudentRecord, clip: ClipRecord, take) -> None:
    waiting = new_take(scope, student, replace(clip, sha256="3" * 64))
    anew.judge_again(scope, [take.id, waiting.id])
    assert anew.next_to_judge(HOUSE) == take.id
    other = Scope(programmes.add_programme(HOUSE, name="Other winds").id)
    assert anew.next_to_judge(other) is None
    anew.cannot_judge(other, take.id)
    assert anew.next_to_judge(HOUSE) == take.id, "nobody else's to say"
    anew.cannot_judge(scope, take.id)
    assert anew.next_to_judge(HOUSE) is None
