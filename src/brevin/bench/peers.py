"""What a straightforward user of general-purpose libraries gets on the same clips, beside the reading: breaths found, onsets, time, memory, in one run.

Two ways. ``points``: the height of the shoulders over the hips from the pose network's key points, five a second. ``flow``: dense optical flow over the box
of the trunk (Farneback 2003), its forward part summed up. Both leave the breaths to a respiration toolbox (cleaning and peaks), which is installed from
requirements/peers.txt into a folder of its own.
"""

import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from pathlib import Path
from statistics import median
from typing import Any

import cv2
import numpy as np

from brevin.bench import Measured
from brevin.bench.reading import peak_of
from brevin.core.pose import landmarks as lm
from brevin.core.track import Floats
from brevin.ops.settings import ROOT, model_path

FOLDER = ROOT / ".build" / "peers"
OWN = ROOT / "demo" / "clips"
MOST_CLIPS = 4  # of each folder: enough to tell ways apart that differ by times, not by percents
POINTS_HZ, FLOW_HZ = 5.0, 15.0
FLOW_SIDE_PX = 320
NEAR_S = 1.0  # of a planted onset: a breath that begins so near is found
WAYS = ("points", "flow", "reading")


def measure() -> Measured:
    """Every way on every clip from the side, each in a process of its own."""
    _install()
    folders = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    clips = [clip for folder in folders for clip in spread(_from_the_side(folder), MOST_CLIPS)]
    figures: dict[str, float] = {"clips": float(len(clips))}
    for way in WAYS:
        found = [_one(way, clip) for clip in clips]
        hits = sum(len(one["errors_s"]) for one in found)
        planted, read = sum(one["planted"] for one in found), sum(one["read"] for one in found)
        errors = [e for one in found for e in one["errors_s"]]
        figures |= {f"{way}_breath_f1": 2 * hits / max(planted + read, 1), f"{way}_onset_median_s": median(errors) if errors else NEAR_S}
        figures |= {f"{way}_x_clip_length": median(one["share"] for one in found), f"{way}_peak_mb": max(one["peak_mb"] for one in found)}
    rivals = max(figures["points_breath_f1"], figures["flow_breath_f1"])
    figures["f1_over_the_better_peer"] = figures["reading_breath_f1"] / max(rivals, 1e-9)
    return Measured("peers", figures, {"f1_over_the_better_peer": (">=", 1.0)})


def _install() -> None:
    if (FOLDER / "neurokit2").exists():
        return
    command = [sys.executable, "-m", "pip", "install", "--quiet", "--require-hashes", "--target", str(FOLDER), "-r", str(ROOT / "requirements" / "peers.txt")]
    if subprocess.run(command, check=False).returncode:
        raise RuntimeError("the toolbox to compare with could not be installed: it needs the package registry once (requirements/peers.txt)")


def _from_the_side(folder: Path) -> list[Path]:
    """Clips with planted truth that are to be read, filmed from the side."""
    told = [(path, json.loads(path.read_text())) for path in sorted(folder.glob("*.json"))]
    wanted = [path for path, truth in told if truth.get("readable", True) and str(truth["label"]["view"]).startswith("side")]
    return [path.with_suffix(".mp4") for path in wanted if path.with_suffix(".mp4").exists()]


def spread(clips: Sequence[Path], most: int) -> list[Path]:
    """At most so many, evenly spread over all of them."""
    return [clips[i] for i in sorted({round(k) for k in np.linspace(0, len(clips) - 1, min(most, len(clips)))})] if clips else []


def _one(way: str, clip: Path) -> dict[str, Any]:
    """Onsets of one clip by one way against the planted ones, with time and memory."""
    truth = json.loads(clip.with_suffix(".json").read_text())
    planted = [float(cycle["inhale_start"]) for cycle in truth["cycles"]]
    with tempfile.TemporaryDirectory() as scratch:
        out = Path(scratch) / "onsets.json"
        command = [sys.executable, "-m", "brevin.bench.peers", way, str(clip), str(out)]
        began = time.monotonic()
        peak_mb = peak_of(subprocess.Popen(command, env=os.environ | {"PYTHONPATH": str(ROOT / "src")}, stderr=subprocess.DEVNULL))
        wall_s = time.monotonic() - began
        read: list[float] = json.loads(out.read_text())
    return {"planted": len(planted), "read": len(read), "errors_s": matched(planted, read), "share": wall_s / float(truth["duration_s"]), "peak_mb": peak_mb}


