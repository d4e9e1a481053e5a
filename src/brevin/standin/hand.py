"""The mannequin's hands with fingers: palm, four fingers of three pieces and a thumb, bent as a script says, as one smooth mesh each."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brevin.standin.body import Mesh
from brevin.standin.shapes import SKIN, cone, unit

VOXEL_M = 0.0025
FINGER_BLEND_M, PALM_BLEND_M = 0.003, 0.012  # how softly fingers run into the palm, and the palm's own pieces into each other
LAST_JOINT = 0.6  # of the middle joint's bend: the two go together
SPREAD = 0.10  # of the fingers, sideways for each unit along
# knuckles of forefinger to little finger: along the palm and toward the thumb, metres; then the lengths of the three pieces
FINGERS = (
    (0.088, 0.030, (0.040, 0.023, 0.019)), (0.090, 0.010, (0.044, 0.027, 0.020)),
    (0.085, -0.010, (0.040, 0.025, 0.020)), (0.077, -0.029, (0.032, 0.018, 0.017)),
)  # fmt: skip
THUMB = (0.036, 0.029, 0.024)
THICK_M = ((0.0098, 0.0088), (0.0088, 0.0080), (0.0080, 0.0068))


@dataclass(frozen=True)
class Grip:
    """How one hand is held. palm: about where its palm looks, room directions; bend_deg: of the wrist, toward the palm (under 0 toward its back);
    aside_deg: of the wrist, toward the thumb; knuckle_deg, curl_deg: bends of the fingers' first and middle joints; size: 1 = a ten-year-old's."""

    palm: tuple[float, float, float]
    bend_deg: float = 0.0
    aside_deg: float = 0.0
    knuckle_deg: float = 20.0
    curl_deg: float = 45.0
    size: float = 1.0

    def wrist_deg(self) -> float:
        """The whole bend between forearm and hand."""
        return float(np.degrees(np.arccos(np.cos(np.radians(self.bend_deg)) * np.cos(np.radians(self.aside_deg)))))


# where both wrists are while fingers lie on it, from the mouthpiece: along the instrument, to the player's left, over it, metres; and how the hands are held
WRISTS: dict[str, dict[str, tuple[float, float, float]]] = {
    "trumpet": {"l": (0.20, 0.058, -0.09), "r": (0.14, -0.05, -0.02)},
    "flute": {"l": (0.16, 0.095, -0.06), "r": (0.40, -0.03, -0.09)},
    "clarinet": {"l": (0.17, 0.05, -0.045), "r": (0.36, -0.05, -0.045)},
}
# where both plain hands take hold, likewise: at the valves, the two braces of a slide, the keys
TAKES_HOLD: dict[str, dict[str, tuple[float, float, float]]] = {
    "trumpet": {"l": (0.20, 0.035, -0.035), "r": (0.23, -0.04, -0.01)},
    "trombone": {"l": (0.13, 0.03, -0.03), "r": (0.16, -0.03, -0.03)},
    "flute": {"l": (0.12, 0.05, -0.08), "r": (0.38, 0.02, -0.03)},
    **dict.fromkeys(("oboe", "clarinet"), {"l": (0.19, 0.02, 0.0), "r": (0.36, -0.02, 0.0)}),
    "alto_sax": {"l": (0.17, 0.03, 0.085), "r": (0.36, -0.035, 0.085)},
    "horn": {"l": (0.21, 0.04, -0.06), "r": (0.03, -0.22, -0.33)},
}
PLAIN_M = 0.085  # from the wrist to where a plain hand takes hold
GOOD: dict[str, tuple[tuple[str, Grip], ...]] = {
    "trumpet": (("l", Grip((0.0, -1.0, 0.2), bend_deg=10, knuckle_deg=50, curl_deg=50)), ("r", Grip((0.2, 0.3, -1.0), bend_deg=35, curl_deg=40))),
    "flute": (("l", Grip((-1.0, 0.0, 0.2))), ("r", Grip((1.0, 0.1, 0.2)))),
    "clarinet": (("l", Grip((0.2, -1.0, 0.3))), ("r", Grip((0.2, 1.0, 0.3)))),
}


def reached(instrument: str, side: str, along: np.ndarray, *, fingers: bool) -> np.ndarray:
    """What an arm reaches for, from the mouthpiece, metres: where its wrist is while fingers lie on the instrument, or where a plain hand takes hold.
    along: where the instrument points, one long."""
    left = np.array([0.0, 1.0, 0.0]) if instrument != "flute" else np.array([1.0, 0.0, 0.0])  # what lies across is reached from the front
    ahead, aside, over = (WRISTS if fingers else TAKES_HOLD)[instrument][side]
    return ahead * along + aside * left + over * np.cross(along, left)


@dataclass(frozen=True)
class Bones:
    """Where the joints are, metres: of each finger four, thumb first: [5, 4, 3]; wrist: [3]."""

    wrist: np.ndarray
    fingers: np.ndarray


def bones(elbow: np.ndarray, wrist: np.ndarray, grip: Grip, side: str) -> Bones:
    """The joints of the hand at the end of a forearm."""
    along, facing, thumbward = _axes(unit(wrist - elbow), grip, side)
    fingers = [_thumb(wrist, along, facing, thumbward, grip)]
    for up, aside, lengths in FINGERS:
        knuckle = wrist + grip.size * (up * along + aside * thumbward)
        ahead = unit(along + SPREAD * aside / FINGERS[0][1] * thumbward)
        bends = np.radians([grip.knuckle_deg, grip.knuckle_deg + grip.curl_deg, grip.knuckle_deg + (1 + LAST_JOINT) * grip.curl_deg])
        fingers.append(_chain(knuckle, [np.cos(b) * ahead + np.sin(b) * facing for b in bends], lengths, grip.size))
    return Bones(wrist, np.array(fingers))


def _axes(forearm: np.ndarray, grip: Grip, side: str) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Along the hand, out of its palm, toward its thumb."""
    facing = np.asarray(grip.palm, float)
    facing = unit(facing - forearm * (facing @ forearm))
    thumbward = np.cross(forearm, facing) if side == "r" else np.cross(facing, forearm)
    aside, bend = np.radians((grip.aside_deg, grip.bend_deg))
    straight, thumbward = np.cos(aside) * forearm + np.sin(aside) * thumbward, np.cos(aside) * thumbward - np.sin(aside) * forearm
    return np.cos(bend) * straight + np.sin(bend) * facing, np.cos(bend) * facing - np.sin(bend) * straight, thumbward


