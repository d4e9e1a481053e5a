"""Rules in layers: method, programme, instrument, student, card. Starting values stand in ``LIMITS``; a layer changes any of them by name."""

import hashlib
import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, get_args

from brevin.core.errors import InvalidInput
from brevin.core.kinds import IMPORTANCE, Importance

CriterionKey = Literal[
    "feet_flat", "trunk_inclination", "keeps_tall", "back_rounding", "head_forward", "shoulder_tilt", "head_level", "body_still",
    "real_breath", "abdomen_leads", "shoulders_still", "full_breath", "axis_level", "axis_to_trunk", "head_with_flute", "arms_stay_up",
    "hands_in_order", "elbow_left", "elbow_right", "wrist_left", "wrist_right", "head_travel", "raise_spread", "not_full_early", "with_count",
    "inhale_counts", "pause", "exhale_with_count", "exhale_counts", "even_intake", "even_exhale", "both_sides",
]  # fmt: skip
CRITERION_KEYS: tuple[CriterionKey, ...] = get_args(CriterionKey)
LayerName = Literal["method", "programme", "instrument", "student", "card"]


@dataclass(frozen=True)
class Limit:
    """One number of the method. unit: as written beside it; source: author and year, or own."""

    value: float
    unit: str
    source: str
    means: str


HOLDS: tuple[tuple[str, float, float, str], ...] = (
    ("axis_level.flute", -15.0, 15.0, "foot end above or below level"),
    ("axis_level.trumpet", 0.0, 25.0, "bell below level"),
    ("axis_level.cornet", 0.0, 25.0, "bell below level"),
    ("axis_level.trombone", 0.0, 30.0, "slide below level"),
    ("axis_level.horn", 10.0, 35.0, "leadpipe below level"),
    ("axis_to_trunk.clarinet", 30.0, 45.0, "off the trunk"),
    ("axis_to_trunk.oboe", 35.0, 50.0, "off the trunk"),
    ("elbow.wood", 15.0, 45.0, "elbow off the body, woodwinds"),
    ("elbow.brass", 20.0, 45.0, "elbow off the body, trumpet and cornet"),
)
"""Where hands and instrument are steady: name, from, to, meaning; degrees. Source: own."""

