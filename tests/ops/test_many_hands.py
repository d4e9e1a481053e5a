"""Several people at one programme at once, over the real server: nobody's change ends another's, and what is judged follows the last word."""

from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from itertools import cycle, islice

import pytest

from brevin.bench.served import Client
from tests.conftest import Running
from tests.ops.test_killed import until

EACH = 12  # requests of each hand
UNTOUCHED = {"player": None, "first_inhale_s": None, "turns": [], "line": None}
Asked = tuple[str, str, object]


@pytest.fixture(scope="module")
def page(running: Running) -> Iterator[Client]:
    """A teacher's page; what the hands left is put back for whoever comes after."""
    found = Client(running.address)
    takes = found.all_read()
    yield found
    for take in takes:
        found("PUT", f"/api/students/{take['student']['id']}/exempt", {"exempt": []})
        found("PUT", f"/api/takes/{take['id']}/edits", UNTOUCHED)


def hands(page: Client) -> list[list[Asked]]:
    """What each of them does, over and over."""
    takes = [take for take in page("GET", "/api/takes")["takes"] if take["state"] == "read"]
    lesson = page("GET", "/api/today")["lesson"]
    seats = [seat["id"] for seat in lesson["seats"]]
    return [
        [("PUT", "/api/rules/method", {"answers": {"fullness": school}}) for school in ("counts_are_time", "over_all_counts")],
        [("PUT", "/api/rules/method", {"answers": {"tongue": school}}) for school in ("at_once", "air_first")],
        [("PUT", f"/api/students/{take['student']['id']}/exempt", {"exempt": exempt}) for take in takes for exempt in (["pause"], [])],
        [("PUT", f"/api/takes/{take['id']}/edits", UNTOUCHED | {"first_inhale_s": first_s}) for take in takes for first_s in (4.0, None)],
        [("PUT", f"/api/lessons/{lesson['id']}/order", {"seat_ids": order}) for order in (seats[::-1], seats)],
        [("GET", "/api/today", None)],
    ]


def test_many_who_change_things_at_once_are_all_heard_and_what_is_judged_follows_the_last_word(page: Client) -> None:
    def work(own: list[Asked]) -> None:
        for method, path, body in islice(cycle(own), EACH):
            page(method, path, body)  # raises where the answer is an error

    doing = hands(page)
    with ThreadPoolExecutor(len(doing)) as pool:
        list(pool.map(work, doing))
    early = next(take["id"] for take in page("GET", "/api/takes")["takes"] if (take["clip"] or {}).get("original_name") == "standing-full-early.mp4")

    def judged() -> bool:
        return "not_full_early" in [verdict["criterion"] for verdict in page("GET", f"/api/takes/{early}/report")["verdicts"]]

    for school, counts in (("counts_are_time", False), ("over_all_counts", True)):
        page("PUT", "/api/rules/method", {"answers": {"fullness": school}})
        until(lambda counts=counts: judged() is counts, 30.0)
