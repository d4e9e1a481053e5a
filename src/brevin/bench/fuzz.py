"""Clips spoiled at random, their bytes too: each has to end in a report or in a reason that can be said, whatever card, instrument, side and position is asked
for. ``./brevin bench fuzz``; BREVIN_FUZZ names the first seed, so that others are tried than last time."""

import json
import os
import random
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import get_args

import cv2
import numpy as np

from brevin.bench import Measured
from brevin.bench.accuracy import OWN
from brevin.bench.worse import Rgb, remade
from brevin.core.errors import ClipUnusable
from brevin.core.kinds import INSTRUMENTS, AskedPosition, AskedView
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.edge.clip_work import READ_LIMITS
from brevin.edge.limited import Children, Died, Told
from brevin.ops.settings import ROOT, model_path

CLIPS, ASKED_EACH = 60, 3
CARDS = (None, "3-0-7@72x4", "0.5-0-8@80x6", "2-2-*@60x2", "1-0-4-2@90x5+2", "12-6-20@200x1")
PICTURES_S = 40.0  # longer ones than any of the clips: a spoil may last to the end
RATE_HZ = 25


def black(rgb: Rgb, a: float, b: float) -> Rgb:
    """Nothing, or all white."""
    return np.full_like(rgb, 255 * round(a))


def noise(rgb: Rgb, a: float, b: float) -> Rgb:
    """Grain alone."""
    return np.random.default_rng(int(rgb[::32, ::32].sum())).integers(0, 256, rgb.shape, dtype=np.uint8)


def shifted(rgb: Rgb, a: float, b: float) -> Rgb:
    """The camera looks elsewhere; what goes out on one side comes in on the other."""
    return np.roll(rgb, (int((a - 0.5) * rgb.shape[0]), int((b - 0.5) * rgb.shape[1])), (0, 1))


def turned(rgb: Rgb, a: float, b: float) -> Rgb:
    """The phone turned by any angle, nearer or farther."""
    height, width = rgb.shape[:2]
    return np.asarray(cv2.warpAffine(rgb, cv2.getRotationMatrix2D((width / 2, height / 2), 360.0 * a, 0.3 + 2.0 * b), (width, height)), np.uint8)


def mirrored(rgb: Rgb, a: float, b: float) -> Rgb:
    """Left for right, or upside down."""
    return np.ascontiguousarray(rgb[:, ::-1] if a < 0.5 else rgb[::-1])


def covered(rgb: Rgb, a: float, b: float) -> Rgb:
    """Something before the lens, upright or across."""
    found, axis = rgb.copy(), round(b)
    from_px = int(0.8 * a * rgb.shape[axis])
    strip = slice(from_px, from_px + int(0.3 * rgb.shape[axis]))
    found[(strip, slice(None)) if axis == 0 else (slice(None), strip)] = int(255 * a)
    return found


def dim(rgb: Rgb, a: float, b: float) -> Rgb:
    """The light goes out."""
    return np.asarray(rgb * (0.02 + 0.5 * a), np.uint8)


def soft(rgb: Rgb, a: float, b: float) -> Rgb:
    """Out of focus."""
    return np.asarray(cv2.GaussianBlur(rgb, (0, 0), 1.0 + 20.0 * a), np.uint8)


def coarse(rgb: Rgb, a: float, b: float) -> Rgb:
    """A handful of squares."""
    height, width = rgb.shape[:2]
    small = cv2.resize(rgb, (max(2, int((0.02 + 0.2 * a) * width)), max(2, int((0.02 + 0.2 * a) * height))))
    return np.asarray(cv2.resize(small, (width, height), interpolation=cv2.INTER_NEAREST), np.uint8)


SPOILS: tuple[Callable[[Rgb, float, float], Rgb], ...] = (black, noise, shifted, turned, mirrored, covered, dim, soft, coarse)


@dataclass(frozen=True)
class Outcome:
    """What one clip ended in. said: a report, a reason's code, or what failed."""

    seed: int
    said: str
    failed: bool
    took_s: float


def measure() -> Measured:
    """How many spoiled clips ended in nothing that can be said to a person, and how long the longest took."""
    first = int(os.environ.get("BREVIN_FUZZ", "0"))
    with ProcessPoolExecutor(2) as pool:
        outcomes = list(pool.map(tried, range(first, first + CLIPS)))
    for one in outcomes:
        if one.failed:
            print(f"seed {one.seed}: {one.said}", file=sys.stderr)
    figures = {
        "clips": float(len(outcomes)), "failed": float(sum(one.failed for one in outcomes)),
        "read": float(sum(one.said == "report" for one in outcomes)), "longest_s": max(one.took_s for one in outcomes),
    }  # fmt: skip
    return Measured("fuzz", figures, {"failed": ("<=", 0.0)})


def tried(seed: int) -> Outcome:
    """One clip, spoiled by a seed, read in a limited child."""
    with tempfile.TemporaryDirectory() as scratch:
        clip = spoiled(sorted(OWN.glob("*.mp4")), Path(scratch) / "spoiled.mp4", seed)
        began = time.monotonic()
        try:
            said, failed = str(Children(straight=True).call(judged, str(clip), str(model_path(ROOT)), seed, limits=READ_LIMITS)), False
        except ClipUnusable as why:
            said, failed = why.code, False
        except Died as why:
            said, failed = str(why), True
        return Outcome(seed, said, failed, time.monotonic() - began)


def spoiled(clips: list[Path], target: Path, seed: int) -> Path:
    """One of the clips with up to three spoils, each from a moment to another, and in a third of the cases some wrong bytes."""
    chance = random.Random(seed)  # noqa: S311 (nothing secret)
    events = []
    for _ in range(chance.choice((1, 1, 2, 3))):
        at_s = chance.uniform(0.0, 25.0)
        events.append((at_s, at_s + chance.choice((0.04, 0.4, 2.0, 8.0, PICTURES_S)), chance.choice(SPOILS), chance.random(), chance.random()))

    def picture(rgb: Rgb, number: int) -> Rgb:
        for from_s, to_s, spoil, a, b in events:
            if from_s <= number / RATE_HZ < to_s:
                rgb = spoil(rgb, a, b)
        return rgb

    remade(chance.choice(clips), target, picture, every=chance.choice((1, 1, 2, 4)))
    if chance.random() < 1 / 3:
        content = bytearray(target.read_bytes())
        for _ in range(chance.choice((1, 5, 20, 100))):
            content[chance.randrange(len(content))] = chance.randrange(256)
        target.write_bytes(content)
    return target


def judged(told: Told, path: str, model: str, seed: int) -> str:
    """In the child: seen, packed and unpacked, and judged as several tasks would. "report" where each gave one. Raises ClipUnusable."""
    from brevin.core.evidence import evidence, packed, unpacked
    from brevin.core.plain import to_json
    from brevin.core.read import Task, judge
    from brevin.core.verdict.wording import with_sentences
    from brevin.edge.look import look

    chance = random.Random(seed)  # noqa: S311 (nothing secret)
    view = chance.choice(get_args(AskedView))
    seen = unpacked(packed(evidence(look(Path(path), Path(model), view=view))))
    for _ in range(ASKED_EACH):
        card, held = chance.choice(CARDS), chance.choice(INSTRUMENTS)
        check = Check(
            card=parse(card) if card else None, view=view, position=chance.choice(get_args(AskedPosition)), instrument=held, with_instrument=held != "none"
        )
        json.dumps(with_sentences(to_json(judge(seen, Task(check)).report)), allow_nan=False)
    return "report"
