"""The table of criteria: what is judged, in which band it is steady, beyond which it is worked on, and where it is drawn.

Each row turns a breath (or the posture) into a value with a band in the same unit. The numbers come from the method profile.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass

from brevin.core.plan.card import CountCard
from brevin.core.report import Breath, Posture, PostureValue
from brevin.core.verdict.profile import MethodProfile


@dataclass(frozen=True)
class Band:
    """Steady inside [steady_low, steady_high]; work beyond [work_low, work_high]; watch between. Infinite where a side is open."""

    steady_low: float = -math.inf
    steady_high: float = math.inf
    work_low: float = -math.inf
    work_high: float = math.inf


@dataclass(frozen=True)
class Asked:
    """What a breath is held against: the card, the beat's length in seconds (None without a grid), the programme's limits."""

    card: CountCard | None
    beat_s: float | None
    rules: MethodProfile


BandOf = Callable[[Breath, Asked], Band | None]


@dataclass(frozen=True)
class BreathCriterion:
    """One row. number: key of ``Breath``; lane: line of the breath score; views, positions: where it may be judged; span: turns its mark covers."""

    key: str
    number: str
    unit: str
    lane: str
    band: BandOf
    span: tuple[str, str] = ("inhale_start_s", "inhale_end_s")
    needs_card: bool = False
    lying: bool = True


@dataclass(frozen=True)
class PostureCriterion:
    """One row. number: key of ``Posture``."""

    key: str
    number: str
    unit: str
    band: Callable[[MethodProfile], Band]
    views: tuple[str, ...]


def _shoulders(breath: Breath, asked: Asked) -> Band:
    total = abs(breath.abdomen_amp or 0.0) + abs(breath.chest_amp or 0.0)
    limit = asked.rules.limit
    work = max(limit("shoulders_still.work"), limit("shoulders_still.work_share") * total)
    return Band(steady_high=limit("shoulders_still.steady"), work_high=work)


def _abdomen(breath: Breath, asked: Asked) -> Band:
    return Band(steady_low=asked.rules.limit("abdomen_leads.steady"), work_low=asked.rules.limit("abdomen_leads.work"))


def _length(beats: float | None, asked: Asked) -> Band | None:
    """A length against the card: the smaller of two tolerances, but never under the least time."""
    if beats is None or asked.beat_s is None:
        return None
    limit = asked.rules.limit
    near = max(min(limit("counts.steady_beats"), limit("counts.steady_share") * beats), limit("counts.least_s") / asked.beat_s)
    far = near * limit("counts.work_times")
    return Band(beats - near, beats + near, beats - far, beats + far)


def _start(breath: Breath, asked: Asked) -> Band:
    near, far = asked.rules.limit("with_count.steady"), asked.rules.limit("with_count.work")
    return Band(-near, near, -far, far)


def _full(breath: Breath, asked: Asked) -> Band | None:
    if asked.card is None or asked.card.inhale_beats <= 1.0:
        return None
    beats = asked.card.inhale_beats
    return Band(steady_low=asked.rules.limit("full_early.steady") * beats, work_low=asked.rules.limit("full_early.work") * beats)


def _even(breath: Breath, asked: Asked) -> Band | None:
    if asked.card is None or asked.card.inhale_beats <= 1.0:
        return None
    return Band(steady_high=asked.rules.limit("even_intake.steady"), work_high=asked.rules.limit("even_intake.work"))


def _even_out(breath: Breath, asked: Asked) -> Band:
    return Band(steady_high=asked.rules.limit("even_exhale.steady"), work_high=asked.rules.limit("even_exhale.work"))


def _pause(breath: Breath, asked: Asked) -> Band | None:
    if asked.card is None or asked.beat_s is None:
        return None
    near = max(asked.rules.limit("pause.steady_beats"), asked.rules.limit("pause.steady_s") / asked.beat_s)
    wanted = asked.card.pause_beats
    return Band(steady_high=wanted + near, work_high=wanted + near * asked.rules.limit("pause.work_times"))


def _inclination(rules: MethodProfile) -> Band:
    return Band(
        rules.limit("inclination.steady_low"), rules.limit("inclination.steady_high"),
        rules.limit("inclination.work_low"), rules.limit("inclination.work_high"),
    )  # fmt: skip


def _tilt(rules: MethodProfile) -> Band:
    near, far = rules.limit("shoulder_tilt.steady"), rules.limit("shoulder_tilt.work")
    return Band(-near, near, -far, far)


# Order is the order in which a fault is spoken of: what lies beneath comes first.
POSTURE: tuple[PostureCriterion, ...] = (
    PostureCriterion("trunk_inclination", "trunk_inclination_deg", "deg", _inclination, ("side-left", "side-right")),
    PostureCriterion("shoulder_tilt", "shoulder_tilt_deg", "deg", _tilt, ("front",)),
)

BREATH: tuple[BreathCriterion, ...] = (
    BreathCriterion("abdomen_leads", "abdominal_share", "of the breath", "chest", _abdomen, lying=False),
    BreathCriterion("shoulders_still", "shoulder_rise", "% of trunk", "shoulder", _shoulders),
    BreathCriterion("not_full_early", "full_at_beat", "beat", "count", _full, needs_card=True),
    BreathCriterion("with_count", "inhale_offset_beats", "beat", "count", _start, needs_card=True),
    BreathCriterion("inhale_counts", "inhale_beats", "beats", "count", lambda b, a: _length(a.card.inhale_beats if a.card else None, a), needs_card=True),
    BreathCriterion("pause", "pause_beats", "beat", "count", _pause, span=("inhale_end_s", "exhale_start_s"), needs_card=True),
    BreathCriterion(
        "exhale_counts", "exhale_beats", "beats", "count",
        lambda b, a: _length(a.card.exhale_beats if a.card else None, a), span=("exhale_start_s", "exhale_end_s"), needs_card=True,
    ),
    BreathCriterion("even_intake", "intake_unevenness", "of the breath", "count", _even, needs_card=True),
    BreathCriterion("even_exhale", "exhale_unevenness", "of the breath", "count", _even_out, span=("exhale_start_s", "exhale_end_s"), needs_card=True),
)  # fmt: skip

SAID_ONCE: dict[str, tuple[str, ...]] = {"not_full_early": ("pause", "even_intake", "inhale_counts")}
"""Where the first is not steady in a breath, the others are its consequence and carry no mark of their own there."""


def posture_value(posture: Posture, row: PostureCriterion) -> PostureValue | None:
    """The measured value a posture row judges."""
    value: PostureValue | None = getattr(posture, row.number)
    return value
