"""Clips in which somebody else is, made of two that ship: the player of one is set into the room of the other, smaller, beside or behind or passing.

Where the other's head is in each picture is known from what was planted there; for ``blur.py`` and the tests.
"""

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.bench.worse import remade

Rgb = NDArray[np.uint8]
Floats = NDArray[np.float64]
ABOUT_TRUNKS, OVER_TRUNKS, UNDER_TRUNKS = 0.75, 0.75, 0.9  # of the other, cut out: to each side of the hips, over the shoulders, under the hips
SOFT_SHARE = 0.08  # of the cut's width, over which it goes into the room
HEAD_TRUNKS = 0.2  # of the other: about the middle of the face, all of which must be past knowing
FINE = 18.0  # rate factor of the coder


@dataclass(frozen=True)
class Company:
    """share: size of the other against the player; at: where the middle of the other's hips is, as shares of the picture's width and height, at a moment;
    None where nobody is there."""

    name: str
    share: float
    at: Callable[[float], tuple[float, float] | None]


def _passing(t_s: float) -> tuple[float, float] | None:
    """Comes in from the left, looks, and goes again, twice."""
    since_s = t_s % 9.0 - 2.0
    return (-0.08 + 0.06 * since_s if since_s < 4.0 else 0.16 - 0.06 * (since_s - 4.0), 0.55) if 0.0 <= since_s < 8.0 else None


COMPANY = (
    Company("behind", 0.45, lambda _: (0.16, 0.42)),
    Company("far behind", 0.3, lambda _: (0.86, 0.3)),
    Company("beside", 0.7, lambda _: (0.12, 0.62)),
    Company("passing", 0.6, _passing),
)


@dataclass(frozen=True)
class Head:
    """Where the other's head is in one picture, px of the clip."""

    t_s: float
    middle_px: Floats
    radius_px: float


def with_company(clip: Path, other: Path, target: Path, company: Company) -> list[Head]:
    """A clip with somebody in it, and where that one's head is in each picture. Both clips with what was planted beside them."""
    truth = json.loads(clip.with_suffix(".json").read_text())
    cuts, heads = _cuts(other, truth, company.share), list[Head]()

    def joined(rgb: Rgb, number: int) -> Rgb:
        t_s = number / truth["fps"]
        place = company.at(t_s)
        if place is None:
            return rgb
        cut, hips, nose, radius_px = cuts[number % len(cuts)]
        middle = np.array(place) * (rgb.shape[1], rgb.shape[0])
        head = middle + nose - hips
        if radius_px < head[0] < rgb.shape[1] - radius_px and radius_px < head[1] < rgb.shape[0] - radius_px:
            heads.append(Head(t_s, head, radius_px))
        return _set_in(rgb, cut, np.round(middle - hips).astype(int))

    remade(clip, target, joined, coder=FINE)
    seen = {head.t_s: head for head in heads}  # the first picture is made twice, to know its size
    return list(seen.values())


def _cuts(clip: Path, into: dict[str, Any], share: float) -> list[tuple[Rgb, Floats, Floats, float]]:
    """The other's pictures, cut out and as large as they are to be: each with hips and nose in it and the head's radius, px."""
    truth = json.loads(clip.with_suffix(".json").read_text())
    scale = share * _trunk_px(into) / _trunk_px(truth)
    return [_cut(rgb, truth, number, scale) for number, rgb in enumerate(_pictures(clip)) if number < len(truth["per_frame"]["t"])]


def _cut(rgb: Rgb, truth: dict[str, Any], number: int, scale: float) -> tuple[Rgb, Floats, Floats, float]:
    trunk_px, hips = _trunk_px(truth), _middle(truth, "hip", number)
    low = np.maximum(hips - trunk_px * np.array([ABOUT_TRUNKS, 1.0 + OVER_TRUNKS]), 0.0).astype(int)
    high = np.minimum(hips + trunk_px * np.array([ABOUT_TRUNKS, UNDER_TRUNKS]), (rgb.shape[1], rgb.shape[0])).astype(int)
    cut = cv2.resize(rgb[low[1] : high[1], low[0] : high[0]], None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA if scale < 1.0 else cv2.INTER_LINEAR)
    nose = np.array(truth["per_frame"]["joints_px"]["nose"][number], float)
    return np.asarray(cut, np.uint8), scale * (hips - low), scale * (nose - low), HEAD_TRUNKS * scale * trunk_px


def _set_in(rgb: Rgb, cut: Rgb, corner: NDArray[np.int_]) -> Rgb:
    """The picture with a cut at its place, softly at its sides."""
    seen = rgb.copy()
    low, high = np.maximum(corner, 0), np.minimum(corner + (cut.shape[1], cut.shape[0]), (rgb.shape[1], rgb.shape[0]))
    if (high <= low).any():
        return seen
    part = cut[low[1] - corner[1] : high[1] - corner[1], low[0] - corner[0] : high[0] - corner[0]].astype(np.float32)
    across = np.minimum(np.arange(cut.shape[1]), np.arange(cut.shape[1])[::-1]) / max(SOFT_SHARE * cut.shape[1], 1.0)
    share = np.clip(across, 0.0, 1.0)[low[0] - corner[0] : high[0] - corner[0], None].astype(np.float32)
    room = seen[low[1] : high[1], low[0] : high[0]]
    room[:] = (part * share + room * (1.0 - share) + 0.5).astype(np.uint8)
    return seen


def _pictures(clip: Path) -> Iterator[Rgb]:
    with av.open(str(clip)) as source:
        for frame in source.decode(video=0):
            yield frame.to_ndarray(format="rgb24")


def _middle(truth: dict[str, Any], joint: str, number: int) -> Floats:
    places = truth["per_frame"]["keypoints_px"]
    return np.mean([places[f"{joint}_{side}"][number] for side in "lr"], axis=0)


def _trunk_px(truth: dict[str, Any]) -> float:
    return float(np.hypot(*(_middle(truth, "shoulder", 0) - _middle(truth, "hip", 0))))
