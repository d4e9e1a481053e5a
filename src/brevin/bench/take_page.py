"""How soon a Take page can be used on this machine: breath score drawn and clip seekable, in headless Chromium against a server of its own."""

import time
from typing import Any

from brevin.bench import Measured
from brevin.bench.served import READ_WITHIN_S, served
from brevin.ops import demo
from brevin.standin.browser import launched

RUNS = 5
USABLE = """() => { const video = document.querySelector('video'), score = document.querySelector('[data-testid=breath-score] path');
  return Boolean(score && video && video.readyState >= 1 && video.seekable.length); }"""

COUNTED = """async () => (await (await fetch('/api/today')).json()).just_read.find(({ check, state }) => check.card && state === 'read').id"""
"""A take with a breath score; one of the hold alone shows none."""


def measure() -> Measured:
    """Seconds from opening the page's address to score drawn and clip seekable, best, median and worst of several."""
    from playwright.sync_api import sync_playwright

    with served() as server, sync_playwright() as playwright:
        browser = launched(playwright)
        times = _times(browser, server.address)
        browser.close()
    figures = {"usable_best_s": min(times), "usable_median_s": sorted(times)[len(times) // 2], "usable_worst_s": max(times)}
    return Measured("take-page", figures, {"usable_median_s": ("<=", 1.0)})


def _times(browser: Any, address: str) -> list[float]:
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(address)
    page.get_by_label("Name").fill(demo.LOGIN)
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.locator("[data-testid=take-row][data-state=read]").first.wait_for(timeout=READ_WITHIN_S * 1000)
    page.wait_for_function("() => !document.querySelector('[data-state=reading], [data-state=queued]')", timeout=READ_WITHIN_S * 1000)
    take = page.evaluate(COUNTED)
    times = []
    for _ in range(RUNS):
        began = time.monotonic()
        page.goto(f"{address}/take/{take}", wait_until="commit")
        page.wait_for_function(USABLE, polling=10)
        times.append(time.monotonic() - began)
    return times
