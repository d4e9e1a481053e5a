"""Takes, leases, reports with their rows, and what a scope may see, on a real database."""

import threading
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from datetime import timedelta

import pytest

from brevin.core.edited import Edits, MovedTurn, TappedLine
from brevin.core.kinds import Position, View
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.report import Cue, Verdict
from brevin.core.verdict.again import Ground
from brevin.core.verdict.headline import Fault, Headline
from brevin.core.verdict.judge import Judged
from brevin.core.verdict.rules import Rules
from brevin.ops.settings import Settings
from brevin.store import anew, chairs, checks, database, exemptions, files, lessons, programmes, readings, reports, rulebook, students, takes
from brevin.store.models import Take
from brevin.store.reading_records import Looked
from brevin.store.records import ClipRecord, LetGo, NewReport, NoConsent, NotThere, StudentRecord, TakeRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK, MIGRATIONS, consent

DOCUMENT = '{"schema": "brevin.analysis/1", "view": null, "breaths": [], "breathed": "", "reasons": [], "verdicts": [], "cue": null}'
LINE = Headline("watch", [Fault("with_count", "high")], "low", cue=Cue("with_count", "high"))
VERDICT = Verdict(
    criterion="pause", state="work", value=1.4, unit="beat", threshold={"steady_high": 0.3}, uncertainty=0.2, from_s=1.0, to_s=2.0, outside=True,
    marks=[], side="high", steady_breaths=1, counted_breaths=3,
)  # fmt: skip
MEASURES = (Measure("pause_beats", Amount(1.4, 0.2), breath=0), Measure("chest_amp", NotMeasured("region_unseen"), breath=0))


def ground(measures: Sequence[Measure], view: View = "side-right", position: Position = "seated") -> Ground:
    """What a report's verdicts stand on."""
    return Ground(Judged(tuple(measures), view, position, True, ()), CHECK)


REPORT = NewReport(DOCUMENT, True, LINE, "0", "t", "p", ground(MEASURES), (VERDICT,))
FOUND = Looked("x.evidence", ("x.mp4", "video/mp4"), REPORT, Rules(profile_id="p"), stills_name="x.stills.zip")


def new_take(scope: Scope, student: StudentRecord, clip: ClipRecord, **more) -> TakeRecord:
    return takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip, **more)


def read_once(take_id: str, found: Looked = FOUND) -> bool:
    held = readings.claim_next(HOUSE)
    return held is not None and held.take.id == take_id and readings.finish(HOUSE, take_id, held.token, found)


def test_migrations_may_be_repeated(as_root: Settings) -> None:
    assert database.migrate() == []
    with database.db.connection_context():
        database.db.execute_sql("DELETE FROM schema_migration")
    assert database.migrate() == MIGRATIONS, "every statement may run on tables that are there"


