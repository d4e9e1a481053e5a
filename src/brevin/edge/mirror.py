"""The live mirror: the same outline, texture and traces as a reading's, followed picture by picture over the last seconds. Nothing is kept."""

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.core.gate import refusal
from brevin.core.kinematics.rigid import rise
from brevin.core.kinematics.traces import traces
from brevin.core.pose import landmarks as lm
from brevin.core.pose import player as pick
from brevin.core.pose.view import position_of, view_of
from brevin.core.track import WORK_SIDE_PX, ClipFacts, Floats, Picture, Player, PoseSample, Sighting
from brevin.edge import film as trunk_film
from brevin.edge.exposure import Exposure
from brevin.edge.gaps import without_gaps
from brevin.edge.live import Rgb, larger
from brevin.edge.points import Texture
from brevin.edge.pose_model import PoseModel
from brevin.edge.strips import Outline

SHOWN_S, SHOWN_HZ = 8.0, 12.5  # of the past, and how densely
FIRST_POSES = 4  # pick the player
REFERENCE_FRAMES = 8  # averaged into the reference
LOOKED_AT_EVERY_S = 2.0  # whether the player still sits there: one look costs as much as four pictures
GONE_PCT = 9.0  # of trunk: further than this from the place of the reference it begins anew
MOST_FRAMES = 100
STEP_PCT = 6.0  # between strips: half as many as a reading's, so that ten pictures a second are followed
AT_PCT = {"abdomen": (22.0, 30.0), "chest": (20.0, 72.0), "shoulder": (0.0, 100.0)}
"""Where each lane's mark stands on the body, percent of trunk: forward, up."""


@dataclass
class _Followed:
    """One player who is followed. t_s: of the pictures that are remembered."""

    player: Player
    body_map: trunk_film.BodyMap
    exposure: Exposure
    texture: Texture
    front: Outline
    back: Outline
    arms_pct: Floats
    samples: list[PoseSample]
    t_s: list[float]


