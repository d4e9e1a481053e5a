"""The class on the demo school, and an empty program led to its first lesson."""

import re
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from brevin.ops.mariadb import free_port
from tests.browser.conftest import opened
from tests.ops.test_start import up

LIST = "Plays;Student\nClarinet;Ada Quillane\nTrumpets;Bo Vantreen\nalto sax;Dara Fenn\ntheremin;Eli Noorwood\n"


@pytest.fixture
def empty(browser, tmp_path: Path) -> Iterator[Page]:
    """A program in which nobody has an account."""
    port = free_port()
    running = up(tmp_path / "data", port)
    with opened(browser, f"http://127.0.0.1:{port}") as shown:
        yield shown
    running.terminate()
    assert running.wait(20) == 0


def drop_list(page: Page, text: str, coding: str = "utf-8") -> None:
    page.set_input_files("input[type=file]", {"name": "beginners.csv", "mimeType": "text/csv", "buffer": text.encode(coding)})
    expect(page.get_by_text("Nothing has changed yet")).to_be_visible()


def names(page: Page) -> list[str]:
    page.locator("section[aria-label=clarinet]").wait_for()
    return [label.split(",")[0] for label in page.locator("section[aria-label] button[aria-label]").evaluate_all("all => all.map(b => b.ariaLabel)")]


def test_an_empty_program_leads_to_the_first_lesson_within_minutes(empty: Page) -> None:
    began = time.monotonic()
    expect(empty.get_by_role("heading", name="Two things are asked, then the class list.")).to_be_visible()
    assert Axe().run(empty).violations_count == 0
    empty.keyboard.type("Harbour Street, beginners")
    for answer in ("Ines Varga", "ines", "a long enough one"):
        empty.keyboard.press("Tab")
        empty.keyboard.type(answer)
    empty.keyboard.press("Enter")
    expect(empty.get_by_role("heading", name="Drop the class list here")).to_be_visible()
    drop_list(empty, LIST)
    empty.get_by_label("instrument of Eli Noorwood").select_option("oboe")
    expect(empty.get_by_role("button", name="Make 4 changes")).to_be_enabled()
    empty.get_by_role("button", name="Make 4 changes").click()
    expect(empty.get_by_text("4 students, 0 may be filmed")).to_be_visible()
    empty.keyboard.press("k")
    empty.get_by_role("button", name="Put it on record").click()
    expect(empty.get_by_text("4 students, 4 may be filmed, 4 due for a look")).to_be_visible()
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    empty.keyboard.press("p")
    expect(empty.get_by_text("4 of 4 who may be filmed fit")).to_be_visible()
    empty.get_by_role("button", name="Open the lesson").click()
    expect(empty.get_by_role("button", name="Film Ada")).to_be_visible()
    assert time.monotonic() - began < 300


def test_a_list_is_drawn_on_the_chairs_made_and_taken_back(inside: Page) -> None:
    inside.keyboard.press("b")
    before = names(inside)
    assert len(before) > 10
    drop_list(inside, "name,instrument\nJonas Lindqvast,cornet\nNew Somebody,tuba\n", "cp1252")
    expect(inside.get_by_role("button", name="Jonas Lindqvast, moves")).to_be_visible()
    expect(inside.get_by_text("moves here")).to_be_visible()
    assert names(inside) == before, "nothing has changed"
    for box in inside.get_by_test_id("dropped").get_by_role("checkbox").all()[2:]:
        box.uncheck(force=True)  # those who are not in the list stay
    inside.get_by_role("button", name="Make 2 changes").click()
    expect(inside.get_by_role("button", name=re.compile("^New Somebody, not filmed"))).to_be_visible()
    inside.keyboard.press("z")
    expect(inside.get_by_role("button", name=re.compile("^New Somebody"))).to_have_count(0)
    assert names(inside) == before


def test_a_file_that_is_no_class_list_changes_nothing_and_says_what_to_do(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.set_input_files("input[type=file]", {"name": "noms.csv", "mimeType": "text/csv", "buffer": b"Nom;Pupitre\nAda;flute\n"})
    expect(inside.get_by_role("alert")).to_contain_text("headed name and instrument")


def test_one_who_joins_by_hand_may_leave_again(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.keyboard.press("a")
    expect(inside.get_by_label("Name")).to_be_focused()
    inside.keyboard.type("Nell Ambrose")
    inside.keyboard.press("Enter")
    chair = inside.get_by_role("button", name=re.compile("^Nell Ambrose"))
    expect(chair).to_be_visible()
    chair.click()
    inside.get_by_role("button", name="Left the class").click()
    expect(chair).to_have_count(0)
    expect(inside.get_by_role("status").filter(has_text="Nell left the class")).to_be_visible()


def test_the_class_fits_a_phone(inside: Page) -> None:
    inside.set_viewport_size({"width": 390, "height": 844})
    inside.goto(inside.url.rstrip("/") + "/class")
    names(inside)
    assert inside.evaluate("document.documentElement.scrollWidth") <= 390
