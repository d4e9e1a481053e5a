"""From measures to verdicts: a number with its interval against a band, breath by breath; the clip's verdict counts its breaths; and the one cue."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from brevin.core.hold.instruments import HELD
from brevin.core.kinds import IMPORTANCE, SIDE_VIEWS, Importance, Position, Side, State, View
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.report import Cue, Mark, Reason, Verdict
from brevin.core.verdict.bands import Amounts, Asked, Band, total_pct
from brevin.core.verdict.criteria import CRITERIA, WEIGHS, Criterion, asked_for

MOST_WORK_SHARE = 1 / 3  # of the breaths: more of them to work on, and so is the clip
SHORTEST_MARK_S = 0.2  # a mark on a moment is drawn this long
AREAS: dict[str, str] = {row.key: row.area for row in CRITERIA}
SIGNED_AROUND_ZERO = ("with_count", "exhale_with_count", "trunk_inclination", "keeps_tall", "shoulder_tilt", "head_level", "head_with_flute",
    "real_breath",
)  # fmt: skip
"""Criteria whose side is told by the value's sign, not by the band's middle."""


@dataclass(frozen=True)
class Judged:
    """What the verdicts are made of. measures: of the whole breaths and of the clip; why_not: reasons that keep the breath from being judged;
    aside: breaths that were the other side on purpose, which no row of breaths judges."""

    measures: Sequence[Measure]
    view: View | None
    position: Position | None
    breath_readable: bool
    why_not: Sequence[Reason]
    aside: frozenset[int] = frozenset()

    def amounts(self, breath: int | None) -> Mapping[str, Amount]:
        """Everything that was measured of one breath, or of the clip."""
        return self._by_breath.get(breath, {})

    @cached_property
    def breaths(self) -> list[int]:
        """The places of the breaths that rows judge, in order."""
        return sorted({m.breath for m in self.measures if m.breath is not None} - self.aside)

    @cached_property
    def _by_breath(self) -> dict[int | None, dict[str, Amount]]:
        found: dict[int | None, dict[str, Amount]] = {}
        for m in self.measures:
            if m.segment is None and m.amount is not None:
                found.setdefault(m.breath, {})[m.key] = m.amount
        return found


def state_of(value: float, half_width: float, band: Band) -> State:
    """steady where the whole interval is inside the steady band, work where all of it is beyond, else watch."""
    low, high = value - half_width, value + half_width
    if low >= band.steady_low and high <= band.steady_high:
        return "steady"
    if high < band.work_low or low > band.work_high:
        return "work"
    return "watch"


def state_of_all(states: Sequence[State]) -> State:
    """The clip's state counted from its breaths: steady when all but one are steady and none is work; work when more than a third are work; else watch.
    One breath alone speaks for itself."""
    if len(states) == 1:
        return states[0]
    work = states.count("work")
    if work > MOST_WORK_SHARE * len(states):
        return "work"
    return "steady" if not work and states.count("steady") >= len(states) - 1 else "watch"


def verdicts(found: Judged, asked: Asked) -> list[Verdict]:
    """All verdicts of a clip in the order of the table: one for every criterion that the check asks for."""
    return [verdict for row in CRITERIA if (verdict := verdict_of(row, found, asked)) is not None]


def verdict_of(row: Criterion, found: Judged, asked: Asked) -> Verdict | None:
    """The verdict of one row; None where the check does not ask for it."""
    if not asked_for(row, asked, view=found.view, position=found.position):
        return None
    marks = _marks(row, found, asked)
    return _verdict(row, _said_once(row, marks, found, asked), marks, found, asked)


def cue(found: Sequence[Verdict], order: Sequence[Importance] = IMPORTANCE) -> Cue | None:
    """The one sentence to say next: a clear fault before one to watch, in the programme's order of importance, of those the commonest, then by the table;
    praise where nothing lies outside its band, and of a breath only where a breath was judged.

    A value that is not clearly outside its steady band is watched, not spoken of.
    """
    for state in ("work", "watch"):
        faults = [v for v in found if v.state == state and v.outside]
        if faults:
            worst = min(faults, key=lambda v: (order.index(WEIGHS[v.criterion]), -_commonness(v)))
            return Cue(worst.criterion, worst.side)
    of_breath = [v for v in found if AREAS[v.criterion] == "breath"]
    return Cue("all") if any(v.state in ("steady", "watch") for v in of_breath or found) else None


def _commonness(verdict: Verdict) -> float:
    """Share of the breaths that lie outside; a fault of the whole clip is in all of them."""
    return sum(mark.outside for mark in verdict.marks) / verdict.counted_breaths if verdict.counted_breaths else 1.0


def _marks(row: Criterion, found: Judged, asked: Asked) -> list[Mark]:
    """The marks of a row judged breath by breath; none for a row of the whole clip, or where the breath is not readable; a number so unsure that it could be
    fine and not fine marks nothing."""
    if row.span is None or not found.breath_readable:
        return []
    marks = []
    for breath in found.breaths:
        amounts = found.amounts(breath)
        amount, band = amounts.get(row.measure), row.band(amounts, asked)
        start, end = (amounts.get(f"{turn}_s") for turn in row.span)
        if amount is not None and band is not None and start is not None and end is not None and not _tells_nothing(amount, band):
            marks.append(_mark(row, breath, amount, band, start.value, end.value))
    return marks


def _tells_nothing(amount: Amount, band: Band) -> bool:
    """Whether the interval reaches from inside the steady band to beyond where work begins."""
    low, high = amount.value - amount.half_width, amount.value + amount.half_width
    return (high >= band.steady_low and low < band.work_low) or (low <= band.steady_high and high > band.work_high)


def _mark(row: Criterion, breath: int, amount: Amount, band: Band, from_s: float, to_s: float) -> Mark:
    return Mark(
        breath=breath, state=state_of(amount.value, amount.half_width, band), value=amount.value, uncertainty=amount.half_width, from_s=from_s,
        to_s=max(to_s, from_s + SHORTEST_MARK_S), lane=row.lane, outside=_clearly_beyond(amount, band), side=_side(row, amount.value, band),
    )  # fmt: skip


WORSE: dict[State, int] = {"unreadable": 0, "steady": 0, "watch": 1, "work": 2}


def _said_once(row: Criterion, marks: list[Mark], found: Judged, asked: Asked) -> list[Mark]:
    """The marks of a row less those that are another row's consequence in the same breath and no worse than it."""
    over = next((other for other in CRITERIA if other.key == row.unless), None)
    if over is None or not asked_for(over, asked, view=found.view, position=found.position):
        return marks
    cause = {mark.breath: WORSE[mark.state] for mark in _marks(over, found, asked)}
    return [mark for mark in marks if not 0 < WORSE[mark.state] <= cause.get(mark.breath, 0)]


