"""What a teacher sees when things are not as they should be."""

import re

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, Route, expect

from brevin.ops import demo
from tests.browser.conftest import NOTHING, ONE_BREATH_S, answered, fits, to_take
from tests.browser.test_main_path import READ_MS, drop, newest

FOLDED = ("Teaching", "People")  # on a phone, or zoomed


def all_read(page: Page) -> None:
    page.wait_for_function(
        "() => document.querySelector('[data-state=read]') && !document.querySelector('[data-state=reading], [data-state=queued]')", timeout=READ_MS
    )


def test_a_wrong_password_says_so_and_keeps_the_name(page: Page) -> None:
    page.get_by_label("Name").fill("teacher")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("not right")
    expect(page.get_by_label("Name")).to_have_value("teacher")


def test_signing_out_leaves_nothing_on_the_page(page: Page) -> None:
    """A sign-in of its own: signing out ends it for good."""
    inside = page
    inside.get_by_label("Name").fill(demo.LOGIN)
    inside.get_by_label("Password").fill(demo.PASSWORD)
    inside.get_by_role("button", name="Sign in").click()
    name = inside.get_by_role("heading", level=2).first.inner_text()
    inside.get_by_role("button", name=re.compile("Sign out")).click()
    expect(inside.get_by_label("Password")).to_be_visible()
    expect(inside.get_by_text(name)).to_have_count(0)
    inside.go_back()
    expect(inside.get_by_text(name)).to_have_count(0)


def test_a_reading_goes_on_while_the_page_is_closed(inside: Page, short) -> None:
    inside.get_by_role("button", name=re.compile("^Kwaku Asantewa")).click()
    drop(inside, short("seated-low-then-wide.mp4", ONE_BREATH_S))
    expect(newest(inside)).to_contain_text("Kwaku Asantewa")
    newest(inside).click()
    expect(inside.get_by_text(re.compile(r"Waiting to be read|\d+ %")).first).to_be_visible()
    address = inside.url
    inside.goto("about:blank")
    inside.wait_for_timeout(3000)
    inside.goto(address)
    expect(inside.get_by_test_id("breath-score")).to_be_visible(timeout=READ_MS)
    expect(inside.get_by_test_id("verdict-abdomen_leads")).to_contain_text("low first")
    # the reading came in while the page was open elsewhere: Today has it without being asked
    inside.keyboard.press("h")
    expect(inside.get_by_role("button", name="Kwaku Asantewa, read")).to_be_visible()


def test_the_front_view_says_what_to_do_and_still_shows_its_shoulders(desk: Page) -> None:
    to_take(desk, "Mirembe")
    expect(desk.get_by_text("film from the side")).to_be_visible()
    expect(desk.get_by_test_id("unreadable")).to_contain_text("abdomen leads")
    expect(desk.get_by_text("shoulders level")).to_be_visible()  # told not to be sure enough, and not left out
    expect(desk.get_by_test_id("verdict-axis_level")).to_be_visible()
    expect(desk.get_by_test_id("breath-score").get_by_text("not seen here")).to_have_count(2)


def test_why_opens_with_limits_and_goes_to_the_evidence(desk: Page) -> None:
    to_take(desk, "Noor")
    desk.wait_for_function("() => document.querySelector('video')?.readyState >= 1")
    before = desk.evaluate("document.querySelector('video').currentTime")
    rows = desk.locator("[data-testid^=verdict-]")
    expect(rows).to_have_count(4)
    desk.keyboard.press("a")
    expect(rows.nth(5)).to_be_visible()
    desk.get_by_test_id("verdict-shoulders_still").click()
    expect(desk.get_by_text(re.compile("The shoulders rose"))).to_be_visible()
    expect(desk.get_by_text(re.compile(r"work on this above 3\.0")).first).to_be_visible()
    desk.wait_for_function(f"() => Math.abs(document.querySelector('video').currentTime - {before}) > 1")
    expect(desk.get_by_test_id("breath-numbers")).to_be_visible()


