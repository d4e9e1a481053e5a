"""The measures of one breath: one formula a function, each with the half width of its 90 % interval, or the reason why there is no number.

``FORMULAS`` is the list of them; docs/method.md has the same rows with their limits.
"""

import math
from collections.abc import Callable, Sequence

import numpy as np

from brevin.core.breath import shape
from brevin.core.breath.one import OneBreath
from brevin.core.breath.patterns import NOT_SURE, Inhale, Named, abdominal_share, lifted_by_shoulders, pattern_within
from brevin.core.breath.timing import length_beats, next_offset_beats, offset_beats, turn_s
from brevin.core.breath.turns import Turn
from brevin.core.kinds import ExhaleShape, Region
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, withheld
from brevin.core.plan.card import CountCard
from brevin.core.verdict.rules import Rules

LAG_NOISE_PCT = 0.05  # percent of trunk: what a trace wanders by between the two half rises; own
LEAST_SUM_PCT = 0.5  # percent of trunk: of less together nothing is a share
LAG_LEAST_S = 0.04  # half width of a lag, at least
LEAST_AGAINST_PCT = 0.05  # percent of trunk: half width of two regions that clearly go the same way
FULL_S = 0.04  # half width of the moment of nine tenths, beside that of the start; own
UNEVENNESS_HALF_WIDTH, PHASE_HALF_WIDTH_DEG = 0.05, 8.0  # share of the excursion, degrees; own estimates
LEAST_LOOP_PCT = 0.3  # percent of trunk: a loop thinner than this has no angle
LEAST_LOOP_SAMPLES = 8  # of the traces
LAG_MOST_SHARE, LAG_MOST_S = 0.6, 2.5  # of the inhale, and at most: no chest follows a belly later than that
OUTSIDE_S = 0.3  # how far outside the inhale a region may be half full


def _both(amount_of: Callable[[Region], Value]) -> tuple[Amount, Amount] | NotMeasured:
    """Abdomen and chest, or why one of them has no number."""
    abdomen, chest = amount_of("abdomen"), amount_of("chest")
    if isinstance(abdomen, NotMeasured):
        return abdomen
    return chest if isinstance(chest, NotMeasured) else (abdomen, chest)


def share(breath: OneBreath) -> Value:
    """abdomen / (abdomen + chest) of the inhale, signed; not measured where the sum is under one percent of trunk."""
    both = _both(breath.moved)
    if isinstance(both, NotMeasured):
        return both
    abdomen, chest = both
    value = abdominal_share(abdomen.value, chest.value)
    if value is None:
        return NotMeasured("too_small")
    least = breath.least_chest(chest.value)
    chests = [(abdomen.value, max(chest.value + side * chest.half_width, least)) for side in (-1.0, 1.0)]
    abdomens = [(abdomen.value + side * abdomen.half_width, chest.value) for side in (-1.0, 1.0)]
    return Amount(value, math.hypot(_reach(value, chests), _reach(value, abdomens)))


def _reach(value: float, ends: Sequence[tuple[float, float]]) -> float:
    """How far the share goes, on its farther side, while one region goes through its interval: a ratio is not as far up as down. ends: abdomen and chest at
    both ends of it."""
    found = []
    for a, c in ends:
        found.append(abs(a / (a + c) - value) if a + c >= LEAST_SUM_PCT else abs(1.0 - value))
    return max(found)


def size_pct(breath: OneBreath) -> Value:
    """|abdomen| + |chest| of the inhale, percent of trunk: how large the breath is, as far as it can be seen."""
    both = _both(breath.sized)
    if isinstance(both, NotMeasured):
        return both
    abdomen, chest = both
    return Amount(abs(abdomen.value) + abs(chest.value), math.hypot(abdomen.half_width, chest.half_width))


def against_pct(breath: OneBreath) -> Value:
    """How far one region goes inward while the other goes out in the inhale, percent of trunk: + the chest sinks under a belly that is pushed out, - the
    belly goes in under a chest that rises, 0 where both go the same way."""
    both = _both(breath.moved)
    if isinstance(both, NotMeasured):
        return both
    abdomen, chest = both
    if chest.value < 0 and abdomen.value >= breath.rules.limit("pattern.pushed_abdomen"):
        return Amount(-chest.value, chest.half_width)
    if abdomen.value < 0 < chest.value:
        return Amount(abdomen.value, abdomen.half_width)
    inward = max(chest.value - chest.half_width, breath.least_chest(chest.value))
    doubt = max(abdomen.half_width - abdomen.value, -inward, 0.0)  # how far an interval reaches over to the other way
    return Amount(0.0, max(doubt, LEAST_AGAINST_PCT))


