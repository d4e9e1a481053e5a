"""The instrument bench in class: how soon a step is on every screen of the room, and a whole first lesson of 24 by its taps."""

import time
from typing import Any

from brevin.bench import Measured
from brevin.bench.served import Client, served
from brevin.bench.take_page import CHROMIUM
from brevin.ops import demo

DEVICES, STEPS = 20, 6
GOOD = 3  # good first notes each
NOTED = """() => { window.seen = {}; new MutationObserver(() => {
  const step = document.querySelector('[aria-current=step] b')?.textContent; if (step && !(step in window.seen)) window.seen[step] = Date.now(); })
  .observe(document.body, {subtree: true, childList: true, characterData: true, attributes: true}); }"""
TAP_NEXT = """() => { const at = Date.now(); [...document.querySelectorAll('button')].find((b) => b.textContent.startsWith('Next:')).click(); return at; }"""


def measure() -> Measured:
    """Seconds from a tap on Next to the step on the slowest of twenty screens; taps and minutes of a first lesson from closed cases to good notes and back."""
    from playwright.sync_api import sync_playwright

    with served() as server, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        inside = _signed_in(browser, server.address)
        delays = _on_every_screen(inside, server.address)
        lesson = _lesson(inside, server.address, Client(server.address))
        browser.close()
    figures = {"step_median_s": sorted(delays)[len(delays) // 2], "step_worst_s": max(delays), "devices": float(DEVICES), **lesson}
    return Measured(
        "bench-pages", figures,
        {"step_worst_s": ("<=", 0.3), "together_taps_over": ("<=", 0.0), "with_good_notes": (">=", float(len(demo.STUDENTS)))},
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


def _on_every_screen(context: Any, address: str) -> list[float]:
    """Every screen notes when it first shows a step; the first of them taps."""
    first = context.new_page()
    first.goto(f"{address}/bench/clarinet/together")
    first.get_by_role("button", name="Begin").click()
    first.get_by_role("button", name="Next:").wait_for()
    screens = [first]
    for _ in range(DEVICES - 1):
        page = context.new_page()
        page.goto(f"{address}/bench/clarinet/together")
        page.get_by_role("button", name="Next:").wait_for()
        screens.append(page)
    for page in screens:
        page.evaluate(NOTED)
    time.sleep(3)  # what opening twenty pages stirred up has settled
    delays = []
    for _ in range(STEPS):
        tapped = first.evaluate(TAP_NEXT)
        time.sleep(1.5)
        step = first.locator("[aria-current=step] b").first.text_content()
        seen = [page.evaluate("(step) => window.seen[step]", step) for page in screens]
        delays += [(one - tapped) / 1000 for one in seen]
    for page in screens[1:]:
        page.close()
    first.get_by_role("button", name="Stop here").click()
    first.close()
    return delays


def _lesson(context: Any, address: str, api: Client) -> dict[str, float]:
    """From closed cases to three good first notes each and back: every tap is a real one."""
    page, began = context.new_page(), time.monotonic()
    sections = api("GET", "/api/bench")["sections"]
    over, taps = 0, 0
    for section in sections:
        steps, made = _through(page, address, section["card"], "together", helped=1)
        over, taps = over + made - (steps + 2), taps + made
    for _ in range(2):  # who has to rest after three tries of the part alone comes once more
        for chair in (chair for section in sections for chair in section["chairs"]):
            taps += _notes(page, address, api, chair["id"])
        time.sleep(5)
    for section in sections:
        taps += _through(page, address, section["card"], "away", helped=0)[1]
    page.close()
    good = sum(_good(api, chair["id"]) >= GOOD for section in sections for chair in section["chairs"])
    return {"lesson_min": (time.monotonic() - began) / 60, "lesson_taps": float(taps), "together_taps_over": float(over), "with_good_notes": float(good)}


def _through(page: Any, address: str, card: str, phase: str, *, helped: int) -> tuple[int, int]:
    """A section through a phase; returns its steps and the taps after the one that begins it."""
    page.goto(f"{address}/bench/{card}/{phase}")
    page.get_by_role("button", name="Begin").or_(page.get_by_role("button", name="Go on")).click()
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
