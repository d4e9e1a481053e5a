"""A reading from the waiting take to the stored report, on the real database, with real clips in real children."""

import hashlib
import json
import os
import shutil
import signal
from dataclasses import replace
from datetime import timedelta
from pathlib import Path

import pytest

from brevin.core.edited import Edits
from brevin.core.errors import InvalidInput
from brevin.core.evidence import VERSION, unpacked
from brevin.core.kinds import IMPORTANCE
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.edge.pictures import milliseconds, picture
from brevin.jobs import judging
from brevin.jobs import reader as reading
from brevin.jobs.judging import ReadAgain, judge_anew, report_of
from brevin.jobs.reader import Reader, run
from brevin.ops import demo
from brevin.ops.settings import Settings
from brevin.ops.told import Stop, Told
from brevin.store import anew, database, exemptions, files, keeping, lessons, programmes, readings, reports, rulebook, students, takes
from brevin.store.models import Take
from brevin.store.reading_records import Looked
from brevin.store.records import ClipRecord, LetGo, StudentRecord
from brevin.store.scope import HOUSE, Scope
from tests import clips
from tests.conftest import CHECK
from tests.jobs.conftest import read_all
from tests.sightings import kept_of


def queued(scope: Scope, student: StudentRecord, settings: Settings, source: Path, check: Check = CHECK, first_inhale_s: float | None = None) -> str:
    name = hashlib.sha256(str(source).encode()).hexdigest()[:32] + source.suffix
    shutil.copyfile(source, settings.clips / name)
    clip = ClipRecord(name, source.name, "0" * 64, source.stat().st_size)
    return takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=clip, first_inhale_s=first_inhale_s).id


def document_of(scope: Scope, take_id: str) -> dict:
    return json.loads(reports.newest(scope, take_id).document)


def test_a_clip_that_may_not_be_kept_is_read_and_then_deleted(scope, student, store, reader, short) -> None:
    students.withdraw_consent(scope, student.id, ["keeping"])
    take_id = queued(scope, student, store, short)
    read_all(reader)
    take = takes.take_record(scope, take_id)
    assert take.state == "read" and take.clip is None and take.evidence_name and not list(store.clips.iterdir())
    assert [p.name for p in store.evidence.iterdir()] == [take.evidence_name], "no picture either"
    assert len(document_of(scope, take_id)["breaths"]) == 1


def test_a_clip_is_read_and_kept_with_its_evidence_and_rows(scope, student, store, reader, short) -> None:
    take_id = queued(scope, student, store, short, replace(CHECK, with_instrument=True))
    read_all(reader)
    take, document = takes.take_record(scope, take_id), document_of(scope, take_id)
    assert take.state == "read" and take.clip.playable_name == take.clip.stored_name
    assert document["schema"] == "brevin.analysis/1" and len(document["breaths"]) == 1 and document["clip"]["file"] == short.name
    assert document["rules"] == {"profile_id": "starting-values", "limits": {}, "set_by": {}, "off": [], "exempt": [], "order": list(IMPORTANCE)}
    kept = unpacked((store.evidence / take.evidence_name).read_bytes())
    assert kept.clip.width_px == document["clip"]["width_px"] and len(kept.poses) > 10
    assert {(r.key, r.state) for r in reports.verdicts(scope)} == {(v["criterion"], v["state"]) for v in document["verdicts"]}
    assert len(reports.measures(scope, key="inhale_beats")) == 1
    readings.read_again(scope, take_id)
    read_all(reader)
    after = takes.take_record(scope, take_id)
    assert after.evidence_name != take.evidence_name and {p.name for p in store.evidence.iterdir()} == {after.evidence_name, after.stills_name}
    shown = [still["t_s"] for still in document["hold"]["hands"]["stills"]]
    assert shown and all(picture(store.evidence / after.stills_name, milliseconds(t_s)) for t_s in shown)
    assert reports.newest(scope, take_id).version == 2 and len(reports.measures(scope, key="inhale_beats")) == 1


def test_a_take_is_judged_anew_by_other_rules_an_exemption_and_edits_without_its_clip(scope, student, store, take_id) -> None:
    takes.drop_clip(scope, take_id)
    rulebook.change_rules(scope, {"profile_id": "loose", "limits": {"full_early.steady": 0.1, "full_early.work": 0.05}})
    judge_anew(scope, take_id, store)
    assert [r.state for r in reports.verdicts(scope, criterion="not_full_early")] == ["steady"]
    exemptions.put(scope, student.id, ["trunk_inclination"])
    judge_anew(scope, take_id, store, edits=Edits(first_inhale_s=4.0))
    again = document_of(scope, take_id)
    assert again["beats"]["first_inhale_s"] == 4.0 and again["posture"]["trunk_inclination_deg"] is None and again["software"]["profile_id"] == "loose"
    assert not reports.verdicts(scope, criterion="trunk_inclination") and reports.newest(scope, take_id).version == 3


