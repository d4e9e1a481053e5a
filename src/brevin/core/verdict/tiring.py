"""What sinks over a lesson: a take beside the first one of the same sitting, like with like. Told, not judged: a rest is the remedy, not a cue."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from brevin.core.kinds import Instrument
from brevin.core.measure import Amount
from brevin.core.verdict.criteria import HELD_UP
from brevin.core.verdict.rules import CriterionKey, Rules

MEASURES: dict[str, CriterionKey] = {"trunk_inclination_deg": "keeps_tall", "instrument_axis_deg": "arms_stay_up"}
"""What is held beside each other, and the criterion whose limit in a clip says how much is too much."""
LIMITS_OF = {"keeps_tall": "tall.steady", "arms_stay_up": "arms_stay_up.steady"}
WORDS = {
    ("trunk_inclination_deg", True): "trunk {by:.0f}° further forward", ("trunk_inclination_deg", False): "trunk {by:.0f}° further back",
    ("instrument_axis_deg", True): "far end {by:.0f}° lower",
}  # fmt: skip


@dataclass(frozen=True)
class Change:
    """key: of the measure; change: now less then, degrees; half_width: of its 90 % interval."""

    key: str
    change: float
    half_width: float


def changes(first: Mapping[str, Amount], now: Mapping[str, Amount], instrument: Instrument, rules: Rules) -> list[Change]:
    """What is further off than a clip's own limit allows, and clearly so: its whole interval on one side of nothing. What a student is exempt from, or the
    programme has switched off, is not held beside anything. Source: own."""
    found = []
    for key, criterion in MEASURES.items():
        held_up = key != "instrument_axis_deg" or instrument in (HELD_UP.instruments or ())
        if key not in first or key not in now or not held_up or criterion in rules.off or criterion in rules.exempt:
            continue
        change = now[key].value - first[key].value
        half_width = math.hypot(now[key].half_width, first[key].half_width)
        if abs(change) > max(rules.limit(LIMITS_OF[criterion]), half_width) and (key, change > 0) in WORDS:
            found.append(Change(key, change, half_width))
    return found


def words(change: Change) -> str:
    """The change as it is said."""
    return WORDS[change.key, change.change > 0].format(by=abs(change.change))
