"""From one student to the next: taps and seconds between two filmings, and how soon the reading is there, in a real browser with a stand-in camera."""

import tempfile
import time
from pathlib import Path
from typing import Any

from brevin.bench import Measured
from brevin.bench.filming import CLIP, film, sign_in, studio
from brevin.bench.served import READ_WITHIN_S, Client, served
from brevin.standin.device import as_camera

PAIRS = 3


def measure() -> Measured:
    """Seconds and taps from a filming's end to the next one's start, and from its end to its reading as a share of the clip's length; the worst of several;
    on_today: where nobody else is filmed meanwhile."""
    with served() as server, tempfile.TemporaryDirectory() as folder, studio(server.address, as_camera(CLIP, Path(folder))) as page:
        sign_in(page)
        client = Client(server.address)
        known = set(_takes(client))
        page.keyboard.press("f")
        film(page)
        between, taps, shares = [], [], []
        for nth in range(PAIRS):
            ended = time.monotonic()
            taps.append(_on_to_the_next(page))
            between.append(time.monotonic() - ended)
            shares.append(_read_after(client, ended, known, nth))
            page.get_by_text("Filmed, and on its way").wait_for()
        ended = time.monotonic()
        page.keyboard.press("Escape")
        alone = _read_after(client, ended, known, PAIRS)
    figures = {"between_worst_s": max(between), "taps": max(taps), "read_share_of_clip": max(shares), "read_share_on_today": alone}
    return Measured("class-time", figures, {"between_worst_s": ("<=", 10.0), "taps": ("<=", 2), "read_share_of_clip": ("<=", 1 / 3)})


def _on_to_the_next(page: Any) -> int:
    """The student's guess brings the next chair, a tap starts it. Returns the taps."""
    page.keyboard.press("1")
    page.get_by_role("button", name="Start").wait_for()
    page.wait_for_function("() => !document.querySelector('button.start')?.disabled")
    page.keyboard.press(" ")
    page.get_by_text("ready").wait_for()
    return 2


def _takes(client: Client) -> dict[str, str]:
    """State by take, oldest first."""
    return {take["id"]: take["state"] for take in reversed(client("GET", "/api/takes")["takes"])}


def _read_after(client: Client, ended: float, known: set[str], nth: int) -> float:
    """Share of the clip's length that went by from its end until it was read. known: the takes from before anybody was filmed; nth: of those since, from 0."""
    until = time.monotonic() + READ_WITHIN_S
    while time.monotonic() < until:
        states = _takes(client)
        filmed = [take for take in states if take not in known]
        if len(filmed) > nth and states[filmed[nth]] == "read":
            took_s = time.monotonic() - ended
            return took_s / float(client("GET", f"/api/takes/{filmed[nth]}/report")["clip"]["duration_s"])
        time.sleep(0.1)
    raise RuntimeError("the clip was not read in time")