def meanwhile(monkeypatch, happens) -> None:
    """Something happens while a take is judged: after what it is judged by was looked up, before its report is stored."""

    def judged(*args, **kwargs):
        report = report_of(*args, **kwargs)
        monkeypatch.undo()
        happens()
        return report

    monkeypatch.setattr(judging, "report_of", judged)


def test_rules_that_change_while_a_take_is_judged_reach_it_all_the_same(scope, store, take_id, monkeypatch) -> None:
    rulebook.change_rules(scope, {"limits": {"full_early.steady": 0.1, "full_early.work": 0.05}})
    anew.judge_again(scope, [take_id])

    def back() -> None:  # the teacher thinks better of it
        rulebook.change_rules(scope, {})
        anew.judge_again(scope, [take_id])

    meanwhile(monkeypatch, back)
    judge_anew(scope, take_id, store)
    assert anew.next_to_judge(HOUSE) == take_id
    judge_anew(scope, take_id, store)
    assert [r.state for r in reports.verdicts(scope, criterion="not_full_early")] == ["work"] and anew.next_to_judge(HOUSE) is None


def test_a_turn_that_is_moved_while_its_take_is_judged_by_other_rules_stays_moved(scope, store, take_id, monkeypatch) -> None:
    anew.judge_again(scope, [take_id])
    moved = Edits(first_inhale_s=4.0)
    meanwhile(monkeypatch, lambda: judge_anew(scope, take_id, store, edits=moved))
    judge_anew(scope, take_id, store)
    assert takes.take_record(scope, take_id).edits == moved and document_of(scope, take_id)["beats"]["first_inhale_s"] == 4.0


def test_a_clip_that_is_read_again_while_its_take_is_judged_keeps_the_newer_reading(scope, store, take_id, monkeypatch) -> None:
    def again() -> None:
        readings.read_again(scope, take_id)
        held = readings.claim_next(HOUSE)
        report = report_of(scope, held.take, unpacked(kept_of("seated-chest-high")), rules=held.take.rules, edits=held.take.edits)
        assert readings.finish(HOUSE, take_id, held.token, Looked("newer.evidence", ("x.mp4", "video/mp4"), report, held.take.rules))

    meanwhile(monkeypatch, again)
    judge_anew(scope, take_id, store)
    assert reports.newest(scope, take_id).version == 2 and document_of(scope, take_id)["breaths"][0]["pattern"] == "chest_high"


def test_rules_that_change_while_a_clip_is_read_are_followed_right_after(scope, student, clip) -> None:
    made = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip)
    held = readings.claim_next(HOUSE)
    report = report_of(scope, held.take, unpacked(kept_of("standing-full-early")), rules=held.take.rules, edits=held.take.edits)
    rulebook.change_rules(scope, {"limits": {"full_early.steady": 0.1, "full_early.work": 0.05}})
    assert readings.finish(HOUSE, made.id, held.token, Looked("kept.evidence", (clip.stored_name, "video/mp4"), report, held.take.rules))
    assert anew.next_to_judge(HOUSE) == made.id


@pytest.mark.parametrize("harm", ["gone", "cut", "older"])
def test_evidence_that_cannot_be_used_says_read_again_and_the_report_stays(scope, store, take_id, harm: str) -> None:
    path = store.evidence / "kept.evidence"
    content = path.read_bytes()
    path.unlink() if harm == "gone" else path.write_bytes(content[:900] if harm == "cut" else content.replace(b"evidence %d" % VERSION, b"evidence 0", 1))
    with pytest.raises(ReadAgain):
        judge_anew(scope, take_id, store)
    assert reports.newest(scope, take_id).version == 1


def test_an_edit_that_does_not_fit_changes_nothing(scope, store, take_id) -> None:
    with pytest.raises(InvalidInput):
        judge_anew(scope, take_id, store, edits=Edits(player=3))
    assert takes.take_record(scope, take_id).edits == Edits() and reports.newest(scope, take_id).version == 1