class Mirror:
    """One camera's mirror. Looks for a player, takes a reference, follows; begins anew when the player moves away."""

    def __init__(self, network: PoseModel) -> None:
        self._network = network
        self._followed: _Followed | None = None
        self._samples: list[PoseSample] = []
        self._masks: list[NDArray[np.float32]] = []
        self._early: list[NDArray[np.uint8]] = []
        self._looked_s = 0.0

    def see(self, rgb: Rgb, t_s: float) -> dict[str, Any]:
        """Look at the next picture. Returns ``state`` (a reason code, "looking", or "seen" with the lanes of the last seconds)."""
        scale = WORK_SIDE_PX / max(rgb.shape[:2])
        grey = np.asarray(cv2.resize(cv2.cvtColor(rgb, cv2.COLOR_RGB2GRAY), None, fx=scale, fy=scale), np.uint8)
        if self._followed is None:
            return self._look(rgb, grey, t_s, scale)
        one = self._followed
        if t_s <= one.t_s[-1]:
            return self._lanes(one, grey.shape)  # overtaken by a later one: what is known stands
        if t_s - self._looked_s > LOOKED_AT_EVERY_S:
            self._looked_s = t_s
            if not self._still_there(rgb, t_s, scale):
                self._begin_anew()
                return {"state": "looking"}
        picture = one.body_map.apply(grey)
        light = one.exposure.light(picture[None])
        one.texture.see(next(light.evened(picture[None])))
        risen = rise(one.texture.points(latest=1), one.arms_pct)
        one.front.see(picture[None], risen, light)
        one.back.see(picture[None], risen, light)
        one.t_s.append(t_s)
        if len(one.t_s) > MOST_FRAMES:
            one.t_s = one.t_s[-MOST_FRAMES:]
            for part in (one.texture, one.front, one.back):
                part.keep_latest(MOST_FRAMES)
        return self._lanes(one, grey.shape)

    def _look(self, rgb: Rgb, grey: NDArray[np.uint8], t_s: float, scale: float) -> dict[str, Any]:
        seen = self._network.see(rgb, with_masks=True)
        self._samples.append(PoseSample(t_s=t_s, bodies=tuple(larger(body, scale) for body in seen.bodies), light=float(np.percentile(grey[::8, ::8], 75))))
        self._samples = self._samples[-FIRST_POSES:]
        height, width = grey.shape
        try:
            player = pick.choose(self._samples, width_px=width, height_px=height)
        except ClipUnusable as why:
            self._masks, self._early = [], []
            return {"state": refusal(why.code, self._samples)}
        index = player.chosen[-1]
        if index < 0 or index >= len(seen.masks):
            return {"state": "looking"}
        self._masks.append(np.asarray(cv2.resize(seen.masks[index], (width, height)), np.float32))
        self._early.append(grey)
        if len(self._early) >= REFERENCE_FRAMES:
            self._follow(player, t_s, np.asarray(cv2.resize(rgb, (width, height), interpolation=cv2.INTER_AREA), np.uint8))
        return {"state": "looking"}

    def _follow(self, player: Player, t_s: float, rgb: Rgb) -> None:
        turn = trunk_film.body_map(player)
        mask: NDArray[np.float32] = turn.apply(np.mean(self._masks[-FIRST_POSES:], axis=0))
        reference: Floats = np.stack([turn.apply(grey) for grey in self._early]).astype(float).mean(axis=0)
        bodies = [s.bodies[i] for s, i in zip(self._samples, player.chosen, strict=True) if i >= 0]
        arms_pct = trunk_film.arms_of(bodies, player)
        front = Outline(mask, reference, outward=1, step_pct=STEP_PCT, cut=without_gaps(turn.apply(rgb), mask, arms_pct))
        back = Outline(mask, reference, outward=-1, step_pct=STEP_PCT)
        texture = Texture(mask, np.asarray(reference, np.uint8))
        self._followed = _Followed(player, turn, Exposure(reference, across=turn.lying), texture, front, back, arms_pct, list(self._samples), [t_s])
        for part in (self._followed.front, self._followed.back):
            part.see(np.asarray(reference, np.uint8)[None], np.zeros(1))
        self._followed.texture.see(np.asarray(reference, np.uint8))
        self._looked_s = t_s

    def _still_there(self, rgb: Rgb, t_s: float, scale: float) -> bool:
        assert self._followed is not None
        bodies = [larger(body, scale) for body in self._network.see(rgb, with_masks=False).bodies]
        player = self._followed.player
        away = [float(np.hypot(*(lm.hips(body) - np.array(player.hip_px)))) / player.trunk_px * 100.0 for body in bodies]
        return bool(away) and min(away) < GONE_PCT

    def _begin_anew(self) -> None:
        self._followed = None
        self._samples, self._masks, self._early = [], [], []

    def _lanes(self, one: _Followed, shape: tuple[int, ...]) -> dict[str, Any]:
        if len(one.t_s) < 4:
            return {"state": "looking"}
        bodies = [s.bodies[i] for s, i in zip(one.samples, one.player.chosen, strict=True) if i >= 0]
        seen = Sighting(
            clip=ClipFacts("", 0.0, 0.0, shape[1], shape[0], 0, False), t_s=np.array(one.t_s), poses=tuple(one.samples), player=one.player,
            view=view_of(bodies), position=position_of(bodies), front=one.front.strips(), back=one.back.strips(), points=one.texture.points(),
            picture=_no_picture(), arms_pct=one.arms_pct, sound=None,
        )  # fmt: skip
        found = traces(seen)
        shown = np.arange(max(found.t_s[0], found.t_s[-1] - SHOWN_S), found.t_s[-1] + 1e-6, 1.0 / SHOWN_HZ)
        lanes = {name: np.round(np.interp(shown, found.t_s, getattr(found, name)), 3).tolist() if found.seen[name] else [] for name in AT_PCT}
        return {"state": "seen", "t_s": np.round(shown, 3).tolist(), **lanes, "at": {name: _place(one.player, at, shape) for name, at in AT_PCT.items()}}


def _place(player: Player, at_pct: tuple[float, float], shape: tuple[int, ...]) -> list[float]:
    """A place of the body in the picture, shares of its width and height."""
    px = np.array(player.hip_px) + player.trunk_px / 100.0 * (at_pct[0] * np.array(player.forward) + at_pct[1] * np.array(player.up))
    return [round(float(px[0]) / shape[1], 4), round(float(px[1]) / shape[0], 4)]


def _no_picture() -> Picture:
    nothing = np.zeros(0)
    return Picture(light=nothing, detail=nothing, change=nothing, clear=nothing, room_pct=np.zeros((0, 2)))
