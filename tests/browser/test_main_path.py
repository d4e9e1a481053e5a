import json
import re
import time
from contextlib import nullcontext
from pathlib import Path

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.conftest import clip

READ_MS = 120_000


def drop(page: Page, path: Path) -> None:
    """Drags a file from outside onto the middle of the page, through the browser's own drag and drop."""
    drop_all(page, path)


def drop_all(page: Page, *paths: Path) -> None:
    """Several files at once."""
    session = page.context.new_cdp_session(page)
    what = {"items": [], "files": [str(path) for path in paths], "dragOperationsMask": 1}
    for kind in ("dragEnter", "dragOver", "drop"):
        session.send("Input.dispatchDragEvent", {"type": kind, "x": 300, "y": 600, "data": what})
    session.detach()


def newest(page: Page):
    return page.get_by_test_id("take-row").first


def test_a_dropped_clip_becomes_a_verdict_and_the_second_breath_is_one_key_away(inside: Page) -> None:
    inside.get_by_role("button", name=re.compile("^Jonas Lindqvast")).click()
    expect(inside.get_by_role("heading", name="Jonas Lindqvast")).to_be_visible()
    drop(inside, clip("standing-full-early.mp4"))
    row = newest(inside)
    expect(row).to_contain_text("Jonas Lindqvast")
    expect(row).to_contain_text(re.compile(r"try [23]"))
    expect(row).to_have_attribute("data-state", re.compile("queued|reading"))
    expect(row).to_contain_text(re.compile(r"in the queue|about \d+ s"))
    expect(row).to_have_attribute("data-state", "read", timeout=READ_MS)
    row.click()
    score = inside.get_by_test_id("breath-score")
    expect(score).to_be_visible()
    expect(inside.get_by_test_id("verdict-not_full_early")).to_contain_text("full early")
    expect(inside.get_by_text("Say this, then try again")).to_be_visible()
    inside.wait_for_function("() => document.querySelector('video')?.readyState >= 1")
    report = inside.evaluate("async () => (await fetch(location.pathname.replace('/take/', '/api/takes/') + '/report')).json()")
    inside.keyboard.press("2")
    second = report["breaths"][1]["inhale_start_s"]
    inside.wait_for_function(f"() => Math.abs(document.querySelector('video').currentTime - {second}) < 0.05")
    expect(inside.get_by_test_id("breath-numbers")).to_contain_text("beats")
    moved = inside.get_by_test_id("playhead").evaluate("e => new DOMMatrix(getComputedStyle(e).transform).m41")
    assert moved > 100, "the playhead stands where the clip does"
    # a click into the score seeks as well
    box = score.bounding_box()
    inside.mouse.click(box["x"] + box["width"] * 0.5, box["y"] + box["height"] * 0.5)
    inside.wait_for_function(f"() => Math.abs(document.querySelector('video').currentTime - {second}) > 0.5")


def test_a_file_that_is_no_clip_is_refused_in_words_and_the_chair_still_waits(inside: Page, tmp_path) -> None:
    letter = tmp_path / "letter.mp4"
    letter.write_text("dear teacher, this is a letter\n" * 50)
    inside.get_by_role("button", name=re.compile("^Iolana Makoa")).click()
    drop(inside, letter)
    row = inside.get_by_test_id("upload-row")
    expect(row).to_contain_text("Iolana Makoa")
    expect(row.get_by_role("alert")).to_contain_text("not a video")
    expect(inside.get_by_role("button", name="Iolana Makoa, not yet filmed")).to_be_visible()
    row.get_by_role("button", name="Leave it").click()
    expect(row).to_have_count(0)


