"""How well posture and hold fit planted truth: one number a clip, beside the breaths of ``accuracy.py``."""

import math
from dataclasses import dataclass
from statistics import linear_regression, median
from typing import Any

import numpy as np

from brevin.core.kinematics.posture import TALL_UNTIL_S
from brevin.core.report import PostureValue, Report

BARS = {
    "trunk_inclination_deg": 2.5, "instrument_axis_deg": 3.0, "elbow_deg": 7.0, "head_travel_pct": 1.5, "raise_spread_pct": 1.5,
    "sag_deg": 1.2, "axis_droop_deg": 3.0, "sway_pct": 0.5, "back_rounding_pct": 1.5, "shoulder_tilt_deg": 3.0,
    "head_tilt_deg": 3.0, "wrist_deg": 10.0, "foot_late_s": 0.05, "shoulder_front_pct": 0.4,
}  # fmt: skip
"""What the median error of each is to stay under, degrees, percent of trunk or seconds."""
NAMES = {
    "trunk_inclination_deg": "trunk inclination, deg", "instrument_axis_deg": "instrument axis, deg", "elbow_deg": "elbow clearance, from the front, deg",
    "head_travel_pct": "head while raising, % of trunk", "raise_spread_pct": "spread of raises, % of trunk",
    "sag_deg": "sag of the trunk, deg", "axis_droop_deg": "instrument sinks while playing, deg",
    "sway_pct": "sway of head and shoulders, % of trunk", "back_rounding_pct": "back rounding, % of trunk",
    "shoulder_tilt_deg": "shoulder line, from the front, deg", "head_tilt_deg": "head tilt, from the front, deg",
    "wrist_deg": "bend of a wrist, deg", "foot_late_s": "tapping foot against the beat, s",
    "shoulder_front_pct": "shoulder rise, from the front, % of trunk",
}  # fmt: skip
UP = 0.99  # share of the way from which an instrument that is raised is up
SAME_PLANE_DEG = 6.0  # an axis that looks steeper in the picture than it is by more than this points out of it: there is no truth for what is seen


@dataclass(frozen=True)
class Seen:
    """One planted angle of a clip. error: read less planted, None where it was not measured; half: of its 90 % interval."""

    key: str
    clip: str
    error: float | None
    half: float | None


def seen(truth: dict[str, Any], report: Report, clip: str) -> list[Seen]:
    """Every planted angle of a clip that its view can show."""
    view, arms = str(truth["label"]["view"]), truth["label"].get("arms")
    found: list[Seen] = []
    if view.startswith("side") and truth["label"].get("position") != "lying" and "joints_px" in truth["per_frame"]:
        leans = _inclinations_deg(truth)
        if truth["label"].get("posed") != "as seen":  # a still's own lean is the network's, and no truth
            found.append(_one("trunk_inclination_deg", clip, report.posture.trunk_inclination_deg, median(leans)))
        if report.breaths:
            found.append(_one("sag_deg", clip, report.posture.sag_deg, _changed(truth, report, leans)))
            swayed = _swayed_pct(truth, report)
            found += [] if swayed is None else [_one("sway_pct", clip, report.posture.sway_pct, swayed)]
            rounded = _rounded_pct(truth, report)
            found += [] if rounded is None else [_one("back_rounding_pct", clip, report.posture.back_rounding_pct, rounded)]
    if view == "front" and "keypoints_px" in truth["per_frame"]:
        found.append(_one("shoulder_tilt_deg", clip, report.posture.shoulder_tilt_deg, median(_shoulder_lines_deg(truth))))
    if view == "front" and truth["cycles"] and "keypoints_px" in truth["per_frame"]:
        found.append(_front_rise(truth, report, clip))
    if view == "front" and "eye_l" in truth["per_frame"].get("joints_px", {}):
        found.append(_one("head_tilt_deg", clip, report.posture.head_tilt_deg, median(_head_tilts_deg(truth))))
    instrument, raised = truth["per_frame"].get("instrument") or {}, truth.get("raising")
    if instrument.get("image_angle_deg") and report.hold is not None:
        planted, held = (median(_while_up(truth, instrument[key])) for key in ("image_angle_deg", "elevation_deg"))
        if abs(planted - held) < SAME_PLANE_DEG:
            found.append(_one("instrument_axis_deg", clip, report.hold.instrument_axis_deg, -planted))
            if report.breaths and not raised:
                found.append(_one("axis_droop_deg", clip, report.hold.axis_droop_deg, -_changed(truth, report, instrument["image_angle_deg"])))
    if raised and report.hold is not None:
        found += [_one(key, clip, getattr(report.hold, key), raised[key]) for key in ("head_travel_pct", "raise_spread_pct")]
    planted_of = truth["per_frame"].get("upper_arm_abduction_deg")
    if view == "front" and arms == "instrument" and planted_of and report.hold is not None:
        sides = report.hold.elbow_abduction_deg or {}
        found += [_one("elbow_deg", f"{clip}, {side}", sides.get(side), median(planted_of[side[0]])) for side in ("left", "right")]
    if "strikes_s" in truth:
        found.append(_one("foot_late_s", clip, report.posture.foot_late_s, _late_s(truth)))
    if "hands" in truth and report.hold is not None and report.hold.wrist_deg is not None:
        found += [_one("wrist_deg", f"{clip}, {side}", report.hold.wrist_deg[side], truth["hands"][side[0]]["wrist_seen_deg"]) for side in ("left", "right")]
    return found


