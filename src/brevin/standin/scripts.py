"""The clips that ship with the program: who plays, how they breathe, from where they are seen. Bodies, clothes and rooms are made up here."""

from dataclasses import dataclass, field, replace

from brevin.core.synth import Cycle
from brevin.standin.camera import Look
from brevin.standin.hand import GOOD, Grip
from brevin.standin.stance import Build


def _rgb(*codes: str) -> tuple[tuple[float, float, float], ...]:
    return tuple((int(c[0:2], 16) / 255, int(c[2:4], 16) / 255, int(c[4:6], 16) / 255) for c in codes)


@dataclass(frozen=True)
class Script:
    """One clip. card: count card in text; cycles: one a breath, amplitudes in metres; axis_deg: instrument axis against level (+ = far end low); raises: when
    the instrument is brought up from the lap, seconds, each for ``HELD_S``; head_out_m: how far the head goes to meet it; lands_m: how far beside its usual
    place the hands come to rest in each of the raises; grips: hands with fingers, by side (l, r), else plain ones; sinks_deg, droops_deg: how much further
    forward the trunk is, and lower the far end, at the end than at the beginning; elbows_deg: clearance of both, as near as the hands' places allow;
    shoulder_deg: + = the left shoulder higher; head_deg: + = the head tilted to the player's right; rounds_m: how much further the back bows out in the end;
    sinks_until: share of the clip after which it has sunk and rounded as far as it does;
    tuck_deg, crossed_m: of the feet, as in ``stance``; swapped: 1 = each hand where the other belongs, and a flute held to the left;
    turned_deg: how far from behind the side the camera looks;
    taps_deg: how far the toes of a foot that taps the beat go up, the right one's or, taps_left = 1, the left one's; taps_late_s, taps_spread_s: its strikes
    after the beat, and how they wander; stickers_m: how far off stickers are put on, standard deviation, 0 = none are worn."""

    name: str
    card: str
    cycles: tuple[Cycle, ...]
    position: str
    view: str
    instrument: str | None
    look: Look
    build: Build = field(default_factory=Build)
    lean_deg: float = 3.0
    axis_deg: float = 0.0
    rate_hz: int = 25
    size_px: tuple[int, int] = (960, 540)
    raises: tuple[float, ...] = ()
    head_out_m: float = 0.0
    lands_m: tuple[float, ...] = ()
    sway_m: float = 0.0012
    seed: int = 1
    tone: bool = True
    grips: tuple[tuple[str, Grip], ...] = ()
    sinks_deg: float = 0.0
    droops_deg: float = 0.0
    elbows_deg: float | None = None
    shoulder_deg: float = 0.0
    head_deg: float = 0.0
    rounds_m: float = 0.0
    sinks_until: float = 1.0
    tuck_deg: float = 0.0
    crossed_m: float = 0.0
    swapped: float = 0.0
    turned_deg: float = 0.0
    taps_deg: float = 0.0
    taps_left: float = 0.0
    taps_late_s: float = 0.0
    taps_spread_s: float = 0.0
    stickers_m: float = 0.0


RAISE_S, HELD_S = 0.9, 2.6  # from the lap to the mouth, and there

FACE = ("eee8df", "a4524c")  # eyes and lips: every room's
ROOM_A = _rgb("3d6f5c", "33363d", "5c4634", "d9ab86", "2a1c14", "241d1a", "cfc8b8", "9c7a52", "7b7f86", "d8b24a", "2b2420", "a5462f", *FACE)
ROOM_B = _rgb("8a4f6d", "3a4256", "2d4a73", "8a5a3c", "17110f", "17110f", "b9c4c4", "8d8a80", "4a3b30", "cfa640", "2b2420", "2f6a8a", *FACE)
ROOM_C = _rgb("c9a23f", "4a4238", "3b3b3f", "e6c3a2", "6b4a2c", "3a2a20", "d6d2c8", "6f6a62", "55606b", "d8b24a", "2b2420", "577a3d", *FACE)
ROOM_D = _rgb("4f6fa8", "2f3338", "6e3b32", "b9835c", "1c1512", "1c1512", "c8bfae", "7d5f44", "6a4c36", "c9ccd1", "2b2420", "8a3d52", *FACE)

