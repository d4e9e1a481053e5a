"""Round stickers on the mannequin: on ear, shoulder and hip of the side that the camera sees, or on both shoulders from the front."""

from dataclasses import replace

import numpy as np

from brevin.standin.body import Mesh
from brevin.standin.camera import Look, tube
from brevin.standin.scripts import Script
from brevin.standin.shapes import SHIRT, TROUSERS, unit
from brevin.standin.stance import Stance

STICKER = 14
SHEETS = ((0.21, 0.79, 0.37), (0.16, 0.42, 0.93), (0.95, 0.27, 0.62))  # green, blue and pink
ACROSS_M, THICK_M = 0.024, 0.003
ABOUT_M = 0.02  # skin and cloth so near to the line through a joint lie over it
DEEP_M = 0.085  # the cloth over a joint is no further out; a forearm before a shoulder is
UP_FRONT = np.array([0.75, 0.0, 0.66])  # from a shoulder joint to where it is seen from the front over a raised arm: its front upper edge


def seen_on(look: Look) -> Look:
    """The look with stickers of the colour that the clothes lack most, as whoever puts them on takes them."""
    clothes = np.array([look.colours[SHIRT], look.colours[TROUSERS], look.pattern_colour])
    away = [float(np.linalg.norm(clothes - sheet, axis=1).min()) for sheet in SHEETS]
    return replace(look, colours=(*look.colours[:STICKER], SHEETS[int(np.argmax(away))]))


def meshes(script: Script, body: Mesh, pose: Stance) -> list[Mesh]:
    """The stickers that a script's player wears, put on by hand: each off its joint by as much as ``stickers_m`` says, and carried by the cloth under it."""
    if not script.stickers_m:
        return []
    random, sides = np.random.default_rng(script.seed + 300), {"side-left": "l", "side-right": "r"}
    names = ("shoulder_l", "shoulder_r") if script.view == "front" else tuple(f"{name}_{sides[script.view]}" for name in ("ear", "shoulder", "hip"))
    return [_on(body, pose.joints[name], _out(name, script), random.normal(0.0, script.stickers_m, 2)) for name in names]


def _out(name: str, script: Script) -> np.ndarray:
    return unit(UP_FRONT) if script.view == "front" else np.array([0.0, 1.0 if name.endswith("_l") else -1.0, 0.0])


def _on(body: Mesh, joint: np.ndarray, out: np.ndarray, off_m: np.ndarray) -> Mesh:
    """One sticker on the outermost cloth over a joint."""
    across = unit(np.cross(out, [0.31, 0.12, 0.95]))
    place = joint + off_m @ np.array([across, np.cross(out, across)])
    way = body.vertices - place
    beyond = way @ out
    beside = np.linalg.norm(way - beyond[:, None] * out, axis=1)
    under = int(np.argmax(np.where((beside < ABOUT_M) & (np.abs(beyond) < DEEP_M), beyond, -np.inf)))
    ends = place + out * (beyond[under] + np.array([-THICK_M, THICK_M, 1.01 * THICK_M])[:, None])
    found = tube(ends, [ACROSS_M / 2, ACROSS_M / 2, 0.0], STICKER)
    found.normals = np.repeat(out[None], len(found.vertices), axis=0)
    found.fields = {name: np.repeat(field[under][None], len(found.vertices), axis=0) for name, field in body.fields.items()}
    return found
