"""The measures of one breath, each with the half width of its 90 % interval. Formulas stand in docs/method.md."""

import math
from dataclasses import dataclass

import numpy as np

from brevin.core import filters
from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.patterns import Inhale, abdominal_share, pattern_within
from brevin.core.breath.turns import Turn
from brevin.core.kinematics.trunk import Traces
from brevin.core.music.clicks import Beats
from brevin.core.plan.card import CountCard
from brevin.core.report import Breath
from brevin.core.track import Floats
from brevin.core.verdict.profile import MethodProfile

NORMAL_90 = 1.645  # standard deviations to the half width of a 90 % interval
LEVEL_S = 0.08  # a level is the mean over this long at a turn
FULL = 0.9  # of the excursion
LAG_NOISE_PCT = 0.05  # percent of trunk: what a trace wanders by between the two half rises; own, measured on made clips
NEAREST_CYCLES = 0.5  # a breath belongs to the card's cycle whose start is nearest, within this many cycles
STOPS_PULSING, STOP_S = 3, 0.12
TRACKING_PCT = {"abdomen": 0.08, "chest": 0.08, "shoulder": 0.17}
"""What outline and texture differ by on a still body, percent of trunk, standard deviation; own, measured on made clips."""


@dataclass(frozen=True)
class Excursion:
    """Signed travel over the inhale, percent of trunk, with its half width."""

    value: float
    half: float


def measured(turns: BreathTurns, following: BreathTurns | None, traces: Traces, beats: Beats, card: CountCard | None, rules: MethodProfile) -> Breath:
    """All numbers of one breath. following: the next breath, for the still time between."""
    moved = _excursions(turns, traces)
    values: dict[str, float | str | int | None] = {}
    half: dict[str, float | None] = {}
    _put_turns(values, half, turns)
    _put_lengths(values, half, turns, following, beats)
    _put_offsets(values, half, turns, beats, card)
    _put_amplitudes(values, half, moved, turns)
    _put_shape(values, half, turns, traces, beats, release=rules.limit("even_exhale.release"))
    values["pattern"] = _pattern(values, half, rules)
    return Breath(**values, uncertainty=half)  # type: ignore[arg-type]


def _put_turns(values: dict, half: dict, turns: BreathTurns) -> None:
    for key in ("inhale_start", "inhale_end", "exhale_start", "exhale_end"):
        turn: Turn | None = getattr(turns, key)
        values[f"{key}_s"] = None if turn is None else turn.t_s
        half[f"{key}_s"] = None if turn is None else turn.half_width_s


def _put_lengths(values: dict, half: dict, turns: BreathTurns, following: BreathTurns | None, beats: Beats) -> None:
    after = following.inhale_start if following else None
    spans = {
        "inhale_beats": (turns.inhale_start, turns.inhale_end),
        "pause_beats": (turns.inhale_end, turns.exhale_start),
        "exhale_beats": (turns.exhale_start, turns.exhale_end),
        "empty_beats": (turns.exhale_end, after),
    }
    for key, (start, end) in spans.items():
        known = start is not None and end is not None and beats.beat_s is not None
        values[key] = max(end.t_s - start.t_s, 0.0) / beats.beat_s if known else None  # type: ignore[union-attr, operator]
        half[key] = float(np.hypot(start.half_width_s, end.half_width_s)) / beats.beat_s if known else None  # type: ignore[union-attr, operator]


def _put_offsets(values: dict, half: dict, turns: BreathTurns, beats: Beats, card: CountCard | None) -> None:
    index = cycle_index(turns, beats, card)
    values["card_index"] = index
    for key, turn, due in (
        ("inhale_offset_beats", turns.inhale_start, None if card is None or index is None else card.inhale_due_beats(index)),
        ("exhale_offset_beats", turns.exhale_start, None if card is None or index is None else card.exhale_due_beats(index)),
    ):
        known = turn is not None and due is not None and beats.beat_s is not None and beats.first_inhale_s is not None
        values[key] = (turn.t_s - beats.first_inhale_s) / beats.beat_s - due if known else None  # type: ignore[union-attr, operator]
        half[key] = float(np.hypot(turn.half_width_s, beats.residual_s or 0.0)) / beats.beat_s if known else None  # type: ignore[union-attr, operator]


