"""A set of clips of how instruments are held: good ones, and each with one fault that is large enough to be seen; bodies, clothes and rooms drawn at random.

``python -m brevin.standin.holds FOLDER [--first N] [--last N]`` with requirements/standin.txt installed. The second body of each case is kept for the
closing measurement alone.
"""

import argparse
import sys
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from brevin.standin.camera import Look
from brevin.standin.film import film
from brevin.standin.hold_cases import COUNT, SET, Case
from brevin.standin.scripts import ROOM_A, ROOM_B, ROOM_C, ROOM_D, Script
from brevin.standin.stance import Build

ROOMS = (ROOM_A, ROOM_B, ROOM_C, ROOM_D)
RATE_HZ, TAPS_HZ = 13, 25  # a foot strikes within a tenth of a second
SIZE_PX = (720, 404)  # drawing costs most of the making
HANDS_PX = (1280, 720)  # where hands are looked at: in the smaller picture one is a dozen pixels


@dataclass(frozen=True)
class Hold:
    """One clip of the set. unseen: kept for the closing measurement."""

    case: Case
    script: Script
    unseen: bool


def drawn(number: int) -> Hold:
    """The clip of that number: the body, the clothes, the room and the camera's side are drawn."""
    (case, unseen), random = SET[number], np.random.default_rng(9100 + number)
    sizes = {name: float(random.uniform(0.93, 1.07)) for name in ("trunk", "upper_arm", "forearm", "thigh", "shank")}
    usual = Build()
    build = Build(
        **{name: by * getattr(usual, name) for name, by in sizes.items()}, wide=float(random.uniform(0.9, 1.1)), deep=float(random.uniform(0.9, 1.15))
    )
    look = Look(
        ROOMS[int(random.integers(len(ROOMS)))], tuple(random.uniform(0.15, 0.9, 3)), pattern=int(random.integers(1, 4)),
        period_m=float(random.uniform(0.03, 0.06)), gain=float(random.uniform(0.85, 1.1)), noise=float(random.uniform(0.8, 2.0)),
    )  # fmt: skip
    view = "front" if case.view == "front" else f"side-{random.choice(['left', 'right'])}"
    instrument = None if case.instrument == "none" else case.instrument
    script = Script(
        f"hold-{number:02}", case.card, (case.breath,) * 2, "seated", view, instrument, look, build=build,
        rate_hz=TAPS_HZ if "taps_deg" in case.planted else RATE_HZ, size_px=HANDS_PX if case.grips else SIZE_PX, tone=False, grips=case.grips,
        seed=500 + number,
    )  # fmt: skip
    return Hold(case, replace(script, **case.planted), unseen)  # pyrefly: ignore[bad-argument-type]


def main(argv: list[str]) -> int:
    """The command."""
    parser = argparse.ArgumentParser(prog="brevin.standin.holds", description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("--first", type=int, default=0)
    parser.add_argument("--last", type=int, default=COUNT - 1)
    args = parser.parse_args(argv)
    args.folder.mkdir(parents=True, exist_ok=True)
    for number in range(args.first, args.last + 1):
        film(drawn(number).script, args.folder)
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
