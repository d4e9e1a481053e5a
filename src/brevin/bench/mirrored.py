"""The same clips in a mirror: what is read of a player must not hang on the side he or she sits on.

A reading that was built with some clips in sight is fitted to their very pictures, down to which point of a shirt is followed; in a mirror they are new
pictures of the same breath, and nobody has to film them. Left out are flutes, which lie to one side. Clips as in ``accuracy.py``: the project's own, and
those of the folders named in BREVIN_CLIPS.
"""

import json
import os
import sys
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from brevin.bench import Measured
from brevin.bench.accuracy import OWN, SAME_BREATH_S
from brevin.bench.worse import remade
from brevin.core.read import Task, read
from brevin.core.report import Breath, Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

FOUND_LEAST, ONSET_P90_S = 0.98, 0.15  # of the breaths; between the starts in nine of ten
ASIDE = ("flute", "piccolo")
CODER = 16.0  # hardly any trace of it
ONSETS = ("inhale_start_s", "exhale_start_s")


@dataclass(frozen=True)
class Pair:
    """What was read of a clip, and of the same clip in a mirror."""

    name: str
    plain: Report
    mirrored: Report

    @property
    def breaths(self) -> list[tuple[Breath, Breath | None]]:
        """Each breath, with the one that begins at its moment in the mirror, or None."""
        return [(one, _same(one, self.mirrored.breaths)) for one in self.plain.breaths]

    @property
    def extra(self) -> int:
        """Breaths that are seen in the mirror alone."""
        return sum(_same(one, self.plain.breaths) is None for one in self.mirrored.breaths)


def measure() -> Measured:
    """How alike clips and their mirror images read; clips of which either is refused for the breath are counted and told."""
    folders = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    truths = [file for folder in folders for file in sorted(folder.glob("*.json")) if file.with_suffix(".mp4").exists() and _is_of_the_breath(file)]
    with ProcessPoolExecutor(2) as pool:
        pairs = list(pool.map(_pair, truths))
    return alike(pairs)


def alike(pairs: Sequence[Pair]) -> Measured:
    """The figures of some pairs. Named otherwise are two names none of which leaves room for the other."""
    told = [pair for pair in pairs if pair.plain.readable_for.breath and pair.mirrored.readable_for.breath]
    both = [(one, other) for pair in told for one, other in pair.breaths if other is not None]
    count = sum(len(pair.plain.breaths) + pair.extra for pair in told)
    otherwise = [pair.name for pair in told for one, other in pair.breaths if other is not None and _otherwise(one, other)]
    apart_s = [gap for one, other in both for key in ONSETS if (gap := _apart(one, other, key)) is not None] or [np.inf]
    shares = [gap for one, other in both if (gap := _apart(one, other, "abdominal_share")) is not None] or [np.inf]
    for name in sorted({*otherwise, *(pair.name for pair in told if pair.extra or any(other is None for _, other in pair.breaths))}):
        print(f"brevin: {name} reads otherwise in a mirror", file=sys.stderr)
    figures = {
        "clips": float(len(pairs)), "readable_in_one_alone": float(sum(p.plain.readable_for.breath != p.mirrored.readable_for.breath for p in pairs)),
        "breaths": float(count), "found_in_both": len(both) / max(count, 1), "named_otherwise": len(otherwise) / max(len(both), 1),
        "onset_median_s": float(np.median(apart_s)), "onset_p90_s": float(np.percentile(apart_s, 90, method="higher")),
        "share_median": float(np.median(shares)),
    }  # fmt: skip
    return Measured(
        "mirrored", figures, {"found_in_both": (">=", FOUND_LEAST), "named_otherwise": ("<=", 0.0), "onset_p90_s": ("<=", ONSET_P90_S)}
    )  # fmt: skip


def _is_of_the_breath(truth_file: Path) -> bool:
    label = json.loads(truth_file.read_text())["label"]
    return str(label.get("view", "")).startswith(("side", "three")) and (label.get("instrument") or "none") not in ASIDE


def _pair(truth_file: Path) -> Pair:
    clip, task = truth_file.with_suffix(".mp4"), task_of(json.loads(truth_file.read_text()))
    with TemporaryDirectory() as scratch:
        other = Path(scratch) / clip.name
        remade(clip, other, lambda rgb, _: np.ascontiguousarray(rgb[:, ::-1]), coder=CODER)
        return Pair(clip.stem, _read(clip, task), _read(other, task))


def _read(clip: Path, task: Task) -> Report:
    return read(look(clip, model_path(ROOT)), task)


def _same(breath: Breath, among: Sequence[Breath]) -> Breath | None:
    """The breath that begins at its moment, where one does."""
    begun = [one for one in among if one.inhale_start_s is not None]
    if breath.inhale_start_s is None or not begun:
        return None
    near = min(begun, key=lambda one: abs((one.inhale_start_s or 0.0) - (breath.inhale_start_s or 0.0)))
    return near if abs((near.inhale_start_s or 0.0) - breath.inhale_start_s) <= SAME_BREATH_S else None


def _apart(one: Breath, other: Breath, key: str) -> float | None:
    """By how much a number of two breaths differs; None where either has none."""
    value, mirrored = getattr(one, key), getattr(other, key)
    return None if value is None or mirrored is None else abs(value - mirrored)


def _otherwise(one: Breath, other: Breath) -> bool:
    """Whether two named breaths contradict each other: none of the names that either leaves room for is the other's."""
    names, others = ({kind for kind in (breath.pattern, breath.pattern_or) if kind is not None} for breath in (one, other))
    return "unclear" not in names | others and not names & others
