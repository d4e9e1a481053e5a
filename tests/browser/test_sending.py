"""Whose clip it is, and that nothing is lost between two taps."""

import re
import threading

from playwright.sync_api import FileChooser, Page, Route, expect

from tests.browser.test_main_path import READ_MS, drop, drop_all, newest


def chair(page: Page, name: str):
    return page.get_by_role("button", name=re.compile(f"^{name}"))


def in_front(page: Page):
    return page.get_by_role("heading", level=2).first


def held_back(page: Page) -> list[Route]:
    """Uploads of the page that wait until they are let go."""
    held: list[Route] = []
    page.route(re.compile(r"/api/takes\?"), lambda route: held.append(route))
    return held


def test_a_clip_stays_with_the_chair_it_was_filmed_at_however_slow_the_line(inside: Page, short) -> None:
    choosers: list[FileChooser] = []
    inside.on("filechooser", lambda chooser: choosers.append(chooser))  # listened for from the start: the browser is told without waiting for its answer
    held = held_back(inside)
    chair(inside, "Pavel Horacek").click()
    drop(inside, short("seated-chest-high.mp4"))
    expect(inside.get_by_test_id("upload-row")).to_contain_text("Pavel Horacek")
    expect(in_front(inside)).not_to_have_text("Pavel Horacek")
    expect(chair(inside, "Pavel Horacek, clip on its way")).to_be_visible()
    chair(inside, "Amaru Quispeta").click()
    inside.keyboard.press("c")
    inside.wait_for_timeout(500)
    chair(inside, "Jonas Lindqvast").click()  # the chair changes while the chooser is open
    choosers[0].set_files(short("seated-low-then-wide.mp4"))
    expect(inside.get_by_test_id("upload-row")).to_have_count(2)
    expect(in_front(inside)).to_have_text("Jonas Lindqvast")
    sent = [route.request.url for route in held]
    for route in held:
        route.continue_()
    expect(inside.get_by_test_id("upload-row")).to_have_count(0)
    expect(in_front(inside)).to_have_text("Jonas Lindqvast")
    seats = {s["student"]["name"]: s for s in inside.evaluate("async () => (await fetch('/api/today')).json()")["lesson"]["seats"]}
    for url, name, file in zip(sent, ("Pavel Horacek", "Amaru Quispeta"), ("seated-chest-high.mp4", "seated-low-then-wide.mp4"), strict=True):
        assert f"student_id={seats[name]['student']['id']}&" in url and url.endswith(f"file_name={file}")
        assert seats[name]["take"] is not None


def test_a_broken_line_is_said_on_the_row_and_the_clip_can_be_sent_again(inside: Page, short) -> None:
    chair(inside, "Iolana Makoa").click()
    broken = threading.Event()
    names: list[str] = []

    def answer(route: Route) -> None:
        names.append(route.request.headers["idempotency-key"])
        if broken.is_set():
            route.continue_()
        else:
            route.fulfill(status=408)  # what a broken line leaves: no answer of the program's own

    inside.route(re.compile(r"/api/takes\?"), answer)
    drop(inside, short("seated-chest-high.mp4"))
    row = inside.get_by_test_id("upload-row")
    expect(row.get_by_role("alert")).to_contain_text("does not answer")
    chair(inside, "Jonas Lindqvast").click()
    broken.set()
    row.get_by_role("button", name="Send it again").click()
    expect(row).to_have_count(0)
    expect(newest(inside)).to_contain_text("Iolana Makoa")
    expect(in_front(inside)).to_have_text("Jonas Lindqvast")
    assert len(names) == 2 and names[0] == names[1], "it may have come the first time"


def test_who_leaves_while_a_clip_is_on_its_way_is_asked_and_the_page_goes_on_sending(inside: Page, short) -> None:
    held = held_back(inside)
    chair(inside, "Jonas Lindqvast").click()
    drop(inside, short("seated-chest-high.mp4"))
    inside.get_by_test_id("upload-row").wait_for()
    inside.keyboard.press("q")
    expect(inside.get_by_role("alertdialog")).to_contain_text("still being sent")
    expect(inside.get_by_role("button", name="Wait for it")).to_be_focused()
    inside.keyboard.press("Enter")
    newest(inside).click()
    inside.get_by_role("button", name=re.compile("^Next: ")).click()
    expect(inside.get_by_test_id("upload-row")).to_contain_text("Jonas Lindqvast")
    for route in held:
        route.continue_()
    expect(inside.get_by_test_id("upload-row")).to_have_count(0)


