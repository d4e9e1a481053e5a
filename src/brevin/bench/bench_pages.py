"""The instrument bench in class: how soon a step is on every screen of the room, and a whole first lesson of 24 by its taps."""

import contextlib
import threading
import time
import urllib.request
from typing import Any

from brevin.bench import Measured
from brevin.bench.served import Client, served
from brevin.ops import demo
from brevin.standin.browser import launched

DEVICES, STEPS = 20, 6
GOOD = 3  # good first notes each
LESSON_S = 420.0  # after which who has no good notes yet goes without
NOTED = """() => { window.seen = {}; new MutationObserver(() => {
  const step = document.querySelector('[aria-current=step] b')?.textContent; if (step && !(step in window.seen)) window.seen[step] = Date.now(); })
  .observe(document.body, {subtree: true, childList: true, characterData: true, attributes: true}); }"""
TAP_NEXT = """() => { const at = Date.now(); [...document.querySelectorAll('button')].find((b) => b.textContent.startsWith('Next:')).click(); return at; }"""


def measure() -> Measured:
    """Seconds from a tap on Next to the step on another screen, and to the lines of twenty devices.

    Then the taps and minutes of a first lesson from closed cases to good notes and back."""
    from playwright.sync_api import sync_playwright

    with served() as server, sync_playwright() as playwright:
        browser = launched(playwright)
        inside = _signed_in(browser, server.address)
        api = Client(server.address)
        shown, told = _on_every_screen(inside, server.address, api)
        lesson = _lesson(inside, server.address, api)
        browser.close()
    figures = {
        "shown_median_s": sorted(shown)[len(shown) // 2], "shown_worst_s": max(shown), "told_median_s": sorted(told)[len(told) // 2], "told_worst_s": max(told),
        "devices": float(DEVICES), **lesson,
    }  # fmt: skip
    return Measured(
        "bench-pages", figures,
        {"shown_worst_s": ("<=", 0.3), "told_worst_s": ("<=", 0.3), "together_taps_over": ("<=", 0.0), "with_good_notes": (">=", float(len(demo.STUDENTS)))},
    )  # fmt: skip


def _signed_in(browser: Any, address: str) -> Any:
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(address)
    page.get_by_label("Name").fill(demo.LOGIN)
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Just read").wait_for()
    page.close()
    return context


def _on_every_screen(context: Any, address: str, api: Client) -> tuple[list[float], list[float]]:
    """One device taps; when it is on the screen of another, and when it has reached the lines of the rest: twenty browsers do not fit on one machine."""
    tapping = _at_the_steps(context, address, begin=True)
    watching = _at_the_steps(context.browser.new_context(storage_state=context.storage_state(), viewport={"width": 1280, "height": 800}), address, begin=False)
    lines = [Line(address, api.headers) for _ in range(DEVICES - 2)]
    watching.evaluate(NOTED)
    time.sleep(3)  # what opening stirred up has settled
    shown, told = [], []
    for _ in range(STEPS):
        tapped = tapping.evaluate(TAP_NEXT) / 1000
        time.sleep(1.2)
        step = tapping.locator("[aria-current=step] b").first.text_content()
        shown.append(watching.evaluate("(step) => window.seen[step]", step) / 1000 - tapped)
        told += [line.last_at - tapped for line in lines]
    for line in lines:
        line.close()
    watching.context.close()
    tapping.get_by_role("button", name="Stop here").click()
    tapping.close()
    return shown, told


def _at_the_steps(context: Any, address: str, *, begin: bool) -> Any:
    page = context.new_page()
    page.goto(f"{address}/bench/clarinet/together")
    if begin:
        page.get_by_role("button", name="Begin", exact=True).click()
    page.get_by_role("button", name="Next:").wait_for()
    return page


class Line:
    """A device that listens, without its screen. last_at: when it was told of a section last, by the clock of this machine."""

    def __init__(self, address: str, headers: dict[str, str]) -> None:
        asked = urllib.request.Request(f"{address}/api/events", headers={"Cookie": headers["Cookie"]})
        self.last_at = 0.0
        self._answer = urllib.request.urlopen(asked, timeout=60)
        threading.Thread(target=self._listen, daemon=True).start()

    def _listen(self) -> None:
        with contextlib.suppress(OSError, ValueError, AttributeError):
            for line in self._answer:
                if b'"bench"' in line:
                    self.last_at = time.time()

    def close(self) -> None:
        """Hang up."""
        self._answer.close()


def _lesson(context: Any, address: str, api: Client) -> dict[str, float]:
    """From closed cases to three good first notes each and back: every tap is a real one."""
    page, began = context.new_page(), time.monotonic()
    sections = api("GET", "/api/bench")["sections"]
    over, taps = 0, 0
    for section in sections:
        steps, made = _through(page, address, section["card"], "together", helped=1)
        over, taps = over + made - (steps + 2), taps + made
    waiting = [chair["id"] for section in sections for chair in section["chairs"]]
    while waiting and time.monotonic() - began < LESSON_S:  # who has to rest after three tries of the part alone comes once more
        taps += sum(_notes(page, address, api, student) for student in waiting)
        waiting = [student for student in waiting if _good(api, student) < GOOD]
    for section in sections:
        taps += _through(page, address, section["card"], "away", helped=0)[1]
    page.close()
    good = sum(_good(api, chair["id"]) >= GOOD for section in sections for chair in section["chairs"])
    return {"lesson_min": (time.monotonic() - began) / 60, "lesson_taps": float(taps), "together_taps_over": float(over), "with_good_notes": float(good)}


def _through(page: Any, address: str, card: str, phase: str, *, helped: int) -> tuple[int, int]:
    """A section through a phase; returns its steps and the taps after the one that begins it."""
    page.goto(f"{address}/bench/{card}/{phase}")
    page.get_by_role("button", name="Begin", exact=True).or_(page.get_by_role("button", name="Go on")).click()
    page.locator("[aria-current=step]").first.wait_for()
    steps = page.get_by_role("list", name="Steps").get_by_role("listitem").count() - _at(page)
    taps = 0
    if helped:
        chair = page.get_by_role("list", name="Chairs").get_by_role("button").first
        for pressed in ("true", "false"):
            chair.click()
            page.locator(f"ul[aria-label=Chairs] button[aria-pressed={pressed}]").first.wait_for()
            taps += 1
    for _ in range(steps):
        before = page.locator("h2").first.text_content()
        page.locator("button", has_text="space").first.click()
        page.wait_for_function("(before) => document.querySelector('h2')?.textContent !== before", arg=before)
        taps += 1
    page.get_by_role("status").get_by_text("All steps are behind them").wait_for()
    return steps, taps


def _at(page: Any) -> int:
    """How many steps lie behind the one that is shown."""
    said = page.locator("[aria-current=step] b").first.text_content() or "1"
    return int(said.split()[0]) - 1


def _notes(page: Any, address: str, api: Client, student: int) -> int:
    """Good tries until there are enough or lips have to rest; returns the taps."""
    page.goto(f"{address}/bench/notes/{student}")
    taps = 0
    note = page.get_by_role("button", name="the note")
    while _good(api, student) < GOOD:
        note.wait_for()
        if note.is_disabled():
            if api("GET", f"/api/bench/firsts/{student}")["rest_s"] > 0:
                return taps
            page.wait_for_timeout(100)
            continue
        with page.expect_response(lambda answered: answered.request.method == "POST" and "/firsts/" in answered.url):
            note.click()
        taps += 1
    return taps


def _good(api: Client, student: int) -> int:
    """Good tries of whole notes."""
    rungs = api("GET", f"/api/bench/firsts/{student}")["rungs"]
    return sum(one["outcome"] == "note" for rung in rungs if rung["key"] != "alone" for one in rung["tries"])