FRAMES_ASKED = """() => new Promise((tell) => {
    const ask = window.requestAnimationFrame;
    let asked = 0;
    window.requestAnimationFrame = (draw) => (asked++, ask(draw));
    setTimeout(() => { window.requestAnimationFrame = ask; tell(asked); }, 800);
})"""


def test_a_page_that_cannot_be_drawn_says_so_and_leaves_the_way_to_the_others(signed_in: BrowserContext, desk: Page) -> None:
    shown = signed_in.new_page()  # not watched: the browser reports the mistake, and that is what is tried
    shown.goto(NOTHING)
    to_take(shown, "Noor")
    shown.get_by_test_id("breath-score").wait_for(timeout=READ_MS)
    shown.route("**/api/takes/*/report", lambda route: route.fulfill(json={"clip": {}}))
    shown.reload()
    expect(shown.get_by_role("alert")).to_contain_text("This page could not be drawn")
    shown.unroute("**/api/takes/*/report")
    shown.get_by_role("button", name="Try again").click()
    shown.get_by_test_id("breath-score").wait_for()
    shown.route("**/api/takes/*/report", lambda route: route.fulfill(json={"clip": {}}))
    shown.reload()
    shown.get_by_role("button", name="Go to Today").click()
    shown.get_by_role("heading", name="Just read").wait_for()
    shown.close()


def test_a_reading_that_cannot_be_drawn_does_not_stop_the_lesson(signed_in: BrowserContext, desk: Page) -> None:
    """Today shows the last reading of who is next, whoever that is."""
    shown = signed_in.new_page()  # not watched, as above
    shown.route("**/api/takes/*/report", lambda route: route.fulfill(json={"clip": {}}))
    shown.goto("/")
    shown.get_by_role("button", name=re.compile("^Noor Haddadi, ")).click()
    expect(shown.get_by_text("This reading could not be drawn")).to_be_visible()
    film = shown.get_by_role("button", name="Film Noor")
    expect(film).to_be_visible()
    shown.unroute("**/api/takes/*/report")
    shown.reload()
    shown.get_by_role("button", name=re.compile("^Noor Haddadi, ")).click()
    expect(shown.get_by_test_id("breath-score")).to_be_visible()
    film.click()
    shown.wait_for_url("**/film/*")
    shown.close()


def test_where_today_does_not_load_film_says_so_and_not_that_the_chair_is_gone(signed_in: BrowserContext, inside: Page) -> None:
    shown = signed_in.new_page()
    shown.route("**/api/today", lambda route: route.abort())
    shown.goto("/film/1")
    expect(shown.get_by_role("alert")).to_contain_text("Today's lesson did not load", timeout=20_000)
    shown.unroute("**/api/today")
    shown.get_by_role("button", name="Go to Today").click()
    shown.get_by_role("heading", name="Just read").wait_for()
    shown.close()


def test_the_breath_repeats_while_it_plays(desk: Page) -> None:
    to_take(desk, "Jonas", first_of_all=True)
    desk.wait_for_function("() => document.querySelector('video')?.readyState >= 2")
    report = desk.evaluate("async () => (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json()")
    first = report["breaths"][0]
    desk.keyboard.press("1")
    desk.keyboard.press("l")
    desk.wait_for_function("() => !document.querySelector('video').paused")
    expect(desk.get_by_role("button", name="Loop breath 1")).to_have_attribute("aria-pressed", "true")
    desk.evaluate(f"() => {{ document.querySelector('video').currentTime = {first['exhale_end_s'] - 0.2}; }}")
    desk.wait_for_function(f"() => document.querySelector('video').currentTime < {first['inhale_start_s'] + 1.5}")
    assert desk.evaluate(FRAMES_ASKED) > 5, "it follows the clip picture by picture"
    desk.keyboard.press(" ")
    desk.wait_for_function("() => document.querySelector('video').paused")
    assert desk.evaluate(FRAMES_ASKED) <= 2, "a page that stands still costs nothing"


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (390, 844)])
def test_no_page_is_wider_than_its_screen(inside: Page, width: int, height: int) -> None:
    all_read(inside)
    inside.set_viewport_size({"width": width, "height": height})
    fits(inside, width)
    target = inside.get_by_role("button", name=re.compile("^Film ")).bounding_box()
    assert target and target["height"] >= 56, "in class a finger finds it"
    inside.get_by_test_id("take-row").filter(has_text="Jonas").first.click()
    inside.wait_for_url("**/take/*")  # Today shows a breath score as well
    inside.get_by_test_id("breath-score").wait_for()
    fits(inside, width)


