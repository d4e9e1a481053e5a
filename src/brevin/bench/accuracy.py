"""How well the readings fit planted truth: every clip set with a truth file beside each clip, and docs/accuracy.md made from it.

Always measured: the project's stand-in clips, still pictures that breathe (made once into ``.build/stills``, a few
minutes). Other folders of clips are named in BREVIN_CLIPS, separated by colons.
"""

import hashlib
import json
import os
import subprocess
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from statistics import median

from brevin.bench import Measured, accuracy_hold
from brevin.bench.tally import ReadClip, tally_of, together
from brevin.core import synth
from brevin.core.evidence import evidence
from brevin.core.read import judge
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin import still, stills, tape
from brevin.standin.truth import task_of

OWN = ROOT / "demo" / "clips"
STILLS = ROOT / ".build" / "stills"
OWN_SETS = 3  # the stand-in clips, the stills, and those of them that are unseen
UNSEEN = "Stills, unseen"
BARS = {
    "inhale_start_s": 0.08, "exhale_start_s": 0.08, "inhale_beats": 0.15, "pause_beats": 0.15, "exhale_beats": 0.15, "empty_beats": 0.15,
    "inhale_offset_beats": 0.15, "abdominal_share": 0.06, "shoulder_rise": 0.4, "chest_lag_s": 0.10,
}  # fmt: skip
"""What the median error of a measure is to stay under, in its own unit."""


def measure() -> Measured:
    """Measure all sets and write the page; bars over the project's own side views and all stills together."""
    from brevin.bench import accuracy_page

    others = [Path(p) for p in os.environ.get("BREVIN_CLIPS", "").split(":") if p]
    make_stills()
    with ProcessPoolExecutor(2) as pool:
        kept = sorted(STILLS.glob("*.json"))
        tuned, unseen = ([path for path in kept if stills.is_unseen(path.stem) == apart] for apart in (False, True))
        sets = [("Stand-in clips", _truths(OWN)), ("Stills", tuned), (UNSEEN, unseen), *((p.name, _truths(p)) for p in others)]
        clips = [(name, _read_all(pool, truths)) for name, truths in sets]
    tallies = [tally_of(name, read_clips) for name, read_clips in clips]
    unseen_clips, in_sight = ([one for name, own in clips if (name == UNSEEN) == apart for one in own] for apart in (True, False))
    accuracy_page.write(tallies, {"in sight": in_sight, "unseen": unseen_clips})
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


def _read_all(pool: ProcessPoolExecutor, truths: list[Path]) -> list[ReadClip]:
    return list(pool.map(_read, truths))


def _read(truth_file: Path) -> ReadClip:
    truth = json.loads(truth_file.read_text())
    seen = evidence(look(truth_file.with_suffix(".mp4"), model_path(ROOT)))
    report = judge(seen, task_of(truth)).report
    if not seen.players:
        return ReadClip(truth_file.stem, truth, report)
    who = seen.players[0]
    return ReadClip(truth_file.stem, truth, report, who.player.trunk_px, float(median(who.picture.light)), who.traces.stale_s)
