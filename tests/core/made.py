"""Sightings with planted truth, made without a picture: what the edge would have seen of a script."""

import functools
from dataclasses import replace

import numpy as np

from brevin.core.kinematics import profile
from brevin.core.plan.card import CountCard, parse
from brevin.core.pose import landmarks as lm
from brevin.core.pose.shape import ASIDE_PCT, HEIGHTS
from brevin.core.synth import Cycle, Signals, signals
from brevin.core.track import Body, ClipFacts, Features, Picture, Player, Points, PoseSample, Shape, Sighting, Sound, Stickers, Strips

RATE_HZ = 25.0
FIRST_CLICK_S = 0.8
TRUNK_PX = 160.0
STICKER_HUE_DEG = 145.0
HIP_PX = (480.0, 320.0)
OUTLINES_EVERY = 2  # of the looks at key points
LOW = Cycle(abdomen=3.2, chest=1.8, shoulder=0.3)
HIGH = Cycle(abdomen=0.7, chest=2.6, shoulder=3.0, abdomen_window=(0.3, 1.0), chest_window=(0.0, 0.8))


def sighting(
    card_text: str = "4-0-4@72x3",
    cycles: list[Cycle] | None = None,
    *,
    view: str = "side-right",
    position: str = "seated",
    sway_pct: float = 0.3,
    noise_pct: float = 0.03,
    seed: int = 1,
    clicks: bool = True,
    chest_hidden: bool = False,
    lean_deg: float = 4.0,
) -> tuple[Sighting, Signals, CountCard]:
    """A sighting, the planted signals (percent of trunk) and the card."""
    card = parse(card_text)
    cycles = cycles if cycles is not None else [LOW] * card.cycles
    first_s = FIRST_CLICK_S + card.countin_beats * card.beat_s
    length_s = first_s + card.cycles * (card.cycle_beats or 8.0) * card.beat_s + 1.5
    t_s = np.arange(0.0, length_s, 1.0 / RATE_HZ)
    planted = signals(t_s, card, cycles, first_inhale_s=first_s) if cycles else _still(t_s)
    random = np.random.default_rng(seed)
    sway = sway_pct * np.sin(2 * np.pi * 0.21 * t_s + 1.0)
    whole = body(view=view, position=position, lean_deg=lean_deg)
    points = replace(whole, shape=None, features=None)  # outline and face are looked at more seldom than key points
    poses = tuple(PoseSample(t_s=float(t), bodies=(points if i % OUTLINES_EVERY else whole,)) for i, t in enumerate(t_s[::12]))
    made = Sighting(
        clip=ClipFacts("made.mp4", length_s, RATE_HZ, 960, 540, 0, clicks),
        t_s=t_s, poses=poses, player=player(len(poses), view=view), view=view, position=position,
        front=_front(planted, sway, noise_pct, random, chest_hidden=chest_hidden),
        back=_back(sway, noise_pct, random), points=_points(planted, sway, noise_pct, random),
        picture=picture(len(t_s)),
        arms_pct=np.zeros((0, 2, 2)), sound=click_track(card, length_s) if clicks else None,
    )  # fmt: skip
    return made, planted, card


def picture(n: int) -> Picture:
    """A good picture throughout, the camera still."""
    return Picture(np.full(n, 120.0), np.full(n, 25.0), np.full(n, 0.3), np.full(n, 20.0), np.zeros((n, 2)), np.zeros((n, 4)))


def _still(t_s: np.ndarray) -> Signals:
    flat = np.zeros(len(t_s))
    return Signals(t_s=t_s, abdomen=flat, chest=flat, shoulder=flat, planted=())


def _front(planted: Signals, sway: np.ndarray, noise: float, random: np.random.Generator, *, chest_hidden: bool) -> Strips:
    heights = np.arange(-6.0, 48.0 if chest_hidden else 106.0, 3.0)
    travel = (
        planted.abdomen[:, None] * profile.abdomen_share(heights) + planted.chest[:, None] * profile.chest_share(heights) + sway[:, None]
        + noise * random.normal(size=(len(sway), len(heights)))
    )  # fmt: skip
    return _strips(heights, travel, edge=18.0)


