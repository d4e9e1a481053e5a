"""A report in one line, for a list of takes: kept as codes, said when it is shown."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from brevin.core.breath.patterns import usual
from brevin.core.kinds import IMPORTANCE, Importance, Pattern, Side, State
from brevin.core.report import Cue, Report
from brevin.core.verdict.criteria import BREATHED, WEIGHS
from brevin.core.verdict.wording import JUST_ABOUT, cue_sentence, line_words, pattern_words, reason_sentence

WORST_FIRST: tuple[State, ...] = ("work", "watch", "unreadable", "steady")
SPOKEN: tuple[State, ...] = ("work", "watch")  # of these a cue speaks, the clear fault first
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
    breathed: whether the check asks for the breath; hidden: whether arms or the instrument that was held hid some of what it asks for, so that the same is
    better asked for without it."""

    state: State
    faults: list[Fault] = field(default_factory=list)
    pattern: Pattern | None = None
    reason: str | None = None
    facts: dict[str, float | str] = field(default_factory=dict)
    cue: Cue | None = None
    breathed: bool = True
    hidden: bool = False


def headline(report: Report) -> Headline:
    """The line of a report. Where what the check asks for is not readable it holds why."""
    breathed = report.check.get("kind", BREATHED[0]) in BREATHED
    judged = [v for v in report.verdicts if v.state != "unreadable"]
    if not (report.readable_for.breath if breathed else judged):
        reason, facts = _why_not(report)
        return Headline("unreadable", reason=reason, facts=facts, cue=report.cue, breathed=breathed, hidden=_hidden(report))
    states = {v.state for v in judged}
    state: State = next((s for s in WORST_FIRST if s in states), "unreadable")
    faults = [Fault(v.criterion, v.side) for v in judged if v.state == state and v.outside]
    patterns = [breath.pattern for breath in report.breaths if breathed and not breath.on_purpose]
    named = breathed and report.view != "front"  # from there no pattern is seen, and what is judged is said as of a check that asks for none
    return Headline(state, faults=faults[:MOST_SAID], pattern=usual(patterns) if named else None, cue=report.cue, breathed=named, hidden=_hidden(report))


def _hidden(report: Report) -> bool:
    """Of breath alone: how the instrument is held is not seen without it."""
    held = report.check.get("with_instrument") and report.check.get("kind", BREATHED[0]) in BREATHED
    return bool(held) and any(v.reason == "region_unseen" for v in report.verdicts if v.state == "unreadable")


@dataclass(frozen=True)
class Stood:
    """A verdict of the whole clip as it is stored, in the order of the table."""

    criterion: str
    state: State
    side: Side | None
    outside: bool


def as_said(line: Headline, stood: Sequence[Stood], said: Mapping[str, State], order: Sequence[Importance] = IMPORTANCE) -> Headline:
    """The line where a teacher has the last word on some verdicts. said: what instead, by criterion; order: of importance. What could not be read stays so."""
    if not said or line.reason is not None:
        return line
    now = [replace(v, state=said[v.criterion], outside=said[v.criterion] in SPOKEN) if v.criterion in said else v for v in stood]
    judged = [v for v in now if v.state != "unreadable"]
    state: State = next((s for s in WORST_FIRST if any(v.state == s for v in judged)), "unreadable")
    faults = [Fault(v.criterion, v.side) for v in judged if v.state == state and v.outside]
    return replace(line, state=state, faults=faults[:MOST_SAID], cue=_cue_of(line.cue, judged, order))


def _cue_of(cue: Cue | None, judged: Sequence[Stood], order: Sequence[Importance]) -> Cue | None:
    """The cue as it was, where its fault still stands among the worst; else that of the first of these, or praise."""
    for state in SPOKEN:
        faults = [v for v in judged if v.state == state and v.outside]
        if faults:
            kept = cue is not None and any(v.criterion == cue.criterion for v in faults)
            first = min(faults, key=lambda v: order.index(WEIGHS[v.criterion]))
            return cue if kept else Cue(first.criterion, first.side)
    return Cue("all") if judged else None


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
