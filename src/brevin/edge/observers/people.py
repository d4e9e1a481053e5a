"""Who is there: key points of everyone, often at first and while anything large moves, seldom while all is still; and who of them is followed."""

from collections.abc import Callable, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import replace

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.core.gate import refusal
from brevin.core.pose import landmarks as lm
from brevin.core.pose import player as pick
from brevin.core.track import Body, Facts, Floats, Player, PoseSample
from brevin.edge.closer import Closer
from brevin.edge.contour import outlined
from brevin.edge.film import arms_of
from brevin.edge.pose_model import PoseModel, Seen
from brevin.edge.stickers import stickers_of
from brevin.edge.video import VideoFrame

FIRST_POSES_S = 1.6  # poses of the first seconds pick the player
OFTEN_S, SELDOM_S = 0.2, 1.5  # between key points: while something large moves, and while all is still
MOVES_GREY = 1.0  # mean grey change of a small picture since the last look: more is a body that moves; a breath is 0.2
PLACE_GREY, PLACES = 8.0, 4  # or this much in so many of its places: an arm, an instrument; a breath is 3 at its edge
FEET_TRUNKS = 0.2  # about heels and toes: what moves there may tap the beat, and asks for no key points
SMALL_PX = (48, 27)  # of that picture: each a mean over many, so that noise does not count
EVERY_PX = 2  # of the picture are enough for that
MOST_WAITING = 8  # pictures that wait for the network: it must not fall behind with pictures piling up
MASKS = 4  # masks of a player averaged into the outline
SHAPED_S = 2.5  # between outlines: posture changes slowly, and a mask costs a third of the time

Mask = NDArray[np.float32]
Pictured = Callable[[float, NDArray[np.uint8]], None]
"""Takes every picture that is looked at, with its moment: [height, width, 3]."""


