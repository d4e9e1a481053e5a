"""A new teacher in an empty house: led from the programme's name to the first lesson, with what is done and how long it took before the eyes."""

import re
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from brevin.bench.served import served
from tests.browser.conftest import opened

LIST = "Plays;Student\nClarinet;Ada Quillane\nTrumpets;Bo Vantreen\nflute;Cleo Marsk\nflute;Dara Fenn\ntheremin;Eli Noorwood\n"


@pytest.fixture
def empty(browser) -> Iterator[Page]:
    with served(empty=True) as server, opened(browser, server.address) as shown:
        yield shown


def test_a_new_teacher_is_led_from_the_name_to_the_first_lesson(empty: Page, tmp_path: Path) -> None:
    began = time.monotonic()
    ruler = empty.get_by_role("img", name=re.compile("steps are done after"))
    expect(ruler).to_have_attribute("aria-label", re.compile("^0 of 5"))
    expect(empty.get_by_role("heading", name="Two things are asked, then the class list.")).to_be_visible()
    empty.keyboard.type("Alder Lane School, winds")
    expect(ruler).to_have_attribute("aria-label", re.compile("^1 of 5 .*name done, account to come"))
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    for answer in ("Ines Varga", "ines", "a long secret one"):
        empty.keyboard.press("Tab")
        empty.keyboard.type(answer)
    expect(ruler).to_have_attribute("aria-label", re.compile("^2 of 5"))
    empty.keyboard.press("Enter")
    empty.get_by_role("heading", name="Alder Lane School, winds").wait_for()
    names = tmp_path / "class.csv"
    names.write_text(LIST)
    empty.locator("input[type=file]").set_input_files(names)
    expect(empty.get_by_text("class.csv").first).to_be_visible()
    empty.get_by_label("instrument of Eli Noorwood").select_option("oboe")
    expect(empty.get_by_role("button", name="Make 5 changes")).to_be_enabled()
    empty.keyboard.press("Enter")
    expect(empty.get_by_text("5 students, 0 may be filmed")).to_be_visible()
    expect(ruler).to_have_attribute("aria-label", re.compile("^3 of 5 .*class list done, five questions to come"))
    empty.keyboard.press("y")
    done = empty.get_by_role("complementary", name="What is done")
    expect(done).to_contain_text("Ines Varga")
    expect(done.get_by_role("row", name=re.compile("flute"))).to_contain_text("2")
    expect(empty.get_by_role("region", name="First lesson")).to_contain_text("5 to hand out")
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    empty.keyboard.press("u")
    expect(ruler).to_have_attribute("aria-label", re.compile("^4 of 5 .*first lesson to come"))
    empty.reload()
    expect(ruler).to_have_attribute("aria-label", re.compile("^4 of 5"))  # kept as it goes
    # before the page itself runs: what it still has to load could keep the run it knows over it
    empty.add_init_script("localStorage.setItem('brevin-first', JSON.stringify({began_ms: 0, done_ms: {}}))")
    empty.reload()
    expect(empty.get_by_role("heading", name="All five questions are answered.")).to_be_visible()
    expect(ruler).to_have_count(0)  # a run that was left long ago is none
    empty.get_by_role("link", name="Class", exact=True).click()
    expect(empty.get_by_text("5 students, 0 may be filmed")).to_be_visible()
    empty.keyboard.press("k")
    empty.get_by_role("button", name="Put it on record").click()
    expect(empty.get_by_text("5 students, 5 may be filmed, 5 due for a look")).to_be_visible()
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    empty.keyboard.press("p")
    expect(empty.get_by_text("5 of 5 who may be filmed fit")).to_be_visible()
    empty.get_by_role("button", name="Open the lesson").click()
    expect(empty.get_by_role("button", name="Film Ada")).to_be_visible()
    assert time.monotonic() - began < 300
