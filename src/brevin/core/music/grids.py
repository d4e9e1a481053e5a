"""Beat grids where no click was heard: the one the app counted, else one from the breaths themselves. A wrong grid is worse than none."""

import statistics
from collections.abc import Sequence

import numpy as np

from brevin.core.music.clicks import NO_BEATS, Beats
from brevin.core.plan.card import CountCard

NEAR_WHOLE_BEATS, NEAR_FAR_BEATS = 0.3, 0.5  # how near to the same whole number of beats every start must lie for another count-in: one, and more than one
LEAST_COUNTED_IN = 2  # breaths: one that starts a beat late is late
LEAST_BREATHS = 3  # whole breaths: two lie on a grid by chance
OFF_MOST_BEATS = 0.25  # a start farther from the common grid than this: the breaths do not follow the count, there is no grid
CLOCKS_S = 0.05  # by which a page's clock and its camera's may differ; own
BY_HAND_S = 0.04  # by which a person puts a beat: one picture; own
PHASE_BEATS = 0.25  # how far all starts together may lie off the beat that nobody heard


def recorded(card: CountCard | None, first_inhale_s: float | None) -> Beats:
    """The grid of the app's own count. first_inhale_s: due time on the clip's clock; ``NO_BEATS`` where it did not count."""
    if card is None or first_inhale_s is None:
        return NO_BEATS
    return Beats(tempo_bpm=card.tempo_bpm, first_inhale_s=first_inhale_s, source="recorded", residual_s=CLOCKS_S)


def by_hand(card: CountCard | None, beats: Beats, first_inhale_s: float) -> Beats:
    """The grid with its first inhale where a person put it; its tempo as heard, else the card's. ``NO_BEATS`` without a card."""
    if card is None:
        return NO_BEATS
    tempo_bpm = beats.tempo_bpm or card.tempo_bpm
    return Beats(tempo_bpm=tempo_bpm, first_inhale_s=first_inhale_s, source="recorded", residual_s=BY_HAND_S, clicks_s=beats.clicks_s)


def fitted(card: CountCard | None, starts_s: list[float]) -> Beats:
    """The grid on which the breaths' starts lie best; ``NO_BEATS`` where they are too few or do not keep the card's tempo.

    starts_s: inhale starts in order. That a player is late by the same amount every time cannot be seen: the residual says so.
    """
    if card is None or card.cycle_beats is None or len(starts_s) < LEAST_BREATHS:
        return NO_BEATS
    own_s = np.array(starts_s) - np.arange(len(starts_s)) * card.cycle_beats * card.beat_s
    first_s = float(np.median(own_s))
    off_s = np.abs(own_s - first_s)
    if off_s.max() > OFF_MOST_BEATS * card.beat_s:
        return NO_BEATS
    residual_s = float(np.hypot(off_s.mean(), PHASE_BEATS * card.beat_s))
    return Beats(tempo_bpm=card.tempo_bpm, first_inhale_s=first_s, source="fitted", residual_s=residual_s)


def whole_beats_off(offsets_beats: Sequence[float], cycle_beats: float | None = None) -> int:
    """By how many whole beats every onset lies off the card's own, + = later: another count-in was counted. 0 where they do not agree. One beat may be the
    player's own, and all have to lie close to it; nobody starts two or three off each time, within half a beat. cycle_beats: of the card; half of it off, one
    start may be told of the breath before, and another of the breath after."""
    if len(offsets_beats) < LEAST_COUNTED_IN:
        return 0
    first = offsets_beats[0]
    alike = [first + (one - first + cycle_beats / 2) % cycle_beats - cycle_beats / 2 if cycle_beats else one for one in offsets_beats]
    off = round(statistics.median(alike))
    return off if all(abs(one - off) <= (NEAR_WHOLE_BEATS if abs(off) < 2 else NEAR_FAR_BEATS) for one in alike) else 0