LIMITS: dict[str, Limit] = {
    "pattern.pushed_abdomen": Limit(1.0, "% of trunk", "own", "belly pushed out from here"),
    "pattern.pushed_chest": Limit(-0.3, "% of trunk", "own", "while the ribs sink by this"),
    "pattern.paradoxical_abdomen": Limit(-0.5, "% of trunk", "own", "belly goes in while the chest rises"),
    "pattern.high_shoulder": Limit(2.0, "% of trunk", "own", "shoulder rise over this is a high breath"),
    "pattern.high_share": Limit(0.5, "share", "own", "where the abdomen moves less than this share of it"),
    "pattern.shallow": Limit(2.0, "% of trunk", "own", "abdomen and chest together under this are a small breath"),
    "pattern.share_chest": Limit(0.35, "share", "own", "abdominal share under this is a high breath"),
    "pattern.chest_first_s": Limit(-0.15, "s", "own", "chest ahead of the abdomen by this is chest first"),
    "pattern.share_even": Limit(0.50, "share", "own", "abdominal share under this is mostly chest"),
    "pattern.lift": Limit(1.5, "% of trunk", "own", "shoulder rise over this may be a lift"),
    "pattern.lift_share": Limit(0.25, "share", "own", "and over this share of abdomen + chest"),
    "pattern.share_low": Limit(0.75, "share", "own", "abdominal share over this is low"),
    "shoulders_still.steady": Limit(1.5, "% of trunk", "own", "shoulder rise below this is still: 4 mm on a child is less than a teacher sees"),
    "shoulders_still.work": Limit(3.0, "% of trunk", "own", "above this, and the next, it is a fault"),
    "shoulders_still.work_share": Limit(0.25, "share", "own", "shoulder rise over this share of abdomen + chest: a full breath lifts a little"),
    "shoulders_still.work_most": Limit(3.5, "% of trunk", "own", "but from this on however large the breath"),
    "abdomen_leads.steady": Limit(0.50, "share", "own", "abdominal share from here on"),
    "abdomen_leads.work": Limit(0.35, "share", "own", "abdominal share below this"),
    "full_breath.steady": Limit(0.70, "share", "own", "size of the breath from this share of the student's own full breath"),
    "full_breath.work": Limit(0.45, "share", "own", "below this share of it"),
    "counts.steady_beats": Limit(0.35, "beat", "own", "an inhale within this of the card"),
    "counts.steady_share": Limit(0.25, "share", "own", "or this share of the asked length, the smaller"),
    "counts.least_s": Limit(0.15, "s", "own", "but never under this"),
    "counts.work_times": Limit(2.0, "times", "own", "beyond this many times that"),
    "exhale_counts.steady_beats": Limit(0.35, "beat", "own", "an exhale within this of the card"),
    "exhale_counts.steady_share": Limit(0.10, "share", "own", "or this share of the asked length, the larger"),
    "exhale_counts.work_beats": Limit(0.70, "beat", "own", "beyond this"),
    "exhale_counts.work_share": Limit(0.25, "share", "own", "or this share, the larger"),
    "with_count.steady": Limit(0.25, "beat", "own", "start within this of the card's own beat"),
    "with_count.work": Limit(0.75, "beat", "own", "beyond this"),
    "full_early.steady": Limit(0.70, "share of the asked beats", "own", "90 % reached at or after"),
    "full_early.work": Limit(0.50, "share of the asked beats", "own", "90 % reached before"),
    "even_intake.steady": Limit(0.20, "share", "own", "distance from an even fill below"),
    "even_intake.work": Limit(0.35, "share", "own", "distance from an even fill above"),
    "even_exhale.steady": Limit(0.15, "share", "own", "distance of the trunk's return from the school's shape below"),
    "even_exhale.work": Limit(0.30, "share", "own", "distance of the trunk's return from the school's shape above"),
    "even_exhale.release": Limit(0.0, "times", "own", "the school's shape: 0 = evenly back, 3 = let go at once and running out"),
    "pause.steady_beats": Limit(0.25, "beat", "own", "pause beyond the card below"),
    "pause.steady_s": Limit(0.25, "s", "own", "or this, the larger"),
    "pause.work_times": Limit(3.0, "times", "own", "over this many times that"),
    "feet_flat.steady": Limit(0.90, "share", "own", "share of the playing time with flat feet from here on"),
    "feet_flat.work": Limit(0.60, "share", "own", "below this share of it"),
    "inclination.steady_low": Limit(-3.0, "deg", "own", "trunk inclination from"),
    "inclination.steady_high": Limit(8.0, "deg", "own", "trunk inclination to"),
    "inclination.work_low": Limit(-8.0, "deg", "own", "leaning back beyond"),
    "inclination.work_high": Limit(15.0, "deg", "own", "leaning forward beyond"),
    "tall.steady": Limit(4.0, "deg", "own, as an instrument that sinks", "trunk inclination changes from beginning to end by less"),
    "tall.work": Limit(10.0, "deg", "own, as an instrument that sinks", "by more"),
    "rounding.steady": Limit(3.0, "% of trunk", "own", "the back bows out further than in the count-in by less"),
    "rounding.work": Limit(8.0, "% of trunk", "own", "by more"),
    "head_forward.steady": Limit(15.0, "% of trunk", "own", "the ear is ahead of the shoulders by less"),
    "head_forward.work": Limit(25.0, "% of trunk", "own", "by more"),
    "shoulder_tilt.steady": Limit(4.0, "deg", "own", "shoulder line against level within"),
    "shoulder_tilt.work": Limit(8.0, "deg", "own", "beyond"),
    "head_level.steady": Limit(4.0, "deg", "own", "head against upright, to either side, within"),
    "head_level.work": Limit(8.0, "deg", "own", "beyond"),
    "head_with_flute.steady": Limit(6.0, "deg", "own", "head against the flute's own line within"),
    "head_with_flute.work": Limit(12.0, "deg", "own", "beyond"),
    "body_still.steady": Limit(1.5, "% of trunk", "own", "head and shoulders wander by less"),
    "body_still.work": Limit(4.0, "% of trunk", "own", "by more"),
    **{f"{name}.{side}": Limit(value, "deg", "own", words) for name, low, high, words in HOLDS for side, value in (("low", low), ("high", high))},
    "axis_level.beyond": Limit(10.0, "deg", "own", "work from so far beyond either"),
    "axis_to_trunk.beyond": Limit(10.0, "deg", "own", "work from so far beyond either"),
    "arms_stay_up.steady": Limit(5.0, "deg", "own", "far end sinks from beginning to end by less"),
    "arms_stay_up.work": Limit(10.0, "deg", "own", "by more"),
    "head_travel.steady": Limit(3.0, "% of trunk", "own", "head goes to meet the instrument by less"),
    "head_travel.work": Limit(8.0, "% of trunk", "own", "by more"),
    "raise_spread.steady": Limit(1.5, "% of trunk", "own", "raises land within this of each other"),
    "raise_spread.work": Limit(4.0, "% of trunk", "own", "further apart than this"),
    "elbow.beyond": Limit(10.0, "deg", "own", "work from so far beyond either"),
    "hands_in_order.steady": Limit(-5.0, "% of trunk", "own", "the right hand is further from the mouth than the left, or no nearer than this"),
    "hands_in_order.work": Limit(-15.0, "% of trunk", "own", "below this the hands are swapped"),
    "wrist.steady": Limit(15.0, "deg", "own", "wrist bent, as the picture shows it, by less"),
    "wrist.work": Limit(30.0, "deg", "own", "by more"),
}


