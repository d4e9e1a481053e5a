"""How large a breath is, and the student's own comfortable full breath that it is held against: bodies, clothes and cameras differ too much for any other."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from brevin.core.measure import NORMAL_90, Amount, Measure

LARGEST = 5  # breaths: their median is the full breath where no card asked for one
MEDIAN_OVER_MEAN = 1.25  # standard error of a median over that of a mean, of normal values


@dataclass(frozen=True)
class OwnBreaths:
    """Sizes of a student's breaths in other takes, % of trunk, in the same position, from the same view, with the instrument or without alike.

    reference: of checks that asked for a comfortable full breath; others: of any other check."""

    reference: tuple[Amount, ...] = ()
    others: tuple[Amount, ...] = ()


def own_full(known: OwnBreaths, here: Sequence[Amount]) -> Amount | None:
    """The student's own full breath, % of trunk: the median of the reference card's breaths, else of the five largest of all, those of this clip included.
    None where fewer are known: then nobody can say how full a breath is. Source: own."""
    if known.reference:
        return _median(known.reference)
    largest = sorted((*known.others, *here), key=lambda size: size.value)[-LARGEST:]
    return _median(largest) if len(largest) == LARGEST else None


def sizes_of(measures: Iterable[Measure]) -> tuple[Amount, ...]:
    """The sizes among measures, of breaths where it could be measured."""
    return tuple(m.amount for m in measures if m.key == "size_pct" and m.amount is not None)


def _median(sizes: Sequence[Amount]) -> Amount:
    values = np.array([size.value for size in sizes])
    apart = NORMAL_90 * MEDIAN_OVER_MEAN * float(values.std()) / np.sqrt(len(values))
    measured = float(np.median([size.half_width for size in sizes])) / np.sqrt(len(values))
    return Amount(float(np.median(values)), float(np.hypot(apart, measured)))
