"""The instrument bench: the class puts its instruments together step by step, and away again."""

from flask import Response, current_app

from brevin.core.handling.cards import InstrumentCard, Phase
from brevin.core.handling.care import fitted
from brevin.store import benches, instruments, students
from brevin.web.auth import scope
from brevin.web.bench_care import due_by_card
from brevin.web.bench_content import away_today, card_named, chairs, chosen, content, rules, section_of
from brevin.web.bench_schemas import BeginIn, BenchCardOut, BenchOut, BenchRulesOut, CardQuery, RunOut, RunPath, SectionOut, TapIn
from brevin.web.bench_shapes import card_out, run_out
from brevin.web.feed import Feed
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done
from brevin.web.shapes import answer

routes = routes_of("bench", __name__, below="/api/bench")


@routes.get("", responses={200: BenchOut})
def sections() -> Response:
    """Every section that has a student, where it stands, and what is due."""
    everybody, away, open_runs, due = students.students(scope()), away_today(), benches.open_runs(scope()), due_by_card()
    found = []
    for card in content().kinds:
        section = [one for one in everybody if one.instrument in card.serves]
        if section:
            runs = [run_out(run) for run in open_runs if run.card == card.name]
            found.append(SectionOut(card=card.name, section=card.section, chairs=chairs(section, away), runs=runs, due=due.get(card.name, 0)))
    return answer(BenchOut(sections=found))


@routes.get("/card", responses={200: BenchCardOut})
def card(query: CardQuery) -> Response:
    """The steps, first notes and parts of an instrument, with their drawings."""
    found = card_named(query.card)
    return answer(card_out(content(), found, query.instrument if query.instrument in found.serves else found.serves[0], rules=rules(), chosen=chosen(found)))


@routes.post("/runs", responses={200: RunOut})
def begin(body: BeginIn) -> Response:
    """Begin with a section, or go on where it was stopped."""
    found = card_named(body.card)
    section = section_of(found)
    here = frozenset(one.id for one in section)
    run = benches.begin(scope(), card=found.name, phase=body.phase, steps=_steps(found, body.phase, list(here)), away=sorted(away_today() & here))
    return _told(run_out(run))


def _steps(card: InstrumentCard, phase: Phase, section: list[int]) -> list[str]:
    """The steps of a phase in the programme's order; one that no instrument of the section has is left out."""
    passports = instruments.passports(scope(), section)
    had = {step.key for passport in passports.values() for step in fitted(card, passport).steps}
    keys = [step.key for step in card.steps if step.phase == phase and (step.key in had or not passports)]
    for order in _orders(card, chosen(card), phase):
        keys = [key for key in order if key in keys]
    return keys


def _orders(card: InstrumentCard, chosen: dict[str, str], phase: Phase) -> list[tuple[str, ...]]:
    own = {step.key for step in card.steps if step.phase == phase}
    return [
        option.order for choice in card.choices for option in choice.options if option.order and chosen[choice.key] == option.key and choice.step in own
    ]  # fmt: skip


@routes.post("/runs/<int:run_id>", responses={200: RunOut})
def tap(path: RunPath, body: TapIn) -> Response:
    """One tap of somebody at the bench. Two who tap the same leave the section as one would."""
    order: tuple[str, ...] = ()
    if body.does == "choose":
        order = _order_of(benches.run(scope(), path.run_id), body.word)
    run = benches.tap(scope(), path.run_id, does=body.does, step=body.step, student=body.student, word=body.word, order=order)
    return _told(run_out(run))


def _order_of(run: benches.RunRecord, word: str) -> tuple[str, ...]:
    """The order of all steps that goes with a way. Raises Refused(no_such_way)."""
    found = card_named(run.card)
    key, _, wanted = word.partition("=")
    options = next((choice.options for choice in found.choices if choice.key == key), ())
    option = next((one for one in options if one.key == wanted), None)
    if option is None:
        raise Refused("no_such_way", 422)
    if not any(one.order for one in options):
        return ()
    usual = [step.key for step in found.steps if step.phase == run.phase]
    return tuple(step for step in option.order or usual if step in run.now.steps)


def _told(run: RunOut) -> Response:
    """The section as it stands, and every open page told of it at once."""
    feed: Feed = current_app.config["FEED"]
    feed.wake()
    return answer(run)


@routes.get("/rules", responses={200: BenchRulesOut})
def bench_rules() -> Response:
    """Gates, ways and intervals that the programme changed."""
    return answer(rules())


@routes.put("/rules", responses={200: Done})
def change_rules(body: BenchRulesOut) -> Response:
    """Change gates, ways and intervals."""
    for name, ways in body.choices.items():
        known = {choice.key: {one.key for one in choice.options} for choice in card_named(name).choices}
        if any(way not in known.get(choice, ()) for choice, way in ways.items()):
            raise Refused("no_such_way", 422)
    for name, days in body.days.items():
        tasks = {task.key for task in card_named(name).care}
        if any(task not in tasks or not 0 <= every <= 730 for task, every in days.items()):
            raise Refused("no_such_task", 422)
    instruments.keep_bench_rules(scope(), body.model_dump())
    return answer(Done(done=True))
