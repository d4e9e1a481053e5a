"""What bad and hostile input costs: each gets its sentence, memory stays bounded, and everyone else is served meanwhile."""

import http.client
import json
import socket
import sys
import time
from dataclasses import dataclass
from typing import Any
from urllib.parse import quote, urlsplit

from brevin.bench import Measured
from brevin.bench.hostile_files import BadFile, bad_files
from brevin.bench.hostile_requests import BadRequest, bad_requests
from brevin.bench.served import Client, Served, served
from brevin.bench.watched import READER, WEB, watched

HALF_SENT = 40
ANSWER_WITHIN_S, READ_WITHIN_S, CLOSED_WITHIN_S = 60.0, 600.0, 60.0
REFUSED = range(400, 500)


def measure() -> Measured:
    """How many inputs had no sentence, peak memory of web and reader with their children, and how soon another page was answered meanwhile."""
    with served() as server:
        page = Client(server.address)
        first = page.all_read()[0]
        with watched(server) as seen:
            outcomes = [_send(page, first, one) for one in bad_files()]
            outcomes += [_ask(page, one) for one in bad_requests(first["student"]["id"], first["id"])]
            outcomes += _half_sent(server)
            _read(page, outcomes)
    for one in outcomes:
        if not one.said:
            print(f"no sentence: {one.name} ({one.answer})", file=sys.stderr)
    figures = {
        "inputs": float(len(outcomes)), "without_a_sentence": float(sum(not one.said for one in outcomes)), "web_peak_mb": seen.peak_mb[WEB],
        "reader_peak_mb": seen.peak_mb[READER], "others_p95_ms": seen.within_ms(0.95), "others_worst_ms": seen.within_ms(1.0),
        "others_unanswered": float(seen.unanswered),
    }  # fmt: skip
    bars = {
        "inputs": (">=", 100.0), "without_a_sentence": ("<=", 0.0), "web_peak_mb": ("<=", 300.0), "reader_peak_mb": ("<=", 1200.0),
        "others_p95_ms": ("<=", 500.0), "others_unanswered": ("<=", 0.0),
    }  # fmt: skip
    return Measured("hostile", figures, bars)


@dataclass
class Outcome:
    """said: whether it was answered with a sentence, or will be by its reading (take_id)."""

    name: str
    answer: str
    said: bool
    take_id: str = ""


def _send(page: Client, take: dict[str, Any], bad: BadFile) -> Outcome:
    """A file sent as a clip: refused in a sentence, or taken in and read to one."""
    path = f"/api/takes?student_id={take['student']['id']}&file_name={quote(bad.file_name)}"
    status, body = _answer(page, BadRequest(bad.name, "POST", path, bad.content))
    if status == 201:
        return Outcome(bad.name, "taken in", said=False, take_id=json.loads(body)["id"])
    return Outcome(bad.name, f"{status} {body[:80]!r}", said=status in REFUSED and _is_sentence(body))


def _ask(page: Client, bad: BadRequest) -> Outcome:
    status, body = _answer(page, bad)
    return Outcome(bad.name, f"{status} {body[:80]!r}", said=status in REFUSED and (bad.quiet or _is_sentence(body)))


def _answer(page: Client, bad: BadRequest) -> tuple[int, bytes]:
    """Status and body; 0 where there is none."""
    place = urlsplit(page.address)
    connection = http.client.HTTPConnection(place.hostname or "", place.port, timeout=ANSWER_WITHIN_S)
    try:
        connection.request(bad.method, bad.path, bad.body, page.headers | bad.headers)
        answer = connection.getresponse()
        return answer.status, answer.read()
    except (OSError, http.client.HTTPException) as why:
        return 0, str(why).encode()
    finally:
        connection.close()


def _is_sentence(body: bytes) -> bool:
    """Whether an answer holds a sentence of ours."""
    try:
        message = json.loads(body)["message"]
    except (ValueError, KeyError, TypeError):
        return False
    return isinstance(message, str) and message.endswith(".") and "error of the program" not in message


def _half_sent(server: Served) -> list[Outcome]:
    """Requests of which half comes and then nothing: their places are given back."""
    place = urlsplit(server.address)
    halves = [b"GET /api/me HTT", b"POST /api/takes?student_id=1 HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 900000\r\n\r\nhalf a clip"]
    held = []
    for index in range(HALF_SENT):
        one = socket.create_connection((place.hostname or "", place.port or 80))
        one.sendall(halves[index % len(halves)])
        one.settimeout(CLOSED_WITHIN_S)
        held.append(one)
    return [Outcome(f"half a request, {index}", "held open", said=_closed(one)) for index, one in enumerate(held)]


def _closed(one: socket.socket) -> bool:
    try:
        while one.recv(4096):
            pass
    except TimeoutError:
        return False
    except OSError:
        pass
    return True


def _read(page: Client, outcomes: list[Outcome]) -> None:
    """Wait for the readings of what was taken in: each is a report, or failed with its sentence."""
    until = time.monotonic() + READ_WITHIN_S
    waiting = [one for one in outcomes if one.take_id]
    while waiting and time.monotonic() < until:
        for one in list(waiting):
            take = page("GET", f"/api/takes/{one.take_id}")
            if take["state"] in ("read", "failed"):
                one.answer = f"{take['state']}: {take['reason_text'] or take['headline']}"
                one.said = take["state"] == "read" or str(take["reason_text"]).endswith(".") and take["reason_code"] != "reading_failed"
                waiting.remove(one)
        time.sleep(0.5)
