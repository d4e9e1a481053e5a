"""What the set of held instruments plants: every case, good ones, and each with one fault that is large enough to be seen."""

from dataclasses import dataclass, replace

from brevin.core.kinds import Instrument, Side
from brevin.core.synth import Cycle
from brevin.core.verdict.rules import CriterionKey
from brevin.standin.hand import GOOD, Grip
from brevin.standin.scripts import BELLY, HIGH, LOW

Grips = tuple[tuple[str, Grip], ...]
CARD, SLOW_CARD = "2-0-3@72x2", "3-0-4@72x2"  # what changes slowly takes longer to be told
TO_TRUNK = 93.0  # an instrument's angle to a trunk that leans by 3 deg, and to level, make this together


@dataclass(frozen=True)
class Case:
    """What is planted. faults: the criteria that are to find it, any of them; side: on which side of their band; none of both in a good clip; card: what is
    breathed meanwhile, and breath how; grips: hands with fingers, filmed as finely as a phone films."""

    name: str
    instrument: Instrument
    view: str
    planted: dict[str, float]
    faults: tuple[CriterionKey, ...] = ()
    side: Side | None = None
    card: str = CARD
    breath: Cycle = LOW
    grips: Grips = ()


def _to_trunk(deg: float) -> dict[str, float]:
    return {"axis_deg": TO_TRUNK - deg}


ELBOWS: tuple[CriterionKey, ...] = ("elbow_left", "elbow_right")
FIRST: tuple[Case, ...] = (
    Case("trumpet-good", "trumpet", "side", {"axis_deg": 12.0}),
    Case("trumpet-bell-low", "trumpet", "side", {"axis_deg": 40.0}, ("axis_level",)),
    Case("trumpet-bell-high", "trumpet", "side", {"axis_deg": -18.0}, ("axis_level",), "low"),
    Case("trumpet-leans-back", "trumpet", "side", {"axis_deg": 12.0, "lean_deg": -14.0}, ("trunk_inclination",), "low"),
    Case("trumpet-hunched", "trumpet", "side", {"axis_deg": 12.0, "lean_deg": 22.0}, ("trunk_inclination",)),
    Case("trumpet-slumps", "trumpet", "side", {"axis_deg": 12.0, "lean_deg": 0.0, "sinks_deg": 20.0}, ("keeps_tall",), card=SLOW_CARD),
    Case("trumpet-tires", "trumpet", "side", {"axis_deg": 4.0, "droops_deg": 20.0}, ("arms_stay_up",), card=SLOW_CARD),
    Case("trumpet-sways", "trumpet", "side", {"axis_deg": 12.0, "sway_m": 0.03}, ("body_still",), card=SLOW_CARD),
    Case("trombone-good", "trombone", "side", {"axis_deg": 14.0}),
    Case("trombone-low", "trombone", "side", {"axis_deg": 42.0}, ("axis_level",)),
    Case("trombone-high", "trombone", "side", {"axis_deg": -14.0}, ("axis_level",), "low"),
    Case("clarinet-good", "clarinet", "side", _to_trunk(38.0)),
    Case("clarinet-far-out", "clarinet", "side", _to_trunk(60.0), ("axis_to_trunk",)),
    Case("clarinet-close", "clarinet", "side", _to_trunk(18.0), ("axis_to_trunk",), "low"),
    Case("clarinet-hunched", "clarinet", "side", {"axis_deg": 70.0, "lean_deg": 20.0}, ("trunk_inclination",)),
    Case("oboe-good", "oboe", "side", _to_trunk(43.0)),
    Case("flute-good", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 25.0}),
    Case("flute-sags", "flute", "front", {"axis_deg": 27.0, "elbows_deg": 25.0}, ("axis_level",)),
    Case("flute-up", "flute", "front", {"axis_deg": -25.0, "elbows_deg": 25.0}, ("axis_level",), "low"),
    Case("flute-left-shoulder-high", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 25.0, "shoulder_deg": 12.0}, ("shoulder_tilt",)),
    Case("flute-right-shoulder-high", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 25.0, "shoulder_deg": -12.0}, ("shoulder_tilt",), "low"),
    Case("trumpet-front-good", "trumpet", "front", {"axis_deg": 12.0, "elbows_deg": 32.0}),
    Case("trumpet-elbows-in", "trumpet", "front", {"axis_deg": 12.0, "elbows_deg": 4.0}, ELBOWS, "low"),
    Case("trumpet-left-shoulder-high", "trumpet", "front", {"axis_deg": 12.0, "elbows_deg": 28.0, "shoulder_deg": 12.0}, ("shoulder_tilt",)),
    Case("clarinet-front-good", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 28.0}),
    Case("clarinet-elbows-in", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 0.0}, ELBOWS, "low"),
    Case("trumpet-right-shoulder-high", "trumpet", "front", {"axis_deg": 12.0, "elbows_deg": 28.0, "shoulder_deg": -12.0}, ("shoulder_tilt",), "low"),
)  # fmt: skip
ROUNDS = {"rounds_m": 0.055, "sinks_until": 0.35}
SECOND: tuple[Case, ...] = (
    Case("bare-front-good", "none", "front", {}),
    Case("bare-left-shoulder-high", "none", "front", {"shoulder_deg": 12.0}, ("shoulder_tilt",)),
    Case("bare-right-shoulder-high", "none", "front", {"shoulder_deg": -12.0}, ("shoulder_tilt",), "low"),
    Case("clarinet-right-shoulder-high", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 18.0, "shoulder_deg": -12.0}, ("shoulder_tilt",), "low"),
    Case("trumpet-rounds", "trumpet", "side", {"axis_deg": 12.0} | ROUNDS, ("back_rounding",), card=SLOW_CARD),
    Case("bare-rounds", "none", "side", ROUNDS, ("back_rounding",), card=SLOW_CARD),
)
THIRD: tuple[Case, ...] = (Case("bare-head-ahead", "none", "side", {"head_out_m": 0.13}, ("head_forward",)),)
FOURTH: tuple[Case, ...] = (
    Case("bare-head-level", "none", "front", {}),
    Case("bare-head-to-the-right", "none", "front", {"head_deg": 14.0}, ("head_level",)),
    Case("bare-head-to-the-left", "none", "front", {"head_deg": -14.0}, ("head_level",), "low"),
    Case("flute-head-with-it", "flute", "front", {"axis_deg": 9.0, "elbows_deg": 25.0, "head_deg": 9.0}),
    Case("flute-head-away", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 25.0, "head_deg": -16.0}, ("head_with_flute",), "low"),
    Case("flute-head-over-it", "flute", "front", {"axis_deg": -4.0, "elbows_deg": 25.0, "head_deg": 16.0}, ("head_with_flute",)),
)
FIFTH: tuple[Case, ...] = (Case("flute-right-elbow-out", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 70.0}, ("elbow_right",)),)


