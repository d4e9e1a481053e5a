"""The pieces of a clip that is being filmed: in order, on loan, and gone with the consent."""

import uuid

import pytest

from brevin.edge.growing import growing
from brevin.store import lessons, readings, students, takes
from brevin.store.records import NoConsent
from brevin.web import filming
from tests.conftest import DEMO_CLIP
from tests.store.test_takes import lesson_of
from tests.web.test_takes import send

CLIP = DEMO_CLIP.read_bytes()
THIRD = len(CLIP) // 3 + 1


@pytest.fixture
def seat(scope, student, store):
    lesson_of(scope, student.id)
    for left in growing(store.filming):
        left.drop()
    return lessons.last_lesson(scope).seats[0]


@pytest.fixture
def key() -> str:
    return str(uuid.uuid4())


def piece(page, seat, key: str, at: int, content: bytes, **query):
    asked = {"student_id": seat.student.id, "seat_id": seat.id, "at": at} | query
    return page("POST", f"/api/filming/{key}", query_string=asked, data=content, headers={"Content-Type": "application/octet-stream"})


def all_pieces(page, seat, key: str) -> None:
    for at in range(0, len(CLIP), THIRD):
        answer = piece(page, seat, key, at, CLIP[at : at + THIRD])
        assert (answer.status_code, answer.json["size_bytes"]) == (200, min(at + THIRD, len(CLIP)))


def test_a_clip_that_came_in_pieces_becomes_its_take_without_being_sent_again(page, scope, student, seat, store, key) -> None:
    all_pieces(page, seat, key)
    [one] = growing(store.filming, programme_id=scope.programme, student_id=student.id, key=key)
    assert (one.path.read_bytes(), one.view) == (CLIP, "auto")
    answer = send(page, student, b"", sent_as=key, came_bytes=len(CLIP))
    record = takes.take_record(scope, answer.json["id"])
    assert answer.status_code == 201 and record.sent_as == key and (store.clips / record.clip.stored_name).read_bytes() == CLIP
    assert one.whole() == store.clips / record.clip.stored_name, "whoever looks at it goes on with the take's own clip"
    assert send(page, student, b"", sent_as=key, came_bytes=len(CLIP)).json["id"] == record.id and readings.waiting(scope) == 1


def test_a_piece_out_of_place_is_refused_and_the_clip_is_sent_whole(page, scope, student, seat, store, key) -> None:
    assert piece(page, seat, key, 0, CLIP[:THIRD]).status_code == 200
    for at in (0, THIRD - 1, 2 * THIRD):
        assert piece(page, seat, key, at, b"more").json["code"] == "piece_misplaced", at
    assert piece(page, seat, str(uuid.uuid4()), 5, b"more").json["code"] == "piece_misplaced", "of nothing that began"
    answer = send(page, student, b"", sent_as=key, came_bytes=len(CLIP))
    assert (answer.status_code, answer.json["code"]) == (409, "piece_misplaced") and takes.latest(scope) == []
    assert growing(store.filming) == [] and send(page, student, sent_as=key).status_code == 201


def test_one_sent_whole_after_all_leaves_no_pieces(page, scope, student, seat, store, key) -> None:
    all_pieces(page, seat, key)
    assert send(page, student, sent_as=key).status_code == 201 and growing(store.filming) == []


def test_pieces_that_are_no_clip_are_refused_like_any_file(page, scope, student, seat, store, key) -> None:
    assert piece(page, seat, key, 0, b"dear teacher").status_code == 200
    answer = send(page, student, b"", sent_as=key, came_bytes=len(b"dear teacher"))
    assert (answer.status_code, answer.json["code"]) == (422, "not_a_video")
    assert growing(store.filming) == [] and [t.reason_code for t in takes.latest(scope)] == ["not_a_video"]


def test_a_consent_that_ends_while_filming_deletes_what_came(page, scope, student, seat, store, key) -> None:
    assert piece(page, seat, key, 0, CLIP[:THIRD]).status_code == 200
    page("DELETE", f"/api/students/{student.id}/consent", query_string={"purpose": "filming"})
    assert growing(store.filming) == [], "at once, not with the next piece"
    [kept] = [piece(page, seat, key, 0, CLIP[:THIRD])]
    assert (kept.status_code, kept.json["code"]) == (409, "no_consent") and growing(store.filming) == []


def test_a_piece_for_a_child_whose_consent_ran_out_deletes_what_came_before(page, scope, student, seat, store, key) -> None:
    assert piece(page, seat, key, 0, CLIP[:THIRD]).status_code == 200
    students.withdraw_consent(scope, student.id)
    assert piece(page, seat, key, THIRD, CLIP[THIRD : 2 * THIRD]).json["code"] == "no_consent" and growing(store.filming) == []


def test_a_lost_count_deletes_what_came(page, seat, store, key) -> None:
    all_pieces(page, seat, key)
    assert page("DELETE", f"/api/filming/{key}").status_code == 200 and growing(store.filming) == []
    assert page("DELETE", f"/api/filming/{key}").status_code == 404


def test_what_comes_is_bounded(page, seat, store, key, monkeypatch) -> None:
    monkeypatch.setattr(filming, "MOST_PIECE_BYTES", 100)
    assert piece(page, seat, key, 0, bytes(101)).status_code == 413
    assert piece(page, seat, key, 10**9, bytes(10)).status_code == 409
    for _ in range(filming.MOST_AT_ONCE):
        assert piece(page, seat, str(uuid.uuid4()), 0, bytes(10)).status_code == 200
    assert piece(page, seat, str(uuid.uuid4()), 0, bytes(10)).json["code"] == "piece_misplaced"
    assert piece(page, seat, "../../secrets", 0, bytes(10)).status_code in (404, 405) and piece(page, seat, "x" * 36, 0, b"a").status_code == 422
    assert not list(store.data.glob("*.growing"))


def test_a_take_that_cannot_be_made_leaves_neither_pieces_nor_a_clip(page, scope, student, seat, store, key, monkeypatch) -> None:
    all_pieces(page, seat, key)

    def away(*_: object, **__: object) -> None:
        raise NoConsent("filming")

    monkeypatch.setattr(takes, "add", away)
    assert send(page, student, b"", sent_as=key, came_bytes=len(CLIP)).json["code"] == "no_consent"
    assert growing(store.filming) == [] and list(store.clips.iterdir()) == []
    assert piece(page, seat, key, 0, CLIP[:THIRD], set_number=5).status_code == 422, "a set that the card does not have"
