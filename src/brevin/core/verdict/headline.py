"""A report in one line, for a list of takes: kept as codes, said when it is shown."""

from collections import Counter
from dataclasses import dataclass, field

from brevin.core.kinds import Pattern, Side, State
from brevin.core.report import Cue, Report
from brevin.core.verdict.criteria import BREATHED
from brevin.core.verdict.wording import JUST_ABOUT, cue_sentence, line_words, pattern_words, reason_sentence

WORST_FIRST: tuple[State, ...] = ("work", "watch", "unreadable", "steady")
MOST_SAID = 2  # faults named in the line
AS_IT_SHOULD = "as it should be"


@dataclass(frozen=True)
class Fault:
    """One verdict that lies outside its band."""

    criterion: str
    side: Side | None


@dataclass(frozen=True)
class Headline:
    """state: the worst of the verdicts; faults: the first of them; pattern: the usual one; reason: code why nothing is readable, with its facts;
    breathed: whether the check asks for the breath."""

    state: State
    faults: list[Fault] = field(default_factory=list)
    pattern: Pattern | None = None
    reason: str | None = None
    facts: dict[str, float | str] = field(default_factory=dict)
    cue: Cue | None = None
    breathed: bool = True


def headline(report: Report) -> Headline:
    """The line of a report. Where what the check asks for is not readable it holds why."""
    breathed = report.check.get("kind", BREATHED[0]) in BREATHED
    judged = [v for v in report.verdicts if v.state != "unreadable"]
    if not (report.readable_for.breath if breathed else judged):
        reason, facts = _why_not(report)
        return Headline("unreadable", reason=reason, facts=facts, cue=report.cue, breathed=breathed)
    states = {v.state for v in judged}
    state: State = next((s for s in WORST_FIRST if s in states), "unreadable")
    faults = [Fault(v.criterion, v.side) for v in judged if v.state == state and v.outside]
    patterns = [breath.pattern for breath in report.breaths if breathed and not breath.on_purpose]
    usual = Counter(patterns).most_common(1)[0][0] if patterns else None
    return Headline(state, faults=faults[:MOST_SAID], pattern=usual, cue=report.cue, breathed=breathed)


def _why_not(report: Report) -> tuple[str | None, dict[str, float | str]]:
    """The first reason of the clip, else of its verdicts."""
    first = report.reasons[0] if report.reasons else None
    if first is not None:
        return first.code, dict(first.facts)
    unjudged = next((v for v in report.verdicts if v.reason), None)
    return (unjudged.reason, dict(unjudged.facts)) if unjudged else (None, {})


def headline_words(line: Headline) -> str:
    """The line as it is said: its faults, or the usual pattern where there is none."""
    if line.reason is not None:
        return reason_sentence(line.reason, dict(line.facts))
    if line.faults:
        return " and ".join(line_words(fault.criterion, fault.side) for fault in line.faults)
    if not line.breathed:
        return AS_IT_SHOULD if line.state == "steady" else JUST_ABOUT
    return pattern_words(line.pattern) if line.pattern else "no whole breath"


def headline_cue(line: Headline) -> str:
    """What to say next, or nothing."""
    return cue_sentence(line.cue.criterion, line.cue.side) if line.cue else ""