def test_times_come_back_in_utc_to_the_microsecond(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    before = database.now()
    take = new_take(scope, student, clip)
    assert before - timedelta(milliseconds=1) <= take.made_at <= database.now() and take.made_at.tzinfo is not None


def test_no_take_without_consent_of_today(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    students.withdraw_consent(scope, student.id)
    with pytest.raises(NoConsent):
        new_take(scope, student, clip)
    assert takes.latest(scope) == []
    today = database.now().date()
    students.give_consent(scope, student.id, given_by="g", from_day=today + timedelta(days=2), until_day=today + timedelta(days=9))
    with pytest.raises(NoConsent):
        students.may_film(scope, student.id)
    students.give_consent(scope, student.id, given_by="g", from_day=today - timedelta(days=9), until_day=today + timedelta(days=1))
    assert students.may_film(scope, student.id).id == student.id


@pytest.mark.parametrize(("zone", "hours"), [("Pacific/Kiritimati", 14), ("Pacific/Pago_Pago", -11)])
def test_consent_days_are_those_of_the_programmes_time_zone(store: Settings, monkeypatch, zone: str, hours: int) -> None:
    scope = Scope(programmes.add_programme(HOUSE, name="Far away", time_zone=zone).id)
    student = students.add_student(scope, name="Nils Far", instrument="horn")
    noon = database.now().replace(hour=12, minute=0)
    monkeypatch.setattr(students, "now", lambda: noon)
    there = (noon + timedelta(hours=hours)).date()
    students.give_consent(scope, student.id, given_by="g", from_day=there, until_day=there)
    assert students.student(scope, student.id).may_film_until == there
    for moved in (-24, 24):
        monkeypatch.setattr(students, "now", lambda moved=moved: noon + timedelta(hours=moved))
        assert students.student(scope, student.id).may_film_until is None, "yesterday and tomorrow of the programme, not of the server"


def test_one_reader_at_a_time_and_only_the_holder_of_the_lease_may_finish(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    held = readings.claim_next(HOUSE)
    assert held is not None and held.take.id == take.id and readings.claim_next(HOUSE) is None
    assert readings.report_progress(HOUSE, take.id, held.token, stage="watching", progress=0.4)
    assert not readings.report_progress(HOUSE, take.id, "someone else", stage="watching", progress=0.9)
    assert takes.take_record(scope, take.id).progress == pytest.approx(0.4)
    assert not readings.finish(HOUSE, take.id, "someone else", FOUND)
    assert reports.newest(scope, take.id) is None
    assert readings.finish(HOUSE, take.id, held.token, FOUND)
    done = takes.take_record(scope, take.id)
    assert (done.state, done.evidence_name, done.rules.profile_id) == ("read", "x.evidence", "p")


def test_the_oldest_waiting_take_is_read_first(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    new = new_take(scope, student, clip)
    old = new_take(scope, student, clip, made_at=database.now() - timedelta(hours=1))
    assert [readings.claim_next(HOUSE).take.id for _ in range(2)] == [old.id, new.id]


def test_what_was_filmed_in_the_page_is_read_before_files_that_waited_longer(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    """A class waits for the one, and nobody for the others; among themselves the oldest comes first."""
    files = [new_take(scope, student, clip, made_at=database.now() - timedelta(minutes=minutes)) for minutes in (30, 20)]
    filmed = [new_take(scope, student, clip, made_at=database.now() - timedelta(minutes=minutes), sent_as=f"{minutes:036}") for minutes in (2, 1)]
    assert [readings.claim_next(HOUSE).take.id for _ in range(4)] == [*(one.id for one in filmed), *(one.id for one in files)]


def test_a_dead_readers_take_waits_again_and_is_given_up_after_its_last_attempt(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    for attempt in range(readings.MOST_ATTEMPTS):
        assert readings.claim_next(HOUSE), attempt
        assert readings.put_back(HOUSE, code="reading_failed") == 0, "a living lease is left alone"
        with database.db.connection_context():
            Take.update(lease_until=database.now() - timedelta(seconds=1)).execute()
        assert readings.put_back(HOUSE, code="reading_failed") == 1
        assert readings.waiting(HOUSE) == (1 if attempt + 1 < readings.MOST_ATTEMPTS else 0)
    given_up = takes.take_record(scope, take.id)
    assert (given_up.state, given_up.reason_code) == ("failed", "reading_failed")


def test_a_reader_known_to_be_dead_frees_its_leases_at_once(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    held = readings.claim_next(HOUSE)
    assert readings.put_back(HOUSE, code="reading_failed", tokens=["another"]) == 0
    assert readings.put_back(HOUSE, code="reading_failed", tokens=[held.token]) == 1
    assert readings.claim_next(HOUSE).take.id == take.id
    assert readings.readers_died(HOUSE) == 1 and takes.take_record(scope, take.id).state == "failed", "its second reader"


def test_a_stop_is_not_the_clips_fault(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    readings.claim_next(HOUSE)
    readings.free_leases(HOUSE)
    assert takes.take_record(scope, take.id).attempts == 0 and readings.waiting(HOUSE) == 1


def test_reports_are_kept_as_versions_and_the_line_is_that_of_the_last(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    assert read_once(take.id)
    assert readings.read_again(scope, take.id).state == "queued"
    assert read_once(take.id, replace(FOUND, evidence_name="y.evidence", report=replace(REPORT, headline=replace(LINE, state="steady", faults=[]))))
    report = reports.newest(scope, take.id)
    assert report is not None and report.version == 2 and report.document == DOCUMENT
    head = takes.take_record(scope, take.id).headline
    assert head is not None and (head.line.state, head.line.faults, head.line.cue, head.report_version) == ("steady", [], Cue("with_count", "high"), 2)
    assert files.to_go(HOUSE) == [LetGo("evidence", "x.evidence")], "the evidence of the first reading is nobody's"


def test_numbers_and_verdicts_are_rows_of_the_newest_report(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    readings.read_again(scope, take.id)
    read_once(take.id)
    [verdict] = reports.verdicts(scope, student_id=student.id, criterion="pause")
    assert (verdict.take_id, verdict.state, verdict.value, verdict.steady_breaths, verdict.counted_breaths) == (take.id, "work", 1.4, 1, 3)
    assert [(m.key, m.value, m.half_width, m.withheld, m.breath) for m in reports.measures(scope, instrument="clarinet")] == [
        ("pause_beats", 1.4, 0.2, "", 0), ("chest_amp", None, None, "region_unseen", 0),
    ]  # fmt: skip
    assert reports.verdicts(scope, criterion="no.such") == [] and reports.measures(scope, since=database.now() + timedelta(hours=1)) == []
    assert reports.verdicts(scope, instrument="tuba") == [] and len(reports.verdicts(scope, since=take.made_at)) == 1


def test_the_teachers_word_stands_beside_the_verdict_and_replaces_an_earlier_one(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="pause", state="watch", reason="he laughed")
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="pause", state="steady", reason="the whole room laughed")
    reports.give_cue(scope, take, criterion="pause", side="high")
    [verdict] = reports.verdicts(scope, criterion="pause")
    assert (verdict.state, verdict.overruled) == ("work", "steady"), "what was measured stays"


def test_the_line_of_a_list_follows_the_teachers_word_through_another_reading_and_back(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)

    def line() -> Headline:
        return takes.take_record(scope, take.id).headline.line

    assert line() == LINE
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="pause", state="steady", reason="seen")
    assert (line().state, line().faults, line().cue, line().pattern) == ("steady", [], Cue("all"), "low")
    readings.read_again(scope, take.id)
    read_once(take.id)
    assert line().state == "steady", "another reading does not take the word away"
    reports.overrule(scope, takes.take_record(scope, take.id), criterion="pause", state=None, reason="")
    assert line() == LINE


def test_a_check_that_somebody_else_has_just_made_is_found_in_the_middle_of_a_change(scope: Scope) -> None:
    with database.db.connection_context(), database.db.atomic():
        assert takes.latest(scope) == []  # from here on the transaction sees the tables as they were
        with ThreadPoolExecutor(1) as somebody:
            made = somebody.submit(checks.same, scope, Check(card=parse("2-0-9@61x2"))).result()
        assert checks.same(scope, Check(card=parse("2-0-9@61x2"))).id == made.id


def test_a_take_judged_anew_keeps_what_it_was_judged_by(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    edits = Edits(player=1, first_inhale_s=4.0, turns=[MovedTurn("inhale_end", 5.0, 5.2)], line=TappedLine(4.0, [10.0, 20.0], [90.0, 30.0]))
    found = anew.put(scope, take, edits=edits, rules=Rules(profile_id="stricter"), report=REPORT)
    assert (found.edits, found.rules.profile_id, found.headline.report_version) == (edits, "stricter", 2)


def test_rules_are_resolved_once_and_kept_with_the_take(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    rulebook.change_rules(scope, {"profile_id": "ours", "limits": {"pause.steady_s": 0.4}, "off": ["even_exhale"]})
    rulebook.change_rules(scope, {"limits": {"inclination.work_high": 20}}, instrument="clarinet")
    exemptions.put(scope, student.id, ["shoulder_tilt"])
    take = new_take(scope, student, clip)
    assert (take.rules.limit("pause.steady_s"), take.rules.limit("inclination.work_high")) == (0.4, 20) and take.rules.exempt == {"shoulder_tilt"}
    assert take.rules.off == {"even_exhale"} and take.rules.profile_id == "ours"
    rulebook.change_rules(scope, {})
    assert takes.take_record(scope, take.id).rules == take.rules, "later changes do not reach it by themselves"
    assert anew.current_rules(scope, take).limit("pause.steady_s") == 0.25


def test_deleting_a_take_deletes_its_rows_and_lists_its_files(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    kept = {LetGo("clips", clip.stored_name), LetGo("clips", "x.mp4"), LetGo("evidence", "x.evidence"), LetGo("evidence", "x.stills.zip")}
    assert files.owned(HOUSE) == kept
    takes.delete(scope, take.id)
    assert files.owned(HOUSE) == set() and set(files.to_go(HOUSE)) == kept
    assert reports.verdicts(scope) == [] and reports.measures(scope) == []
    for ask in (lambda: reports.newest(scope, take.id), lambda: takes.delete(scope, take.id)):
        with pytest.raises(NotThere):
            ask()


def test_evidence_and_reports_outlive_the_pictures_of_a_take(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id)
    takes.drop_clip(scope, take.id)
    left = takes.take_record(scope, take.id)
    assert left.clip is None and left.stills_name == "" and left.evidence_name == "x.evidence" and reports.newest(scope, take.id) is not None
    assert set(files.to_go(HOUSE)) == {LetGo("clips", clip.stored_name), LetGo("clips", "x.mp4"), LetGo("evidence", "x.stills.zip")}
    with pytest.raises(NotThere):
        readings.read_again(scope, take.id)


def test_a_clip_of_someone_else_moves_with_all_that_hangs_on_it(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    other = students.add_student(scope, name="Ben Right", instrument="clarinet")
    take = new_take(scope, student, clip)
    read_once(take.id)
    with pytest.raises(NoConsent):
        takes.move(scope, take.id, other.id)
    consent(scope, other.id)
    assert takes.move(scope, take.id, other.id).student.id == other.id
    assert reports.verdicts(scope, student_id=student.id) == [] and len(reports.verdicts(scope, student_id=other.id)) == 1


def test_a_deleted_take_stops_its_reader(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    held = readings.claim_next(HOUSE)
    takes.delete(scope, take.id)
    assert not readings.report_progress(HOUSE, take.id, held.token, stage="watching", progress=0.5)
    assert not readings.finish(HOUSE, take.id, held.token, FOUND)


def lesson_of(scope: Scope, *student_ids: int) -> int:
    lesson = lessons.add_lesson(scope, title="First", group_id=students.add_group(scope, "Winds"), starts_at=database.now(), minutes=40)
    for place, student_id in enumerate(student_ids, start=1):
        lessons.add_seat(scope, lesson, student_id=student_id, place=place, minute=2.0 * place, check=CHECK, side="left")
    return lesson


def test_clips_of_one_student_that_come_at_once_are_tries_of_their_own(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    lesson = lesson_of(scope, student.id)

    def sent(_: int) -> int:
        return takes.add(scope, student_id=student.id, lesson_id=lesson, check=CHECK, clip=clip).try_number

    with ThreadPoolExecutor(6) as hands:
        assert sorted(hands.map(sent, range(12))) == list(range(1, 13))


def test_tries_of_one_check_in_a_lesson_are_counted_and_refused_files_are_none(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    lesson = lesson_of(scope, student.id)

    def one_more() -> int:
        return takes.add(scope, student_id=student.id, lesson_id=lesson, check=CHECK, clip=clip).try_number

    assert one_more() == 1
    takes.add_refused(scope, student_id=student.id, lesson_id=lesson, check=CHECK, code="not_a_video", facts={})
    assert one_more() == 2
    today = lessons.last_lesson(scope)
    assert today is not None and today.seats[0].take is not None and today.seats[0].take.try_number == 2
    assert today.seats[0].asked == takes.take_record(scope, today.seats[0].take.id).asked, "chair and take refer to the same check"


def test_a_chair_is_marked_and_freed_without_a_reason(scope: Scope, student: StudentRecord) -> None:
    lesson_of(scope, student.id)
    seat = lessons.last_lesson(scope).seats[0]
    for away in ("not_today", "not_here", ""):
        chairs.set_away(scope, seat.id, away)
        assert lessons.last_lesson(scope).seats[0].away == away
    with pytest.raises(ValueError):
        chairs.set_away(scope, seat.id, "ill")
    with pytest.raises(NotThere):
        chairs.set_away(scope, 999_999, "")


def test_passwords_are_hashed_and_checked(scope: Scope) -> None:
    programmes.add_person(scope, login="kim", name="Kim", role="teacher", password="first password")
    assert programmes.sign_in(HOUSE, "kim", "first password") is not None
    assert programmes.sign_in(HOUSE, "kim", "wrong") is None and programmes.sign_in(HOUSE, "nobody", "first password") is None
    programmes.set_password(HOUSE, "kim", "second password")
    assert programmes.sign_in(HOUSE, "kim", "first password") is None and programmes.sign_in(HOUSE, "kim", "second password") is not None
    with pytest.raises(NotThere):
        programmes.set_password(HOUSE, "nobody", "x")


def test_today_takes_the_same_number_of_queries_for_two_chairs_and_for_thirty(scope: Scope, clip: ClipRecord) -> None:
    def queries(chairs: int) -> int:
        pupils = [students.add_student(scope, name=f"Pupil {i}", instrument="flute") for i in range(chairs)]
        for pupil in pupils:
            consent(scope, pupil.id)
            new_take(scope, pupil, clip)
        lesson_of(scope, *(p.id for p in pupils))
        asked: list[str] = []
        inner, here = database.db.obj.execute_sql, threading.get_ident()

        def counted(sql: str, *rest: object, **named: object) -> object:
            if threading.get_ident() == here:  # a feed that another test opened may still be asking
                asked.append(sql)
            return inner(sql, *rest, **named)

        database.db.obj.execute_sql = counted
        try:
            today = lessons.today(scope, since=database.now() - timedelta(hours=1))
            assert len(today.lesson.seats) == chairs and len(today.just_made) >= chairs
        finally:
            del database.db.obj.execute_sql
        return sum(sql.lstrip().startswith("SELECT") for sql in asked)

    few = queries(2)
    assert few <= 9 and queries(30) == few


def test_how_long_a_reading_takes_is_the_median_of_the_last_ones(scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    assert lessons.today(scope, since=database.now()).usual_read_s == readings.USUAL_S
    for number, length_s in enumerate((2, 3, 40)):
        take = new_take(scope, student, replace(clip, stored_name=f"{number}.mp4"))
        held = readings.claim_next(HOUSE)
        with database.db.connection_context():
            Take.update(claimed_at=database.now() - timedelta(seconds=length_s)).where(Take.id == take.id).execute()
        assert readings.finish(HOUSE, take.id, held.token, replace(FOUND, evidence_name=f"{number}.evidence"))
    assert lessons.today(scope, since=database.now()).usual_read_s == pytest.approx(3.0, abs=0.5)
