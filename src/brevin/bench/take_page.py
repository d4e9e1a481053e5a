"""How soon a Take page can be used on this machine: breath score drawn and clip seekable, in headless Chromium against a server of its own."""

import os
import signal
import subprocess
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager

from brevin.bench import Measured
from brevin.ops import demo
from brevin.ops.mariadb import free_port
from brevin.ops.settings import ROOT

RUNS = 5
UP_WITHIN_S, READ_WITHIN_S = 120.0, 180.0
CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
USABLE = """() => { const video = document.querySelector('video'), score = document.querySelector('[data-testid=breath-score] path');
  return Boolean(score && video && video.readyState >= 1 && video.seekable.length); }"""


def measure() -> Measured:
    """Seconds from opening the page's address to score drawn and clip seekable, best, median and worst of several."""
    from playwright.sync_api import sync_playwright

    with served() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        times = _times(browser, address)
        browser.close()
    figures = {"usable_best_s": min(times), "usable_median_s": sorted(times)[len(times) // 2], "usable_worst_s": max(times)}
    return Measured("take-page", figures, {"usable_median_s": ("<=", 1.0)})


@contextmanager
def served() -> Iterator[str]:
    """A server of its own with the demo data, for as long as it is needed: its address."""
    port = free_port()
    with tempfile.TemporaryDirectory(prefix="brevin-bench-") as data:
        server = subprocess.Popen([str(ROOT / "start"), "--port", str(port), "--data", data], stdout=subprocess.DEVNULL, start_new_session=True)
        try:
            _wait(f"http://127.0.0.1:{port}/")
            yield f"http://127.0.0.1:{port}"
        finally:
            os.kill(server.pid, signal.SIGTERM)
            server.wait(30)


def _times(browser, address: str) -> list[float]:  # type: ignore[no-untyped-def]
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(address)
    page.get_by_label("Name").fill(demo.LOGIN)
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.locator("[data-testid=take-row][data-state=read]").first.wait_for(timeout=READ_WITHIN_S * 1000)
    link = page.locator("[data-testid=take-row][data-state=read]").first.get_attribute("href")
    page.wait_for_function("() => !document.querySelector('[data-state=reading], [data-state=queued]')", timeout=READ_WITHIN_S * 1000)
    times = []
    for _ in range(RUNS):
        began = time.monotonic()
        page.goto(f"{address}{link}", wait_until="commit")
        page.wait_for_function(USABLE, polling=10)
        times.append(time.monotonic() - began)
    return times


def _wait(address: str) -> None:
    until = time.monotonic() + UP_WITHIN_S
    while time.monotonic() < until:
        try:
            urllib.request.urlopen(address, timeout=2).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.2)
    raise RuntimeError("the server for the measurement did not come up")
