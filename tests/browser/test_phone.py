"""A phone beside the teacher's page: paired by a code, on the same chair, and nothing of a verdict on it."""

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import comes_true, opened


@pytest.fixture
def phone(studio, inside: Page, address: str) -> Iterator[Page]:
    """A second browser that joined with the teacher's code."""
    code = inside.evaluate(
        """async () => { const me = await (await fetch('/api/me')).json();
        return (await (await fetch('/api/phone', {method: 'POST', headers: {'X-CSRFToken': me.csrf}})).json()).code }"""
    )
    with opened(studio, f"{address}/phone", viewport={"width": 390, "height": 844}) as shown:
        shown.get_by_label("Code from the teacher's screen").fill(code)
        shown.get_by_role("button", name="Film with this phone").click()
        yield shown


def test_the_phone_is_on_the_chair_that_is_on_and_goes_where_the_teacher_goes(phone: Page, inside: Page) -> None:
    on = inside.get_by_label("On the chair next").get_by_role("heading")
    expect(phone.get_by_role("button", name="Start")).to_be_visible()
    expect(phone.get_by_text(on.inner_text()).first).to_be_visible()
    inside.get_by_role("button", name=re.compile("^Kwaku")).click()
    expect(phone.get_by_text("Kwaku Asantewa").first).to_be_visible()
    phone.get_by_role("button", name="Today", exact=True).click()
    phone.get_by_role("button", name=re.compile("^Lazar|^Amaru")).first.click()
    expect(on).to_have_text(re.compile("Lazar|Amaru"))
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390


def test_nothing_on_the_phone_tells_a_verdict(phone: Page) -> None:
    expect(phone.get_by_role("button", name="Start")).to_be_visible()
    phone.get_by_role("button", name="Today", exact=True).click()
    expect(phone.get_by_role("button", name=re.compile("filmed")).first).to_be_visible()
    told = phone.locator("main").inner_text() + phone.evaluate("async () => JSON.stringify(await (await fetch('/api/today')).json())")
    assert not re.search(r'high breath|full too early|"state":"(work|watch|steady)"', told)
    phone.goto(phone.url.split("/film")[0] + "/class")
    expect(phone.get_by_role("button", name="Choose a list")).to_have_count(0)


def test_a_chair_chosen_on_the_page_while_the_phone_films_comes_when_that_clip_is_done(phone: Page, inside: Page) -> None:
    kwaku = "async () => (await (await fetch('/api/today')).json()).lesson.seats.find(({ student }) => student.name.startsWith('Kwaku')).id"
    takes = "async (name) => (await (await fetch('/api/takes')).json()).takes.filter(({ student }) => student.name === name).map(({ id }) => id)"
    name = inside.get_by_label("On the chair next").get_by_role("heading").inner_text()
    wanted, before = inside.evaluate(kwaku), inside.evaluate(takes, name)
    expect(phone.get_by_role("button", name="Start")).to_be_enabled()
    here = phone.url
    phone.get_by_role("button", name="Start").click()
    stop = phone.get_by_role("button", name="Stop")
    expect(stop).to_be_visible()
    inside.get_by_role("button", name=re.compile("^Kwaku")).click()
    comes_true(phone, "async (id) => (await (await fetch('/api/today')).json()).lesson.seat_now.seat_id === id", wanted)
    phone.wait_for_timeout(500)
    assert phone.url == here
    stop.click()
    phone.get_by_role("button", name="Next: Kwaku").click()
    phone.wait_for_url(f"**/film/{wanted}")
    expect(inside.get_by_label("On the chair next").get_by_role("heading")).to_have_text(re.compile("Kwaku"))
    comes_true(inside, f"async ([name, before]) => (await ({takes})(name)).length > before", [name, len(before)])
    [filmed] = set(inside.evaluate(takes, name)) - set(before)
    inside.evaluate(
        """async (id) => { const me = await (await fetch('/api/me')).json();
        await fetch(`/api/takes/${id}`, {method: 'DELETE', headers: {'X-CSRFToken': me.csrf}}) }""",
        filmed,
    )
    assert inside.evaluate(takes, name) == before
