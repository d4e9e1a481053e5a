"""A still picture that breathes: one frame of a clip, moved by planted fields, with fresh noise, coded as a phone would.

Many clips with known truth in minutes, of any picture in which the outline is free. The fields are drawn at random and are not the
profile the reading assumes (``core/kinematics/profile.py``), so that the reading is not measured against itself.
"""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import cv2
import numpy as np

from brevin.core.plan.card import parse
from brevin.core.pose import player as pick
from brevin.core.pose.view import position_of, view_of
from brevin.core.synth import Cycle, Signals, signals
from brevin.core.track import Floats, Player, PoseSample
from brevin.edge import film
from brevin.edge.pose_model import PoseModel
from brevin.edge.video import video_frames
from brevin.standin import tape
from brevin.standin.sinks import Sinks

TRUNK_MM = 450.0  # the still's trunk is taken to be this long; only ratios are read
CALM_S = 0.8
STILL_UNTIL_S = 0.5  # pictures of the count-in that are averaged: nobody has breathed in yet
OUTSIDE_PCT, FADE_PCT = 5.0, 16.0  # the room moves with the outline this far out, and fades to rest over the next
NOISES = 12  # noise pictures that are drawn once and shifted


@dataclass(frozen=True)
class Still:
    """One picture with the player in it. rgb: [height, width, 3]; body: [height, width], 0 to 1; edge_pct: front outline by height, percent."""

    name: str
    rgb: np.ndarray
    body: np.ndarray
    player: Player
    view: str
    position: str
    points_px: Floats


@dataclass(frozen=True)
class Take:
    """What is planted. amplitudes of the cycles in percent of trunk; centre and width of the two bumps in percent of trunk height;
    fidget: rocking in the count-in, until ``CALM_S`` before the first breath; zoom: from the middle of
    the clip on; sinks: from the first breath to the end, evenly."""

    name: str
    card: str
    cycles: tuple[Cycle, ...]
    abdomen: tuple[float, float] = (24.0, 13.0)
    chest: tuple[float, float] = (71.0, 14.0)
    sway_pct: float = 0.3
    fidget_pct: float = 0.0
    zoom: float = 1.0
    sinks_deg: float = 0.0
    shake_px: float = 0.0
    noise: float = 1.5
    crf: str = "26"
    rate_hz: int = 25
    seed: int = 1


def still_of(clip: Path, model: Path, *, mirrored: bool = False) -> Still:
    """The mean picture of a clip's first half second, with its player. Raises ClipUnusable where nobody is seen."""
    frames = list(video_frames(clip, until_s=STILL_UNTIL_S, fastest_hz=30.0))
    rgb = np.mean([f.rgb().astype(np.float32) for f in frames], axis=0)
    rgb = np.ascontiguousarray(rgb[:, ::-1] if mirrored else rgb)
    network = PoseModel(model)
    try:
        seen = network.see(np.clip(rgb, 0, 255).astype(np.uint8), with_masks=True)
    finally:
        network.close()
    sample = PoseSample(t_s=0.0, bodies=seen.bodies)
    player = pick.choose([sample] * 3, width_px=rgb.shape[1], height_px=rgb.shape[0])
    chosen = player.chosen[0]
    bodies = [seen.bodies[chosen]]
    return Still(
        name=clip.stem + ("-mirrored" if mirrored else ""), rgb=rgb, body=seen.masks[chosen], player=player, view=view_of(bodies),
        position=position_of(bodies), points_px=bodies[0].points_px,
    )  # fmt: skip