ALSO_EXEMPT: dict[CriterionKey, tuple[CriterionKey, ...]] = {"trunk_inclination": ("keeps_tall", "back_rounding")}
"""Who is exempt from one is exempt from the other: a trunk that is not judged is not judged for sinking either."""

LAYERS = ("method", "programme", "instrument", "student", "card")
"""In this order: what a later one says of a limit wins; what any of them switches off or exempts stays so."""


@dataclass(frozen=True)
class Layer:
    """What one layer changes. label: the programme's profile, the instrument, the card; limits: name to number; off: criteria that are not judged;
    exempt: criteria of a student that are neither measured nor counted; order: which fault is spoken of first, empty where the layer says nothing of it."""

    name: LayerName
    label: str = ""
    limits: Mapping[str, float] = field(default_factory=dict)
    off: frozenset[CriterionKey] = frozenset()
    exempt: frozenset[CriterionKey] = frozenset()
    order: tuple[Importance, ...] = ()


@dataclass(frozen=True)
class Rules:
    """The rules in force for one take: all limits, with the layer that set each one that was changed."""

    profile_id: str = "starting-values"
    changed: Mapping[str, float] = field(default_factory=dict)
    set_by: Mapping[str, str] = field(default_factory=dict)
    off: frozenset[CriterionKey] = frozenset()
    exempt: frozenset[CriterionKey] = frozenset()
    order: tuple[Importance, ...] = IMPORTANCE

    def limit(self, name: str) -> float:
        """Value of one limit. Raises KeyError for a name that is none."""
        return float(self.changed.get(name, LIMITS[name].value))

    @property
    def thresholds_id(self) -> str:
        """Short fingerprint of everything in force: the same limits, switches and exemptions give the same id."""
        in_force = {"limits": {name: self.limit(name) for name in sorted(LIMITS)}, "off": sorted(self.off), "exempt": sorted(self.exempt)}
        in_force |= {} if self.order == IMPORTANCE else {"order": list(self.order)}
        return hashlib.sha256(json.dumps(in_force).encode()).hexdigest()[:12]