LOW = Cycle(abdomen=0.014, chest=0.0075, shoulder=0.0015, abdomen_window=(0.0, 0.72), chest_window=(0.3, 1.0))
HIGH = Cycle(abdomen=0.003, chest=0.0105, shoulder=0.013, abdomen_window=(0.2, 1.0), chest_window=(0.0, 0.85))
BELLY = Cycle(abdomen=0.0155, chest=0.0019, shoulder=0.001, abdomen_window=(0.0, 0.75), chest_window=(0.3, 1.0))
SMALL = Cycle(abdomen=0.009, chest=0.004, shoulder=0.001, abdomen_window=(0.0, 0.8), chest_window=(0.2, 1.0))
EARLY = Cycle(abdomen=0.013, chest=0.0065, shoulder=0.002, abdomen_window=(0.0, 0.8), chest_window=(0.25, 1.0), full_after=0.45)

SCRIPTS: tuple[Script, ...] = (
    Script("seated-low-then-wide", "4-0-4@72x3", (LOW, LOW, LOW), "seated", "side-left", None,
           Look(ROOM_A, _rgb("1f4a3c")[0], pattern=2, period_m=0.035), seed=11, taps_deg=12.0, taps_left=1.0, taps_late_s=0.06, taps_spread_s=0.025),
    Script("seated-chest-high", "3-0-5@76x3", (HIGH, HIGH, HIGH), "seated", "side-right", None,
           Look(ROOM_B, _rgb("d9c0cc")[0], pattern=1, period_m=0.045), lean_deg=5.0, seed=12),
    Script("standing-full-early", "4-0-6@84x3", (EARLY, EARLY, EARLY), "standing", "side-right", "trumpet",
           Look(ROOM_C, _rgb("7a5a24")[0], pattern=3, period_m=0.05), lean_deg=1.0, axis_deg=8.0, seed=13),
    Script("front-flute-sags", "3-0-6@72x3", (LOW, LOW, LOW), "seated", "front", "flute",
           Look(ROOM_D, _rgb("e3e6ee")[0], pattern=1, period_m=0.04), axis_deg=22.0, head_deg=17.0, grips=GOOD["flute"], seed=14),
    Script("seated-trumpet-raised", "2-0-2@66x3", (SMALL, SMALL, SMALL), "seated", "side-right", "trumpet",
           Look(ROOM_A, _rgb("1f4a3c")[0], pattern=3, period_m=0.05), axis_deg=24.0, raises=(1.6, 6.2, 10.8), head_out_m=0.012,
           lands_m=(0.0, 0.014, -0.009), tone=False, grips=GOOD["trumpet"], seed=16),
)  # fmt: skip

HIGHER = Cycle(abdomen=0.0015, chest=0.0085, shoulder=0.021, abdomen_window=(0.3, 1.0), chest_window=(0.0, 0.6))
LOW_AND_SMALL = Cycle(abdomen=0.0095, chest=0.0045, shoulder=0.0035, abdomen_window=(0.0, 0.8), chest_window=(0.2, 1.0), full_after=0.6)

_LOW_ONE, _HIGH_ONE, *_ = SCRIPTS
EARLIER: tuple[Script, ...] = (
    replace(_HIGH_ONE, name="chest-high-two-weeks-ago", cycles=(HIGHER,) * 3, seed=21),
    replace(_LOW_ONE, name="low-and-small-a-week-ago", cycles=(LOW_AND_SMALL,) * 3, taps_deg=0.0, seed=23),
)
"""The same players in the weeks before, in the folder ``earlier`` of the clips: a record shows what has changed."""
