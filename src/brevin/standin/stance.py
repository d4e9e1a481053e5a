"""How the mannequin stands or sits: its sizes, and where its joints are.

x forward (the player's front), y to the player's left, z up, metres; origin on the floor below the hips.
"""

from dataclasses import dataclass

import numpy as np


@dataclass(frozen=True)
class Build:
    """Sizes of one body, metres. trunk: hip joints to shoulder joints."""

    trunk: float = 0.44
    wide: float = 1.0
    deep: float = 1.0
    upper_arm: float = 0.26
    forearm: float = 0.23
    thigh: float = 0.40
    shank: float = 0.40


@dataclass(frozen=True)
class Stance:
    """Where the joints are, metres: [3] each, by name. rounded_m: how far the trunk bows out behind the line from hips to shoulders, at its middle;
    head_rad: how far the head is tilted, + = to the player's right; tuck_rad: how far the feet stand on their toes; toes_rad: how far those of left and right
    foot are up, the heel on the floor."""

    joints: dict[str, np.ndarray]
    lean_rad: float
    rounded_m: float = 0.0
    head_rad: float = 0.0
    tuck_rad: float = 0.0
    toes_rad: tuple[float, float] = (0.0, 0.0)

    @property
    def axes(self) -> np.ndarray:
        """The trunk's own forward, left and up: [3, 3]."""
        return np.array([[np.cos(self.lean_rad), 0.0, -np.sin(self.lean_rad)], [0.0, 1.0, 0.0], [np.sin(self.lean_rad), 0.0, np.cos(self.lean_rad)]])

    def foot_axes(self, side: str | None = None) -> np.ndarray:
        """A foot's own forward, left and up: [3, 3]. side: with the toes of that foot as far up as they are."""
        down_rad = self.tuck_rad - (self.toes_rad["lr".index(side)] if side else 0.0)
        cosine, sine = np.cos(down_rad), np.sin(down_rad)
        return np.array([[cosine, 0.0, -sine], [0.0, 1.0, 0.0], [sine, 0.0, cosine]])

    @property
    def head_axes(self) -> np.ndarray:
        """Those of the head."""
        tilt = np.array([[1.0, 0.0, 0.0], [0.0, np.cos(self.head_rad), np.sin(self.head_rad)], [0.0, -np.sin(self.head_rad), np.cos(self.head_rad)]])
        return np.asarray(tilt @ self.axes)


ANKLE_M, BEHIND_M = 0.07, 0.11  # height of an ankle over the floor; how far the crossed foot is behind the other
HEAD = ("head", "nose", "ear_l", "ear_r", "eye_l", "eye_r", "mouth")


def stance(
    build: Build, *, position: str, lean_deg: float, hands: dict[str, np.ndarray], elbows_out: tuple[float, float], head_out_m: float = 0.0,
    shoulder_deg: float = 0.0, rounded_m: float = 0.0, head_deg: float = 0.0, tuck_deg: float = 0.0, crossed_m: float = 0.0,
    toes_deg: tuple[float, float] = (0.0, 0.0), hand_m: float = 0.0,
) -> Stance:  # fmt: skip
    """Joints for a position; hands: what both arms reach for, relative to the mouth of a head that is not put forward, or empty for hanging arms; hand_m: how
    far that lies beyond the wrist, straight on from the forearm; elbows_out: ways that left and right elbow point, sideways for each unit down; head_out_m: how
    far the head is forward; shoulder_deg: + = the left shoulder higher; rounded_m, head_deg: as in ``Stance``, degrees; tuck_deg: how far the shanks of who
    sits lead back under the chair, the feet on their toes; crossed_m: how far each ankle is on the other's side; toes_deg: how far the toes of left and right
    foot are up."""
    lean, tuck = np.radians((lean_deg, tuck_deg))
    seat = 0.46 if position == "seated" else build.thigh + build.shank + 0.07
    hip = np.array([0.0, 0.0, seat])
    upright = Stance({}, float(lean))

    def above(x: float, y: float, z: float) -> np.ndarray:
        return hip + np.array([x, y, z]) @ upright.axes

    t, higher = build.trunk, 0.155 * build.wide * np.tan(np.radians(shoulder_deg))
    j = {
        "hip_l": hip + [0, 0.085, 0], "hip_r": hip + [0, -0.085, 0],
        "shoulder_l": above(0, 0.155 * build.wide, t + higher), "shoulder_r": above(0, -0.155 * build.wide, t - higher),
        "neck": above(0.0, 0, t + 0.05), "head": above(0.035, 0, t + 0.235), "nose": above(0.14, 0, t + 0.215),
        "ear_l": above(0.02, 0.075, t + 0.225), "ear_r": above(0.02, -0.075, t + 0.225), "mouth": above(0.125, 0, t + 0.165),
        "eye_l": above(0.116, 0.032, t + 0.251), "eye_r": above(0.116, -0.032, t + 0.251),
        "hip": hip, "spine": above(0, 0, t),
    }  # fmt: skip
    for side, sign, elbow_out in (("l", 1.0, elbows_out[0]), ("r", -1.0, elbows_out[1])):
        if position == "seated":
            j[f"knee_{side}"] = j[f"hip_{side}"] + np.array([build.thigh, sign * 0.03, 0.0])
            behind = (seat - ANKLE_M) * np.array([np.sin(tuck), 0.0, np.cos(tuck) - 1.0])
            aside = np.array([0.0, sign * 0.115, 0.0]) if not crossed_m else np.array([0.0 if side == "l" else -BEHIND_M, -sign * crossed_m, 0.0])
            j[f"ankle_{side}"] = np.array([build.thigh - 0.01, 0.0, ANKLE_M]) + aside - behind
        else:
            j[f"knee_{side}"] = j[f"hip_{side}"] + np.array([0.02, 0.0, -build.thigh])
            j[f"ankle_{side}"] = np.array([0.0, sign * 0.09, 0.07])
        shoulder = j[f"shoulder_{side}"]
        reached = j["mouth"] + hands[side] if hands else shoulder + np.array([0.06, sign * 0.07, -0.95 * (build.upper_arm + build.forearm)])
        out = np.array([-0.1, sign * elbow_out, -1.0])
        elbow, held = _bend(shoulder, reached, build.upper_arm, build.forearm + hand_m, out)
        j[f"elbow_{side}"], j[f"wrist_{side}"] = elbow, elbow + build.forearm / (build.forearm + hand_m) * (held - elbow)
    places, toes = {k: np.asarray(v, float) for k, v in j.items()}, tuple(np.radians(toes_deg))
    made = Stance(places, float(lean), rounded_m, float(np.radians(head_deg)), float(tuck), toes)
    for name in HEAD:  # about the neck
        made.joints[name] = j["neck"] + (j[name] - j["neck"]) @ upright.axes.T @ made.head_axes + np.array([head_out_m, 0.0, 0.0])
    return made


def _bend(start: np.ndarray, end: np.ndarray, first: float, second: float, toward: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Elbow and wrist of a two-bone arm that reaches for ``end``, bending ``toward``."""
    way = end - start
    length = min(float(np.linalg.norm(way)), 0.995 * (first + second))
    axis = way / np.linalg.norm(way)
    end = start + axis * length
    along = (first**2 - second**2 + length**2) / (2 * length)
    off = np.sqrt(max(first**2 - along**2, 0.0))
    side = toward - axis * (toward @ axis)
    return start + axis * along + side / np.linalg.norm(side) * off, end
