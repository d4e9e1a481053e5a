"""The same clips in other pictures: in a mirror, under a lamp's bands, through a lens that looks for its focus, filmed from the hand, by a phone that stands
tilted, while somebody crosses before the player. What is read of a player must hang on none of that.

A reading that was built with some clips in sight is fitted to their very pictures, down to which point of a shirt is followed; changed like this they are new
pictures of the same breath, and nobody has to film them. Left out of the mirror are flutes, which lie to one side. Clips as in ``accuracy.py``: the project's
own, and those of the folders named in BREVIN_CLIPS.
"""

import json
import os
import sys
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.bench import Measured
from brevin.bench.accuracy import OWN, SAME_BREATH_S
from brevin.bench.worse import remade
from brevin.core.read import Task, read
from brevin.core.report import Breath, Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

FOUND_LEAST, ONSET_P90_S = 0.98, 0.15  # of the breaths; between the starts in nine of ten
LEAN_DEG = 1.0  # between the trunk's inclinations, in the middle
ASIDE = ("flute", "piccolo")
CODER = 16.0  # hardly any trace of it
BANDS, BAND_SHARE, ROLLS_HZ = 2.0, 0.06, 0.25  # of a lamp on the mains: over the picture's height, how much lighter and darker, how often one rolls by
ZOOM, ZOOM_S, HOLDS_S = 0.01, 0.5, 5.0  # of a lens: as much larger, within this time, for as long as this and back again
HAND_SHARE, HAND_DEG, CLOSER = (
    0.004,
    0.5,
    1.02,
)  # of a hand: its ways aside and up, of the picture's width, its turn, and how much closer, so that no border shows
TILT_DEG = 5.0  # of a phone that leans on something
CROSSES_S, CROSSING_S, WIDE_SHARE, CLOTH = (6.0, 13.0), 2.0, 0.14, (90, 60, 50)  # when somebody comes, for how long, how wide, of the picture, and in what

Rgb = NDArray[np.uint8]


def in_a_mirror(rgb: Rgb, t_s: float) -> Rgb:
    """Right is left."""
    return np.ascontiguousarray(rgb[:, ::-1])


def under_bands(rgb: Rgb, t_s: float) -> Rgb:
    """Lamps on the mains: bands of light and shade that roll through the picture about as often as one breathes."""
    height = rgb.shape[0]
    light = 1.0 + BAND_SHARE * np.sin(2.0 * np.pi * (BANDS * np.arange(height) / height - ROLLS_HZ * t_s))
    return np.clip(rgb * light[:, None, None].astype(np.float32), 0, 255).astype(np.uint8)


def through_a_lens(rgb: Rgb, t_s: float) -> Rgb:
    """A lens that looks for its focus: a little larger, and back, again and again."""
    since_s = t_s % (2.0 * HOLDS_S) - 0.5 * HOLDS_S
    larger = 1.0 + ZOOM * float(np.clip(since_s / ZOOM_S, 0.0, 1.0) - np.clip((since_s - HOLDS_S) / ZOOM_S, 0.0, 1.0))
    height, width = rgb.shape[:2]
    move = np.array([[larger, 0.0, (1.0 - larger) * width / 2.0], [0.0, larger, (1.0 - larger) * height / 2.0]])
    return np.asarray(cv2.warpAffine(rgb, move, (width, height), flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE), np.uint8)


def from_the_hand(rgb: Rgb, t_s: float) -> Rgb:
    """A hand that holds the phone, and cannot keep it still: slow ways and a tremor, aside, up and down and about the middle."""
    height, width = rgb.shape[:2]
    aside = np.sin(2.0 * np.pi * 0.33 * t_s) + 0.5 * np.sin(2.0 * np.pi * 1.3 * t_s + 1.0)
    up = np.sin(2.0 * np.pi * 0.27 * t_s + 2.0) + 0.4 * np.sin(2.0 * np.pi * 1.7 * t_s)
    move = cv2.getRotationMatrix2D((width / 2.0, height / 2.0), HAND_DEG * float(np.sin(2.0 * np.pi * 0.21 * t_s + 0.5)), CLOSER)
    move[:, 2] += HAND_SHARE * width * np.array([aside, up])
    return np.asarray(cv2.warpAffine(rgb, move, (width, height), flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE), np.uint8)