def _thumb(wrist: np.ndarray, along: np.ndarray, facing: np.ndarray, thumbward: np.ndarray, grip: Grip) -> np.ndarray:
    root = wrist + grip.size * (0.026 * along + 0.026 * thumbward + 0.008 * facing)
    ways = [unit(0.75 * along + 0.55 * thumbward + 0.35 * facing), unit(0.9 * along + 0.2 * thumbward + 0.5 * facing), unit(0.9 * along + 0.5 * facing)]
    return _chain(root, ways, THUMB, grip.size)


def _chain(start: np.ndarray, ways: Sequence[np.ndarray], lengths: Sequence[float], size: float) -> np.ndarray:
    places = [start]
    for way, length in zip(ways, lengths, strict=True):
        places.append(places[-1] + size * length * way)
    return np.array(places)


def mesh(hand: Bones, size: float) -> Mesh:
    """One smooth hand."""
    from skimage.measure import marching_cubes  # here, so that who only asks for bones needs it not

    points = np.concatenate([hand.fingers.reshape(-1, 3), hand.wrist[None]])
    axes = [np.arange(a - 0.03, b + 0.03, VOXEL_M) for a, b in zip(points.min(axis=0), points.max(axis=0), strict=True)]
    grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).astype(np.float32)
    whole = _shape(grid.reshape(-1, 3), hand, size).reshape(grid.shape[:3])
    vertices, faces, normals, _ = marching_cubes(whole, 0.0, spacing=(VOXEL_M,) * 3)
    return Mesh(vertices=vertices + points.min(axis=0) - 0.03, normals=-normals, faces=faces[:, ::-1], part=np.full(len(vertices), SKIN))


def _shape(p: np.ndarray, hand: Bones, size: float) -> np.ndarray:
    """Signed distance."""
    palm = np.full(len(p), 9.0, np.float32)
    for finger in hand.fingers:
        palm = _blend(palm, cone(p, hand.wrist, finger[0], 0.018 * size, 0.0115 * size), PALM_BLEND_M)
    whole = palm
    for finger in hand.fingers:
        one = np.min([cone(p, a, b, size * ra, size * rb) for a, b, (ra, rb) in zip(finger, finger[1:], THICK_M, strict=False)], axis=0)
        whole = _blend(whole, one, FINGER_BLEND_M)
    return whole


def _blend(one: np.ndarray, other: np.ndarray, soft: float) -> np.ndarray:
    h = np.clip(0.5 + 0.5 * (one - other) / soft, 0, 1)
    return np.asarray(one * (1 - h) + other * h - soft * h * (1 - h), np.float32)
