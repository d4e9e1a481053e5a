"""More than one programme: made, gone between by the menu in the bar, named, and come into by a link with the account that is there."""

import re

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect


def menu(page: Page, *keys: str) -> None:
    """Open the menu and walk it by keys alone."""
    page.get_by_role("button", name=re.compile("^Programme: ")).focus()
    for key in ("Enter", *keys):
        page.keyboard.press(key)


def test_one_more_programme_is_made_and_left_again_by_keys_alone(desk: Page) -> None:
    desk.goto("/")
    desk.get_by_test_id("take-row").first.wait_for()
    first = desk.get_by_role("button", name=re.compile("^Programme: ")).text_content()
    menu(desk, "End", "Enter")
    asked = desk.get_by_role("dialog", name="One more programme")
    expect(asked.get_by_label("What it is called")).to_be_focused()
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()
    desk.keyboard.type("Evenings at the pier")
    desk.keyboard.press("Enter")
    expect(desk.get_by_role("button", name="Programme: Evenings at the pier")).to_be_visible()
    expect(desk.get_by_test_id("take-row")).to_have_count(0)
    menu(desk)
    expect(desk.get_by_role("menuitemradio", checked=True)).to_have_text(re.compile("Evenings at the pier"))
    desk.keyboard.press("Escape")
    menu(desk, "End", "Enter")
    desk.keyboard.type("evenings AT the pier")
    desk.keyboard.press("Enter")
    expect(asked.get_by_role("alert")).to_contain_text("called so already")
    desk.keyboard.press("Escape")
    beside = desk.context.new_page()
    beside.goto("/people")
    expect(beside.get_by_role("button", name="Programme: Evenings at the pier")).to_be_visible()
    desk.route("**/api/programme", lambda route: route.fulfill(status=404, json={"code": "not_there", "message": "It is not there any more."}))
    menu(desk, "Home", "Enter")
    expect(desk.get_by_role("alert")).to_have_text("It is not there any more.")
    desk.keyboard.press("Escape")
    desk.unroute("**/api/programme")
    menu(desk, "Home", "Enter")
    expect(desk.get_by_role("button", name=f"Programme: {first}")).to_be_visible()
    desk.get_by_test_id("take-row").first.wait_for()
    expect(beside.get_by_role("button", name=f"Programme: {first}")).to_be_visible()  # what stands open beside it goes along
    beside.close()


def test_it_is_called_otherwise_and_its_clock_is_set(desk: Page) -> None:
    desk.goto("/people")
    here = desk.get_by_role("region", name="This programme")
    name, zone = here.get_by_label("What it is called"), here.get_by_label("Time zone")
    before = name.input_value(), zone.input_value()
    other = desk.context.new_page()
    other.goto("/people")
    there = other.get_by_role("region", name="This programme")
    there.get_by_label("Time zone").select_option("Europe/Riga")  # begun there, and kept back until somebody presses
    name.fill("Saltmarsh mornings")
    zone.select_option("Europe/Lisbon")
    here.get_by_role("button", name="Keep it").click()
    expect(here.get_by_role("status")).to_have_text("Kept.")
    expect(desk.get_by_role("button", name="Programme: Saltmarsh mornings")).to_be_visible()
    expect(there.get_by_label("What it is called")).to_have_value("Saltmarsh mornings")
    expect(there.get_by_label("Time zone")).to_have_value("Europe/Riga")
    there.get_by_role("button", name="Keep it").click()
    expect(zone).to_have_value("Europe/Riga")
    expect(name).to_have_value("Saltmarsh mornings")  # which the other screen did not put back
    other.close()
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()
    name.fill(before[0])
    zone.select_option(before[1])
    here.get_by_role("button", name="Keep it").click()
    expect(here.get_by_role("status")).to_have_text("Kept.")


def test_who_is_signed_in_needs_no_second_account_to_come_in(desk: Page) -> None:
    desk.goto("/people")
    invite = desk.get_by_role("region", name="Invite")
    invite.get_by_label("Name").fill("Nobody new")
    invite.get_by_role("button", name="Make a link").click()
    link = invite.get_by_role("status").locator("output").text_content()
    desk.goto(link)
    desk.get_by_role("button", name=re.compile("^Come in as ")).click()
    expect(desk.get_by_role("alert")).to_contain_text("You belong to this programme already")
