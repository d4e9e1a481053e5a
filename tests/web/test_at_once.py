"""Several who ask at once."""

import threading
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor

import pytest

from brevin.web.at_once import AtOnce

ASKING = 8


class Made:
    """Counts what is made, and makes none before it is let go."""

    def __init__(self) -> None:
        self.began, self.let_go, self.count = threading.Event(), threading.Event(), 0

    def __call__(self) -> int:
        self.count += 1
        self.began.set()
        assert self.let_go.wait(10)
        return self.count


@pytest.fixture
def pool():
    with ThreadPoolExecutor(ASKING + 2) as threads:
        yield threads


def asked_meanwhile(pool: ThreadPoolExecutor, shared: AtOnce[str, int], key: str, make: Callable[[], int]) -> list[Future]:
    """Several who ask while an answer is being made; all of them wait when this returns."""
    entered = threading.Barrier(ASKING + 1)

    def ask() -> int:
        entered.wait(10)
        return shared.made(key, make)

    waiting = [pool.submit(ask) for _ in range(ASKING)]
    entered.wait(10)
    time.sleep(0.2)
    return waiting


def test_who_asks_while_one_is_made_gets_the_next_and_all_of_them_the_same(pool) -> None:
    shared, make = AtOnce[str, int](), Made()
    first = pool.submit(shared.made, "band", make)
    assert make.began.wait(10)
    waiting = asked_meanwhile(pool, shared, "band", make)
    assert not any(one.done() for one in waiting) and make.count == 1
    make.let_go.set()
    assert first.result(10) == 1 and [one.result(10) for one in waiting] == [2] * ASKING
    assert shared.made("band", make) == 3, "nothing is kept"


def test_what_cannot_be_made_is_said_to_all_who_waited_and_the_next_is_tried_again(pool) -> None:
    shared, make = AtOnce[str, int](), Made()
    first = pool.submit(shared.made, "band", make)
    assert make.began.wait(10)

    def fails() -> int:
        raise LookupError("gone")

    waiting = asked_meanwhile(pool, shared, "band", fails)
    make.let_go.set()
    assert first.result(10) == 1
    assert all(isinstance(one.exception(10), LookupError) for one in waiting)
    assert shared.made("band", make) == 2


def test_another_programme_waits_for_nobody(pool) -> None:
    shared, make = AtOnce[str, int](), Made()
    pool.submit(shared.made, "band", make)
    assert make.began.wait(10)
    assert shared.made("choir", lambda: 7) == 7 and make.count == 1
    make.let_go.set()
