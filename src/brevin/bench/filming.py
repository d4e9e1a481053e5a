"""What the benches of the classroom share: a browser with a stand-in for its camera, signed in to a server of its own."""

import re
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from brevin.ops import demo
from brevin.standin.browser import launched

CLIP = demo.CLIPS / "standing-full-early.mp4"
CAMERA_HZ = 25  # as it was filmed: so many pictures a camera that does not code them shows of it
PATIENCE_MS = 180_000
ALL_READ = "() => document.querySelector('[data-testid=take-row]') && !document.querySelector('[data-state=reading], [data-state=queued]')"


@contextmanager
def studio(address: str, camera: list[str]) -> Iterator[Any]:
    """A page of a browser whose camera and microphone are a clip, at the door. camera: the browser's switches for it, as ``as_camera`` has them."""
    from playwright.sync_api import sync_playwright

    with sync_playwright() as playwright:
        browser = launched(playwright, *camera)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.set_default_timeout(PATIENCE_MS)
        page.goto(address)
        yield page
        browser.close()


def sign_in(page: Any) -> None:
    """In to the demo school, all of it read."""
    page.get_by_label("Name").fill(demo.LOGIN)
    page.get_by_label("Password").fill(demo.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Just read").wait_for()
    page.wait_for_function(ALL_READ)


def film(page: Any) -> float:
    """Start the chair that is shown and wait until it has stopped by itself; returns seconds of filming, from the start on."""
    running = page.get_by_role("button", name="Stop")
    while not running.is_visible():  # a rest that comes due between the look and the key holds the start back
        page.get_by_role("button", name="Start").wait_for()
        page.wait_for_function("() => document.querySelector('video')?.readyState >= 2 && !document.querySelector('button.start')?.disabled")
        began = time.monotonic()
        page.keyboard.press(" ")
        running.or_(page.get_by_role("button", name=re.compile("^Rest"))).first.wait_for()
    page.get_by_text("Filmed, and on its way").wait_for()
    return time.monotonic() - began