def tilted(rgb: Rgb, t_s: float) -> Rgb:
    """A phone that does not stand straight."""
    height, width = rgb.shape[:2]
    turn = cv2.getRotationMatrix2D((width / 2.0, height / 2.0), TILT_DEG, 1.0)
    return np.asarray(cv2.warpAffine(rgb, turn, (width, height), flags=cv2.INTER_CUBIC, borderMode=cv2.BORDER_REPLICATE), np.uint8)


def crossed(rgb: Rgb, t_s: float) -> Rgb:
    """Somebody walks through the picture before the player, there and later back: as tall as the picture, in striped cloth."""
    height, width = rgb.shape[:2]
    seen = rgb.copy()
    for way, begins_s in zip((1.0, -1.0), CROSSES_S, strict=True):
        share = (t_s - begins_s) / CROSSING_S
        if 0.0 <= share <= 1.0:
            middle = width * ((share if way > 0 else 1.0 - share) * (1.0 + 2.0 * WIDE_SHARE) - WIDE_SHARE)
            columns = slice(*(int(np.clip(middle + side * WIDE_SHARE * width / 2.0, 0, width)) for side in (-1.0, 1.0)))
            stripes = 25.0 * np.sin(0.13 * np.arange(height) + 8.0 * t_s)
            seen[:, columns] = np.clip(np.array(CLOTH) + stripes[:, None, None], 0, 255).astype(np.uint8)
    return seen


WAYS: dict[str, Callable[[Rgb, float], Rgb]] = {
    "mirror": in_a_mirror, "bands": under_bands, "lens": through_a_lens, "hand": from_the_hand, "tilted": tilted, "crossed": crossed,
}  # fmt: skip
ONSETS = ("inhale_start_s", "exhale_start_s")
BARS = {"found_in_both": (">=", FOUND_LEAST), "named_otherwise": ("<=", 0.0), "onset_p90_s": ("<=", ONSET_P90_S), "lean_median_deg": ("<=", LEAN_DEG)}


@dataclass(frozen=True)
class Pair:
    """What was read of a clip, and of the same clip in other pictures."""

    name: str
    plain: Report
    other: Report

    @property
    def breaths(self) -> list[tuple[Breath, Breath | None]]:
        """Each breath, with the one that begins at its moment in the other pictures, or None."""
        return [(one, _same(one, self.other.breaths)) for one in self.plain.breaths]

    @property
    def extra(self) -> int:
        """Breaths that are seen in the other pictures alone."""
        return sum(_same(one, self.plain.breaths) is None for one in self.other.breaths)


def measure() -> Measured:
    """How alike clips read in other pictures, by way; clips of which either is refused for the breath are counted and told."""
    folders = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    truths = [file for folder in folders for file in sorted(folder.glob("*.json")) if file.with_suffix(".mp4").exists() and _is_of_the_breath(file)]
    with ProcessPoolExecutor(2) as pool:
        read = list(pool.map(_all_ways, truths))
    by_way = {way: [pairs[way] for pairs in read if way in pairs] for way in WAYS}
    figures = {f"{way}_{name}": value for way, pairs in by_way.items() for name, value in alike(pairs, way).items()}
    return Measured("alike", figures, {f"{way}_{name}": bar for way in WAYS for name, bar in BARS.items()})


