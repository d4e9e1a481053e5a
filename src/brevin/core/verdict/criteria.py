"""The one table of criteria: what is judged, where it applies, in which band it is steady, beyond which it is worked on, and where it is drawn.

Each row judges one measure, breath by breath or for the whole clip. The numbers of its band come from the rules in force.
"""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from brevin.core.kinds import SIDE_VIEWS, CheckKind, Instrument, Lane, Position, TurnKind, View
from brevin.core.measure import Amount
from brevin.core.plan.card import CountCard
from brevin.core.plan.check import Check
from brevin.core.verdict.rules import CriterionKey, Rules


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


@dataclass(frozen=True)
class Where:
    """Where a row applies; None = everywhere. views: from which it can be read; card: what a card must ask, None = no card needed;
    two_sides: only where the check asks for both sides on purpose."""

    views: tuple[View, ...] | None = None
    positions: tuple[Position, ...] | None = None
    instruments: tuple[Instrument, ...] | None = None
    kinds: tuple[CheckKind, ...] = ("counted_breathing", "drill")
    card: Callable[[CountCard], bool] | None = None
    two_sides: bool = False


@dataclass(frozen=True)
class Criterion:
    """One row. measure: the key it judges; area: what it is part of; lane: line of the breath score; span: turns its mark covers, None for a row of the
    whole clip; unless: a row whose fault takes this one's with it, so that one fault is said once."""

    key: CriterionKey
    measure: str
    area: Literal["breath", "posture"]
    unit: str
    band: Callable[[Amounts, Asked], Band | None]
    where: Where
    lane: Lane = "count"
    span: tuple[TurnKind, TurnKind] | None = ("inhale_start", "inhale_end")
    unless: CriterionKey | None = None


def _size(amounts: Amounts, key: str) -> float:
    """Size of a movement, whatever its sign; 0 where it was not measured."""
    return abs(amounts[key].value) if key in amounts else 0.0


def total_pct(amounts: Amounts) -> float:
    """How far belly and chest moved together, percent of trunk, whatever their signs."""
    return _size(amounts, "abdomen_amp") + _size(amounts, "chest_amp")


def _shoulders(amounts: Amounts, asked: Asked) -> Band:
    total = total_pct(amounts)
    limit = asked.rules.limit
    work = max(limit("shoulders_still.work"), min(limit("shoulders_still.work_share") * total, limit("shoulders_still.work_most")))
    steady = limit("shoulders_still.steady")
    return Band(steady_low=-steady, steady_high=steady, work_high=work)  # a rise that may be far under none may as well be far over it


CHEST_FIRST_SHARE = 0.01  # of the breath: how far under its limits a share is put whose chest was first


def _abdomen(amounts: Amounts, asked: Asked) -> Band:
    """A share of at least the limit, together or abdomen first: a chest that is clearly first is a fault whatever the share. Over 1 the chest sinks."""
    steady, work = asked.rules.limit("abdomen_leads.steady"), asked.rules.limit("abdomen_leads.work")
    share, lag = amounts.get("abdominal_share"), amounts.get("chest_lag_s")
    if (
        share is not None
        and lag is not None
        and 0.0 < share.value < 1.0
        and lag.value < asked.rules.limit("pattern.chest_first_s")
        and lag.value + lag.half_width < 0.0
    ):
        beyond = share.value + share.half_width + CHEST_FIRST_SHARE
        return Band(max(steady, beyond), max(1.0, beyond), max(work, beyond))
    return Band(steady_low=steady, steady_high=1.0, work_low=work)


def _length(beats: float | None, asked: Asked) -> Band | None:
    """A length against the card: the smaller of two tolerances, but never under the least time."""
    if beats is None or asked.beat_s is None:
        return None
    limit = asked.rules.limit
    near = max(min(limit("counts.steady_beats"), limit("counts.steady_share") * beats), limit("counts.least_s") / asked.beat_s)
    far = near * limit("counts.work_times")
    return Band(beats - near, beats + near, beats - far, beats + far)


