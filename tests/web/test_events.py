"""What open pages are told, and by whom they are not heard."""

import itertools
import json
import queue
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor

import pytest

from brevin.store import benches, cards, chairs, changes, database, keeping, lessons, programmes, readings, rulebook, takes
from brevin.store.records import ChangeRecord, ClipRecord, StudentRecord
from brevin.store.scope import HOUSE, Scope
from brevin.web import feed as feeding
from brevin.web.feed import Feed, Listening, TooMany
from tests.conftest import CHECK
from tests.store.test_takes import lesson_of, new_take
from tests.web.conftest import signed_in


@pytest.fixture
def listening(monkeypatch) -> Iterator[Callable[[Listening], "queue.Queue[dict]"]]:
    """Lines as they come, heartbeats left out, until the test ends."""
    monkeypatch.setattr(feeding, "HEARTBEAT_S", 0.1)
    over, threads = threading.Event(), []

    def listen(lines: Listening) -> "queue.Queue[dict]":
        heard: queue.Queue[dict] = queue.Queue()

        def hear() -> None:
            for line in lines:
                if over.is_set():
                    lines.close()
                    return
                if line:
                    heard.put(line)

        threads.append(threading.Thread(target=hear, daemon=True))
        threads[-1].start()
        assert heard.get(timeout=5) == {"kind": "all"}, "a page that has just begun to listen looks at everything"
        return heard

    yield listen
    over.set()
    for thread in threads:
        thread.join(5)


def looks_for_changes() -> bool:
    return any(thread.name == "feed" for thread in threading.enumerate())


def test_progress_and_new_readings_are_told_to_the_programme_alone(listening, scope: Scope, student, clip) -> None:
    stranger = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    feed = Feed()
    own, theirs = listening(feed.listen(scope.programme)), listening(feed.listen(stranger.programme))
    take = new_take(scope, student, clip)
    assert own.get(timeout=5) | {"stage": ""} == {"kind": "take", "id": take.id, "state": "queued", "stage": "", "progress": 0.0, "report_version": 0}
    held = readings.claim_next(HOUSE)
    readings.report_progress(HOUSE, take.id, held.token, stage="watching", progress=0.5)
    told = [own.get(timeout=5)]
    while told[-1]["progress"] != 0.5:
        told.append(own.get(timeout=5))
    assert (told[-1]["state"], told[-1]["stage"]) == ("reading", "watching")
    takes.delete(scope, take.id)
    assert own.get(timeout=5) == {"kind": "take", "id": take.id, "state": "gone"}
    lesson_of(scope, student.id)
    chairs.set_away(scope, lessons.last_lesson(scope).seats[0].id, "not_here")
    assert own.get(timeout=5) == {"kind": "lesson"}
    kept = cards.put(scope, None, rung=1, title="a first calm breath", check=CHECK)
    assert own.get(timeout=5) == {"kind": "cards"}
    cards.show(scope, kept.id, "", "")
    assert own.get(timeout=5) == {"kind": "cards"}
    cards.delete(scope, kept.id)
    assert own.get(timeout=5) == {"kind": "cards"}
    cards.allow_empty(scope, True)
    assert own.get(timeout=5) == {"kind": "cards"}
    assert theirs.empty()


def test_a_change_that_takes_longer_than_one_that_began_after_it_is_told_all_the_same(listening, scope: Scope) -> None:
    own = listening(Feed().listen(scope.programme))
    with database.db.connection_context(), database.db.atomic():
        changes.note(scope, scope.programme, "care", "")
        with ThreadPoolExecutor(1) as somebody:
            somebody.submit(rulebook.change_rules, scope, {}).result()
        assert own.get(timeout=5) == {"kind": "rules"}
    assert own.get(timeout=5) == {"kind": "care"}
    rulebook.teach(scope, {"strictness": "milder"})
    assert own.get(timeout=5) == {"kind": "rules"} and own.empty(), "each once"


def test_who_belongs_and_how_a_programme_is_called_and_keeps_is_told(listening, scope: Scope) -> None:
    own = listening(Feed().listen(scope.programme))
    programmes.add_person(scope, login="newcomer", name="Ilse", password="a-long-one", role="assistant")
    assert own.get(timeout=5) == {"kind": "people"}
    keeping.set_keep_days(scope, 30)
    assert own.get(timeout=5) == {"kind": "people"}
    programmes.change(scope, name="Another name", time_zone="UTC")
    assert own.get(timeout=5) == {"kind": "people"} and own.empty()


