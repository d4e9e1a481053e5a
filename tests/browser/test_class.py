"""The class on the demo school."""

import re

from playwright.sync_api import Page, expect

from tests.browser.test_states import all_read


def drop_list(page: Page, text: str, coding: str = "utf-8") -> None:
    page.set_input_files("input[type=file]", {"name": "beginners.csv", "mimeType": "text/csv", "buffer": text.encode(coding)})
    expect(page.get_by_text("Nothing has changed yet")).to_be_visible()


def names(page: Page) -> list[str]:
    page.locator("section[aria-label=clarinet]").wait_for()
    return [label.split(",")[0] for label in page.locator("section[aria-label] button[aria-label]").evaluate_all("all => all.map(b => b.ariaLabel)")]


def test_a_list_is_drawn_on_the_chairs_made_and_taken_back(inside: Page) -> None:
    inside.keyboard.press("b")
    before = names(inside)
    assert len(before) > 10
    drop_list(inside, "name,instrument\nJonas Lindqvast,cornet\nNew Somebody,tuba\n", "cp1252")
    expect(inside.get_by_role("button", name="Jonas Lindqvast, moves")).to_be_visible()
    expect(inside.get_by_text("moves here")).to_be_visible()
    assert names(inside) == before, "nothing has changed"
    for box in inside.get_by_test_id("dropped").get_by_role("checkbox").all()[2:]:
        box.uncheck(force=True)  # those who are not in the list stay
    inside.get_by_role("button", name="Make 2 changes").click()
    expect(inside.get_by_role("button", name=re.compile("^New Somebody, not filmed"))).to_be_visible()
    inside.keyboard.press("z")
    expect(inside.get_by_role("button", name=re.compile("^New Somebody"))).to_have_count(0)
    assert names(inside) == before


def test_what_is_not_measured_for_a_student_leaves_the_takes_that_are_there_and_comes_back(inside: Page) -> None:
    all_read(inside)
    inside.keyboard.press("b")
    names(inside)
    inside.get_by_role("button", name=re.compile("^Jonas Lindqvast")).click()
    inside.keyboard.press("n")
    spared = inside.get_by_role("region", name="Not measured for Jonas Lindqvast")
    spared.get_by_label("Leave out").select_option("shoulders_still")
    back = spared.get_by_role("button", name=re.compile("^Measure .* again$"))
    expect(back).to_have_count(1)
    inside.keyboard.press("h")
    inside.get_by_test_id("take-row").filter(has_text="Jonas").first.click()
    expect(inside.get_by_test_id("exempt-shoulders_still")).to_be_visible(timeout=20_000)
    inside.go_back()
    inside.keyboard.press("b")
    names(inside)  # Today has a chair of that name as well
    expect(inside.get_by_role("button", name=re.compile("^Jonas Lindqvast"))).not_to_contain_text("measured")  # the band may be seen by the class
    inside.get_by_role("button", name=re.compile("^Jonas Lindqvast")).click()
    inside.keyboard.press("n")
    changes = spared.get_by_role("list", name="Who changed it, and when").get_by_role("listitem")
    expect(changes.first).to_contain_text(re.compile("Marit Solheim-Abara: .* left out"))
    back.click()
    expect(back).to_have_count(0)
    expect(changes.first).to_contain_text("measured again")
    inside.keyboard.press("h")
    inside.get_by_test_id("take-row").filter(has_text="Jonas").first.click()
    inside.get_by_test_id("breath-score").wait_for()
    expect(inside.get_by_test_id("exempt-shoulders_still")).to_have_count(0, timeout=20_000)


def test_a_name_that_was_misspelt_is_put_right_and_taken_back_by_keys_alone(inside: Page) -> None:
    inside.keyboard.press("b")
    before = names(inside)
    inside.get_by_role("button", name=re.compile("^Kwaku")).press("Enter")
    inside.keyboard.press("e")
    name = inside.get_by_label("Name")
    expect(name).to_be_focused()
    name.fill("Kwaku Put-Right")
    inside.keyboard.press("Enter")
    expect(inside.get_by_role("button", name=re.compile("^Kwaku Put-Right"))).to_be_visible()
    inside.keyboard.press("z")
    expect(inside.get_by_role("button", name=re.compile("^Kwaku Put-Right"))).to_have_count(0)
    assert names(inside) == before


def test_a_band_that_rehearses_apart_is_a_group_with_a_lesson_of_its_own(inside: Page) -> None:
    inside.keyboard.press("b")
    everybody = names(inside)
    for name in ("Bram", "Hana"):
        inside.get_by_role("button", name=re.compile(f"^{name}")).click()
    inside.keyboard.press("o")
    inside.get_by_label("Name of the group").fill("Monday reeds")
    inside.keyboard.press("Enter")
    expect(inside.get_by_role("button", name="Monday reeds", exact=True)).to_have_attribute("aria-pressed", "true")
    assert [name.split()[0] for name in names(inside)] == ["Bram", "Hana"]
    inside.keyboard.press("a")
    inside.get_by_label("Name", exact=True).fill("Late Joiner")
    inside.keyboard.press("Enter")
    expect(inside.get_by_role("button", name=re.compile("^Late Joiner"))).to_be_visible()
    inside.keyboard.press("z")
    expect(inside.get_by_role("button", name=re.compile("^Late Joiner"))).to_have_count(0)
    inside.keyboard.press("p")
    expect(inside.get_by_label("What it is called")).to_have_value(re.compile("^Monday reeds of "))
    inside.get_by_role("button", name="Not now").click()
    inside.keyboard.press("x")
    expect(inside.get_by_role("button", name="Everybody", exact=True)).to_have_attribute("aria-pressed", "true")
    assert names(inside) == everybody
    inside.keyboard.press("x")
    inside.get_by_role("button", name="No group any more").click()
    expect(inside.get_by_role("navigation", name="Groups")).to_have_count(0)
    assert names(inside) == everybody, "who was in it is still there"


