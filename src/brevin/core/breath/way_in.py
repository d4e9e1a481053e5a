"""Which way is in by the count, where belly and chest go against each other and the shoulders do not say."""

from collections.abc import Callable

import numpy as np

from brevin.core.filters import spread
from brevin.core.music.clicks import Beats
from brevin.core.plan.card import CountCard
from brevin.core.track import Floats

GOES_WITH = 0.5  # of its own travel, that what moves has to rise in the asked inhales and fall in the exhales, or the other way round; own

ByCount = Callable[[Floats], float]
"""Which way is in, of something that moves [n]: 1 where it rises as the card asks to breathe in, -1 where it falls, 0 where the count does not say."""


def nothing_counted(values: Floats) -> float:
    """Where there is no count: it says nothing."""
    return 0.0


def way_in(t_s: Floats, beats: Beats, card: CountCard | None) -> ByCount:
    """What a count that was heard, or that the program counted, says of anything that moves in the clip: the mean of its rises over the asked inhales and its
    falls over the asked exhales that lie in the clip, as a share of its travel. Nothing where the other way fits better some whole beats earlier or later:
    a film that begins in the middle of the count-in holds another first click, and its count would turn the breath upside down. Source: own."""
    if card is None or card.cycle_beats is None or beats.beat_s is None or beats.first_inhale_s is None:
        return nothing_counted
    first_s, beat_s, cycle_beats = beats.first_inhale_s, beats.beat_s, card.cycle_beats
    turns = np.cumsum([0.0, card.inhale_beats, card.pause_beats, card.exhale_beats or 0.0])

    def goes_with(values: Floats, later_beats: int) -> float:
        at = first_s + beat_s * (later_beats + cycle_beats * np.arange(card.cycles)[:, None] + turns)
        inside = at[(at[:, 0] >= t_s[0]) & (at[:, -1] <= t_s[-1])]
        start, top, leave, end = np.interp(inside, t_s, values).T
        return float(np.mean(top - start + leave - end)) / (2.0 * spread(values)) if len(inside) else 0.0

    def way(values: Floats) -> float:
        if spread(values) == 0.0:
            return 0.0
        here = goes_with(values, 0)
        half = int(np.ceil(cycle_beats / 2))
        against = max(-np.sign(here) * goes_with(values, beat) for beat in range(-half, half + 1))
        return float(np.sign(here)) if abs(here) >= max(GOES_WITH, against) else 0.0

    return way