def test_by_keyboard_alone(page: Page) -> None:
    choosers = []
    page.on("filechooser", lambda chooser: choosers.append(chooser))  # listened for from the start: the browser is told without waiting for its answer
    expect(page.get_by_label("Name")).to_be_focused()
    page.keyboard.type("teacher")
    page.keyboard.press("Tab")
    page.keyboard.type("first-breath")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Just read").wait_for()
    chair = page.get_by_role("heading", level=2).first.inner_text()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("heading", level=2).first).not_to_have_text(chair)
    name = page.get_by_role("heading", level=2).first.inner_text()
    page.keyboard.press("n")
    expect(page.get_by_role("button", name=re.compile(f"^{name}, not here"))).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("not today")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("c")
    page.wait_for_timeout(500)
    assert len(choosers) == 1 and not choosers[0].is_multiple()
    page.wait_for_function("() => document.querySelector('[data-state=read]')", timeout=READ_MS)
    page.locator("[data-testid=take-row][data-state=read]").first.focus()
    page.keyboard.press("Enter")
    page.get_by_text(re.compile("Say this|not readable", re.I)).first.wait_for()
    page.keyboard.press("x")
    expect(page.get_by_role("alertdialog")).to_contain_text("cannot be taken back")
    page.keyboard.press("Escape")
    expect(page.get_by_role("alertdialog")).to_have_count(0)


def test_earlier_days_stand_beside_a_reading_and_each_leads_to_its_take(inside: Page) -> None:
    row = inside.get_by_test_id("take-row").filter(has_text="Noor Haddadi").first
    expect(row).to_contain_text("third lesson running")
    expect(row.get_by_role("img", name="work on this")).to_have_count(3)  # today's, and those of two weeks before
    row.click()
    earlier = inside.get_by_test_id("record")
    expect(earlier).to_contain_text("third lesson running")
    newest = inside.url
    earlier.get_by_role("link", name="work on this").last.focus()
    inside.keyboard.press("Enter")
    expect(earlier.get_by_role("link")).to_have_count(1)  # only the week before that one
    assert inside.url != newest
    inside.keyboard.press("h")
    inside.get_by_role("button", name="light or dark").click()
    expect(row).to_contain_text("filmed")
    expect(inside.get_by_text("lesson running")).to_have_count(0)  # the class reads along
    inside.get_by_role("button", name="light or dark").click()


def test_a_turn_and_beat_one_are_put_right_by_keys_and_by_hand_judged_anew_and_taken_back(inside: Page) -> None:
    inside.get_by_test_id("take-row").filter(has_text="Jonas Lindqvast").last.click()
    numbers = inside.get_by_test_id("breath-numbers")
    numbers.wait_for()
    inside.keyboard.press("c")
    full, beat = inside.get_by_role("slider", name="full"), inside.get_by_role("slider", name="beat one")
    read, counted = full.get_attribute("aria-valuetext"), beat.get_attribute("aria-valuetext")
    before = numbers.inner_text()
    full.focus()
    for _ in range(4):
        inside.keyboard.press("Shift+ArrowRight")  # the arrows move it now, not the breath that is chosen
    expect(full).to_have_attribute("aria-valuetext", re.compile("moved by hand"))
    expect(numbers).not_to_have_text(before)
    moment = inside.evaluate("document.querySelector('video').currentTime")
    assert abs(moment - float(full.get_attribute("aria-valuenow"))) < 0.1, "the clip went along"
    ring = beat.locator("circle").last.bounding_box()
    assert ring
    x, y = ring["x"] + ring["width"] / 2, ring["y"] + ring["height"] / 2
    inside.mouse.move(x, y)
    inside.mouse.down()
    inside.mouse.move(x + 40, y, steps=4)
    inside.mouse.up()
    expect(beat).to_have_attribute("aria-valuetext", re.compile("moved by hand"))
    expect(full).to_have_attribute("aria-valuetext", re.compile("moved by hand"))  # one does not undo the other
    expect(inside.get_by_test_id("verdict-with_count")).to_contain_text("early")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.reload()
    expect(inside.get_by_text("Turns or beat one stand where you put them.")).to_be_visible()
    inside.get_by_role("button", name="As it was read").click()
    expect(inside.get_by_role("button", name="As it was read")).to_have_count(0)
    inside.keyboard.press("c")
    expect(full).to_have_attribute("aria-valuetext", read or "")
    expect(beat).to_have_attribute("aria-valuetext", counted or "")


