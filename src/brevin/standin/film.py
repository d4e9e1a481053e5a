"""Films a script: pictures, click track and tone into one MP4, the truth beside it as JSON."""

import json
from pathlib import Path
from typing import Any

import numpy as np

from brevin.core.hold.wrists import between_deg
from brevin.core.plan.card import CountCard, parse
from brevin.core.synth import Signals, signals
from brevin.standin import body as figure
from brevin.standin import face, hand, instruments, raising, stickers, tape, tapping
from brevin.standin.camera import Camera, Lens, box
from brevin.standin.scripts import Script
from brevin.standin.stance import Build, Stance, stance

WALL, FLOOR, CHAIR, POSTER = 6, 7, 8, 11
CRF = "24"
SWAYS_FROM_M = 0.3  # height from which the body sways, as the camera draws it
ELBOWS_OUT = np.concatenate([np.linspace(-0.8, 1.6, 25), np.linspace(1.8, 6.0, 15)])  # ways an elbow may point, sideways for each unit down
HANGS_DEG_PER_M = 60.0  # how much clearance an elbow gives up to hang lower: where hands lie, one that is as clear may stand over its shoulder


def film(script: Script, folder: Path, *, crf: str = CRF) -> Path:
    """Make one clip with its truth; returns the clip's path. crf: how fine it is coded."""
    card = parse(script.card)
    first_s, length_s, t_s = tape.planted_times(card, len(script.cycles), script.rate_hz)
    planted = signals(t_s, card, list(script.cycles), first_inhale_s=first_s)
    struck_s = tapping.strikes_s(script, t_s, first_s, card.beat_s) if script.taps_deg else None
    each, shown = raising.stages(script, t_s) if struck_s is None else tapping.stages(t_s, struck_s, card.beat_s)
    scenes = [_scene(script, stage) for stage in each]
    pose = scenes[-1][0]
    lens = _lens(script, pose)
    clip = folder / f"{script.name}.mp4"
    sway = _sway(script, t_s)
    camera = Camera(lens, stickers.seen_on(script.look), _room(script), [meshes for _, meshes, _ in scenes], seed=script.seed)
    pictures = (camera.shoot((planted.abdomen[i], planted.chest[i], planted.shoulder[i]), (sway[i], 0.4 * sway[i], 0.0), shown[i]) for i in range(len(t_s)))
    heard = tape.sound(card, planted, length_s, tone=script.tone, seed=script.seed + 200)
    tape.write(clip, pictures, heard, rate_hz=script.rate_hz, size_px=script.size_px, crf=crf)
    truth = _truth(script, card, planted, [scenes[i] for i in shown], lens, sway, first_s, length_s)
    if script.raises:
        truth["raising"] = raising.truth(script, each, shown, 1000.0 * script.build.trunk)
    if struck_s is not None:
        truth["strikes_s"] = [round(float(at_s), 4) for at_s in struck_s]
    if script.grips:
        truth["hands"] = _hands_planted(script, pose, lens)
    clip.with_suffix(".json").write_text(json.dumps(truth, separators=(",", ":")))
    return clip


def _sway(script: Script, t_s: np.ndarray) -> np.ndarray:
    random = np.random.default_rng(script.seed + 100)
    phase = random.uniform(0, 2 * np.pi, 2)
    return script.sway_m * (np.sin(2 * np.pi * 0.21 * t_s + phase[0]) + 0.5 * np.sin(2 * np.pi * 0.083 * t_s + phase[1]))


Scene = tuple[Stance, list[figure.Mesh], np.ndarray | None]
"""Who stands how, all of them that is drawn, and both ends of the instrument's axis."""


def _scene(script: Script, stage: raising.Stage) -> Scene:
    still, meets = (_stance(script, stage, out_m) for out_m in (0.0, stage.up * script.head_out_m))
    body = figure.mesh(script.build, meets, mittens=not script.grips)
    fingers = (hand.mesh(one, grip.size) for one, grip in _bones(script, meets))
    meshes = [body, *face.meshes(body, meets), *stickers.meshes(script, body, meets), *fingers]
    instrument, ends = instruments.drawn(script, still.joints["mouth"] + stage.mouthpiece_m(), np.radians(stage.axis_deg(script)))
    return meets, meshes + instrument, ends


