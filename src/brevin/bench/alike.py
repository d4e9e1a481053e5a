"""The same clips in other pictures: in a mirror, under a lamp's bands, through a lens that looks for its focus, filmed from the hand, by a phone that stands
tilted, while somebody crosses before the player, with a trunk that sinks meanwhile. What is read of a breath must hang on none of that.

A reading that was built with some clips in sight is fitted to their very pictures, down to which point of a shirt is followed; changed like this they are new
pictures of the same breath, and nobody has to film them. Left out of the mirror are flutes, which lie to one side. Clips as in ``accuracy.py``: the project's
own, and those of the folders named in BREVIN_CLIPS.
"""

import json
import os
import sys
from collections.abc import Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from brevin.bench import Measured
from brevin.bench.accuracy import OWN
from brevin.bench.other_pictures import POLE, SINKING, WAYS, way_of
from brevin.bench.tally import SAME_BREATH_S, STARTS
from brevin.bench.worse import remade
from brevin.core.read import Task, read
from brevin.core.report import Breath, Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

FOUND_LEAST, ONSET_P90_S = 0.98, 0.15  # of the breaths; between the starts in nine of ten
LEAN_DEG = 1.0  # between the trunk's inclinations, in the middle
ASIDE = ("flute", "piccolo")
CODER = 16.0  # hardly any trace of it

LEAN = "lean_median_deg"
BARS = {"found_in_both": (">=", FOUND_LEAST), "named_otherwise": ("<=", 0.0), "onset_p90_s": ("<=", ONSET_P90_S), LEAN: ("<=", LEAN_DEG)}
NOT_ASKED = {(SINKING, LEAN), (POLE, "found_in_both"), (POLE, "onset_p90_s")}  # it leans; what is covered may be withheld, and is less sure


@dataclass(frozen=True)
class Pair:
    """What was read of a clip, and of the same clip in other pictures."""

    name: str
    plain: Report
    other: Report

    @property
    def breaths(self) -> list[tuple[Breath, Breath | None]]:
        """Each breath, with the one that begins at its moment in the other pictures, or None."""
        return [(one, _same(one, self.other.breaths)) for one in self.plain.breaths]

    @property
    def extra(self) -> int:
        """Breaths that are seen in the other pictures alone."""
        return sum(_same(one, self.plain.breaths) is None for one in self.other.breaths)


def measure() -> Measured:
    """How alike clips read in other pictures, by way; clips of which either is refused for the breath are counted and told."""
    folders = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    truths = [file for folder in folders for file in sorted(folder.glob("*.json")) if file.with_suffix(".mp4").exists() and _is_of_the_breath(file)]
    with ProcessPoolExecutor(2) as pool:
        read = list(pool.map(_all_ways, truths))
    by_way = {way: [pairs[way] for pairs in read if way in pairs] for way in WAYS}
    figures = {f"{way}_{name}": value for way, pairs in by_way.items() for name, value in alike(pairs, way).items()}
    return Measured("alike", figures, {f"{way}_{name}": bar for way in WAYS for name, bar in BARS.items() if (way, name) not in NOT_ASKED})


def alike(pairs: Sequence[Pair], way: str) -> dict[str, float]:
    """The figures of some pairs. Named otherwise are two names none of which leaves room for the other."""
    told = [pair for pair in pairs if pair.plain.readable_for.breath and pair.other.readable_for.breath]
    both = [(one, other) for pair in told for one, other in pair.breaths if other is not None]
    count = sum(len(pair.plain.breaths) + pair.extra for pair in told)
    otherwise = [pair.name for pair in told for one, other in pair.breaths if other is not None and _otherwise(one, other)]
    apart_s = [gap for one, other in both for key in STARTS if (gap := _apart(one, other, key)) is not None] or [np.inf]
    leans = [gap for pair in pairs if (gap := _leans_apart(pair)) is not None] or [np.inf]
    shares = [gap for one, other in both if (gap := _apart(one, other, "abdominal_share")) is not None] or [np.inf]
    for name in sorted({*otherwise, *(pair.name for pair in told if pair.extra or any(other is None for _, other in pair.breaths))}):
        print(f"brevin: {name} reads otherwise: {way}", file=sys.stderr)
    return {
        "clips": float(len(pairs)), "readable_in_one_alone": float(sum(p.plain.readable_for.breath != p.other.readable_for.breath for p in pairs)),
        "breaths": float(count), "found_in_both": len(both) / max(count, 1), "named_otherwise": len(otherwise) / max(len(both), 1),
        "onset_median_s": float(np.median(apart_s)), "onset_p90_s": float(np.percentile(apart_s, 90, method="higher")),
        "share_median": float(np.median(shares)), LEAN: float(np.median(leans)),
    }  # fmt: skip


def _is_of_the_breath(truth_file: Path) -> bool:
    return str(_label(truth_file).get("view", "")).startswith(("side", "three"))


def _label(truth_file: Path) -> Mapping[str, str]:
    label: Mapping[str, str] = json.loads(truth_file.read_text())["label"]
    return label


def _all_ways(truth_file: Path) -> dict[str, Pair]:
    """One clip as it is, beside it in every way."""
    clip, truth = truth_file.with_suffix(".mp4"), json.loads(truth_file.read_text())
    task = task_of(truth)
    plain, held = _read(clip, task), truth["label"].get("instrument") or "none"
    pairs = {}
    with TemporaryDirectory() as scratch:
        for way in WAYS:
            if (way == "mirror" and held in ASIDE) or (way == SINKING and truth["label"]["position"] == "lying"):
                continue
            picture = way_of(way, truth)
            other = Path(scratch) / clip.name
            remade(clip, other, lambda rgb, number, seen=picture: seen(rgb, number / (plain.clip.frame_rate_hz or 25.0)), coder=CODER)
            pairs[way] = Pair(clip.stem, plain, _read(other, task))
    return pairs


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


def _leans_apart(pair: Pair) -> float | None:
    """By how much the trunk's inclination differs, degrees; None where either has none."""
    one, other = pair.plain.posture.trunk_inclination_deg, pair.other.posture.trunk_inclination_deg
    return None if one is None or other is None else abs(one.value - other.value)


def _otherwise(one: Breath, other: Breath) -> bool:
    """Whether two named breaths contradict each other: none of the names that either leaves room for is the other's."""
    names, others = ({kind for kind in (breath.pattern, breath.pattern_or) if kind is not None} for breath in (one, other))
    return "unclear" not in names | others and not names & others
