"""The mannequin: a clothed, neutral student built from rounded shapes in the pose of the clip, as one smooth mesh.

x forward (the player's front), y to the player's left, z up, metres; origin on the floor below the hips. The body is made in clothes from
the start: shapes are sleeves, trousers and shoes, nothing lies beneath them.
"""

from dataclasses import dataclass, field

import numpy as np

from brevin.standin.stance import Build, Stance

VOXEL_M = 0.008
BLEND_M = 0.03  # how softly neighbouring shapes run into each other

HEEL_M, TOE_M = np.array([-0.03, 0.0, -0.035]), np.array([0.16, 0.0, -0.04])  # from the ankle, in the foot's own axes
SHIRT, TROUSERS, SHOE, SKIN, HAIR, DARK = range(6)


@dataclass
class Mesh:
    """vertices, normals: [n, 3]; faces: [m, 3]; part: [n]; fields: displacement per unit of each region's travel, [n, 3] each."""

    vertices: np.ndarray
    normals: np.ndarray
    faces: np.ndarray
    part: np.ndarray
    fields: dict[str, np.ndarray] = field(default_factory=dict)


def mesh(build: Build, pose: Stance, *, mittens: bool = True) -> Mesh:
    """One mesh of the whole clothed figure, with its breathing fields. mittens: with plain hands, where none with fingers are drawn."""
    from skimage.measure import marching_cubes  # here, so that who only asks for a stance needs it not

    low, high = _bounds(pose)
    axes = [np.arange(a, b, VOXEL_M) for a, b in zip(low, high, strict=True)]
    grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).astype(np.float32)
    whole, part = _shape(grid.reshape(-1, 3), build, pose, mittens)
    vertices, faces, normals, _ = marching_cubes(whole.reshape(grid.shape[:3]), 0.0, spacing=(VOXEL_M,) * 3)
    places = np.clip(np.round(vertices / VOXEL_M).astype(int), 0, np.array(grid.shape[:3]) - 1)
    labels = part.reshape(grid.shape[:3])[tuple(places.T)]
    vertices = vertices + low
    found = Mesh(vertices=vertices, normals=-normals, faces=faces[:, ::-1], part=_paint(vertices, labels, pose))
    found.fields = fields(found, build, pose)
    return found


def _bounds(pose: Stance) -> tuple[np.ndarray, np.ndarray]:
    points = np.array(list(pose.joints.values()))
    return points.min(axis=0) - [0.2, 0.14, 0.1], points.max(axis=0) + [0.22, 0.14, 0.18]


def _shape(p: np.ndarray, build: Build, pose: Stance, mittens: bool) -> tuple[np.ndarray, np.ndarray]:
    """Signed distance of the whole and the part each place belongs to."""
    j = pose.joints
    pieces: list[tuple[np.ndarray, int]] = [(_trunk(p, build, pose), SHIRT)]
    for s in ("l", "r"):
        pieces.append((cone(p, j[f"shoulder_{s}"], j[f"elbow_{s}"], 0.056, 0.047), SHIRT))
        pieces.append((cone(p, j[f"elbow_{s}"], j[f"wrist_{s}"], 0.046, 0.036 if mittens else 0.027), SHIRT))
        if mittens:
            hand = j[f"wrist_{s}"] + 0.10 * unit(j[f"wrist_{s}"] - j[f"elbow_{s}"])
            pieces.append((cone(p, j[f"wrist_{s}"], hand, 0.033, 0.024), SKIN))
        pieces.append((cone(p, j[f"hip_{s}"], j[f"knee_{s}"], 0.083, 0.06), TROUSERS))
        pieces.append((cone(p, j[f"knee_{s}"], j[f"ankle_{s}"], 0.06, 0.045), TROUSERS))
        heel = j[f"ankle_{s}"] + HEEL_M @ pose.foot_axes()
        pieces.append((cone(p, heel, heel + (TOE_M - HEEL_M) @ pose.foot_axes(s), 0.042, 0.034), SHOE))
    pieces.append((_ellipsoid(p, j["hip"] + [-0.01, 0, -0.02], (0.115 * build.deep, 0.155 * build.wide, 0.10), np.eye(3)), TROUSERS))
    pieces.append((cone(p, j["neck"] - [0, 0, 0.03], j["head"] - [0.02, 0, 0.05], 0.052, 0.05), SKIN))
    pieces.append((_ellipsoid(p, j["head"], (0.098, 0.077, 0.118), pose.head_axes), SKIN))
    pieces.append((cone(p, j["nose"] + [-0.02, 0, 0.03], j["nose"] - [0.008, 0, 0], 0.010, 0.014), SKIN))
    pieces.append((cone(p, j["mouth"] + [-0.05, 0, -0.03], j["mouth"] + [-0.028, 0, -0.032], 0.034, 0.022), SKIN))
    for s in ("l", "r"):
        pieces.append((_ellipsoid(p, j[f"ear_{s}"], (0.024, 0.010, 0.034), pose.head_axes), SKIN))
    pieces.append((_ellipsoid(p, j["head"] + [-0.014, 0, 0.022], (0.103, 0.084, 0.116), pose.head_axes), HAIR))
    distance = np.full(len(p), 9.0, np.float32)
    for piece, _ in pieces:
        h = np.clip(0.5 + 0.5 * (distance - piece) / BLEND_M, 0, 1)
        distance = distance * (1 - h) + piece * h - BLEND_M * h * (1 - h)
    nearest = np.argmin(np.stack([piece for piece, _ in pieces]), axis=0)
    return distance, np.array([part for _, part in pieces])[nearest]


