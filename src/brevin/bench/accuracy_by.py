"""The same breaths by what is in the picture: what is held, from where it is filmed, what is worn, how far away, how light and how coded it is; for
docs/accuracy.md."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import groupby
from statistics import median

from brevin.bench.tally import NONE, STARTS, ReadClip, Tally, add

WORN = {"noise": "mottled", "check": "checked"}  # the truth's word: the page's
VIEWS = {"side": "side", "three": "three-quarter", "front": "front"}
FAR_PX, NEAR_PX = 110.0, 160.0  # trunk in the picture
DIM, BRIGHT = 70.0, 140.0  # grey of the trunk
FRESH_S, STALE_S = 0.02, 0.08  # age of the picture

Row = tuple[int, str]
"""Where a clip goes in a split: the row's place among the others, and what it is called."""

SPLITS: tuple[tuple[str, Callable[[ReadClip], Row | None]], ...] = (
    ("instrument", lambda one: (0, one.truth["label"].get("instrument") or "none")),
    ("view", lambda one: (0, VIEWS[str(one.truth["label"]["view"]).split("_")[0]])),
    ("shirt", lambda one: _worn(one)),
    ("trunk in the picture", lambda one: _part(one.trunk_px, FAR_PX, NEAR_PX, "px")),
    ("grey of the trunk", lambda one: _part(one.grey, DIM, BRIGHT, "levels")),
    ("age of the picture", lambda one: _part(one.stale_s, FRESH_S, STALE_S, "s")),
)
"""What clips are split by; None: in no row."""


def section(halves: Mapping[str, Sequence[ReadClip]]) -> list[str]:
    """The page's lines. halves: the clips that were in sight, and the unseen ones."""
    lines = [
        "", "## By what is in the picture", "",
        "Every clip that is not spoiled, views in which no amounts are told among them: there only when a breath begins counts. Where the picture ends what",
        "can be read stands in [gate.md](gate.md); instruments of other clips, tuned and unseen, in [hold.md](hold.md).", "",
        "| | | clips | refused | breaths found | extra | inhale onset, s | in the interval | exhale onset, s | in the interval | named right, otherwise, not |",
        "|" + "---|" * 11,
    ]  # fmt: skip
    for name, where in SPLITS:
        for half, clips in halves.items():
            lines += [_row(f"{name}, {half}", value, group) for value, group in _groups(clips, where)]
    return lines


def _groups(clips: Sequence[ReadClip], where: Callable[[ReadClip], Row | None]) -> Iterator[tuple[str, list[ReadClip]]]:
    placed = sorted((row, i) for i, one in enumerate(clips) if one.is_to_be_read and (row := where(one)) is not None)
    for (_, called), group in groupby(placed, key=lambda pair: pair[0]):
        yield called, [clips[i] for _, i in group]


def _row(split: str, value: str, clips: Sequence[ReadClip]) -> str:
    tally = Tally(value)
    for one in clips:
        add(tally, one.truth, one.report, one.name, any_view=True)
    errors = [(tally.errors(key), tally.covered(key)) for key in STARTS]
    onsets = [cell for known, inside in errors for cell in ((f"{median(known):.3f}", f"{100 * (inside or 0.0):.0f} %") if known else ("-", "-"))]
    named = [one for one in tally.found if one.breath.abdomen_amp is not None]
    right, none = sum(one.pattern == one.planted_pattern for one in named), sum(one.pattern in NONE for one in named)
    words = f"{right}, {len(named) - right - none}, {none}" if named else "-"
    cells = [split, value, str(tally.clips), str(len(tally.refused)), f"{len(tally.found)} of {tally.planted}", str(tally.extra), *onsets, words]
    return f"| {' | '.join(cells)} |"


def _worn(one: ReadClip) -> Row | None:
    """The shirt's pattern, where the truth tells it."""
    pattern = one.truth.get("scenario", {}).get("cloth", {}).get("pattern")
    return None if pattern is None else (0, WORN.get(pattern, pattern))


def _part(value: float | None, low: float, high: float, unit: str) -> Row | None:
    """The part of a scale a value lies in."""
    if value is None:
        return None
    part = (value >= low) + (value >= high)
    return part, (f"under {low:g} {unit}", f"{low:g} to {high:g} {unit}", f"{high:g} {unit} and more")[part]