def _stance(script: Script, stage: raising.Stage, head_out_m: float) -> Stance:
    up_deg = stage.toes * script.taps_deg

    def held(*elbows_out: float) -> Stance:
        return stance(
            script.build, position=script.position, lean_deg=stage.lean_deg(script), hands=instruments.reached(script, stage),
            hand_m=hand.PLAIN_M if script.instrument and not script.grips else 0.0, elbows_out=(elbows_out[0], elbows_out[-1]),
            head_out_m=head_out_m, shoulder_deg=script.shoulder_deg, head_deg=script.head_deg, rounded_m=stage.sunk * script.rounds_m,
            tuck_deg=script.tuck_deg, crossed_m=script.crossed_m,
            toes_deg=(up_deg * script.taps_left, up_deg * (1.0 - script.taps_left)),
        )  # fmt: skip

    wanted = script.elbows_deg
    if wanted is None:
        return held(0.8 if script.instrument in ("trumpet", "flute") and not script.grips else 0.35)

    def off_deg(out: float, side: str) -> float:
        pose = held(out)
        height_m = pose.joints[f"elbow_{side}"][2] - pose.joints[f"shoulder_{side}"][2]
        return abs(_clearance_deg(pose, script.build, side) - wanted) + HANGS_DEG_PER_M * height_m

    return held(*(min(ELBOWS_OUT, key=lambda out: off_deg(out, side)) for side in "lr"))


def _clearance_deg(pose: Stance, build: Build, side: str) -> float:
    """How far an elbow is out: the arcsine of its sideways distance from the shoulder over the upper arm."""
    aside = (pose.joints[f"elbow_{side}"] - pose.joints[f"shoulder_{side}"])[1] * (1.0 if side == "l" else -1.0)
    return float(np.degrees(np.arcsin(np.clip(aside / build.upper_arm, -1.0, 1.0))))


def _hands_planted(script: Script, pose: Stance, lens: Lens) -> dict[str, dict[str, float]]:
    """By side, how far wrist and fingers are bent, and what of the wrist's bend the camera sees."""
    planted = {}
    for (side, grip), (bones, _) in zip(script.grips, _bones(script, pose), strict=True):
        elbow, wrist, knuckles = (lens.to_px(place) for place in (pose.joints[f"elbow_{side}"], bones.wrist, bones.fingers[1:, 0].mean(axis=0)))
        seen_deg = round(between_deg(wrist - elbow, knuckles - wrist), 1)
        planted[side] = {"wrist_deg": round(grip.wrist_deg(), 1), "wrist_seen_deg": seen_deg, "finger_curl_deg": grip.curl_deg}
    return planted


def _bones(script: Script, pose: Stance) -> list[tuple[hand.Bones, hand.Grip]]:
    j = pose.joints
    return [(hand.bones(j[f"elbow_{side}"], j[f"wrist_{side}"], grip, side), grip) for side, grip in script.grips]


def _room(script: Script) -> list[figure.Mesh]:
    away = -1.0 if script.view == "side-left" else 1.0  # the wall stands behind the player as the camera sees it
    parts = [box((-6, -6, -0.02), (6, 6, 0.0), FLOOR)]
    if script.view == "front":
        parts.append(box((-1.75, -6, 0), (-1.7, 6, 3), WALL))
        parts.append(box((-1.7, 0.9, 1.1), (-1.68, 1.5, 1.7), POSTER))
    else:
        y = away * 1.3
        parts.append(box((-6, min(y, y + 0.05 * away), 0), (6, max(y, y + 0.05 * away), 3), WALL))
        parts.append(box((-1.5, y - 0.02, 1.0), (-0.9, y + 0.02, 1.75), POSTER))
    if script.position == "seated":
        parts.append(box((-0.24, -0.21, 0.34), (0.2, 0.21, 0.37), CHAIR))
        for x in (-0.22, 0.17):
            for y in (-0.19, 0.17):
                parts.append(box((x, y, 0), (x + 0.03, y + 0.03, 0.34), CHAIR))
        parts += [box((-0.26, y, 0.37), (-0.23, y + 0.03, 0.78), CHAIR) for y in (-0.19, 0.17)]
        parts.append(box((-0.26, -0.19, 0.68), (-0.24, 0.19, 0.78), CHAIR))
    return parts