def test_on_a_phone_the_next_student_is_one_tap_away_without_scrolling(inside: Page) -> None:
    inside.set_viewport_size({"width": 390, "height": 664})
    fits(inside, 390)
    name = inside.get_by_role("region", name="On the chair next").get_by_role("heading")
    film = inside.get_by_role("button", name=re.compile("^Film "))
    for one in (name, film, inside.get_by_role("button", name="Not today")):
        expect(one).to_be_in_viewport(ratio=1)
    box = name.bounding_box()
    assert box["y"] + box["height"] <= film.bounding_box()["y"], "and its name is read over the buttons"


@pytest.mark.parametrize(("width", "height"), [(640, 400), (320, 640)])
def test_zoomed_in_to_twice_and_four_times_every_page_still_fits_its_screen(inside: Page, width: int, height: int) -> None:
    inside.set_viewport_size({"width": width, "height": height})
    more = inside.get_by_role("button", name="More pages")
    for name, at in (("Class", "class"), ("Bench", "bench"), ("Cards", "cards"), ("Teaching", "teaching"), ("People", "people"), ("Today", "")):
        if name in FOLDED:
            more.click()
        inside.get_by_role("link", name=name, exact=True).click()
        inside.wait_for_url(f"**/{at}")
        expect(inside.get_by_role("dialog", name="More")).to_have_count(0)
        inside.wait_for_load_state("networkidle")
        fits(inside, width)
    more.click()
    for one in (inside.get_by_role("link", name="People"), inside.get_by_role("button", name="light or dark"), inside.get_by_role("button", name="Sign out")):
        box = one.bounding_box()
        assert box and box["x"] + box["width"] <= width, "nothing of the bar is out of reach"
        assert box["height"] >= 48, "and a thumb finds it"


def test_what_is_folded_away_on_a_phone_is_reached_by_keys_and_another_programme_is_made_from_there(inside: Page) -> None:
    inside.set_viewport_size({"width": 390, "height": 844})
    more = inside.get_by_role("button", name="More pages")
    more.focus()
    inside.keyboard.press("Enter")
    expect(inside.get_by_role("dialog", name="More")).to_be_visible()
    inside.keyboard.press("Escape")
    expect(more).to_be_focused()
    more.click()
    inside.get_by_role("button", name="light or dark").click()
    expect(inside.get_by_role("dialog", name="More")).to_have_count(0)
    assert inside.evaluate("document.documentElement.dataset.scheme") == "chalk"
    more.click()
    inside.get_by_role("button", name="light or dark").click()
    more.click()
    inside.get_by_role("button", name=re.compile("^Programme: ")).click()
    inside.get_by_role("menuitemradio", name="One more programme").click()
    asked = inside.get_by_label("What it is called")
    expect(asked).to_be_focused()
    asked.fill("Band of the other school")
    inside.get_by_role("button", name="Not now").click()
    expect(inside.get_by_role("heading", name="Just read")).to_be_visible()


def test_what_the_class_can_see_holds_no_verdict_no_consent_and_no_alert(inside: Page) -> None:
    all_read(inside)
    inside.keyboard.press("d")
    inside.get_by_role("button", name=re.compile("^Wren Talbot")).click()
    expect(inside.get_by_text("consent")).to_have_count(0)
    expect(inside.get_by_role("button", name=re.compile("Add Wren"))).to_have_count(0)
    inside.get_by_test_id("take-row").filter(has_text="Noor").first.click()
    expect(inside.get_by_role("heading", name="Noor Haddadi has been filmed")).to_be_visible()
    expect(inside.locator("[data-testid^=verdict-], [data-testid=breath-score], video")).to_have_count(0)
    inside.keyboard.press("d")
    expect(inside.get_by_test_id("breath-score")).to_be_visible()


