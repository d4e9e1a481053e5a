"""The ladder of count cards by mouse and by keyboard, in the browser."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import answered


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


def test_a_card_whose_answer_was_lost_is_shown_and_is_there_once_when_it_is_kept_again(inside: Page) -> None:
    to_cards(inside)
    before = inside.get_by_test_id("card-row").count()

    def lose(route: Route) -> None:
        if route.request.method == "POST" and not lost:
            lost.append(answered(route).status)
            route.fulfill(status=408)  # what a broken line leaves: no answer of the program's own
        else:
            route.continue_()

    lost: list[int] = []
    inside.route("**/api/cards", lose)
    inside.keyboard.press("a")
    inside.get_by_label("Name of the rung").fill("sent twice")
    inside.get_by_role("button", name="Keep this card").click()
    expect(inside.get_by_role("alert")).to_contain_text("does not answer")
    expect(inside.get_by_test_id("card-row")).to_have_count(before + 1)  # it was done all the same
    inside.get_by_role("button", name="Keep this card").click()
    inside.get_by_role("button", name="Delete this card").wait_for()
    expect(inside.get_by_label("Name of the rung")).to_have_value("sent twice")
    expect(inside.get_by_test_id("card-row")).to_have_count(before + 1)
    assert lost == [201]
    inside.get_by_role("button", name="Delete this card").click()
    expect(inside.get_by_test_id("card-row")).to_have_count(before)


def test_a_hold_is_made_in_counts_like_a_breath_and_planned_like_one(inside: Page) -> None:
    to_cards(inside)
    before = inside.get_by_test_id("card-row").count()
    inside.keyboard.press("a")
    inside.get_by_role("button", name="hold", exact=True).click()
    expect(inside.get_by_role("button", name="Out without end")).to_have_count(0)
    keeps = inside.get_by_role("slider", name="keep it there")
    keeps.focus()
    inside.keyboard.press("ArrowRight")
    expect(keeps).to_have_attribute("aria-valuetext", "5 beats")
    inside.keyboard.press("Enter")
    row = inside.get_by_test_id("card-row").filter(has_text="hold 2-5-2 at 66")
    expect(row).to_have_attribute("aria-current", "true")
    expect(inside.get_by_label("Name of the rung")).to_have_value("up to the mouth")  # beside the hold that was there
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Plan a lesson").click()
    expect(inside.get_by_label("Count card")).to_contain_text("hold 2-5-2 at 66")
    inside.get_by_role("link", name="Cards").click()
    row.click()
    inside.get_by_role("button", name="Delete this card").click()
    expect(inside.get_by_test_id("card-row")).to_have_count(before)


def test_a_drill_says_what_is_played_how_it_is_judged_and_who_may_lie_down_for_it(inside: Page) -> None:
    to_cards(inside)
    inside.keyboard.press("a")
    inside.get_by_role("button", name="drill", exact=True).click()
    inside.get_by_role("button", name="With the instrument").click()
    inside.get_by_role("textbox", name="Notes").fill("concert B flat")
    inside.get_by_label("How loud").select_option("soft")
    inside.get_by_label("Breathing out").select_option("in small pushes")
    inside.get_by_label("Between in and out").select_option("a counted pause")
    inside.get_by_label("Between in and out").select_option("as we teach")
    inside.get_by_label("Position").select_option("standing")
    told = "concert B flat, soft; in small pushes"
    expect(inside.get_by_text(f"This card: {told}.")).to_be_visible()
    inside.get_by_role("button", name="Out without end").click()
    inside.get_by_role("button", name="Keep this card").click()
    expect(inside.get_by_role("alert")).to_contain_text("done seated")
    inside.get_by_role("button", name="Out without end").click()
    inside.get_by_role("button", name="Keep this card").click()
    row = inside.get_by_test_id("card-row").filter(has_text="drill")
    expect(row).to_have_attribute("aria-current", "true")
    expect(row).to_contain_text("standing")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.get_by_label("Position").select_option("lying on a mat")
    inside.get_by_role("button", name="Keep this card").click()
    expect(row).to_contain_text("lying on a mat")
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Plan a lesson").click()
    asked = inside.get_by_label("Count card")
    asked.select_option(asked.get_by_role("option").filter(has_text="drill").get_attribute("value"))
    expect(inside.get_by_text("No family's yes to being filmed lying down is on record")).to_be_visible()
    expect(inside.get_by_role("button", name="Open the lesson")).to_be_disabled()
    inside.get_by_role("link", name="Cards").click()
    row.click()
    inside.get_by_role("button", name="Delete this card").click()


def test_what_a_card_asks_beside_its_count_is_told_on_the_chair_and_before_the_count_in(inside: Page) -> None:
    today = inside.evaluate("async () => (await fetch('/api/today')).json()")
    full = {"with_instrument": True, "notes": "concert B flat", "dynamic": "soft", "taught": {"breathing_out": "small_pushes"}, "position": "lying"}
    for seat in today["lesson"]["seats"]:
        seat["check"] |= full
        seat["student"]["may_lie"] = seat["student"]["may_film_until"] is not None
    inside.route("**/api/today", lambda route: route.fulfill(json=today))
    inside.reload()
    expect(inside.get_by_text("concert B flat, soft; in small pushes")).to_be_visible()
    expect(inside.get_by_text("lying on a mat, ")).to_be_visible()
    inside.keyboard.press("f")
    expect(inside.get_by_text("This card: concert B flat, soft; in small pushes.")).to_be_visible()


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
    inside.get_by_role("button", name="Make a link").wait_for()
    inside.get_by_role("region", name="Invite").get_by_label("Name").fill("Nia Newcomer")
    inside.get_by_role("button", name="Make a link").click()
    expect(inside.get_by_role("status").filter(has_text="Nia Newcomer")).to_contain_text("/invited#")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.get_by_label("Keep them").select_option(label="a year")
    expect(inside.get_by_text("Nothing is older than that now.")).to_be_visible()
    inside.get_by_role("button", name="Keep them so").click()
    expect(inside.get_by_text("Kept so from now on.")).to_be_visible()
    inside.get_by_label("Keep them").select_option(label="a week")
    inside.get_by_role("button", name="Keep them so").click()  # the demo's clip of last week goes only where somebody says so again
    expect(inside.get_by_role("alertdialog")).to_contain_text("cannot be taken back")
    inside.get_by_role("button", name="Leave it as it is").click()
    inside.get_by_label("Keep them").select_option(label="until somebody deletes them")
    inside.get_by_role("button", name="Keep them so").click()
    expect(inside.get_by_text("Kept so from now on.")).to_be_visible()


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


def test_sets_and_both_sides_are_made_kept_and_told_in_seconds(inside: Page) -> None:
    to_cards(inside)
    inside.get_by_test_id("card-row").filter(has_text="4-0-8 at 72").click()
    inside.keyboard.press("a")
    for _ in range(2):
        inside.get_by_role("button", name="Add a set").click()
    sets = inside.get_by_role("region", name="The sets").get_by_role("row")
    expect(sets).to_have_count(4)  # three of them under their heading
    expect(sets.nth(3)).to_contain_text("1.67 s")  # a beat less to breathe in each time: two at 72
    expect(inside.get_by_text("the inhale shrinks by 1 beat, the exhale stays")).to_be_visible()
    inside.get_by_role("button", name="set 2").click()
    inside.get_by_role("slider", name="breathe out").press("ArrowLeft")
    expect(sets.nth(2)).to_contain_text("5.83 s")  # the one that is open changes, the others stay
    expect(sets.nth(1)).to_contain_text("6.67 s")
    expect(inside.get_by_text("rest 30 s").first).to_be_visible()
    inside.get_by_label("Both sides on purpose").select_option("high, then low")
    expect(inside.get_by_role("textbox", name="breaths")).to_have_value("4")  # as many for each side
    inside.get_by_role("button", name="With the instrument").click()
    inside.get_by_role("button", name="Their full breath").click()
    expect(inside.get_by_text("a student's others are held against it")).to_be_visible()
    inside.get_by_role("button", name="Keep this card").click()
    row = inside.get_by_test_id("card-row").filter(has_text="3 sets")
    expect(row).to_have_attribute("aria-current", "true")
    inside.reload()
    row.click()
    expect(sets).to_have_count(4)
    expect(inside.get_by_label("Both sides on purpose")).to_have_value("high_low")
    for switched in ("With the instrument", "Their full breath"):
        expect(inside.get_by_role("button", name=switched)).to_have_attribute("aria-pressed", "true")
    inside.get_by_role("button", name="Take the last one away").click()
    expect(sets).to_have_count(3)
    inside.get_by_role("button", name="As it was").click()
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.get_by_role("button", name="Delete this card").click()
    expect(row).to_have_count(0)


def test_a_demonstration_is_chosen_shown_and_taken_away(inside: Page, short) -> None:
    to_cards(inside)
    mine = inside.get_by_role("region", name="Your demonstration")
    mine.locator("input[type=file]").set_input_files(short("seated-chest-high.mp4"))
    shown = mine.get_by_label("Your demonstration")
    expect(shown).to_be_visible(timeout=30_000)
    inside.wait_for_function("() => document.querySelector('section[aria-label=\"Your demonstration\"] video')?.duration > 5")
    expect(inside.get_by_role("button", name="Keep this card")).to_be_disabled()  # the card itself is as it was
    mine.get_by_role("button", name="Take it away").click()
    expect(shown).to_have_count(0)


def test_a_familys_no_stands_in_the_class_and_is_not_asked_again(inside: Page) -> None:
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Plan a lesson").wait_for()  # Today has a chair of that name as well
    inside.get_by_role("button", name="Priya").click()
    inside.keyboard.press("k")
    inside.get_by_role("group", name="to show it in class").get_by_label("no", exact=True).check()
    inside.get_by_role("button", name="Put it on record").click()
    row = inside.get_by_role("row", name="Priya Venkataraman")
    expect(row).to_contain_text("said no")
    expect(inside.get_by_role("button", name="Print 2 letters")).to_be_visible()  # of those whose answer is missing; hers is not


def test_what_another_screen_keeps_is_shown_where_nothing_was_changed_here(inside: Page) -> None:
    to_cards(inside)
    other = inside.context.new_page()
    other.goto("/cards")
    for page in (inside, other):
        page.get_by_test_id("card-row").first.click()
    name = inside.get_by_label("Name of the rung")
    was = name.input_value()
    theirs = other.get_by_label("Name of the rung")
    theirs.fill("a calm one")
    other.get_by_role("button", name="Keep this card").click()
    expect(name).to_have_value("a calm one")
    expect(inside.get_by_role("button", name="Keep this card")).to_be_disabled()  # nothing was changed here
    inside.get_by_label("Words of the count-in").fill("one two ready in")
    theirs.fill(was)
    other.get_by_role("button", name="Keep this card").click()
    inside.get_by_role("heading", name=was, level=2).wait_for()  # the ladder follows
    expect(inside.get_by_label("Words of the count-in")).to_have_value("one two ready in")  # what was begun here stays
    expect(name).to_have_value("a calm one")
    inside.get_by_role("button", name="As it was").click()
    expect(name).to_have_value(was)
    expect(inside.get_by_label("Words of the count-in")).to_have_value("")
