"""Requests that no page of ours makes: wrong forms, wrong places, too much of everything, and half of something."""

import json
from collections.abc import Iterator
from dataclasses import dataclass, field

JSON = {"Content-Type": "application/json"}
TURN = {"turn": "inhale_start", "was_s": 1.0, "t_s": 2.0}
DEEP, MUCH, MANY_RANGES = 20_000, 3_000_000, 1500


@dataclass(frozen=True)
class BadRequest:
    """body: None = none; headers: beside those of a signed-in page; quiet: a refusal of the server itself, which has no sentence of ours."""

    name: str
    method: str
    path: str
    body: bytes | None = None
    headers: dict[str, str] = field(default_factory=dict)
    quiet: bool = False


def bad_requests(student_id: int, take_id: str) -> Iterator[BadRequest]:
    """student_id, take_id: of somebody who is there, so that what is wrong is the request alone."""
    yield from _places(student_id, take_id)
    yield from _bodies(student_id, take_id)
    yield from _fields(student_id)


def _places(student_id: int, take_id: str) -> Iterator[BadRequest]:
    nowhere = (
        "nothing", "takes/none", "takes/none/report", "takes/none/clip", "students/999999/takes", "takes/'%20OR%201=1%20--", "takes/%00",
        "takes/..%2f..%2fetc%2fpasswd", "takes/" + "x" * 3000, "students/-1/takes", "students/99999999999999999999/takes",
    )  # fmt: skip
    for path in nowhere:
        yield BadRequest(f"GET {path[:40]}", "GET", f"/api/{path}")
    yield BadRequest("a method that is none", "BREATHE", "/api/today", quiet=True)
    yield BadRequest("DELETE of today", "DELETE", "/api/today")
    yield BadRequest("PUT of a clip", "PUT", f"/api/takes/{take_id}/clip", b"x")
    yield BadRequest("another host", "GET", "/api/today", headers={"Host": "elsewhere.example"})
    yield BadRequest("from another page", "POST", f"/api/takes/{take_id}/read-again", b"{}", JSON | {"Sec-Fetch-Site": "cross-site"})
    yield BadRequest("without the page's token", "POST", f"/api/takes/{take_id}/read-again", b"{}", JSON | {"X-CSRFToken": "none"})
    yield BadRequest("a cookie that is none", "GET", "/api/today", headers={"Cookie": "session=none"})
    yield BadRequest("an address of twenty thousand letters", "GET", "/api/" + "a" * 20_000, quiet=True)
    yield BadRequest("a header of sixty thousand letters", "GET", "/api/today", headers={"X-Long": "a" * 60_000}, quiet=True)
    yield BadRequest("a thousand ranges", "GET", f"/api/takes/{take_id}/clip", headers={"Range": "bytes=" + ",".join("0-1" for _ in range(MANY_RANGES))})
    yield BadRequest("a range from the end of time", "GET", f"/api/takes/{take_id}/clip", headers={"Range": "bytes=99999999999-"})


def _bodies(student_id: int, take_id: str) -> Iterator[BadRequest]:
    edits = f"/api/takes/{take_id}/edits"
    bodies: dict[str, bytes] = {
        "nothing": b"", "no JSON": b"{", "not UTF-8": b'{"player": "\xff\xfe"}', "a list": b"[]", "a number": b"7", "null": b"null",
        "twenty thousand brackets": b"[" * DEEP + b"]" * DEEP, "three megabytes": b'{"player": "' + b"a" * MUCH + b'"}',
        "not a number": b'{"first_inhale_s": NaN, "player": null, "turns": []}', "endless": b'{"first_inhale_s": 1e999, "player": null, "turns": []}',
        "a player who is none": b'{"player": 99, "first_inhale_s": null, "turns": []}',
        "a player below none": b'{"player": -5, "first_inhale_s": null, "turns": []}',
        "a turn that is none": b'{"player": null, "first_inhale_s": null, "turns": [{"turn": "hiccup", "was_s": 1, "t_s": 2}]}',
        "ten thousand turns": json.dumps({"player": None, "first_inhale_s": None, "turns": [TURN] * 10_000}).encode(),
        "an unknown field": b'{"player": null, "first_inhale_s": null, "turns": "all"}',
    }  # fmt: skip
    for name, body in bodies.items():
        yield BadRequest(f"edits: {name}", "PUT", edits, body, JSON)
    yield BadRequest("edits as a form", "PUT", edits, b"player=1", {"Content-Type": "application/x-www-form-urlencoded"})
    long = json.dumps({"criterion": "pause", "state": "steady", "reason": "a" * 900_000}).encode()
    mood = b'{"criterion": "mood", "state": "steady", "reason": "x"}'
    take, student = f"/api/takes/{take_id}", f"/api/students/{student_id}"
    others = (
        ("an overrule of a criterion that is none", "PUT", f"{take}/overrule", mood), ("a reason of a megabyte", "PUT", f"{take}/overrule", long),
        ("a cue that is none", "POST", f"{take}/cue", b'{"criterion": "mood"}'), ("given to nobody", "POST", f"{take}/move", b'{"student_id": 999999}'),
        ("rules that are none", "PUT", "/api/rules", b'{"limits": {"mood": 1}}'), ("an endless limit", "PUT", "/api/rules",
         b'{"limits": {"pause.work_times": 1e999}}'),
        ("a consent from after until", "POST", f"{student}/consent", b'{"given_by": "g", "from_day": "2027-01-02", "until_day": "2027-01-01"}'),
        ("a consent on a day that is none", "POST", f"{student}/consent", b'{"given_by": "g", "from_day": "2027-02-30", "until_day": "2027-03-01"}'),
        ("an exemption from a rule that is none", "PUT", f"{student}/exempt", b'{"criteria": ["mood"]}'),
        ("a role that is none", "POST", "/api/people", b'{"login": "x", "name": "x", "role": "king", "password": "long-enough"}'),
    )  # fmt: skip
    for name, method, path, body in others:
        yield BadRequest(name, method, path, body, JSON)


def _fields(student_id: int) -> Iterator[BadRequest]:
    """Fields of a new take, with a clip that would be none anyway: they are looked at first."""
    asked = f"/api/takes?student_id={student_id}&file_name=x.mp4"
    wrong = ("card=3-0", "card=3-0-7@72x999999999", "card=0-0-0@72x3", "card=3-0-7@0x3", "card=%3Cscript%3E", "kind=nap", "lesson_id=999999", "seat_id=999999",
             "first_inhale_s=NaN")  # fmt: skip
    for more in wrong:
        yield BadRequest(f"a clip for {more}", "POST", f"{asked}&{more}", b"no clip")
    yield BadRequest("a clip of nobody", "POST", "/api/takes?file_name=x.mp4", b"no clip")
    yield BadRequest("a clip of who is not there", "POST", "/api/takes?student_id=999999&file_name=x.mp4", b"no clip")
    yield BadRequest("a clip of a million million bytes", "POST", asked, None, {"Content-Length": "1000000000000"})