def _lens(script: Script, pose: Stance) -> Lens:
    azimuth = {"side-left": 1.0, "side-right": -1.0, "front": 0.0}[script.view] * (90.0 + script.turned_deg) + (2.0 if script.seed % 2 else -1.5)
    top = pose.joints["head"][2] + 0.16
    distance = 2.3
    share = 0.74 if script.view == "front" else 0.86  # of the height of the picture; knees and shoes stand nearer from the front
    focal = share * script.size_px[1] / top * distance
    return Lens(azimuth, distance, 0.5 * top, *script.size_px, focal_px=focal)


def _angle_deg(near: np.ndarray, far: np.ndarray) -> float:
    """Angle of a way in a picture whose second axis goes down; + = upward."""
    return round(float(np.degrees(np.arctan2(near[1] - far[1], abs(far[0] - near[0])))), 2)


def _elevation_deg(near: np.ndarray, far: np.ndarray) -> float:
    """Angle of a way in the room against level; + = upward."""
    return round(float(np.degrees(np.arctan2(far[2] - near[2], np.hypot(*(far - near)[:2])))), 2)


KEY_POINTS = ("shoulder", "elbow", "wrist", "hip", "knee", "ankle")


def _joints_px(shown: list[Scene], lens: Lens, sway: np.ndarray) -> dict[str, list[list[float]]]:
    """Where every joint is in every picture."""
    gone = [np.array([by, 0.4 * by, 0.0]) for by in sway]  # for each metre of height

    def px(name: str, pose: Stance, by: np.ndarray) -> list[float]:
        place = pose.joints[name]
        return [round(float(v), 2) for v in lens.to_px(place + by * max(place[2] - SWAYS_FROM_M, 0.0))]

    return {name: [px(name, pose, by) for (pose, _, _), by in zip(shown, gone, strict=True)] for name in shown[-1][0].joints}


def _truth(
    script: Script, card: CountCard, planted: Signals, shown: list[Scene], lens: Lens, sway: np.ndarray, first_s: float, length_s: float,
) -> dict[str, Any]:  # fmt: skip
    """What was planted, in the layout the scorer of the readings reads; positions in clip pixels, amplitudes in mm."""
    depth = abs(float((shown[-1][0].joints["spine"] - lens.eye()) @ lens.axes()[2]))
    still = _joints_px(shown, lens, sway)
    names = [f"{name}_{side}" for name in KEY_POINTS for side in "lr"]
    per_frame: dict[str, Any] = {
        "t": [round(float(t), 4) for t in planted.t_s],
        **{f"{k}_mm": [round(1000 * float(v), 3) for v in getattr(planted, k)] for k in ("abdomen", "chest", "shoulder")},
        "sway_mm": [round(1000 * float(s), 2) for s in sway],
        "keypoints_px": {k: still[k] for k in names},
        "joints_px": {name: still[name] for name in ("nose", "eye_l", "eye_r")},
    }
    if script.rounds_m:
        per_frame["back_rounding_pct"] = [round(100.0 * pose.rounded_m / script.build.trunk, 3) for pose, _, _ in shown]
    if script.instrument:
        clear = {side: [_clearance_deg(pose, script.build, side) for pose, _, _ in shown] for side in "lr"}
        per_frame["upper_arm_abduction_deg"] = {side: [round(deg, 2) for deg in values] for side, values in clear.items()}
    ends = [instrument for _, _, instrument in shown if instrument is not None]
    if ends:
        seen, held = [lens.to_px(pair) for pair in ends], [_elevation_deg(*pair) for pair in ends]
        per_frame["instrument"] = {"image_angle_deg": [_angle_deg(*pair) for pair in seen], "elevation_deg": held}
    return {
        "id": script.name, "readable": True,
        "scenario": {"breath": {
            "inhale_beats": card.inhale_beats, "hold_beats": card.pause_beats, "exhale_beats": card.exhale_beats,
            "bpm": card.tempo_bpm, "cycles": len(script.cycles),
        }},
        "label": {
            "view": script.view.replace("-", "_"), "position": script.position, "instrument": script.instrument,
            "arms": "instrument" if script.instrument else "relaxed",
        },
        "fps": script.rate_hz, "width": script.size_px[0], "height": script.size_px[1], "duration_s": round(length_s, 4),
        "camera": {"px_per_mm_torso": lens.focal_px / depth / 1000},
        "beat_s": card.beat_s, "first_inhale_beat_s": first_s,
        "cycles": [tape.cycle(i, breath, card, first_s) for i, breath in enumerate(planted.planted)],
        "per_frame": per_frame,
    }  # fmt: skip
