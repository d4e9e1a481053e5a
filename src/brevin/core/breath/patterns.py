"""Which pattern an inhale has: the table of starting values, read from the top, the first row that fits."""

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import product
from typing import NamedTuple

from brevin.core.kinds import Pattern
from brevin.core.verdict.rules import Rules

LEAST_SUM_PCT = 1.0  # abdomen + chest below it has no share


@dataclass(frozen=True)
class Inhale:
    """abdomen, chest, shoulder: signed excursions, percent of trunk; lag_s: abdomen's half rise to chest's, None where one does not move."""

    abdomen: float
    chest: float
    shoulder: float | None
    lag_s: float | None


def abdominal_share(abdomen: float, chest: float) -> float | None:
    """abdomen / (abdomen + chest), signed, beyond 0 to 1 where they go opposite ways; None where the sum is under one percent of trunk."""
    total = abdomen + chest
    return abdomen / total if total >= LEAST_SUM_PCT else None


def pattern_of(inhale: Inhale, *, lag_half_width_s: float, rules: Rules) -> Pattern:
    """Name of the first row of the table that fits; ``unclear`` where none does."""
    a, c, s = inhale.abdomen, inhale.chest, inhale.shoulder or 0.0
    share = abdominal_share(a, c)
    lag_s = inhale.lag_s
    first_s = rules.limit("pattern.chest_first_s")
    chest_first = lag_s is not None and min(a, c) > 0 and lag_s < first_s and lag_s + lag_half_width_s < 0.0
    if a >= rules.limit("pattern.pushed_abdomen") and c <= rules.limit("pattern.pushed_chest"):
        return "pushed"
    if a <= rules.limit("pattern.paradoxical_abdomen") and c > 0:
        return "paradoxical"
    if lifted_by_shoulders(a, s, rules):
        return "chest_high"
    if abs(a) + abs(c) < rules.limit("pattern.shallow"):
        return "shallow"
    if share is None:
        return "unclear"
    if share < rules.limit("pattern.share_chest") or chest_first:
        return "chest_high"
    lifted = s > rules.limit("pattern.lift") and s > rules.limit("pattern.lift_share") * (a + c)
    if share < rules.limit("pattern.share_even") or lifted:
        return "low_then_lifted"
    return "low_then_wide" if share <= rules.limit("pattern.share_low") else "low"


def lifted_by_shoulders(abdomen: float, shoulder: float, rules: Rules) -> bool:
    """Whether the shoulders do it: they rise, and the abdomen hardly moves. It needs no chest, so it also serves where arms hide it."""
    return shoulder > rules.limit("pattern.high_shoulder") and abdomen < rules.limit("pattern.high_share") * shoulder


OPPOSED: tuple[Pattern, ...] = ("pushed", "paradoxical")
"""Patterns that rest on a sign: an interval that reaches over it names none."""


class Named(NamedTuple):
    """pattern: of the numbers as they stand, or unclear; beside: the other one that their intervals hold, None where they hold no other; stands, others: of
    one that is unclear for holding too many, the pattern of its numbers as they stand and those that its intervals hold beside it."""

    pattern: Pattern
    beside: Pattern | None = None
    stands: Pattern | None = None
    others: frozenset[Pattern] = frozenset()


NOT_SURE = Named("unclear")
SPANNED = 2  # patterns an interval may span and still be named
ALIKE = 2  # other breaths of the clip that are named as the numbers of one stand that by itself is unclear

CORNERS = (-0.7, 0.0, 0.7)  # of the half widths: the joint interval of independent errors is rounder than a box
CONTRARY: tuple[frozenset[Pattern], ...] = (frozenset(("low", "chest_high")),)
"""Patterns that say the contrary of each other: an interval that holds both names neither, however few it holds."""


def pattern_within(inhale: Inhale, half_widths: Inhale, *, rules: Rules, least_chest: float = -math.inf) -> Named:
    """The pattern, or ``unclear`` where the 90 % intervals span more than ``SPANNED``, or anything beside a pattern that rests on a sign. half_widths: those
    of the intervals in the same fields; least_chest: below which the chest's does not reach."""
    lag_half_width = half_widths.lag_s or 0.0
    named = pattern_of(inhale, lag_half_width_s=lag_half_width, rules=rules)
    at: dict[float, set[Pattern]] = {m: set() for m in CORNERS}  # by where the lag stands in its interval
    lags = CORNERS if named == "chest_high" else (0.0,)  # a lag that is not clear makes no high breath, and takes the name of none away
    for i, j, k, m in product(CORNERS, CORNERS, CORNERS, lags):
        moved = Inhale(
            abdomen=inhale.abdomen + i * half_widths.abdomen, chest=max(inhale.chest + j * half_widths.chest, least_chest),
            shoulder=None if inhale.shoulder is None else inhale.shoulder + k * (half_widths.shoulder or 0.0),
            lag_s=None if inhale.lag_s is None else inhale.lag_s + m * lag_half_width,
        )  # fmt: skip
        at[m].add(pattern_of(moved, lag_half_width_s=lag_half_width if m == 0.0 else 0.0, rules=rules))
    if named == "unclear" or any(pair <= set().union(*at.values()) for pair in CONTRARY):
        return NOT_SURE
    others = at[0.0] - {named}
    if len(others) >= (1 if named in OPPOSED else SPANNED):
        return Named("unclear", stands=named, others=frozenset(others - {"unclear"}))
    return Named(named, next(iter(others - {"unclear"}), None))


def as_the_others(breaths: Sequence[Named]) -> list[Named]:
    """The breaths of a clip, one that holds too many patterns named as its numbers stand where most of the others are named so, ``ALIKE`` at least. What
    makes an interval wide is nearly all the body, the clothes and the arms, which are the same in every breath of a clip: it is no less sure than they are.
    What is said beside theirs is said beside it, where its own intervals hold that."""
    sure: list[Pattern] = [one.pattern for one in breaths if one.pattern != "unclear"]
    most = usual(sure)
    if most is None or sure.count(most) < ALIKE:
        return list(breaths)
    beside = [one.beside for one in breaths if one.pattern == most and one.beside]
    return [Named(most, usual([b for b in beside if b in one.others]) or min(one.others, default=None)) if one.stands == most else one for one in breaths]


def usual(patterns: Sequence[Pattern]) -> Pattern | None:
    """What most breaths of a clip are, the earlier one of two that are as many; None of none."""
    return Counter(patterns).most_common(1)[0][0] if patterns else None
