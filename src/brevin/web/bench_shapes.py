"""From the bench's content and records to what goes over the wire."""

from dataclasses import replace

from brevin.core.handling.cards import FirstNote, InstrumentCard
from brevin.core.handling.fingering import in_words, play
from brevin.core.handling.notes import Note, lower, note, staff_steps, where_on_staff
from brevin.core.kinds import Instrument
from brevin.edge.instrument_files import Content
from brevin.store.benches import RunRecord
from brevin.store.database import now
from brevin.web.bench_schemas import BenchCardOut, BenchRulesOut, HelpOut, NoteOut, RunOut, StaffOut


def run_out(record: RunRecord) -> RunOut:
    """Where a section stands."""
    at = record.now
    return RunOut(
        id=record.id, card=record.card, phase=record.phase, steps=list(at.steps), step=at.step, spent_s=at.spent_s, since=at.since,
        helping=[HelpOut(student=student, since=since) for student, since in at.helping.items()],
        helped=[student for step, student in sorted(at.helped) if step == at.key], away=sorted(at.away), chosen=at.chosen, times=at.times,
        stopped=at.stopped, done=at.done, taps=record.taps, now=now(),
    )  # fmt: skip


def staff_out(shown: Note, card: InstrumentCard, heard: Note) -> StaffOut:
    """A note on its staff in the card's clef, with the frequency of what is heard."""
    steps = staff_steps(shown, card.clef)
    return StaffOut(name=shown.name, clef=card.clef, steps=steps, alter=shown.alter, where=where_on_staff(steps), hz=heard.hz)


def note_out(card: InstrumentCard, one: FirstNote, instrument: Instrument) -> NoteOut:
    """A first note of one instrument: as it is written, as it sounds, how it is played."""
    written = note(one.written)
    heard, made = lower(written, card.sounds[instrument]), play(card, one.play)
    return NoteOut(
        key=one.written, reads=staff_out(written, card, heard), sounds=staff_out(heard, card, heard), play=in_words(card, made), fingers=list(made.fingers),
        position=made.position, out_cm=card.positions_cm[made.position - 1] if made.position else None, counts=one.written in card.accepts,
    )  # fmt: skip


def card_out(found: Content, card: InstrumentCard, instrument: Instrument, *, rules: BenchRulesOut, chosen: dict[str, str]) -> BenchCardOut:
    """All that the bench knows of an instrument, with its drawings and the ways that stand."""
    names = {card.drawing, *(step.drawing for step in card.steps), *(option.drawing for choice in card.choices for option in choice.options)}
    names |= {*card.pictures, *(task.drawing for task in card.care)}
    names |= {card.alone.drawing} if card.alone else set()
    sounds = card.alone.sounds if card.alone else ""
    return BenchCardOut(
        name=card.name, section=card.section, instrument=instrument, higher=card.higher, rest=card.rest, playing=card.playing, drawing=card.drawing,
        alone=card.alone, alone_hz=note(sounds).hz if sounds else None, steps=list(card.steps), choices=list(card.choices), parts=list(card.parts),
        home=list(card.home), cautions=list(card.cautions), passport=list(card.passport), pictures=list(card.pictures), chosen=chosen,
        gate=replace(card.gate, on=rules.gates.get(card.name, card.gate.on)), notes=[note_out(card, one, instrument) for one in card.notes],
        drawings={name: found.drawings[name] for name in sorted(names) if name},
    )  # fmt: skip
