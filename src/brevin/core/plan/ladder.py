"""The ladder a programme begins with: rungs of count cards, each a little more than the one before. Every card can be changed or deleted."""

from brevin.core.plan.card import parse
from brevin.core.plan.check import Check

RUNGS: tuple[tuple[int, str, tuple[str, ...]], ...] = (
    (1, "a first calm breath", ("2-0-4@66x3", "3-0-4@72x3")),
    (2, "longer out", ("3-0-5@76x3", "4-0-6@72x3")),
    (3, "long out", ("3-0-7@72x3", "4-0-8@72x3")),
    (4, "quick in, long out", ("2-0-8@80x3", "1-0-7@72x4")),
    (5, "as soon as you need it", ("0.5-0-8@80x4",)),
)
"""Rung, its name, its cards. Source: own."""
HOLD = (6, "up to the mouth", "2-0-6-2@60x3")
"""The same of the hold: two beats to bring the instrument up, six to keep it there, two to rest it. Source: own."""


def starter() -> list[tuple[int, str, Check]]:
    """The cards to begin with: rung, the rung's name, what is asked."""
    breaths = [(rung, title, Check(card=parse(text), position="seated")) for rung, title, texts in RUNGS for text in texts]
    rung, title, text = HOLD
    return [*breaths, (rung, title, Check(kind="hold", card=parse(text), position="seated", with_instrument=True, asks="easier"))]
