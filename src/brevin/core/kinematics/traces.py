"""The three traces of a clip: abdomen, chest, shoulder, percent of trunk, relative to pelvis and back, on an even grid."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from brevin.core import filters
from brevin.core.kinematics import profile
from brevin.core.kinematics.coding import caught_up
from brevin.core.kinematics.outline import free_outline
from brevin.core.kinematics.passing import passings
from brevin.core.kinematics.regions import NOTHING, TRAVEL_MOST, Region, regions
from brevin.core.kinematics.riding import points_riding, without_arms
from brevin.core.kinematics.rigid import MISFIT_MOST, followed_strips, rise_told, trunk_motion
from brevin.core.kinematics.shoulder import shoulder_rise
from brevin.core.kinematics.sinking import unsunk
from brevin.core.kinematics.sleeves import uncovered
from brevin.core.kinematics.stands import what_stands
from brevin.core.kinematics.upper_end import by_upper_end
from brevin.core.track import Floats, Sighting, Strips

TELLS_WHEN = 0.4  # model error of a chest up to which its movement tells moments


@dataclass(frozen=True)
class Traces:
    """The three traces on the even grid, percent of trunk; + = outward, upward.

    noise: standard deviation of each trace's own noise, percent; model: share of its amplitude that may be wrong by the assumed
    profile, as ``leak`` the error of what is taken from the chest, and as ``covered`` how far its places may be a sleeve's (sleeves.py), 0 to 1;
    seen: whether the region could be followed at all; width: change of the trunk's width (front view), percent:
    kept, and no turn is told by it: over a shirt that hangs it shows none; holes: where pictures are missing, or something passed,
    seconds; looked: of each region that was looked for, its places (regions.Found); lost: share of the belly's outline that was not found again most of it;
    stale_s: mean age of the picture while the outline moves (coding.stale_s); passed: when something passed behind or before (passing.py), seconds;
    behind: whether something stands before the belly (stands.py); trunk_px: how long the trunk is in the picture, 0 where it was not kept.
    """

    t_s: Floats
    abdomen: Floats
    chest: Floats
    shoulder: Floats
    width: Floats
    confidence: Floats
    noise: dict[str, float]
    model: dict[str, float]
    seen: dict[str, bool]
    sway_pct: float
    holes: tuple[tuple[float, float], ...] = ()
    looked: dict[str, Floats] = field(default_factory=dict)
    lost: float = 0.0
    stale_s: float = 0.0
    passed: tuple[tuple[float, float], ...] = ()
    behind: bool = False
    trunk_px: float = 0.0

    @property
    def covered(self) -> float:
        """How far the chest is followed at places that may be a sleeve's, 0 to 1: its travel is told as 1 + this of what was
        seen; 1 where it does not go along with the belly, and is told as seen."""
        return self.model.get("covered", 0.0)  # not in evidence from before it was kept

    @property
    def timed(self) -> dict[str, bool]:
        """Which regions tell when, too: a chest of which only the upper end shows tells how far it went, and roughly."""
        return self.seen | {"chest": self.seen["chest"] and not (self.seen["abdomen"] and self.model["chest"] > TELLS_WHEN)}


def traces(sighting: Sighting, rests: Sequence[tuple[float, float]] = ()) -> Traces:
    """Traces of one clip. Needs front, back and points of the sighting; front views give shoulder and width only. rests: of a trunk that sinks, where known."""
    sighting, passed = passings(sighting)
    sighting, old_s = caught_up(sighting)
    sighting = unsunk(sighting, rests)
    assert sighting.front is not None and sighting.back is not None and sighting.points is not None and sighting.player is not None
    grid_s = filters.uniform_times(sighting.t_s)
    rigid = trunk_motion(sighting)
    front_view = sighting.view == "front"
    shoulder = shoulder_rise(sighting.points, rigid, sighting.arms_pct, both=front_view)
    free = free_outline(sighting.front, sighting.arms_pct)
    rides = points_riding(sighting.points, rigid, None if front_view else shoulder.region)
    stands = what_stands(sighting, rigid)
    free = free if front_view else stands.without(without_arms(sighting, free, rigid, rides), sighting.front.up_pct)
    abdomen, chest = (NOTHING, NOTHING) if front_view else regions(sighting, rigid, free, rides)
    if abdomen.region is not None:
        chest = uncovered(chest, abdomen.region, sighting.front, free, sighting.arms_pct)
        chest = by_upper_end(sighting, rigid, abdomen.region, chest) if chest.region is None else chest
    if front_view and not rise_told(sighting.points, sighting.arms_pct):
        shoulder = replace(shoulder, region=None)
    width = _width(sighting.front, sighting.back) if front_view else np.zeros(len(sighting.t_s))

    def trace(found: "Region | None") -> Floats:
        return np.zeros(len(grid_s)) if found is None else _settled(sighting.t_s, found.values, grid_s)

    places = {"abdomen": stands.beside(abdomen, sighting.front), "chest": chest, "shoulder": shoulder}
    found = {name: one.region for name, one in places.items()}
    leak, covered = (0.0, 0.0) if chest.region is None else (chest.region.leak, chest.region.covered)
    return Traces(
        t_s=grid_s,
        abdomen=trace(abdomen.region), chest=trace(chest.region), shoulder=trace(shoulder.region),
        width=_settled(sighting.t_s, width, grid_s),
        confidence=_confidence(sighting, grid_s),
        noise={k: 0.0 if r is None else r.noise for k, r in found.items()} | {"width": float(np.std(width - filters.smooth(width)))},
        model={k: 0.0 if r is None else r.model_error for k, r in found.items()} | {"leak": leak, "covered": covered},
        seen={k: r is not None for k, r in found.items()},
        sway_pct=float(np.std(filters.smooth(rigid.forward_pct, sigma_s=0.2))),
        holes=tuple(sorted((*filters.holes(sighting.t_s), *passed))),
        looked={name: one.looked for name, one in places.items() if not (front_view and name != "shoulder")},
        lost=_lost(sighting.front), stale_s=old_s,
        passed=passed, behind=stands.behind, trunk_px=sighting.player.trunk_px,
    )  # fmt: skip


def _lost(front: Strips) -> float:
    """Share of the strips at the belly's heights whose picture was not found again most of the time, or farther off than a belly goes: something else was
    there, nothing that stands out, or much that looks the same, as a stripe below the one that rose."""
    belly = (front.up_pct > profile.ABDOMEN_FROM) & (front.up_pct < profile.ABDOMEN_TO)
    if not belly.any():
        return 0.0
    far = np.ptp(filters.smooth(front.travel_pct[:, belly]), axis=0) > TRAVEL_MOST
    return float(np.mean(far | (front.usual_misfit[belly] >= MISFIT_MOST)))


def _settled(t_s: Floats, values: Floats, grid_s: Floats) -> Floats:
    return filters.smooth(filters.on_grid(t_s, values, grid_s))


def _width(front: Strips, back: Strips) -> Floats:
    """Median change of the trunk's depth or width over its middle heights, percent of trunk: [n]."""
    parts = []
    for strips in (front, back):
        use = followed_strips(strips) & (strips.up_pct > 6) & (strips.up_pct < 62)
        if use.any():
            parts.append(np.median(strips.travel_pct[:, use], axis=1))
    return np.sum(parts, axis=0) if parts else np.zeros(len(front.travel_pct))


def _confidence(sighting: Sighting, grid_s: Floats) -> Floats:
    """How alike the followed outline still is to its reference at each moment, 0 to 1."""
    assert sighting.front is not None
    use = followed_strips(sighting.front)
    if not use.any():
        return np.zeros(len(grid_s))
    alike = np.clip(1.0 - np.median(sighting.front.misfit[:, use], axis=1), 0.0, 1.0)
    return filters.on_grid(sighting.t_s, alike, grid_s)
