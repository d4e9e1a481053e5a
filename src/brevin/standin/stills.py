"""A set of still pictures that breathe: bodies, cards, patterns and cameras drawn at random, the same for the same seed.

``python -m brevin.standin.stills FOLDER [--from CLIPS] [--first N] [--last N]``; needs nothing but the run dependencies.
"""

import argparse
import sys
from functools import lru_cache
from pathlib import Path

import numpy as np

from brevin.core.synth import Cycle
from brevin.ops.settings import ROOT, model_path
from brevin.standin.still import Still, Take, still_of, take

COUNT, UNSEEN = 24, 8  # the last ones are kept for the closing measurement: nothing is changed for them
PATTERNS = ("low_then_wide", "low", "chest_high", "low_then_lifted", "shallow", "paradoxical", "low_then_wide", "low_then_lifted")
CARDS = ((4, 0, 4), (4, 2, 6), (2, 0, 6), (3, 1, 4), (1, 0, 7), (4, 4, 8), (3, 0, 5), (6, 0, 6))
FIDGETS_PCT = (0.0, 0.0, 0.0, 3.0, 0.0)
RATES_HZ = (25, 30, 25, 24)
CRFS = ("22", "26", "24", "28")


def drawn(number: int) -> Take:
    """The take of that number: pattern, card and camera go round, everything else is drawn."""
    random = np.random.default_rng(7000 + number)
    inhale, pause, exhale = CARDS[(3 * number + 1) % len(CARDS)]
    tempo = int(random.choice([60, 66, 72, 80, 88]))
    cycles = 3 if (inhale + pause + exhale) * 60 / tempo < 9 else 2
    planted = tuple(_cycle(PATTERNS[number % len(PATTERNS)], random) for _ in range(cycles))
    abdomen, chest = (random.uniform(18, 30), random.uniform(10, 15)), (random.uniform(64, 76), random.uniform(11, 16))
    return Take(
        name=f"still-{number:02}", card=f"{inhale}-{pause}-{exhale}@{tempo}x{cycles}", cycles=planted, abdomen=abdomen, chest=chest,
        sway_pct=float(random.uniform(0.1, 0.6)), fidget_pct=FIDGETS_PCT[number % len(FIDGETS_PCT)],
        shake_px=float(random.choice([0.0, 0.0, 0.4, 1.0])), noise=float(random.uniform(1.0, 3.0)),
        crf=CRFS[number % len(CRFS)], rate_hz=RATES_HZ[(number // 2) % len(RATES_HZ)], seed=number,
    )  # fmt: skip


def is_unseen(name: str) -> bool:
    """Whether a take of that name is one of those."""
    return int(name.rpartition("-")[2]) >= COUNT - UNSEEN


def _cycle(pattern: str, random: np.random.Generator) -> Cycle:
    """One breath of a pattern, amplitudes in percent of trunk."""
    total = float(random.uniform(3.2, 5.0))
    share = {"low": random.uniform(0.78, 0.9), "low_then_wide": random.uniform(0.55, 0.7), "low_then_lifted": random.uniform(0.38, 0.6)}
    if pattern in share:
        lifted = float(random.uniform(1.8, 2.8)) if pattern == "low_then_lifted" else float(random.uniform(0.1, 0.6))
        a = total * float(share[pattern])
        c, s = total - a, lifted
    elif pattern == "chest_high":
        a = total * float(random.uniform(0.12, 0.28))
        c, s = total - a, float(random.uniform(1.5, 3.5))
    elif pattern == "paradoxical":
        a, c, s = -float(random.uniform(0.8, 1.5)), float(random.uniform(2.0, 3.0)), float(random.uniform(1.0, 3.0))
    else:
        a, c, s = float(random.uniform(0.7, 1.1)), float(random.uniform(0.4, 0.7)), float(random.uniform(0.1, 0.5))
    chest_first = pattern in ("chest_high", "paradoxical")
    early, late = (0.0, float(random.uniform(0.65, 0.9))), (float(random.uniform(0.1, 0.35)), 1.0)
    return Cycle(
        a, c, s, abdomen_window=late if chest_first else early, chest_window=early if chest_first else late,
        late_s=float(random.uniform(-0.1, 0.35)), full_after=float(random.choice([1.0, 1.0, 0.6])) if pattern in share else 1.0,
        exhale_late_s=float(random.uniform(0.0, 0.3)), ease_share=float(random.uniform(0.08, 0.26)),
    )  # fmt: skip


def make(folder: Path, bases: list[Path], *, first: int = 0, last: int = COUNT - 1) -> None:
    """Make takes ``first`` to ``last`` of the stills of ``bases``, mirrored every second time round."""

    @lru_cache(maxsize=2)
    def still(number: int) -> Still:
        return still_of(bases[number % len(bases)], model_path(ROOT), mirrored=(number // len(bases)) % 2 == 1)

    folder.mkdir(parents=True, exist_ok=True)
    for number in range(first, last + 1):
        take(still(number), drawn(number), folder)


def main(argv: list[str]) -> int:
    """The command."""
    parser = argparse.ArgumentParser(prog="brevin.standin.stills", description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("--from", dest="bases", type=Path, default=ROOT / "demo" / "clips")
    parser.add_argument("--first", type=int, default=0)
    parser.add_argument("--last", type=int, default=COUNT - 1)
    args = parser.parse_args(argv)
    bases = sorted(p for p in args.bases.glob("*.mp4") if not any(word in p.name for word in ("front", "raised")))
    make(args.folder, bases, first=args.first, last=args.last)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
