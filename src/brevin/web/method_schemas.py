"""What goes over the wire of how a programme teaches."""

from datetime import datetime

from pydantic import BaseModel, Field

from brevin.core.kinds import Importance, Instrument, State
from brevin.core.verdict.criteria import Area
from brevin.core.verdict.example import EXAMPLES, Fine
from brevin.core.verdict.rules import CriterionKey
from brevin.core.verdict.schools import QUESTIONS, Question, Strictness


class MethodIn(BaseModel):
    """What is said of it now; the rest stays as it was. answers: question to school; strictness: of every limit at once; order: of faults, each once."""

    answers: dict[Question, str] = Field(max_length=len(QUESTIONS))
    strictness: Strictness | None = None
    order: list[Importance] | None = Field(default=None, max_length=4)


class SchoolsOut(BaseModel):
    """A question with its schools in order; usual: what holds while it is open; finer: it is asked of nobody."""

    question: Question
    schools: list[str]
    usual: str
    finer: bool


class MethodOut(BaseModel):
    """answers: those that were given; asked: whether anybody has answered yet; shoulders_pct: how far shoulders may rise before a mark, by strictness, percent
    of trunk."""

    answers: dict[Question, str]
    strictness: Strictness
    order: list[Importance]
    asked: bool
    questions: list[SchoolsOut]
    shoulders_pct: dict[Strictness, float]


class JudgedRowOut(BaseModel):
    """A row that is judged, in words. unit: of its number; area: which part of the playing it belongs to."""

    criterion: CriterionKey
    title: str
    unit: str
    area: Area


class JudgedRowsOut(BaseModel):
    rows: list[JudgedRowOut]


class Way(BaseModel):
    """Another way to teach: a school as the answer to a question, or another strictness."""

    question: Question | None = None
    school: str | None = None
    strictness: Strictness | None = None


class FlipOut(BaseModel):
    """A verdict that would change. before, after: None where the criterion is not judged at all; value: the number that is judged, its unit."""

    criterion: str
    title: str
    before: State | None
    after: State | None
    value: float | None
    unit: str


class ChangedOut(BaseModel):
    """A stored take with the verdicts that would change."""

    take_id: str
    student: str
    instrument: Instrument
    made_at: datetime
    flips: list[FlipOut]


class WayOut(Way):
    """count: of the takes that would change; changed: the newest of them."""

    count: int
    changed: list[ChangedOut]


class PreviewOut(BaseModel):
    """takes: stored ones that were tried; overruled: of them, those where the teacher has the last word on something."""

    takes: int
    overruled: int
    ways: list[WayOut]


class LineQuery(BaseModel):
    """Which criterion's line is drawn; skip: so many takes nearer to it were asked about before."""

    criterion: CriterionKey
    skip: int = Field(0, ge=0, le=500)


class ExampleOut(BaseModel):
    """A take to be sorted. value: the number that is judged; fine: as the line in force has it; the three regions' travel in its middle breath, % of trunk."""

    take_id: str
    student: str
    value: float
    fine: bool
    abdomen: float | None
    chest: float | None
    shoulder: float | None


class ExamplesOut(BaseModel):
    """criteria: those whose line can be drawn by example, with their titles; now: the line in force; fine: the side on which a take is fine."""

    criterion: CriterionKey
    unit: str
    fine: Fine
    now: float
    criteria: dict[CriterionKey, str]
    examples: list[ExampleOut]


class SortedIn(BaseModel):
    """What the teacher says of one take."""

    take_id: str = Field(max_length=32)
    value: float = Field(ge=0, le=1000)
    fine: bool


class SortedAllIn(BaseModel):
    """The sorted takes."""

    criterion: CriterionKey
    examples: list[SortedIn] = Field(max_length=EXAMPLES)


class ProposedOut(BaseModel):
    """The line that agrees best; count: of the stored takes it would change."""

    value: float
    agrees: int
    agrees_now: int
    misjudged: list[str]
    count: int
    takes: int
    changed: list[ChangedOut]


class LineIn(BaseModel):
    """A line for the whole programme."""

    criterion: CriterionKey
    value: float = Field(ge=0, le=100)


class RuleChangeOut(BaseModel):
    """by: "" where they have left; what: the sentence of what was changed."""

    made_at: datetime
    by: str
    what: list[str]


class RuleChangesOut(BaseModel):
    changes: list[RuleChangeOut]
