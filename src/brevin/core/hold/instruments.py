"""What is known of each instrument before it is seen: from where its axis can be seen, which hands lie on it, and about where it points.

Angles to level, + = the far end below. Source: own, after the playing positions that beginners are taught.
"""

from dataclasses import dataclass

from brevin.core.kinds import SIDE_VIEWS, Instrument, View
from brevin.core.pose import landmarks as lm

FORWARD: tuple[View, ...] = (*SIDE_VIEWS, "three-quarter")


@dataclass(frozen=True)
class Held:
    """views: from which the axis lies in the picture; hands: key points of the hands on it; points_deg: about where its far end points; reach_trunks: how far
    from the mouth the middle of an edge of it may lie, beside a child's trunk of 42 cm; within_deg: between which angles anybody holds it up, good or bad: what
    points elsewhere is something else; straight: whether it is one straight tube from the mouth on, so that its edges are looked for."""

    views: tuple[View, ...]
    hands: tuple[int, ...]
    points_deg: float
    reach_trunks: float
    within_deg: tuple[float, float]
    straight: bool = True


DOWN, AHEAD = (15.0, 88.0), (-35.0, 48.0)

HELD: dict[Instrument, Held] = {
    "flute": Held(("front",), (lm.INDEX_R,), 5.0, 1.6, (-45.0, 45.0)),
    "oboe": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 45.0, 1.4, DOWN),
    "clarinet": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 50.0, 1.5, DOWN),
    "alto_sax": Held(FORWARD, (lm.INDEX_R,), 60.0, 1.6, DOWN, straight=False),
    "tenor_sax": Held(FORWARD, (lm.INDEX_R,), 60.0, 1.6, DOWN, straight=False),
    "trumpet": Held(FORWARD, (lm.INDEX_R,), 10.0, 1.2, AHEAD),
    "cornet": Held(FORWARD, (lm.INDEX_R,), 10.0, 1.2, AHEAD),
    "trombone": Held(FORWARD, (lm.INDEX_R,), 12.0, 2.6, AHEAD),
}
"""Horn, euphonium, baritone and tuba are wound: no straight way leads from the mouth to a far end, and what is told of them is told by other lines."""

HANDS: dict[Instrument, tuple[int, ...]] = {
    **{instrument: held.hands for instrument, held in HELD.items()},
    "horn": (lm.INDEX_L,), "euphonium": (lm.INDEX_R,), "baritone": (lm.INDEX_R,), "tuba": (lm.INDEX_R,),
}  # fmt: skip
"""Key points of the hands that go with the instrument when it is raised."""
