"""How high heel and toes of both feet are in every picture: a patch of the shoe about each key point, looked for a little up and down."""

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.pose import landmarks as lm
from brevin.core.track import Floats, Player
from brevin.edge.observers.people import People
from brevin.edge.video import Luma, VideoFrame

SEEN = 0.6  # visibility of a foot's key points from which they are believed
PATCH_TRUNKS = (0.18, 0.13)  # width and height of a patch
OVER_TRUNKS = 0.02  # its middle above the key point, which lies on the sole
REACH_TRUNKS = (0.07, 0.14)  # aside, as far as a hand-held camera goes, and up and down, that it is looked for
LEAST_GREY = 4.0  # standard deviation of a patch: less is no shoe that could be followed
ALIKE = 0.35  # correlation of a place with the patch: below it the foot is not found
NEAR_PX = 4  # of those looked at, from its last place: further a shoe does not go from one picture to the next
SURE = 0.8  # correlation from which the best place near the last one is believed without looking elsewhere
LEAST_PX = 4  # sides of a patch
ENOUGH_PX = 100.0  # of trunk: in a larger picture every second line, or third, tells the same in a quarter of the time
NOWHERE = np.full((2, 2), np.nan)

Steps = NDArray[np.int_]


class Feet:
    """Follows each player's feet from the moment it is known who plays."""

    def __init__(self, people: People) -> None:
        self._people = people
        self._before = 0
        self._own: list[_Pair] = []

    def see(self, frame: VideoFrame) -> None:
        """Look where the feet are."""
        if not self._people.picked:
            self._before += 1
            return
        if not self._own:
            self._own = [_Pair(frame.luma, _feet_px(self._people, player), player.trunk_px) for player in self._people.players]
        for pair in self._own:
            pair.see(frame.luma)

    def up_pct(self, player: int, pictures: int) -> Floats:
        """How high a player's feet were: [pictures, 2, 2] left and right, heel and toes, percent of trunk above where they were first; nan where not seen."""
        seen = self._own[player].up_pct if player < len(self._own) else []
        found = [NOWHERE] * self._before + seen
        return np.array((found + [NOWHERE] * pictures)[:pictures])


def _feet_px(people: People, player: Player) -> Floats:
    """Key points of both feet over the first seconds: [2, 2, 2], nan where they are not seen."""
    bodies = [s.bodies[i] for s, i in zip(people.samples, player.chosen, strict=False) if 0 <= i < len(s.bodies)]
    found = np.full((2, 2, 2), np.nan)
    for foot, names in enumerate(lm.FEET):
        if bodies and np.median([body.visibility[list(names)].min() for body in bodies]) >= SEEN:
            found[foot] = np.median([body.points_px[list(names)] for body in bodies], axis=0)
    return found


class _Pair:
    """Both feet of one player."""

    def __init__(self, luma: Luma, at_px: Floats, trunk_px: float) -> None:
        self.up_pct: list[Floats] = []
        self._patches = [[_Patch(luma, point, trunk_px) if np.isfinite(point).all() else None for point in foot] for foot in at_px]

    def see(self, luma: Luma) -> None:
        self.up_pct.append(np.array([[np.nan if patch is None else patch.up_pct(luma) for patch in foot] for foot in self._patches]))


class _Patch:
    """One piece of a shoe. Nothing is found where it lies at the picture's edge or shows nothing that could be followed."""

    def __init__(self, luma: Luma, at_px: Floats, trunk_px: float) -> None:
        self._every = max(int(trunk_px // ENOUGH_PX), 1)
        self._trunk_px = trunk_px
        size = self._whole(np.maximum(np.array(PATCH_TRUNKS) * trunk_px, LEAST_PX * self._every))
        reach = self._whole(np.array(REACH_TRUNKS) * trunk_px)
        corner = np.round(at_px - [0.0, OVER_TRUNKS * trunk_px] - size / 2).astype(int)
        self._corner, self._reach, self._size = corner - reach * self._every, reach, size
        ends_before = np.any(self._corner < 0) or np.any(corner + (size + reach) * self._every > luma.shape[::-1])
        patch = None if ends_before else self._part(luma, reach, reach)
        self._patch = patch if patch is not None and float(patch.std()) >= LEAST_GREY else None
        self._last = reach

    def up_pct(self, luma: Luma) -> float:
        """How far up it is, percent of trunk; nan where it is not found. Looked for near its last place first."""
        if self._patch is None:
            return float("nan")
        near = np.maximum(self._last - NEAR_PX, 0), np.minimum(self._last + NEAR_PX, 2 * self._reach)
        found = self._found(luma, self._patch, *near, alike=SURE)
        found = found if found is not None else self._found(luma, self._patch, np.zeros(2, int), 2 * self._reach, alike=ALIKE)
        return float("nan") if found is None else 100.0 * self._every * (self._reach[1] - found) / self._trunk_px

    def _found(self, luma: Luma, patch: Luma, low: Steps, high: Steps, *, alike: float) -> float | None:
        """How far down from the farthest place up the patch lies, between two shifts; None where no place is alike enough, or the best lies at the end of
        what was looked at: it may be farther."""
        everywhere = cv2.matchTemplate(self._part(luma, low, high), patch, cv2.TM_CCOEFF_NORMED)
        _, most, _, (aside, best) = cv2.minMaxLoc(everywhere)
        if most < alike or best in (0, len(everywhere) - 1) or aside in (0, everywhere.shape[1] - 1):
            return None
        self._last = low + (aside, best)
        before, here, after = (float(value) for value in everywhere[best - 1 : best + 2, aside])
        bend = before - 2.0 * here + after
        return float(low[1]) + best + (0.5 * (before - after) / bend if bend < 0.0 else 0.0)

    def _whole(self, px: Floats) -> Steps:
        """As many pixels, in steps of those that are looked at."""
        return np.maximum(np.round(px / self._every), 1).astype(int)

    def _part(self, luma: Luma, low: Steps, high: Steps) -> Luma:
        """What the patch covers when it is shifted from one place to another."""
        first, end = self._corner + low * self._every, self._corner + (high + self._size) * self._every
        return np.ascontiguousarray(luma[first[1] : end[1] : self._every, first[0] : end[0] : self._every])
