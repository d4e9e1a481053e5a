"""Sentences for a report, made from its codes, facts and numbers when it is shown; the report that is stored holds none.

Works on the report's plain document, so that a stored one is worded without being judged anew. A document from before sentences were made this way has
its own and keeps them.
"""

from collections.abc import Sequence
from typing import Any

from brevin.core.breath.patterns import usual
from brevin.core.verdict.criteria import AREAS, MEASURED
from brevin.core.verdict.reasons import REASONS, WITHHELD, reason_text
from brevin.core.verdict.words import CRITERIA, PATTERNS

TOGETHER_S = 0.1  # of chest lag: below it nobody sees an order
JUST_ABOUT = "just about"
NOT_READABLE = "not readable"
WELL_DONE = "Just like that. Once more, the same way."
SIDES: dict[str, tuple[str, str]] = {  # below and above the band
    "real_breath": ("belly goes in", "belly pushed out"),
    "with_count": ("early", "late"), "exhale_with_count": ("early", "late"), "inhale_counts": ("short", "long"), "exhale_counts": ("short", "long"),
    "trunk_inclination": ("back", "forward"), "keeps_tall": ("back", "forward"), "shoulder_tilt": ("right", "left"), "head_level": ("left", "right"),
    "axis_level": ("too high", "too low"), "axis_to_trunk": ("too close", "too far out"), "elbow_left": ("close in", "far out"),
    "elbow_right": ("close in", "far out"),
}  # fmt: skip
BY_STICKERS: dict[str, tuple[str, ...]] = {
    "trunk_inclination": ("shoulder", "hip"), "axis_to_trunk": ("shoulder", "hip"), "head_forward": ("ear", "shoulder"), "shoulder_tilt": ("shoulder",),
}  # fmt: skip
"""Where a player wears stickers that a row is told by."""
FROM_NOTHING_UP = ("pause", "elbow_left", "elbow_right")
"""What there is none less of than nothing: an elbow inside its shoulder stands no way off the body."""
ASKED = {"exhale_counts": "asked_exhale"}
"""Which fact a criterion's asked length is; the inhale's where it is not named."""

Document = dict[str, Any]


def with_sentences(document: Document) -> Document:
    """The document with every sentence filled in; the one given stays as it is."""
    return (
        document
        | {
            "reasons": [_reason(reason) for reason in document["reasons"]],
            "verdicts": [_verdict(verdict, document) for verdict in document["verdicts"]],
            "cue": _cue(document["cue"]),
            "breaths": [breath | {"words": "" if document["view"] == "front" else _pattern(breath)} for breath in document["breaths"]],
            "breathed": _breathed(document),
        }
        | ({"exempt": [_exempt(one) for one in document["exempt"]]} if "exempt" in document else {})
    )


def reason_sentence(code: str, facts: dict[str, Any]) -> str:
    """The sentence of a reason or of a withheld number. Raises KeyError for a code that is none."""
    if code in REASONS:
        return reason_text(code, facts)
    spoken = facts | {"criterion": CRITERIA[facts["criterion"]].title.lower()} if "criterion" in facts else facts
    return WITHHELD[code].format(**spoken)


def cue_sentence(criterion: str, side: str | None) -> str:
    """What the teacher says next."""
    if criterion == "all":
        return WELL_DONE
    words = CRITERIA[criterion]  # pyrefly: ignore[bad-index]
    return words.cue_low if side == "low" and words.cue_low else words.cue


def fault_words(criterion: str, state: str, *, outside: bool, side: str | None) -> str:
    """A verdict or a mark in two or three words."""
    words = CRITERIA[criterion]  # pyrefly: ignore[bad-index]
    if state == "unreadable":
        return NOT_READABLE
    if state == "steady":
        return words.steady
    return words.fault.format(side=_side(criterion, side)) if outside else JUST_ABOUT


def line_words(criterion: str, side: str | None) -> str:
    """A fault as the line in a list says it."""
    return CRITERIA[criterion].line.format(side=_side(criterion, side))  # pyrefly: ignore[bad-index]


def _reason(reason: Document) -> Document:
    if reason.get("message"):
        return reason
    return reason | {"message": reason_sentence(reason["code"], reason.get("facts", {}))}


def _exempt(exempt: Document) -> Document:
    return exempt | {"title": CRITERIA[exempt["criterion"]].title}


def _cue(cue: Document | None) -> Document | None:
    if cue is None or cue.get("text"):
        return cue
    return cue | {"text": cue_sentence(cue["criterion"], cue.get("side"))}


OLDER: Document = {"side": None, "steady_breaths": None, "counted_breaths": None, "reason": None, "facts": {}, "line": "", "by_segment": {}}
"""What a verdict from before verdicts were counted does not say."""


