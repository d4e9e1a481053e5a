"""What a teacher draws on a clip, over the wire."""

import pytest

from brevin.store import changes, drawings, students, takes
from brevin.store.said_models import DrawingRow
from brevin.store.scope import Scope
from tests.conftest import consent
from tests.store.test_takes import new_take

CIRCLE = {"shape": "circle", "t_s": 4.25, "at_px": [300.0, 200.5], "to_px": [340.0, 200.5], "words": ""}


@pytest.fixture
def take(scope: Scope, student, clip):
    """A clarinet's take."""
    return new_take(scope, student, clip)


def drawn(page, take) -> list[dict]:
    return page("GET", f"/api/takes/{take.id}/drawings").json["drawings"]


def test_what_is_drawn_is_there_in_the_order_of_the_clip_and_rubbed_out_again(page, take) -> None:
    assert drawn(page, take) == []
    later = page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE).json["id"]
    note = CIRCLE | {"shape": "note", "t_s": 1.0, "words": "  look   at this\nwrist "}
    sooner = page("POST", f"/api/takes/{take.id}/drawings", json=note).json["id"]
    assert drawn(page, take) == [note | {"id": sooner, "words": "look at this wrist"}, CIRCLE | {"id": later}]
    for _ in range(2):
        assert page("DELETE", f"/api/takes/{take.id}/drawings/{later}").status_code == 200
    assert [one["id"] for one in drawn(page, take)] == [sooner]


def test_other_open_pages_are_told_of_what_is_drawn_and_of_what_is_rubbed_out(page, scope: Scope, take) -> None:
    before = changes.last(scope)
    made = page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE).json["id"]
    page("DELETE", f"/api/takes/{take.id}/drawings/{made}")
    assert [(one.kind, one.ref) for one in changes.after(scope, before)] == [("said", take.id)] * 2


@pytest.mark.parametrize(
    "wrong",
    [
        {"shape": "star"}, {"t_s": -1.0}, {"t_s": float("nan")}, {"at_px": [1.0]}, {"to_px": [1.0, 99999.0]}, {"words": "x" * 161},
        {"shape": "note", "words": "  "},
    ],
)  # fmt: skip
def test_what_cannot_be_drawn_is_refused_and_nothing_is_kept(page, take, wrong: dict) -> None:
    assert page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE | wrong).status_code == 422
    assert drawn(page, take) == []


def test_a_clip_holds_so_many_drawings_and_says_so(page, scope: Scope, take) -> None:
    for i in range(drawings.MOST):
        drawings.draw(scope, take, drawings.Drawn("arrow", float(i), (1.0, 1.0), (5.0, 5.0)))
    refused = page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE)
    assert refused.status_code == 422 and str(drawings.MOST) in refused.json["message"]


def test_drawings_go_with_the_take_to_another_student_and_away_with_it(page, scope: Scope, take) -> None:
    page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE)
    other = students.add_student(scope, name="Ilse Varga", instrument="clarinet")
    consent(scope, other.id)
    takes.move(scope, take.id, other.id)
    assert [row.student_id for row in DrawingRow.select()] == [other.id] and len(drawn(page, take)) == 1
    takes.delete(scope, take.id)
    assert DrawingRow.select().count() == 0
    assert page("POST", f"/api/takes/{take.id}/drawings", json=CIRCLE).status_code == 404