def matched(planted: Sequence[float], read: Sequence[float]) -> list[float]:
    """How far each planted onset that was found lies from its own read one, seconds; the nearest pairs first."""
    pairs = sorted((abs(p - r), i, k) for i, p in enumerate(planted) for k, r in enumerate(read) if abs(p - r) <= NEAR_S)
    errors: list[float] = []
    taken: set[tuple[str, int]] = set()
    for error_s, i, k in pairs:
        if ("planted", i) not in taken and ("read", k) not in taken:
            taken |= {("planted", i), ("read", k)}
            errors.append(error_s)
    return errors


def by_points(clip: Path) -> list[float]:
    """Onsets from the shoulders' height over the hips, in trunk lengths."""
    from brevin.edge.pose_model import PoseModel

    network = PoseModel(model_path(ROOT), masks=False)
    heights: list[float] = []
    for rgb in _pictures(clip, hz=POINTS_HZ):
        bodies = network.see(rgb, with_masks=False).bodies
        heights.append(lm.hips(bodies[0])[1] - lm.shoulders(bodies[0])[1] if bodies else float("nan"))
    network.close()
    return _onsets(np.array(heights), hz=POINTS_HZ)


def by_flow(clip: Path) -> list[float]:
    """Onsets from the flow over the trunk's box, its part toward the side the player looks to, summed up."""
    from brevin.edge.pose_model import PoseModel

    network = PoseModel(model_path(ROOT), masks=False)
    box, ahead, last, gone = (0, 0, 0, 0), 1.0, None, [0.0]
    for rgb in _pictures(clip, hz=FLOW_HZ):
        grey = cv2.cvtColor(rgb, cv2.COLOR_RGB2GRAY)
        shrink = FLOW_SIDE_PX / max(grey.shape)
        small = cv2.resize(grey, None, fx=shrink, fy=shrink, interpolation=cv2.INTER_AREA)
        if last is None:
            body = network.see(rgb, with_masks=False).bodies[0]
            (left, top), (right, bottom) = (body.points_px[list(lm.TRUNK)].min(axis=0), body.points_px[list(lm.TRUNK)].max(axis=0))
            aside = 0.3 * (bottom - top)
            box = tuple(int(max(v * shrink, 0)) for v in (left - aside, top, right + aside, bottom))
            ahead = float(np.sign(body.points_px[lm.NOSE][0] - body.points_px[lm.EAR_L][0]) or 1.0)
        else:
            flow: Any = cv2.calcOpticalFlowFarneback(last, small, None, 0.5, 3, 15, 3, 5, 1.2, 0)
            gone.append(gone[-1] + ahead * float(flow[box[1] : box[3], box[0] : box[2], 0].mean()))
        last = small
    network.close()
    return _onsets(np.array(gone), hz=FLOW_HZ)


def by_reading(clip: Path) -> list[float]:
    """Onsets as the reading has them, with no card given."""
    from brevin.core.read import Task, read
    from brevin.edge.look import look

    return [float(breath.inhale_start_s) for breath in read(look(clip, model_path(ROOT)), Task()).breaths if breath.inhale_start_s is not None]


def _pictures(clip: Path, *, hz: float) -> Any:
    from brevin.edge.video import video_frames

    due_s = 0.0
    for frame in video_frames(clip, until_s=120.0, fastest_hz=30.0):
        if frame.t_s >= due_s - 1e-6:
            due_s += 1.0 / hz
            yield frame.rgb()


def _onsets(values: Floats, *, hz: float) -> list[float]:
    """The toolbox's own way from a raw signal to onsets: cleaned, peaks and troughs; a trough is where an inhale begins."""
    sys.path.append(str(FOLDER))
    import neurokit2  # pyrefly: ignore[missing-import]

    known = np.flatnonzero(np.isfinite(values))
    filled = np.interp(np.arange(len(values)), known, values[known])
    rate = 25  # its filters want more samples than key points come in
    dense = np.interp(np.arange(0, len(filled) / hz, 1 / rate), np.arange(len(filled)) / hz, filled)
    cleaned = neurokit2.rsp_clean(dense, sampling_rate=rate)
    _, found = neurokit2.rsp_peaks(cleaned, sampling_rate=rate)
    return [float(at) / rate for at in found["RSP_Troughs"] if np.isfinite(at)]


BY: dict[str, Callable[[Path], list[float]]] = {"points": by_points, "flow": by_flow, "reading": by_reading}


if __name__ == "__main__":
    asked, path, target = sys.argv[1:]
    Path(target).write_text(json.dumps(BY[asked](Path(path))))