def take(still: Still, planted: Take, folder: Path) -> Path:
    """Make one clip and its truth; returns the clip's path."""
    card = parse(planted.card)
    first_s, length_s, t_s = tape.planted_times(card, len(planted.cycles), planted.rate_hz)
    breath = signals(t_s, card, list(planted.cycles), first_inhale_s=first_s)
    clip = folder / f"{planted.name}.mp4"
    height, width = (n - n % 2 for n in still.rgb.shape[:2])
    heard = tape.sound(card, breath, length_s, tone=False, seed=planted.seed)
    tape.write(clip, _pictures(still, planted, breath), heard, rate_hz=planted.rate_hz, size_px=(width, height), crf=planted.crf, preset="veryfast")
    asked = {"inhale_beats": card.inhale_beats, "hold_beats": card.pause_beats, "exhale_beats": card.exhale_beats, "bpm": card.tempo_bpm}
    points = {k: [still.points_px[i].round(2).tolist()] * len(t_s) for k, i in POINTS.items()}
    truth: dict[str, Any] = {
        "id": planted.name, "readable": True, "scenario": {"breath": {**asked, "cycles": len(planted.cycles)}},
        "label": {"view": still.view.replace("-", "_"), "position": still.position, "instrument": None, "arms": "relaxed", "posed": "as seen"},
        "fps": planted.rate_hz, "width": width, "height": height, "duration_s": round(length_s, 4),
        "camera": {"px_per_mm_torso": still.player.trunk_px / TRUNK_MM}, "beat_s": card.beat_s, "first_inhale_beat_s": first_s,
        "cycles": [tape.cycle(i, b, card, first_s, mm=TRUNK_MM / 100) for i, b in enumerate(breath.planted)],
        "per_frame": {
            "t": t_s.round(4).tolist(),
            **{f"{k}_mm": (getattr(breath, k) * TRUNK_MM / 100).round(4).tolist() for k in ("abdomen", "chest", "shoulder")},
            "keypoints_px": {k: v for k, v in points.items() if k != "nose"}, "joints_px": {"nose": points["nose"]},
        },
    }  # fmt: skip
    clip.with_suffix(".json").write_text(json.dumps(truth, separators=(",", ":")))
    return clip


POINTS = {"nose": 0, "shoulder_l": 11, "shoulder_r": 12, "hip_l": 23, "hip_r": 24}


@dataclass(frozen=True)
class _Fields:
    """Displacement at every pixel for an amplitude of 1 % of trunk, px: [height, width, 2] each; sway turns the body about its hips."""

    abdomen: np.ndarray
    chest: np.ndarray
    shoulder: np.ndarray
    sway: np.ndarray


def _fields(still: Still, planted: Take) -> _Fields:
    player, size = still.player, still.rgb.shape[:2]
    grid = np.stack(np.meshgrid(np.arange(size[1]), np.arange(size[0])), axis=-1).astype(np.float32)
    at = film.to_body_pct(grid.astype(float), player).astype(np.float32)
    ahead, height = at[..., 0], at[..., 1]
    edge = _front_edge(still)
    front = np.interp(height, edge[0], edge[1]).astype(np.float32)
    depth = np.clip((ahead + 0.4 * front) / (1.3 * front), 0.0, 1.0) * _fade(ahead - front)
    px = still.player.trunk_px / 100
    forward, up = (np.array(v, np.float32) * px for v in (player.forward, player.up))
    sides = _fade(np.abs(ahead) - 16.0)
    lifted = np.clip((height - 62.0) / 26.0, 0.0, 1.0) * np.clip((118.0 - height) / 20.0, 0.0, 1.0) * sides
    whole = cv2.GaussianBlur(cv2.dilate(still.body, np.ones((25, 25), np.uint8)), (0, 0), 9.0)
    return _Fields(
        abdomen=(_bump(height, *planted.abdomen) * depth)[..., None] * forward,
        chest=(_bump(height, *planted.chest) * depth)[..., None] * forward,
        shoulder=lifted[..., None].astype(np.float32) * up,
        sway=(whole * np.clip(height / 100.0, 0.0, 1.3))[..., None].astype(np.float32) * forward,
    )


