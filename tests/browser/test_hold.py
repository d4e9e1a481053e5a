"""The hold of a clip: stills, the way of the hands, what no camera sees, and the breath one key apart."""

import re

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.conftest import fits, to_take


def to_hold(page: Page) -> None:
    to_take(page, "Saskia")
    page.get_by_test_id("hands-line").wait_for()


def test_a_hold_opens_with_the_instrument_up_and_each_still_leads_to_its_moment(inside: Page) -> None:
    row = inside.get_by_test_id("take-row").filter(has_text="Saskia").first
    expect(row).to_contain_text("each raise lands elsewhere")
    row.click()
    inside.get_by_test_id("hands-line").wait_for()
    expect(inside.get_by_text("trumpet · hold")).to_be_visible()
    expect(inside.get_by_test_id("hands-line")).to_contain_text("at the mouth, three times")
    inside.wait_for_function("() => document.querySelector('video[aria-label^=Clip]').currentTime > 2")
    for criterion, words in (("axis_level", "24"), ("head_travel", "% of trunk"), ("raise_spread", "% of trunk")):
        expect(inside.get_by_test_id(f"verdict-{criterion}")).to_contain_text(words)
    inside.get_by_role("button", name=re.compile("^rest, ")).click()
    inside.wait_for_function("() => document.querySelector('video[aria-label^=Clip]').currentTime < 2")
    expect(inside.get_by_text("not sure")).to_have_count(0)
    for kept in ("rest", "raising", "playing", "the mouth", "the hands", "the back", "the instrument at rest"):
        assert inside.get_by_alt_text(kept, exact=True).evaluate("picture => picture.decode().then(() => picture.naturalWidth)") > 0
    expect(inside.locator("video")).to_have_count(1)
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()


def test_all_of_a_hold_is_seen_at_once_the_words_before_the_number_and_a_phone_shows_four_rows(desk: Page) -> None:
    to_hold(desk)
    rows = desk.locator("[data-testid^=verdict-]")
    expect(rows).to_have_count(9)
    expect(desk.get_by_role("button", name="All 9")).to_have_count(0)
    last, ticks = rows.last.bounding_box(), desk.get_by_role("heading", name="What no camera sees").bounding_box()
    assert last is not None and ticks is not None and last["y"] + last["height"] < ticks["y"] < 640
    word, number = (rows.first.locator(part).bounding_box() for part in (".word", ".value"))
    assert word is not None and number is not None and word["x"] < number["x"]
    desk.set_viewport_size({"width": 390, "height": 844})
    expect(rows).to_have_count(4)
    desk.get_by_role("button", name="All 9").click()
    expect(rows).to_have_count(9)


def test_posture_is_told_for_rest_for_the_raise_and_for_playing_and_each_leads_to_its_moment(desk: Page) -> None:
    to_hold(desk)
    desk.get_by_test_id("verdict-trunk_inclination").click()
    parts = desk.get_by_test_id("segments-trunk_inclination").get_by_role("button")
    expect(parts).to_have_text([re.compile(f"^{part}[0-9.]+° forward") for part in ("at rest", "raising", "breathing in", "breathing out", "playing")])
    said = desk.evaluate("async () => (await (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json())")
    for kind, part in (("instrument_down", parts.first), ("playing", parts.last)):
        expect(part).to_contain_text(f"{said['posture']['trunk_inclination_deg']['by_segment'][kind]:.1f}°")
        part.click()
        longest = max((one for one in said["segments"] if one["kind"] == kind), key=lambda one: one["to_s"] - one["from_s"])
        middle_s = (longest["from_s"] + longest["to_s"]) / 2
        desk.wait_for_function(f"() => Math.abs(document.querySelector('video[aria-label^=Clip]').currentTime - {middle_s}) < 0.1")


def test_a_take_of_whose_moments_no_picture_was_kept_shows_the_clip_itself_there(desk: Page) -> None:
    desk.route("**/stills/*", lambda route: route.fulfill(status=404))
    to_hold(desk)
    for moment in ("rest", "raising", "playing", "the mouth"):
        expect(desk.locator(f"video[aria-label='{moment}']")).to_be_visible()