def unit(v: np.ndarray) -> np.ndarray:
    """The same direction, one long."""
    return v / np.linalg.norm(v)


def cone(p: np.ndarray, a: np.ndarray, b: np.ndarray, ra: float, rb: float) -> np.ndarray:
    """A rounded cone from a to b."""
    ab = b - a
    t = np.clip((p - a) @ ab / (ab @ ab), 0, 1)
    return (np.linalg.norm(p - a - t[:, None] * ab, axis=1) - (ra + t * (rb - ra))).astype(np.float32)


def _ellipsoid(p: np.ndarray, centre: np.ndarray, radii: tuple[float, float, float], axes: np.ndarray) -> np.ndarray:
    q = _local(p, centre, axes)
    scaled = np.linalg.norm(q / np.array(radii), axis=1)
    return ((scaled - 1.0) * min(radii)).astype(np.float32)


def _local(p: np.ndarray, origin: np.ndarray, axes: np.ndarray) -> np.ndarray:
    """Places about an origin along axes of its own, such as the trunk's forward, left and up."""
    return np.asarray((p - origin) @ axes.T.astype(p.dtype))


# height over the hips as share of the trunk: half depth, half width, centre forward, metres
SECTIONS = np.array([
    (-0.16, 0.075, 0.10, 0.0), (-0.05, 0.108, 0.150, 0.0), (0.15, 0.103, 0.142, 0.004), (0.35, 0.098, 0.132, 0.006), (0.55, 0.102, 0.136, 0.004),
    (0.75, 0.106, 0.148, 0.002), (0.90, 0.092, 0.148, -0.004), (1.00, 0.070, 0.120, -0.008), (1.08, 0.050, 0.070, -0.006), (1.16, 0.030, 0.036, 0.0),
])  # fmt: skip

LEVEL_TO = 0.6  # share of the trunk's height up to which it is level where one shoulder is higher


def _trunk(p: np.ndarray, build: Build, pose: Stance) -> np.ndarray:
    q = _local(p, pose.joints["hip"], pose.axes)
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


