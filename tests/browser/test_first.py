"""A new teacher in an empty house: led from the programme's name to the questions, with what is done and how long it took before the eyes."""

import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from brevin.bench.served import served
from tests.browser.conftest import opened

LIST = "name;instrument\nAda Quillane;clarinet\nBo Vantreen;trumpet\nCleo Marsk;flute\nJoe Dunmore;flute\n"


@pytest.fixture
def empty(browser) -> Iterator[Page]:
    with served(empty=True) as server, opened(browser, server.address) as shown:
        yield shown


def test_a_new_teacher_is_led_from_the_name_to_the_questions(empty: Page, tmp_path: Path) -> None:
    ruler = empty.get_by_role("img", name=re.compile("steps are done after"))
    expect(ruler).to_have_attribute("aria-label", re.compile("^0 of 5"))
    empty.get_by_label("What it is called").fill("Alder Lane School, winds")
    expect(ruler).to_have_attribute("aria-label", re.compile("^1 of 5 .*name done, account to come"))
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    empty.get_by_label("Your name").fill("Ines Varga")
    empty.get_by_label("Name to sign in with").fill("ines")
    empty.get_by_label("Password").fill("a long secret one")
    expect(ruler).to_have_attribute("aria-label", re.compile("^2 of 5"))
    empty.keyboard.press("Enter")
    empty.get_by_role("heading", name="Alder Lane School, winds").wait_for()
    names = tmp_path / "class.csv"
    names.write_text(LIST)
    empty.locator("input[type=file]").set_input_files(names)
    expect(empty.get_by_text("class.csv").first).to_be_visible()
    empty.keyboard.press("Enter")
    expect(empty.get_by_text("4 students, 0 may be filmed")).to_be_visible()
    expect(ruler).to_have_attribute("aria-label", re.compile("^3 of 5 .*class list done, five questions to come"))
    empty.keyboard.press("y")
    done = empty.get_by_role("complementary", name="What is done")
    expect(done).to_contain_text("Ines Varga")
    expect(done.get_by_role("row", name=re.compile("flute"))).to_contain_text("2")
    expect(empty.get_by_role("region", name="First lesson")).to_contain_text("4 to hand out")
    assert Axe().run(empty).violations_count == 0, Axe().run(empty).generate_report()
    empty.keyboard.press("u")
    expect(ruler).to_have_attribute("aria-label", re.compile("^4 of 5 .*first lesson to come"))
    empty.reload()
    expect(ruler).to_have_attribute("aria-label", re.compile("^4 of 5"))  # kept as it goes
    empty.evaluate("localStorage.setItem('brevin-first', JSON.stringify({began_ms: 0, done_ms: {}}))")
    empty.reload()
    expect(empty.get_by_role("heading", name="All five questions are answered.")).to_be_visible()
    expect(ruler).to_have_count(0)  # a run that was left long ago is none
