"""Method profile: the limits of a programme. Starting values stand in ``LIMITS``; a profile changes any of them by name."""

import hashlib
import json
from collections.abc import Mapping
from dataclasses import dataclass, field

from brevin.core.errors import InvalidInput


@dataclass(frozen=True)
class Limit:
    """One number of the method. unit: as written beside it; source: author and year, or own."""

    value: float
    unit: str
    source: str
    means: str


LIMITS: dict[str, Limit] = {
    "pattern.pushed_abdomen": Limit(1.0, "% of trunk", "own", "belly pushed out from here"),
    "pattern.pushed_chest": Limit(-0.3, "% of trunk", "own", "while the ribs sink by this"),
    "pattern.paradoxical_abdomen": Limit(-0.5, "% of trunk", "own", "belly goes in while the chest rises"),
    "pattern.shallow": Limit(2.0, "% of trunk", "own", "abdomen and chest together under this are a small breath"),
    "pattern.share_chest": Limit(0.35, "share", "own", "abdominal share under this is a high breath"),
    "pattern.chest_first_s": Limit(-0.15, "s", "own", "chest ahead of the abdomen by this is chest first"),
    "pattern.share_even": Limit(0.50, "share", "own", "abdominal share under this is mostly chest"),
    "pattern.lift": Limit(1.5, "% of trunk", "own", "shoulder rise over this may be a lift"),
    "pattern.lift_share": Limit(0.25, "share", "own", "and over this share of abdomen + chest"),
    "pattern.share_low": Limit(0.75, "share", "own", "abdominal share over this is low"),
    "shoulders_still.steady": Limit(1.0, "% of trunk", "own", "shoulder rise below this is still"),
    "shoulders_still.work": Limit(2.0, "% of trunk", "own", "above this, and the next, it is a fault"),
    "shoulders_still.work_share": Limit(0.25, "share", "own", "shoulder rise over this share of abdomen + chest: a full breath lifts a little"),
    "abdomen_leads.steady": Limit(0.50, "share", "own", "abdominal share from here on"),
    "abdomen_leads.work": Limit(0.35, "share", "own", "abdominal share below this"),
    "counts.steady_beats": Limit(0.35, "beat", "own", "length within this of the card"),
    "counts.steady_share": Limit(0.25, "share", "own", "or this share of the asked length, the smaller"),
    "counts.least_s": Limit(0.15, "s", "own", "but never under this"),
    "counts.work_times": Limit(2.0, "times", "own", "beyond this many times that"),
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
    "inclination.steady_low": Limit(-3.0, "deg", "own", "trunk inclination from"),
    "inclination.steady_high": Limit(8.0, "deg", "own", "trunk inclination to"),
    "inclination.work_low": Limit(-8.0, "deg", "own", "leaning back beyond"),
    "inclination.work_high": Limit(15.0, "deg", "own", "leaning forward beyond"),
    "shoulder_tilt.steady": Limit(4.0, "deg", "own", "shoulder line against level within"),
    "shoulder_tilt.work": Limit(8.0, "deg", "own", "beyond"),
}


@dataclass(frozen=True)
class MethodProfile:
    """Limits as a programme has them. profile_id: its name; changed: limits that differ from the starting values."""

    profile_id: str = "starting-values"
    changed: Mapping[str, float] = field(default_factory=dict)
    judged_off: frozenset[str] = frozenset()

    def limit(self, name: str) -> float:
        """Value of one limit. Raises KeyError for a name that is none."""
        return float(self.changed.get(name, LIMITS[name].value))

    @property
    def thresholds_id(self) -> str:
        """Short fingerprint of all limits in force: the same numbers give the same id."""
        numbers = {name: self.limit(name) for name in sorted(LIMITS)}
        return hashlib.sha256(json.dumps(numbers).encode()).hexdigest()[:12]


def from_json(document: Mapping[str, object]) -> MethodProfile:
    """A profile from its document ``{"profile_id": …, "limits": {name: number}, "off": [criterion]}``. Raises InvalidInput(bad_profile)."""
    limits = document.get("limits", {})
    off = document.get("off", [])
    if not isinstance(limits, Mapping) or not isinstance(off, list):
        raise InvalidInput("bad_profile", wanted="an object limits and a list off")
    for name, value in limits.items():
        if name not in LIMITS:
            raise InvalidInput("bad_profile", name=name, wanted="one of " + ", ".join(sorted(LIMITS)))
        if not isinstance(value, (int, float)) or isinstance(value, bool):
            raise InvalidInput("bad_profile", name=name, wanted="a number")
    return MethodProfile(
        profile_id=str(document.get("profile_id", "unnamed")),
        changed={str(k): float(v) for k, v in limits.items()},
        judged_off=frozenset(str(c) for c in off),
    )