def _paint(vertices: np.ndarray, labels: np.ndarray, pose: Stance) -> np.ndarray:
    """The hairline on the head; the rest keeps its label."""
    part = labels.copy()
    q = _local(vertices, pose.joints["head"], pose.head_axes)
    head = (part == SKIN) | (part == HAIR)
    above = head & (q[:, 2] > -0.125) & (np.abs(q[:, 1]) < 0.12) & (np.abs(q[:, 0]) < 0.2)
    behind = q[:, 0] < np.where(q[:, 2] > 0.055, 0.05, np.where(q[:, 2] > 0.0, 0.012, -0.028))
    part[above] = np.where(behind[above] & (q[above, 2] > -0.075), HAIR, SKIN)
    ears = above & (np.linalg.norm((np.abs(q) - [0.015, 0.08, 0.01]) / [0.03, 0.02, 0.036], axis=1) < 1)
    part[ears] = SKIN
    height = _local(vertices, pose.joints["hip"], pose.axes)[:, 2]
    clothed = (part == SHIRT) | (part == TROUSERS)
    waist = clothed & (np.linalg.norm(vertices[:, :2] - pose.joints["hip"][:2], axis=1) < 0.2) & (np.abs(height) < 0.1) & ~_on_arm(vertices, pose)
    part[waist] = np.where(height[waist] > -0.01, SHIRT, TROUSERS)
    return part


def _on_arm(vertices: np.ndarray, pose: Stance) -> np.ndarray:
    j = pose.joints
    arms = [cone(vertices, j[f"elbow_{s}"], j[f"wrist_{s}"], 0.05, 0.04) for s in "lr"]
    return np.min(arms, axis=0) < 0.01


def fields(body: Mesh, build: Build, pose: Stance) -> dict[str, np.ndarray]:
    """Displacement of every vertex for one metre of a region's travel. The point of largest travel moves by exactly one."""
    q = _local(body.vertices, pose.joints["hip"], pose.axes)
    height = q[:, 2] / build.trunk
    trunk = (body.part == SHIRT) * _near_trunk(q, build)
    forward, _, upward = pose.axes
    front = np.clip((q[:, 0] / (0.1 * build.deep) + 0.15) / 0.95, 0, 1) ** 1.2
    out = {
        "abdomen": _peak((trunk * front * np.exp(-0.5 * ((height - 0.25) / 0.13) ** 2))[:, None] * forward),
        "chest": _peak((trunk * front * np.exp(-0.5 * ((height - 0.72) / 0.12) ** 2))[:, None] * forward),
    }
    lift = np.zeros(len(q))
    for side in ("l", "r"):
        shoulder, elbow, wrist = (pose.joints[f"{name}_{side}"] for name in ("shoulder", "elbow", "wrist"))
        upper = np.exp(-0.5 * (cone(body.vertices, shoulder, elbow, 0.05, 0.045).clip(0) / 0.03) ** 2)
        along = np.clip((body.vertices - shoulder) @ (elbow - shoulder) / ((elbow - shoulder) @ (elbow - shoulder)), 0, 1)
        fade = 1.0 if np.linalg.norm(wrist - pose.joints["mouth"]) > 0.6 else 1.0 - along
        lift = np.maximum(lift, upper * fade * ((body.part == SHIRT) | (np.linalg.norm(wrist - pose.joints["mouth"]) > 0.6)))
        if np.linalg.norm(wrist - pose.joints["mouth"]) > 0.6:  # a hanging arm is carried whole
            lower = np.minimum(cone(body.vertices, elbow, wrist, 0.05, 0.04), cone(body.vertices, wrist, wrist + 0.1 * unit(wrist - elbow), 0.04, 0.03))
            lift = np.maximum(lift, (lower < 0.012).astype(float))
    cap = np.exp(-0.5 * ((height - 1.0) / 0.10) ** 2) * np.clip((np.abs(q[:, 1]) - 0.05) / 0.07, 0, 1) * trunk
    out["shoulder"] = np.maximum(lift, cap)[:, None] * upward
    return {name: value.astype(np.float32) for name, value in out.items()}


def _near_trunk(q: np.ndarray, build: Build) -> np.ndarray:
    """Places on the trunk itself, not on a sleeve."""
    height = q[:, 2] / build.trunk
    a = np.interp(height, SECTIONS[:, 0], SECTIONS[:, 1]) * build.deep
    b = np.interp(height, SECTIONS[:, 0], SECTIONS[:, 2]) * build.wide
    ring = np.sqrt((q[:, 0] / a) ** 2 + (q[:, 1] / b) ** 2)
    return np.asarray(np.clip((1.35 - ring) / 0.15, 0, 1))


def _peak(field: np.ndarray) -> np.ndarray:
    return field / max(float(np.linalg.norm(field, axis=1).max()), 1e-9)
