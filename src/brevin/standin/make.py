"""Makes the stand-in clips: ``python -m brevin.standin.make FOLDER [NAME …]`` with requirements/standin.txt installed; then what is seen of them."""

import sys
from pathlib import Path

from brevin.standin import seen
from brevin.standin.film import film
from brevin.standin.scripts import SCRIPTS


def main(argv: list[str]) -> int:
    """Film the named scripts, all of them without a name."""
    folder = Path(argv[0]) if argv else Path("demo/clips")
    folder.mkdir(parents=True, exist_ok=True)
    for script in SCRIPTS:
        if len(argv) < 2 or script.name in argv[1:]:
            clip = film(script, folder)
            print(f"{clip}  {clip.stat().st_size / 1e6:.2f} MB")
    return seen.main([str(folder)])


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
