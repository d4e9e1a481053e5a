"""What a reader holds and what it gives back: frozen records, as in ``records.py``."""

from dataclasses import dataclass, field

from brevin.core.edited import Edits
from brevin.core.pose.others import NOBODY_ELSE
from brevin.core.verdict.rules import Rules
from brevin.store.records import NewReport, TakeRecord


@dataclass(frozen=True)
class Leased:
    """A take that one reader holds."""

    take: TakeRecord
    token: str


@dataclass(frozen=True)
class Looked:
    """What a reader found in a clip. evidence_name, stills_name: files below the evidence folder; playable: file a browser plays and its type; timed: whether
    the clip was looked at now, so that the time it took says how long others take; edits: what it was judged with; blurred_for: as
    ``ClipRecord`` has it."""

    evidence_name: str
    playable: tuple[str, str]
    report: NewReport
    rules: Rules
    timed: bool = True
    stills_name: str = ""
    edits: Edits = field(default_factory=Edits)
    blurred_for: int | None = NOBODY_ELSE
