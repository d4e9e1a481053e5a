"""How well the readings fit planted truth: every clip set with a truth file beside each clip, and docs/accuracy.md made from it.

Always measured: the project's stand-in clips, still pictures that breathe (made once into ``.build/stills``, a few
minutes). Other folders of clips are named in BREVIN_CLIPS, separated by colons.
"""

import hashlib
import json
import os
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from itertools import pairwise
from pathlib import Path
from statistics import median
from typing import Any

from brevin.bench import Measured, accuracy_hold
from brevin.core import synth
from brevin.core.breath.patterns import Inhale, pattern_of
from brevin.core.read import read
from brevin.core.report import Breath, Report, Trace
from brevin.core.verdict.rules import Rules
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin import still, stills, tape
from brevin.standin.truth import task_of

OWN = ROOT / "demo" / "clips"
STILLS = ROOT / ".build" / "stills"
OWN_SETS = 3  # the stand-in clips, the stills, and those of them that are unseen
SAME_BREATH_S = 0.5  # an inhale this near a planted one is that one
BARS = {
    "inhale_start_s": 0.08, "exhale_start_s": 0.08, "inhale_beats": 0.15, "pause_beats": 0.15, "exhale_beats": 0.15, "empty_beats": 0.15,
    "inhale_offset_beats": 0.15, "abdominal_share": 0.06, "shoulder_rise": 0.4, "chest_lag_s": 0.10,
}  # fmt: skip
"""What the median error of a measure is to stay under, in its own unit."""


@dataclass(frozen=True)
class Found:
    """One planted breath that was found: errors (read less planted) and half widths of the 90 % intervals by measure."""

    label: str
    planted_pattern: str
    pattern: str | None
    errors: dict[str, float]
    halves: dict[str, float | None]
    cycle: dict[str, Any]
    breath: Breath
    trace: Trace
    planted_trace: dict[str, list[float]]

    @property
    def worst_s(self) -> float:
        """The larger error of its two onsets, seconds."""
        return max(abs(self.errors[key]) for key in ("inhale_start_s", "exhale_start_s"))


@dataclass
class Tally:
    """What was found over a set of clips. Breaths are those of side views that were not refused."""

    name: str
    clips: int = 0
    refused: list[str] = field(default_factory=list)
    planted: int = 0
    extra: int = 0
    found: list[Found] = field(default_factory=list)
    missed: list[str] = field(default_factory=list)
    held: list[accuracy_hold.Seen] = field(default_factory=list)

    @property
    def f1(self) -> float:
        """Breaths found against planted and extra ones."""
        return 2 * len(self.found) / max(self.planted + len(self.found) + self.extra, 1)

    @property
    def patterns(self) -> Counter[tuple[str, str | None]]:
        """(planted, read) to how many breaths."""
        return Counter((b.planted_pattern, b.pattern) for b in self.found)

    def errors(self, key: str) -> list[float]:
        """Absolute errors of one measure, smallest first."""
        return sorted(abs(b.errors[key]) for b in self.found if key in b.errors)

    def covered(self, key: str) -> float | None:
        """Share of the breaths whose 90 % interval holds the planted value; one without an interval counts as not."""
        inside = [(half := b.halves.get(key)) is not None and abs(b.errors[key]) <= half for b in self.found if key in b.errors]
        return sum(inside) / len(inside) if inside else None

    def half_width(self, key: str) -> float | None:
        """Median half width of one measure's interval."""
        known = [half for b in self.found if (half := b.halves.get(key)) is not None]
        return median(known) if known else None


def together(name: str, tallies: Sequence[Tally]) -> Tally:
    """Several sets counted as one."""
    return Tally(
        name, clips=sum(t.clips for t in tallies), refused=[one for t in tallies for one in t.refused], planted=sum(t.planted for t in tallies),
        extra=sum(t.extra for t in tallies), found=[one for t in tallies for one in t.found], missed=[one for t in tallies for one in t.missed],
        held=[one for t in tallies for one in t.held],
    )  # fmt: skip


def measure() -> Measured:
    """Measure all sets and write the page; bars over the project's own side views and all stills together."""
    from brevin.bench import accuracy_page

    others = [Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p]
    make_stills()
    with ProcessPoolExecutor(2) as pool:
        kept = sorted(STILLS.glob("*.json"))
        tuned, unseen = ([path for path in kept if stills.is_unseen(path.stem) == apart] for apart in (False, True))
        sets = [("Stand-in clips", _truths(OWN)), ("Stills", tuned), ("Stills, unseen", unseen), *((p.name, _truths(p)) for p in others)]
        tallies = [_set(pool, name, truths) for name, truths in sets]
    accuracy_page.write(tallies)
    mine = tallies[:OWN_SETS]
    own = together("all own", mine)
    figures = {"breaths_planted": float(own.planted), "breaths_found": float(len(own.found)), "breath_f1": own.f1}
    figures |= {f"{key}_median": median(own.errors(key)) for key in BARS if own.errors(key)}
    bars: dict[str, tuple[str, float]] = {"breath_f1": (">=", 0.98)}
    bars |= {f"{key}_median": ("<=", bar) for key, bar in BARS.items()}
    figures |= {f"{key}_median": median(found) for key in accuracy_hold.BARS if (found := accuracy_hold.errors(own.held, key))}
    bars |= {f"{key}_median": ("<=", bar) for key, bar in accuracy_hold.BARS.items() if f"{key}_median" in figures}
    return Measured("accuracy", figures, bars)