def _sinks(still: Still, size_px: tuple[int, int], deg: float) -> Sinks:
    places = (still.points_px[[POINTS[f"{joint}_l"], POINTS[f"{joint}_r"]]].mean(axis=0) for joint in ("hip", "shoulder"))
    return Sinks(size_px, *places, ahead=float(np.sign(still.player.forward[0])), deg=deg)


def _bump(height: np.ndarray, centre: float, width: float) -> np.ndarray:
    return np.exp(-0.5 * ((height - centre) / width) ** 4 / 2)


def _fade(past: np.ndarray) -> np.ndarray:
    """1 up to a little outside, then down to 0."""
    x = np.clip((past - OUTSIDE_PCT) / FADE_PCT, 0.0, 1.0)
    return 0.5 * (1.0 + np.cos(np.pi * x))


def _front_edge(still: Still) -> tuple[np.ndarray, np.ndarray]:
    """How far the body reaches forward at each height of the trunk, percent; arms and instruments are cut at the usual depth."""
    turned = film.body_map(still.player).apply(still.body)
    axis = int(film.column(0.0))
    heights = np.arange(-10.0, 118.0, 2.0)
    ends = []
    for height in heights:
        ray = turned[int(film.row(height)), axis:]
        out = np.flatnonzero(ray < 0.5)
        ends.append(float(np.clip((out[0] if len(out) else len(ray)) / film.PX_PER_PCT, 8.0, 24.0)))
    smooth = np.convolve(np.pad(ends, 3, mode="edge"), np.ones(7) / 7, mode="valid")
    return heights, smooth


def _pictures(still: Still, planted: Take, breath: Signals) -> Iterator[np.ndarray]:
    random = np.random.default_rng(planted.seed)
    fields = _fields(still, planted)
    height, width = (n - n % 2 for n in still.rgb.shape[:2])
    place = np.stack(np.meshgrid(np.arange(width), np.arange(height)), axis=-1).astype(np.float32)
    noise = [np.repeat(random.normal(0.0, planted.noise, (height, width, 1)).astype(np.float32), 3, axis=2) for _ in range(NOISES)]
    nothing = np.zeros(0, np.float32)
    phase = random.uniform(0, 2 * np.pi, 6)
    parts = [np.ascontiguousarray(f[:height, :width]) for f in (fields.abdomen, fields.chest, fields.shoulder, fields.sway)]
    sinks = _sinks(still, (width, height), planted.sinks_deg) if planted.sinks_deg else None
    zoomed = cv2.getRotationMatrix2D((width / 2, height / 2), 0.0, 1.0 / planted.zoom)
    for i, t in enumerate(breath.t_s):
        sway = planted.sway_pct * (np.sin(2 * np.pi * 0.19 * t + phase[0]) + 0.6 * np.sin(2 * np.pi * 0.071 * t + phase[1]))
        sway += planted.fidget_pct * np.sin(2 * np.pi * 0.8 * t) * np.clip((breath.planted[0].inhale_start_s - CALM_S - t) / 0.3, 0.0, 1.0)
        shake = planted.shake_px * np.array([np.sin(2 * np.pi * f * t + p) for f, p in ((0.9, phase[2]), (1.3, phase[3]))])
        source = place - shake.astype(np.float32)
        for part, size in zip(parts, (breath.abdomen[i], breath.chest[i], breath.shoulder[i], sway), strict=True):
            cv2.scaleAdd(part, -float(size), source, source)
        if planted.zoom != 1.0 and 2 * i > len(breath.t_s):
            cv2.warpAffine(source.copy(), zoomed, (width, height), source, flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_REPLICATE)
        if sinks is not None:
            source = sinks.of(source, float(np.clip((t - breath.planted[0].inhale_start_s) / (breath.t_s[-1] - breath.planted[0].inhale_start_s), 0.0, 1.0)))
        picture = cv2.remap(still.rgb, source, nothing, cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE)
        rolled = np.roll(noise[i % NOISES], tuple(random.integers(0, 200, 2)), axis=(0, 1))
        yield cv2.add(picture, rolled, dtype=cv2.CV_8U)
