"""One process of each kind is killed under a running program: it comes back, and nothing that was begun is lost."""

import os
import signal
import socket
import subprocess
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

import pytest

from brevin.bench.served import Client
from brevin.ops import demo
from brevin.ops.children import BEHIND
from tests.conftest import STALLED_S, Running


def processes(running: Running, words: str) -> list[int]:
    """Numbers of the run's processes whose command holds these words, oldest first."""
    found = subprocess.run(["pgrep", "-f", words], capture_output=True, text=True).stdout.split()
    return [int(pid) for pid in found if str(running.data) in command(int(pid)) or words in ("brevin.web.server:app",) and ours(running, int(pid))]


def command(pid: int) -> str:
    try:
        with open(f"/proc/{pid}/cmdline") as file:
            return file.read().replace("\0", " ")
    except OSError:
        return ""


def ours(running: Running, pid: int) -> bool:
    try:
        with open(f"/proc/{pid}/environ") as file:
            return f"BREVIN_DATA={running.data}" in file.read()
    except OSError:
        return False


def until(true: Callable[[], bool], within_s: float) -> None:
    end = time.monotonic() + within_s
    while not true():
        assert time.monotonic() < end
        time.sleep(0.1)


@pytest.fixture(scope="module")
def page(running: Running) -> Client:
    found = Client(running.address)
    found.all_read()
    return found


WEB = "brevin.web.server:app"


def test_a_killed_web_server_is_started_again_and_who_was_signed_in_stays(running: Running, page: Client) -> None:
    old = processes(running, WEB)
    os.kill(min(old), signal.SIGKILL)
    until(lambda: bool(set(processes(running, WEB)) - set(old)), 10.0)
    running.answers()
    assert page("GET", "/api/me")["name"] and not set(old) & set(processes(running, WEB)), "its children ended with it"


def test_a_killed_database_is_started_again_with_all_it_held(running: Running, page: Client) -> None:
    before = [take["id"] for take in page("GET", "/api/takes")["takes"]]
    [old] = processes(running, "mariadbd")
    os.kill(old, signal.SIGKILL)

    def answers() -> bool:
        try:
            return [take["id"] for take in page("GET", "/api/takes")["takes"]] == before
        except OSError:  # 500 while it is away
            return False

    until(answers, 20.0)
    assert processes(running, "mariadbd") != [old]


def test_a_killed_readers_take_is_read_by_the_next_at_once(running: Running, page: Client) -> None:
    until(lambda: bool(processes(running, "brevin.jobs.reader")), 20.0)  # whatever was killed before
    take_id = page("GET", "/api/takes")["takes"][0]["id"]
    page("POST", f"/api/takes/{take_id}/read-again")
    until(lambda: page("GET", f"/api/takes/{take_id}")["state"] == "reading", 20.0)
    readers, began = processes(running, "brevin.jobs.reader"), time.monotonic()
    os.kill(readers[0], signal.SIGKILL)
    until(lambda: not set(readers) & set(processes(running, "brevin.jobs.reader")), 10.0)
    until(lambda: page("GET", f"/api/takes/{take_id}")["state"] == "reading", 15.0)
    assert time.monotonic() - began < 15.0, "it did not wait for a lease to run out"
    page.all_read()
    assert page("GET", f"/api/takes/{take_id}")["headline"]["report_version"] >= 2


def test_a_reader_gives_way_to_pages_also_where_time_is_shared_out_by_session(running: Running, page: Client) -> None:
    """After the reader was started again, so that this one does as well."""
    session = Path("/proc/self/autogroup")
    if not session.exists():
        pytest.skip("this Linux shares no time out by session")
    reader, web = processes(running, "brevin.jobs.reader")[0], processes(running, "brevin.web.server:app")[0]
    of_reader, of_web = (Path(f"/proc/{pid}/autogroup").read_text() for pid in (reader, web))
    assert of_reader.split()[0] != of_web.split()[0], "sessions of their own"
    assert int(of_reader.split()[-1]) == BEHIND > int(of_web.split()[-1]) == 0


def test_what_died_is_said_in_the_log(running: Running, page: Client) -> None:
    said = running.log.read_text()
    assert "the web process ended" in said and "the database ended" in said and "the reader process ended" in said and demo.PASSWORD in said


def test_half_sent_requests_and_clips_cost_nobody_time_and_give_their_places_back(running: Running, page: Client) -> None:
    port = int(running.address.rsplit(":", 1)[1].strip("/"))
    half = []
    for n in range(30):
        one = socket.create_connection(("127.0.0.1", port))
        one.sendall(b"GET /api/me HTT" if n % 2 else b"POST /api/takes?student_id=1 HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900000\r\n\r\nhalf a clip")
        half.append(one)
    slowest, began = 0.0, time.monotonic()
    while time.monotonic() - began < STALLED_S + 6:
        asked = time.monotonic()
        urllib.request.urlopen(f"{running.address}api/me" if running.address.endswith("/") else f"{running.address}/api/me", timeout=60).close()
        slowest = max(slowest, time.monotonic() - asked)
        time.sleep(0.3)
    assert slowest < 5.0, "the places they hold are given back without anybody waiting"
    assert all(_closed(one) for one in half)


def _closed(one: socket.socket) -> bool:
    one.settimeout(0.05)
    try:
        while True:
            if not one.recv(4096):
                return True
    except TimeoutError:
        return False
    except OSError:
        return True


def test_what_is_kept_of_children_is_read_by_nobody_else_on_the_machine(running: Running) -> None:
    assert running.data.stat().st_mode & 0o077 == 0