def test_a_clip_without_sound_is_counted_as_the_app_counted(scope, student, store, reader, short, tmp_path) -> None:
    silent = clips.without_sound(short, tmp_path / "silent.mp4")
    take_id = queued(scope, student, store, silent, first_inhale_s=3.66)
    read_all(reader)
    document = document_of(scope, take_id)
    assert (document["beats"]["source"], document["beats"]["first_inhale_s"]) == ("recorded", 3.66)
    assert document["readable_for"]["breath"] and not document["readable_for"]["sound"]


def test_clips_that_cannot_be_read_end_in_their_reason_and_the_reader_goes_on(scope, student, store, reader, tmp_path) -> None:
    room = queued(scope, student, store, clips.write(tmp_path / "room.mp4", clips.room(90)))
    broken = queued(scope, student, store, clips.write(tmp_path / "b.mp4", clips.room(5)))
    (store.clips / takes.take_record(scope, broken).clip.stored_name).write_bytes(b"overwritten since")
    read_all(reader)
    assert takes.take_record(scope, room).headline.line.reason == "no_person"
    assert (takes.take_record(scope, broken).state, takes.take_record(scope, broken).reason_code) == ("failed", "not_a_video")


def test_a_consent_withdrawn_while_a_clip_waits_stops_its_reading(scope, student, store, reader, short) -> None:
    take_id = queued(scope, student, store, short)
    students.withdraw_consent(scope, student.id)
    read_all(reader)
    assert (takes.take_record(scope, take_id).state, takes.take_record(scope, take_id).reason_code) == ("failed", "no_consent")
    assert reports.newest(scope, take_id) is None and list(store.evidence.iterdir()) == []


def under_way(reader: Reader, take_id: str) -> None:
    for _ in range(300):
        reader.step(wait_s=0.05)
        if reader._jobs and reader._jobs[0].child.progress is not None:
            return
    raise AssertionError("never began")


def test_a_killed_child_is_tried_once_more_and_then_given_up(scope, student, store, reader, short) -> None:
    take_id = queued(scope, student, store, short)
    for attempt in range(readings.MOST_ATTEMPTS):
        under_way(reader, take_id)
        os.kill(reader._jobs[0].child.process.pid, signal.SIGKILL)
        while reader.busy and reader._jobs[0].held.take.attempts == attempt + 1:
            reader.step(wait_s=0.05)
    take = takes.take_record(scope, take_id)
    assert (take.state, take.reason_code, take.attempts) == ("failed", "reading_failed", 2)


def test_a_take_deleted_while_it_is_read_ends_its_child_and_leaves_nothing(scope, student, store, reader, short, monkeypatch) -> None:
    monkeypatch.setattr(reading, "SAY_EVERY_S", 0.0)
    take_id = queued(scope, student, store, short)
    under_way(reader, take_id)
    child = reader._jobs[0].child
    stem = takes.take_record(scope, take_id).clip.stored_name.rsplit(".", 1)[0]
    for begun in (f"{stem}.play.mp4", f"{stem}.play.mp4.part"):  # a copy that is being made
        (store.clips / begun).write_bytes(b"half")
    takes.delete(scope, take_id)
    read_all(reader)
    assert not child.process.is_alive() and takes.latest(scope) == []
    assert list(store.evidence.iterdir()) == list(store.clips.iterdir()) == [] and files.to_go(HOUSE) == []


def test_a_reader_that_stops_gives_its_take_back_at_once(scope, student, store, children, short) -> None:
    first = Reader(store, children, most=1)
    take_id = queued(scope, student, store, short)
    under_way(first, take_id)
    first.stop()
    assert takes.take_record(scope, take_id).state == "queued"


def test_a_clip_that_takes_too_long_is_ended_with_its_reason(scope, student, store, children, short, monkeypatch) -> None:
    monkeypatch.setattr(reading, "READ_LIMITS", replace(reading.READ_LIMITS, wall_s=0.5))
    slow = Reader(store, children, most=1)
    take_id = queued(scope, student, store, short)
    read_all(slow)
    assert (takes.take_record(scope, take_id).state, takes.take_record(scope, take_id).reason_code) == ("failed", "too_costly")


