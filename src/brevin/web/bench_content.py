"""What the bench's routes share: the instruments' files, the programme's own ways, who sits in a section."""

from collections.abc import Sequence

from flask import current_app

from brevin.core.handling.cards import InstrumentCard
from brevin.core.handling.ways import looks, ways
from brevin.core.kinds import Instrument
from brevin.core.verdict.schools import Method
from brevin.edge.instrument_files import Content
from brevin.store import instruments, lessons, rulebook, students
from brevin.store.records import StudentRecord
from brevin.web.auth import scope
from brevin.web.bench_schemas import BenchChair, BenchRulesOut
from brevin.web.problems import Refused


def content() -> Content:
    """The instruments' files, read when the program started."""
    found: Content = current_app.config["CONTENT"]
    return found


def card_named(name: str) -> InstrumentCard:
    """A card by its name. Raises Refused(no_instrument)."""
    found = next((card for card in content().kinds if card.name == name), None)
    if found is None:
        raise Refused("no_instrument", 422)
    return found


def rules() -> BenchRulesOut:
    """What the programme does otherwise at the bench."""
    return BenchRulesOut(**instruments.bench_rules(scope()))


def section_of(card: InstrumentCard) -> list[StudentRecord]:
    """Who plays this instrument, by name."""
    return [one for one in students.students(scope()) if one.instrument in card.serves]


def chairs(section: Sequence[StudentRecord], away: frozenset[int]) -> list[BenchChair]:
    """A section as chairs."""
    return [BenchChair(id=one.id, name=one.name, instrument=one.instrument, away=one.id in away) for one in section]


def away_today() -> frozenset[int]:
    """Who is marked as not here in the lesson of now."""
    return lessons.away_now(scope())


def card_of(who: StudentRecord) -> InstrumentCard:
    """The card of a student's instrument. Raises Refused(no_instrument)."""
    found = content().cards.get(who.instrument)
    if found is None:
        raise Refused("no_instrument", 422)
    return found


def chosen(card: InstrumentCard) -> dict[str, str]:
    """The way that stands for each choice of a card."""
    return ways(card, rules().choices.get(card.name, {}), (rulebook.method(scope()) or Method()).answers)


def looks_of(instrument: Instrument) -> dict[str, tuple[str, str]]:
    """What the programme's way of the mouth makes of the ticks: how it should be and the usual wrong place, by the tick's key."""
    card = content().cards.get(instrument)
    return {key: (one.fine, one.wrong) for key, one in looks(card, chosen(card)).items()} if card else {}