class People:
    """Asks the network beside the decoding, and looks at faces and hands beside both, since nothing else waits for them. ``players`` is filled once the first
    seconds are over. pool, beside: one thread each."""

    def __init__(
        self, network: PoseModel, pool: ThreadPoolExecutor, beside: ThreadPoolExecutor, *, most_players: int, closer: Closer | None = None,
        pictured: Pictured | None = None,
    ) -> None:  # fmt: skip
        self.samples: list[PoseSample] = []
        self.players: list[Player] = []
        self.refused: Facts = ()
        self.size_px = (0, 0)
        self._network, self._pool, self._most, self._closer, self._pictured = network, pool, most_players, closer, pictured
        self._beside = beside
        self._masks: list[tuple[Mask, ...]] = []
        self._early_rgb: NDArray[np.uint8] = np.zeros((1, 1, 3), np.uint8)
        self._waiting: list[tuple[float, float, NDArray[np.uint8] | None, Future[Seen]]] = []  # the picture where it is looked at closely
        self._closely: dict[int, list[Future[Body]]] = {}  # by place among the samples
        self._picked = False
        self._next_s, self._asked_s, self._shaped_s = 0.0, -1.0, -SHAPED_S
        self._last: NDArray[np.int16] | None = None
        self._feet: NDArray[np.bool_] = np.zeros(SMALL_PX[::-1], bool)
        self._moved = self._sets_in = False
        self._before: VideoFrame | None = None  # when it was last asked whether key points are due, where they were not

    @property
    def asked_s(self) -> float:
        """When key points were last asked for."""
        return self._asked_s

    @property
    def picked(self) -> bool:
        """Whether it is known who is followed."""
        return self._picked

    def see(self, frame: VideoFrame) -> None:
        """Ask for key points where they are due, and pick the players at the end of the first seconds. Raises ClipUnusable where nobody can be followed."""
        self.size_px = (frame.luma.shape[1], frame.luma.shape[0])
        if self._due(frame):
            if self._sets_in and self._before is not None:
                self._ask(self._before)  # what moves is seen from where it began
            self._ask(frame)
        if not self._picked and frame.t_s >= FIRST_POSES_S:
            self._pick()

    def finish(self) -> None:
        """Everything that was asked for; the players followed through all of it. Raises ClipUnusable where the whole clip says that nobody can be read."""
        self._collect()
        if not self._picked:
            self._pick()
        for place, found in self._closely.items():
            self.samples[place] = replace(self.samples[place], bodies=tuple(body.result() for body in found))
        try:
            pick.choose(self.samples, width_px=self.size_px[0], height_px=self.size_px[1])
        except ClipUnusable as why:
            self._refuse(why)
        self.players = [pick.same_player(player, self.samples) for player in self.players]

    def mask(self, player: Player) -> Mask:
        """Outline of a player over the first seconds, 0 to 1: [height, width] of the working picture."""
        own = [masks[i] for masks, i in zip(self._masks, player.chosen, strict=False) if 0 <= i < len(masks)]
        mean: Mask = np.mean(own[-MASKS:], axis=0)
        return mean

    @property
    def early_rgb(self) -> NDArray[np.uint8]:
        """The last picture of those a mask is of: [height, width, 3], the working picture."""
        return self._early_rgb

    def arms_pct(self, player: Player) -> Floats:
        """Where a player's arms are over the first seconds: [6, 2, 2] in body coordinates."""
        own = zip(self.samples, player.chosen, strict=False)
        return arms_of([s.bodies[i] for s, i in own if i >= 0 and s.t_s <= FIRST_POSES_S + OFTEN_S / 2], player)

    def _due(self, frame: VideoFrame) -> bool:
        if frame.t_s < self._next_s:
            return False
        small = cv2.resize(frame.luma[::EVERY_PX, ::EVERY_PX], SMALL_PX, interpolation=cv2.INTER_AREA).astype(np.int16)
        moved = self._last is None or _moves(np.where(self._feet, 0, np.abs(small - self._last)))
        settled, self._sets_in = self._moved and not moved, moved and not self._moved  # what came to rest is looked at once more
        self._moved = moved
        early = frame.t_s <= FIRST_POSES_S + OFTEN_S
        self._last, self._next_s = small, frame.t_s + OFTEN_S
        if not (moved or settled or early or frame.t_s >= self._asked_s + SELDOM_S):
            self._before = frame
            return False
        self._before = self._before if self._sets_in else None
        self._asked_s = frame.t_s
        return True

    def _ask(self, frame: VideoFrame) -> None:
        light = float(np.percentile(frame.luma[::8, ::8], 75))
        shaped = not self._picked or frame.t_s >= self._shaped_s + SHAPED_S
        self._shaped_s = frame.t_s if shaped else self._shaped_s
        rgb = frame.rgb()
        self._early_rgb = self._early_rgb if self._picked else rgb
        answer = self._pool.submit(self._seen, frame.t_s, rgb, shaped=shaped, kept=not self._picked)
        self._waiting.append((frame.t_s, light, rgb if shaped and self._closer is not None else None, answer))
        while self._picked and len(self._waiting) > MOST_WAITING:
            self._collect(most=1)

    def _seen(self, t_s: float, rgb: NDArray[np.uint8], *, shaped: bool, kept: bool) -> Seen:
        """Everyone in one picture. shaped: with outlines; kept: whether the masks themselves are needed beyond that: a picture's are as large as it is."""
        if self._pictured is not None:
            self._pictured(t_s, rgb)
        seen = self._network.see(rgb, with_masks=shaped)
        seen = Seen(tuple(replace(body, stickers=stickers_of(rgb, body)) for body in seen.bodies), seen.masks)
        if not shaped:
            return seen
        bodies = (replace(body, shape=outlined(mask, rgb, body)) for body, mask in zip(seen.bodies, seen.masks, strict=True))
        return Seen(tuple(bodies), seen.masks if kept else ())

    def _collect(self, most: int | None = None) -> None:
        for _ in range(len(self._waiting) if most is None else most):
            t_s, light, rgb, answer = self._waiting.pop(0)
            seen = answer.result()
            if rgb is not None and self._closer is not None:
                self._closely[len(self.samples)] = [self._beside.submit(self._closer.see, rgb, body) for body in seen.bodies]
            self.samples.append(PoseSample(t_s=t_s, bodies=seen.bodies, light=light))
            if not self._picked:
                self._masks.append(seen.masks)

    def _pick(self) -> None:
        self._collect()
        width, height = self.size_px
        everyone = pick.everyone(self.samples, width_px=width, height_px=height)
        try:
            first = pick.choose(self.samples, width_px=width, height_px=height)
            everyone = [first, *(p for p in everyone if p.chosen != first.chosen)]  # the one who is read stands first
        except ClipUnusable as why:
            self._refuse(why)
        self.players = everyone[: self._most]
        self._feet = feet_of([s.bodies[i] for p in self.players for s, i in zip(self.samples, p.chosen, strict=False) if i >= 0], self.size_px)
        self._picked = True

    def _refuse(self, why: ClipUnusable) -> None:
        """Who plays may be told by hand, so these are followed all the same; every other reason ends the reading."""
        code = refusal(why.code, self.samples)
        if code != "player_unclear":
            raise ClipUnusable(code, **why.facts) from why
        self.refused = ((code, dict(why.facts)),)  # pyrefly: ignore[bad-assignment]


def _moves(change: NDArray[np.int16]) -> bool:
    """Whether something large moves: much in the middle, or a lot in a few places."""
    return float(change.mean()) > MOVES_GREY or int((change > PLACE_GREY).sum()) >= PLACES


def feet_of(bodies: Sequence[Body], size_px: tuple[int, int]) -> NDArray[np.bool_]:
    """Which places of the small picture are about somebody's feet: [27, 48]."""
    found = np.zeros(SMALL_PX[::-1], bool)
    columns, rows = ((np.arange(count) + 0.5) * side / count for count, side in zip(SMALL_PX, size_px, strict=True))
    for body in bodies:
        around_px = FEET_TRUNKS * lm.trunk_px(body)
        for foot in lm.FEET:
            low, high = body.points_px[list(foot)].min(axis=0) - around_px, body.points_px[list(foot)].max(axis=0) + around_px
            found |= np.outer((rows >= low[1]) & (rows <= high[1]), (columns >= low[0]) & (columns <= high[0]))
    return found
