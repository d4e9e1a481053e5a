"""A student's record in the browser: reached by their name, read by days, every mark a way to its take, and nothing of it where the class can see."""

import re
import zipfile

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.conftest import fits

NOOR = re.compile("^Noor")


def to_record(page: Page) -> None:
    page.get_by_test_id("take-row").filter(has_text="Noor Haddadi").first.click()
    page.get_by_role("link", name="Noor Haddadi").click()
    page.get_by_role("region", name="The record by days").wait_for()


def test_the_record_stands_by_days_and_each_mark_leads_to_its_take(inside: Page) -> None:
    to_record(inside)
    record = inside.get_by_role("region", name="The record by days")
    expect(record.get_by_role("columnheader")).to_have_count(3)
    expect(inside.get_by_text("oboe · 3 takes on 3 days")).to_be_visible()
    expect(inside.get_by_role("complementary", name="What comes next")).to_contain_text("third lesson running")
    leads = inside.get_by_test_id("row-abdomen_leads")
    expect(leads.get_by_role("link")).to_have_count(3)
    expect(leads).to_contain_text("% belly")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    rows = record.get_by_role("row").count()
    inside.get_by_role("button", name=re.compile("^All [0-9]+ rows")).click()
    assert record.get_by_role("row").count() > rows
    leads.get_by_role("link").first.focus()
    inside.keyboard.press("Enter")
    expect(inside.get_by_test_id("verdict-abdomen_leads")).to_be_visible()
    expect(inside.get_by_test_id("record")).to_have_count(0)  # the oldest has nothing before it


def test_an_open_record_follows_a_take_that_another_screen_gives_to_somebody_else(inside: Page) -> None:
    to_record(inside)
    expect(inside.get_by_text("3 takes on 3 days")).to_be_visible()
    other = inside.context.new_page()
    other.goto("/")
    other.get_by_test_id("take-row").filter(has_text="Noor Haddadi").first.click()
    for name, left in ((re.compile("^Amaru"), "2 takes on 2 days"), (NOOR, "3 takes on 3 days")):
        other.get_by_role("button", name=re.compile(r"^Not .*\?")).wait_for()
        other.keyboard.press("w")
        other.get_by_role("option", name=name).click()
        expect(inside.get_by_text(left)).to_be_visible()
        expect(other.get_by_role("dialog")).to_have_count(0)


def test_the_record_is_reached_from_the_class_and_says_where_there_is_none(inside: Page) -> None:
    inside.keyboard.press("b")
    inside.get_by_role("button", name=NOOR).click()
    inside.keyboard.press("r")
    expect(inside.get_by_role("heading", name="Noor Haddadi")).to_be_visible()
    inside.keyboard.press("f")
    expect(inside).to_have_url(re.compile("/film/"))  # the chair is in today's lesson
    inside.keyboard.press("h")
    inside.keyboard.press("b")
    inside.get_by_role("button", name=re.compile("^Ziva")).click()
    inside.get_by_role("button", name="The record").click()
    expect(inside.get_by_text("Nothing was filmed of this student yet")).to_be_visible()


def test_the_class_sees_nothing_of_a_record_and_a_phone_shows_its_newest_day(inside: Page) -> None:
    to_record(inside)
    inside.keyboard.press("d")
    expect(inside.get_by_role("heading", name="A student's record")).to_be_visible()
    expect(inside.get_by_role("table")).to_have_count(0)
    inside.keyboard.press("d")
    expect(inside.get_by_role("table")).to_be_visible()
    inside.set_viewport_size({"width": 390, "height": 844})
    inside.reload()
    newest = inside.get_by_role("columnheader").last
    newest.wait_for()
    fits(inside, 390)
    box = newest.bounding_box()
    assert box and box["x"] >= 0 and box["x"] + box["width"] <= 391


def test_a_family_is_given_all_that_is_held_and_may_have_it_deleted(inside: Page) -> None:
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Add a student").click()
    inside.get_by_label("Name", exact=True).fill("Ysolde Kettering")
    inside.keyboard.press("Enter")
    inside.get_by_role("button", name=re.compile("^Ysolde")).click()
    inside.keyboard.press("r")
    inside.get_by_role("button", name="Everything about Ysolde").wait_for()
    with inside.expect_download() as given:
        inside.keyboard.press("z")
    with zipfile.ZipFile(given.value.path()) as file:
        assert "Ysolde Kettering" in file.read("tables/student.csv").decode()
    inside.keyboard.press("x")
    asked = inside.get_by_role("alertdialog", name="Delete everything about Ysolde Kettering?")
    expect(asked.get_by_role("button", name="Keep it")).to_be_focused()
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.keyboard.press("Escape")
    expect(inside.get_by_role("heading", name="Ysolde Kettering")).to_be_visible()
    inside.keyboard.press("x")
    inside.keyboard.press("Tab")
    inside.keyboard.press("Enter")
    expect(inside).to_have_url(re.compile("/class$"))
    inside.get_by_role("button", name=NOOR).wait_for()
    expect(inside.get_by_role("button", name=re.compile("^Ysolde"))).to_have_count(0)
