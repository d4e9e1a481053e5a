"""From numbers to verdicts: a value with its interval against a band, for each breath and for the clip, and the one cue."""

import math
from collections.abc import Sequence

import numpy as np

from brevin.core.report import Breath, Mark, Posture, Reason, Verdict
from brevin.core.verdict.criteria import BREATH, POSTURE, SAID_ONCE, Asked, Band, BreathCriterion, PostureCriterion, posture_value
from brevin.core.verdict.words import CRITERIA

NORMAL_90 = 1.645
JUST_ABOUT = "just about"
TOGETHER_S = 0.1  # of chest lag: below it nobody sees an order
WELL_DONE = "Just like that. Once more, the same way."


def state_of(value: float, half: float, band: Band) -> str:
    """steady where the whole interval is inside the steady band, work where all of it is beyond, else watch."""
    low, high = value - half, value + half
    if low >= band.steady_low and high <= band.steady_high:
        return "steady"
    if high < band.work_low or low > band.work_high:
        return "work"
    return "watch"


def verdicts(
    breaths: Sequence[Breath],
    posture: Posture,
    asked: Asked,
    *,
    view: str | None,
    position: str | None,
    breath_readable: bool,
    why_not: Sequence[Reason],
) -> list[Verdict]:
    """All verdicts of a clip in the order of the table. A criterion that the card does not ask for is left out."""
    found = [_posture(row, posture, asked, view, position) for row in POSTURE]
    lying = position == "lying"
    rows = [row for row in BREATH if row.key not in asked.rules.judged_off and not (lying and not row.lying)]
    if not breath_readable:
        found += [_unreadable(row, why_not) for row in rows if not row.needs_card or asked.card is not None]
    else:
        marked = _said_once({row.key: _marks(row, breaths, asked) for row in rows})
        found += [_clip(row, breaths, marked[row.key], asked) for row in rows]
    return [verdict for verdict in found if verdict is not None and verdict.criterion not in asked.rules.judged_off]


def cue(found: Sequence[Verdict]) -> dict[str, str] | None:
    """The one sentence to say next: the first fault of the table, a clear one before one to watch; praise where nothing lies outside its band.

    A value inside its steady band whose interval reaches over a limit is watched, not spoken of.
    """
    for state in ("work", "watch"):
        for verdict in found:
            if verdict.state == state and verdict.cue and verdict.outside:
                return {"criterion": verdict.criterion, "text": verdict.cue}
    if any(verdict.state in ("steady", "watch") for verdict in found):
        return {"criterion": "all", "text": WELL_DONE}
    return None


def _marks(row: BreathCriterion, breaths: Sequence[Breath], asked: Asked) -> list[Mark]:
    marks = []
    for index, breath in enumerate(breaths):
        value, half = getattr(breath, row.number), breath.uncertainty.get(row.number)
        band = row.band(breath, asked)
        start, end = getattr(breath, row.span[0]), getattr(breath, row.span[1])
        if value is None or half is None or band is None or start is None or end is None:
            continue
        state = state_of(value, half, band)
        marks.append(
            Mark(
                breath=index, state=state, value=value, uncertainty=half, from_s=start, to_s=max(end, start + 0.2), lane=row.lane,
                words=_fault(row.key, value, band, state), outside=_beyond(value, band) > 0,
            )
        )  # fmt: skip
    return marks


def _said_once(marks: dict[str, list[Mark]]) -> dict[str, list[Mark]]:
    """Takes away marks that are another's consequence in the same breath."""
    kept = dict(marks)
    for first, others in SAID_ONCE.items():
        guilty = {mark.breath for mark in marks.get(first, []) if mark.state != "steady"}
        for other in others:
            kept[other] = [m for m in kept.get(other, []) if not (m.breath in guilty and m.state != "steady")]
    return kept


