"""What is asked for twice under one name, since the answer was lost, is done once."""

import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from itertools import count

import pytest
from flask import Flask, Response, session

from brevin.web import once
from brevin.web.once import HEADER, Asked, Once
from brevin.web.problems import Refused
from tests.web.conftest import signed_in
from tests.web.test_cards import CARD, ladder
from tests.web.test_takes import send

ASKED = Asked(1, 1, "/api/cards?", "first press")


@pytest.fixture
def asking(shared_app: Flask) -> Iterator[None]:
    """Inside of a request."""
    with shared_app.test_request_context():
        yield


def numbered():
    """Answers 1, 2, 3 … as often as it is really done."""
    numbers = count(1)
    return lambda: Response(str(next(numbers)), 201, mimetype="text/plain")


def test_a_change_that_is_sent_again_under_its_name_is_there_once_with_the_same_answer(page, app, scope) -> None:
    before = len(ladder(page))
    named = {"json": CARD, "headers": {HEADER: "one press"}}
    first, again = page("POST", "/api/cards", **named), page("POST", "/api/cards", **named)
    assert (first.status_code, first.json, first.mimetype) == (again.status_code, again.json, again.mimetype) and first.status_code == 201
    assert "no-store" in again.headers["Cache-Control"]
    assert len(ladder(page)) == before + 1
    page("POST", "/api/cards", json=CARD, headers={HEADER: "another press"})
    page("POST", "/api/cards", json=CARD)
    assert len(ladder(page)) == before + 3, "meant anew"
    assert signed_in(app, scope, "teacher")("POST", "/api/cards", **named).json["id"] != first.json["id"], "a name is its person's own"


def test_a_clip_that_is_sent_again_under_its_name_is_one_take(page, scope, student) -> None:
    first, again = (send(page, student, headers={HEADER: "one drop"}) for _ in range(2))
    assert first.status_code == again.status_code == 201 and first.json == again.json
    assert [one["id"] for one in page("GET", "/api/takes").json["takes"]] == [first.json["id"]]


def test_what_was_refused_may_be_asked_for_again_under_its_name(page) -> None:
    named = {"headers": {HEADER: "one press"}}
    longest = CARD | {"card": "3-0-6@76x99"}
    assert page("POST", "/api/cards", json=longest, **named).status_code == page("POST", "/api/cards", json=longest, **named).status_code == 422
    assert page("POST", "/api/cards", json=CARD, **named).status_code == 201


def test_a_link_that_is_shown_once_is_kept_nowhere(page) -> None:
    asked = {"json": {"name": "Nia N", "role": "assistant"}, "headers": {HEADER: "one press"}}
    links = {page("POST", "/api/invitations", **asked).json["link"] for _ in range(2)}
    assert len(links) == 2


def test_nobody_is_signed_in_by_an_answer_that_was_kept(app, door) -> None:
    asked = {"json": {"login": "owner", "password": "far-from-guessed"}, "headers": {HEADER: "one press"}}
    assert door("POST", "/api/sign-in", **asked).status_code == 403
    assert app.test_client().get("/api/today", headers=asked["headers"]).status_code == 401


def test_who_asks_while_the_first_is_still_at_it_waits_for_its_answer(shared_app, monkeypatch) -> None:
    kept, began, go_on, do = Once(), threading.Event(), threading.Event(), numbered()

    def slowly() -> Response:
        began.set()
        assert go_on.wait(10)
        return do()

    def ask(how) -> bytes:
        with shared_app.test_request_context():
            answer = kept.answered(ASKED, how)
            assert isinstance(answer, Response)
            return answer.get_data()

    with ThreadPoolExecutor(2) as threads:
        first = threads.submit(ask, slowly)
        assert began.wait(10)
        with monkeypatch.context() as patched:
            patched.setattr(once, "UNDER_WAY_S", 0.05)
            with shared_app.test_request_context(), pytest.raises(Refused, match="under_way"):
                kept.answered(ASKED, do)
        second = threads.submit(ask, do)
        go_on.set()
        assert (first.result(10), second.result(10)) == (b"1", b"1")


def test_where_the_first_went_wrong_the_second_does_it(asking) -> None:
    kept, do = Once(), numbered()

    def broken() -> Response:
        raise ConnectionError

    for _ in range(2):
        with pytest.raises(ConnectionError):
            kept.answered(ASKED, broken)
    assert [kept.answered(ASKED, do).get_data() for _ in range(2)] == [b"1", b"1"]


def test_what_signs_in_or_is_too_large_is_not_kept(asking) -> None:
    kept, do = Once(), numbered()

    def enters() -> Response:
        session["entered"] = True
        return do()

    assert [kept.answered(ASKED, enters).get_data() for _ in range(2)] == [b"1", b"2"]
    session.modified = False
    large = [kept.answered(ASKED, lambda: Response("x" * (once.MOST_BYTES + 1))) for _ in range(2)]
    assert large[0] is not large[1]
    assert kept.answered(ASKED, do).get_data() == b"3"


def test_the_oldest_are_forgotten_and_all_after_their_time(asking, monkeypatch) -> None:
    monkeypatch.setattr(once, "MOST_KEPT", 2)
    kept, do = Once(), numbered()
    names = [ASKED._replace(name=name) for name in ("a", "b", "c")]
    assert [kept.answered(one, do).get_data() for one in (*names, names[2], names[0])] == [b"1", b"2", b"3", b"3", b"4"]
    monkeypatch.setattr(once, "KEPT_S", 0.0)
    assert kept.answered(names[0], do).get_data() == b"5"
