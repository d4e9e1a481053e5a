"""What goes over the wire of how a programme teaches."""

from pydantic import BaseModel, Field

from brevin.core.verdict.schools import Question, Strictness


class MethodIn(BaseModel):
    """answers: question to school, open ones left out; strictness: of every limit at once."""

    answers: dict[Question, str] = Field(max_length=5)
    strictness: Strictness = "usual"


class SchoolsOut(BaseModel):
    """A question with its schools in order; usual: what holds while it is open."""

    question: Question
    schools: list[str]
    usual: str


class MethodOut(MethodIn):
    """asked: whether anybody has answered yet; shoulders_pct: how far shoulders may rise before a mark, by strictness, percent of trunk."""

    asked: bool
    questions: list[SchoolsOut]
    shoulders_pct: dict[Strictness, float]
