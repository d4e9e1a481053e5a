"""How a programme teaches, over the wire: what is judged from then on follows."""

from brevin.store import rulebook, students
from brevin.store.scope import Scope


def test_the_five_questions_are_open_at_first_and_answers_are_kept(page, scope: Scope) -> None:
    first = page("GET", "/api/rules/method").json
    assert first["asked"] is False and first["answers"] == {} and len(first["questions"]) == 5
    assert first["shoulders_pct"] == {"milder": 2.25, "usual": 1.5, "stricter": 1.125}
    said = {"answers": {"breathing_in": "belly_only"}, "strictness": "milder"}
    assert page("PUT", "/api/rules/method", json=said).status_code == 200
    then = page("GET", "/api/rules/method").json
    assert then["asked"] and then["answers"] == said["answers"] and then["strictness"] == "milder"


def test_what_is_judged_afterwards_follows_the_method(page, scope: Scope, student) -> None:
    before = rulebook.rules_for(scope, students.student(scope, student.id), instrument="none", card_rules={})
    page("PUT", "/api/rules/method", json={"answers": {"breathing_out": "small_pushes"}})
    after = rulebook.rules_for(scope, students.student(scope, student.id), instrument="none", card_rules={})
    assert after.off == before.off | {"even_exhale"} and after.thresholds_id != before.thresholds_id


def test_an_answer_that_is_none_changes_nothing(page) -> None:
    for body in ({"answers": {"tongue": "never"}}, {"answers": {"posture": "x"}}, {"answers": {}, "strictness": "harsh"}, {}):
        assert page("PUT", "/api/rules/method", json=body).status_code == 422
    assert page("GET", "/api/rules/method").json["asked"] is False