def alike(pairs: Sequence[Pair], way: str) -> dict[str, float]:
    """The figures of some pairs. Named otherwise are two names none of which leaves room for the other."""
    told = [pair for pair in pairs if pair.plain.readable_for.breath and pair.other.readable_for.breath]
    both = [(one, other) for pair in told for one, other in pair.breaths if other is not None]
    count = sum(len(pair.plain.breaths) + pair.extra for pair in told)
    otherwise = [pair.name for pair in told for one, other in pair.breaths if other is not None and _otherwise(one, other)]
    apart_s = [gap for one, other in both for key in ONSETS if (gap := _apart(one, other, key)) is not None] or [np.inf]
    leans = [gap for pair in pairs if (gap := _leans_apart(pair)) is not None] or [np.inf]
    shares = [gap for one, other in both if (gap := _apart(one, other, "abdominal_share")) is not None] or [np.inf]
    for name in sorted({*otherwise, *(pair.name for pair in told if pair.extra or any(other is None for _, other in pair.breaths))}):
        print(f"brevin: {name} reads otherwise: {way}", file=sys.stderr)
    return {
        "clips": float(len(pairs)), "readable_in_one_alone": float(sum(p.plain.readable_for.breath != p.other.readable_for.breath for p in pairs)),
        "breaths": float(count), "found_in_both": len(both) / max(count, 1), "named_otherwise": len(otherwise) / max(len(both), 1),
        "onset_median_s": float(np.median(apart_s)), "onset_p90_s": float(np.percentile(apart_s, 90, method="higher")),
        "share_median": float(np.median(shares)), "lean_median_deg": float(np.median(leans)),
    }  # fmt: skip


def _is_of_the_breath(truth_file: Path) -> bool:
    return str(_label(truth_file).get("view", "")).startswith(("side", "three"))


def _label(truth_file: Path) -> Mapping[str, str]:
    label: Mapping[str, str] = json.loads(truth_file.read_text())["label"]
    return label


def _all_ways(truth_file: Path) -> dict[str, Pair]:
    """One clip as it is, beside it in every way."""
    clip, task = truth_file.with_suffix(".mp4"), task_of(json.loads(truth_file.read_text()))
    plain, held = _read(clip, task), _label(truth_file).get("instrument") or "none"
    pairs = {}
    with TemporaryDirectory() as scratch:
        for way, picture in WAYS.items():
            if way == "mirror" and held in ASIDE:
                continue
            other = Path(scratch) / clip.name
            remade(clip, other, lambda rgb, number, seen=picture: seen(rgb, number / (plain.clip.frame_rate_hz or 25.0)), coder=CODER)
            pairs[way] = Pair(clip.stem, plain, _read(other, task))
    return pairs


def _read(clip: Path, task: Task) -> Report:
    return read(look(clip, model_path(ROOT)), task)


def _same(breath: Breath, among: Sequence[Breath]) -> Breath | None:
    """The breath that begins at its moment, where one does."""
    begun = [one for one in among if one.inhale_start_s is not None]
    if breath.inhale_start_s is None or not begun:
        return None
    near = min(begun, key=lambda one: abs((one.inhale_start_s or 0.0) - (breath.inhale_start_s or 0.0)))
    return near if abs((near.inhale_start_s or 0.0) - breath.inhale_start_s) <= SAME_BREATH_S else None


def _apart(one: Breath, other: Breath, key: str) -> float | None:
    """By how much a number of two breaths differs; None where either has none."""
    value, mirrored = getattr(one, key), getattr(other, key)
    return None if value is None or mirrored is None else abs(value - mirrored)


def _leans_apart(pair: Pair) -> float | None:
    """By how much the trunk's inclination differs, degrees; None where either has none."""
    one, other = pair.plain.posture.trunk_inclination_deg, pair.other.posture.trunk_inclination_deg
    return None if one is None or other is None else abs(one.value - other.value)


def _otherwise(one: Breath, other: Breath) -> bool:
    """Whether two named breaths contradict each other: none of the names that either leaves room for is the other's."""
    names, others = ({kind for kind in (breath.pattern, breath.pattern_or) if kind is not None} for breath in (one, other))
    return "unclear" not in names | others and not names & others