def _back(sway: np.ndarray, noise: float, random: np.random.Generator) -> Strips:
    heights = np.arange(-6.0, 106.0, 3.0)
    return _strips(heights, -sway[:, None] + noise * random.normal(size=(len(sway), len(heights))), edge=-18.0)


def _strips(heights: np.ndarray, travel: np.ndarray, *, edge: float) -> Strips:
    k = len(heights)
    return Strips(heights, np.full(k, edge), travel, np.full(travel.shape, 0.1), np.full(k, 20.0))


def _points(planted: Signals, sway: np.ndarray, noise: float, random: np.random.Generator) -> Points:
    places = [(x, y) for x in (-12.0, -6.0, 0.0) for y in (5.0, 15.0, 25.0)] + [(x, y) for x in (-25.0, -8.0, 0.0, 6.0, 25.0) for y in (82.0, 88.0, 94.0)]
    at = np.array(places)
    move = np.zeros((len(sway), len(at), 2))
    move[:, :, 0] = sway[:, None]
    move[:, at[:, 1] > 80, 1] += planted.shoulder[:, None]
    move += noise * random.normal(size=move.shape)
    return points_at(at, move)


def points_at(at: np.ndarray, move: np.ndarray) -> Points:
    """Points of the body that are followed well. at: [p, 2]; move: [n, p, 2]."""
    return Points(at, move, np.full(move.shape[:2], 2.0), np.ones(len(at), bool), np.full(at.shape, 0.02))


def and_points(points: Points, at: np.ndarray, move: np.ndarray) -> Points:
    """The same with more of them."""
    return points_at(np.concatenate([points.at_pct, at]), np.concatenate([points.move_pct, move], axis=1))


def gain(trace: np.ndarray, truth: np.ndarray, t_s: np.ndarray, at_s: np.ndarray) -> float:
    """Size of a trace over that of the planted signal."""
    wanted = np.interp(t_s, at_s, truth)
    wanted, got = wanted - wanted.mean(), trace - trace.mean()
    return float(got @ wanted / (wanted @ wanted))


def marked(one: Body, moved_px: dict[int, tuple[float, float]], hues: dict[int, float] | None = None) -> Body:
    """A body with stickers so far off its key points, by their place among ``landmarks.STICKERS``; hues: of those of another colour."""
    at_px, hue_deg = np.full((6, 2), np.nan), np.full(6, np.nan)
    for at, by in moved_px.items():
        at_px[at] = one.points_px[lm.STICKERS[at]] + by
        hue_deg[at] = (hues or {}).get(at, STICKER_HUE_DEG)
    return replace(one, stickers=Stickers(at_px, hue_deg))


def player(samples: int, *, view: str = "side-right") -> Player:
    """The player of the made bodies."""
    forward = (-1.0, 0.0) if view == "side-left" else (1.0, 0.0)
    return Player((0,) * samples, 0.0, (400.0, 100.0, 160.0, 400.0), 0, TRUNK_PX, HIP_PX, (0.0, -1.0), forward)


TURNED_DEG = {"side-right": 85.0, "side-left": -85.0, "front": 0.0, "three-quarter": 45.0}


def shape(*, bow_pct: float = 0.0, tilt_deg: float = 0.0) -> Shape:
    """An outline. bow_pct: of the back, on both sides alike; tilt_deg: + = the shoulder at the picture's right higher."""
    beside = 20.0 + bow_pct * 4.0 * HEIGHTS * (1.0 - HEIGHTS)
    higher = ASIDE_PCT * np.tan(np.radians(tilt_deg))
    return Shape(beside_pct=np.stack([beside, beside]), over_pct=np.stack([4.0 - higher, 4.0 + higher]))


