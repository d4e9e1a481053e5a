"""What would change if one taught another way: stored readings judged by other rules, without their clips and their evidence."""

import contextlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from statistics import median

from brevin.core.verdict.again import Flip, flips, judged
from brevin.core.verdict.example import LINES, spread, usual
from brevin.core.verdict.rules import CriterionKey, Rules
from brevin.core.verdict.schools import Method
from brevin.store import anew
from brevin.store.grounds import stood_on
from brevin.store.rule_records import StoodOn
from brevin.store.rulebook import Book
from brevin.store.scope import Scope


@dataclass(frozen=True)
class Changed:
    """A take with the verdicts that would change, those the teacher overruled left out."""

    take: StoodOn
    flips: tuple[Flip, ...]


@dataclass(frozen=True)
class Shown:
    """A take to be sorted: the number that is judged (its size), whether it lies above the line in force for it, and that line."""

    take: StoodOn
    value: float
    above: bool
    line: float


class Trial:
    """The programme's stored takes, ready to be judged another way. takes: how many; overruled: how many of them have a verdict that stays the teacher's."""

    def __init__(self, scope: Scope) -> None:
        self._scope = scope
        self._takes = stood_on(scope)
        now = Book(scope)
        self._now = [_rules(now, take) for take in self._takes]
        self.takes = len(self._takes)
        self.overruled = sum(bool(take.overruled) for take in self._takes)

    def sortable(self, criterion: CriterionKey, *, skip: int = 0) -> list[Shown]:
        """Takes to be sorted into fine and not fine by their number, the nearest to the line in force first asked about, in the order of their numbers."""
        line = LINES[criterion]
        found = []
        for take, rules in zip(self._takes, self._now, strict=True):
            verdict, at = judged(take.ground, criterion, rules), rules.limit(line.limit)
            if verdict is not None and verdict.value is not None and criterion not in take.overruled:
                found.append(Shown(take, abs(verdict.value), abs(verdict.value) >= at, at))
        lines = [one.line for one in found]
        now = median(lines) if lines else usual(criterion)
        return [found[i] for i in spread([one.value for one in found], now, skip)]

    def by(self, other: Book) -> list[Changed]:
        """The takes that would change by other rules, newest first."""
        found = [(take, flips(take.ground, now, _rules(other, take))) for take, now in zip(self._takes, self._now, strict=True)]
        return [Changed(take, counted) for take, changed in found if (counted := _counted(take, changed))]

    def taught(self, how: Method) -> list[Changed]:
        """Those that would change if one taught another way."""
        return self.by(Book(self._scope, how))


@contextlib.contextmanager
def followed(scope: Scope) -> Iterator[None]:
    """Rules are changed inside: the stored takes whose verdicts change by it are judged anew when the reader has time."""
    trial = Trial(scope)
    yield
    anew.judge_again(scope, [changed.take.take_id for changed in trial.by(Book(scope))])


def _counted(take: StoodOn, changed: Sequence[Flip]) -> tuple[Flip, ...]:
    return tuple(flip for flip in changed if flip.criterion not in take.overruled)


def _rules(book: Book, take: StoodOn) -> Rules:
    return book.rules(instrument=take.ground.check.instrument, exempt=take.exempt, taught=take.ground.check.taught)