def resolve(layers: Sequence[Layer]) -> Rules:
    """The rules of a take from its layers, whatever order they come in. The programme's label names the profile."""
    ordered = sorted(layers, key=lambda layer: LAYERS.index(layer.name))
    changed: dict[str, float] = {}
    set_by: dict[str, str] = {}
    for layer in ordered:
        changed.update(layer.limits)
        set_by.update(dict.fromkeys(layer.limits, layer.name))
    profile = next((layer.label for layer in ordered if layer.name == "programme" and layer.label), "starting-values")
    off = frozenset[CriterionKey]().union(*(layer.off for layer in ordered))
    exempt = frozenset[CriterionKey]().union(*(layer.exempt for layer in ordered))
    exempt |= frozenset(other for one in exempt for other in ALSO_EXEMPT.get(one, ()))
    order = next((layer.order for layer in reversed(ordered) if layer.order), IMPORTANCE)
    return Rules(profile_id=profile, changed=changed, set_by=set_by, off=off, exempt=exempt, order=order)


def layer_from(document: Mapping[str, object], *, name: LayerName = "programme") -> Layer:
    """A layer from its document ``{"profile_id": …, "limits": {name: number}, "off": […], "exempt": […], "order": […]}``. Raises InvalidInput(bad_profile)."""
    return Layer(
        name=name,
        label=str(document.get("profile_id", "")),
        limits=_limits(document.get("limits", {})),
        off=_criteria(document.get("off", []), "off"),
        exempt=_criteria(document.get("exempt", []), "exempt"),
        order=order_from(document.get("order", [])),
    )


def order_from(names: object) -> tuple[Importance, ...]:
    """Which fault is spoken of first; empty where nothing is said of it. Raises InvalidInput(bad_profile) where one is missing or stands twice."""
    if names in ([], (), None):
        return ()
    if not isinstance(names, Sequence) or isinstance(names, str) or sorted(map(str, names)) != sorted(IMPORTANCE):
        raise InvalidInput("bad_profile", name="order", wanted="each once of " + ", ".join(IMPORTANCE))
    return tuple(names)


def _limits(limits: object) -> dict[str, float]:
    if not isinstance(limits, Mapping):
        raise InvalidInput("bad_profile", name="limits", wanted="an object of names and numbers")
    for name, value in limits.items():
        if name not in LIMITS:
            raise InvalidInput("bad_profile", name=name, wanted="one of " + ", ".join(sorted(LIMITS)))
        if not isinstance(value, (int, float)) or isinstance(value, bool) or not math.isfinite(value):
            raise InvalidInput("bad_profile", name=name, wanted="a finite number")
    return {str(name): float(value) for name, value in limits.items()}


def _criteria(names: object, key: str) -> frozenset[CriterionKey]:
    if not isinstance(names, Sequence) or isinstance(names, str):
        raise InvalidInput("bad_profile", name=key, wanted="a list of criteria")
    for name in names:
        if name not in CRITERION_KEYS:
            raise InvalidInput("bad_profile", name=str(name), wanted="one of " + ", ".join(CRITERION_KEYS))
    return frozenset(names)


def to_document(rules: Rules) -> dict[str, object]:
    """The resolved rules as they are stored with a take."""
    return {
        "profile_id": rules.profile_id, "limits": dict(rules.changed), "set_by": dict(rules.set_by), "off": sorted(rules.off),
        "exempt": sorted(rules.exempt), "order": list(rules.order),
    }  # fmt: skip


def from_document(document: Mapping[str, object]) -> Rules:
    """Resolved rules as they were stored. Raises InvalidInput(bad_profile)."""
    layer = layer_from(document)
    set_by = document.get("set_by", {})
    return Rules(
        profile_id=layer.label or "starting-values", changed=layer.limits, off=layer.off, exempt=layer.exempt, order=layer.order or IMPORTANCE,
        set_by={str(k): str(v) for k, v in set_by.items()} if isinstance(set_by, Mapping) else {},
    )  # fmt: skip
