"""How a programme teaches, over the wire: what is judged from then on follows."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from itertools import pairwise

import pytest
from peewee import OperationalError

from brevin.core.evidence import unpacked
from brevin.core.plan.check import Check
from brevin.edge.clip_work import PRELOAD_READ
from brevin.edge.limited import Children
from brevin.jobs.judging import report_of
from brevin.jobs.reader import Reader
from brevin.ops.settings import Settings
from brevin.store import anew, readings, reports, rulebook, students, takes
from brevin.store.reading_records import Looked
from brevin.store.records import ClipRecord, TakeRecord
from brevin.store.scope import HOUSE, Scope
from tests.conftest import CHECK
from tests.sightings import CHECKS, kept_of


def test_the_five_questions_are_open_at_first_and_answers_are_kept(page, scope: Scope) -> None:
    first = page("GET", "/api/rules/method").json
    assert first["asked"] is False and first["answers"] == {} and [one["finer"] for one in first["questions"]] == [False] * 5 + [True] * 2
    assert first["shoulders_pct"] == {"milder": 2.25, "usual": 1.5, "stricter": 1.125}
    said = {"answers": {"breathing_in": "belly_only"}, "strictness": "milder"}
    assert page("PUT", "/api/rules/method", json=said).status_code == 200
    then = page("GET", "/api/rules/method").json
    assert then["asked"] and then["answers"] == said["answers"] and then["strictness"] == "milder"


def test_all_of_them_can_be_answered_at_once(page) -> None:
    usual = {one["question"]: one["usual"] for one in page("GET", "/api/rules/method").json["questions"]}
    assert page("PUT", "/api/rules/method", json={"answers": usual}).status_code == 200
    assert page("GET", "/api/rules/method").json["answers"] == usual


def test_which_fault_is_spoken_of_first_is_changed_kept_and_told(page, scope: Scope, student) -> None:
    assert page("GET", "/api/rules/method").json["order"] == ["seat", "breath", "hold", "count"]
    other = ["breath", "seat", "hold", "count"]
    assert page("PUT", "/api/rules/method", json={"answers": {}, "order": other}).status_code == 200
    assert page("PUT", "/api/rules/method", json={"answers": {"tongue": "at_once"}}).status_code == 200
    assert page("GET", "/api/rules/method").json["order"] == other, "who says nothing of it leaves it as it is"
    rules = rulebook.rules_for(scope, students.student(scope, student.id), Check())
    assert list(rules.order) == other
    told = [said for one in page("GET", "/api/rules/lines/changes").json["changes"] for said in one["what"]]
    assert "order: seat, breath, hold, count to breath, seat, hold, count" in told
    for wrong in (["breath"], ["breath", "breath", "hold", "count"], ["feet", "seat", "hold", "count"]):
        assert page("PUT", "/api/rules/method", json={"answers": {}, "order": wrong}).status_code == 422


def test_what_is_judged_afterwards_follows_the_method(page, scope: Scope, student) -> None:
    before = rulebook.rules_for(scope, students.student(scope, student.id), Check())
    page("PUT", "/api/rules/method", json={"answers": {"breathing_out": "small_pushes"}})
    after = rulebook.rules_for(scope, students.student(scope, student.id), Check())
    assert after.off == before.off | {"even_exhale"} and after.thresholds_id != before.thresholds_id


def test_many_who_change_how_one_teaches_at_once_are_all_on_record(scope: Scope) -> None:
    def teach(i: int) -> None:
        rulebook.teach(scope, {"strictness": ("milder", "stricter")[i % 2], "answers": {"tongue": ("at_once", "air_first")[i // 2 % 2]}})
        rulebook.change_rules(scope, {"limits": {"pause.steady_s": 0.3 + 0.01 * i}})

    with ThreadPoolExecutor(6) as hands:
        list(hands.map(teach, range(24)))
    kept = rulebook.changes(scope)
    assert len([one for one in kept if one.what == "limits"]) == 24
    each = sorted((one for one in kept if one.what == "limits"), key=lambda one: one.made_at)
    assert all(then.before == first.after for first, then in pairwise(each)), "none was made over another's head"


def test_a_change_that_the_database_ended_for_another_s_sake_is_made_all_the_same(page, monkeypatch) -> None:
    ended = [OperationalError(1213, "Deadlock found")] * 2
    teach = rulebook.teach

    def taught(*args) -> None:
        if ended:
            raise ended.pop()
        teach(*args)

    monkeypatch.setattr(rulebook, "teach", taught)
    assert page("PUT", "/api/rules/method", json={"answers": {"tongue": "at_once"}}).status_code == 200
    assert page("GET", "/api/rules/method").json["answers"] == {"tongue": "at_once"}
    ended.extend([OperationalError(1213, "Deadlock found")] * 9)
    assert page("PUT", "/api/rules/method", json={"answers": {}}).status_code == 500, "not for ever"
    ended[:] = [OperationalError(1146, "no such table")]
    assert page("PUT", "/api/rules/method", json={"answers": {}}).status_code == 500, "and nothing else"


def test_two_who_answer_different_questions_at_once_are_both_heard(scope: Scope) -> None:
    said = [
        {"answers": {"tongue": "at_once"}},
        {"answers": {"practice": "now_and_then"}},
        {"strictness": "milder"},
        {"order": ["breath", "seat", "hold", "count"]},
    ]
    with ThreadPoolExecutor(4) as hands:
        list(hands.map(lambda one: rulebook.teach(scope, one), said))
    found = rulebook.method(scope)
    assert (found.answers, found.strictness, found.order[0]) == ({"tongue": "at_once", "practice": "now_and_then"}, "milder", "breath")


def test_an_answer_that_is_none_changes_nothing(page) -> None:
    for body in ({"answers": {"tongue": "never"}}, {"answers": {"posture": "x"}}, {"answers": {}, "strictness": "harsh"}, {}):
        assert page("PUT", "/api/rules/method", json=body).status_code == 422
    assert page("GET", "/api/rules/method").json["asked"] is False


def already_read(scope: Scope, student, store: Settings, name: str, number: int) -> TakeRecord:
    """A take of a demo clip whose evidence is kept and judged."""
    check = replace(CHECKS[name], instrument=CHECK.instrument)
    made = takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=ClipRecord(f"{number:032}.mp4", f"{name}.mp4", "0" * 64, 1))
    content = kept_of(name)
    (store.evidence / f"{made.id}.evidence").write_bytes(content)
    held = readings.claim_next(HOUSE)
    report = report_of(scope, held.take, unpacked(content), rules=held.take.rules, edits=held.take.edits)
    assert readings.finish(HOUSE, made.id, held.token, Looked(f"{made.id}.evidence", ("x.mp4", "video/mp4"), report, held.take.rules))
    return takes.take_record(scope, made.id)


@pytest.fixture
def stored(scope: Scope, student, store: Settings) -> dict[str, TakeRecord]:
    """Three takes from the side that were read."""
    names = ("standing-full-early", "seated-low-then-wide", "seated-chest-high")
    return {name: already_read(scope, student, store, name, number) for number, name in enumerate(names)}


def judge_what_is_due(store: Settings) -> None:
    """As the reader does it between clips."""
    between = Reader(store, Children(PRELOAD_READ), most=0)
    for _ in range(20):
        if anew.next_to_judge(HOUSE) is None:
            return
        between.step(wait_s=0.0)
    raise AssertionError("there is always one more")


def way(preview: dict, **asked) -> dict:
    return next(one for one in preview["ways"] if all(one[key] == value for key, value in asked.items()))


def state_of(scope: Scope, take: TakeRecord, criterion: str) -> str:
    return next(r.state for r in reports.verdicts(scope, criterion=criterion) if r.take_id == take.id)


def test_a_preview_names_the_takes_another_school_would_change_and_changes_nothing(page, scope, stored) -> None:
    preview = page("GET", "/api/rules/method/preview").json
    assert (preview["takes"], preview["overruled"]) == (3, 0)
    belly = way(preview, question="breathing_in", school="belly_only")
    assert {one["take_id"] for one in belly["changed"]} == {stored["standing-full-early"].id, stored["seated-low-then-wide"].id} and belly["count"] == 2
    [flip] = belly["changed"][0]["flips"]
    assert (flip["criterion"], flip["before"], flip["after"]) == ("abdomen_leads", "steady", "watch") and 0.5 < flip["value"] < 0.75
    assert way(preview, question="tongue")["count"] == 0 and not [one for one in preview["ways"] if one["school"] == "belly_then_ribs"]
    assert state_of(scope, stored["standing-full-early"], "abdomen_leads") == "steady" and page("GET", "/api/rules/method").json["asked"] is False


def test_another_school_judges_anew_exactly_the_takes_its_preview_named(page, scope, stored, store) -> None:
    page("PUT", "/api/rules/method", json={"answers": {"breathing_in": "belly_only"}})
    judge_what_is_due(store)
    assert [reports.newest(scope, stored[name].id).version for name in stored] == [2, 2, 1]
    assert state_of(scope, stored["standing-full-early"], "abdomen_leads") == "watch"
    page("PUT", "/api/rules/method", json={"answers": {"breathing_in": "belly_then_ribs"}})
    judge_what_is_due(store)
    assert state_of(scope, stored["standing-full-early"], "abdomen_leads") == "steady"


def test_an_overruled_verdict_stays_the_teachers(page, scope, stored, store) -> None:
    take = stored["standing-full-early"]
    reports.overrule(scope, take, criterion="abdomen_leads", state="steady", reason="seen in the room")
    preview = page("GET", "/api/rules/method/preview").json
    assert preview["overruled"] == 1 and way(preview, school="belly_only")["count"] == 1
    page("PUT", "/api/rules/method", json={"answers": {"breathing_in": "belly_only"}})
    judge_what_is_due(store)
    assert reports.newest(scope, take.id).version == 1


def test_a_take_whose_evidence_is_gone_stays_as_it_was_judged(page, scope, stored, store) -> None:
    take = stored["standing-full-early"]
    (store.evidence / take.evidence_name).unlink()
    page("PUT", "/api/rules/method", json={"answers": {"breathing_in": "belly_only"}})
    judge_what_is_due(store)
    assert anew.next_to_judge(HOUSE) is None and state_of(scope, take, "abdomen_leads") == "steady"


def test_a_line_is_drawn_by_example_used_and_kept_with_who_drew_it(page, scope, stored, store) -> None:
    shown = page("GET", "/api/rules/lines?criterion=abdomen_leads").json
    assert shown["now"] == 0.5 and shown["fine"] == "above" and len(shown["examples"]) == 3
    numbers = [one["value"] for one in shown["examples"]]
    assert numbers == sorted(numbers) and [one["fine"] for one in shown["examples"]] == [False, True, True]
    assert all(one["abdomen"] is not None for one in shown["examples"])
    said = [{"take_id": one["take_id"], "value": one["value"], "fine": i == 2} for i, one in enumerate(shown["examples"])]
    line = page("POST", "/api/rules/lines", json={"criterion": "abdomen_leads", "examples": said}).json
    assert line["agrees"] == 3 and line["agrees_now"] == 2 and line["misjudged"] == [] and line["takes"] == 3
    assert numbers[1] < line["value"] <= numbers[2] and line["count"] == len(line["changed"]) > 0
    assert page("PUT", "/api/rules/lines", json={"criterion": "abdomen_leads", "value": line["value"]}).status_code == 200
    judge_what_is_due(store)
    assert state_of(scope, takes.take_record(scope, line["changed"][0]["take_id"]), "abdomen_leads") != "steady"
    assert page("GET", "/api/rules/lines?criterion=abdomen_leads").json["now"] == line["value"]
    [change] = page("GET", "/api/rules/lines/changes").json["changes"]
    assert change["by"] == "Ida Owner" and change["what"] == [f"abdomen_leads.steady: as usual to {line['value']}"]


def test_a_line_needs_both_sides_and_a_criterion_that_ends_at_one(page, stored) -> None:
    alike = [{"take_id": "a", "value": 0.4, "fine": True}, {"take_id": "b", "value": 0.6, "fine": True}]
    refused = page("POST", "/api/rules/lines", json={"criterion": "abdomen_leads", "examples": alike})
    assert refused.status_code == 422 and "one take up and one down" in refused.json["message"]
    for sent in ({"criterion": "pause", "value": 0.4}, {"criterion": "abdomen_leads", "value": -1}, {"criterion": "none", "value": 1}, {}):
        assert page("PUT", "/api/rules/lines", json=sent).status_code == 422
    assert page("GET", "/api/rules/lines?criterion=pause").status_code == 422
    for value in (float("nan"), float("inf"), -1.0):
        sent = {"criterion": "abdomen_leads", "examples": [{"take_id": "a", "value": value, "fine": True}, {"take_id": "b", "value": 0.2, "fine": False}]}
        assert page("POST", "/api/rules/lines", json=sent).status_code == 422, value
    assert page("GET", "/api/rules/lines/changes").json["changes"] == []


def test_the_same_said_again_is_no_change(page, scope: Scope) -> None:
    for _ in range(2):
        page("PUT", "/api/rules/method", json={"answers": {"tongue": "at_once"}, "strictness": "milder"})
    [change] = rulebook.changes(scope)
    assert change.what == "method" and change.after["strictness"] == "milder"
    said = page("GET", "/api/rules/lines/changes").json["changes"][0]["what"]
    assert sorted(said) == ["strictness: usual to milder", "tongue: as usual to at_once"]


def test_a_reading_by_an_older_release_is_judged_once_more_to_be_tried(as_root, scope, stored) -> None:
    from brevin.store.database import db, migrate
    from brevin.store.models import Report

    with db.connection_context():
        Report.update(ground=None).execute()
        db.execute_sql("DELETE FROM schema_migration")
    migrate()
    assert anew.next_to_judge(HOUSE) is not None


def test_a_line_set_by_hand_over_the_wire_judges_the_hold_anew_and_is_taken_back(page, scope, stored) -> None:
    take = stored["standing-full-early"]
    read = page("GET", f"/api/takes/{take.id}/report").json
    x, y = read["hold"]["axis_px"][:2] if read["hold"] and read["hold"]["axis_px"] else (500.0, 150.0)
    ahead = 1.0 if read["player"]["forward"][0] > 0 else -1.0
    line = {"t_s": read["breaths"][0]["inhale_start_s"], "near_px": [x, y], "far_px": [x + ahead * 100.0, y + 100.0]}
    answered = page("PUT", f"/api/takes/{take.id}/edits", json={"line": line})
    assert answered.status_code == 200
    edited = page("GET", f"/api/takes/{take.id}/report").json
    assert edited["edits"]["line"] == line and (edited["hold"] is None or edited["hold"]["instrument_axis_deg"]["value"] == pytest.approx(45.0, abs=1.0))
    for bad in (
        {"t_s": 3.0, "near_px": [x, y], "far_px": [x + 1, y]},
        {"t_s": 3.0, "near_px": [x], "far_px": [x, y]},
        {"t_s": -1, "near_px": [x, y], "far_px": [0, 0]},
    ):
        refused = page("PUT", f"/api/takes/{take.id}/edits", json={"line": bad})
        assert refused.status_code == 422
    assert page("GET", f"/api/takes/{take.id}/report").json["edits"]["line"] == line, "what was refused changed nothing"
    assert page("PUT", f"/api/takes/{take.id}/edits", json={}).status_code == 200
    again = page("GET", f"/api/takes/{take.id}/report").json
    assert again["edits"]["line"] is None and (again["hold"] or {}).get("instrument_axis_deg") == (read["hold"] or {}).get("instrument_axis_deg")