def _bent(instrument: str, side: str) -> Grips:
    """Good hands, one of them bent toward its thumb."""
    return tuple((own, replace(grip, aside_deg=45.0) if own == side else grip) for own, grip in GOOD[instrument])


FLUTE_UP, CLARINET_UP = {"axis_deg": 4.0}, {"axis_deg": 55.0, "elbows_deg": 24.0}
SIXTH: tuple[Case, ...] = (
    Case("flute-hands-good", "flute", "front", FLUTE_UP, grips=GOOD["flute"]),
    Case("flute-left-wrist-bent", "flute", "front", FLUTE_UP, ("wrist_left",), grips=_bent("flute", "l")),
    Case("flute-right-wrist-bent", "flute", "front", FLUTE_UP, ("wrist_right",), grips=_bent("flute", "r")),
    Case("clarinet-hands-good", "clarinet", "side", _to_trunk(38.0), grips=GOOD["clarinet"]),
    Case("clarinet-right-wrist-bent", "clarinet", "side", _to_trunk(38.0), ("wrist_right",), grips=_bent("clarinet", "r")),
    Case("clarinet-front-right-wrist-bent", "clarinet", "front", CLARINET_UP, ("wrist_right",), grips=_bent("clarinet", "r")),
)
SEVENTH: tuple[Case, ...] = (
    Case("bare-feet-tucked", "none", "side", {"tuck_deg": 42.0}, ("feet_flat",), "low"),
    Case("trumpet-feet-tucked", "trumpet", "side", {"axis_deg": 12.0, "tuck_deg": 36.0}, ("feet_flat",), "low"),
    Case("clarinet-feet-crossed", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 28.0, "crossed_m": 0.06}, ("feet_flat",), "low"),
)
EIGHTH: tuple[Case, ...] = (
    Case("clarinet-hands-swapped", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 28.0, "swapped": 1.0}, ("hands_in_order",), "low"),
    Case("flute-to-the-left", "flute", "front", {"axis_deg": 4.0, "elbows_deg": 25.0, "swapped": 1.0}, ("hands_in_order",), "low"),
)
NINTH: tuple[Case, ...] = (
    Case("bare-taps", "none", "side", {"taps_deg": 14.0, "taps_spread_s": 0.02}),
    Case("bare-taps-late", "none", "side", {"taps_deg": 12.0, "taps_late_s": 0.12, "taps_spread_s": 0.03, "taps_left": 1.0}),
    Case("trumpet-taps-early", "trumpet", "side", {"axis_deg": 12.0, "taps_deg": 8.0, "taps_late_s": -0.08, "taps_spread_s": 0.02}),
    Case("clarinet-front-taps", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 28.0, "taps_deg": 14.0, "taps_late_s": 0.05, "taps_spread_s": 0.02}),
)
TENTH: tuple[Case, ...] = (
    Case("trumpet-low-breath", "trumpet", "side", {"axis_deg": 40.0}, ("axis_level",), breath=BELLY),
    Case("trumpet-high-breath", "trumpet", "side", {"axis_deg": 12.0}, breath=HIGH),
    Case("trombone-low-breath", "trombone", "side", {"axis_deg": 14.0}, breath=BELLY),
    Case("trombone-high-breath", "trombone", "side", {"axis_deg": 14.0}, breath=HIGH),
    Case("clarinet-low-breath", "clarinet", "side", _to_trunk(38.0), breath=BELLY),
    Case("clarinet-high-breath", "clarinet", "side", _to_trunk(38.0), breath=HIGH),
)
"""Whoever names a breath where arms cover the chest is to be held against more than one kind."""
STUCK_ON = {"stickers_m": 0.005}  # as well as somebody puts them on who takes care
ELEVENTH: tuple[Case, ...] = (
    Case("bare-stickers-head-ahead", "none", "side", {"head_out_m": 0.13} | STUCK_ON, ("head_forward",)),
    Case("trumpet-stickers-good", "trumpet", "side", {"axis_deg": 12.0} | STUCK_ON),
    Case("clarinet-stickers-hunched", "clarinet", "side", {"axis_deg": 70.0, "lean_deg": 20.0} | STUCK_ON, ("trunk_inclination",)),
    Case("bare-stickers-left-shoulder-high", "none", "front", {"shoulder_deg": 12.0} | STUCK_ON, ("shoulder_tilt",)),
    Case("clarinet-stickers-level", "clarinet", "front", {"axis_deg": 55.0, "elbows_deg": 28.0} | STUCK_ON),
)
SAX_UP, HORN_UP = {"axis_deg": 74.0}, {"axis_deg": 22.0}
TWELFTH: tuple[Case, ...] = (
    Case("alto-sax-good", "alto_sax", "side", SAX_UP),
    Case("alto-sax-hunched", "alto_sax", "side", SAX_UP | {"lean_deg": 20.0}, ("trunk_inclination",)),
    Case("alto-sax-high-breath", "alto_sax", "side", SAX_UP, breath=HIGH),
    Case("alto-sax-front-good", "alto_sax", "front", SAX_UP | {"elbows_deg": 25.0}),
    Case("alto-sax-elbows-in", "alto_sax", "front", SAX_UP | {"elbows_deg": 0.0}, ELBOWS, "low"),
    Case("alto-sax-hands-swapped", "alto_sax", "front", SAX_UP | {"elbows_deg": 25.0, "swapped": 1.0}, ("hands_in_order",), "low"),
    Case("horn-good", "horn", "side", HORN_UP),
    Case("horn-leadpipe-low", "horn", "side", {"axis_deg": 54.0}, ("axis_level",)),
    Case("horn-hunched", "horn", "side", HORN_UP | {"lean_deg": 20.0}, ("trunk_inclination",)),
)
BODIES = 2  # of each case
CASES = (FIRST, SECOND, THIRD, FOURTH, FIFTH, SIXTH, SEVENTH, EIGHTH, NINTH, TENTH, ELEVENTH, TWELFTH)
SET = [(case, body > 0) for cases in CASES for body in range(BODIES) for case in cases]
"""Every clip's case, and whether its body is kept unseen. What was added later stands behind: clips that were made before stay what they are."""
COUNT = len(SET)
