"""Whether others in a clip are past knowing in what is kept of it, and the player is not: ``./brevin bench blur``.

Into each side clip that ships somebody is set who sits behind, far behind, or beside, or who looks in (``company.py``); it is kept as the reader keeps it, and
read once more from that. The clips themselves, and those of the folders named in BREVIN_CLIPS, in which nobody else is, must stay as they are.
"""

import json
import os
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.bench import Measured
from brevin.bench.accuracy import OWN
from brevin.bench.alike import Pair, alike
from brevin.bench.company import COMPANY, Head, with_company
from brevin.core.evidence import Evidence, unpacked
from brevin.core.pose import landmarks as lm
from brevin.core.read import judge
from brevin.core.report import Report
from brevin.edge.clip_work import blur_others, read_clip
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

EVIDENCE = "seen.evidence"
EVERY = 12  # of so many pictures one is looked at
LEFT_MOST, KEPT_LEAST = 0.25, 0.8  # of a head's fine detail: of one past knowing, and of one that was kept
PAIRS = (
    ("seated-low-then-wide", "front-flute-sags"), ("standing-full-early", "seated-chest-high"), ("seated-trumpet-raised", "front-flute-sags"),
)  # fmt: skip
BARS = {
    "found": (">=", 1.0), "heads_past_knowing": (">=", 0.99), "players_kept": (">=", 0.99), "breaths_found_in_both": (">=", 0.98),
    "named_otherwise": ("<=", 0.0), "onset_p90_s": ("<=", 0.15), "nobody_there_but_blurred": ("<=", 0.05), "takes_of_length": ("<=", 0.5),
}  # fmt: skip


@dataclass(frozen=True)
class Made:
    """One clip with company, as it was kept. found: whether anybody else was; left, kept: of the fine detail of the other's head, and the player's, in each
    picture looked at; length_s, took_s: of the clip, and to find and blur."""

    name: str
    found: bool
    left: list[float]
    kept: list[float]
    plain: Report
    again: Report
    length_s: float
    took_s: float


def measure() -> Measured:
    """All company, and all clips without."""
    folders = [OWN, *(Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p)]
    alone = [file for folder in folders for file in sorted(folder.glob("*.mp4")) if file.with_suffix(".json").exists()]
    asked = [(OWN / f"{clip}.mp4", OWN / f"{other}.mp4", number) for clip, other in PAIRS for number in range(len(COMPANY))]
    with ProcessPoolExecutor(2) as pool:
        made = list(pool.map(_made, *zip(*asked, strict=True)))
        blurred_alone = [file.stem for file, other in zip(alone, pool.map(_somebody_else, alone), strict=True) if other]
    for one in made:
        print(f"brevin: {one.name}: {'found' if one.found else 'not found'}, left at most {max(one.left, default=0.0):.2f}")
    print(f"brevin: blurred though nobody else is there: {', '.join(blurred_alone) or 'none'}")
    return Measured("blur", figures(made, len(blurred_alone), len(alone)), BARS)


def figures(made: Sequence[Made], blurred_alone: int, alone: int) -> dict[str, float]:
    """The figures of some clips."""
    left, kept = [v for one in made for v in one.left], [v for one in made for v in one.kept]
    same = alike([Pair(one.name, one.plain, one.again) for one in made], "blurred")
    return {
        "clips": float(len(made)), "found": float(np.mean([one.found for one in made])), "pictures": float(len(left)),
        "heads_past_knowing": float(np.mean(np.array(left) <= LEFT_MOST)), "players_kept": float(np.mean(np.array(kept) >= KEPT_LEAST)),
        "breaths_found_in_both": same["found_in_both"], "named_otherwise": same["named_otherwise"], "onset_p90_s": same["onset_p90_s"],
        "alone": float(alone), "nobody_there_but_blurred": blurred_alone / max(alone, 1),
        "takes_of_length": float(np.median([one.took_s / one.length_s for one in made])),
    }  # fmt: skip


