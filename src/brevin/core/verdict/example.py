"""A line drawn by example: from takes that a teacher sorted into fine and not fine, the limit that agrees best with them."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from brevin.core.errors import InvalidInput
from brevin.core.verdict.rules import LIMITS, CriterionKey

Fine = Literal["above", "below"]


@dataclass(frozen=True)
class Line:
    """A limit that one number is held against. fine: the side on which a take is fine; digits: after the point, of the limit that is proposed."""

    limit: str
    fine: Fine
    digits: int = 2


LINES: dict[CriterionKey, Line] = {
    "abdomen_leads": Line("abdomen_leads.steady", "above"),
    "shoulders_still": Line("shoulders_still.steady", "below", digits=1),
    "even_intake": Line("even_intake.steady", "below"),
    "even_exhale": Line("even_exhale.steady", "below"),
    "with_count": Line("with_count.steady", "below"),
}
"""Criteria whose steady side ends at one line, so that examples can draw it."""

EXAMPLES = 8  # takes that are sorted
LEAST_EXAMPLES = 2  # one on either side


@dataclass(frozen=True)
class Example:
    """A sorted take: the number that is judged (its size where the sign only tells the side), and what the teacher says of it."""

    take_id: str
    value: float
    fine: bool


@dataclass(frozen=True)
class Proposed:
    """value: of the limit; agrees: examples it calls as the teacher did; agrees_now: those the line in force calls so; misjudged: takes it calls otherwise."""

    value: float
    agrees: int
    agrees_now: int
    misjudged: tuple[str, ...]


def proposed(line: Line, examples: Sequence[Example], now: float) -> Proposed:
    """The line that agrees with most examples; of several the one in the widest gap between them, of those the nearest to the one in force. Source: own.

    Raises InvalidInput(few_examples) under two, or where all lie on one side: then nothing says where fine ends.
    """
    if len(examples) < LEAST_EXAMPLES or len({one.fine for one in examples}) < 2:
        raise InvalidInput("few_examples", wanted="some that are fine and some that are not")
    values = sorted({one.value for one in examples})
    margin = max(values[-1] - values[0], 10.0**-line.digits) / len(values)
    places = [values[0] - margin, *values, values[-1] + margin]
    between = [(0.5 * (low + high), high - low) for low, high in zip(places, places[1:], strict=False)]
    _, value = max(((_agree(line, examples, at), round(gap, 9), -abs(at - now)), at) for at, gap in between)
    kept = _round(line, value, examples)
    misjudged = tuple(one.take_id for one in examples if _fine(line, one.value, kept) != one.fine)
    return Proposed(kept, len(examples) - len(misjudged), _agree(line, examples, now), misjudged)


def _round(line: Line, value: float, examples: Sequence[Example]) -> float:
    """As few digits as the limit is written with, more where they would call an example otherwise."""
    wanted = _agree(line, examples, value)
    return next((short for more in range(4) if _agree(line, examples, short := round(value, line.digits + more)) >= wanted), value)


def _agree(line: Line, examples: Sequence[Example], at: float) -> int:
    return sum(_fine(line, one.value, at) == one.fine for one in examples)


def _fine(line: Line, value: float, at: float) -> bool:
    return value >= at if line.fine == "above" else value <= at


def spread(values: Sequence[float], now: float, skip: int = 0) -> list[int]:
    """Which takes to ask about: as many on either side of the line in force as there are, the nearest to it first, in the order of their numbers. skip: so
    many nearer ones were asked already."""
    order = np.argsort([abs(value - now) for value in values], kind="stable")
    chosen = order[skip : skip + EXAMPLES]
    return sorted((int(i) for i in chosen), key=lambda i: values[i])


def usual(criterion: CriterionKey) -> float:
    """The starting value of a criterion's line."""
    return LIMITS[LINES[criterion].limit].value
