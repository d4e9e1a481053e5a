"""What became of a fault in the next try: after its cue was said, and without. It says how often, never that the cue was the reason."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from brevin.core.kinds import State

SAME_SITTING = timedelta(minutes=60)  # a later try is of another lesson
RANKS: dict[str, int] = {"work": 0, "watch": 1, "steady": 2}


@dataclass(frozen=True)
class Try:
    """One student's take under one criterion. state: as the teacher has it where they overruled; cued: whether its cue was said after it; way: in which words,
    by their place in ``cues``."""

    student_id: int
    made_at: datetime
    state: State
    cued: bool
    way: int = 0


@dataclass(frozen=True)
class NextTries:
    """How many tries with the fault were followed by another in the same sitting, and how many of those were better; after the cue, and without."""

    better_after: int = 0
    after: int = 0
    better_without: int = 0
    without: int = 0


def next_tries(tries: Iterable[Try]) -> NextTries:
    """Counted over every student's tries of one criterion. Source: own."""
    of_student: dict[int, list[Try]] = {}
    for one in tries:
        if one.state in RANKS:
            of_student.setdefault(one.student_id, []).append(one)
    pairs = [pair for own in of_student.values() for pair in _pairs(sorted(own, key=lambda one: one.made_at))]
    cued, alone = [pair for pair in pairs if pair[0].cued], [pair for pair in pairs if not pair[0].cued]
    return NextTries(_better(cued), len(cued), _better(alone), len(alone))


def helped(tries: Iterable[Try], student_id: int) -> int:
    """In which words the cue was most often followed by a better try of this student; the usual ones where none was."""
    own = sorted((one for one in tries if one.student_id == student_id and one.state in RANKS), key=lambda one: one.made_at)
    pairs = [pair for pair in _pairs(own) if pair[0].cued]
    after = Counter(first.way for first, _ in pairs)
    better = Counter(first.way for first, later in pairs if RANKS[later.state] > RANKS[first.state])
    return min(better, key=lambda way: (-better[way] / after[way], -better[way], way), default=0)


def _pairs(own: Sequence[Try]) -> list[tuple[Try, Try]]:
    """A try with the fault and the next one of the same sitting."""
    return [(a, b) for a, b in zip(own, own[1:], strict=False) if a.state != "steady" and b.made_at - a.made_at <= SAME_SITTING]


def _better(pairs: Sequence[tuple[Try, Try]]) -> int:
    return sum(RANKS[later.state] > RANKS[first.state] for first, later in pairs)
