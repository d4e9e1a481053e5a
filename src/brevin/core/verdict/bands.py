"""The bands of the criteria: from the rules in force to the numbers between which a value is steady, and beyond which it is worked on."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from brevin.core.measure import Amount
from brevin.core.plan.card import CountCard
from brevin.core.plan.check import Check
from brevin.core.verdict.rules import Rules


@dataclass(frozen=True)
class Band:
    """Steady inside [steady_low, steady_high]; work beyond [work_low, work_high]; watch between. Infinite where a side is open."""

    steady_low: float = -math.inf
    steady_high: float = math.inf
    work_low: float = -math.inf
    work_high: float = math.inf


@dataclass(frozen=True)
class Asked:
    """What a clip is held against: the check, the beat's length in seconds (None without a grid), the rules in force, the student's
    own full breath in percent of trunk (None where it is not known)."""

    check: Check
    beat_s: float | None
    rules: Rules
    own_full: Amount | None = None

    @property
    def card(self) -> CountCard | None:
        """The check's count card."""
        return self.check.card


Amounts = Mapping[str, Amount]
"""What was measured of one breath, or of the clip, by key."""


def _size(amounts: Amounts, key: str) -> float:
    """Size of a movement, whatever its sign; 0 where it was not measured."""
    return abs(amounts[key].value) if key in amounts else 0.0


def total_pct(amounts: Amounts) -> float:
    """How far belly and chest moved together, percent of trunk, whatever their signs."""
    return _size(amounts, "abdomen_amp") + _size(amounts, "chest_amp")


def shoulders(amounts: Amounts, asked: Asked) -> Band:
    """How far shoulders may rise: more in a full breath, up to a limit."""
    total = total_pct(amounts)
    limit = asked.rules.limit
    work = max(limit("shoulders_still.work"), min(limit("shoulders_still.work_share") * total, limit("shoulders_still.work_most")))
    steady = limit("shoulders_still.steady")
    return Band(steady_low=-steady, steady_high=steady, work_high=work)  # a rise that may be far under none may as well be far over it


CHEST_FIRST_SHARE = 0.01  # of the breath: how far under its limits a share is put whose chest was first


def abdomen(amounts: Amounts, asked: Asked) -> Band:
    """A share of at least the limit, together or abdomen first: a chest that is clearly first is a fault whatever the share. Over 1 the chest sinks."""
    steady, work = asked.rules.limit("abdomen_leads.steady"), asked.rules.limit("abdomen_leads.work")
    share, lag = amounts.get("abdominal_share"), amounts.get("chest_lag_s")
    plain = Band(steady_low=steady, steady_high=1.0, work_low=work)
    if share is None or lag is None or not 0.0 < share.value < 1.0:
        return plain
    if lag.value >= asked.rules.limit("pattern.chest_first_s") or lag.value + lag.half_width >= 0.0:
        return plain
    beyond = share.value + share.half_width + CHEST_FIRST_SHARE
    return Band(max(steady, beyond), max(1.0, beyond), max(work, beyond))


def _length(beats: float | None, asked: Asked) -> Band | None:
    """A length against the card: the smaller of two tolerances, but never under the least time."""
    if beats is None or asked.beat_s is None:
        return None
    limit = asked.rules.limit
    near = max(min(limit("counts.steady_beats"), limit("counts.steady_share") * beats), limit("counts.least_s") / asked.beat_s)
    far = near * limit("counts.work_times")
    return Band(beats - near, beats + near, beats - far, beats + far)


def real(amounts: Amounts, asked: Asked) -> Band:
    """Either region going in is a fault by name: there is nothing between."""
    sinks, drawn_in = -asked.rules.limit("pattern.pushed_chest"), asked.rules.limit("pattern.paradoxical_abdomen")
    return Band(drawn_in, sinks, drawn_in, sinks)


def start(amounts: Amounts, asked: Asked) -> Band:
    """How far a start may lie off the card's own beat."""
    near, far = asked.rules.limit("with_count.steady"), asked.rules.limit("with_count.work")
    return Band(-near, near, -far, far)


def full_size(amounts: Amounts, asked: Asked) -> Band:
    """Shares of the student's own full breath, widened by what that one is sure to; where it is not known a breath can only be small for anybody."""
    own, limit = asked.own_full, asked.rules.limit
    if own is None:
        return Band(steady_low=limit("pattern.shallow"))
    return Band(steady_low=limit("full_breath.steady") * (own.value + own.half_width), work_low=limit("full_breath.work") * (own.value - own.half_width))


def full(amounts: Amounts, asked: Asked) -> Band | None:
    """From which beat on nine tenths of the breath may be in."""
    if asked.card is None:
        return None
    beats = asked.card.inhale_beats
    return Band(steady_low=asked.rules.limit("full_early.steady") * beats, work_low=asked.rules.limit("full_early.work") * beats)


def even(amounts: Amounts, asked: Asked) -> Band:
    """How far the fill may be from an even one."""
    return Band(steady_high=asked.rules.limit("even_intake.steady"), work_high=asked.rules.limit("even_intake.work"))


def even_out(amounts: Amounts, asked: Asked) -> Band:
    """How far the emptying may be from the school's shape."""
    return Band(steady_high=asked.rules.limit("even_exhale.steady"), work_high=asked.rules.limit("even_exhale.work"))


def pause(amounts: Amounts, asked: Asked) -> Band | None:
    """How long it may stand still between in and out."""
    if asked.card is None or asked.beat_s is None:
        return None
    near = max(asked.rules.limit("pause.steady_beats"), asked.rules.limit("pause.steady_s") / asked.beat_s)
    wanted = asked.card.pause_beats
    return Band(steady_high=wanted + near, work_high=wanted + near * asked.rules.limit("pause.work_times"))