def test_a_still_s_ring_is_dragged_or_moved_by_arrows_to_another_moment(desk: Page) -> None:
    to_hold(desk)
    expect(desk.get_by_test_id("axis")).to_have_attribute("data-marked", "watch")  # 24 degrees are "just about": in pencil
    ring = desk.get_by_test_id("ring-rest").locator("circle").last
    before = desk.get_by_role("button", name=re.compile("^rest, ")).get_attribute("aria-label")
    box = ring.bounding_box()
    assert box is not None
    desk.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    desk.mouse.down()
    desk.mouse.move(box["x"] + 200, box["y"], steps=4)
    desk.mouse.up()
    moved = desk.get_by_role("button", name=re.compile("^rest, ")).get_attribute("aria-label")
    assert moved != before and desk.locator("video[aria-label='rest']").count() == 1  # of that moment no picture was kept
    seconds = float(re.sub(r"[^\d.]", "", moved or ""))
    desk.wait_for_function(f"() => Math.abs(document.querySelector('video[aria-label^=Clip]').currentTime - {seconds}) < 0.2")
    desk.mouse.move(box["x"] - 300, box["y"])  # let go is let go
    slider = desk.get_by_label("rest: moment of the still, seconds")
    slider.focus()
    desk.keyboard.press("ArrowLeft")
    expect(desk.get_by_role("button", name=f"rest, {seconds - 0.1:.1f} s")).to_be_visible()


def test_what_no_camera_sees_is_tapped_once_twice_thrice_and_kept(desk: Page) -> None:
    to_hold(desk)
    row = desk.get_by_test_id("tick-right_little")
    on_picture = desk.get_by_test_id("mark-right_little")
    for said in ("fine", "not yet", "not looked at"):
        on_picture.click()
        expect(row).to_contain_text(said)
        expect(on_picture).to_have_accessible_name(re.compile(f"on the picture, Right little finger: {said}"))
    row.focus()
    for said in ("fine", "not yet", "not looked at", "fine"):
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):  # kept, before the page is loaded anew
            desk.keyboard.press("Enter")
        expect(row).to_contain_text(said)
    expect(desk.get_by_text("1 of 12 looked at")).to_be_visible()
    expect(desk.get_by_test_id("tick-at_rest")).to_contain_text("bell down on the thigh")
    expect(desk.get_by_alt_text("the instrument at rest")).to_be_visible()
    desk.reload()
    expect(desk.get_by_test_id("tick-right_little")).to_contain_text("fine")


def test_a_tap_is_kept_though_the_page_is_loaded_anew_at_once(desk: Page) -> None:
    to_hold(desk)
    row = desk.get_by_test_id("tick-left_ring")
    for said in ("fine", "not yet", "not looked at"):  # and nothing of it is left for the other tests
        row.press("Enter")
        desk.reload()
        expect(row).to_contain_text(said)


def test_a_tick_is_seen_on_another_screen_that_shows_the_same_take(desk: Page) -> None:
    to_hold(desk)
    other = desk.context.new_page()
    other.goto(desk.url)
    for said in ("fine", "not yet", "not looked at"):  # and nothing of it is left for the other tests
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):
            desk.get_by_test_id("tick-left_ring").press("Enter")
        expect(other.get_by_test_id("tick-left_ring")).to_contain_text(said)
    other.close()


def test_the_breath_is_one_key_away(desk: Page) -> None:
    to_hold(desk)
    desk.keyboard.press("i")
    expect(desk.get_by_test_id("breath-score")).to_be_visible()
    expect(desk.get_by_test_id("hands-line")).to_have_count(0)
    desk.keyboard.press("i")
    expect(desk.get_by_test_id("hands-line")).to_be_visible()


def test_a_hold_fits_a_phone(desk: Page) -> None:
    to_hold(desk)
    desk.set_viewport_size({"width": 390, "height": 844})
    fits(desk, 390)


def test_a_verdict_that_is_seen_otherwise_is_overruled_with_a_reason_and_taken_back(desk: Page) -> None:
    to_hold(desk)
    row = desk.get_by_test_id("verdict-head_travel")
    row.click()
    otherwise = desk.get_by_role("group", name="Head while raising: you see it otherwise")
    otherwise.get_by_label("You see it otherwise? Why").fill("the chair tips")
    otherwise.get_by_role("button", name="steady").click()
    expect(row).to_contain_text("you say steady")
    expect(desk.get_by_text("because the chair tips")).to_be_visible()
    with desk.expect_response(lambda answered: answered.request.method == "PUT"):
        desk.get_by_role("button", name="Take that back").click()
    expect(row).to_contain_text("just about")


