"""A report in one line, for a list of takes."""

from dataclasses import dataclass

from brevin.core.report import Report
from brevin.core.verdict.words import PATTERNS

WORST_FIRST = ("work", "watch", "unreadable", "steady")
MOST_SAID = 2  # faults named in the line


@dataclass(frozen=True)
class Headline:
    """state: the worst of the verdicts; words: its faults, or the usual pattern where there is none; cue: what to say next, or empty."""

    state: str
    words: str
    cue: str


def headline(report: Report) -> Headline:
    """The line of a report. Where the breath is not readable it says why."""
    cue = (report.cue or {}).get("text", "")
    if not report.readable_for.breath:
        return Headline("unreadable", report.reasons[0].message if report.reasons else "not readable", cue)
    worst = min((v.state for v in report.verdicts), key=WORST_FIRST.index, default="unreadable")
    said = [f"{v.title.lower()}: {v.words}" for v in report.verdicts if v.state == worst and v.outside]
    return Headline(worst, "; ".join(said[:MOST_SAID]) or _usual_pattern(report), cue)


def _usual_pattern(report: Report) -> str:
    patterns = [breath.pattern for breath in report.breaths]
    return PATTERNS[max(set(patterns), key=patterns.count)] if patterns else "no whole breath"
