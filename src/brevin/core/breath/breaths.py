"""Breaths from traces: the four turns of each, taken from the regions that move."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from brevin.core.breath.around import LEAST_UPPER_PCT, Around, around_of, crossing, half_rise, joint_of, moving, upper_of
from brevin.core.breath.cycles import breath_signal, swings
from brevin.core.breath.exhales import exhale, exhale_end
from brevin.core.breath.hidden import UNSEEN_FILLING, begins_in_shoulders, goes_on, let_go, lifted, until_the_next, untold_s
from brevin.core.breath.pauses import met, uncrossed
from brevin.core.breath.starts import as_in_the_others, first_of, starts_of
from brevin.core.breath.trust import clearest, with_wander
from brevin.core.breath.turns import FOOT_REST_S, Turn, arriving
from brevin.core.breath.unrest import CALM, unrest
from brevin.core.breath.way_in import ByCount, nothing_counted
from brevin.core.filters import SMOOTH_S
from brevin.core.kinds import TURN_KINDS
from brevin.core.kinematics.coding import FRESH_S
from brevin.core.kinematics.traces import Traces
from brevin.core.track import Floats

END_SHARE = 0.15  # of the larger region's excursion: below it the end is the larger one's
FULLNESS_WIDER = 1.15  # times: the last of several turns is less sure than each; own, shows in ./brevin bench accuracy
WHOLE_PX = 130.0  # the trunk in the picture from which on half widths stand as they are: what moves is followed to a part of a pixel; docs/gate.md
LATE_TIMES = 4.0  # times the age of the picture beyond FRESH_S by which starts are less sure; own, shows in ./brevin bench accuracy
REST_SEEN_S = 0.3  # before an inhale's start: one that stands nearer to the clip's beginning may have begun before it; own
HOLE_MOST_S = 1.3  # in which a turn may lie for how far the inhale went to be told at all; own
CUT_FALL = 0.3  # of the rise: an exhale cut off by the clip's end before this much of it has no start


@dataclass(frozen=True)
class BreathTurns:
    """One breath's four turns with the half widths of their 90 % intervals, seconds; None where the clip cuts them off, or a long hole
    hides them.

    half_rise_s: moment each region passes half its rise, None where it does not move enough; times, late_s: how much less sure than by its trace each moment
    is for the clip's unrest, and for what a coder kept back, seconds.
    """

    inhale_start: Turn | None
    inhale_end: Turn | None
    exhale_start: Turn | None
    exhale_end: Turn | None
    half_rise_s: dict[str, float | None]
    times: float = 1.0
    late_s: float = 0.0

    @property
    def whole(self) -> bool:
        """All four turns are seen."""
        return None not in (self.inhale_start, self.inhale_end, self.exhale_start, self.exhale_end)

    @property
    def inhale_s(self) -> tuple[float, float] | None:
        """From when to when the inhale of a whole breath lasts."""
        return (self.inhale_start.t_s, self.inhale_end.t_s) if self.whole and self.inhale_start and self.inhale_end else None

    def less_sure(self, times: float) -> "BreathTurns":
        """The same turns with half widths so many times as wide."""
        wider = {kind: Turn(turn.t_s, times * turn.half_width_s) for kind in TURN_KINDS if (turn := getattr(self, kind)) is not None}
        return replace(self, **wider, times=times)


def inhales_of(turns: Sequence[BreathTurns]) -> list[tuple[float, float]]:
    """The inhales of all whole breaths, from when to when, s."""
    return [one.inhale_s for one in turns if one.inhale_s is not None]


def breaths(traces: Traces, by_count: ByCount = nothing_counted) -> list[BreathTurns]:
    """All breaths of a clip in order, the cut ones included. Empty where nothing breathes. by_count: what the count says where the regions do not agree."""
    regions, weights, signal = _signals(traces, by_count)
    if signal is None:
        return []
    noise = {name: traces.noise[name] for name in (*regions, "shoulder")}
    carriers = regions | ({"shoulder": traces.shoulder} if traces.seen["shoulder"] else {})
    signal, found = clearest(regions, weights, signal, noise)
    wander = {name: with_wander(values, noise[name], signal, found) for name, values in carriers.items()}
    around = [around_of(traces.t_s, noise, wander, signal, *three) for three in zip([None, *found], found, [*found[1:], None], strict=False)]
    middles_s = [float(traces.t_s[crossing(signal, swing.trough, swing.peak)]) for swing in found]
    begins = carriers if begins_in_shoulders(traces) else regions
    starts = as_in_the_others([starts_of(begins, carriers, one) for one in around], middles_s)
    hidden = 0.0 if traces.seen["abdomen"] else UNSEEN_FILLING
    turns = [
        _turns(regions, carriers, signal, one, first_of(own), hidden, goes_on(traces, regions, one.swing)) for one, own in zip(around, starts, strict=True)
    ]
    turns = [_ended(one, then, carriers, own) for one, then, own in zip(turns, [*turns[1:], None], around, strict=False)]
    others = {name: getattr(traces, name) for name in ("abdomen", "chest") if traces.seen[name] and name not in regions}
    if others:
        rises = [{name: _half_rise(values, own) for name, values in others.items()} for own in around]
        turns = [replace(one, half_rise_s=one.half_rise_s | own) for one, own in zip(turns, rises, strict=True)]
    small = max(WHOLE_PX / traces.trunk_px, 1.0) if traces.trunk_px else 1.0
    times = small * max((unrest(traces, inhales_of(turns)) or 0.0) / CALM, 1.0)
    return [_late(_unsure_in_holes(one.less_sure(times), traces.holes), traces.stale_s) for one in turns]


def _half_rise(values: Floats, around: Around) -> float | None:
    """When a region that tells no turn passes half of its way in this inhale; None where it hardly goes any."""
    went = float(values[around.swing.peak] - values[around.swing.trough])
    if abs(went) < LEAST_UPPER_PCT:
        return None
    _, _, bottom, top = around.own(np.sign(went) * values)
    return half_rise(around.t_s, np.sign(went) * values, bottom, top)


def _ended(turns: BreathTurns, then: BreathTurns | None, carriers: dict[str, Floats], around: Around) -> BreathTurns:
    """The same breath; an exhale that a rest follows ends where that begins; one that was let go at once ends no surer than what is left of it shows, and no
    later than the next inhale."""
    leave, end = turns.exhale_start, turns.exhale_end
    if leave is None or end is None:
        return turns
    if then is not None and then.inhale_start is not None and then.inhale_start.t_s - end.t_s > FOOT_REST_S:
        rested = exhale_end(leave, carriers, around, rests=True)
        end = rested if rested.t_s + rested.half_width_s < then.inhale_start.t_s else end  # what falls until the next inhale has not come to rest
        turns = replace(turns, exhale_end=end)
    joint, noise = joint_of(carriers, around)
    if not let_go(leave, end, float(around.t_s[around.own(joint)[1]])):
        return turns
    slow_s = untold_s(leave, end, around.t_s, joint, noise)
    return replace(turns, exhale_end=until_the_next(end, slow_s, then.inhale_start if then else None))


def _unsure_in_holes(turns: BreathTurns, holes: tuple[tuple[float, float], ...]) -> BreathTurns:
    """A turn that falls where pictures are missing, or something passed, may lie anywhere in the hole; a long one hides how far an inhale went as well."""

    def unsure(turn: Turn | None, most_s: float = HOLE_MOST_S) -> Turn | None:
        if turn is None:
            return None
        inside = [end - start for start, end in holes if start - SMOOTH_S <= turn.t_s <= end + SMOOTH_S]
        return Turn(turn.t_s, max([turn.half_width_s, *inside])) if max(inside, default=0.0) <= most_s else None

    return replace(
        turns, inhale_start=unsure(turns.inhale_start), inhale_end=unsure(turns.inhale_end),
        exhale_start=unsure(turns.exhale_start), exhale_end=unsure(turns.exhale_end, np.inf),
    )  # fmt: skip


def _late(turns: BreathTurns, stale_s: float) -> BreathTurns:
    """A clip that was coded hard keeps still until a movement has gone some way: its starts may lie earlier than they show, and are less sure."""
    late_s = LATE_TIMES * max(stale_s - FRESH_S, 0.0)

    def less_sure(turn: Turn | None) -> Turn | None:
        return None if turn is None else Turn(turn.t_s, float(np.hypot(turn.half_width_s, late_s)))

    leave = less_sure(turns.exhale_start)
    end = leave if turns.inhale_end == turns.exhale_start else turns.inhale_end  # without a pause both are one turn
    return replace(turns, inhale_start=less_sure(turns.inhale_start), inhale_end=end, exhale_start=leave, late_s=late_s)


def _signals(traces: Traces, by_count: ByCount) -> tuple[dict[str, Floats], dict[str, float], Floats | None]:
    """Regions that tell when, the weight of each and their common signal."""
    seen = traces.timed
    if (seen["abdomen"] or seen["chest"]) and not lifted(traces):
        signal, weights = breath_signal(traces.abdomen, traces.chest, traces.shoulder, seen=seen, by_count=by_count, sleeve=traces.covered > 0.0)
        regions = {name: getattr(traces, name) for name in ("abdomen", "chest") if seen[name]}
        return regions, dict(zip(("abdomen", "chest"), weights, strict=True)), signal
    if traces.seen["shoulder"] and swings(traces.shoulder, noise=traces.noise["shoulder"]):  # as from the front: shoulders that rise enough tell
        return {"shoulder": traces.shoulder}, {"shoulder": 1.0}, traces.shoulder
    return {}, {}, None


def _turns(regions: dict[str, Floats], carriers: dict[str, Floats], signal: Floats, around: Around, start: Turn, hidden: float, filling: float) -> BreathTurns:
    """hidden: share of the inhale by which a belly that is not seen may have begun before; filling: by which what is not seen, or hardly, may go on."""
    t_s, swing = around.t_s, around.swing
    rise_mid = crossing(signal, swing.trough, swing.peak)
    fall_mid = crossing(signal, swing.peak, swing.next_trough)
    end, half_rise_s = _filled(regions, carriers, around)
    leave, rest = exhale(carriers, around)
    start = Turn(start.t_s, start.half_width_s + hidden * max(end.t_s - start.t_s, 0.0))
    start, end = uncrossed(start, end)
    leave, rest = uncrossed(leave, rest)
    end, leave = met(end, leave, filling * (end.t_s - start.t_s), alone=len(regions) == 1)
    start, rest = min(start, end, key=_when), max(leave, rest, key=_when)
    cut_start = start.t_s < t_s[0] + REST_SEEN_S or (swing.cut_at_start and rise_mid - swing.trough < 2)
    cut_end = swing.cut_at_end or fall_mid >= len(t_s) - 2
    hardly_fell = signal[swing.peak] - signal[-1] < CUT_FALL * (signal[swing.peak] - signal[swing.trough])
    return BreathTurns(
        inhale_start=None if cut_start else start,
        inhale_end=end,
        exhale_start=None if cut_end and hardly_fell else leave,
        exhale_end=None if cut_end else rest,
        half_rise_s=half_rise_s,
    )


def _filled(regions: dict[str, Floats], carriers: dict[str, Floats], around: Around) -> tuple[Turn, dict[str, float | None]]:
    """The inhale's end: the last to come to rest of abdomen, a chest that sinks, and upper trunk, chest and shoulder in one. And each region's half rise."""
    t_s, wander, swing = around.t_s, around.wander, around.swing
    ends = []
    half_rise_s: dict[str, float | None] = {}
    going = moving(regions, swing, noise=wander, share_least=END_SHARE)
    for name, sign in going.items():
        values = sign * regions[name]
        _, _, bottom, top = around.own(values)
        half_rise_s[name] = half_rise(t_s, values, bottom, top)
        if name != "chest" or sign < 0:  # a chest that sinks goes on with the inhale; one that rises fills with the shoulders, below
            ends.append(_arrival(values, name, around))
    if upper := upper_of(carriers, around):
        values, upper_noise = joint_of(upper, around)
        rise, fall, *_ = around.own(values)
        ends.append(arriving(t_s, values, middle_i=rise, to_i=max(fall, rise + 1), noise=upper_noise))
    if not ends:  # what moves rises too little to be told from the shoulders: its own end is all there is
        ends = [_arrival(sign * regions[name], name, around) for name, sign in going.items()]
    end = max(ends, key=_when)
    return Turn(end.t_s, FULLNESS_WIDER * end.half_width_s), half_rise_s


def _arrival(values: Floats, name: str, around: Around) -> Turn:
    """When a trace that rises in this inhale came to rest."""
    rise, fall, *_ = around.own(values)
    return arriving(around.t_s, values, middle_i=rise, to_i=max(fall, rise + 1), noise=around.wander[name])


def _when(turn: Turn) -> float:
    return turn.t_s
