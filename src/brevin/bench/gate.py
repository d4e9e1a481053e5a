"""Where "readable" ends: ``./brevin bench gate`` writes docs/gate.md and its picture.

Clips made worse step by step (``worse.py``), their breaths pooled by what the gate itself sees of each clip, best first. A part of such a curve holds
while nearly all planted breaths are found in it and few are found that are none. What is refused is measured all the same where breaths were found.
"""

import json
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from statistics import median

from brevin.bench import Measured, accuracy, worse
from brevin.bench.accuracy_page import BAR, INK, PENCIL, RULE, drawn_as_svg
from brevin.bench.tally import STARTS, Tally, add, together
from brevin.bench.worse import WAYS, Made
from brevin.core import gate
from brevin.core.breath_gate import FAINT_MOST, FAINT_NOTED
from brevin.core.pose import player
from brevin.ops.settings import ROOT
from brevin.standin import stills

PAGE, PICTURE = ROOT / "docs" / "gate.md", ROOT / "docs" / "gate.svg"
STILLS_EACH = 4  # of the stills, in each half; the stand-in's own clips are tuned ones
PART_BREATHS = 20  # planted ones at least in a part of a curve
FOUND, EXTRA = 0.95, 0.05  # of the planted breaths, at least; of those read, that are none, at most: a part of a curve that holds
INSIDE = 0.8  # of the onsets of what the gate lets in, in their 90 % intervals
NOTED = {"breath_faint": FAINT_NOTED, "coded_hard": gate.STALE_NOTED_S}
"""From where on the gate gives advice, by its code, as the gate sees it."""
ENDS = {
    "breath_faint": FAINT_MOST,
    "coded_hard": gate.STALE_MOST_S, "too_far": player.SMALLEST_TRUNK_PX, "too_dark": gate.DARK_GREY, "too_blurred": gate.SOFT_CLEAR,
    "low_frame_rate": gate.SLOWEST_HZ,
}  # fmt: skip
"""Where the gate ends an axis, by its code, as the gate sees it."""


@dataclass(frozen=True)
class Axis:
    """What clips are put in order by. code: the gate's reason; worse_by: -1 where less of it is worse; way: the one it belongs to, None for all of them."""

    name: str
    code: str
    seen_as: str
    worse_by: float
    way: int | None

    def in_order(self, made: Sequence[Made]) -> list[tuple[float, Made]]:
        """Its clips with what the gate saw of them, best first. A clip as it was stands once among those of all ways."""
        if self.way is None:
            seen = [(one.unrest, one) for one in made if one.unrest is not None and (one.level > 0.0 or one.way == 0)]
        else:
            seen = [(one.seen, one) for one in made if one.way == self.way and one.seen is not None]
        return sorted(seen, key=lambda pair: pair[0] * self.worse_by)

    def past(self, gauge: float) -> bool:
        """Whether the gate ends it before this."""
        return gauge * self.worse_by > ENDS[self.code] * self.worse_by


AXES = (
    Axis("How far the breath stands out, whatever was done to the picture", "breath_faint", "unrest, share of an inhale", 1.0, None),
    *(Axis(way.name, way.code, way.seen_as, way.worse_by, number) for number, way in enumerate(WAYS)),
)


@dataclass(frozen=True)
class Part:
    """A part of an axis's curve. best, worst: what the gate saw of its first and last clip; refused: clips of it that the gate refuses for what it saw."""

    best: float
    worst: float
    tally: Tally
    refused: int

    @property
    def extra(self) -> float:
        """Breaths that are none, of those that were read."""
        return self.tally.extra / max(self.tally.extra + len(self.tally.found), 1)

    @property
    def holds(self) -> bool:
        """Whether the breaths that are read there are those that were breathed."""
        return len(self.tally.found) / max(self.tally.planted, 1) >= FOUND and self.extra <= EXTRA


