"""The mannequin: a clothed, neutral student built from rounded shapes in the pose of the clip, as one smooth mesh.

x forward (the player's front), y to the player's left, z up, metres; origin on the floor below the hips. The body is made in clothes from
the start: shapes are sleeves, trousers and shoes, nothing lies beneath them.
"""

from dataclasses import dataclass, field

import numpy as np

from brevin.standin.shapes import HAIR, SECTIONS, SHIRT, SKIN, TROUSERS, VOXEL_M, cone, local, shape, unit
from brevin.standin.stance import Build, Stance


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
    whole, part = shape(axes, build, pose, mittens)
    vertices, faces, normals, _ = marching_cubes(whole, 0.0, spacing=(VOXEL_M,) * 3)
    places = np.clip(np.round(vertices / VOXEL_M).astype(int), 0, np.array(whole.shape) - 1)
    labels = part[tuple(places.T)]
    vertices = vertices + low
    found = Mesh(vertices=vertices, normals=-normals, faces=faces[:, ::-1], part=_paint(vertices, labels, pose))
    found.fields = fields(found, build, pose)
    return found


def _bounds(pose: Stance) -> tuple[np.ndarray, np.ndarray]:
    points = np.array(list(pose.joints.values()))
    return points.min(axis=0) - [0.2, 0.14, 0.1], points.max(axis=0) + [0.22, 0.14, 0.18]


def _paint(vertices: np.ndarray, labels: np.ndarray, pose: Stance) -> np.ndarray:
    """The hairline on the head; the rest keeps its label."""
    part = labels.copy()
    q = local(vertices, pose.joints["head"], pose.head_axes)
    head = (part == SKIN) | (part == HAIR)
    above = head & (q[:, 2] > -0.125) & (np.abs(q[:, 1]) < 0.12) & (np.abs(q[:, 0]) < 0.2)
    behind = q[:, 0] < np.where(q[:, 2] > 0.055, 0.05, np.where(q[:, 2] > 0.0, 0.012, -0.028))
    part[above] = np.where(behind[above] & (q[above, 2] > -0.075), HAIR, SKIN)
    ears = above & (np.linalg.norm((np.abs(q) - [0.015, 0.08, 0.01]) / [0.03, 0.02, 0.036], axis=1) < 1)
    part[ears] = SKIN
    height = local(vertices, pose.joints["hip"], pose.axes)[:, 2]
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
    q = local(body.vertices, pose.joints["hip"], pose.axes)
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
