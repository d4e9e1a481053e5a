"""Each player's trunk, turned into the body's own axes picture by picture: its light, and outline and texture followed against the first seconds."""

from collections.abc import Callable, Sequence
from concurrent.futures import Future, ThreadPoolExecutor

import numpy as np
from numpy.typing import NDArray

from brevin.core.kinematics.rigid import rise
from brevin.core.track import Floats, Player
from brevin.edge import film as trunk_film
from brevin.edge.exposure import Exposure
from brevin.edge.gaps import without_gaps
from brevin.edge.observers.people import People
from brevin.edge.observers.reference import REFERENCE_LATEST_S, REFERENCE_LENGTH_S, reference_of
from brevin.edge.points import Texture
from brevin.edge.strips import Outline
from brevin.edge.undone import Undone
from brevin.edge.video import VideoFrame

Grey = NDArray[np.uint8]
EVERY_PX, CHANGE_EVERY_PX = 3, 4  # of the trunk are enough for its light; of the film for its change
GREYS = np.arange(256.0)
ASIDE_PCT = 25.0  # of trunk on either side of the axis
TOGETHER = 128  # pictures followed at a time beside the decoding: 11 MB, and the outline's arithmetic is done for all of them at once


class Trunk:
    """One player's trunk. Pictures wait until the reference is known, then are followed and forgotten.

    arms_pct: where its arms are, [m, 2, 2] in body coordinates; light, detail, change: of each picture, grey levels; at: the map from picture to film for each
    number of a picture; cut: its mask by the colours, where these tell; lying: whether the picture's rows run along it.
    """

    def __init__(
        self, mask: NDArray[np.float32], arms_pct: Floats, at: Callable[[int], trunk_film.PictureMap], cut: NDArray[np.float32] | None = None,
        *, lying: bool = False,
    ) -> None:  # fmt: skip
        self.arms_pct = arms_pct
        self.light: list[float] = []
        self.detail: list[float] = []
        self.change: list[float] = []
        self._mask, self._cut, self._at, self._lying = mask, cut, at, lying
        self._t_s: list[float] = []
        self._last: Grey | None = None
        self._waiting: list[Grey] = []
        self._texture: Texture | None = None
        self._exposure: Exposure | None = None
        self._front: Outline | None = None
        self._back: Outline | None = None
        self._worker = ThreadPoolExecutor(1)
        self._busy: Future[None] | None = None

    def see(self, frame: VideoFrame) -> None:
        """Keep the light of the frame's view of the player, and follow it as soon as a few have come."""
        picture = self._at(len(self._t_s)).apply(frame.luma)
        light, detail = light_of(picture)
        self.light.append(light)
        self.detail.append(detail)
        self.change.append(0.0 if self._last is None else change_of(self._last, picture))
        self._t_s.append(frame.t_s)
        self._last = picture
        self._waiting.append(picture)
        if self._texture is None and frame.t_s >= REFERENCE_LATEST_S + REFERENCE_LENGTH_S:
            self._take_reference()
        if self._texture is not None and len(self._waiting) >= TOGETHER:
            self._hand_over()

    def finish(self) -> None:
        """Follow what still waits."""
        if self._texture is None:
            self._take_reference()
        self._hand_over()
        self._await()
        self._worker.shutdown()

    @property
    def waiting(self) -> int:
        """How many pictures are kept for now."""
        return len(self._waiting)

    @property
    def texture(self) -> Texture:
        """Points of shirt and room; known once the reference is."""
        assert self._texture is not None
        return self._texture

    @property
    def front(self) -> Outline:
        """The outline the player faces with."""
        assert self._front is not None
        return self._front

    @property
    def back(self) -> Outline:
        """The outline behind."""
        assert self._back is not None
        return self._back

    def _take_reference(self) -> None:
        reference = reference_of(np.array(self._t_s), self._waiting, self._mask)
        self._texture = Texture(self._mask, np.asarray(reference, np.uint8))
        self._exposure = Exposure(reference, across=self._lying)
        self._front, self._back = Outline(self._mask, reference, outward=1, cut=self._cut), Outline(self._mask, reference, outward=-1)

    def _hand_over(self) -> None:
        self._await()
        if self._waiting:
            self._busy = self._worker.submit(self._follow, np.stack(self._waiting))
            self._waiting = []

    def _await(self) -> None:
        if self._busy is not None:
            self._busy.result()
            self._busy = None

    def _follow(self, film: Grey) -> None:
        assert self._exposure is not None
        light = self._exposure.light(film)
        for picture in light.evened(film):
            self.texture.see(picture)
        risen_pct = rise(self.texture.points(latest=len(film)), self.arms_pct)
        self.front.see(film, risen_pct, light)
        self.back.see(film, risen_pct, light)


class Trunks:
    """Shows every frame to every player's trunk. Frames from before the players are known wait.

    undone: what is taken out of the clip for each player, where that is known from having seen it once.
    """

    def __init__(self, people: People, undone: Sequence[Undone] = ()) -> None:
        self.t_s: list[float] = []
        self.trunks: list[Trunk] = []
        self._people, self._undone = people, undone
        self._early: list[VideoFrame] = []

    def see(self, frame: VideoFrame) -> None:
        """Show the frame."""
        self.t_s.append(frame.t_s)
        self._early.append(frame)
        if self._people.picked:
            self._show()

    def finish(self) -> None:
        """All that still waits. Call it when the people are finished."""
        self._show()
        for trunk in self.trunks:
            trunk.finish()

    def _show(self) -> None:
        if not self.trunks:
            self.trunks = [self._trunk(player, place) for place, player in enumerate(self._people.players)]
        for frame in self._early:
            for trunk in self.trunks:
                trunk.see(frame)
        self._early.clear()

    def _trunk(self, player: Player, place: int) -> Trunk:
        turn = trunk_film.body_map(player)
        mask: NDArray[np.float32] = turn.apply(self._people.mask(player))
        arms_pct = self._people.arms_pct(player)
        cut = without_gaps(turn.apply(self._people.early_rgb), mask, arms_pct)
        undone = self._undone[place] if self._undone else Undone(None, None)
        return Trunk(mask, arms_pct, undone.maps(turn), cut, lying=turn.lying)


def light_of(picture: Grey) -> tuple[float, float]:
    """Median grey of the trunk and its standard deviation. picture: [HEIGHT, WIDTH] of the film."""
    axis, aside = int(trunk_film.column(0.0)), int(ASIDE_PCT * trunk_film.PX_PER_PCT)
    trunk = picture[int(trunk_film.row(100)) : int(trunk_film.row(0)) : EVERY_PX, axis - aside : axis + aside : EVERY_PX]
    counts = np.bincount(trunk.ravel(), minlength=len(GREYS))
    upto, mean = np.cumsum(counts), float(counts @ GREYS) / trunk.size
    middle = np.searchsorted(upto, [(trunk.size + 1) // 2, trunk.size // 2 + 1])  # of an even number the two in the middle
    return float(middle.mean()), float(np.sqrt(counts @ (GREYS - mean) ** 2 / trunk.size))


def change_of(before: Grey, picture: Grey) -> float:
    """Mean grey change from one picture to the next."""
    apart = (p[::CHANGE_EVERY_PX, ::CHANGE_EVERY_PX].astype(np.int16) for p in (picture, before))
    return float(np.abs(np.subtract(*apart)).mean())
