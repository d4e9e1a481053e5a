"""What was found of planted breaths: each error beside its interval, clip by clip and set by set."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from statistics import median
from typing import Any

from brevin.bench import accuracy_hold
from brevin.core.breath.patterns import Inhale, pattern_of
from brevin.core.report import Breath, Report, Trace
from brevin.core.verdict.rules import Rules

SAME_BREATH_S = 0.5  # an inhale this near a planted one is that one
STARTS = ("inhale_start_s", "exhale_start_s")
NONE = ("unclear", None)  # patterns that name none


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
        return max(abs(self.errors[key]) for key in STARTS)


@dataclass(frozen=True)
class ReadClip:
    """A clip as it was read, beside its truth. trunk_px: its player's trunk in the picture; grey: of the trunk, 0 to 255; stale_s: age of the picture; None
    where nobody was found."""

    name: str
    truth: dict[str, Any]
    report: Report
    trunk_px: float | None = None
    grey: float | None = None
    stale_s: float | None = None

    @property
    def is_to_be_read(self) -> bool:
        """Whether it is not one of the spoiled ones."""
        return bool(self.truth.get("readable", True)) and bool(self.truth.get("cycles"))


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


def tally_of(name: str, clips: Sequence[ReadClip]) -> Tally:
    """A set's breaths against its truth."""
    tally = Tally(name)
    for one in clips:
        add(tally, one.truth, one.report, one.name)
    return tally


def add(tally: Tally, truth: dict[str, Any], report: Report, name: str, *, any_view: bool = False) -> None:
    """Count one clip's report against its truth. any_view: views count in which no amounts are told."""
    tally.clips += 1
    tally.held += accuracy_hold.seen(truth, report, name)
    if not report.readable_for.breath or not (any_view or str(truth["label"]["view"]).startswith("side")):
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
