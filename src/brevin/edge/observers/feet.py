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
LEAST_PX = 4  # sides of a patch
ENOUGH_PX = 100.0  # of trunk: in a larger picture every second line, or third, tells the same in a quarter of the time
NOWHERE = np.full((2, 2), np.nan)


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
        self._size = self._whole(np.maximum(np.array(PATCH_TRUNKS) * trunk_px, LEAST_PX * self._every))
        self._reach = self._whole(np.array(REACH_TRUNKS) * trunk_px)
        self._corner = np.round(at_px - [0.0, OVER_TRUNKS * trunk_px] - self._size / 2).astype(int)
        patch = self._part(luma, 0)
        self._patch = patch if patch is not None and float(patch.std()) >= LEAST_GREY else None

    def up_pct(self, luma: Luma) -> float:
        """How far up it is, percent of trunk; nan where it is not found."""
        part = None if self._patch is None else self._part(luma, 1)
        if part is None or self._patch is None:
            return float("nan")
        everywhere = cv2.matchTemplate(part, self._patch, cv2.TM_CCOEFF_NORMED)
        best, aside = np.unravel_index(int(np.argmax(everywhere)), everywhere.shape)
        if everywhere[best, aside] < ALIKE or best in (0, len(everywhere) - 1) or aside in (0, everywhere.shape[1] - 1):
            return float("nan")  # it may be farther than was looked for
        alike = everywhere[:, aside]
        before, here, after = (float(value) for value in alike[best - 1 : best + 2])
        bend = before - 2.0 * here + after
        between = 0.5 * (before - after) / bend if bend < 0.0 else 0.0
        return 100.0 * (self._reach[1] - self._every * (best + between)) / self._trunk_px

    def _whole(self, px: Floats) -> NDArray[np.int_]:
        """As many pixels, of which every so many are looked at."""
        return self._every * np.maximum(np.round(px / self._every), 1).astype(int)

    def _part(self, luma: Luma, wider: int) -> Luma | None:
        """The patch's place with so many times its reach about it; None where the picture ends before."""
        low, high = self._corner - wider * self._reach, self._corner + self._size + wider * self._reach
        if np.any(low < 0) or high[0] > luma.shape[1] or high[1] > luma.shape[0]:
            return None
        return np.ascontiguousarray(luma[low[1] : high[1] : self._every, low[0] : high[0] : self._every])
