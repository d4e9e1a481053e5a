"""What is known of each instrument before it is seen: from where its axis can be seen, which hands lie on it, and how its edges go.

Angles to level, + = the far end below. Source: own, after the playing positions that beginners are taught.
"""

from dataclasses import dataclass

from brevin.core.kinds import SIDE_VIEWS, Instrument, View
from brevin.core.pose import landmarks as lm

FORWARD: tuple[View, ...] = (*SIDE_VIEWS, "three-quarter")


@dataclass(frozen=True)
class Held:
    """views: from which the axis lies in the picture; hands: key points of the hands on it; reach_trunks: how far from the mouth the middle of an edge of it
    may lie, beside a child's trunk of 42 cm, and behind_trunks: how far behind it; within_deg: between which angles anybody holds it up, good or bad: what
    points elsewhere is something else; straight: whether it is one straight tube from the mouth on, so that its edges are looked for; flares_deg,
    flares_trunks: how far edges past the hands lean away from the axis, and lie beside it: a bell's sides, a slide's second tube; parted: at which share of the
    way to the hands its edges are parted in those before and those past them: a leadpipe ends where the hand is."""

    views: tuple[View, ...]
    hands: tuple[int, ...]
    reach_trunks: float
    within_deg: tuple[float, float]
    straight: bool = True
    behind_trunks: float = 0.05
    flares_deg: float = 5.0
    flares_trunks: float = 0.04
    parted: float = 1.0


DOWN, AHEAD = (15.0, 88.0), (-35.0, 48.0)

HELD: dict[Instrument, Held] = {
    "flute": Held(("front",), (lm.INDEX_R,), 1.6, (-45.0, 45.0), behind_trunks=0.3),
    "oboe": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 1.4, DOWN),
    "clarinet": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 1.5, DOWN),
    "alto_sax": Held(FORWARD, (lm.INDEX_R,), 1.6, DOWN, straight=False),
    "tenor_sax": Held(FORWARD, (lm.INDEX_R,), 1.6, DOWN, straight=False),
    "trumpet": Held(FORWARD, (lm.INDEX_R,), 1.2, AHEAD, flares_deg=15.0, flares_trunks=0.08),
    "cornet": Held(FORWARD, (lm.INDEX_R,), 1.2, AHEAD, flares_deg=15.0, flares_trunks=0.08),
    "trombone": Held(FORWARD, (lm.INDEX_R,), 2.6, AHEAD, flares_deg=8.0, flares_trunks=0.08),
    "horn": Held(FORWARD, (lm.INDEX_L,), 0.6, (-15.0, 65.0), parted=0.4),  # its leadpipe
}
"""Euphonium, baritone and tuba are wound from the mouth on: no straight way leads from there, and what is told of them is told by other lines."""

HANDS: dict[Instrument, tuple[int, ...]] = {
    **{instrument: held.hands for instrument, held in HELD.items()},
    "euphonium": (lm.INDEX_R,), "baritone": (lm.INDEX_R,), "tuba": (lm.INDEX_R,),
}  # fmt: skip
"""Key points of the hands that go with the instrument when it is raised."""