def _real(amounts: Amounts, asked: Asked) -> Band:
    """Either region going in is a fault by name: there is nothing between."""
    sinks, drawn_in = -asked.rules.limit("pattern.pushed_chest"), asked.rules.limit("pattern.paradoxical_abdomen")
    return Band(drawn_in, sinks, drawn_in, sinks)


def _start(amounts: Amounts, asked: Asked) -> Band:
    near, far = asked.rules.limit("with_count.steady"), asked.rules.limit("with_count.work")
    return Band(-near, near, -far, far)


def _full_size(amounts: Amounts, asked: Asked) -> Band:
    """Shares of the student's own full breath, widened by what that one is sure to; where it is not known a breath can only be small for anybody."""
    own, limit = asked.own_full, asked.rules.limit
    if own is None:
        return Band(steady_low=limit("pattern.shallow"))
    return Band(steady_low=limit("full_breath.steady") * (own.value + own.half_width), work_low=limit("full_breath.work") * (own.value - own.half_width))


def _full(amounts: Amounts, asked: Asked) -> Band | None:
    if asked.card is None:
        return None
    beats = asked.card.inhale_beats
    return Band(steady_low=asked.rules.limit("full_early.steady") * beats, work_low=asked.rules.limit("full_early.work") * beats)


def _even(amounts: Amounts, asked: Asked) -> Band:
    return Band(steady_high=asked.rules.limit("even_intake.steady"), work_high=asked.rules.limit("even_intake.work"))


def _even_out(amounts: Amounts, asked: Asked) -> Band:
    return Band(steady_high=asked.rules.limit("even_exhale.steady"), work_high=asked.rules.limit("even_exhale.work"))


def _pause(amounts: Amounts, asked: Asked) -> Band | None:
    if asked.card is None or asked.beat_s is None:
        return None
    near = max(asked.rules.limit("pause.steady_beats"), asked.rules.limit("pause.steady_s") / asked.beat_s)
    wanted = asked.card.pause_beats
    return Band(steady_high=wanted + near, work_high=wanted + near * asked.rules.limit("pause.work_times"))


def _apart(amounts: Amounts, asked: Asked) -> Band:
    """Any difference that is clearly one in the asked direction is enough: both sides can be done."""
    return Band(steady_low=0.0, work_low=0.0)


def _inclination(amounts: Amounts, asked: Asked) -> Band:
    limit = asked.rules.limit
    return Band(limit("inclination.steady_low"), limit("inclination.steady_high"), limit("inclination.work_low"), limit("inclination.work_high"))


def _tilt(amounts: Amounts, asked: Asked) -> Band:
    near, far = asked.rules.limit("shoulder_tilt.steady"), asked.rules.limit("shoulder_tilt.work")
    return Band(-near, near, -far, far)


def _inhale_length(amounts: Amounts, asked: Asked) -> Band | None:
    return _length(asked.card.inhale_beats if asked.card else None, asked)


def _exhale_length(amounts: Amounts, asked: Asked) -> Band | None:
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


LONG_INHALE_BEATS = 1.0  # inhales over one beat only: a quick one has no evenness that could be seen
UPRIGHT: tuple[Position, ...] = ("seated", "standing")
SEEN_MOVING: tuple[View, ...] = (*SIDE_VIEWS, "three-quarter")
STILL = Where(views=SIDE_VIEWS)  # half turned away, shoulders were read 4 % of trunk too small: not judged from there
LEADS = Where(views=SEEN_MOVING, positions=UPRIGHT)  # lying down the belly moves by itself: shown, not judged
COUNTED = Where(views=SEEN_MOVING, card=lambda card: True)
SPREAD = Where(views=SEEN_MOVING, card=lambda card: card.inhale_beats > LONG_INHALE_BEATS)
CLOSED = Where(views=SEEN_MOVING, card=lambda card: card.exhale_beats is not None)
LOOKED_AT: tuple[CheckKind, ...] = ("counted_breathing", "posture", "hold", "drill", "tone")