def test_the_reader_lets_clips_go_whose_time_is_over_and_looks_again_later(scope, student, store, reader, short, monkeypatch) -> None:
    keeping.set_keep_days(scope, 7)
    first, later = (queued(scope, student, store, short) for _ in range(2))  # of one file, which both have
    readings.fail(HOUSE, first, readings.claim_next(HOUSE).token, code="too_dark")
    with database.db.connection_context():
        Take.update(made_at=database.now() - timedelta(days=8)).where(Take.id == first).execute()
        Take.update(state="failed").where(Take.id == later).execute()
    reader.step(wait_s=0.0)
    assert takes.take_record(scope, first).clip is None and takes.take_record(scope, later).clip is not None
    with database.db.connection_context():
        Take.update(made_at=database.now() - timedelta(days=8)).where(Take.id == later).execute()
    reader.step(wait_s=0.0)
    assert takes.take_record(scope, later).clip is not None, "not at every step"
    monkeypatch.setattr(reading, "KEEPING_EVERY_S", 0.0)
    reader._keeping_at = 0.0
    reader.step(wait_s=0.0)
    assert takes.take_record(scope, later).clip is None and not list(store.clips.iterdir())


def test_rules_changed_while_a_clip_is_read_are_those_it_is_judged_by(scope, student, store, reader, short) -> None:
    take_id = queued(scope, student, store, short, Check(card=parse("4-0-6@84x3"), position="seated"))
    under_way(reader, take_id)
    rulebook.change_rules(scope, {"off": ["abdomen_leads"]})
    read_all(reader)
    assert takes.take_record(scope, take_id).rules.off == {"abdomen_leads"} and not reports.verdicts(scope, criterion="abdomen_leads")
    assert document_of(scope, take_id)["position"] == "seated", "as the check says, though the player stands"


def test_the_demo_school_is_made_once_of_people_nobody_knows(store) -> None:
    assert demo.fill(store) and not demo.fill(store)
    [programme] = programmes.all_programmes(HOUSE)
    scope = Scope(programme.id)
    found = students.students(scope)
    assert len(found) == 24 and len({s.name for s in found}) == 24 and sum(s.may_film_until is None for s in found) == 2
    lesson = lessons.last_lesson(scope)
    assert len(lesson.seats) == len(demo.LESSON_ORDER) and {s.take.state for s in lesson.seats if s.take} == {"read"}
    assert readings.waiting(HOUSE) == 0 and len(list(store.evidence.glob("*.evidence"))) == len(demo.TAKES) + len(demo.EARLIER) + 1
    with database.db.connection_context():
        assert readings.usual_s(scope) == readings.USUAL_S, "nothing was looked at yet: how long it takes is not known"
    assert all(s.take.asked == s.asked for s in lesson.seats if s.take)
    assert programmes.memberships(HOUSE, programmes.sign_in(HOUSE, demo.LOGIN, demo.PASSWORD).id)[0].role == "owner"
    assert len(takes.latest(scope)) == len(demo.TAKES) + len(demo.EARLIER) + 1
    assert all(LetGo("clips", t.clip.stored_name) in files.owned(HOUSE) for t in takes.latest(scope))


def test_a_demo_clip_without_usable_evidence_waits_to_be_read_like_any_other(store, tmp_path, monkeypatch: pytest.MonkeyPatch) -> None:
    shutil.copytree(demo.CLIPS, tmp_path / "clips")
    monkeypatch.setattr(demo, "CLIPS", tmp_path / "clips")
    (tmp_path / "clips" / "front-flute-sags.evidence").unlink()
    (tmp_path / "clips" / "seated-low-then-wide.evidence").write_bytes(b"of another release")
    assert demo.fill(store)
    seats = lessons.last_lesson(Scope(programmes.all_programmes(HOUSE)[0].id)).seats
    assert {s.take.clip.original_name: s.take.state for s in seats if s.take} == {
        "seated-low-then-wide.mp4": "queued", "seated-chest-high.mp4": "read", "front-flute-sags.mp4": "queued", "standing-full-early.mp4": "read",
    }  # fmt: skip


@pytest.mark.parametrize("covered", [False, True])
def test_a_stop_in_the_middle_of_a_transaction_is_heard_though_the_database_goes_with_it(covered: bool, scope: Scope, monkeypatch: pytest.MonkeyPatch) -> None:
    told, steps = Told(), []

    def broken_off(self: Reader) -> None:
        steps.append(1)
        with database.db.connection_context(), database.db.atomic():
            if covered:
                database.db.connection().close()  # as the driver does whose wait is broken off: going back fails as well
            told(signal.SIGTERM, None)

    monkeypatch.setattr(Reader, "step", broken_off)
    reader = object.__new__(Reader)
    if covered:
        run(reader, told)
    else:
        with pytest.raises(Stop):
            run(reader, told)
    assert len(steps) == 1
