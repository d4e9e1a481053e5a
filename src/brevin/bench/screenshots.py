"""The pictures of docs/screenshots, made from the demo data: ``python -m brevin.bench.screenshots``. A server of its own, nothing of anybody."""

import sys
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from brevin.bench.served import READ_WITHIN_S, served
from brevin.ops import demo
from brevin.ops.settings import ROOT
from brevin.standin.browser import launched
from brevin.standin.device import as_camera

FOLDER = ROOT / "docs" / "screenshots"
DESK, PHONE = (1280, 800), (390, 844)
READ_AGAIN = """async () => {
  const { csrf } = await (await fetch("/api/me")).json();
  const { takes } = await (await fetch("/api/takes")).json();
  for (const take of takes.slice(1, 5))
    await fetch(`/api/takes/${take.id}/read-again`, { method: "POST", headers: { "X-CSRFToken": csrf } });
}"""  # what ships was read before: a few are read once more, so that the picture shows it


def main() -> int:
    """Make all pictures."""
    from playwright.sync_api import sync_playwright

    FOLDER.mkdir(parents=True, exist_ok=True)
    with served() as server, sync_playwright() as playwright, TemporaryDirectory() as camera:
        browser = launched(playwright, *as_camera(demo.CLIPS / "standing-full-early.mp4", Path(camera)))
        page = browser.new_page(viewport={"width": DESK[0], "height": DESK[1]}, reduced_motion="reduce")
        page.goto(server.address)
        page.get_by_label("Name").fill(demo.LOGIN)
        page.get_by_label("Password").fill(demo.PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="Just read").wait_for()
        page.evaluate(READ_AGAIN)
        page.locator("[data-testid=take-row][data-state=reading]").first.wait_for()
        page.wait_for_timeout(1500)
        _shoot(page, "today-reading")
        page.wait_for_function(
            "() => document.querySelector('[data-state=read]') && !document.querySelector('[data-state=reading], [data-state=queued]')",
            timeout=READ_WITHIN_S * 1000,
        )
        _shoot(page, "today")
        _takes(page)
        _desk(page)
        _bench(page)
        _mirror(page)
        _film(page)
        page.keyboard.press("d")
        page.keyboard.press("h")
        page.get_by_role("heading", name="Just read").wait_for()
        _shoot(page, "today-chalk")
        page.keyboard.press("d")
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        _shoot(page, "today-phone")
        page.locator("[data-testid=take-row]", has_text="Noor").first.click()
        page.get_by_test_id("breath-score").wait_for()
        page.wait_for_timeout(900)
        _shoot(page, "take-phone")
        browser.close()
    return 0


def _desk(page: Any) -> None:
    page.keyboard.press("b")
    page.locator("section[aria-label=clarinet]").wait_for()
    _shoot(page, "class")
    page.keyboard.press("j")
    page.get_by_test_id("card-row").nth(2).click()
    page.get_by_role("slider", name="breathe out").press("ArrowRight")
    page.mouse.move(5, 5)
    _shoot(page, "cards")
    page.keyboard.press("y")
    page.get_by_role("heading", name="Breathing in").wait_for()
    page.keyboard.press("1")
    page.get_by_text("One question is answered").wait_for()
    page.get_by_role("button", name="Only the belly").hover()
    page.get_by_text("takes would change.").wait_for()
    _shoot(page, "teaching")
    page.mouse.move(5, 5)
    page.keyboard.press("h")


