"""Keeps what is seen of the demo clips beside them, so that a first start shows their readings at once: ``python -m brevin.standin.seen [FOLDER]``.

To be run where the clips, or what the edge keeps of a clip, have changed; a test holds one of them against a fresh look.
"""

import sys
from pathlib import Path

from brevin.edge.clip_work import see_clip
from brevin.ops.settings import ROOT, model_path

ENDING = ".evidence"


def main(argv: list[str]) -> int:
    """Look at every clip of the folder."""
    for clip in sorted((Path(argv[0]) if argv else ROOT / "demo" / "clips").glob("*.mp4")):
        kept_at = clip.with_suffix(ENDING)
        see_clip(lambda stage, share: None, str(clip), str(model_path(ROOT)), str(kept_at), "auto")
        print(f"{kept_at}  {kept_at.stat().st_size / 1e3:.0f} KB")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