def test_a_word_on_the_only_fault_changes_the_line_in_the_list(desk: Page) -> None:
    to_hold(desk)
    address = desk.url
    desk.get_by_test_id("verdict-raise_spread").click()
    otherwise = desk.get_by_role("group", name=re.compile("you see it otherwise"))
    with desk.expect_response(lambda answered: answered.request.method == "PUT"):
        otherwise.get_by_role("button", name="steady").click()
    desk.goto("/")
    expect(desk.get_by_test_id("take-row").filter(has_text="Saskia").first).not_to_contain_text("each raise lands elsewhere")
    desk.goto(address)
    desk.get_by_test_id("verdict-raise_spread").click()
    with desk.expect_response(lambda answered: answered.request.method == "PUT"):
        desk.get_by_role("button", name="Take that back").click()
    desk.goto("/")
    expect(desk.get_by_test_id("take-row").filter(has_text="Saskia").first).to_contain_text("each raise lands elsewhere")


def test_what_helps_names_the_equipment_first_and_keeps_what_fitted_by_keys_alone(desk: Page) -> None:
    to_hold(desk)
    expect(desk.get_by_text("first look at the chair")).to_be_visible()
    desk.keyboard.press("t")
    sheet = desk.get_by_role("dialog", name="What helps")
    chair = sheet.get_by_role("group", name="Chair")
    expect(chair).to_contain_text("fitted on")  # of an earlier lesson
    expect(sheet).to_contain_text("Bring the instrument up with your eyes shut")
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()
    desk.keyboard.press("Shift+Tab")  # from the way back to what was kept
    desk.keyboard.press("Shift+Tab")
    desk.keyboard.press("ArrowUp")
    with desk.expect_response(lambda answered: answered.request.method == "PUT" and "/fits" in answered.url):
        chair.get_by_role("button", name="It fits").press("Enter")
    expect(chair.get_by_role("button", name="Take back")).to_be_visible()
    desk.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    assert [one["value"] for one in desk.evaluate(OWN_FITS)] == [44]
    desk.reload()
    desk.get_by_role("button", name="The drill for it").click()
    expect(chair.get_by_role("textbox")).to_have_value("44")
    with desk.expect_response(lambda answered: answered.request.method == "PUT"):
        chair.get_by_role("button", name="Take back").click()
    expect(chair).not_to_contain_text("fitted on")
    assert desk.evaluate(OWN_FITS) == []


OWN_FITS = """async () => { const take = await (await fetch(location.pathname.replace('/take/', '/api/takes/'))).json();
    return (await (await fetch(`/api/students/${take.student.id}/fits`)).json()).fits; }"""


def test_the_instrument_s_line_is_set_by_two_taps_or_by_arrows_and_taken_back(desk: Page) -> None:
    to_hold(desk)
    angle = desk.get_by_test_id("axis").locator("text")
    read = angle.text_content()
    desk.keyboard.press("p")
    expect(desk.get_by_role("status").filter(has_text="Tap where it meets the mouth")).to_be_visible()
    desk.keyboard.press("Enter")  # at the mouth, as it was seen
    expect(desk.get_by_role("status").filter(has_text="Now tap its far end")).to_be_visible()
    for _ in range(6):
        desk.keyboard.press("Shift+ArrowRight")
    for _ in range(6):
        desk.keyboard.press("Shift+ArrowDown")
    with desk.expect_response(lambda answered: answered.request.method == "PUT" and answered.url.endswith("/edits")):
        desk.keyboard.press("Enter")
    expect(angle).to_have_text("45°")
    expect(desk.get_by_test_id("verdict-axis_level")).to_contain_text("45")
    desk.reload()
    expect(angle).to_have_text("45°")
    desk.get_by_role("button", name="Take the line back").click()
    expect(angle).to_have_text(read)
    desk.get_by_role("button", name="Set its line").click()
    box = desk.get_by_role("application").bounding_box()
    desk.keyboard.press("Escape")
    expect(desk.get_by_role("application")).to_have_count(0)
    desk.keyboard.press("p")
    mouth = desk.evaluate(MOUTH)
    at = [box[side] + share * box[length] for side, share, length in zip("xy", mouth, ("width", "height"), strict=True)]
    desk.mouse.click(*at)
    with desk.expect_response(lambda answered: answered.request.method == "PUT" and answered.url.endswith("/edits")):
        desk.mouse.click(at[0] + 90, at[1])
    expect(angle).to_have_text("0°")
    desk.keyboard.press("p")
    expect(angle).to_have_text(read)