def test_turns_that_are_moved_faster_than_they_are_judged_are_all_kept_however_soon_the_page_is_left(inside: Page) -> None:
    inside.get_by_test_id("take-row").filter(has_text="Jonas Lindqvast").last.click()
    inside.get_by_test_id("breath-numbers").wait_for()
    take = inside.url
    inside.route("**/edits", lambda route: None)
    inside.keyboard.press("c")
    for name in ("full", "the exhale ends", "beat one"):
        with inside.expect_request("**/edits") if name == "full" else nullcontext():  # the first is on its way for as long as the others take
            ring = inside.get_by_role("slider", name=name)
            ring.focus()
            for _ in range(3):
                inside.keyboard.press("Shift+ArrowLeft")
    inside.get_by_role("link", name="Class").click()
    inside.unroute("**/edits")  # lets go of the one that was held
    report = take.replace("/take/", "/api/takes/") + "/report"
    for _ in range(60):  # the last of three is judged a moment later
        edits = inside.evaluate(f"async () => (await (await fetch('{report}')).json()).edits")
        if len(edits["turns"]) == 2 and edits["first_inhale_s"] is not None:
            break
        inside.wait_for_timeout(200)
    assert sorted(turn["turn"] for turn in edits["turns"]) == ["exhale_end", "inhale_end"] and edits["first_inhale_s"] is not None
    inside.goto(take)
    inside.get_by_role("button", name="As it was read").click()
    expect(inside.get_by_role("button", name="As it was read")).to_have_count(0)


def test_deleting_asks_first_and_then_is_gone(inside: Page, short) -> None:
    inside.get_by_role("button", name=re.compile("^Lazar Stojanic")).click()
    drop(inside, short("seated-chest-high.mp4"))
    expect(newest(inside)).to_contain_text("Lazar Stojanic")
    expect(newest(inside)).to_have_attribute("data-state", "read", timeout=READ_MS)
    newest(inside).click()
    inside.get_by_test_id("breath-score").wait_for()
    inside.get_by_role("button", name="Delete").click()
    inside.get_by_role("button", name="Delete it").click()
    expect(inside.get_by_role("heading", name="Just read")).to_be_visible()
    expect(inside.get_by_role("button", name="Lazar Stojanic, not yet filmed")).to_be_visible()


def test_without_consent_nothing_can_be_added(inside: Page) -> None:
    inside.get_by_role("button", name=re.compile("^Wren Talbot")).click()
    expect(inside.get_by_text("no consent to film on record")).to_be_visible()
    for name in ("Film Wren", "A file"):
        expect(inside.get_by_role("button", name=name)).to_be_disabled()


def test_what_the_class_can_see_holds_no_verdict(inside: Page) -> None:
    inside.wait_for_function("() => document.querySelector('[data-state=read]')", timeout=READ_MS)
    inside.keyboard.press("d")
    assert inside.evaluate("document.documentElement.dataset.scheme") == "chalk"
    row = inside.locator("[data-testid=take-row][data-state=read]").first
    expect(row).to_contain_text("filmed")
    expect(row.get_by_role("img")).to_have_count(0)
    expect(inside.get_by_text("may be filmed")).to_have_count(0)


def test_nothing_a_screen_reader_would_stumble_over(inside: Page) -> None:
    inside.wait_for_function("() => document.querySelector('[data-state=read]')", timeout=READ_MS)
    found = {"today": Axe().run(inside)}
    for name, student in (("breath", "Jonas"), ("hold", "Saskia")):
        inside.get_by_test_id("take-row").filter(has_text=student).last.click()
        inside.wait_for_url("**/take/*")
        inside.get_by_role("button", name="Where it looked").wait_for()
        found[name] = Axe().run(inside)
        inside.get_by_role("button", name=re.compile("^Next: ")).click()
        inside.get_by_role("heading", name="Just read").wait_for()
    troubles = {name: [(v["id"], [n["target"] for n in v["nodes"]][:3]) for v in result.response["violations"]] for name, result in found.items()}
    assert troubles == {"today": [], "breath": [], "hold": []}, json.dumps(troubles, indent=1)