# Order is the order in which a fault is spoken of: what lies beneath comes first.
CRITERIA: tuple[Criterion, ...] = (
    Criterion("trunk_inclination", "trunk_inclination_deg", "posture", "deg", _inclination, Where(SIDE_VIEWS, UPRIGHT, kinds=LOOKED_AT), span=None),
    Criterion("shoulder_tilt", "shoulder_tilt_deg", "posture", "deg", _tilt, Where(("front",), UPRIGHT, kinds=LOOKED_AT), span=None),
    Criterion("real_breath", "against_pct", "breath", "% of trunk", _real, LEADS, "abdomen"),
    Criterion("abdomen_leads", "abdominal_share", "breath", "of the breath", _abdomen, LEADS, "chest", unless="real_breath"),
    Criterion("shoulders_still", "shoulder_rise", "breath", "% of trunk", _shoulders, STILL, "shoulder"),
    Criterion("full_breath", "size_pct", "breath", "% of trunk", _full_size, Where(views=SEEN_MOVING), "abdomen"),
    Criterion("not_full_early", "full_at_beat", "breath", "beat", _full, SPREAD),
    Criterion("with_count", "inhale_offset_beats", "breath", "beat", _start, COUNTED),
    Criterion("inhale_counts", "inhale_beats", "breath", "beats", _inhale_length, COUNTED, unless="not_full_early"),
    Criterion("pause", "pause_beats", "breath", "beat", _pause, COUNTED, span=("inhale_end", "exhale_start"), unless="not_full_early"),
    Criterion("exhale_with_count", "exhale_offset_beats", "breath", "beat", _start, CLOSED, span=("exhale_start", "exhale_end"), unless="pause"),
    Criterion("exhale_counts", "exhale_beats", "breath", "beats", _exhale_length, CLOSED, span=("exhale_start", "exhale_end")),
    Criterion("even_intake", "intake_unevenness", "breath", "of the breath", _even, SPREAD, unless="not_full_early"),
    Criterion("even_exhale", "exhale_unevenness", "breath", "of the breath", _even_out, COUNTED, span=("exhale_start", "exhale_end")),
    Criterion("both_sides", "both_sides", "breath", "of the breath", _apart, Where(views=SEEN_MOVING, two_sides=True), span=None),
)


def asked_for(row: Criterion, asked: Asked, *, view: View | None, position: Position | None) -> bool:
    """Whether a check asks for a row at all: then it has a verdict, if only that it is unreadable. Breath is asked of every view; posture of those that the
    check names, or that the clip was filmed from."""
    where, check, rules = row.where, asked.check, asked.rules
    if row.key in rules.off or row.key in rules.exempt or check.kind not in where.kinds:
        return False
    if where.two_sides and check.contrast == "none":
        return False
    if where.instruments is not None and check.instrument not in where.instruments:
        return False
    if where.positions is not None and position is not None and position not in where.positions:
        return False
    if where.card is not None and (check.card is None or not where.card(check.card)):
        return False
    if row.area == "breath" or where.views is None:
        return True
    return view in where.views if check.view == "auto" else any(served.startswith(check.view) for served in where.views)


GOES_WITH = {"abdominal_share": ("chest_lag_s",), "inhale_offset_beats": ("next_offset_beats",)}
"""Numbers that a row takes beside its own: exempt with it."""


def exempt_measures(rules: Rules) -> frozenset[str]:
    """Measures that only exempt criteria judge: they are not measured either."""
    kept = {row.measure for row in CRITERIA if row.key not in rules.exempt}
    dropped = frozenset(row.measure for row in CRITERIA if row.key in rules.exempt) - kept
    return dropped | {other for measure in dropped for other in GOES_WITH.get(measure, ())}
