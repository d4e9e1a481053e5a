"""How a programme teaches, answered by keys alone; what no clip is judged by is answered, so that the shared programme judges as before."""

from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, Route, expect


def test_five_questions_are_answered_by_keys_and_kept_as_one_goes(inside: Page) -> None:
    inside.keyboard.press("b")
    inside.get_by_role("button", name="Answer them").wait_for()
    inside.keyboard.press("y")
    sentence = inside.get_by_role("heading", level=1)
    expect(sentence).to_have_text("Five questions on how you teach.")
    for _ in range(3):
        inside.keyboard.press("ArrowDown")
    inside.keyboard.press("2")
    expect(sentence).to_have_text("One question is answered, four to go.")
    expect(inside.get_by_role("button", name="Tongue at once")).to_have_attribute("aria-pressed", "true")
    inside.reload()
    expect(inside.get_by_role("button", name="Tongue at once")).to_have_attribute("aria-pressed", "true")
    inside.keyboard.press("u")
    expect(sentence).to_have_text("All five questions are answered.")
    expect(inside.get_by_role("button", name="Tongue at once")).to_have_attribute("aria-pressed", "true")
    expect(inside.get_by_role("button", name="Most days")).to_have_attribute("aria-pressed", "true")
    assert Axe().run(inside).violations_count == 0, Axe().run(inside).generate_report()
    inside.keyboard.press("Escape")
    expect(inside.get_by_role("button", name="Plan a lesson")).to_be_visible()
    expect(inside.get_by_role("button", name="Answer them")).to_have_count(0)


def test_another_school_is_pointed_at_before_it_is_chosen_and_a_line_is_drawn_by_example(desk: Page) -> None:
    desk.goto("/teaching")
    belly = desk.get_by_role("button", name="Only the belly")
    belly.hover()
    would = desk.get_by_role("region", name="What would change")
    expect(would.get_by_role("heading", level=2)).to_contain_text("would change.")
    expect(would).to_contain_text("Abdomen leads")
    expect(would.get_by_role("img", name="watch").first).to_be_visible()
    desk.keyboard.press("Escape")  # left, and nothing was changed
    expect(would.get_by_role("heading", level=2)).to_have_count(0)
    expect(belly).to_have_attribute("aria-pressed", "false")
    sorted_by_hand = desk.get_by_role("group", name="takes to sort")
    fine = sorted_by_hand.get_by_role("button", name="% belly, fine").first
    said = fine.get_attribute("aria-label")
    fine.press("Enter")
    expect(sorted_by_hand.get_by_role("button", name=said.replace(", fine", ", not fine"))).to_be_visible()
    expect(desk.get_by_text("agrees with").first).to_be_visible()
    expect(desk.get_by_role("button", name="Use ").first).to_be_visible()
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()
    desk.get_by_role("button", name="Who changed what").click()
    expect(desk.get_by_role("button", name="Who changed what")).to_have_attribute("aria-expanded", "true")


def test_a_finer_question_is_as_usual_until_another_way_is_pressed_and_goes_back(desk: Page) -> None:
    desk.goto("/teaching")
    between = desk.get_by_role("region", name="between in and out")
    usual, short = (between.get_by_role("button", name=name) for name in ("no pause", "a short set"))
    expect(usual).to_have_attribute("aria-pressed", "true")
    filling = desk.get_by_role("region", name="filling")
    filling.get_by_role("button", name="counts are only time").hover()
    would = desk.get_by_role("region", name="What would change")
    expect(would.get_by_role("heading", level=2)).to_contain_text("would change.")
    expect(would).to_contain_text("Not full too early")
    desk.keyboard.press("Escape")
    for pressed, left, said in ((short, usual, "half a beat"), (usual, short, "a quarter beat at most")):
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):
            pressed.press("Enter")
        expect(pressed).to_have_attribute("aria-pressed", "true")
        expect(left).to_have_attribute("aria-pressed", "false")
        expect(between).to_contain_text(said)
    for pressed, said in (("counts are only time", "not judged"), ("over all counts", "a quarter beat at most")):
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):  # the page says it before it is kept
            filling.get_by_role("button", name=pressed).press("Enter")
        expect(between).to_contain_text(said)
    expect(desk.get_by_role("region", name="Set elsewhere").get_by_role("link")).to_have_count(3)
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()


def test_answers_that_are_given_faster_than_they_are_kept_are_all_kept(desk: Page) -> None:
    desk.goto("/teaching")
    desk.get_by_role("heading", name="Breathing in").wait_for()
    held: list[Route] = []
    desk.route("**/api/rules/method", lambda route: held.append(route) if route.request.method == "PUT" else route.continue_())

    def answer(name: str) -> None:
        button = desk.get_by_role("button", name=name)
        button.press("Enter")
        expect(button).to_have_attribute("aria-pressed", "true")

    def let_go() -> None:
        while not held:
            desk.wait_for_timeout(50)
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):
            held.pop().continue_()

    answer("Air starts the note")
    answer("Now and then")
    let_go()  # the first is kept, the second on its way: what the server knows now holds one of them
    desk.wait_for_timeout(500)
    answer("The whole at once")
    let_go()
    let_go()
    kept = desk.evaluate(ANSWERS)
    assert [kept.get(question) for question in ("tongue", "practice", "first_sounds")] == ["air_first", "now_and_then", "whole"], kept


ANSWERS = "async () => (await (await fetch('/api/rules/method')).json()).answers"


def test_the_questions_fit_a_phone(desk: Page) -> None:
    desk.set_viewport_size({"width": 390, "height": 844})
    desk.goto("/teaching")
    desk.get_by_role("heading", name="Breathing in").wait_for()
    assert desk.evaluate("document.documentElement.scrollWidth") <= 390


def test_what_is_spoken_of_first_moves_by_a_press_and_back(desk: Page) -> None:
    desk.goto("/teaching")
    first = desk.get_by_role("region", name="spoken of first").get_by_role("button")
    expect(first).to_have_text(["the seat", "the breath", "the hold", "the count"])
    for name, order in (("the breath", ["the breath", "the seat"]), ("the seat", ["the seat", "the breath"])):
        with desk.expect_response(lambda answered: answered.request.method == "PUT"):
            desk.get_by_role("button", name=f"{name}, 2 of 4: move forward").press("Enter")
        expect(first).to_have_text([*order, "the hold", "the count"])
    assert Axe().run(desk).violations_count == 0, Axe().run(desk).generate_report()


def test_what_does_not_load_beside_the_questions_says_so_and_can_be_tried_again(desk: Page) -> None:
    for part in ("**/api/rules/method/preview", "**/api/rules/lines?*"):
        desk.route(part, lambda route: route.fulfill(status=409, json={"code": "busy", "message": "Somebody else is at it."}))
    desk.goto("/teaching")
    told = desk.get_by_role("alert")
    expect(told).to_have_count(2)
    expect(told.first).to_contain_text("did not load: Somebody else is at it.")
    expect(desk.get_by_role("button", name="Slow and even")).to_be_enabled()
    desk.unroute_all()
    for left in (1, 0):
        desk.get_by_role("button", name="Try again").first.click()
        expect(told).to_have_count(left)
    expect(desk.get_by_role("group", name="takes to sort")).to_be_visible()