def _verdict(verdict: Document, document: Document) -> Document:
    if verdict.get("title"):
        return OLDER | {"area": AREAS.get(verdict["criterion"], "")} | verdict
    criterion, state = verdict["criterion"], verdict["state"]
    words = CRITERIA[criterion]
    readable = state != "unreadable"
    stickers = (document.get("player") or {}).get("stickers", [])
    return verdict | {
        "title": words.title,
        "area": AREAS[criterion],
        "words": fault_words(criterion, state, outside=verdict["outside"], side=verdict["side"]),
        "line": line_words(criterion, verdict["side"]) if verdict["outside"] else "",
        "why": words.why.format(**_filled(verdict)) + _by_stickers(verdict, stickers) if readable else reason_sentence(verdict["reason"], verdict["facts"]),
        "cue": cue_sentence(criterion, verdict["side"]) if readable and state != "steady" else None,
        "marks": [m | {"words": fault_words(criterion, m["state"], outside=m["outside"], side=m["side"])} for m in verdict["marks"]],
        "by_segment": _by_segment(criterion, document) if readable else {},
    }


def _by_segment(criterion: str, document: Document) -> dict[str, float]:
    """What a row of posture came to while the clip shows one thing and another: nothing where it shows one alone, which the row's own number says."""
    posture = document.get("posture") or {}
    values: dict[str, float] = (posture.get(MEASURED[criterion]) or {}).get("by_segment") or {}
    return values if len(values) > 1 else {}


def _filled(verdict: Document) -> dict[str, str]:
    """Everything a why may speak of, as text."""
    facts, value, criterion = verdict["facts"], verdict["value"], verdict["criterion"]
    shown = max(value - facts.get("asked_pause", 0.0), 0.0) if criterion in FROM_NOTHING_UP else abs(value)
    asked = facts.get(ASKED.get(criterion, "asked_inhale"))
    return {
        "value": f"{shown:.1f}",
        "percent": f"{100 * min(max(value, 0.0), 1.0):.0f} %",
        "percent_signed": f"{100 * value:+.0f} %",
        "level": "below" if value >= 0 else "above",
        "region": "belly" if verdict["side"] == "low" else "chest",
        "side": _side(criterion, verdict["side"]),
        "beside": f"; belly and chest together moved {facts['total_pct']:.1f} %" if "total_pct" in facts else "",
        "own": _own_words(value, facts.get("own_full_pct")),
        "lag": _lag_words(facts.get("lag_s")),
        "asked": "any" if asked is None else f"{asked:g}",
    }


def _by_stickers(verdict: Document, stickers: Sequence[str]) -> str:
    """Whether stickers were used for a row; where its interval alone reaches over a limit, that they would make it surer."""
    places = BY_STICKERS.get(verdict["criterion"], ())
    both = " and ".join(places) if len(places) > 1 else "each shoulder"
    if places and set(stickers).issuperset(places):
        return f" The stickers on {both} were used."
    near = bool(places) and verdict["state"] == "watch" and not verdict["outside"]
    return f" It is a near thing: a bright round sticker on {both}, of a colour the clothes lack, makes it surer." if near else ""


def _side(criterion: str, side: str | None) -> str:
    return SIDES[criterion][0 if side == "low" else 1] if criterion in SIDES and side else ""


def _own_words(size_pct: float, own_full_pct: float | None) -> str:
    """A breath's size beside the student's own full breath."""
    if not own_full_pct:
        return "No full breath of this student is known yet: it takes five breaths."
    return f"That is {100 * size_pct / own_full_pct:.0f} % of this student's own full breath, which is {own_full_pct:.1f} %."


def _lag_words(lag_s: float | None) -> str:
    """Which of the two was half full first, said plainly; a tenth of a second apart is together."""
    if lag_s is None:
        return ""
    if abs(lag_s) < TOGETHER_S:
        return "Belly and chest were half full together."
    return f"The chest was half full {abs(lag_s):.1f} s {'after' if lag_s > 0 else 'before'} it."


def _pattern(breath: Document) -> str:
    """How a breath was, with the other pattern that it may be as well."""
    other = breath.get("pattern_or")
    return pattern_words(breath["pattern"]) + (f" (or {pattern_words(other)})" if other else "")


def _breathed(document: Document) -> str:
    """What most of the breaths were like and how many; nothing from the front, where no pattern is seen."""
    breaths = [breath for breath in document["breaths"] if not breath.get("on_purpose")]
    most = usual([breath["pattern"] for breath in breaths])
    if most is None or document["view"] == "front" or not document["readable_for"]["breath"]:
        return ""
    own = [breath for breath in breaths if breath["pattern"] == most]
    said = min((_pattern(breath) for breath in own), key=len)  # one that is sure of it speaks for the others
    return said + (f", {len(own)} of {len(breaths)}" if len(own) < len(breaths) else "")


def pattern_words(pattern: str) -> str:
    """A pattern as it is said."""
    return PATTERNS[pattern]  # pyrefly: ignore[bad-index]