def features(body_top: np.ndarray, *, tilt_deg: float = 0.0, sure: float = 1.0, long_px: float = 60.0) -> Features:
    """A face above a place. tilt_deg: + = to the picture's left, which is the right of a player who looks into the camera."""
    tilt = np.radians(tilt_deg)
    up, across = np.array([-np.sin(tilt), -np.cos(tilt)]), np.array([np.cos(tilt), -np.sin(tilt)])
    chin = body_top - [0.0, 10.0]
    eyes = chin + 0.6 * long_px * up
    return Features(np.stack([chin + long_px * up, chin]), np.stack([eyes - 20.0 * across, eyes + 20.0 * across]), sure)


def body(
    *, view: str = "side-right", position: str = "seated", lean_deg: float = 4.0, at_px: tuple[float, float] = HIP_PX, trunk_px: float = TRUNK_PX,
    outline: Shape | None = None, face: Features | None = None,
) -> Body:  # fmt: skip
    """Key points, outline and face of one body, feet flat. lean_deg: + = toward the face; outline, face: straight ones where none are given."""
    turn = np.radians(TURNED_DEG[view])
    ahead = np.sign(np.sin(turn)) or 1.0
    lean = np.radians(lean_deg)
    hip = np.array(at_px)
    top = hip + trunk_px * np.array([ahead * np.sin(lean), -np.cos(lean)])
    if position == "lying":
        top = hip + np.array([trunk_px, 0.0])
    half = 0.3 * trunk_px * np.cos(turn)
    points = np.tile(hip, (33, 1))
    points[lm.SHOULDER_L], points[lm.SHOULDER_R] = top + [half, 0], top - [half, 0]
    points[lm.HIP_L], points[lm.HIP_R] = hip + [0.6 * half, 0], hip - [0.6 * half, 0]
    head = top + (top - hip) * 0.35
    points[[lm.EAR_L, lm.EAR_R]] = head
    points[lm.NOSE] = head + [0.16 * trunk_px * np.sin(turn), 0]
    down = {"seated": (0.15, 1.0), "standing": (0.75, 1.5), "lying": (0.0, 0.0)}[position]
    points[[lm.KNEE_L, lm.KNEE_R]] = hip + [0, down[0] * trunk_px]
    points[[lm.ANKLE_L, lm.ANKLE_R]] = hip + [0, down[1] * trunk_px]
    points[[lm.HEEL_L, lm.HEEL_R]] = points[lm.ANKLE_L] + [0, 0.1 * trunk_px]
    points[[lm.TOE_L, lm.TOE_R]] = points[lm.HEEL_L] + [0.4 * trunk_px * np.sin(turn), 0]
    world = np.zeros((33, 3))
    line = 0.15 * np.array([np.cos(turn), 0.0, np.sin(turn)])
    world[lm.SHOULDER_L], world[lm.SHOULDER_R] = line, -line
    world[lm.HIP_L], world[lm.HIP_R] = line, -line
    return Body(points_px=points, visibility=np.ones(33), world=world, shape=outline or shape(), features=face or features(top))


@functools.cache
def click_track(card: CountCard, length_s: float, *, tone_db: float | None = None, rate_hz: int = 22050, starts_s: float = 0.0) -> Sound:
    """Clicks on every beat from the first on, over a hush, with or without a tone so many decibels louder than the clicks."""
    random = np.random.default_rng(5)
    heard = 0.001 * random.normal(size=int(length_s * rate_hz))
    click_t = np.arange(int(0.03 * rate_hz)) / rate_hz
    click = 0.3 * np.exp(-click_t / 0.006) * np.sin(2 * np.pi * 1900 * click_t)
    for at in np.arange(FIRST_CLICK_S - starts_s, length_s - 0.1, card.beat_s):
        i = int(round(at * rate_hz))
        heard[i : i + len(click)] += click
    if tone_db is not None:
        t = np.arange(len(heard)) / rate_hz
        on = (t > 4.0) & (t < length_s - 2.0)
        level = 0.3 * 0.2 * 10 ** (tone_db / 20)
        heard += on * level * sum(np.sin(2 * np.pi * 233.1 * k * t) / k for k in (1, 2, 3, 4))
    return Sound(heard.astype(np.float32), rate_hz, starts_s)
