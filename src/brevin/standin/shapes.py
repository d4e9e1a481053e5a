"""The shapes a mannequin is made of, and what they are together: signed distances over a grid."""

from collections.abc import Callable, Iterator

import numpy as np

from brevin.standin.stance import Build, Stance

VOXEL_M = 0.008
BLEND_M = 0.03  # how softly neighbouring shapes run into each other
NEAR_M = BLEND_M + 3 * VOXEL_M  # of a piece: farther off it changes no surface
FAR_M = 9.0
HEEL_M, TOE_M = np.array([-0.03, 0.0, -0.035]), np.array([0.16, 0.0, -0.04])  # from the ankle, in the foot's own axes
SHIRT, TROUSERS, SHOE, SKIN, HAIR, DARK = range(6)


def shape(axes: list[np.ndarray], build: Build, pose: Stance, mittens: bool) -> tuple[np.ndarray, np.ndarray]:
    """Signed distance of the whole and the part each place belongs to, over a grid: [x, y, z] both. A piece is worked out where it can be a surface, or blend
    into one: most of the room is far from most pieces."""
    grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).astype(np.float32)
    distance, nearest = np.full(grid.shape[:3], FAR_M, np.float32), np.full(grid.shape[:3], FAR_M, np.float32)
    part = np.zeros(grid.shape[:3], int)
    for draw, ends, radius, what in _pieces(build, pose, mittens):
        low, high = np.min(ends, axis=0) - radius - NEAR_M, np.max(ends, axis=0) + radius + NEAR_M
        here = tuple(slice(*np.searchsorted(axis, (a, b))) for axis, a, b in zip(axes, low, high, strict=True))
        places = grid[here]
        piece = draw(places.reshape(-1, 3)).reshape(places.shape[:3])
        h = np.clip(0.5 + 0.5 * (distance[here] - piece) / BLEND_M, 0, 1)
        distance[here] = distance[here] * (1 - h) + piece * h - BLEND_M * h * (1 - h)
        closer = piece < nearest[here]
        part[here][closer], nearest[here][closer] = what, piece[closer]
    return distance, part


Piece = tuple[Callable[[np.ndarray], np.ndarray], list[np.ndarray], float, int]
"""Distance from it, places along its middle, how far it reaches about them, and the part it belongs to."""


def _pieces(build: Build, pose: Stance, mittens: bool) -> Iterator[Piece]:
    j = pose.joints

    def limb(a: np.ndarray, b: np.ndarray, ra: float, rb: float, part: int) -> Piece:
        return lambda p: cone(p, a, b, ra, rb), [a, b], max(ra, rb), part

    def round_(centre: np.ndarray, radii: tuple[float, float, float], axes: np.ndarray, part: int) -> Piece:
        return lambda p: _ellipsoid(p, centre, radii, axes), [centre], max(radii) * (1.0 + NEAR_M / min(radii)), part  # it grows slowest along its longest

    yield lambda p: _trunk(p, build, pose), [j["hip"]], FAR_M, SHIRT
    for s in ("l", "r"):
        yield limb(j[f"shoulder_{s}"], j[f"elbow_{s}"], 0.056, 0.047, SHIRT)
        yield limb(j[f"elbow_{s}"], j[f"wrist_{s}"], 0.046, 0.036 if mittens else 0.027, SHIRT)
        if mittens:
            hand = j[f"wrist_{s}"] + 0.10 * unit(j[f"wrist_{s}"] - j[f"elbow_{s}"])
            yield limb(j[f"wrist_{s}"], hand, 0.033, 0.024, SKIN)
        yield limb(j[f"hip_{s}"], j[f"knee_{s}"], 0.083, 0.06, TROUSERS)
        yield limb(j[f"knee_{s}"], j[f"ankle_{s}"], 0.06, 0.045, TROUSERS)
        heel = j[f"ankle_{s}"] + HEEL_M @ pose.foot_axes()
        yield limb(heel, heel + (TOE_M - HEEL_M) @ pose.foot_axes(s), 0.042, 0.034, SHOE)
    yield round_(j["hip"] + [-0.01, 0, -0.02], (0.115 * build.deep, 0.155 * build.wide, 0.10), np.eye(3), TROUSERS)
    yield limb(j["neck"] - [0, 0, 0.03], j["head"] - [0.02, 0, 0.05], 0.052, 0.05, SKIN)
    yield round_(j["head"], (0.098, 0.077, 0.118), pose.head_axes, SKIN)
    yield limb(j["nose"] + [-0.02, 0, 0.03], j["nose"] - [0.008, 0, 0], 0.010, 0.014, SKIN)
    yield limb(j["mouth"] + [-0.05, 0, -0.03], j["mouth"] + [-0.028, 0, -0.032], 0.034, 0.022, SKIN)
    for s in ("l", "r"):
        yield round_(j[f"ear_{s}"], (0.024, 0.010, 0.034), pose.head_axes, SKIN)
    yield round_(j["head"] + [-0.014, 0, 0.022], (0.103, 0.084, 0.116), pose.head_axes, HAIR)