def cycle_index(turns: BreathTurns, beats: Beats, card: CountCard | None) -> int | None:
    """Which of the card's breaths this is; None without a grid, or where no cycle is near."""
    if card is None or beats.first_inhale_s is None or beats.beat_s is None or turns.inhale_start is None:
        return None
    at_beats = (turns.inhale_start.t_s - beats.first_inhale_s) / beats.beat_s
    if card.cycle_beats is None:
        return 0 if abs(at_beats) < card.inhale_beats + 2.0 else None
    index = round(at_beats / card.cycle_beats)
    near = abs(at_beats - index * card.cycle_beats) <= NEAREST_CYCLES * card.cycle_beats
    return index if near and 0 <= index < card.cycles else None


def _excursions(turns: BreathTurns, traces: Traces) -> dict[str, Excursion | None]:
    if turns.inhale_start is None or turns.inhale_end is None:
        return dict.fromkeys(("abdomen", "chest", "shoulder"))
    return {
        name: _excursion(traces, name, turns.inhale_start.t_s, turns.inhale_end.t_s) if traces.seen[name] else None for name in ("abdomen", "chest", "shoulder")
    }


def _excursion(traces: Traces, name: str, start_s: float, end_s: float) -> Excursion:
    values = getattr(traces, name)
    change = _level(traces.t_s, values, end_s, after=True) - _level(traces.t_s, values, start_s, after=False)
    own = NORMAL_90 * np.hypot(traces.noise[name] * np.sqrt(2.0), TRACKING_PCT[name])
    return Excursion(value=change, half=float(np.hypot(own, NORMAL_90 * traces.model[name] * abs(change))))


def _level(t_s: Floats, values: Floats, at_s: float, *, after: bool) -> float:
    low, high = (at_s, at_s + LEVEL_S) if after else (at_s - LEVEL_S, at_s)
    window = (t_s >= low - 1e-9) & (t_s <= high + 1e-9)
    return float(values[window].mean()) if window.any() else float(np.interp(at_s, t_s, values))


def _put_amplitudes(values: dict, half: dict, moved: dict[str, Excursion | None], turns: BreathTurns) -> None:
    for key, name in (("abdomen_amp", "abdomen"), ("chest_amp", "chest"), ("shoulder_rise", "shoulder")):
        found = moved[name]
        values[key], half[key] = (None, None) if found is None else (found.value, found.half)
    a, c = moved["abdomen"], moved["chest"]
    values["abdominal_share"] = abdominal_share(a.value, c.value) if a and c else None
    half["abdominal_share"] = None
    if a and c and values["abdominal_share"] is not None:
        total = a.value + c.value
        half["abdominal_share"] = float(np.hypot(c.value * a.half, a.value * c.half)) / total**2
    times = turns.half_s.get("abdomen"), turns.half_s.get("chest")
    known = times[0] is not None and times[1] is not None
    values["chest_lag_s"] = times[1] - times[0] if known else None  # type: ignore[operator]
    half["chest_lag_s"] = _lag_half(a, c, turns) if known and a and c else None


def _lag_half(a: Excursion, c: Excursion, turns: BreathTurns) -> float:
    """Noise over slope at half rise, both regions; the slope taken as the excursion over the inhale's length."""
    assert turns.inhale_start is not None and turns.inhale_end is not None
    length_s = max(turns.inhale_end.t_s - turns.inhale_start.t_s, 0.2)
    parts = [NORMAL_90 * LAG_NOISE_PCT * length_s / max(abs(e.value), 0.2) for e in (a, c)]
    return max(math.hypot(*parts), 0.04)


def _put_shape(values: dict, half: dict, turns: BreathTurns, traces: Traces, beats: Beats, *, release: float) -> None:
    keys = ("full_at_beat", "intake_unevenness", "phase_angle_deg", "exhale_unevenness")
    values.update(dict.fromkeys(keys), exhale_shape=None)
    half.update(dict.fromkeys(keys))
    if turns.inhale_start is None or turns.inhale_end is None or not (traces.seen["abdomen"] and traces.seen["chest"]):
        return
    both = traces.abdomen + traces.chest
    fill = _fill(traces.t_s, both, turns.inhale_start.t_s, turns.inhale_end.t_s)
    if fill is not None:
        full_s = float(np.interp(FULL, np.maximum.accumulate(fill[1]), fill[0]))
        if beats.beat_s is not None:
            values["full_at_beat"] = full_s / beats.beat_s
            half["full_at_beat"] = float(np.hypot(turns.inhale_start.half_width_s, 0.04)) / beats.beat_s
        values["intake_unevenness"], half["intake_unevenness"] = _unevenness(fill), 0.05
    values["phase_angle_deg"] = _phase_angle(traces, turns.inhale_start.t_s, turns.exhale_end.t_s if turns.exhale_end else None)
    half["phase_angle_deg"] = None if values["phase_angle_deg"] is None else 8.0
    if turns.exhale_start is not None and turns.exhale_end is not None:
        emptied = _fill(traces.t_s, both, turns.exhale_start.t_s, turns.exhale_end.t_s)
        if emptied is not None:
            values["exhale_unevenness"], half["exhale_unevenness"] = _unevenness(emptied, release=release), 0.05
            values["exhale_shape"] = exhale_shape(emptied)