def _verdict(row: Criterion, marks: list[Mark], all_marks: list[Mark], found: Judged, asked: Asked) -> Verdict:
    if row.where.views is not None and found.view not in row.where.views and (row.span is None or found.breath_readable):
        return _unreadable(row, "view_unserved", {"view": "side" if set(row.where.views) & set(SIDE_VIEWS) else "front"})
    by_count = found.breath_readable and not marks and row.measure in found.amounts(None)  # where no breath was seen
    if row.span is None or by_count:
        return _of_clip(row, found, asked)
    if marks:
        return _of_breaths(row, marks, found, asked)
    if all_marks and row.unless is not None:
        return _unreadable(row, "said_once", {"criterion": row.unless})
    if not found.breath_readable:
        why = found.why_not[0] if found.why_not else None
        return _unreadable(row, why.code if why else "no_breathing", dict(why.facts) if why else {})
    return _unreadable(row, _withheld(row, found), {})


def _withheld(row: Criterion, found: Judged) -> str:
    """Why there is no verdict: the commonest reason of the breaths, else that what was measured is too unsure, else that none is whole."""
    of_row = [m for m in found.measures if m.key == row.measure]
    own = [m for m in of_row if (m.breath is not None) == (row.span is not None)] or of_row
    reasons = [m.value.reason for m in own if isinstance(m.value, NotMeasured)]
    return max(set(reasons), key=reasons.count) if reasons else "too_unsure" if own else "no_whole_breath"


