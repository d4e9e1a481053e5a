"""The whole program as ./start brings it up, in headless Chromium."""

import functools
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import Page, Playwright, expect, sync_playwright

from brevin.ops import demo
from brevin.standin.browser import launched
from brevin.standin.device import as_camera
from tests.clips import beginning
from tests.conftest import Running

expect.set_options(timeout=20_000)  # a busy machine answers late; what never comes is red all the same


SHORT_S = 5.0  # long enough to be read
ONE_BREATH_S = 11.0  # with the count-in


@pytest.fixture(scope="session")
def address(running: Running) -> str:
    return running.address


@pytest.fixture(scope="session")
def driver() -> Iterator[Playwright]:
    with sync_playwright() as playwright:
        yield playwright


@pytest.fixture(scope="session")
def browser(driver: Playwright) -> Iterator:
    running = launched(driver)
    yield running
    running.close()


@pytest.fixture(scope="session")
def studio(driver: Playwright, tmp_path_factory: pytest.TempPathFactory) -> Iterator:
    """A browser whose camera sees the stand-in, smaller and half as often as it was filmed: the browser's coding costs most of what filming costs here."""
    running = launched(driver, *as_camera(demo.CLIPS / "standing-full-early.mp4", tmp_path_factory.mktemp("camera"), smaller=1.5, slower=True))
    yield running
    running.close()


@contextmanager
def opened(browser, address: str, **context) -> Iterator[Page]:
    """A page in a context of its own; errors of the page fail the test."""
    held = browser.new_context(**({"viewport": {"width": 1280, "height": 800}} | context))
    shown = held.new_page()
    troubles: list[str] = []
    shown.on("pageerror", lambda error: troubles.append(str(error)))
    shown.on("console", lambda m: troubles.append(m.text) if m.type == "error" and "status of 4" not in m.text else None)
    shown.set_default_timeout(20_000)
    shown.goto(address)
    yield shown
    held.close()
    assert troubles == []


@pytest.fixture
def page(browser, address: str) -> Iterator[Page]:
    """A page at the door."""
    with opened(browser, address) as shown:
        yield shown


@pytest.fixture(scope="session")
def ticket(browser, address: str) -> dict:
    """The cookie of a teacher who signed in: once, since tries are counted."""
    with opened(browser, address) as shown:
        shown.get_by_label("Name").fill(demo.LOGIN)
        shown.get_by_label("Password").fill(demo.PASSWORD)
        shown.get_by_role("button", name="Sign in").click()
        shown.get_by_role("heading", name="Just read").wait_for()
        return shown.context.storage_state()


@pytest.fixture
def inside(browser, address: str, ticket: dict) -> Iterator[Page]:
    """A page of a signed-in teacher, on Today."""
    with opened(browser, address, storage_state=ticket) as shown:
        shown.get_by_role("heading", name="Just read").wait_for()
        yield shown


def clip(name: str) -> Path:
    return demo.CLIPS / name


@pytest.fixture(scope="session")
def short(tmp_path_factory: pytest.TempPathFactory) -> Callable[..., Path]:
    """The first seconds of a demo clip under its own name: for tests that need a clip and not what is in it."""

    def cut(name: str, to_s: float = SHORT_S) -> Path:
        return beginning(demo.CLIPS / name, tmp_path_factory.mktemp("short") / name, to_s)

    return functools.cache(cut)