def test_take_opens_where_the_fault_is_and_all_that_class_needs_ends_in_the_upper_part(desk: Page) -> None:
    to_take(desk, "Noor")
    expect(desk.get_by_text("the chest goes first, in 3 of 3 breaths")).to_be_visible()
    expect(desk.get_by_test_id("breath-numbers")).to_be_visible()
    desk.wait_for_function("() => document.querySelector('video').currentTime > 1")
    box = desk.get_by_test_id("breath-score").bounding_box()
    assert box["y"] + box["height"] <= 650
    # space plays whatever verdict is in focus, and enter alone opens it
    row = desk.get_by_test_id("verdict-abdomen_leads")
    row.focus()
    desk.keyboard.press("Enter")
    expect(row).to_have_attribute("aria-expanded", "true")
    desk.keyboard.press(" ")
    desk.wait_for_function("() => !document.querySelector('video').paused")
    expect(row).to_have_attribute("aria-expanded", "true")
    desk.keyboard.press("s")
    assert desk.evaluate("document.querySelector('video').playbackRate") == 0.5


def test_from_a_take_the_next_try_is_one_key_away_and_on_a_phone_one_tap(desk: Page) -> None:
    to_take(desk, "Noor")
    seat = desk.evaluate("async () => (await (await fetch('/api/today')).json()).lesson.seats.find(s => s.student.name.startsWith('Noor')).id")
    expect(desk.get_by_role("button", name=re.compile("^Film try 2")).locator("visible=true")).to_have_count(1)
    desk.keyboard.press("f")
    desk.wait_for_url(f"**/film/{seat}")
    desk.go_back()
    desk.set_viewport_size({"width": 390, "height": 844})
    again = desk.get_by_role("button", name=re.compile("^Film try 2")).locator("visible=true")
    expect(again).to_have_count(1)
    assert (again.bounding_box() or {})["height"] >= 48
    expect(desk.get_by_role("button", name=re.compile("^Next: ")).locator("visible=true")).to_have_count(1)
    again.click()
    desk.wait_for_url(f"**/film/{seat}")


def test_where_the_instrument_hid_the_breath_the_same_card_without_it_is_one_key_away(desk: Page) -> None:
    def on_his_chair(route: Route) -> None:
        """As he is asked at first, whatever card his chair was given since."""
        answer = answered(route)
        today = answer.json()
        for seat in today["lesson"]["seats"]:
            if seat["student"]["name"].startswith("Jonas"):
                seat.update(away="")
                seat["check"].update(with_instrument=True, kind="counted_breathing", view="side")
        route.fulfill(response=answer, json=today)

    desk.route("**/api/today", on_his_chair)
    to_take(desk, "Jonas", first_of_all=True)
    expect(desk.get_by_text("The arms cover the chest")).to_be_visible()
    expect(desk.get_by_role("button", name="Film without the trumpet")).to_be_visible()
    desk.keyboard.press("n")
    desk.wait_for_url("**/film/*")
    without = desk.get_by_role("button", name="Without the trumpet")
    expect(without).to_have_attribute("aria-pressed", "true")
    desk.keyboard.press("i")
    expect(without).to_have_attribute("aria-pressed", "false")
    desk.go_back()
    to_take(desk, "Noor")
    expect(desk.get_by_role("button", name=re.compile("^Film without"))).to_have_count(0)  # nothing was hidden


