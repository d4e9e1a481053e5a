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
    falls over the asked exhales that lie in the clip, as a share of its travel. Source: own."""
    if card is None or card.cycle_beats is None or beats.beat_s is None or beats.first_inhale_s is None:
        return nothing_counted
    starts = beats.first_inhale_s + beats.beat_s * card.cycle_beats * np.arange(card.cycles)
    full, leaves = starts + beats.beat_s * card.inhale_beats, starts + beats.beat_s * (card.inhale_beats + card.pause_beats)
    empty = leaves + beats.beat_s * (card.exhale_beats or 0.0)
    inside = (starts >= t_s[0]) & (empty <= t_s[-1])

    def way(values: Floats) -> float:
        travel = spread(values)
        if not inside.any() or travel == 0.0:
            return 0.0
        start, top, leave, end = (np.interp(at[inside], t_s, values) for at in (starts, full, leaves, empty))
        goes_with = float(np.mean(top - start + leave - end)) / (2.0 * travel)
        return float(np.sign(goes_with)) if abs(goes_with) >= GOES_WITH else 0.0

    return way
