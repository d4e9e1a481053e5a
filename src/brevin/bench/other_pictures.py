"""The same clip as other phones, rooms and hands would have it, picture by picture: for ``alike.py``."""

from collections.abc import Callable, Mapping
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.standin.sinks import Sinks

BANDS, BAND_SHARE, ROLLS_HZ = 2.0, 0.06, 0.25  # of a lamp on the mains: over the picture's height, how much lighter and darker, how often one rolls by
ZOOM, ZOOM_S, HOLDS_S = 0.01, 0.5, 5.0  # of a lens: as much larger, within this time, for as long as this and back again
# of a hand: its ways aside and up, of the picture's width, its turn, and how much closer, so that no border shows
HAND_SHARE, HAND_DEG, CLOSER = 0.004, 0.5, 1.02
SINKS_DEG = 8.0  # of a trunk, from the first breath to the end
POLE_AHEAD, POLE_UP, POLE_SHARE, STEEL = 0.23, 4.0, 0.03, (38, 36, 40)  # of a music stand's: ahead of the hips, up and down, how wide, of the trunk
TILT_DEG = 5.0  # of a phone that leans on something
CROSSES_S, CROSSING_S, WIDE_SHARE, CLOTH = (6.0, 13.0), 2.0, 0.14, (90, 60, 50)  # when somebody comes, for how long, how wide, of the picture, and in what

Rgb = NDArray[np.uint8]
Way = Callable[[Rgb, float], Rgb]


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


def sinking(truth: Mapping[str, Any]) -> Way:
    """The player's trunk sinks from the first breath on, until the clip ends."""
    begins_s, ends_s = truth["cycles"][0]["inhale_start"], truth["duration_s"]
    sinks = Sinks((truth["width"], truth["height"]), *_joints(truth), ahead=_ahead(truth), deg=SINKS_DEG)
    return lambda rgb, t_s: np.asarray(sinks.of(rgb, float(np.clip((t_s - begins_s) / (ends_s - begins_s), 0.0, 1.0))), np.uint8)


def behind_a_pole(truth: Mapping[str, Any]) -> Way:
    """A music stand's pole stands before the edge of the belly, from the picture's upper to its lower end."""
    hips, shoulders = _joints(truth)
    trunk_px, ahead = float(np.hypot(*(shoulders - hips))), _ahead(truth)
    ends = [tuple(round(float(v)) for v in hips + trunk_px * (POLE_AHEAD * np.array([ahead, 0.0]) + np.array([0.0, down]))) for down in (-POLE_UP, POLE_UP)]
    wide = max(round(POLE_SHARE * trunk_px), 2)
    return lambda rgb, t_s: np.asarray(cv2.line(rgb.copy(), ends[0], ends[1], STEEL, wide, cv2.LINE_AA), np.uint8)


def _joints(truth: Mapping[str, Any]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Middles of hips and of shoulders in the first picture, px."""
    places = {name: np.array(seen[0], float) for name, seen in truth["per_frame"]["keypoints_px"].items()}
    hips, shoulders = (0.5 * (places[f"{joint}_l"] + places[f"{joint}_r"]) for joint in ("hip", "shoulder"))
    return hips, shoulders


def _ahead(truth: Mapping[str, Any]) -> float:
    """1 where the player faces the picture's right, else -1."""
    return 1.0 if "right" in truth["label"]["view"] else -1.0


SINKING, POLE = "sinking", "pole"
STILL: dict[str, Way] = {
    "mirror": in_a_mirror, "bands": under_bands, "lens": through_a_lens, "hand": from_the_hand, "tilted": tilted, "crossed": crossed,
}  # fmt: skip
OF_THE_BODY: dict[str, Callable[[Mapping[str, Any]], Way]] = {SINKING: sinking, POLE: behind_a_pole}  # where in the picture it is says what was planted
WAYS = (*STILL, *OF_THE_BODY)


def way_of(name: str, truth: Mapping[str, Any]) -> Way:
    """How the pictures of a clip are changed. truth: what was planted in it."""
    return OF_THE_BODY[name](truth) if name in OF_THE_BODY else STILL[name]
