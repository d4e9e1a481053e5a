"""What the edge saw of the demo clips, saved small, so that most tests need no decoding: ``python -m tests.sightings`` makes them anew.

Texture points and sound are thinned and numbers kept as halves; a test holds one of them against a fresh look.
"""

import functools
from pathlib import Path

import numpy as np

from brevin.core import packing
from brevin.core.evidence import Evidence, evidence, packed
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.track import Points, Sighting

FOLDER = Path(__file__).parent
KIND, VERSION = "sighting", 1
CHECKS = {
    "seated-low-then-wide": Check(card=parse("4-0-4@72x3")), "seated-chest-high": Check(card=parse("3-0-5@76x3")),
    "standing-full-early": Check(card=parse("4-0-6@84x3")), "front-flute-sags": Check(card=parse("3-0-6@72x3")),
}  # fmt: skip
BEHIND_A_POLE = "standing-full-early"  # that is there with a pole before the belly as well
POINTS_EVERY, SOUND_EVERY = 3, 2


def saved(name: str) -> Sighting:
    """The sighting of a demo clip."""
    content = (FOLDER / f"{name}.sighting").read_bytes()
    return packing.unpack(content, Sighting, kind=KIND, version=VERSION)


@functools.cache
def seen_of(name: str) -> Evidence:
    """The evidence of a demo clip, worked out once."""
    return evidence(saved(name))


@functools.cache
def kept_of(name: str) -> bytes:
    """The same as it lies beside a clip."""
    return packed(seen_of(name))


def thinned(seen: Sighting, *, points_every: int = POINTS_EVERY) -> Sighting:
    """Fewer points, half the samples of the sound."""
    from dataclasses import replace

    points, sound = seen.points, seen.sound
    assert points is not None and sound is not None
    kept = np.concatenate([np.flatnonzero(points.on_body)[::points_every], np.flatnonzero(~points.on_body)[::POINTS_EVERY]])
    fewer = Points(
        at_pct=points.at_pct[kept], move_pct=points.move_pct[:, kept], error=points.error[:, kept], on_body=points.on_body[kept],
        unsure_pct=points.unsure_pct[kept],
    )  # fmt: skip
    half = sound.samples[: len(sound.samples) // SOUND_EVERY * SOUND_EVERY].reshape(-1, SOUND_EVERY).mean(axis=1)
    return replace(seen, points=fewer, sound=replace(sound, samples=half, rate_hz=sound.rate_hz // SOUND_EVERY))