def _of_clip(row: Criterion, found: Judged, asked: Asked) -> Verdict:
    """A verdict on one number of the whole clip."""
    amounts = found.amounts(None)
    amount, band = amounts.get(row.measure), row.band(amounts, asked)
    if amount is None or band is None:
        reason = _withheld(row, found)
        return _unreadable(row, reason, {"view": _seen_from(asked)} if reason == "view_unserved" else {})
    if amount.half_width > band.work_high:  # whatever it reads, it could be fine and not fine
        return _unreadable(row, "too_unsure", {})
    state = state_of(amount.value, amount.half_width, band)
    return Verdict(
        criterion=row.key, state=state, value=amount.value, unit=row.unit, threshold=_threshold(band), uncertainty=amount.half_width, from_s=None, to_s=None,
        outside=_clearly_beyond(amount, band), marks=[], side=_side(row, amount.value, band),
    )  # fmt: skip


def _seen_from(asked: Asked) -> str:
    """From where the instrument that is asked for can be seen."""
    held = HELD.get(asked.check.instrument)
    return "front" if held is not None and held.views == ("front",) else "side"


def _of_breaths(row: Criterion, marks: list[Mark], found: Judged, asked: Asked) -> Verdict:
    """The clip's verdict counted from its breaths. The number beside it is the median of the breaths that have its state, so that what is shown is an
    instance of what is said."""
    state = state_of_all([mark.state for mark in marks])
    speaking = [mark for mark in marks if mark.state == state] or marks
    middle = sorted(speaking, key=lambda mark: mark.value)[len(speaking) // 2]
    amounts = found.amounts(middle.breath)
    band = row.band(amounts, asked)
    assert band is not None
    worst = max(speaking, key=lambda mark: _beyond(mark.value, band))
    spread = NORMAL_90 * float(np.std([mark.value for mark in speaking])) / math.sqrt(len(speaking))
    return Verdict(
        criterion=row.key, state=state, value=middle.value, unit=row.unit, threshold=_threshold(band), uncertainty=math.hypot(spread, middle.uncertainty),
        from_s=worst.from_s, to_s=worst.to_s, outside=any(mark.outside and mark.state == state for mark in marks), marks=marks, side=worst.side,
        steady_breaths=sum(mark.state == "steady" for mark in marks), counted_breaths=len(marks), facts=_facts(amounts, asked),
    )  # fmt: skip


def _facts(amounts: Amounts, asked: Asked) -> dict[str, float | str]:
    """What the sentences may speak of besides the number itself."""
    facts: dict[str, float | str] = {}
    if "abdomen_amp" in amounts or "chest_amp" in amounts:
        facts["total_pct"] = total_pct(amounts)
    if "chest_lag_s" in amounts:
        facts["lag_s"] = amounts["chest_lag_s"].value
    if asked.own_full is not None:
        facts["own_full_pct"] = asked.own_full.value
    if asked.card is not None:
        facts |= {"asked_inhale": asked.card.inhale_beats, "asked_pause": asked.card.pause_beats}
        if asked.card.exhale_beats is not None:
            facts["asked_exhale"] = asked.card.exhale_beats
    return facts


def _clearly_beyond(amount: Amount, band: Band) -> bool:
    """Whether a value is spoken of: it lies outside the steady band by more than its standard error."""
    return _beyond(amount.value, band) > amount.half_width / NORMAL_90


def _beyond(value: float, band: Band) -> float:
    """How far outside the steady band, in its unit; negative inside."""
    return max(value - band.steady_high, band.steady_low - value)


def _side(row: Criterion, value: float, band: Band) -> Side | None:
    if math.isinf(band.steady_low) or math.isinf(band.steady_high):
        return "high" if math.isinf(band.steady_low) else "low"
    middle = 0.0 if row.key in SIGNED_AROUND_ZERO else 0.5 * (band.steady_low + band.steady_high)
    return "low" if value < middle else "high"


def _threshold(band: Band) -> dict[str, float]:
    return {name: number for name, number in vars(band).items() if math.isfinite(number)}


def _unreadable(row: Criterion, reason: str, facts: dict[str, float | str]) -> Verdict:
    return Verdict(
        criterion=row.key, state="unreadable", value=None, unit=row.unit, threshold=None, uncertainty=None, from_s=None, to_s=None, outside=False, marks=[],
        reason=reason, facts=facts,
    )  # fmt: skip