def apart(amounts: Amounts, asked: Asked) -> Band:
    """Any difference that is clearly one in the asked direction is enough: both sides can be done."""
    return Band(steady_low=0.0, work_low=0.0)


def feet(amounts: Amounts, asked: Asked) -> Band:
    """For how much of the time the feet are flat."""
    return Band(steady_low=asked.rules.limit("feet_flat.steady"), work_low=asked.rules.limit("feet_flat.work"))


def inclination(amounts: Amounts, asked: Asked) -> Band:
    """How far the trunk may lean, back and forward."""
    limit = asked.rules.limit
    return Band(limit("inclination.steady_low"), limit("inclination.steady_high"), limit("inclination.work_low"), limit("inclination.work_high"))


def tilt(amounts: Amounts, asked: Asked) -> Band:
    """How far the shoulder line may be off level."""
    return _either_way("shoulder_tilt", asked)


def head_level(amounts: Amounts, asked: Asked) -> Band:
    """How far the head may be tilted to either side."""
    return _either_way("head_level", asked)


def head_with_flute(amounts: Amounts, asked: Asked) -> Band:
    """How far the head may be tilted against the flute's own line."""
    return _either_way("head_with_flute", asked)


def _either_way(limits: str, asked: Asked) -> Band:
    near, far = asked.rules.limit(f"{limits}.steady"), asked.rules.limit(f"{limits}.work")
    return Band(-near, near, -far, far)


def still(amounts: Amounts, asked: Asked) -> Band:
    """How far head and shoulders may wander."""
    return Band(steady_high=asked.rules.limit("body_still.steady"), work_high=asked.rules.limit("body_still.work"))


def sag(amounts: Amounts, asked: Asked) -> Band:
    """How far the trunk may sink, back and forward."""
    return _either_way("tall", asked)


def rounding(amounts: Amounts, asked: Asked) -> Band:
    """How much rounder the back may get; that it gets longer is no fault."""
    return Band(steady_high=asked.rules.limit("rounding.steady"), work_high=asked.rules.limit("rounding.work"))


def head(amounts: Amounts, asked: Asked) -> Band:
    """How far the head may be ahead of the shoulders."""
    return Band(steady_high=asked.rules.limit("head_forward.steady"), work_high=asked.rules.limit("head_forward.work"))


def inhale_length(amounts: Amounts, asked: Asked) -> Band | None:
    """How long the inhale may last."""
    return _length(asked.card.inhale_beats if asked.card else None, asked)


def exhale_length(amounts: Amounts, asked: Asked) -> Band | None:
    """Longer tolerances than an inhale's; too long counts only where the next inhale comes late."""
    beats = asked.card.exhale_beats if asked.card else None
    if beats is None:
        return None
    limit = asked.rules.limit
    near = max(limit("exhale_counts.steady_beats"), limit("exhale_counts.steady_share") * beats)
    far = max(limit("exhale_counts.work_beats"), limit("exhale_counts.work_share") * beats)
    next_late = amounts.get("next_offset_beats")
    delays = next_late is not None and next_late.value > limit("with_count.steady")
    return Band(beats - near, beats + near if delays else math.inf, beats - far, beats + far if delays else math.inf)


def axis_level(amounts: Amounts, asked: Asked) -> Band | None:
    """How far the far end may be above (under nought) or below level, by instrument."""
    return _between(f"axis_level.{asked.check.instrument}", "axis_level.beyond", asked)


def axis_to_trunk(amounts: Amounts, asked: Asked) -> Band | None:
    """How far the far end may stand off the body, by instrument."""
    return _between(f"axis_to_trunk.{asked.check.instrument}", "axis_to_trunk.beyond", asked)


def arms_stay_up(amounts: Amounts, asked: Asked) -> Band:
    """How far the far end may sink from beginning to end; that it rises is no fault."""
    return Band(steady_high=asked.rules.limit("arms_stay_up.steady"), work_high=asked.rules.limit("arms_stay_up.work"))


def elbow(amounts: Amounts, asked: Asked) -> Band | None:
    """How far an elbow may stand off the body: the valves' limits for trumpet and cornet, else the woodwinds'."""
    family = "brass" if asked.check.instrument in ("trumpet", "cornet") else "wood"
    return _between(f"elbow.{family}", "elbow.beyond", asked)


def hands_in_order(amounts: Amounts, asked: Asked) -> Band:
    """How much further from the mouth the right hand is."""
    return Band(steady_low=asked.rules.limit("hands_in_order.steady"), work_low=asked.rules.limit("hands_in_order.work"))


def wrist(amounts: Amounts, asked: Asked) -> Band:
    """How far a wrist may be bent."""
    return Band(steady_high=asked.rules.limit("wrist.steady"), work_high=asked.rules.limit("wrist.work"))


def head_travel(amounts: Amounts, asked: Asked) -> Band:
    """How far the head may go to meet the instrument; back is no fault."""
    return Band(steady_high=asked.rules.limit("head_travel.steady"), work_high=asked.rules.limit("head_travel.work"))


def raise_spread(amounts: Amounts, asked: Asked) -> Band:
    """How far apart the raises may land."""
    return Band(steady_high=asked.rules.limit("raise_spread.steady"), work_high=asked.rules.limit("raise_spread.work"))


def _between(name: str, beyond: str, asked: Asked) -> Band:
    low, high, more = asked.rules.limit(f"{name}.low"), asked.rules.limit(f"{name}.high"), asked.rules.limit(beyond)
    return Band(low, high, low - more, high + more)
