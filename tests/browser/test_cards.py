"""The ladder of count cards by mouse and by keyboard, in the browser."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect


def to_cards(page: Page) -> None:
    page.keyboard.press("j")
    page.get_by_role("heading", name="Count cards").wait_for()


def test_a_card_is_made_by_its_corners_kept_and_asked_in_the_next_lesson(inside: Page) -> None:
    to_cards(inside)
    inside.keyboard.press("a")
    tip = inside.get_by_role("slider", name="breathe out")
    tip.focus()
    inside.keyboard.press("ArrowRight")
    inside.keyboard.press("Shift+ArrowRight")
    expect(tip).to_have_attribute("aria-valuetext", "5.25 beats")
    corner = inside.get_by_role("slider", name="wait before out")
    place = corner.bounding_box()
    assert place
    inside.mouse.move(place["x"] + place["width"] / 2, place["y"] + place["height"] / 2)
    inside.mouse.down()
    inside.mouse.move(place["x"] + 70, place["y"], steps=4)
    inside.mouse.up()
    expect(corner).to_have_attribute("aria-valuetext", "1 beats")
    inside.get_by_label("Words of the count-in").fill("one two ready and in")
    expect(inside.get_by_text('the breath starts on "in"')).to_be_visible()
    inside.get_by_role("button", name="Keep this card").click()
    row = inside.get_by_test_id("card-row").filter(has_text="2-1-5.25 at 66")
    expect(row).to_have_attribute("aria-current", "true")
    inside.reload()
    expect(row).to_have_count(1)
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Plan a lesson").click()
    expect(inside.get_by_label("Count card")).to_contain_text("2-1-5.25 at 66")
    inside.keyboard.press("Escape")


def test_a_changed_card_goes_back_to_what_it_was_and_a_deleted_one_goes(inside: Page) -> None:
    to_cards(inside)
    inside.keyboard.press("ArrowDown")
    inside.get_by_role("slider", name="breathe in").press("ArrowRight")
    expect(inside.get_by_role("button", name="Keep this card")).to_be_enabled()
    inside.get_by_role("button", name="As it was").click()
    expect(inside.get_by_role("button", name="Keep this card")).to_be_disabled()
    before = inside.get_by_test_id("card-row").count()
    inside.get_by_test_id("card-row").last.click()
    inside.get_by_role("button", name="Delete this card").click()
    expect(inside.get_by_test_id("card-row")).to_have_count(before - 1)


def test_cards_and_people_can_be_used_by_everybody(inside: Page) -> None:
    to_cards(inside)
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.get_by_role("link", name="People").click()
    inside.get_by_label("Name").fill("Nia Newcomer")
    inside.get_by_role("button", name="Make a link").click()
    expect(inside.get_by_role("status").filter(has_text="Nia Newcomer")).to_contain_text("/invited#")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()


def test_somebody_who_was_invited_comes_in_with_a_name_of_their_own(inside: Page, page: Page) -> None:
    link = inside.evaluate(
        """async () => { const me = await (await fetch('/api/me')).json(); return (await (await fetch('/api/invitations', {method: 'POST',
        headers: {'X-CSRFToken': me.csrf, 'Content-Type': 'application/json'}, body: JSON.stringify({name: 'Nia N', role: 'assistant'})})).json()).link }"""
    )
    page.goto(link)
    page.get_by_label("Name to sign in with").fill("nia")
    page.get_by_label("Password").fill("ten letters or more")
    page.get_by_role("button", name="Come in").click()
    page.get_by_role("heading", name="Just read").wait_for()
    expect(page.get_by_role("link", name="People")).to_have_count(0)
