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
    from the mouth the middle of an edge of it may lie, beside a child's trunk of 42 cm; straight: whether it is one straight tube from the mouth on, so that
    its edges are looked for."""

    views: tuple[View, ...]
    hands: tuple[int, ...]
    points_deg: float
    reach_trunks: float
    straight: bool = True


HELD: dict[Instrument, Held] = {
    "flute": Held(("front",), (lm.INDEX_R,), 5.0, 1.6),
    "oboe": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 45.0, 1.4),
    "clarinet": Held(FORWARD, (lm.INDEX_L, lm.INDEX_R), 50.0, 1.5),
    "alto_sax": Held(FORWARD, (lm.INDEX_R,), 60.0, 1.6, straight=False),
    "tenor_sax": Held(FORWARD, (lm.INDEX_R,), 60.0, 1.6, straight=False),
    "trumpet": Held(FORWARD, (lm.INDEX_R,), 10.0, 1.2),
    "cornet": Held(FORWARD, (lm.INDEX_R,), 10.0, 1.2),
    "trombone": Held(FORWARD, (lm.INDEX_R,), 12.0, 2.6),
}
"""Horn, euphonium, baritone and tuba are wound: no straight way leads from the mouth to a far end, and what is told of them is told by other lines."""

HANDS: dict[Instrument, tuple[int, ...]] = {
    **{instrument: held.hands for instrument, held in HELD.items()},
    "horn": (lm.INDEX_L,), "euphonium": (lm.INDEX_R,), "baritone": (lm.INDEX_R,), "tuba": (lm.INDEX_R,),
}  # fmt: skip
"""Key points of the hands that go with the instrument when it is raised."""
