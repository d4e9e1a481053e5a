"""What cannot be right in an instrument's file: each fault with the way to the place where it stands, so that file and line can be told."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import OUTCOMES, FamilyCard, InstrumentCard
from brevin.core.handling.fingering import play
from brevin.core.handling.notes import clef_fits, note
from brevin.core.hold.ticks import TICKS
from brevin.core.kinds import Instrument
from brevin.core.verdict.schools import SCHOOLS

LONGEST_ALONE_S = 30.0  # longer is held by nobody who begins
Path = tuple[str | int, ...]


@dataclass(frozen=True)
class Fault:
    """at: keys and places from the file's top; says: what is wrong, for who wrote the file."""

    at: Path
    says: str


def family_faults(card: FamilyCard, *, drawings: frozenset[str]) -> list[Fault]:
    """What cannot be right in a family's file."""
    return [*_missing_drawings(card, drawings), *_taught(card), *_looks(card, tuple(TICKS))]


def faults(card: InstrumentCard, whole: InstrumentCard, *, drawings: frozenset[str]) -> list[Fault]:
    """What cannot be right in an instrument's file, with its family's lines put under it (whole)."""
    return [*_missing_drawings(card, drawings), *_taught(card), *_notes(card), *_keys(card, whole), *_ranges(card), *_checks(whole), *_looks(card, card.serves)]


def _missing_drawings(card: InstrumentCard | FamilyCard, drawings: frozenset[str]) -> Iterator[Fault]:
    named: list[tuple[Path, str]] = [(("steps", i, "drawing"), step.drawing) for i, step in enumerate(card.steps)]
    for i, choice in enumerate(card.choices):
        named += [(("choices", i, "options", k, "drawing"), option.drawing) for k, option in enumerate(choice.options) if option.drawing]
    named += [(("care", i, "drawing"), task.drawing) for i, task in enumerate(card.care) if task.drawing]
    if isinstance(card, InstrumentCard):
        named += [(("pictures", i), name) for i, name in enumerate(card.pictures)]
        named.append((("drawing",), card.drawing))
        named += [(("alone", "drawing"), card.alone.drawing)] if card.alone and card.alone.drawing else []
    for at, name in named:
        if name not in drawings:
            yield Fault(at, f"there is no drawing {name} in content/drawings")


def _taught(card: InstrumentCard | FamilyCard) -> Iterator[Fault]:
    known = {f"{question}.{school}" for question, schools in SCHOOLS.items() for school in schools}
    for i, choice in enumerate(card.choices):
        for k, option in enumerate(choice.options):
            if option.taught and option.taught not in known:
                yield Fault(("choices", i, "options", k, "taught"), f"{option.taught} is none of the answers on how one teaches")


def _looks(card: InstrumentCard | FamilyCard, instruments: Sequence[Instrument]) -> Iterator[Fault]:
    known = {tick.key for instrument in instruments for tick in TICKS.get(instrument, ())}
    for i, choice in enumerate(card.choices):
        for k, option in enumerate(choice.options):
            for key in option.looks:
                if key not in known:
                    yield Fault(("choices", i, "options", k, "looks"), f"{key} is nothing that is ticked on {card.name}")


def _notes(card: InstrumentCard) -> Iterator[Fault]:
    written = []
    for i, one in enumerate(card.notes):
        try:
            written.append(note(one.written))
        except InvalidInput:
            yield Fault(("notes", i, "written"), f"{one.written} is no note; write it like B4 or E flat 3")
        try:
            play(card, one.play)
        except InvalidInput:
            yield Fault(("notes", i, "play"), f"{one.play} cannot be played on {card.name}")
    for instrument in card.serves:
        if not clef_fits(card.clef, instrument, written):
            yield Fault(("clef",), f"{instrument} is not read in the {card.clef} clef, or its notes lie too far from it")
        if instrument not in card.sounds:
            yield Fault(("sounds",), f"how much lower {instrument} sounds is not said")
    known = {one.written for one in card.notes}
    for i, name in enumerate(card.accepts):
        if name not in known:
            yield Fault(("accepts", i), f"{name} is not among the first notes")


def _keys(card: InstrumentCard, whole: InstrumentCard) -> Iterator[Fault]:
    steps = [step.key for step in whole.steps]
    for i, key in enumerate(card.use):
        if key not in steps or card.use.index(key) != i:
            yield Fault(("use", i), f"{key} is no step of this instrument or its family, or stands here twice")
    passport = {entry.key for entry in card.passport}
    for i, step in enumerate(card.steps):
        if step.key not in card.use:
            yield Fault(("steps", i, "key"), f"{step.key} stands nowhere in the order of use")
    asked = [*((("steps", i), step.when) for i, step in enumerate(card.steps)), *((("care", i), task.when) for i, task in enumerate(card.care))]
    for at, when in asked:
        if when and when not in passport:
            yield Fault((*at, "when"), f"the passport does not ask for {when}")
    for i, choice in enumerate(card.choices):
        if choice.step and choice.step not in steps:
            yield Fault(("choices", i, "step"), f"{choice.step} is no step of this instrument")
        if len(choice.options) < 2:
            yield Fault(("choices", i, "options"), "one way alone is no choice")
        for k, option in enumerate(choice.options):
            if option.order and sorted(option.order) != sorted(key for key in steps if key in _phase_of(whole, choice.step)):
                yield Fault(("choices", i, "options", k, "order"), "the order must name each step of its phase once")


def _phase_of(whole: InstrumentCard, key: str) -> list[str]:
    phase = next((step.phase for step in whole.steps if step.key == key), "together")
    return [step.key for step in whole.steps if step.phase == phase]


def _ranges(card: InstrumentCard) -> Iterator[Fault]:
    for i, step in enumerate(card.steps):
        if step.value and not step.value.low <= step.value.value <= step.value.high:
            yield Fault(("steps", i, "value"), "the starting value lies outside its own range")
    for i, task in enumerate(card.care):
        if task.every_days < 0:
            yield Fault(("care", i, "every_days"), "days cannot be fewer than none")
    if not 1 <= card.gate.good <= card.gate.of:
        yield Fault(("gate",), "so many good of so many: the first is at most the second")
    if card.alone and not 0 <= card.alone.good_s <= card.alone.excellent_s <= LONGEST_ALONE_S:
        yield Fault(("alone",), f"what is excellent lasts at least as long as what is good, and {LONGEST_ALONE_S:g} s at most")
    if list(card.positions_cm) != sorted(card.positions_cm):
        yield Fault(("positions_cm",), "each position lies further out than the one before")


def _checks(whole: InstrumentCard) -> Iterator[Fault]:
    for outcome in OUTCOMES:
        if outcome != "note" and not any(whole.checks.get(outcome, {}).values()):
            yield Fault(("checks",), f"nothing is to be checked after {outcome}")