def unit(v: np.ndarray) -> np.ndarray:
    """The same direction, one long."""
    return v / np.linalg.norm(v)


def cone(p: np.ndarray, a: np.ndarray, b: np.ndarray, ra: float, rb: float) -> np.ndarray:
    """A rounded cone from a to b."""
    ab = b - a
    t = np.clip((p - a) @ ab / (ab @ ab), 0, 1)
    return (np.linalg.norm(p - a - t[:, None] * ab, axis=1) - (ra + t * (rb - ra))).astype(np.float32)


def _ellipsoid(p: np.ndarray, centre: np.ndarray, radii: tuple[float, float, float], axes: np.ndarray) -> np.ndarray:
    q = local(p, centre, axes)
    scaled = np.linalg.norm(q / np.array(radii), axis=1)
    return ((scaled - 1.0) * min(radii)).astype(np.float32)


def local(p: np.ndarray, origin: np.ndarray, axes: np.ndarray) -> np.ndarray:
    """Places about an origin along axes of its own, such as the trunk's forward, left and up."""
    return np.asarray((p - origin) @ axes.T.astype(p.dtype))


# height over the hips as share of the trunk: half depth, half width, centre forward, metres
SECTIONS = np.array([
    (-0.16, 0.075, 0.10, 0.0), (-0.05, 0.108, 0.150, 0.0), (0.15, 0.103, 0.142, 0.004), (0.35, 0.098, 0.132, 0.006), (0.55, 0.102, 0.136, 0.004),
    (0.75, 0.106, 0.148, 0.002), (0.90, 0.092, 0.148, -0.004), (1.00, 0.070, 0.120, -0.008), (1.08, 0.050, 0.070, -0.006), (1.16, 0.030, 0.036, 0.0),
])  # fmt: skip

LEVEL_TO = 0.6  # share of the trunk's height up to which it is level where one shoulder is higher


def _trunk(p: np.ndarray, build: Build, pose: Stance) -> np.ndarray:
    q = local(p, pose.joints["hip"], pose.axes)
    line = pose.joints["shoulder_l"] - pose.joints["shoulder_r"]
    height = q[:, 2] / build.trunk
    height = height - np.clip((height - LEVEL_TO) / (1.0 - LEVEL_TO), 0, 1) * line[2] / line[1] * q[:, 1] / build.trunk  # one shoulder higher
    a = np.interp(height, SECTIONS[:, 0], SECTIONS[:, 1]) * build.deep
    b = np.interp(height, SECTIONS[:, 0], SECTIONS[:, 2]) * build.wide
    share = np.clip(q[:, 2] / build.trunk, 0.0, 1.0)
    x = q[:, 0] - np.interp(height, SECTIONS[:, 0], SECTIONS[:, 3]) + pose.rounded_m * 4.0 * share * (1.0 - share)
    ring = (np.sqrt((x / a) ** 2 + (q[:, 1] / b) ** 2) - 1.0) * np.minimum(a, b)
    caps = np.maximum(SECTIONS[0, 0] - height, height - SECTIONS[-1, 0]) * build.trunk
    return np.maximum(ring, caps).astype(np.float32)