def make_stills() -> None:
    """Made once, half of them by each core; a set that was broken off, or made by other code, is made anew."""
    done, recipe = STILLS / "done", _recipe()
    if done.exists() and done.read_text() == recipe:
        return
    half = stills.COUNT // 2
    halves = [
        subprocess.Popen(
            [sys.executable, "-m", "brevin.standin.stills", str(STILLS), "--first", str(first), "--last", str(last)],
            env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
        )
        for first, last in ((0, half - 1), (half, stills.COUNT - 1))
    ]
    codes = [process.wait() for process in halves]  # both, before either is judged
    if any(codes):
        raise RuntimeError("the stills could not be made")
    done.write_text(recipe)


def _recipe() -> str:
    """What the stills are made of: the code that makes them and the clips they are taken from, as one number."""
    made_of = [*(Path(m.__file__ or "") for m in (still, stills, tape, synth)), *sorted(OWN.glob("*.mp4"))]
    return hashlib.sha256(b"".join(path.read_bytes() for path in made_of)).hexdigest()


def _truths(folder: Path) -> list[Path]:
    return [f for f in sorted(folder.glob("*.json")) if f.with_suffix(".mp4").exists()]


def _set(pool: ProcessPoolExecutor, name: str, truths: list[Path]) -> Tally:
    tally = Tally(name)
    for truth_file, report in zip(truths, pool.map(_read, truths), strict=True):
        add(tally, json.loads(truth_file.read_text()), report, truth_file.stem)
    return tally


def _read(truth_file: Path) -> Report:
    truth = json.loads(truth_file.read_text())
    return read(look(truth_file.with_suffix(".mp4"), model_path(ROOT)), task_of(truth))


def add(tally: Tally, truth: dict[str, Any], report: Report, name: str) -> None:
    """Count one clip's report against its truth."""
    tally.clips += 1
    tally.held += accuracy_hold.seen(truth, report, name)
    if not report.readable_for.breath or not str(truth["label"]["view"]).startswith("side"):
        tally.refused.append(name)
        return
    trunk_mm = _trunk_mm(truth)
    planted = {k: [100 * v / trunk_mm for v in truth["per_frame"][f"{k}_mm"]] for k in ("abdomen", "chest", "shoulder")} | {"t_s": truth["per_frame"]["t"]}
    left = list(report.breaths)
    for cycle, still_beats in _cycles(truth):
        tally.planted += 1
        label = f"{name}, breath {cycle['index'] + 1}"
        near = min(left, key=lambda b: abs((b.inhale_start_s or 0.0) - cycle["inhale_start"]), default=None)
        if near is None or abs((near.inhale_start_s or 0.0) - cycle["inhale_start"]) > SAME_BREATH_S:
            tally.missed.append(label)
            continue
        left.remove(near)
        amplitude = {k: 100 * v / trunk_mm for k, v in cycle["amplitude_mm"].items()}
        errors = _errors(near, cycle, amplitude, truth["beat_s"], still_beats)
        tally.found.append(Found(label, planted_pattern(amplitude, cycle), near.pattern, errors, dict(near.uncertainty), cycle, near, report.trace, planted))
    tally.extra += len(left)


def _cycles(truth: dict[str, Any]) -> Iterator[tuple[dict[str, Any], float | None]]:
    """Every planted breath, its exhale ended by the next inhale at the latest, with the still time after it in beats."""
    for cycle, following in pairwise(truth["cycles"]):
        end = min(cycle["exhale_end"], following["inhale_start"])
        yield {**cycle, "exhale_end": end}, (following["inhale_start"] - end) / truth["beat_s"]
    yield from ((last, None) for last in truth["cycles"][-1:])


def _errors(breath: Breath, cycle: dict[str, Any], amplitude: dict[str, float], beat_s: float, still_beats: float | None) -> dict[str, float]:
    shared = 0.0 <= cycle["abdominal_share"] <= 1.0
    wanted = {
        "inhale_start_s": cycle["inhale_start"], "exhale_start_s": cycle["exhale_start"],
        "inhale_beats": (cycle["inhale_end"] - cycle["inhale_start"]) / beat_s,
        "pause_beats": (cycle["exhale_start"] - cycle["inhale_end"]) / beat_s,
        "exhale_beats": (cycle["exhale_end"] - cycle["exhale_start"]) / beat_s,
        "empty_beats": still_beats if still_beats is not None and still_beats > 0.5 else None,
        "inhale_offset_beats": (cycle["inhale_start"] - cycle["nominal"]["inhale_start"]) / beat_s,
        "abdominal_share": cycle["abdominal_share"] if shared else None,
        "shoulder_rise": amplitude["shoulder"],
        "chest_lag_s": cycle["chest_lag_t50_s"] if shared else None,
    }  # fmt: skip
    got = {key: getattr(breath, key) for key in wanted}
    return {key: got[key] - want for key, want in wanted.items() if want is not None and got[key] is not None}


def planted_pattern(amplitude: dict[str, float], cycle: dict[str, Any]) -> str:
    """The pattern of planted amplitudes, percent of trunk, by the same table."""
    inhale = Inhale(amplitude["abdomen"], amplitude["chest"], amplitude["shoulder"], cycle["chest_lag_t50_s"])
    return pattern_of(inhale, lag_half_width_s=0.0, rules=Rules())


def _trunk_mm(truth: dict[str, Any]) -> float:
    points = truth["per_frame"]["keypoints_px"]
    lengths = []
    for sl, sr, hl, hr in zip(points["shoulder_l"], points["shoulder_r"], points["hip_l"], points["hip_r"], strict=True):
        lengths.append(((sl[0] + sr[0] - hl[0] - hr[0]) ** 2 + (sl[1] + sr[1] - hl[1] - hr[1]) ** 2) ** 0.5 / 2)
    return float(median(lengths) / truth["camera"]["px_per_mm_torso"])