def measure() -> Measured:
    """Measure both halves and write the page; bars on what the gate lets in of the unseen one."""
    accuracy.make_stills()
    kept = sorted(accuracy.STILLS.glob("*.json"))
    halves = {half: [path for path in kept if stills.is_unseen(path.stem) == (half == "unseen")][:STILLS_EACH] for half in ("tuned", "unseen")}
    halves["tuned"] = [*sorted(accuracy.OWN.glob("*.json")), *halves["tuned"]]
    with ProcessPoolExecutor(2) as pool:
        made = {half: worse.measure(pool, truths) for half, truths in halves.items()}
    PAGE.write_text("\n".join(page(made)) + "\n")
    PICTURE.write_text(picture([one for half in made.values() for one in half]))
    let_in = together("let in", [tally_of(one) for one in made["unseen"] if not one.refused])
    figures = {
        "made": float(sum(len(half) for half in made.values())), "let_in_breaths": float(let_in.planted),
        "let_in_found": len(let_in.found) / max(let_in.planted, 1), "let_in_extra": let_in.extra / max(let_in.extra + len(let_in.found), 1),
        "let_in_inhale_inside": let_in.covered("inhale_start_s") or 0.0, "let_in_exhale_inside": let_in.covered("exhale_start_s") or 0.0,
    }  # fmt: skip
    bars = {"let_in_found": (">=", FOUND), "let_in_extra": ("<=", EXTRA), "let_in_inhale_inside": (">=", INSIDE), "let_in_exhale_inside": (">=", INSIDE)}
    return Measured("gate", figures, bars)


def tally_of(one: Made) -> Tally:
    """One clip's breaths against its truth, refused or not."""
    tally = Tally(one.truth_file.stem)
    add(tally, json.loads(one.truth_file.read_text()), replace(one.report, readable_for=replace(one.report.readable_for, breath=True)), one.truth_file.stem)
    return tally


def curve(made: Sequence[Made], axis: Axis) -> list[Part]:
    """The clips of an axis in parts of enough breaths, best first. Those in which nobody was found are in none."""
    parts: list[list[tuple[float, Tally, bool]]] = [[]]
    for gauge, one in axis.in_order(made):
        if sum(tally.planted for _, tally, _ in parts[-1]) >= PART_BREATHS:
            parts.append([])
        parts[-1].append((gauge, tally_of(one), axis.past(gauge) and axis.code in one.refused))
    return [Part(part[0][0], part[-1][0], together(axis.name, [tally for _, tally, _ in part]), sum(refused for *_, refused in part)) for part in parts if part]


def ends(parts: Sequence[Part]) -> float | None:
    """What the gate sees at the end of the last part that holds as all before it do; None where not even the first does."""
    held = None
    for part in parts:
        if not part.holds:
            break
        held = part.worst
    return held


def page(made: dict[str, list[Made]]) -> list[str]:
    """The page's lines. made: by half."""
    lines = [
        '# Where "readable" ends', "",
        "Made by `./brevin bench gate`; do not edit by hand. Side views of the stand-in player and of pictures moved by random fields, as they are and",
        "made worse in one way at a time. Their breaths are pooled by what the gate itself sees of each clip, best first, whatever made it so. A part of",
        f"a curve *holds* where {FOUND:.0%} of the planted breaths are found and at most {EXTRA:.0%} of those read are none (an inhale read over half a",
        "second off is both). What is refused is measured all the same where breaths were found. Limits stand in `core/breath_gate.py`, `core/gate.py` and",
        "`core/pose/player.py`. From the first curve: advice is given from about where it no longer holds, over both halves. Refused is only beyond what",
        "clips of another maker have (up to 0.065, their breaths all found: [accuracy.md](accuracy.md)), so that between the two a breath may stand elsewhere.",
        "The other limits stood before; their curves do not end where they do, which is why there is a first one. The rate's is that of the quickest inhale",
        "of the job (0.3 s), which is not among these. How much less sure unrest makes a turn was chosen with both halves in sight as well, and so was when a",
        "small region begins no inhale and a chest begins with its shoulders (`core/breath/starts.py`).", "",
        "![Onset errors of every breath in the order of what the gate sees (ink let in, pencil refused), and where it ends](gate.svg)",
    ]  # fmt: skip
    for axis in AXES:
        noted = f"gives advice from {NOTED[axis.code]:g} and " if axis.code in NOTED else ""
        lines += ["", f"## {axis.name}", "", f"The gate {noted}ends it at {ENDS[axis.code]:g} ({axis.seen_as})."]
        for half, found in made.items():
            lines += _half(half, found, axis)
    return lines


