"""How well the readings fit planted truth: every clip set with a truth file beside each clip, and docs/accuracy.md made from it.

The project's own stand-in clips are always measured; other folders of clips are named in BREVIN_CLIPS, separated by colons.
"""

import json
import os
from collections import Counter
from dataclasses import dataclass, field
from pathlib import Path
from statistics import median
from typing import Any

from brevin.bench import Measured
from brevin.core.plan.card import parse
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.edge.look import look
from brevin.ops.models import model_path
from brevin.ops.settings import ROOT

OWN = ROOT / "demo" / "clips"
PAGE = ROOT / "docs" / "accuracy.md"
SAME_BREATH_S = 0.5  # an inhale this near a planted one is that one
MEASURES = ("inhale onset, s", "exhale onset, s", "inhale, beats", "pause, beats", "exhale, beats", "abdominal share", "shoulder rise, %")


@dataclass
class Tally:
    """What was found over a set of clips."""

    clips: int = 0
    refused: int = 0
    planted: int = 0
    found: int = 0
    extra: int = 0
    errors: dict[str, list[float]] = field(default_factory=lambda: {name: [] for name in MEASURES})
    patterns: Counter[tuple[str, str]] = field(default_factory=Counter)
    worst: list[tuple[float, str]] = field(default_factory=list)


def measure() -> Measured:
    """Measure all sets and write the page; bars over the project's own side views."""
    sets = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    tallies = {folder.name if folder != OWN else "stand-in clips of the project": _set(folder) for folder in sets}
    PAGE.write_text(_page(tallies))
    own = next(iter(tallies.values()))
    figures = {"breaths_planted": float(own.planted), "breaths_found": float(own.found), "breaths_extra": float(own.extra)}
    figures |= {name.split(",")[0].replace(" ", "_") + "_median": median(values) for name, values in own.errors.items() if values}
    return Measured("accuracy", figures, {"breaths_extra": ("<=", 0.0), "inhale_onset_median": ("<=", 0.08), "abdominal_share_median": ("<=", 0.06)})


def _set(folder: Path) -> Tally:
    tally = Tally()
    for truth_file in sorted(folder.glob("*.json")):
        clip = truth_file.with_suffix(".mp4")
        if clip.exists():
            truth = json.loads(truth_file.read_text())
            _one(tally, truth, _read(clip, truth), clip.stem)
    return tally


def _read(clip: Path, truth: dict[str, Any]) -> Report:
    asked = truth["scenario"]["breath"]
    card = parse(f"{asked['inhale_beats']:g}-{asked.get('hold_beats', 0):g}-{asked['exhale_beats']:g}@{asked['bpm']:g}x{asked['cycles']}")
    return read(look(clip, model_path(ROOT)), Task(card=card, instrument=truth["label"].get("instrument") or "none"))


def _one(tally: Tally, truth: dict[str, Any], report: Report, name: str) -> None:
    tally.clips += 1
    if not report.readable_for.breath:
        tally.refused += 1
        return
    trunk_mm = _trunk_mm(truth)
    left = list(report.breaths)
    for cycle in truth["cycles"]:
        tally.planted += 1
        near = [b for b in left if abs((b.inhale_start_s or 0.0) - cycle["inhale_start"]) <= SAME_BREATH_S]
        if not near:
            tally.worst.append((9.0, f"{name}, breath {cycle['index'] + 1}: not found"))
            continue
        left.remove(near[0])
        tally.found += 1
        _compare(tally, cycle, near[0], truth["beat_s"], trunk_mm, f"{name}, breath {cycle['index'] + 1}")
    tally.extra += len(left)


def _compare(tally: Tally, cycle: dict[str, Any], breath: Any, beat_s: float, trunk_mm: float, label: str) -> None:
    amplitude = {k: 100 * v / trunk_mm for k, v in cycle["amplitude_mm"].items()}
    pairs = {
        "inhale onset, s": (breath.inhale_start_s, cycle["inhale_start"]), "exhale onset, s": (breath.exhale_start_s, cycle["exhale_start"]),
        "inhale, beats": (breath.inhale_beats, (cycle["inhale_end"] - cycle["inhale_start"]) / beat_s),
        "pause, beats": (breath.pause_beats, (cycle["exhale_start"] - cycle["inhale_end"]) / beat_s),
        "exhale, beats": (breath.exhale_beats, (cycle["exhale_end"] - cycle["exhale_start"]) / beat_s),
        "abdominal share": (breath.abdominal_share, cycle["abdominal_share"] if 0 <= cycle["abdominal_share"] <= 1 else None),
        "shoulder rise, %": (breath.shoulder_rise, amplitude["shoulder"]),
    }  # fmt: skip
    for name, (got, want) in pairs.items():
        if got is not None and want is not None:
            tally.errors[name].append(abs(got - want))
    tally.patterns[(planted_pattern(amplitude, cycle), breath.pattern)] += 1
    tally.worst.append(
        (abs(breath.exhale_start_s - cycle["exhale_start"]), f"{label}: exhale onset off by {breath.exhale_start_s - cycle['exhale_start']:+.2f} s")
    )


def planted_pattern(amplitude: dict[str, float], cycle: dict[str, Any]) -> str:
    """The pattern of planted amplitudes, percent of trunk, by the same table."""
    from brevin.core.breath.patterns import Inhale, pattern_of
    from brevin.core.verdict.profile import MethodProfile

    inhale = Inhale(amplitude["abdomen"], amplitude["chest"], amplitude["shoulder"], cycle["chest_lag_t50_s"])
    return pattern_of(inhale, lag_half_width_s=0.0, rules=MethodProfile())


def _trunk_mm(truth: dict[str, Any]) -> float:
    points = truth["per_frame"]["keypoints_px"]
    lengths = []
    for sl, sr, hl, hr in zip(points["shoulder_l"], points["shoulder_r"], points["hip_l"], points["hip_r"], strict=True):
        lengths.append(((sl[0] + sr[0] - hl[0] - hr[0]) ** 2 + (sl[1] + sr[1] - hl[1] - hr[1]) ** 2) ** 0.5 / 2)
    return float(median(lengths) / truth["camera"]["px_per_mm_torso"])


def _page(tallies: dict[str, Tally]) -> str:
    lines = ["# How well the readings fit planted truth", "", "Made by `./brevin bench accuracy`; do not edit by hand."]
    for name, tally in tallies.items():
        lines += ["", f"## {name[0].upper()}{name[1:]}", ""]
        lines.append(f"{tally.clips} clips, {tally.refused} of them refused for the breath (front views and spoiled ones are meant to be).")
        lines.append(f"{tally.found} of {tally.planted} planted breaths found, {tally.extra} extra.")
        lines += ["", "| measure | median error | 90th percentile | worst | breaths |", "|---|---|---|---|---|"]
        for measure_name, errors in tally.errors.items():
            if errors:
                ordered = sorted(errors)
                lines.append(f"| {measure_name} | {median(errors):.3f} | {ordered[int(0.9 * (len(ordered) - 1))]:.3f} | {ordered[-1]:.3f} | {len(errors)} |")
        lines += ["", "| planted pattern | read as | breaths |", "|---|---|---|"]
        lines += [f"| {planted} | {got} | {count} |" for (planted, got), count in sorted(tally.patterns.items())]
        lines += ["", "Farthest off: " + "; ".join(text for _, text in sorted(tally.worst, reverse=True)[:3]) + "."]
    return "\n".join(lines) + "\n"