def test_a_take_whose_clip_has_gone_shows_what_was_read_and_offers_nothing_to_play(desk: Page) -> None:
    def gone(route: Route) -> None:
        answer = answered(route)
        route.fulfill(response=answer, json=answer.json() | {"clip": None, "stills": None})

    desk.route(re.compile("/api/takes/[0-9a-f]{32}$"), lambda route: gone(route))
    to_take(desk, "Jonas", first_of_all=True)
    expect(desk.get_by_text("The clip has gone, its time to be kept is over.")).to_be_visible()
    for name in ("Play", "Half as fast"):
        expect(desk.get_by_role("button", name=name)).to_have_count(0)
    desk.keyboard.press(" ")
    desk.keyboard.press("2")
    expect(desk.get_by_text(re.compile("^breath 2, bar"))).to_be_visible()  # the drawing goes to the moment all the same
    expect(desk.get_by_test_id("verdict-not_full_early")).to_be_visible()
    desk.keyboard.press("i")
    expect(desk.get_by_test_id("tick-lips")).to_be_visible()


@pytest.mark.parametrize(("clip", "said"), [
    ({"url": None, "coming": True}, "Somebody else is in the picture and is being blurred."), ({"url": None, "coming": False}, "could not be blurred"),
    ({"others_blurred": True}, "others are blurred"),
])  # fmt: skip
def test_a_clip_with_others_in_it_says_what_becomes_of_them(desk: Page, clip: dict, said: str) -> None:
    def with_others(route: Route) -> None:
        answer = answered(route)
        take = answer.json()
        route.fulfill(response=answer, json=take | {"clip": take["clip"] | clip})

    desk.route(re.compile("/api/takes/[0-9a-f]{32}$"), lambda route: with_others(route))
    to_take(desk, "Jonas", first_of_all=True)
    expect(desk.get_by_text(said)).to_be_visible()
    expect(desk.get_by_role("button", name="Play")).to_have_count(0 if clip.get("url", "") is None else 1)


def test_on_a_phone_one_breath_fills_the_width_over_its_own_count_and_nothing_is_smaller_than_can_be_read(desk: Page) -> None:
    to_take(desk, "Noor")
    desk.set_viewport_size({"width": 390, "height": 844})
    score = desk.get_by_test_id("breath-score")
    expect(score.locator("text.count")).to_have_text(["1", "2", "3", "1", "2", "3", "4", "5", "1"])
    expect(desk.get_by_text("Breath 1 of 3")).to_be_visible()
    sizes = desk.evaluate(
        "() => [...document.querySelectorAll('main *')].filter(e => e.childElementCount === 0 && e.textContent.trim() && e.getClientRects().length"
        " && !e.closest('.unseen, [data-testid=overlay]')).map(e => parseFloat(getComputedStyle(e).fontSize))"
    )
    assert min(sizes) >= 12
    expect(score.get_by_text(re.compile("^(in|out) for"))).to_have_text(["in for 3", "out for 5"])
    desk.get_by_role("button", name="next breath").click()
    expect(desk.get_by_text("Breath 2 of 3")).to_be_visible()
    swipe(desk, score, -140)
    expect(desk.get_by_text("Breath 3 of 3")).to_be_visible()
    swipe(desk, score, 140)
    expect(desk.get_by_text("Breath 2 of 3")).to_be_visible()
    swipe(desk, score, 20)
    expect(desk.get_by_text("Breath 2 of 3")).to_be_visible()
    desk.get_by_role("button", name=re.compile("^Next: ")).locator("visible=true").click()
    expect(desk.get_by_role("heading", name="Just read")).to_be_visible()


def test_what_is_measured_and_not_judged_stands_below_of_the_breath_that_is_looked_at_and_leads_to_its_moment(desk: Page) -> None:
    to_take(desk, "Jonas", first_of_all=True)
    said = desk.evaluate("async () => (await (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json()).breaths")
    told = desk.get_by_test_id("told")
    for number in (1, 2):
        desk.keyboard.press(str(number))
        breath = said[number - 1]
        sure = breath["uncertainty"]["phase_angle_deg"]
        expect(told).to_contain_text(f"phase angle of chest and belly, breath {number}{breath['phase_angle_deg']:.0f}° ± {sure:.0f}")
        expect(told).to_contain_text(f"exhale, breath {number}{breath['exhale_shape']}")
        told.get_by_role("button", name=re.compile("^exhale, breath")).click()
        desk.wait_for_function(f"() => Math.abs(document.querySelector('video[aria-label^=Clip]').currentTime - {breath['exhale_start_s']}) < 0.1")


