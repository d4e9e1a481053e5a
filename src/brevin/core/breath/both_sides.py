"""Both sides on purpose: the first half of a card's breaths is breathed the other way, the second half as it should be, so that the difference is felt.

Only the second half is judged by the usual rows; what is told of both is their difference, against what breaths of one side differ by among themselves.
"""

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from brevin.core.kinds import Contrast
from brevin.core.measure import NORMAL_90, Amount, Measure, NotMeasured, Value, of_key
from brevin.core.plan.check import Check
from brevin.core.report import Breath

TOLD_BY: dict[Contrast, tuple[str, float]] = {
    "high_low": ("abdominal_share", 1.0),
    "slumped_tall": ("size_pct", 1.0),
    "slack_slow": ("exhale_unevenness", -1.0),
}
"""The number of each breath that tells the two sides apart, + where the second side is to have more of it. A pinched breath is told by ear."""
RELATIVE = ("size_pct",)
"""Numbers whose difference is told as a share of the second side's."""


def marked(check: Check, breaths: Sequence[Breath]) -> list[Breath]:
    """The breaths of the other side say so: by their place on the card, or as they are counted where no beat tells. A card without two sides has none."""
    first_half = check.card.cycles // 2 if check.card is not None and check.contrast != "none" else 0
    places = [i if breath.card_index is None else breath.card_index for i, breath in enumerate(breaths)]
    return [replace(breath, on_purpose=place < first_half) for place, breath in zip(places, breaths, strict=True)]


def other_side(breaths: Sequence[Breath]) -> frozenset[int]:
    """The places of the breaths that were the other side."""
    return frozenset(i for i, breath in enumerate(breaths) if breath.on_purpose)


def difference(check: Check, measures: Sequence[Measure], other: frozenset[int]) -> list[Measure]:
    """The measure ``both_sides`` of a clip whose card has two; none of one that has not."""
    return [Measure("both_sides", _difference(check.contrast, measures, other))] if check.contrast != "none" else []


def _difference(contrast: Contrast, measures: Sequence[Measure], other: frozenset[int]) -> Value:
    """Mean of the second side less mean of the first, in the direction that is asked. Half width: of both means."""
    if contrast not in TOLD_BY:
        return NotMeasured("by_ear")
    key, sign = TOLD_BY[contrast]
    told = [(m.breath in other, m.amount) for m in of_key(measures, key) if m.amount is not None]
    first, second = ([amount for is_first, amount in told if is_first == side] for side in (True, False))
    if not first or not second:
        return NotMeasured("one_side_only")
    (wrong, wrong_half), (right, right_half) = _mean(first), _mean(second)
    unit = max(abs(right), abs(wrong), 1e-9) if key in RELATIVE else 1.0
    return Amount(sign * (right - wrong) / unit, math.hypot(wrong_half, right_half) / unit)


def _mean(amounts: Sequence[Amount]) -> tuple[float, float]:
    """Mean and half width: of how unsure each is and of how they differ among themselves, whichever is more."""
    values = np.array([amount.value for amount in amounts])
    unsure = float(np.sqrt(np.mean([amount.half_width**2 for amount in amounts]) / len(values)))
    spread = NORMAL_90 * float(values.std(ddof=1)) / math.sqrt(len(values)) if len(values) > 1 else 0.0
    return float(values.mean()), max(unsure, spread)
