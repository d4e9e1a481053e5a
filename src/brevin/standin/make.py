"""Makes the stand-in clips: ``python -m brevin.standin.make FOLDER [NAME …] [--crf N]`` with requirements/standin.txt installed; then what is seen of them."""

import argparse
import sys
from pathlib import Path

from brevin.standin import seen
from brevin.standin.film import CRF, film
from brevin.standin.scripts import EARLIER, SCRIPTS


def main(argv: list[str]) -> int:
    """Film the named scripts, all of them without a name."""
    parser = argparse.ArgumentParser(prog="brevin.standin.make", description=__doc__)
    parser.add_argument("folder", type=Path, nargs="?", default=Path("demo/clips"))
    parser.add_argument("names", nargs="*", default=[script.name for script in SCRIPTS], help="of clips; all but those of earlier weeks without one")
    parser.add_argument("--crf", default=CRF, help="how fine the clips are coded: fewer is finer, and larger")
    asked = parser.parse_args(argv)
    known = {script.name: script for script in (*SCRIPTS, *EARLIER)}
    if unknown := set(asked.names) - set(known):
        parser.error(f"no such clip: {', '.join(sorted(unknown))}")
    asked.folder.mkdir(parents=True, exist_ok=True)
    for name in asked.names:
        clip = film(known[name], asked.folder, crf=asked.crf)
        print(f"{clip}  {clip.stat().st_size / 1e6:.2f} MB")
    return seen.main([str(asked.folder)])


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
