"""What goes over the wire of the instrument bench. The content's own records are those of ``core.handling``."""

from datetime import datetime

from pydantic import BaseModel, ConfigDict, Field

from brevin.core.handling.cards import Alone, Caution, Choice, Clef, Entry, Gate, Home, Outcome, Part, Phase, Step
from brevin.core.handling.firsts import Checked, GateNow
from brevin.core.handling.run import Tap
from brevin.core.kinds import Instrument
from brevin.edge.drawings import Drawing


class StaffOut(BaseModel):
    """A note on its staff. steps: above the bottom line; alter: -1 flat, 1 sharp; hz: of the tone that is heard."""

    name: str
    clef: Clef
    steps: int
    alter: int
    where: str
    hz: float


class NoteOut(BaseModel):
    """A first note. key: as it is written; fingers: those that press; position: of a slide; out_cm: how far that is from first; counts: accepted as the
    first note."""

    key: str
    reads: StaffOut
    sounds: StaffOut
    play: str
    fingers: list[str]
    position: int | None
    out_cm: float | None
    counts: bool


class BenchCardOut(BaseModel):
    """All that the bench knows of an instrument, as the programme teaches it."""

    name: str
    section: str
    instrument: Instrument
    steps: list[Step]
    choices: list[Choice]
    chosen: dict[str, str]
    notes: list[NoteOut]
    alone: Alone | None
    alone_hz: float | None
    gate: Gate
    higher: str
    rest: str
    playing: str
    parts: list[Part]
    home: list[Home]
    cautions: list[Caution]
    passport: list[Entry]
    drawing: str
    pictures: list[str]
    drawings: dict[str, Drawing]


class CardQuery(BaseModel):
    card: str = Field(max_length=16)
    instrument: Instrument | None = None


class HelpOut(BaseModel):
    student: int
    since: datetime


class RunOut(BaseModel):
    """Where a section stands. step: its place, as many as there are steps when all is done; spent_s: by step; since: from when the present step runs, None
    while stopped; helped: of the present step."""

    id: int
    card: str
    phase: Phase
    steps: list[str]
    step: int
    spent_s: dict[str, float]
    since: datetime | None
    helping: list[HelpOut]
    helped: list[int]
    away: list[int]
    chosen: dict[str, str]
    times: int
    stopped: bool
    done: bool
    taps: int
    now: datetime


class BenchChair(BaseModel):
    id: int
    name: str
    instrument: Instrument
    away: bool


class SectionOut(BaseModel):
    """The students of one card. kept: title of the step at which an unfinished way was stopped; due: care that is to be done today, counted by chairs."""

    card: str
    section: str
    chairs: list[BenchChair]
    runs: list[RunOut]
    due: int


class BenchOut(BaseModel):
    sections: list[SectionOut]


class BeginIn(BaseModel):
    card: str = Field(max_length=16)
    phase: Phase


class TapIn(BaseModel):
    """step: the step that was shown when it was tapped."""

    model_config = ConfigDict(extra="forbid")
    does: Tap
    step: str = Field(default="", max_length=24)
    student: int | None = None
    word: str = Field(default="", max_length=64)


class RunPath(BaseModel):
    run_id: int


class TryOut(BaseModel):
    """length_s: how long the part alone sounded, None where nobody measured."""

    id: int
    outcome: Outcome
    at: datetime
    fixed_by: str
    length_s: float | None


class RungOut(BaseModel):
    """key: the written note, or "alone"; opened: whether it may be tried; gate: what opens the next."""

    key: str
    title: str
    opened: bool
    gate: GateNow
    tries: list[TryOut]


class FirstsOut(BaseModel):
    """rest_s: of rest before the next try; checks: what to look at after each outcome, in order."""

    student_id: int
    name: str
    instrument: Instrument
    card: str
    rungs: list[RungOut]
    rest_s: float
    checks: dict[Outcome, list[Checked]]


class TryIn(BaseModel):
    """length_s: how long it sounded, of a good try with the part alone."""

    rung: str = Field(max_length=16)
    outcome: Outcome
    length_s: float | None = Field(default=None, ge=0.1, le=60.0)


class TryPath(BaseModel):
    try_id: int


class FixedIn(BaseModel):
    """by: the name of the check that was the reason, "" takes it back."""

    by: str = Field(max_length=32)


class BenchRulesOut(BaseModel):
    """gates: switched otherwise than the card has it; choices: the programme's own way by card and choice; days: intervals by card and task."""

    gates: dict[str, bool] = Field(default={}, max_length=20)
    choices: dict[str, dict[str, str]] = Field(default={}, max_length=20)
    days: dict[str, dict[str, int]] = Field(default={}, max_length=20)


class BenchLine(BaseModel):
    """One thing on record. what: step, value, first note, care, repair."""

    student: int
    what: str
    which: str
    how: str
    at: datetime
    by: str


class BenchRecordOut(BaseModel):
    lines: list[BenchLine]


class HeardQuery(BaseModel):
    """rate_hz: of the samples that are sent; wanted_hz: of the tone that is asked for."""

    rate_hz: float = Field(ge=8000, le=192_000)
    wanted_hz: float | None = Field(default=None, gt=20, lt=4000)


class HeardOut(BaseModel):
    """What was heard, and what it is most like."""

    air_s: float
    tone_s: float
    hz: float | None
    like: Outcome