def _fill(t_s: Floats, both: Floats, start_s: float, end_s: float) -> tuple[Floats, Floats] | None:
    """Time since the start and share of the excursion done, 0 to 1; None where it is too short or too small to tell."""
    window = (t_s >= start_s) & (t_s <= end_s)
    if window.sum() < 4:
        return None
    values = both[window]
    way = values[-1] - values[0]
    if abs(way) < 0.5:
        return None
    return t_s[window] - start_s, (values - values[0]) / way


def _unevenness(fill: tuple[Floats, Floats], *, release: float = 0.0) -> float:
    """Largest distance between the fill and the taught one, share of the excursion. release: 0 = even, more = most of it at first."""
    time, done = fill
    even = time / time[-1]
    taught = even if release < 1e-6 else np.expm1(-release * even) / np.expm1(-release)
    return float(np.abs(done - taught).max())


def exhale_shape(fill: tuple[Floats, Floats]) -> str:
    """even, collapsing (over half gone in the first quarter of its time), pulsing (three or more stops) or kept back (under a quarter gone at half time)."""
    time, gone = fill
    length = time[-1]
    if np.interp(0.25 * length, time, gone) > 0.5:
        return "collapsing"
    if stops(fill) >= STOPS_PULSING:
        return "pulsing"
    return "kept back" if np.interp(0.5 * length, time, gone) < 0.25 else "even"


def stops(fill: tuple[Floats, Floats]) -> int:
    """How often the flow nearly stops inside a movement: under a fifth of its mean speed for at least ``STOP_S``."""
    time, done = fill
    inner = (done > 0.08) & (done < 0.92)
    slow = (np.gradient(done, time) < 0.2 / time[-1]) & inner
    edges = np.flatnonzero(np.diff(np.concatenate([[0], slow.astype(int), [0]])))
    return int(sum((end - start) / filters.GRID_HZ >= STOP_S for start, end in zip(edges[::2], edges[1::2], strict=True)))


def _phase_angle(traces: Traces, start_s: float, end_s: float | None) -> float | None:
    """Thoracoabdominal phase angle of the chest-abdomen loop, deg, 0 = together, 180 = opposed (Konno and Mead 1967; Agostoni and Mognoni 1966).

    sin(angle) = width of the loop at half chest excursion over the abdomen's full excursion; over 90 where the loop leans the other way.
    """
    if end_s is None:
        return None
    window = (traces.t_s >= start_s) & (traces.t_s <= end_s)
    abdomen, chest = traces.abdomen[window], traces.chest[window]
    if window.sum() < 8 or min(np.ptp(abdomen), np.ptp(chest)) < 0.3:
        return None
    middle = 0.5 * (chest.max() + chest.min())
    over = chest > middle
    crossings = np.flatnonzero(np.diff(over.astype(int)))
    if len(crossings) < 2:
        return None
    width = abs(abdomen[crossings[0]] - abdomen[crossings[-1]])
    angle = float(np.degrees(np.arcsin(min(width / np.ptp(abdomen), 1.0))))
    leaning = float(np.corrcoef(abdomen, chest)[0, 1])
    return 180.0 - angle if leaning < 0 else angle


def _pattern(values: dict, half: dict, rules: MethodProfile) -> str:
    if values["abdomen_amp"] is None or values["chest_amp"] is None:
        return "unclear"
    inhale = Inhale(values["abdomen_amp"], values["chest_amp"], values["shoulder_rise"], values["chest_lag_s"])
    widths = Inhale(half["abdomen_amp"], half["chest_amp"], half["shoulder_rise"], half["chest_lag_s"])
    return pattern_within(inhale, widths, rules=rules)
