"""A whole lesson of 24 students in the browser, from an empty data folder and a class list to the last verdict, in real time: ``docs/lesson-timing.md``."""

import re
import tempfile
import time
from pathlib import Path
from typing import Any

from brevin.bench import Measured
from brevin.bench.filming import CLIP, film, studio
from brevin.bench.served import READ_WITHIN_S, served
from brevin.ops import demo
from brevin.ops.settings import ROOT
from brevin.standin.device import as_camera

PAGE = ROOT / "docs" / "lesson-timing.md"
CARD = "4-0-6@84x2"  # what the stand-in breathes, twice
LESSON_MIN = "70"
ADD_CARD = """async (card) => { const me = await (await fetch('/api/me')).json();
  const made = await fetch('/api/cards', {method: 'POST', headers: {'X-CSRFToken': me.csrf, 'Content-Type': 'application/json'},
    body: JSON.stringify({rung: 1, title: 'a first calm breath', card})}); return (await made.json()).id; }"""
STATES = """async () => { const today = await (await fetch('/api/today')).json();
  return today.lesson.seats.map((seat) => seat.take ? seat.take.state : ''); }"""


def measure() -> Measured:
    """Minutes from the empty program to the first filming, seconds a student, and from the last filming to the last verdict. Writes the page."""
    with served(empty=True) as server, tempfile.TemporaryDirectory() as folder, studio(server.address, as_camera(CLIP, Path(folder))) as page:
        began = time.monotonic()
        _first_account(page)
        _class(page)
        _plan(page)
        set_up_s = time.monotonic() - began
        each = _film_all(page)
        filmed = time.monotonic()
        states = _all_verdicts(page)
        last_s = time.monotonic() - filmed
    between = [whole - filming for whole, filming in each]
    figures = {
        "students": float(len(each)), "set_up_min": set_up_s / 60.0, "student_median_s": sorted(whole for whole, _ in each)[len(each) // 2],
        "filming_median_s": sorted(filming for _, filming in each)[len(each) // 2], "between_worst_s": max(between), "last_verdict_s": last_s,
        "read": float(states.count("read")),
    }  # fmt: skip
    PAGE.write_text(_written(each, figures))
    return Measured("lesson", figures, {"set_up_min": ("<=", 5.0), "between_worst_s": ("<=", 10.0), "read": (">=", float(len(demo.STUDENTS)))})


def _first_account(page: Any) -> None:
    page.get_by_label("What it is called").fill("Harbour Street, beginners")
    page.get_by_label("Your name").fill("Ines Varga")
    page.get_by_label("Name to sign in with").fill("ines")
    page.get_by_label("Password").fill("a long enough one")
    page.get_by_role("button", name="Go on to the class list").click()
    page.get_by_role("heading", name="Drop the class list here").wait_for()


def _class(page: Any) -> None:
    rows = "\n".join(f"{name};{instrument}" for name, instrument, _, _ in demo.STUDENTS)
    page.set_input_files("input[type=file]", {"name": "class.csv", "mimeType": "text/csv", "buffer": f"name;instrument\n{rows}".encode()})
    page.get_by_role("button", name=f"Make {len(demo.STUDENTS)} changes").click()
    page.get_by_text(f"{len(demo.STUDENTS)} students, 0 may be filmed").wait_for()
    page.keyboard.press("k")
    page.get_by_role("button", name="Put it on record").click()
    page.get_by_text(f"{len(demo.STUDENTS)} may be filmed").wait_for()


def _plan(page: Any) -> None:
    card = page.evaluate(ADD_CARD, CARD)
    page.reload()
    page.get_by_text(f"{len(demo.STUDENTS)} may be filmed").wait_for()
    page.keyboard.press("p")
    page.get_by_label("Count card").select_option(str(card))
    page.get_by_label("Minutes", exact=True).fill(LESSON_MIN)
    page.get_by_role("button", name="Open the lesson").click()
    page.get_by_role("button", name=re.compile("^Film ")).wait_for()


def _film_all(page: Any) -> list[tuple[float, float]]:
    """For each student seconds in all and of filming."""
    found = []
    page.keyboard.press("f")
    began = time.monotonic()
    for place in range(len(demo.STUDENTS)):
        filming = film(page)
        page.keyboard.press(str(1 + place % 3))
        if place + 1 < len(demo.STUDENTS):
            page.get_by_role("button", name="Start").wait_for()
        found.append((time.monotonic() - began, filming))
        began = time.monotonic()
    return found


def _all_verdicts(page: Any) -> list[str]:
    until = time.monotonic() + READ_WITHIN_S
    states: list[str] = []
    while time.monotonic() < until:
        states = page.evaluate(STATES)
        if all(state in ("read", "failed") for state in states):
            break
        time.sleep(0.5)
    return states


def _written(each: list[tuple[float, float]], figures: dict[str, float]) -> str:
    rows = "\n".join(f"| {number} | {whole:.1f} | {filming:.1f} | {whole - filming:.1f} |" for number, (whole, filming) in enumerate(each, start=1))
    told = {key: f"{value:.1f}" for key, value in figures.items()}
    return f"""# A lesson of {len(each)}, timed

Made by `./brevin bench lesson`: headless Chromium, a stand-in clip as camera and microphone, the real server, reader and database on two cores, from an empty
data folder. The browser, which draws and codes without a graphics card here, shares the cores with the reading.

- From the empty program over account, class list of {len(each)}, letters and plan to the first chair: {told["set_up_min"]} minutes, typed by a script; a person
  takes longer at the keyboard.
- A student takes {told["student_median_s"]} s (median), of which {told["filming_median_s"]} s are count-in and filming. Between one filming's end and the next
  one's start lie two taps (the guess, Start) and at most {told["between_worst_s"]} s.
- The last verdict was there {told["last_verdict_s"]} s after the last filming; {figures["read"]:.0f} of {len(each)} were read.

| student | in all, s | filming, s | between, s |
|---|---|---|---|
{rows}
"""