MOUTH = """async () => { const report = await (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json();
    const [x, y] = report.hold.hands.stills.at(-1).mouth_px; return [x / report.clip.width_px, y / report.clip.height_px]; }"""


def test_the_cue_has_other_words_and_those_that_were_said_stay(desk: Page) -> None:
    to_hold(desk)
    cue = desk.locator("p.text")
    expect(cue).to_contain_text("as if it had a parking spot")
    expect(desk.get_by_role("button", name="other words")).to_be_visible()
    desk.keyboard.press("o")
    expect(cue).to_have_text("Find the same place with your eyes shut.")
    desk.get_by_role("button", name="other words").click()
    expect(cue).to_contain_text("parking spot")  # round and back
    desk.keyboard.press("o")
    other = desk.context.new_page()
    other.goto(desk.url)
    other.get_by_role("button", name="I said it").wait_for()
    with desk.expect_response(lambda answered: answered.request.method == "POST" and answered.url.endswith("/cue")):
        desk.keyboard.press("v")
    expect(other.get_by_text("said", exact=True)).to_be_visible()  # so that no second teacher says it again
    other.close()
    expect(desk.get_by_role("button", name="other words")).to_have_count(0)
    expect(cue).to_have_text("Find the same place with your eyes shut.")
    desk.reload()
    expect(cue).to_have_text("Find the same place with your eyes shut.")
    expect(desk.get_by_text("said", exact=True)).to_be_visible()


def test_what_is_drawn_on_the_clip_by_keys_or_by_hand_stays_and_is_rubbed_out_and_put_back(desk: Page) -> None:
    to_hold(desk)
    drawn, rows = desk.get_by_test_id("drawn"), desk.get_by_role("list", name="Drawn on the clip").get_by_role("listitem")
    desk.keyboard.press("m")
    expect(desk.get_by_role("status").filter(has_text="Circle: tap its middle")).to_be_visible()
    desk.keyboard.press("Enter")
    for _ in range(3):
        desk.keyboard.press("Shift+ArrowRight")
    desk.keyboard.press("Enter")
    expect(rows).to_have_text([re.compile("Circle")])
    expect(drawn.locator("circle")).to_have_count(2)  # in pencil, with its dark edge
    desk.get_by_role("button", name="Arrow").click()
    box = desk.get_by_role("application").bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    desk.mouse.move(*middle)
    desk.mouse.down()
    desk.mouse.move(middle[0] + 60, middle[1] + 20, steps=3)
    desk.mouse.up()
    expect(rows).to_have_count(2)
    desk.keyboard.press("n")
    desk.mouse.click(*middle)
    desk.get_by_label("The note").fill("  ")
    desk.keyboard.press("Enter")
    expect(rows).to_have_count(2)  # a note without words is none
    desk.get_by_label("The note").fill("this wrist")
    desk.keyboard.press("Enter")
    expect(rows).to_have_count(3)
    desk.keyboard.press("Escape")
    expect(desk.get_by_role("application")).to_have_count(0)
    desk.reload()
    expect(rows).to_have_text([re.compile("Circle"), re.compile("Arrow"), re.compile("this wrist")])
    expect(drawn.locator("text")).to_have_text("this wrist")
    desk.keyboard.press("i")
    desk.get_by_role("button", name="Play").click()
    expect(drawn.locator("circle")).to_have_count(0)  # it belongs to its moment
    rows.first.get_by_role("button").first.click()
    expect(desk.get_by_role("button", name="Play")).to_be_visible()  # and stops there, else it would be gone before it was seen
    expect(drawn.locator("text")).to_have_text("this wrist")
    desk.get_by_role("button", name="Rub out: this wrist").click()
    expect(rows).to_have_text([re.compile("Circle"), re.compile("Arrow"), re.compile("this wrist rubbed out")])
    desk.get_by_role("button", name="Put it back").click()
    expect(desk.get_by_role("button", name="Rub out: this wrist")).to_be_visible()
    for name in ("this wrist", "Arrow", "Circle"):
        desk.get_by_role("button", name=f"Rub out: {name}").click()
    expect(drawn.locator("*")).to_have_count(0)