def _made(clip: Path, other: Path, number: int) -> Made:
    company = COMPANY[number]
    with TemporaryDirectory() as scratch:
        joined, folder = Path(scratch) / "joined.mp4", Path(scratch)
        heads = with_company(clip, other, joined, company)
        seen, kept_for = _read(joined, folder)
        began = time.monotonic()
        done = blur_others(_silent, str(joined), str(model_path(ROOT)), str(folder / EVIDENCE), str(folder / "none"), None, "kept.mp4")
        took_s = time.monotonic() - began
        kept = folder / (done["stored_name"] or joined.name)
        left, own = _detail(joined, kept, heads, seen)
        task = task_of(json.loads(clip.with_suffix(".json").read_text()))
        again, plain = judge(_read(kept, folder)[0], task).report, judge(seen, task).report
        return Made(f"{clip.stem}, {company.name}", kept_for is None, left, own, plain, again, float(seen.t_s[-1]), took_s)


def _somebody_else(clip: Path) -> bool:
    """Whether somebody else is found in a clip."""
    with TemporaryDirectory() as scratch:
        return _read(clip, Path(scratch))[1] is None


def _read(clip: Path, folder: Path) -> tuple[Evidence, int | None]:
    """A clip as the reader looks at it: what is kept of it, and for whom it is kept, None where others are to be blurred."""
    copy = folder / f"read-{clip.name}"  # what a browser plays is made beside it
    copy.write_bytes(clip.read_bytes())
    done = read_clip(_silent, str(copy), str(model_path(ROOT)), str(folder / EVIDENCE), "auto", "", None, None)
    return unpacked((folder / EVIDENCE).read_bytes()), done["blurred_for"]


def _silent(stage: str, share: float) -> None:
    """Nobody waits for it."""


def _detail(before: Path, after: Path, heads: Sequence[Head], seen: Evidence) -> tuple[list[float], list[float]]:
    """How much of the fine detail is left, in every so many pictures: of the other's head, and of the player's."""
    others, own = {round(head.t_s, 2): head for head in heads}, _own_heads(seen)
    left, kept = [], []
    for t_s, was, now in _both(before, after):
        head = others.get(round(t_s, 2))
        if head is not None:
            left.append(_fine(now, head) / max(_fine(was, head), 1e-6))
        if own:
            mine = min(own, key=lambda one: abs(one.t_s - t_s))
            kept.append(_fine(now, mine) / max(_fine(was, mine), 1e-6))
    return left, kept


def _own_heads(seen: Evidence) -> list[Head]:
    player = seen.players[0].player if seen.players else None
    found = zip(seen.poses, player.chosen, strict=True) if player is not None else ()
    return [Head(sample.t_s, lm.mouth(sample.bodies[i]) / seen.shrink, 0.12 * lm.trunk_px(sample.bodies[i]) / seen.shrink) for sample, i in found if i >= 0]


def _both(before: Path, after: Path) -> Iterator[tuple[float, NDArray[np.uint8], NDArray[np.uint8]]]:
    with av.open(str(before)) as one, av.open(str(after)) as other:
        for number, (was, now) in enumerate(zip(one.decode(video=0), other.decode(video=0), strict=False)):
            if number % EVERY == 0:
                yield float(was.time or 0.0), was.to_ndarray(format="gray"), now.to_ndarray(format="gray")


def _fine(grey: NDArray[np.uint8], head: Head) -> float:
    """Grey levels by which the pixels of a head differ from the mean of what is around them."""
    around = max(round(head.radius_px), 2)
    x, y = (round(float(v)) for v in head.middle_px)
    part = grey[max(y - around, 0) : y + around, max(x - around, 0) : x + around].astype(np.float32)
    if not part.size:
        return 0.0
    return float(np.abs(part - cv2.blur(part, (around // 2 * 2 + 1,) * 2, borderType=cv2.BORDER_REPLICATE)).mean())