def in_row(page: Page, number: int) -> list[str]:
    row = page.get_by_role("group", name=re.compile(f"^row {number}"))
    return [label.split()[0] for label in row.locator("button").evaluate_all("all => all.map(b => b.ariaLabel)")]


def test_chairs_are_moved_by_keys_alone_and_taken_back(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    before = [in_row(inside, number) for number in (1, 2, 3)]
    assert before[2][:2] == ["Amaru", "Jonas"] and before[0][0] == "Iolana", "the nearest row first, the loud ones behind"
    inside.keyboard.press("c")
    inside.get_by_role("button", name=re.compile("^Jonas")).press(" ")
    for key in ("ArrowDown", "ArrowLeft", "ArrowDown"):  # quicker than any of them is kept
        inside.keyboard.press(key)
    expect(inside.get_by_role("status").filter(has_text="Jonas sits in row 1, chair 1.")).to_be_visible()
    assert in_row(inside, 1)[:2] == ["Jonas", "Iolana"] and "Jonas" not in in_row(inside, 3)
    inside.keyboard.press("z")
    expect(inside.get_by_role("group", name="row 3").get_by_role("button", name=re.compile("^Jonas"))).to_be_visible()
    assert [in_row(inside, number) for number in (1, 2, 3)] == before, "all that was done to that chair"
    inside.keyboard.press("Escape")
    expect(inside.get_by_role("button", name="change the seats")).to_be_visible()


def test_a_chair_is_dragged_beside_another_or_behind_all(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.get_by_role("button", name="change the seats").click()

    def drag(name: str, to_x: float, to_y: float) -> None:
        box = inside.get_by_role("button", name=re.compile(f"^{name}")).bounding_box()
        assert box
        inside.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        inside.mouse.down()
        inside.mouse.move(to_x, to_y, steps=4)
        inside.mouse.up()

    beside = inside.get_by_role("button", name=re.compile("^Pavel")).bounding_box()
    assert beside
    drag("Noor", beside["x"] + beside["width"] - 8, beside["y"] + 20)
    expect(inside.get_by_role("status").filter(has_text="Noor sits in row 1, chair 6.")).to_be_visible()
    assert in_row(inside, 1)[-3:] == ["Pavel", "Noor", "Ziva"]
    top = inside.get_by_role("group", name="row 3").bounding_box()
    assert top
    drag("Ingrid", top["x"] + 200, max(top["y"] - 40, 4))
    expect(inside.get_by_role("group", name="row 4").get_by_role("button")).to_have_count(1)
    expect(inside.get_by_role("status").filter(has_text="Ingrid sits in row 4, chair 1.")).to_be_visible()
    for _ in range(2):
        inside.keyboard.press("z")  # the last one; and there is no more to take back
    expect(inside.get_by_role("group", name="row 4")).to_have_count(0)


def test_what_another_teacher_moves_is_moved_here_as_well(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    *_, beside, ziva = in_row(inside, 1)
    assert ziva == "Ziva"
    other = inside.context.new_page()
    other.goto("/class")
    names(other)
    other.keyboard.press("c")
    other.get_by_role("button", name=re.compile("^Ziva")).click()
    other.keyboard.press("ArrowLeft")
    expect(other.get_by_role("status").filter(has_text="Ziva sits in row 1")).to_be_visible()
    last = inside.get_by_role("group", name="row 1").locator("button").last
    expect(last).to_have_accessible_name(re.compile(f"^{beside}"))
    other.keyboard.press("z")
    expect(last).to_have_accessible_name(re.compile("^Ziva"))
    other.close()


def test_a_section_is_chosen_by_one_key(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.get_by_role("button", name=re.compile("^Kwaku")).focus()
    inside.keyboard.press("s")
    expect(inside.get_by_role("heading", name="5 chosen")).to_be_visible()
    inside.keyboard.press("s")
    expect(inside.get_by_role("heading", name="Everybody")).to_be_visible()


def test_a_file_that_is_no_class_list_changes_nothing_and_says_what_to_do(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.set_input_files("input[type=file]", {"name": "noms.csv", "mimeType": "text/csv", "buffer": b"Nom;Pupitre\nAda;flute\n"})
    expect(inside.get_by_role("alert")).to_contain_text("headed name and instrument")


def test_one_who_joins_by_hand_may_leave_again(inside: Page) -> None:
    inside.keyboard.press("b")
    names(inside)
    inside.keyboard.press("a")
    expect(inside.get_by_label("Name")).to_be_focused()
    inside.keyboard.type("Nell Ambrose")
    inside.keyboard.press("Enter")
    chair = inside.get_by_role("button", name=re.compile("^Nell Ambrose"))
    expect(chair).to_be_visible()
    chair.click()
    inside.get_by_role("button", name="Left the class").click()
    expect(chair).to_have_count(0)
    expect(inside.get_by_role("status").filter(has_text="Nell left the class")).to_be_visible()


def test_the_class_fits_a_phone(desk: Page) -> None:
    desk.set_viewport_size({"width": 390, "height": 844})
    desk.goto("/class")
    names(desk)
    assert desk.evaluate("document.documentElement.scrollWidth") <= 390
