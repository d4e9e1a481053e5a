"""Notes: their names, where they stand on a staff, what they sound like. Scientific names, C4 = middle C; equal temperament over A4 = 440 Hz."""

import re
from dataclasses import dataclass

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import Clef
from brevin.core.kinds import Instrument

A4_HZ = 440.0
A4_MIDI, SEMITONES = 69, 12  # the key's number of A4; semitones in an octave
LETTERS = "CDEFGAB"
_ABOVE_C: dict[str, int] = dict(zip(LETTERS, (0, 2, 4, 5, 7, 9, 11), strict=True))
_NAME = re.compile(r"([A-G])( flat| sharp)?( )?(\d)")
_SPELLED = ("C", "C sharp", "D", "E flat", "E", "F", "F sharp", "G", "A flat", "A", "B flat", "B")
BOTTOM_LINE: dict[Clef, str] = {"treble": "E4", "bass": "G2"}
READS: dict[Instrument, tuple[Clef, ...]] = {
    "flute": ("treble",), "oboe": ("treble",), "clarinet": ("treble",), "alto_sax": ("treble",), "tenor_sax": ("treble",), "trumpet": ("treble",),
    "cornet": ("treble",), "horn": ("treble",), "trombone": ("bass",), "euphonium": ("bass", "treble"), "baritone": ("bass", "treble"), "tuba": ("bass",),
}  # fmt: skip
"""The clefs in which each is read by beginners."""
MOST_LEDGER_LINES = 3  # lines beside the staff that a first note may need
_ORDINALS = ("first", "second", "third", "fourth", "fifth")


@dataclass(frozen=True)
class Note:
    """letter: C to B; alter: -1 flat, 0, 1 sharp; octave: C4 = middle C."""

    letter: str
    alter: int
    octave: int

    @property
    def midi(self) -> int:
        """The key's number, 69 = A4, in semitones."""
        return SEMITONES * (self.octave + 1) + _ABOVE_C[self.letter] + self.alter

    @property
    def hz(self) -> float:
        """The frequency of the key in equal temperament."""
        return A4_HZ * 2 ** ((self.midi - A4_MIDI) / SEMITONES)

    @property
    def name(self) -> str:
        """The name without its octave."""
        return self.letter + {-1: " flat", 0: "", 1: " sharp"}[self.alter]

    @property
    def place(self) -> int:
        """Steps of the scale above C0, whatever the accidental."""
        return 7 * self.octave + LETTERS.index(self.letter)


def note(name: str) -> Note:
    """A note by its name: "B4", "E flat 3", "C sharp 5". Raises InvalidInput(bad_note)."""
    found = _NAME.fullmatch(name)
    if found is None or bool(found[2]) != bool(found[3]):
        raise InvalidInput("bad_note", note=name)
    return Note(found[1], {None: 0, " flat": -1, " sharp": 1}[found[2]], int(found[4]))


def lower(written: Note, semitones: int) -> Note:
    """The note that sounds, so many semitones lower, spelled with the usual names. Property: ``lower(n, 0).midi == n.midi``."""
    octave, key = divmod(written.midi - semitones, SEMITONES)
    if semitones == 0:
        return written
    name = _SPELLED[key]
    return Note(name[0], {"": 0, " flat": -1, " sharp": 1}[name[1:]], octave - 1)


def staff_steps(shown: Note, clef: Clef) -> int:
    """Steps above the staff's bottom line; 0, 2, 4, 6, 8 are its lines."""
    return shown.place - note(BOTTOM_LINE[clef]).place


def ledger_lines(steps: int) -> int:
    """Lines beside the staff that a note needs."""
    return max(0, -steps // 2, (steps - 8) // 2)


def where_on_staff(steps: int) -> str:
    """Where a note stands, in words."""
    lines = ledger_lines(steps)
    if 0 <= steps <= 8:
        return f"{'on' if steps % 2 == 0 else 'in'} the {_ORDINALS[steps // 2]} {'line' if steps % 2 == 0 else 'space'}"
    side = "below" if steps < 0 else "above"
    if lines == 0:
        return f"just {side} the staff"
    short = "line" if lines == 1 else "lines"
    return f"{side} the staff, {'on' if steps % 2 == 0 else 'beyond'} {'a' if lines == 1 else lines} short {short}"


def clef_fits(clef: Clef, instrument: Instrument, written: list[Note]) -> bool:
    """Whether beginners on this instrument read these notes in that clef."""
    return clef in READS.get(instrument, ()) and all(ledger_lines(staff_steps(one, clef)) <= MOST_LEDGER_LINES for one in written)
