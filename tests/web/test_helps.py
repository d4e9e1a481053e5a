"""What helps with a fault over the wire, and what fits a student: kept, shown again, taken back, and nobody else's."""

import pytest

from brevin.core.verdict.help import HELP, PARTS
from brevin.ops.settings import Settings
from brevin.store import instruments, programmes, students
from brevin.store.records import ClipRecord, StudentRecord, TakeRecord
from brevin.store.scope import HOUSE, Scope
from tests.store.test_takes import new_take
from tests.web.conftest import Page, signed_in


@pytest.fixture
def take(scope: Scope, student: StudentRecord, clip: ClipRecord) -> TakeRecord:
    return new_take(scope, student, clip)


def fits(page: Page, student: StudentRecord) -> list[dict]:
    return page("GET", f"/api/students/{student.id}/fits").json["fits"]


def keep(page: Page, student: StudentRecord, key: str, value: float | None):
    return page("PUT", f"/api/students/{student.id}/fits", json={"key": key, "value": value})


def test_the_equipment_comes_first_with_what_fitted_then_one_drill_then_what_to_look_at_again(page: Page, student, take) -> None:
    assert keep(page, student, "fit.chair", 43).status_code == 200
    helps = page("GET", f"/api/takes/{take.id}/help?criterion=trunk_inclination&side=low").json
    assert helps["fault"] == "leans back" and helps["again"] == "Stays tall"
    chair = next(one for one in helps["parts"] if one["key"] == "fit.chair")
    assert (chair["title"], chair["value"], chair["by"], chair["fit"]["unit"]) == ("Chair", 43.0, "Ida Owner", "cm") and chair["kept_at"] is not None
    assert helps["drill"] == {"title": "Stand up, sit down", "words": HELP["trunk_inclination"].drill.words, "times": 3}
    counted = page("GET", f"/api/takes/{take.id}/help?criterion=pause").json
    assert counted["parts"] == [] and counted["drill"]["title"] == "Flat eight"


def test_what_fits_is_changed_taken_back_and_told_in_order(page: Page, student) -> None:
    assert fits(page, student) == []
    for key, value in (("fit.stand", 96), ("fit.chair", 40), ("fit.chair", 41)):
        assert keep(page, student, key, value).status_code == 200
    assert fits(page, student) == [
        {"key": "fit.chair", "title": "Chair", "value": 41.0, "unit": "cm"}, {"key": "fit.stand", "title": "Music stand", "value": 96.0, "unit": "cm"},
    ]  # fmt: skip
    assert keep(page, student, "fit.chair", None).status_code == 200
    assert [one["key"] for one in fits(page, student)] == ["fit.stand"]


@pytest.mark.parametrize(("key", "value"), [("fit.chair", 12), ("fit.chair", 900), ("fit.room", 3), ("fit.moon", 3), ("reed_tip_mm", 0.3)])
def test_what_cannot_fit_is_refused_and_changes_nothing(page: Page, student, key, value) -> None:
    keep(page, student, "fit.chair", 41)
    refused = keep(page, student, key, value)
    assert refused.status_code == 422
    if key == "fit.chair":
        assert refused.json["message"] == "Chair can be kept from 25 to 55 cm."
    assert [one["value"] for one in fits(page, student)] == [41.0]


def test_no_number_and_no_criterion_are_refused(page: Page, student, take) -> None:
    for value in ("NaN", "Infinity"):
        body = f'{{"key": "fit.chair", "value": {value}}}'
        assert page("PUT", f"/api/students/{student.id}/fits", data=body, headers={"Content-Type": "application/json"}).status_code == 422
    assert page("GET", f"/api/takes/{take.id}/help?criterion=all").status_code == 422
    assert page("GET", f"/api/takes/{take.id}/help").status_code == 422


def test_what_fits_belongs_to_one_programme_and_an_assistant_may_keep_it(app, page: Page, scope: Scope, student, take) -> None:
    assistant = signed_in(app, scope, "assistant")
    assert keep(assistant, student, "fit.chair", 44).status_code == 200 and fits(page, student)[0]["value"] == 44.0
    other = Scope(programmes.add_programme(HOUSE, name="Another house").id)
    stranger = signed_in(app, other, "owner")
    assert stranger("GET", f"/api/students/{student.id}/fits").status_code == 404 and keep(stranger, student, "fit.chair", 30).status_code == 404
    assert stranger("GET", f"/api/takes/{take.id}/help?criterion=pause").status_code == 404
    assert fits(page, student)[0]["value"] == 44.0


def test_the_bench_record_names_it_and_the_passport_keeps_to_the_card_s_own_values(page: Page, scope: Scope, student) -> None:
    keep(page, student, "fit.chair", 41)
    instruments.keep_value(scope, student.id, "reed_tip_mm", 0.3)
    lines = page("GET", f"/api/bench/record/students/{student.id}").json["lines"]
    assert ("value", "Chair", "41 cm") in {(one["what"], one["which"], one["how"]) for one in lines}
    assert page("GET", f"/api/bench/care/passports/{student.id}").json["values"] == {"reed_tip_mm": 0.3}


def test_what_fits_goes_with_the_student(store: Settings, page: Page, scope: Scope, student) -> None:
    keep(page, student, "fit.stand", 96)
    assert page("POST", "/api/class/changes", json={"drop": [student.id]}).status_code == 200
    assert student.id not in {one.id for one in students.students(scope)} and instruments.values(scope, [student.id]) == []
    assert "fit.stand" in PARTS