def _front_rise(truth: dict[str, Any], report: Report, clip: str) -> Seen:
    """The shoulders' rise as the row that judges it has it, beside the middle of those planted."""
    planted_pct = 100.0 * median(cycle["amplitude_mm"]["shoulder"] for cycle in truth["cycles"]) * truth["camera"]["px_per_mm_torso"] / _trunk_px(truth)
    values = ((v.value, v.uncertainty) for v in report.verdicts if v.criterion == "shoulders_still" and v.value is not None)
    value, half = next(values, (None, None))
    return Seen("shoulder_front_pct", clip, None if value is None else value - planted_pct, half)


def _trunk_px(truth: dict[str, Any]) -> float:
    points = truth["per_frame"]["keypoints_px"]
    shoulders, hips = ((np.array(points[f"{place}_l"]) + np.array(points[f"{place}_r"])) / 2 for place in ("shoulder", "hip"))
    return float(np.median(np.hypot(*(shoulders - hips).T)))


def _late_s(truth: dict[str, Any]) -> float:
    """How late the planted strikes of a foot are, the middle of them."""
    beats = [(at_s - truth["first_inhale_beat_s"]) / truth["beat_s"] for at_s in truth["strikes_s"]]
    return truth["beat_s"] * median(at - round(at) for at in beats)


def _while_up(truth: dict[str, Any], values: list[float]) -> list[float]:
    """Those of the frames in which an instrument that is raised is up; all where it is up throughout."""
    share = truth.get("raising", {}).get("up")
    return values if share is None else [value for value, up in zip(values, share, strict=True) if up >= UP]


def _one(key: str, clip: str, value: PostureValue | None, planted: float) -> Seen:
    return Seen(key, clip, None if value is None else value.value - planted, None if value is None else value.uncertainty)


def _judged(truth: dict[str, Any], report: Report) -> list[float]:
    """Times of the frames from the first inhale to the last exhale."""
    first, last = report.breaths[0].inhale_start_s, report.breaths[-1].exhale_end_s
    return [t for t in truth["per_frame"]["t"] if (first or 0.0) <= t <= (last or math.inf)]


def _changed(truth: dict[str, Any], report: Report, values: list[float]) -> float:
    """What the planted line through an angle changes by while it is judged."""
    judged = set(_judged(truth, report))
    t_s, kept = zip(*((t, value) for t, value in zip(truth["per_frame"]["t"], values, strict=True) if t in judged), strict=True)
    return linear_regression(t_s, kept).slope * (t_s[-1] - t_s[0])


