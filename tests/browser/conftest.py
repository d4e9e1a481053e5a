"""The whole program as ./start brings it up, in headless Chromium."""

import functools
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import APIResponse, BrowserContext, Page, Playwright, Route, expect, sync_playwright

from brevin.ops import demo
from brevin.standin.browser import launched
from brevin.standin.device import as_camera
from tests.clips import beginning
from tests.conftest import Running

expect.set_options(timeout=30_000)  # a busy machine answers late; what never comes is red all the same


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
    running = launched(driver, "--process-per-site")  # pages of one address share what is costly to begin
    yield running
    running.close()


@pytest.fixture(scope="session")
def studio(driver: Playwright, tmp_path_factory: pytest.TempPathFactory) -> Iterator:
    """A browser whose camera sees the stand-in, smaller and half as often as it was filmed: the browser's coding costs most of what filming costs here."""
    running = launched(
        driver, "--process-per-site", *as_camera(demo.CLIPS / "standing-full-early.mp4", tmp_path_factory.mktemp("camera"), smaller=1.5, plain_hz=15)
    )
    yield running
    running.close()


SCREEN = {"width": 1280, "height": 800}


@contextmanager
def opened(browser, address: str, **context) -> Iterator[Page]:
    """A page in a context of its own; errors of the page fail the test."""
    held = browser.new_context(**({"viewport": SCREEN} | context))
    with watched(held.new_page(), address) as shown:
        yield shown
    held.close()


NOTHING = "/api/me"  # an address of the program that is no page: nothing is drawn there


@contextmanager
def watched(shown: Page, address: str) -> Iterator[Page]:
    """A page that goes to an address; its errors fail the test."""
    troubles: list[str] = []
    shown.on("pageerror", lambda error: troubles.append(str(error)))
    shown.on("console", lambda m: troubles.append(m.text) if m.type == "error" and "status of 4" not in m.text else None)
    shown.set_default_timeout(30_000)
    shown.goto(address)
    yield shown
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


@contextmanager
def keeping(browser, address: str, ticket: dict) -> Iterator[BrowserContext]:
    """A signed-in teacher's browser. It keeps a page open, so that the program of the pages is not begun anew for each."""
    held = browser.new_context(viewport=SCREEN, storage_state=ticket, base_url=address)
    held.new_page().goto(NOTHING)
    yield held
    held.close()


@contextmanager
def emptied(held: BrowserContext, address: str, ticket: dict, *, at: str = "/") -> Iterator[Page]:
    """A page of it, on Today or elsewhere. Nothing that an earlier test left in the browser is there."""
    session = held.new_cdp_session(held.pages[0])
    session.send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": "local_storage,indexeddb,cache_storage,service_workers,file_systems"})
    session.detach()
    held.clear_cookies()
    held.add_cookies(ticket["cookies"])
    with watched(held.new_page(), at) as shown:
        if at == "/":
            shown.get_by_role("heading", name="Just read").wait_for()
        yield shown
        for page in held.pages[1:]:
            page.close()
        held.unroute_all()
        held.set_offline(False)


@pytest.fixture(scope="session")
def signed_in(browser, address: str, ticket: dict) -> Iterator[BrowserContext]:
    with keeping(browser, address, ticket) as held:
        yield held


@pytest.fixture
def inside(signed_in: BrowserContext, address: str, ticket: dict) -> Iterator[Page]:
    """A page of a signed-in teacher, on Today."""
    with emptied(signed_in, address, ticket) as shown:
        yield shown


@pytest.fixture
def desk(signed_in: BrowserContext, address: str, ticket: dict) -> Iterator[Page]:
    """A page of a signed-in teacher that has gone nowhere yet, for what does not begin on Today."""
    with emptied(signed_in, address, ticket, at=NOTHING) as shown:
        yield shown


def fits(page: Page, width: int) -> None:
    """Waits until a page is no wider than its screen: drawings follow their place a moment later. By the clock: where nothing is drawn no frame comes."""
    page.wait_for_function("(width) => document.documentElement.scrollWidth <= width", arg=width, polling=100)


def comes_true(page: Page, asked: str, arg: object = None) -> None:
    """Waits for what the server says. Not by ``wait_for_function``, which takes the promise of an answer for the answer."""
    for _ in range(300):
        if page.evaluate(asked, arg):
            return
        page.wait_for_timeout(100)
    raise AssertionError(asked)


def answered(route: Route) -> APIResponse:
    """What the program answers to a request that is held up. A kept line it has closed in that very moment is asked anew, as browsers do."""
    return route.fetch(max_retries=2)


def to_take(page: Page, student: str, *, first_of_all: bool = False) -> None:
    """The newest of a student's takes, or the first, opened by its own address."""
    takes = page.evaluate("async () => (await (await fetch('/api/takes')).json()).takes")
    ids = [one["id"] for one in takes if one["student"]["name"].startswith(student)]
    page.goto(f"/take/{ids[-1 if first_of_all else 0]}")


def clip(name: str) -> Path:
    return demo.CLIPS / name


@pytest.fixture(scope="session")
def short(tmp_path_factory: pytest.TempPathFactory) -> Callable[..., Path]:
    """The first seconds of a demo clip under its own name: for tests that need a clip and not what is in it."""

    def cut(name: str, to_s: float = SHORT_S) -> Path:
        return beginning(demo.CLIPS / name, tmp_path_factory.mktemp("short") / name, to_s)

    return functools.cache(cut)
