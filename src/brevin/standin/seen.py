"""Keeps what is seen of the demo clips beside them, stills too, so that a first start shows their readings at once: ``python -m brevin.standin.seen [FOLDER]``.

To be run where the clips, or what the edge keeps of a clip, have changed; a test holds one of them against a fresh look.
"""

import json
import sys
from pathlib import Path

from brevin.core.evidence import unpacked
from brevin.core.read import judge
from brevin.edge.clip_work import see_clip
from brevin.edge.pictures import KEPT, SEEN, pick
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

ENDING = ".evidence"


def main(argv: list[str]) -> int:
    """Look at every clip of the folder and of those in it."""
    for clip in sorted((Path(argv[0]) if argv else ROOT / "demo" / "clips").rglob("*.mp4")):
        kept_at = clip.with_suffix(ENDING)
        see_clip(lambda stage, share: None, str(clip), str(model_path(ROOT)), str(kept_at), "auto")
        report = judge(unpacked(kept_at.read_bytes()), task_of(json.loads(clip.with_suffix(".json").read_text()))).report
        pick(clip.with_suffix(SEEN), clip.with_suffix(KEPT), report.stills_s)
        clip.with_suffix(SEEN).unlink()
        print(f"{kept_at}  {kept_at.stat().st_size / 1e3:.0f} KB")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