def _bench(page: Any) -> None:
    """A step with one chair that needs a hand, a squeak and what to check, what is due."""
    page.keyboard.press("g")
    page.get_by_role("heading", name="The instrument bench").wait_for()
    page.keyboard.press("3")
    for step in range(1, 8):
        page.get_by_test_id("step").get_by_text(f"step {step} of").wait_for()
        page.keyboard.press(" ")
    page.get_by_test_id("step").get_by_text("step 8 of").wait_for()
    page.keyboard.press("3")
    page.get_by_text("help comes").wait_for()
    _shoot(page, "bench")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="First notes, Clarinets").click()
    page.get_by_role("button", name="Next student").wait_for()
    for name in ("Anouk", "Bram"):
        page.get_by_role("heading", name=name).wait_for()
        page.keyboard.press("n")
    page.get_by_role("heading", name="Hana").wait_for()
    page.get_by_role("button", name="E", exact=True).click()
    page.keyboard.press("3")
    page.get_by_role("button", name="That was it").wait_for()
    _shoot(page, "first-notes")
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Care, Trumpets").click()
    page.get_by_role("listitem").filter(has_text="Oil the valves").wait_for()
    page.keyboard.press("3")
    page.mouse.move(5, 5)
    _shoot(page, "care")
    page.keyboard.press("h")


def _takes(page: Any) -> None:
    page.locator("[data-testid=take-row]", has_text="Saskia").first.click()
    page.get_by_test_id("hands-line").wait_for()
    for item, taps in (("lips", 1), ("corners", 1), ("cheeks", 1), ("right_little", 2)):
        page.get_by_test_id(f"tick-{item}").click(click_count=taps, delay=60)
    page.mouse.move(5, 5)
    page.evaluate("() => { document.activeElement.blur(); scrollTo(0, 0); }")
    page.wait_for_timeout(1500)
    _shoot(page, "take-hold")
    page.keyboard.press("h")
    page.get_by_role("heading", name="Just read").wait_for()
    for name, who, breath in (("take", "Jonas", "2"), ("take-high", "Noor", "2"), ("take-front", "Mirembe", None)):
        page.locator("[data-testid=take-row]", has_text=who).first.click()
        page.get_by_test_id("breath-score").wait_for()
        page.wait_for_function("() => document.querySelector('video')?.readyState >= 2")
        if breath:
            page.keyboard.press(breath)
            page.wait_for_timeout(300)
            page.evaluate("() => { document.querySelector('video').currentTime += 1.4; }")
        page.wait_for_timeout(900)
        _shoot(page, name)
        page.keyboard.press("h")
        page.get_by_role("heading", name="Just read").wait_for()
    page.locator("[data-testid=take-row]", has_text="Noor").first.click()
    page.get_by_role("link", name="Noor Haddadi").click()
    page.get_by_test_id("row-abdomen_leads").wait_for()
    page.wait_for_timeout(900)
    _shoot(page, "record")
    page.keyboard.press("h")
    page.get_by_role("heading", name="Just read").wait_for()


def _film(page: Any) -> None:
    """In the middle of the first breath; then dropped, so that it is nobody's try."""
    page.get_by_role("heading", name="Just read").wait_for()
    page.keyboard.press("f")
    page.get_by_text("right side to the camera").last.wait_for()
    page.wait_for_timeout(1500)
    _shoot(page, "film-ready")
    page.keyboard.press(" ")
    page.get_by_text("breathe in").wait_for()
    page.wait_for_timeout(1900)
    _shoot(page, "film")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Start").wait_for()
    page.keyboard.press("Escape")
    page.get_by_role("heading", name="Just read").wait_for()


def _mirror(page: Any) -> None:
    """In the middle of the second breath."""
    page.get_by_role("heading", name="Just read").wait_for()
    page.keyboard.press("m")
    page.get_by_test_id("lanes").wait_for()
    page.wait_for_timeout(2000)
    page.keyboard.press(" ")
    page.get_by_text("breath 2 of").wait_for()
    page.wait_for_timeout(2600)
    _shoot(page, "mirror")
    page.keyboard.press("Escape")


def _shoot(page: Any, name: str) -> None:
    page.wait_for_timeout(250)
    path: Path = FOLDER / f"{name}.png"
    page.screenshot(path=str(path))
    print(path.relative_to(ROOT))


if __name__ == "__main__":
    sys.exit(main())
