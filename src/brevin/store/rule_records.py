"""Records about the rules: what a stored reading's verdicts stand on, who changed what, and what teachers say instead of a verdict."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from brevin.core.kinds import State
from brevin.core.verdict.again import Ground

RuleKind = Literal["method", "limits"]


@dataclass(frozen=True)
class RuleChangeRecord:
    """A change of the rules: what stood and what stands, by whom ("" where they have left) and when; instrument: "" for the programme's own."""

    made_at: datetime
    by: str
    what: RuleKind
    instrument: str
    before: Mapping[str, object]
    after: Mapping[str, object]


@dataclass(frozen=True)
class OverruleRecord:
    """What a teacher says instead of a verdict, why, and who ("" where they have left) and when."""

    criterion: str
    state: State
    reason: str
    by: str
    said_at: datetime


@dataclass(frozen=True)
class StoodOn:
    """What a stored reading's verdicts stand on, and what of the rules is its own: the student's exemptions. overruled: criteria on which
    the teacher has the last word."""

    take_id: str
    student_id: int
    student_name: str
    made_at: datetime
    exempt: tuple[str, ...]
    ground: Ground
    overruled: frozenset[str] = frozenset()
