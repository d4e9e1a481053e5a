"""The mannequin's face: eyes, brows and lips as shapes of their own on the head, so fine that a network takes it for a face."""

import numpy as np

from brevin.standin.body import Mesh
from brevin.standin.shapes import DARK, HAIR
from brevin.standin.stance import Stance

WHITE, LIP = 12, 13
RINGS, SIDES = 8, 14
NEAR_M = 0.012  # skin so near to a place says how far ahead it is there
# ahead of the skin, to the left (and to the right) of the middle of the head, above it; half depth, half width, half height, metres
EYE = ((-0.0055, 0.032, 0.016), (0.0095, 0.0135, 0.0085), WHITE)
IRIS = ((0.0015, 0.031, 0.016), (0.004, 0.006, 0.0065), DARK)
BROW = ((-0.003, 0.034, 0.040), (0.009, 0.019, 0.0045), HAIR)
LIPS = ((-0.003, 0.0, -0.068), (0.010, 0.023, 0.0075), LIP)

Shape = tuple[tuple[float, float, float], tuple[float, float, float], int]


def meshes(body: Mesh, pose: Stance) -> list[Mesh]:
    """Everything that is drawn on the head of a body."""
    skin = (body.vertices - pose.joints["head"]) @ pose.head_axes.T
    return [_ball(skin, pose, shape, side) for shape, sides in ((EYE, 2), (IRIS, 2), (BROW, 2), (LIPS, 1)) for side in (1.0, -1.0)[:sides]]


def _ball(skin: np.ndarray, pose: Stance, shape: Shape, side: float) -> Mesh:
    (ahead, aside, above), radii, part = shape
    near = np.hypot(skin[:, 1] - side * aside, skin[:, 2] - above) < NEAR_M
    middle = pose.joints["head"] + np.array([np.median(skin[near & (skin[:, 0] > 0.0), 0]) + ahead, side * aside, above]) @ pose.head_axes
    down, around = np.meshgrid(np.linspace(0.0, np.pi, RINGS), np.linspace(0.0, 2.0 * np.pi, SIDES, endpoint=False), indexing="ij")
    unit = np.stack([np.sin(down) * np.cos(around), np.sin(down) * np.sin(around), np.cos(down)], axis=-1).reshape(-1, 3)
    i, k = np.meshgrid(np.arange(RINGS - 1), np.arange(SIDES), indexing="ij")
    a, b = (i * SIDES + k).ravel(), (i * SIDES + (k + 1) % SIDES).ravel()
    faces = np.concatenate([np.column_stack([a, b, a + SIDES]), np.column_stack([b, b + SIDES, a + SIDES])])
    normals = unit / np.array(radii)
    normals /= np.linalg.norm(normals, axis=1)[:, None]
    return Mesh(middle + (unit * radii) @ pose.head_axes, normals @ pose.head_axes, faces, np.full(len(unit), part))