def test_a_foot_that_taps_is_told_against_the_beat_and_drawn_under_the_lanes(inside: Page) -> None:
    inside.get_by_test_id("take-row").filter(has_text="Bram").last.click()
    expect(inside.get_by_text(re.compile("^foot with the beat$"))).to_be_visible()
    strikes = inside.get_by_test_id("foot").locator("path")
    expect(strikes.first).to_be_visible()
    assert 24 <= strikes.count() <= 32  # one a beat, from the first picture in which it is known who plays


def test_another_card_for_one_chair_is_two_taps_away(inside: Page) -> None:
    inside.get_by_role("button", name=re.compile("^Iolana")).click()
    expect(inside.get_by_text("count card 4-0-4 at 72")).to_be_visible()
    inside.keyboard.press("k")
    asked = inside.get_by_role("dialog", name="Another card for Iolana")
    expect(asked.get_by_role("button", name=": ")).to_have_count(10)
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.keyboard.press("Escape")
    expect(inside.get_by_text("count card 4-0-4 at 72")).to_be_visible()
    inside.get_by_role("button", name="Other card").click()
    asked.get_by_role("button", name="3: 3-0-7 at 72").click()
    expect(asked).to_have_count(0)
    expect(inside.get_by_text("count card 3-0-7 at 72")).to_be_visible()
    inside.keyboard.press("ArrowRight")
    expect(inside.get_by_text("count card 4-0-4 at 72")).to_be_visible()  # the next one keeps what was planned


def test_a_chair_is_moved_along_the_line_by_key_and_by_hand(inside: Page) -> None:
    def names() -> list[str]:
        return [(chair.get_attribute("aria-label") or "").split(",")[0] for chair in inside.get_by_label("Chairs in lesson order").get_by_role("button").all()]

    before = names()
    inside.get_by_role("button", name=re.compile(f"^{before[6]}")).click()
    inside.keyboard.press(",")
    expect(inside.get_by_label("Chairs in lesson order").get_by_role("button").nth(5)).to_have_attribute("aria-label", re.compile(f"^{before[6]}"))
    box = inside.get_by_role("button", name=re.compile(f"^{before[6]}")).bounding_box()
    step = inside.get_by_role("button", name=re.compile(f"^{before[5]}")).bounding_box()
    assert box and step
    inside.mouse.move(box["x"] + 10, box["y"] + 60)
    inside.mouse.down()
    inside.mouse.move(step["x"] + 12, step["y"] + 60, steps=5)
    inside.mouse.up()
    expect(inside.get_by_label("Chairs in lesson order").get_by_role("button").nth(6)).to_have_attribute("aria-label", re.compile(f"^{before[6]}"))
    assert names() == before
    inside.route("**/order", lambda route: None)
    for _ in range(3):
        inside.keyboard.press(",")  # faster than they are kept
    expect(inside.get_by_label("Chairs in lesson order").get_by_role("button").nth(3)).to_have_attribute("aria-label", re.compile(f"^{before[6]}"))
    inside.unroute("**/order")  # lets go of the one that was held
    kept_at(inside, 3, before[6])
    inside.reload()
    expect(inside.get_by_label("Chairs in lesson order").get_by_role("button").nth(3)).to_have_attribute("aria-label", re.compile(f"^{before[6]}"))
    inside.get_by_role("button", name=re.compile(f"^{before[6]}")).click()
    for _ in range(3):
        inside.keyboard.press(".")
    expect(inside.get_by_label("Chairs in lesson order").get_by_role("button").nth(6)).to_have_attribute("aria-label", re.compile(f"^{before[6]}"))
    kept_at(inside, 6, before[6])


KEPT = "async place => (await (await fetch('/api/today')).json()).lesson.seats[place].student.name"


def kept_at(page: Page, place: int, name: str) -> None:
    """Until the server has a student at a place of the lesson's line."""
    until = time.monotonic() + 20.0
    while (found := page.evaluate(KEPT, place)) != name:
        assert time.monotonic() < until, found
        page.wait_for_timeout(100)
