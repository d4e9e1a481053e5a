"""Judging a reading's numbers once more by other rules, without its evidence: what would change if one taught another way, or drew a line elsewhere.

No rule goes into the numbers themselves but the school's shape of an exhale, and its evenness is kept against every shape that is taught.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from brevin.core.breath.shape import RELEASES
from brevin.core.kinds import State
from brevin.core.measure import Amount, Measure
from brevin.core.plan.check import Check
from brevin.core.report import Verdict
from brevin.core.verdict.bands import Asked
from brevin.core.verdict.criteria import CRITERIA, Criterion, asked_for
from brevin.core.verdict.judge import Judged, verdict_of, verdicts
from brevin.core.verdict.rules import CriterionKey, Rules

RELEASE = "even_exhale.release"
RESHAPED = "even_exhale"  # the row whose number has a rule in it
UNSAID: set[State | None] = {"unreadable", None}  # neither says anything: nobody misses the one for the other


@dataclass(frozen=True)
class Ground:
    """What the verdicts of a reading stand on besides the rules. beat_s: None without a beat; own_full: the student's own full breath, % of trunk."""

    judged: Judged
    check: Check
    beat_s: float | None = None
    own_full: Amount | None = None

    def verdicts(self, rules: Rules) -> list[Verdict]:
        """All verdicts by these rules."""
        return verdicts(self.judged, Asked(self.check, self.beat_s, rules, self.own_full))

    def exempt(self, rules: Rules) -> list[CriterionKey]:
        """What the check asks for, were the student not exempt from it, in the order of the table."""
        asked = Asked(self.check, self.beat_s, replace(rules, exempt=frozenset()), self.own_full)
        return [row.key for row in CRITERIA if row.key in rules.exempt and asked_for(row, asked, view=self.judged.view, position=self.judged.position)]


@dataclass(frozen=True)
class Flip:
    """A verdict that other rules would change. before, after: None where the criterion is not judged at all; value: the number that is judged, its unit."""

    criterion: CriterionKey
    before: State | None
    after: State | None
    value: float | None
    unit: str


def flips(ground: Ground, before: Rules, after: Rules) -> list[Flip]:
    """What judging by ``after`` would change of judging by ``before``, in the order of the table. Source: own."""
    moved = [name for name in {*before.changed, *after.changed} if before.limit(name) != after.limit(name)]
    switched = (before.off | before.exempt) ^ (after.off | after.exempt)
    found = []
    for row in CRITERIA:
        if row.key in switched or row.unless in switched or _asks_for(row, moved):
            was, will = _verdict_of(row, ground, before), _verdict_of(row, ground, after)
            if _state(was) != _state(will) and {_state(was), _state(will)} != UNSAID:
                found.append(_flip(row.key, was, will))
    return found


def judged(ground: Ground, criterion: CriterionKey, rules: Rules) -> Verdict | None:
    """The verdict of one criterion; None where the check does not ask for it."""
    return _verdict_of(next(row for row in CRITERIA if row.key == criterion), ground, rules)


def _asks_for(row: Criterion, names: Sequence[str]) -> bool:
    """Whether any of these limits goes into a row's verdict, or into that of the row whose fault takes this one's with it."""
    asked = [start for one in CRITERIA if one.key in (row.key, row.unless) for start in one.limits]
    return any(name == start or name.startswith(f"{start}.") for name in names for start in asked)


def _verdict_of(row: Criterion, ground: Ground, rules: Rules) -> Verdict | None:
    seen = _reshaped(ground, rules) if row.key == RESHAPED else ground
    return verdict_of(row, seen.judged, Asked(seen.check, seen.beat_s, rules, seen.own_full))


def _flip(key: CriterionKey, was: Verdict | None, will: Verdict | None) -> Flip:
    shown = will if will is not None and will.value is not None else was
    return Flip(key, _state(was), _state(will), shown.value if shown else None, shown.unit if shown else "")


def _state(verdict: Verdict | None) -> State | None:
    return verdict.state if verdict is not None else None


def _reshaped(ground: Ground, rules: Rules) -> Ground:
    """The exhale's evenness against the shape these rules ask for, where it was kept for it."""
    kept = next((key for key, release in RELEASES.items() if release == rules.limit(RELEASE)), None)
    found = {m.breath: m for m in ground.judged.measures if m.key == kept}
    if not found:
        return ground
    return replace(ground, judged=replace(ground.judged, measures=_with(ground.judged.measures, found)))


def _with(measures: Sequence[Measure], kept: dict[int | None, Measure]) -> list[Measure]:
    return [replace(kept[m.breath], key=m.key) if m.key == "exhale_unevenness" and m.breath in kept else m for m in measures]