def chest_lag_s(breath: OneBreath) -> Value:
    """Chest's half rise less abdomen's, s, + = chest later. Half width: noise over the slope at half rise of both, the slope taken as the
    excursion over the inhale's length; more by the clip's unrest and by what its coder kept back."""
    both = _both(breath.moved)
    if isinstance(both, NotMeasured):
        return both
    if breath.traces.covered >= 1.0:  # nothing that was followed of it goes along with the belly (sleeves.py)
        return NotMeasured("region_unseen")
    low_s, high_s = breath.turns.half_rise_s.get("abdomen"), breath.turns.half_rise_s.get("chest")
    if low_s is None or high_s is None:
        return NotMeasured("too_small")
    assert breath.turns.inhale_start is not None and breath.turns.inhale_end is not None
    first_s, last_s = breath.turns.inhale_start.t_s - OUTSIDE_S, breath.turns.inhale_end.t_s + OUTSIDE_S
    if not (first_s <= low_s <= last_s and first_s <= high_s <= last_s):
        return NotMeasured("too_short_to_tell")  # it is half full in another breath: what moves there is none of this inhale
    length_s = max(breath.turns.inhale_end.t_s - breath.turns.inhale_start.t_s, 0.2)
    if abs(high_s - low_s) > min(LAG_MOST_SHARE * length_s, LAG_MOST_S):
        return NotMeasured("too_short_to_tell")  # so far apart the two are no parts of one inhale
    seen_pct = both[0].value, both[1].value / (1.0 + breath.traces.covered)  # what is told of a sleeve's share has no slope
    parts = [NORMAL_90 * LAG_NOISE_PCT * length_s / max(abs(moved), 0.2) for moved in seen_pct]
    return Amount(high_s - low_s, max(math.hypot(breath.turns.times * math.hypot(*parts), breath.turns.late_s), LAG_LEAST_S))


def _course(breath: OneBreath, start: Turn | None, end: Turn | None) -> shape.Course | NotMeasured:
    """Abdomen and chest together between two turns."""
    if start is None or end is None:
        return NotMeasured("cut_by_clip")
    if not (breath.traces.timed["abdomen"] and breath.traces.timed["chest"]) or breath.traces.covered >= 1.0:
        return NotMeasured("region_unseen")  # how a breath fills is told by both, and not by a chest that goes its own way behind an arm
    together = shape.course(breath.traces.t_s, breath.traces.abdomen + breath.traces.chest, start.t_s, end.t_s)
    return NotMeasured("too_short_to_tell") if together is None else together


def _fill(breath: OneBreath) -> shape.Course | NotMeasured:
    return _course(breath, breath.turns.inhale_start, breath.turns.inhale_end)


def _emptying(breath: OneBreath) -> shape.Course | NotMeasured:
    if breath.turns.inhale_start is None or breath.turns.inhale_end is None:
        return NotMeasured("cut_by_clip")
    return _course(breath, breath.turns.exhale_start, breath.turns.exhale_end)


def full_at_beat(breath: OneBreath) -> Value:
    """Beats from the inhale's start until 90 % of abdomen + chest are in (core/breath/shape.py)."""
    fill = _fill(breath)
    if isinstance(fill, NotMeasured):
        return fill
    if breath.beats.beat_s is None:
        return NotMeasured("no_beats")
    assert breath.turns.inhale_start is not None
    spread_s = math.hypot(breath.turns.inhale_start.half_width_s, FULL_S)
    return Amount(shape.full_s(fill) / breath.beats.beat_s, spread_s / breath.beats.beat_s)


def intake_unevenness(breath: OneBreath) -> Value:
    """Largest distance of the fill from an even one, share of the excursion."""
    fill = _fill(breath)
    return fill if isinstance(fill, NotMeasured) else Amount(shape.unevenness(fill), UNEVENNESS_HALF_WIDTH)


def exhale_unevenness(breath: OneBreath, release: float) -> Value:
    """The same for the emptying, against the shape of a release (core/breath/shape.py)."""
    emptied = _emptying(breath)
    return emptied if isinstance(emptied, NotMeasured) else Amount(shape.unevenness(emptied, release=release), UNEVENNESS_HALF_WIDTH)


def phase_angle_deg(breath: OneBreath) -> Value:
    """Thoracoabdominal phase angle of the chest-abdomen loop, deg, 0 = together, 180 = opposed (Konno and Mead 1967; Agostoni and Mognoni 1966).

    sin(angle) = width of the loop at half chest excursion over the abdomen's full excursion; over 90 where the loop leans the other way.
    """
    start, end, traces = breath.turns.inhale_start, breath.turns.exhale_end, breath.traces
    if start is None or end is None or breath.turns.inhale_end is None:
        return NotMeasured("cut_by_clip")
    if not (traces.timed["abdomen"] and traces.timed["chest"]):
        return NotMeasured("region_unseen")
    window = (traces.t_s >= start.t_s) & (traces.t_s <= end.t_s)
    abdomen, chest = traces.abdomen[window], traces.chest[window]
    if window.sum() < LEAST_LOOP_SAMPLES or min(np.ptp(abdomen), np.ptp(chest)) < LEAST_LOOP_PCT:
        return NotMeasured("too_small")
    crossings = np.flatnonzero(np.diff((chest > 0.5 * (chest.max() + chest.min())).astype(int)))
    if len(crossings) < 2:
        return NotMeasured("too_short_to_tell")
    width = abs(abdomen[crossings[0]] - abdomen[crossings[-1]])
    angle_deg = float(np.degrees(np.arcsin(min(width / np.ptp(abdomen), 1.0))))
    leaning = float(np.corrcoef(abdomen, chest)[0, 1])
    return Amount(180.0 - angle_deg if leaning < 0 else angle_deg, PHASE_HALF_WIDTH_DEG)