def _clip(row: BreathCriterion, breaths: Sequence[Breath], marks: list[Mark], asked: Asked) -> Verdict | None:
    """The clip's verdict from its breaths: the median with the spread from breath to breath."""
    if not marks:
        return None
    values = np.array([mark.value for mark in marks])
    middle = int(np.argsort(values)[len(values) // 2])
    value = float(np.median(values))
    between = NORMAL_90 * float(values.std()) / math.sqrt(len(values))
    half = float(np.hypot(between, np.median([mark.uncertainty for mark in marks])))
    breath = breaths[marks[middle].breath]
    band = row.band(breath, asked)
    assert band is not None
    state = state_of(value, half, band)
    worst = max(marks, key=lambda mark: _beyond(mark.value, band))
    return _verdict(row.key, row.unit, value, half, band, state, worst.from_s, worst.to_s, _facts(row.key, breath, asked), marks)


def _beyond(value: float, band: Band) -> float:
    """How far outside the steady band, in its unit; negative inside."""
    return max(value - band.steady_high, band.steady_low - value)


def _posture(row: PostureCriterion, posture: Posture, asked: Asked, view: str | None, position: str | None) -> Verdict | None:
    if view not in row.views or (position == "lying" and row.key == "trunk_inclination"):
        return None
    found = posture_value(posture, row)
    if found is None:
        return None
    band = row.band(asked.rules)
    state = state_of(found.value, found.uncertainty, band)
    return _verdict(row.key, row.unit, found.value, found.uncertainty, band, state, None, None, {}, [])


def _unreadable(row: BreathCriterion, why_not: Sequence[Reason]) -> Verdict:
    words = CRITERIA[row.key]
    why = why_not[0].message if why_not else ""
    return Verdict(
        criterion=row.key, title=words.title, state="unreadable", value=None, unit=row.unit, threshold=None, uncertainty=None,
        from_s=None, to_s=None, words="not readable", outside=False, why=why, cue=None, marks=[],
    )  # fmt: skip


def _verdict(
    key: str,
    unit: str,
    value: float,
    half: float,
    band: Band,
    state: str,
    from_s: float | None,
    to_s: float | None,
    facts: dict[str, str],
    marks: list[Mark],
) -> Verdict:
    words = CRITERIA[key]
    side = _side(key, value, band)
    filled = {"value": f"{abs(value):.1f}", "side": side, "percent": f"{100 * value:.0f} %", **facts}
    return Verdict(
        criterion=key, title=words.title, state=state, value=value, unit=unit, threshold=_threshold(band), uncertainty=half,
        from_s=from_s, to_s=to_s, words=_fault(key, value, band, state), outside=_beyond(value, band) > 0, why=words.why.format(**filled),
        cue=None if state == "steady" else words.cue, marks=marks,
    )  # fmt: skip


def _threshold(band: Band) -> dict[str, float | str]:
    return {name: number for name, number in vars(band).items() if math.isfinite(number)}


def _fault(key: str, value: float, band: Band, state: str) -> str:
    words = CRITERIA[key]
    if state == "steady":
        return words.steady
    if _beyond(value, band) <= 0:
        return JUST_ABOUT
    return words.fault.format(side=_side(key, value, band))


SIDES: dict[str, tuple[str, str]] = {  # below and above the band
    "with_count": ("early", "late"), "inhale_counts": ("short", "long"), "exhale_counts": ("short", "long"),
    "trunk_inclination": ("back", "forward"), "shoulder_tilt": ("right", "left"),
}  # fmt: skip


def _side(key: str, value: float, band: Band) -> str:
    if key not in SIDES:
        return ""
    low = value < (0.0 if key in ("with_count", "trunk_inclination", "shoulder_tilt") else 0.5 * (band.steady_low + band.steady_high))
    return SIDES[key][0 if low else 1]


def _facts(key: str, breath: Breath, asked: Asked) -> dict[str, str]:
    card = asked.card
    total = abs(breath.abdomen_amp or 0.0) + abs(breath.chest_amp or 0.0)
    lag = breath.chest_lag_s
    facts = {
        "total": f"{total:.1f}",
        "lag": _lag_words(lag),
    }
    if card is not None:
        asked_beats = card.exhale_beats if key == "exhale_counts" else card.inhale_beats
        facts["asked"] = f"{asked_beats:g}" if asked_beats is not None else "any"
    if key == "pause" and card is not None and breath.pause_beats is not None:
        facts["value"] = f"{max(breath.pause_beats - card.pause_beats, 0.0):.1f}"
    return facts


def _lag_words(lag_s: float | None) -> str:
    """Which of the two was half full first, said plainly; a tenth of a second apart is together."""
    if lag_s is None:
        return ""
    if abs(lag_s) < TOGETHER_S:
        return "Belly and chest were half full together."
    return f"The chest was half full {abs(lag_s):.1f} s {'after' if lag_s > 0 else 'before'} it."