def test_what_is_said_of_a_take_is_told_as_that_and_not_as_how_far_its_reading_is(listening, scope: Scope, student: StudentRecord, clip: ClipRecord) -> None:
    take = new_take(scope, student, clip)
    own = listening(Feed().listen(scope.programme))
    takes.say_felt(scope, take.id, "low")
    assert take.state == "queued" and own.get(timeout=5) == {"kind": "said", "id": take.id} and own.empty()


def test_a_page_that_falls_far_behind_is_told_to_look_at_everything(monkeypatch) -> None:
    monkeypatch.setattr(feeding, "MOST_WAITING", 3)
    line: queue.Queue = queue.Queue(3)
    for number in range(5):
        feeding._put(line, {"kind": "take", "id": str(number)})
    assert [line.get_nowait() for _ in range(line.qsize())] == [{"kind": "all"}, {"kind": "take", "id": "4"}]


def test_there_is_room_for_so_many_and_it_is_given_back(monkeypatch, store) -> None:
    monkeypatch.setattr(feeding, "MOST_LISTENERS", 2)
    feed = Feed()
    first, second = feed.listen(1), feed.listen(1)
    assert next(first) == next(second) == {"kind": "all"}
    with pytest.raises(TooMany):
        feed.listen(1)
    first.close()
    third = feed.listen(1)
    assert next(third) == {"kind": "all"}
    third.close(), second.close()


def test_nobody_looks_for_changes_while_nobody_listens(store) -> None:
    feed = Feed()
    for _ in range(3):
        line = feed.listen(1)
        assert next(line) == {"kind": "all"} and looks_for_changes()
        line.close()
        until = time.monotonic() + 5.0
        while looks_for_changes() and time.monotonic() < until:
            time.sleep(0.02)
        assert not looks_for_changes()


def test_who_asks_for_the_head_alone_keeps_no_place(app, page, monkeypatch) -> None:
    monkeypatch.setattr(feeding, "MOST_LISTENERS", 1)
    for _ in range(3):
        page.client.head("/api/events").close()
    answer = page("GET", "/api/events", buffered=False)
    assert answer.status_code == 200
    answer.close()


def test_the_stream_is_events_on_the_wire_and_not_kept(app, scope, page) -> None:
    answer = page("GET", "/api/events", buffered=False)
    assert answer.mimetype == "text/event-stream" and "no-store" in answer.headers["Cache-Control"]
    lines = b"".join(itertools.islice(answer.response, 2)).decode()
    answer.close()
    assert lines.startswith("retry: ") and json.loads(lines.split("data: ")[1]) == {"kind": "all"}


def test_who_is_no_member_any_more_hears_no_more(app, scope, monkeypatch) -> None:
    from brevin.store.database import db
    from brevin.store.models import Person

    monkeypatch.setattr(feeding, "HEARTBEAT_S", 0.05)
    answer = signed_in(app, scope, "assistant")("GET", "/api/events", buffered=False)
    with db.connection_context():
        Person.update(active=False).execute()
    assert len(list(answer.response)) <= 4, "the line ends at the next heartbeat"


def test_a_section_is_told_as_it_stands_and_at_once_when_the_page_is_woken(listening, scope: Scope, student, monkeypatch) -> None:
    monkeypatch.setattr(feeding, "LOOK_EVERY_S", 30.0)
    stranger = Scope(programmes.add_programme(HOUSE, name="Next door").id)
    feed = Feed()
    own, theirs = listening(feed.listen(scope.programme)), listening(feed.listen(stranger.programme))
    run = benches.begin(scope, card="clarinet", phase="together", steps=["ready", "case"])
    benches.tap(scope, run.id, does="help", step="ready", student=student.id)
    feed.wake()
    told = own.get(timeout=5)
    if not told["run"]["helping"]:  # the first look came late, and fell between the two
        told = own.get(timeout=5)
    assert told["kind"] == "bench" and told["run"]["steps"] == ["ready", "case"] and told["run"]["helping"][0]["student"] == student.id
    assert theirs.empty(), "nothing of it next door"
    gone = feeding._line(ChangeRecord(1, scope.programme, "bench", "999999"))
    assert gone == {"kind": "all"}