def _half(half: str, made: Sequence[Made], axis: Axis) -> list[str]:
    parts = curve(made, axis)
    last, unseen = ends(parts), sum(one.way == axis.way and one.seen is None for one in made)
    nobody = f" In {unseen} more nobody was found to read." if unseen else ""
    starts = "inhale onset, s | in the interval | exhale onset, s | in the interval"
    lines = [
        "", f"*{half}*: {'no part holds' if last is None else f'holds as far as {last:.3g}'}.{nobody}", "",
        f"| {axis.seen_as} | clips | refused for it | breaths found | extra | {starts} | |", "|" + "---|" * 10,
    ]  # fmt: skip
    for part in parts:
        errors = [(part.tally.errors(key), part.tally.covered(key)) for key in STARTS]
        cells = [cell for known, inside in errors for cell in ((f"{median(known):.3f}", f"{inside or 0.0:.0%}") if known else ("-", "-"))]
        told = [f"{part.best:.3g} to {part.worst:.3g}", str(part.tally.clips), str(part.refused), f"{len(part.tally.found)} of {part.tally.planted}"]
        lines.append(f"| {' | '.join([*told, str(part.tally.extra), *cells, 'holds' if part.holds else '**does not**'])} |")
    return lines


def picture(made: Sequence[Made]) -> str:
    """One row a way: each found breath's larger onset error as a stroke over the place of its clip among all, best first; where the gate ends as a line."""
    width, left, row_px, most_s = 1180, 250, 110, 0.6
    parts = []
    for number, axis in enumerate(AXES):
        seen = axis.in_order(made)
        base = 14 + row_px * (number + 0.85)
        parts += [f'<text x="0" y="{base - 50:.0f}">{axis.name.split(",")[0]}</text>', f'<text x="0" y="{base - 32:.0f}" class="s">{axis.seen_as}</text>']
        for level_s in (0.0, 0.2, 0.4):
            y = base - (row_px - 30) * level_s / most_s
            parts.append(f'<line x1="{left}" x2="{width - 10}" y1="{y:.0f}" y2="{y:.0f}" stroke="{RULE}"/>')
            parts.append(f'<text x="{left - 34}" y="{y + 4:.0f}" class="s">{level_s:g} s</text>')
        step = (width - left - 20) / max(len(seen), 1)
        for i, (gauge, one) in enumerate(seen):
            x = left + step * (i + 0.5)
            for breath in tally_of(one).found:
                y = base - (row_px - 30) * min(breath.worst_s, most_s) / most_s
                parts.append(f'<circle cx="{x:.1f}" cy="{y:.1f}" r="2.2" fill="{PENCIL if one.refused else INK}" fill-opacity="0.7"/>')
            if i % max(len(seen) // 9, 1) == 0:
                parts.append(f'<text x="{x - 8:.0f}" y="{base + 14:.0f}" class="s">{gauge:.3g}</text>')
        past = [i for i, (gauge, _) in enumerate(seen) if axis.past(gauge)]
        x = left + step * (past[0] if past else len(seen))
        parts.append(f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{base - row_px + 30:.0f}" y2="{base:.0f}" stroke="{BAR}"/>')
    return drawn_as_svg(width, 24 + row_px * len(AXES), parts)
