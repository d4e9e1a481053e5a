from datetime import timedelta

import pytest

from brevin.core.verdict.words import reason_text
from brevin.ops.settings import Settings
from brevin.store import database, lessons, people, takes
from brevin.store.models import Take
from brevin.store.records import ClipRecord, NewReport, NoConsent, NotThere, StudentRecord

DOCUMENT = '{"schema": "brevin.analysis/1"}'
REPORT = NewReport(DOCUMENT, True, "watch", "starts: late", "Listen.", "0", "t", "p")
FAILED = {"code": "reading_failed", "text": reason_text("reading_failed", {})}


def new_take(student: StudentRecord, clip: ClipRecord):
    return takes.add(student_id=student.id, teacher_id=None, lesson_id=None, card="4-0-4@72x3", clip=clip)


def read_once(take_id: str) -> bool:
    token = takes.claim(take_id)
    return token is not None and takes.finish(take_id, token, report=REPORT, playable=("x.mp4", "video/mp4"))


def test_migrations_may_be_repeated(store: Settings) -> None:
    from brevin.store.migrations import __path__ as folder  # type: ignore[attr-defined]

    assert folder and database.migrate() == []
    with database.db.connection_context():
        database.db.execute_sql("DELETE FROM schema_migration")
    assert database.migrate() == ["0001_first", "0002_counted"], "every statement may run on tables that are there"


def test_times_come_back_in_utc_to_the_microsecond(student: StudentRecord, clip: ClipRecord) -> None:
    before = database.now()
    take = new_take(student, clip)
    assert before - timedelta(milliseconds=1) <= take.made_at <= database.now() and take.made_at.tzinfo is not None


def test_no_take_without_consent_of_today(student: StudentRecord, clip: ClipRecord) -> None:
    people.withdraw_consent(student.id, on=database.now().date())
    with pytest.raises(NoConsent):
        new_take(student, clip)
    assert takes.latest(9) == []
    today = database.now().date()
    people.give_consent(student.id, given_by="g", from_day=today + timedelta(days=1), until_day=today + timedelta(days=9))
    with pytest.raises(NoConsent):
        takes.may_film(student.id)
    people.give_consent(student.id, given_by="g", from_day=today - timedelta(days=9), until_day=today)
    takes.may_film(student.id)


def test_one_reader_at_a_time_and_only_the_holder_of_the_lease_may_finish(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    first = takes.claim(take.id)
    assert first is not None and takes.claim(take.id) is None
    assert takes.report_progress(take.id, first, stage="watching", progress=0.4)
    assert not takes.report_progress(take.id, "someone else", stage="watching", progress=0.9)
    assert takes.take_record(take.id).progress == pytest.approx(0.4)
    assert not takes.finish(take.id, "someone else", report=REPORT, playable=("x", "y"))
    assert takes.report(take.id) is None
    assert takes.finish(take.id, first, report=REPORT, playable=("x.mp4", "video/mp4"))
    assert takes.take_record(take.id).state == "read"


def test_a_dead_readers_take_waits_again_and_is_given_up_after_its_last_attempt(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    for attempt in range(takes.MOST_ATTEMPTS):
        assert takes.claim(take.id), attempt
        assert takes.put_back_expired(**FAILED) == [], "a living lease is left alone"
        with database.db.connection_context():
            Take.update(lease_until=database.now() - timedelta(seconds=1)).execute()
        waiting = takes.put_back_expired(**FAILED)
        assert waiting == ([take.id] if attempt + 1 < takes.MOST_ATTEMPTS else [])
    given_up = takes.take_record(take.id)
    assert (given_up.state, given_up.reason_code) == ("failed", "reading_failed") and given_up.reason_text


def test_a_stop_is_not_the_clips_fault(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    takes.claim(take.id)
    takes.free_leases()
    assert takes.take_record(take.id).attempts == 0 and takes.put_back_expired(**FAILED) == [take.id]


def test_reports_are_kept_as_versions_and_the_headline_is_the_worst_of_the_last(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    assert read_once(take.id)
    assert takes.read_again(take.id).state == "queued"
    assert read_once(take.id)
    report = takes.report(take.id)
    assert report is not None and report.version == 2 and report.document == DOCUMENT
    head = takes.take_record(take.id).headline
    assert head is not None and (head.state, head.words, head.cue, head.report_version) == ("watch", "starts: late", "Listen.", 2)


def test_deleting_a_take_deletes_rows_and_names_its_files(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    read_once(take.id)
    assert takes.known_files() == {clip.stored_name, "x.mp4"}
    assert takes.delete(take.id) == sorted([clip.stored_name, "x.mp4"])
    assert takes.known_files() == set()
    with pytest.raises(NotThere):
        takes.report(take.id)
    with pytest.raises(NotThere):
        takes.delete(take.id)


def test_a_deleted_take_stops_its_reader(student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(student, clip)
    token = takes.claim(take.id)
    takes.delete(take.id)
    assert token and not takes.report_progress(take.id, token, stage="watching", progress=0.5)
    assert not takes.finish(take.id, token, report=REPORT, playable=("x", "y"))


def test_tries_of_one_check_in_a_lesson_are_counted(student: StudentRecord, clip: ClipRecord) -> None:
    lesson = lessons.add_lesson(title="First", group_name="G", starts_at=database.now(), minutes=40)
    lessons.add_seat(lesson, student_id=student.id, place=1, minute=4, card="4-0-4@72x3", position="seated", side="left")
    tries = [takes.add(student_id=student.id, teacher_id=None, lesson_id=lesson, card="4-0-4@72x3", clip=clip).try_number for _ in range(2)]
    assert tries == [1, 2]
    today = lessons.last_lesson()
    assert today is not None and today.seats[0].take is not None and today.seats[0].take.try_number == 2


def test_a_chair_is_marked_and_freed_without_a_reason(student: StudentRecord) -> None:
    lesson = lessons.add_lesson(title="First", group_name="G", starts_at=database.now(), minutes=40)
    lessons.add_seat(lesson, student_id=student.id, place=1, minute=4, card="4-0-4@72x3", position="seated", side="left")
    seat = lessons.last_lesson().seats[0]
    for away in ("not_today", "not_here", ""):
        lessons.set_away(seat.id, away)
        assert lessons.last_lesson().seats[0].away == away
    with pytest.raises(ValueError):
        lessons.set_away(seat.id, "ill")
    with pytest.raises(NotThere):
        lessons.set_away(999_999, "")


def test_passwords_are_hashed_and_checked(store: Settings) -> None:
    people.add_teacher(login="kim", name="Kim", role="teacher", password="first password")
    assert people.sign_in("kim", "first password") is not None
    assert people.sign_in("kim", "wrong") is None and people.sign_in("nobody", "first password") is None
    people.set_password("kim", "second password")
    assert people.sign_in("kim", "first password") is None and people.sign_in("kim", "second password") is not None
    with pytest.raises(NotThere):
        people.set_password("nobody", "x")