def _swayed_pct(truth: dict[str, Any], report: Report) -> float | None:
    """How far shoulders and nose wander about the line through their way, percent of trunk, the mean of both; None where the truth has them of one picture."""
    points, t_s = truth["per_frame"]["keypoints_px"], np.array(truth["per_frame"]["t"])
    judged = np.isin(t_s, _judged(truth, report))
    shoulders_x = (np.array(points["shoulder_l"])[judged, 0] + np.array(points["shoulder_r"])[judged, 0]) / 2
    ways = np.column_stack([shoulders_x, np.array(truth["per_frame"]["joints_px"]["nose"])[judged, 0]])
    if not np.ptp(ways, axis=0).any():
        return None
    left = ways - np.polynomial.polynomial.polyval(t_s[judged], np.polynomial.polynomial.polyfit(t_s[judged], ways, 1)).T
    return float(100.0 * left.std(axis=0).mean() / _trunk_px(truth))


def _rounded_pct(truth: dict[str, Any], report: Report) -> float | None:
    """How much further the back bows out than at first while it is judged, median; nothing where nobody slumps, None where it is told in another unit."""
    planted = truth["per_frame"].get("back_rounding_pct")
    if planted is None:
        return None if any(truth["per_frame"].get("slouch_deg", ())) else 0.0
    judged = set(_judged(truth, report))
    each = list(zip(truth["per_frame"]["t"], planted, strict=True))
    return median(bow for t_s, bow in each if t_s in judged) - median(bow for t_s, bow in each if t_s <= TALL_UNTIL_S)


def _shoulder_lines_deg(truth: dict[str, Any]) -> list[float]:
    points = truth["per_frame"]["keypoints_px"]
    return [math.degrees(math.atan2(r[1] - le[1], abs(le[0] - r[0]))) for le, r in zip(points["shoulder_l"], points["shoulder_r"], strict=True)]


def _head_tilts_deg(truth: dict[str, Any]) -> list[float]:
    """By both eyes, + = to the player's right."""
    joints = truth["per_frame"]["joints_px"]
    return [math.degrees(math.atan2(r[1] - le[1], le[0] - r[0])) for le, r in zip(joints["eye_l"], joints["eye_r"], strict=True)]


def _inclinations_deg(truth: dict[str, Any]) -> list[float]:
    points, nose = truth["per_frame"]["keypoints_px"], truth["per_frame"]["joints_px"]["nose"]
    angles = []
    for sl, sr, hl, hr, at in zip(points["shoulder_l"], points["shoulder_r"], points["hip_l"], points["hip_r"], nose, strict=True):
        across, up = (sl[0] + sr[0] - hl[0] - hr[0]) / 2, (hl[1] + hr[1] - sl[1] - sr[1]) / 2
        angles.append(math.degrees(math.atan2(across if at[0] > (sl[0] + sr[0]) / 2 else -across, up)))
    return angles


def errors(found: list[Seen], key: str) -> list[float]:
    """Absolute errors of what was measured, smallest first."""
    return sorted(abs(one.error) for one in found if one.key == key and one.error is not None)


def section(found: list[Seen]) -> list[str]:
    """The table of a set; nothing where no angle was planted."""
    if not found:
        return []
    lines = ["", "| posture and hold | bar | median error | worst | in the 90 % interval | measured |", "|---|---|---|---|---|---|"]
    for key, bar in BARS.items():
        of_key = [one for one in found if one.key == key]
        measured = errors(found, key)
        if of_key and not measured:
            lines.append(f"| {NAMES[key]} | {bar} | - | - | - | 0 of {len(of_key)} |")
        elif of_key:
            inside = sum(abs(one.error) <= one.half for one in of_key if one.error is not None and one.half is not None)
            share = f"{100 * inside / len(measured):.0f} %"
            lines.append(f"| {NAMES[key]} | {bar} | {median(measured):.2f} | {measured[-1]:.2f} | {share} | {len(measured)} of {len(of_key)} |")
    missed = [f"{NAMES[one.key]} in {one.clip}" for one in found if one.error is None]
    return [*lines, "", f"Not measured: {'; '.join(missed)}."] if missed else lines
