"""What is known of handling an instrument, as records: the steps from the closed case and back, the first notes, what to check, the care.

The facts stand in ``content/instruments``, one file an instrument, the drawings in ``content/drawings``; both can be corrected without touching code.
``family.py`` puts a family's lines under an instrument's own, ``faults.py`` says what cannot be right.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from brevin.core.kinds import Instrument

Family = Literal["flute", "double_reed", "single_reed", "brass"]
Phase = Literal["together", "away"]
Clef = Literal["treble", "bass"]
Unit = Literal["mm", "cm", "deg", "s"]
PartRule = Literal["yours", "shown", "shut"]
Group = Literal["instrument", "hands", "mouth", "air"]
Outcome = Literal["nothing", "only_air", "squeak", "thin", "gurgling", "note"]
Where = Literal["before", "steps", "first_notes", "care"]
Who = Literal["student", "teacher", "repair shop"]
GROUPS: tuple[Group, ...] = get_args(Group)
"""The order of checking: the instrument before the child."""
OUTCOMES: tuple[Outcome, ...] = get_args(Outcome)


@dataclass(frozen=True)
class Amount:
    """A starting value that is seen on the instrument. words: as it is said; low, high: the range in which nobody asks back."""

    key: str
    words: str
    value: float
    low: float
    high: float
    unit: Unit


@dataclass(frozen=True)
class Looks:
    """What a teacher sees where it is right, and the usual wrong place."""

    fine: str
    wrong: str


@dataclass(frozen=True)
class Option:
    """One way to do it. say, drawing: instead of the step's own; order: keys of all steps of the phase where this way has another order;
    taught: "question.school" of the programme's five answers that it goes with; looks: what is ticked otherwise where mouth or hands are taught so, by
    the tick's key (``core/hold/ticks.py``)."""

    key: str
    label: str
    reason: str
    say: str = ""
    drawing: str = ""
    order: tuple[str, ...] = ()
    taught: str = ""
    looks: Mapping[str, Looks] = field(default_factory=dict)


@dataclass(frozen=True)
class Choice:
    """Where teachers do it differently; the first option is the default. step: where it is switched, "" = nowhere in class mode."""

    key: str
    title: str
    options: tuple[Option, ...]
    step: str = ""


@dataclass(frozen=True)
class Step:
    """One step of the class. say: the one sentence; hold, never: where it is gripped and where not; check: what the teacher sees; wrong: how the fault looks;
    part: what of the labelled drawing the ruler shows; when: the passport's entry without which the step falls away; fact: where it comes from."""

    key: str
    phase: Phase
    title: str
    say: str
    drawing: str
    fact: str
    hold: str = ""
    never: str = ""
    check: str = ""
    wrong: tuple[str, ...] = ()
    careful: str = ""
    part: str = ""
    value: Amount | None = None
    seconds: int = 45
    when: str = ""


@dataclass(frozen=True)
class Ask:
    """One thing to check. name: in a word; ask: as a question that yes answers well."""

    name: str
    ask: str


@dataclass(frozen=True)
class FirstNote:
    """written: its name, C4 = middle C; play: the fingering, valves or slide position."""

    written: str
    play: str


@dataclass(frozen=True)
class Alone:
    """What sounds before the whole instrument: mouthpiece, reed or head joint. sounds: about which note, "" where any will do; good_s, excellent_s: how long
    one breath may make it sound, 0 where no guide is known."""

    title: str
    say: str
    sounds: str = ""
    drawing: str = ""
    good_s: float = 0.0
    excellent_s: float = 0.0


@dataclass(frozen=True)
class Gate:
    """So many good of the last so many open the next step; on: whether it stands by default."""

    good: int
    of: int
    on: bool


@dataclass(frozen=True)
class CareTask:
    """every_days 0 = each time; does: the button's word; drops, rice: how little, of oil and of grease."""

    key: str
    title: str
    does: str
    every_days: int
    say: str
    fact: str
    drops: int = 0
    rice: int = 0
    who: Who = "student"
    shown: bool = False
    when: str = ""
    drawing: str = ""


@dataclass(frozen=True)
class Part:
    """A part of the labelled drawing, by the name of its mark there. yours: the student's; shown: once the teacher has shown it; shut: never."""

    name: str
    rule: PartRule
    words: str = ""


@dataclass(frozen=True)
class Home:
    """Where a finger lives, and the usual wrong place."""

    finger: str
    place: str
    wrong: str


@dataclass(frozen=True)
class Caution:
    """What can hurt, where it is shown."""

    at: Where
    say: str
    fact: str


@dataclass(frozen=True)
class Entry:
    """A question of the instrument's passport that its cards depend on."""

    key: str
    ask: str
    default: bool = False


Checks = Mapping[Outcome, Mapping[Group, tuple[Ask, ...]]]


@dataclass(frozen=True)
class FamilyCard:
    """The lines that instruments of a family share. steps: taken by an instrument with ``use``."""

    name: str
    steps: tuple[Step, ...] = ()
    choices: tuple[Choice, ...] = ()
    checks: Checks = field(default_factory=dict)
    care: tuple[CareTask, ...] = ()
    cautions: tuple[Caution, ...] = ()
    higher: str = ""


@dataclass(frozen=True)
class InstrumentCard:
    """All that the bench knows of an instrument. serves: the programme's words for it; sounds: semitones that it sounds lower than written, by those words;
    accepts: written names that count as the first note; pictures: drawings of hands and posture, beside the first notes."""

    name: str
    serves: tuple[Instrument, ...]
    section: str
    family: Family
    clef: Clef
    sounds: Mapping[Instrument, int]
    drawing: str
    use: tuple[str, ...]
    steps: tuple[Step, ...]
    rest: str
    playing: str
    notes: tuple[FirstNote, ...]
    accepts: tuple[str, ...]
    gate: Gate
    parts: tuple[Part, ...]
    home: tuple[Home, ...]
    care: tuple[CareTask, ...]
    checks: Checks
    alone: Alone | None = None
    choices: tuple[Choice, ...] = ()
    cautions: tuple[Caution, ...] = ()
    passport: tuple[Entry, ...] = ()
    positions_cm: tuple[float, ...] = ()
    pictures: tuple[str, ...] = ()
    higher: str = ""