FORMULAS: dict[str, Callable[[OneBreath], Value]] = {
    "inhale_start_s": lambda b: turn_s(b, "inhale_start"),
    "inhale_end_s": lambda b: turn_s(b, "inhale_end"),
    "exhale_start_s": lambda b: turn_s(b, "exhale_start"),
    "exhale_end_s": lambda b: turn_s(b, "exhale_end"),
    "inhale_beats": lambda b: length_beats(b, b.turns.inhale_start, b.turns.inhale_end),
    "pause_beats": lambda b: length_beats(b, b.turns.inhale_end, b.turns.exhale_start),
    "exhale_beats": lambda b: length_beats(b, b.turns.exhale_start, b.turns.exhale_end),
    "empty_beats": lambda b: length_beats(b, b.turns.exhale_end, b.next_start),
    "inhale_offset_beats": lambda b: offset_beats(b, b.turns.inhale_start, CountCard.inhale_due_beats),
    "exhale_offset_beats": lambda b: offset_beats(b, b.turns.exhale_start, CountCard.exhale_due_beats),
    "next_offset_beats": next_offset_beats,
    "full_at_beat": full_at_beat,
    "abdomen_amp": lambda b: b.sized("abdomen"),
    "chest_amp": lambda b: b.sized("chest"),
    "shoulder_rise": lambda b: b.moved("shoulder"),
    "size_pct": size_pct,
    "abdominal_share": share,
    "chest_lag_s": chest_lag_s,
    "against_pct": against_pct,
    "phase_angle_deg": phase_angle_deg,
    "intake_unevenness": intake_unevenness,
    "exhale_unevenness": lambda b: exhale_unevenness(b, b.rules.limit("even_exhale.release")),
    "exhale_from_even": lambda b: exhale_unevenness(b, shape.RELEASES["exhale_from_even"]),
    "exhale_from_fall": lambda b: exhale_unevenness(b, shape.RELEASES["exhale_from_fall"]),
}
TIMES = (
    "inhale_start_s", "inhale_end_s", "exhale_start_s", "exhale_end_s", "inhale_beats", "pause_beats", "exhale_beats", "empty_beats",
    "inhale_offset_beats", "exhale_offset_beats", "next_offset_beats",
)  # fmt: skip
"""What a clip whose breath is not readable may still tell."""


def as_far_as_seen(measures: Sequence[Measure], *, front: bool, readable: bool, by_shoulders: bool = False) -> list[Measure]:
    """The numbers of a breath as far as its clip tells them: from the front times and shoulders, by the shoulders of a side view the chest's way as well; the
    times alone where the breath is not readable."""
    if readable and not front and not by_shoulders:
        return list(measures)
    told = {*TIMES, *(("shoulder_rise",) if front else ("shoulder_rise", "chest_amp"))} if readable else set(TIMES)
    why = "breath_unreadable" if not readable else "view_unserved" if front else "region_unseen"
    return list(withheld(measures, {m.key for m in measures} - told, why))


def measures_of(breath: OneBreath, index: int) -> list[Measure]:
    """All numbers of one breath, in the order of ``FORMULAS``."""
    return [Measure(key, formula(breath), breath=index) for key, formula in FORMULAS.items()]


def exhale_shape(breath: OneBreath) -> ExhaleShape | None:
    """Name of the exhale's course; None where it cannot be told."""
    emptied = _emptying(breath)
    return None if isinstance(emptied, NotMeasured) else shape.exhale_shape(emptied)


def pattern(breath: OneBreath) -> Named:
    """Name of the inhale by its regions (core/breath/patterns.py); unclear where abdomen or chest was not seen."""
    abdomen, chest, shoulder = breath.moved("abdomen"), breath.moved("chest"), breath.moved("shoulder")
    if isinstance(abdomen, NotMeasured):
        return NOT_SURE
    if isinstance(chest, NotMeasured):
        return Named("chest_high") if _by_shoulders(abdomen, shoulder, breath.rules) else NOT_SURE
    lag = chest_lag_s(breath)
    rise = None if isinstance(shoulder, NotMeasured) else shoulder
    order = None if isinstance(lag, NotMeasured) else lag
    inhale = Inhale(abdomen.value, chest.value, rise.value if rise else None, order.value if order else None)
    half_widths = Inhale(abdomen.half_width, chest.half_width, rise.half_width if rise else None, order.half_width if order else None)
    return pattern_within(inhale, half_widths, rules=breath.rules, least_chest=breath.least_chest(chest.value))


def _by_shoulders(abdomen: Amount, shoulder: Value, rules: Rules) -> bool:
    """Whether the shoulders do it, whatever lies inside the intervals."""
    if isinstance(shoulder, NotMeasured):
        return False
    return lifted_by_shoulders(abdomen.value + abdomen.half_width, shoulder.value - shoulder.half_width, rules)
