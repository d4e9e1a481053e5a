"""One breath as the formulas take it: its turns, traces, beats, card and rules, and how far each region went in it."""

import math
from dataclasses import dataclass
from functools import cached_property

from brevin.core.breath.breaths import BreathTurns
from brevin.core.breath.excursions import excursion, followed_to
from brevin.core.breath.turns import Turn
from brevin.core.kinds import REGIONS, Region
from brevin.core.kinematics.traces import Traces
from brevin.core.measure import NORMAL_90, Amount, NotMeasured, Value
from brevin.core.music.clicks import Beats
from brevin.core.plan.card import CountCard
from brevin.core.verdict.rules import Rules

STILL_BESIDE_PCT = 2.0  # percent of trunk: beside a belly that moves this far no chest keeps still
ON_FLANK = 0.2  # model error from which the chest is seen on the flank, where an arm is told apart by its place
TURNED_TIMES, TURNED_ERROR = 1.2, 0.2  # forward travel over what is seen of it from three quarters, and the share that may be wrong by; own
SINKS_PCT = 0.3  # percent of trunk: no shoulder goes down by this while breathing in


@dataclass(frozen=True)
class OneBreath:
    """Everything the formulas take: the breath's turns, the next one's start, the clip's traces, beats, card and rules; turned: whether it is seen
    from three quarters."""

    turns: BreathTurns
    next_start: Turn | None
    traces: Traces
    beats: Beats
    card: CountCard | None
    rules: Rules
    turned: bool = False

    def sized(self, region: Region) -> Value:
        """The same as ``moved``, with the width of what is not known of the turn. It is the same for both regions, so that a share of them goes without."""
        found = self.moved(region)
        if not self.turned or region == "shoulder" or isinstance(found, NotMeasured):
            return found
        return Amount(found.value, math.hypot(found.half_width, NORMAL_90 * TURNED_ERROR * found.value))

    def moved(self, region: Region) -> Value:
        """Signed excursion of a region, as large as it would be from the side; none where what was followed cannot have been the region."""
        return self._moved[region]

    @cached_property
    def _moved(self) -> dict[Region, Value]:
        """Every formula asks for them: worked out once."""
        return {region: self._move(region) for region in REGIONS}

    def _move(self, region: Region) -> Value:
        found = excursion(self.traces, self.turns, region)
        if self.turned and region != "shoulder" and isinstance(found, Amount):
            found = Amount(TURNED_TIMES * found.value, TURNED_TIMES * found.half_width)
        if region == "abdomen" or isinstance(found, NotMeasured):
            return found
        lost = _sinks(found) if region == "shoulder" else self._stands_still(found) or self._goes_its_own_way(found)
        return NotMeasured("region_unseen") if lost else found

    def least_chest(self, chest: float) -> float:
        """Below which the chest's interval does not reach, percent of trunk: one that is half a sleeve's may have gone farther out than seen, and not in."""
        return min(chest, 0.0) if self.traces.covered else -math.inf

    def _stands_still(self, chest: Amount) -> bool:
        """Whether an outline at the chest's heights keeps still while the belly breathes: an arm's or an instrument's, not the chest's."""
        abdomen = excursion(self.traces, self.turns, "abdomen")
        deep = isinstance(abdomen, Amount) and abdomen.value >= STILL_BESIDE_PCT
        return deep and self.traces.model["chest"] < ON_FLANK and abs(chest.value) < followed_to(self.traces, "chest")

    def _goes_its_own_way(self, chest: Amount) -> bool:
        """Whether what was followed as a covered chest goes in while the belly goes out, and on the whole not with it: an arm that lifts, no ribs that sink."""
        abdomen = excursion(self.traces, self.turns, "abdomen")
        return self.traces.covered >= 1.0 and isinstance(abdomen, Amount) and abdomen.value > 0.0 and chest.value + chest.half_width < 0.0


def _sinks(shoulder: Amount) -> bool:
    """Whether a shoulder goes down in an inhale by more than it can be wrong by: then something else was followed."""
    return shoulder.value + shoulder.half_width < -SINKS_PCT