def test_where_no_camera_films_a_clip_is_given_to_the_chair_by_the_chooser_or_dropped(inside: Page, short) -> None:
    sent: list[str] = []

    def refuse(route: Route) -> None:
        sent.append(route.request.url)
        route.fulfill(status=409, json={"code": "no_consent", "message": "No consent."})  # whose it is alone is looked at, nothing comes of it

    inside.route(re.compile(r"/api/takes\?"), refuse)
    chair(inside, "Iolana Makoa").click()
    inside.keyboard.press("f")
    expect(inside.get_by_role("alert")).to_contain_text("camera")
    page_of = inside.url
    with inside.expect_file_chooser() as chooser:
        inside.get_by_role("button", name="A file").click()
    chooser.value.set_files(short("seated-chest-high.mp4"))
    inside.wait_for_url(lambda url: "/film/" in url and url != page_of)  # the next chair's turn
    inside.goto(page_of)
    expect(inside.get_by_role("alert")).to_contain_text("camera")
    inside.keyboard.press("f")  # for this once from the front: so is the clip
    drop_all(inside, short("seated-chest-high.mp4"), short("standing-full-early.mp4"))
    expect(inside.get_by_role("alert")).to_contain_text("2 files were dropped, and none was taken")
    drop(inside, short("standing-full-early.mp4"))
    inside.wait_for_url(lambda url: "/film/" in url and url != page_of)
    seats = inside.evaluate("async () => (await fetch('/api/today')).json()")["lesson"]["seats"]
    her = next(seat["student"]["id"] for seat in seats if seat["student"]["name"] == "Iolana Makoa")
    for url, file in zip(sent, ("seated-chest-high.mp4", "standing-full-early.mp4"), strict=True):
        assert f"student_id={her}&" in url and f"file_name={file}" in url
    assert [url.endswith("&from_front=true") for url in sent] == [False, True]


def test_several_files_at_once_are_not_guessed_at(inside: Page, short) -> None:
    drop_all(inside, short("seated-chest-high.mp4"), short("standing-full-early.mp4"))
    expect(inside.get_by_role("alert")).to_contain_text("2 files were dropped, and none was taken")
    expect(inside.get_by_test_id("upload-row")).to_have_count(0)


def test_someone_elses_clip_goes_to_them_and_comes_back(inside: Page) -> None:
    inside.locator("[data-testid=take-row][data-state=read]").first.wait_for(timeout=READ_MS)
    inside.locator("[data-testid=take-row][data-state=read]").first.click()
    inside.get_by_role("button", name=re.compile(r"^Not .*\?")).wait_for()  # the take's: Today has a score and a heading of its own
    name = inside.get_by_role("heading", level=1)
    was = name.inner_text()
    inside.keyboard.press("w")
    expect(inside.get_by_role("dialog")).to_be_visible()
    inside.get_by_role("option", name=re.compile("^Amaru Quispeta" if not was.startswith("Amaru") else "^Jonas")).click()
    expect(inside.get_by_role("dialog")).to_have_count(0)
    expect(name).not_to_have_text(was)
    inside.get_by_test_id("breath-score").wait_for()
    inside.keyboard.press("w")
    expect(inside.get_by_role("option", name=re.compile("^Wren Talbot"))).to_have_attribute("aria-disabled", "true")
    inside.get_by_role("option", name=re.compile(f"^{was}")).click()
    expect(name).to_have_text(was)


def test_a_reading_that_still_loads_is_told_and_a_question_opened_after_it_stays(inside: Page) -> None:
    inside.route("**/report", lambda route: None)
    row = inside.locator("[data-testid=take-row][data-state=read]").first
    row.wait_for(timeout=READ_MS)
    row.click()
    expect(inside.get_by_role("status").filter(has_text="The reading is on its way")).to_be_visible()
    expect(inside.get_by_role("button", name=re.compile(r"^Not .*\?"))).to_have_count(0)
    inside.unroute("**/report")  # lets go of the one that was held; where it is judged anew meanwhile it is asked for once more
    inside.get_by_role("button", name=re.compile(r"^Not .*\?")).wait_for()
    inside.keyboard.press("w")
    inside.get_by_role("option").first.wait_for()
    inside.wait_for_timeout(500)
    expect(inside.get_by_role("dialog")).to_be_visible()


def test_a_mark_by_mistake_is_taken_back(inside: Page) -> None:
    chair(inside, "Jonas Lindqvast").click()
    inside.keyboard.press("t")
    expect(chair(inside, "Jonas Lindqvast, ")).to_be_visible()
    expect(inside.get_by_role("status")).to_contain_text("Jonas is not filmed today")
    expect(in_front(inside)).not_to_have_text("Jonas Lindqvast")
    inside.keyboard.press("z")
    expect(in_front(inside)).to_have_text("Jonas Lindqvast")
    expect(inside.get_by_role("button", name="Not today")).to_be_visible()


def test_the_page_and_the_choice_stay_while_the_line_hiccups(inside: Page) -> None:
    chair(inside, "Jonas Lindqvast").click()
    inside.route("**/api/today", lambda route: route.fulfill(status=408))
    chair(inside, "Amaru Quispeta").click()
    inside.keyboard.press("n")
    expect(inside.get_by_text("What you see is from a moment ago")).to_be_visible()
    expect(inside.get_by_role("heading", name="Just read")).to_be_visible()
    inside.unroute("**/api/today")
    inside.keyboard.press("z")
    expect(inside.get_by_text("What you see is from a moment ago")).to_have_count(0)
    expect(in_front(inside)).to_have_text("Amaru Quispeta")
    assert inside.title() == "Today · Brevin"
