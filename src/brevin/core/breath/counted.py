"""How far the shoulders rose while the card asked to breathe in, where no breath was seen: from the front, when they hardly move, nothing else tells when."""

import numpy as np

from brevin.core.breath.excursions import followed_to
from brevin.core.kinematics.traces import Traces
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured
from brevin.core.music.clicks import Beats
from brevin.core.plan.card import CountCard
from brevin.core.track import Floats

KEY = "shoulder_rise"
OFF_BEATS = 0.5  # that a breath may lie off the card on either side


def counted_rise(traces: Traces, beats: Beats, card: CountCard | None) -> Measure:
    """Middle of the largest rises in the counts of all inhales that lie in the clip, percent of trunk; not measured without a count. Source: own."""
    if not traces.seen["shoulder"]:
        return Measure(KEY, NotMeasured("region_unseen"))
    if card is None:
        return Measure(KEY, NotMeasured("no_card"))
    if card.cycle_beats is None or beats.beat_s is None or beats.first_inhale_s is None:
        return Measure(KEY, NotMeasured("no_beats" if card.cycle_beats is not None else "open_exhale"))
    rises = []
    for breath in range(card.cycles):
        from_s = beats.first_inhale_s + (breath * card.cycle_beats - OFF_BEATS) * beats.beat_s
        to_s = from_s + (card.inhale_beats + 2.0 * OFF_BEATS) * beats.beat_s
        if traces.t_s[0] <= from_s and to_s <= traces.t_s[-1]:
            rises.append(_largest_rise(traces.shoulder[(traces.t_s >= from_s) & (traces.t_s <= to_s)]))
    if not rises:
        return Measure(KEY, NotMeasured("cut_by_clip"))
    value = float(np.median(rises))
    assumed = NORMAL_90 * traces.model["shoulder"] * value
    return Measure(KEY, Amount(value, float(np.hypot(followed_to(traces, "shoulder"), assumed))), samples=len(rises))


def _largest_rise(values: Floats) -> float:
    return float((values - np.minimum.accumulate(values)).max())