def swipe(page: Page, on: Locator, across_px: int) -> None:
    """A finger that goes across, picture by picture as a screen tells it."""
    on.scroll_into_view_if_needed()
    box = on.bounding_box() or {}
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    screen = page.context.new_cdp_session(page)
    for kind, share in (("touchStart", 0.0), *(("touchMove", step / 6) for step in range(1, 7)), ("touchEnd", None)):
        touched = [] if share is None else [{"x": x + share * across_px, "y": y}]
        screen.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": touched})
    screen.detach()


def test_where_it_looked_is_drawn_on_the_body_and_gone_again_by_the_same_key(desk: Page) -> None:
    to_take(desk, "Jonas", first_of_all=True)
    expect(desk.get_by_role("button", name="Where it looked")).to_be_visible()
    expect(desk.get_by_test_id("places")).to_have_count(0)
    desk.keyboard.press("e")
    expect(desk.get_by_role("button", name="Where it looked")).to_have_attribute("aria-pressed", "true")
    looked = desk.evaluate("async () => (await (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json()).player.looked")
    for lane, places in looked.items():
        drawn = desk.get_by_test_id("places").locator(f"[data-lane={lane}]")
        expect(drawn.locator("[data-believed=true]")).to_have_count(sum(place["believed"] for place in places))
        expect(drawn.locator("[data-believed=false]")).to_have_count(sum(not place["believed"] for place in places))
    expect(desk.get_by_text("cross: set aside · line: back")).to_be_visible()
    line = desk.get_by_test_id("outline").locator("path").last
    before = line.get_attribute("d")
    assert before.count("L") >= 9, "the back, from the hips to the shoulders"
    desk.keyboard.press("3")
    expect(line).not_to_have_attribute("d", before)  # as it was looked at there
    desk.get_by_role("button", name="Where it looked").click()
    expect(desk.get_by_test_id("places")).to_have_count(0)


def test_the_body_s_own_front_moves_on_the_clip_and_is_in_pencil_while_it_is_marked(desk: Page) -> None:
    to_take(desk, "Noor")
    expect(desk.get_by_role("link", name="Today")).to_have_attribute("data-within", "true")  # a take is part of it
    moving = desk.get_by_test_id("moving")
    chest, name = moving.locator("[data-part=chest][data-ink]"), moving.locator("[data-name=chest]")
    desk.wait_for_function("() => document.querySelector('video')?.readyState >= 2")
    desk.evaluate("() => { document.querySelector('video').currentTime = 0.5; }")
    expect(name).not_to_have_class("work")
    expect(name).to_have_text("chest 0.0")
    at_rest, ink = str(chest.get_attribute("d")), str(chest.get_attribute("stroke"))
    assert at_rest.count("L") >= 5 and moving.locator("[data-part=filled]").get_attribute("d")
    desk.keyboard.press("2")
    desk.evaluate("() => { document.querySelector('video').currentTime += 1.4; }")
    expect(name).to_have_class("work")  # the chest goes first, in this breath
    expect(chest).not_to_have_attribute("stroke", ink)
    expect(chest).not_to_have_attribute("d", at_rest)
    desk.evaluate("() => { document.querySelector('video').currentTime = 0.5; }")
    expect(chest).to_have_attribute("stroke", ink)


def test_where_the_breath_is_not_read_nothing_of_it_is_drawn_on_the_clip_and_a_tilted_phone_is_said_all_the_same(desk: Page) -> None:
    stop = {"code": "breath_faint", "check": "breath", "from_s": None, "to_s": None, "facts": {}, "message": "The breath is small."}
    tilted = stop | {"code": "camera_tilted", "check": "posture", "message": "The phone stood tilted."}

    def unread(route: Route) -> None:
        report = answered(route).json()
        readable = report["readable_for"] | {"breath": False}
        route.fulfill(
            json=report | {"readable_for": readable, "cue": None, "reasons": [stop, tilted, stop | {"code": "chest_covered", "message": "A word on arms."}]}
        )

    def no_line(route: Route) -> None:
        answer = answered(route)
        take = answer.json()
        route.fulfill(response=answer, json=take | {"headline": take["headline"] | {"cue_criterion": "", "cue": ""}})

    desk.route(re.compile("/api/takes/[0-9a-f]{32}/report$"), unread)
    desk.route(re.compile("/api/takes/[0-9a-f]{32}$"), no_line)
    to_take(desk, "Jonas", first_of_all=True)
    expect(desk.get_by_text("The breath is small.")).to_be_visible()
    expect(desk.get_by_text("The phone stood tilted.")).to_be_visible()
    expect(desk.get_by_text("A word on arms.")).to_have_count(0)  # of a breath that is not read nothing more is said
    expect(desk.get_by_test_id("overlay")).to_be_attached()
    expect(desk.get_by_test_id("moving")).to_have_count(0)


def test_a_reading_waits_for_what_stands_over_its_verdicts_so_that_nothing_moves_from_under_a_finger(desk: Page) -> None:
    late: list[Route] = []
    for part in ("help?*", "cue?*", "ticks", "repetitions", "since", "overrules"):
        desk.route(f"**/api/takes/*/{part}", lambda route: late.append(route))
    to_take(desk, "Saskia")
    expect(desk.get_by_text("The reading is on its way.")).to_be_visible()
    _until(desk, late, 6)
    for route in late:
        if route.request.url.endswith("since"):
            route.fulfill(status=404, json={"code": "unknown", "message": "Not there."})  # what fails holds nothing up
        else:
            route.continue_()
    row = desk.get_by_test_id("verdict-raise_spread")
    row.wait_for()
    there = row.bounding_box()
    expect(desk.get_by_role("button", name="The drill for it")).to_be_visible()
    assert row.bounding_box() == there


def test_the_buttons_under_the_score_of_last_time_stay_where_they_are_when_it_comes(desk: Page) -> None:
    late: list[Route] = []
    desk.route("**/report", lambda route: late.append(route))
    desk.goto("/")
    film = desk.get_by_role("button", name=re.compile("^Film "))
    expect(desk.get_by_text("last time:")).to_be_visible()
    there = film.bounding_box()
    _until(desk, late, 1)
    for route in late:
        route.continue_()
    expect(desk.get_by_test_id("breath-score")).to_be_visible()
    assert film.bounding_box() == there


@pytest.mark.parametrize(("state", "words"), [("reading", "just now: being read"), ("failed", "just now: could not be read")])
def test_what_was_filmed_just_now_is_not_taken_for_what_was_read_last_time(desk: Page, state: str, words: str) -> None:
    last_time = "last time: the chest goes first; "
    today = desk.request.get("/api/today", max_retries=2).json()
    seat = next(one for one in today["lesson"]["seats"] if one["student"]["name"].startswith("Noor"))
    today["last_time"][str(seat["student"]["id"])] = {**seat["take"], "headline": {**seat["take"]["headline"], "words": "the chest goes first"}}
    seat["take"] = {**seat["take"], "state": state, "headline": None}
    desk.route("**/api/today", lambda route: route.fulfill(json=today))
    desk.goto("/")
    desk.get_by_role("button", name=re.compile("^Noor Haddadi, ")).click()
    chair = desk.get_by_role("region", name="On the chair next")
    expect(chair.get_by_text(last_time + words)).to_be_visible()
    expect(chair.get_by_test_id("breath-score")).to_be_visible()
    chair.get_by_role("button", name="See the reading").click()
    desk.wait_for_url("**/take/*")


def _until(page: Page, held: list[Route], asked: int) -> None:
    """Until so many requests are held back."""
    for _ in range(200):
        if len(held) >= asked:
            return
        page.wait_for_timeout(50)
    raise AssertionError(f"{len(held)} of {asked} were asked for")
