"""What helps with a fault: the equipment is looked at before the child, then one small drill is done, then the same is looked at again.

``PARTS``: what of seat, stand and instrument can be at fault, and the value of each that fits a student. ``HELP``: for each criterion which of them come
first, and its drill. A drill asks for no largest effort, for nothing to be lifted, and for no breath to be held. Source: own, after what beginners' teachers
change first.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from brevin.core.kinds import AskedPosition, Instrument
from brevin.core.verdict.rules import CriterionKey

Values = Mapping[str, float]


@dataclass(frozen=True)
class Fit:
    """A value that fits a student. unit; low to high: what can be kept; step: by which it is changed; usual: where one begins."""

    unit: str
    low: float
    high: float
    step: float
    usual: float


@dataclass(frozen=True)
class Part:
    """A part of the equipment. look: how it should be; fit: the value that is kept of it, None where there is nothing to measure; instruments: that have it,
    None = all; seated: only of who sits."""

    title: str
    look: str
    fit: Fit | None = None
    instruments: tuple[Instrument, ...] | None = None
    seated: bool = False


SAXOPHONES: tuple[Instrument, ...] = ("alto_sax", "tenor_sax")
LOW_BRASS: tuple[Instrument, ...] = ("euphonium", "baritone", "tuba")

PARTS: dict[str, Part] = {
    "fit.strap": Part("Strap", "the mouthpiece comes to the mouth of a level head", Fit("cm", 15, 60, 1, 36), SAXOPHONES),
    "fit.neck": Part("Neck joint", "turned so that the mouthpiece points at a head that looks ahead", Fit("deg", -45, 45, 5, 0), SAXOPHONES),
    "fit.head_joint": Part("Head joint", "its hole in line with the keys, or as taught", Fit("deg", -30, 30, 5, 0), ("flute",)),
    "fit.thumb": Part("Thumb rest", "the right thumb under it, near the nail, or a strap that carries", None, ("clarinet", "oboe")),
    "fit.cushion": Part("Cushion or stand", "the mouthpiece reaches the mouth of who sits tall", Fit("cm", 0, 30, 1, 6), LOW_BRASS, seated=True),
    "fit.chair": Part("Chair", "feet flat, thighs level, on its front half", Fit("cm", 25, 55, 1, 42), seated=True),
    "fit.stand": Part("Music stand", "read over the instrument with a level head", Fit("cm", 60, 160, 2, 100)),
    "fit.turn": Part("Turn to the stand", "the chair stands turned to the right of it", Fit("deg", 0, 60, 5, 35), ("flute",), seated=True),
    "fit.room": Part("Room beside", "a bent arm away from the neighbours", None),
}
"""In the order in which they are looked at."""


@dataclass(frozen=True)
class Drill:
    """title; words: what is done, for a ten-year-old; times: how often."""

    title: str
    words: str
    times: int


@dataclass(frozen=True)
class Help:
    """parts: what of the equipment comes first; drill; drill_low: where a value under its band wants another; parts_low: the same for the parts."""

    parts: tuple[str, ...]
    drill: Drill
    drill_low: Drill | None = None
    parts_low: tuple[str, ...] | None = None


_MIRROR = Drill("Eyes shut, then look", "Bring the instrument up with your eyes shut. Open them: is it where it was last time?", 5)
_SPOT = Drill("Spot on the wall", "Choose a spot on the wall for the far end. Up to the spot, look, down to the lap.", 5)
_HANG = Drill("Hang, then up", "Shake both arms out and let them hang. Bring the instrument up; the elbows come last.", 4)
_PLANK = Drill("Drop and catch", "Let the hand hang from the wrist, bring it up until arm and hand are one line, and lay it on the keys like that.", 4)
_ROOM = Drill("Wings", "Open both elbows like small wings, close them halfway, and leave them there for four counts.", 4)
_CLAP = Drill("Clap, clap, breathe", "Clap on the first beat twice; the third time breathe in on it instead.", 5)
_TURN = Drill("Arm that turns", "Swing one arm down and up with the clicks. Where it turns, the breath turns.", 5)
_FINGERS = Drill("Finger by finger", "Put one finger up on each count while the air comes in. With the last finger you are full.", 4)
_STAND_UP = Drill("Stand up, sit down", "Stand up without swinging and sit down the same way. Stay as you land: you could rise again at once.", 3)

HELP: dict[CriterionKey, Help] = {
    "feet_flat": Help(("fit.chair",), Drill("Up and down", "Stand up from the chair with the feet where they are, and sit down again on its front half.", 3)),
    "trunk_inclination": Help(("fit.strap", "fit.cushion", "fit.chair", "fit.stand"), _STAND_UP, parts_low=("fit.cushion", "fit.chair")),
    "keeps_tall": Help(
        ("fit.strap", "fit.cushion", "fit.chair", "fit.stand"),
        Drill("Tall, rest, tall", "Sit tall for eight counts, lean back and rest for four, and be as tall again.", 4), parts_low=("fit.cushion", "fit.chair"),
    ),
    "back_rounding": Help(
        ("fit.strap", "fit.cushion", "fit.chair", "fit.stand"),
        Drill("Cat and heron", "Round your back like a cat, then grow as long as a heron. Breathe four counts as the heron.", 4),
    ),
    "head_forward": Help(
        ("fit.strap", "fit.stand", "fit.chair"),
        Drill("Touch and go", "Sit with your back to a wall until your head touches it. Come away from the wall and leave your head where it is.", 4),
    ),
    "shoulder_tilt": Help(
        ("fit.strap", "fit.turn", "fit.cushion", "fit.chair"),
        Drill("Two buckets", "Carry a make-believe bucket of water in each hand, put both down at once, and leave the shoulders there.", 3),
    ),
    "head_level": Help(
        ("fit.strap", "fit.neck", "fit.stand", "fit.chair"),
        Drill("Full glass", "Look straight ahead and nod a slow yes three times, then a small no. Stop where both ears are at one height, and play there.", 3),
    ),
    "head_with_flute": Help(
        ("fit.turn", "fit.head_joint", "fit.chair"),
        Drill("Flute first", "Hold the flute where both arms are easy. Only then bring the head along it, lips level with the tube, and play four counts.", 4),
    ),
    "body_still": Help(
        ("fit.strap", "fit.chair", "fit.stand"),
        Drill("Nose on the spot", "Choose a spot on the wall ahead. Breathe and play four counts with your nose on it, rest for four.", 4),
    ),
    "real_breath": Help(
        ("fit.chair",), Drill("Cool palm", "Sigh on your palm, wait, and feel how the air comes back by itself.", 4),
        Drill("Own hand", "Lay your own hand on your belly. The air that comes in moves the hand out.", 4),
    ),
    "abdomen_leads": Help(
        ("fit.strap", "fit.chair"),
        Drill("Sigh and wait", "Sigh out, wait until the air wants to come in, and feel with your own hand where it comes first.", 4),
    ),
    "shoulders_still": Help(
        ("fit.strap", "fit.stand", "fit.chair"), Drill("Heavy arms", "Let both arms hang and breathe in for four. Then the same with the instrument up.", 4)
    ),
    "full_breath": Help(("fit.chair",), Drill("Yawn", "Begin a yawn without a sound and feel how wide the flanks get. Then rest.", 3)),
    "axis_level": Help(("fit.head_joint", "fit.stand", "fit.turn"), _SPOT, parts_low=("fit.head_joint", "fit.stand")),
    "axis_to_trunk": Help(("fit.thumb", "fit.stand", "fit.chair"), _SPOT),
    "arms_stay_up": Help(
        ("fit.strap", "fit.thumb", "fit.cushion", "fit.stand"),
        Drill("Up for eight", "Up for eight counts, in the lap for eight. Stop when thumb, wrist or neck hurt.", 4),
    ),
    "elbow_left": Help(("fit.turn", "fit.room"), _HANG, _ROOM),
    "elbow_right": Help(("fit.turn", "fit.room"), _HANG, _ROOM),
    "hands_in_order": Help(
        ("fit.thumb", "fit.strap", "fit.turn"),
        Drill("Left, then right", "Instrument in the lap. The left hand goes on first, near the mouth, then the right. Up.", 4),
    ),
    "wrist_left": Help(("fit.turn", "fit.head_joint", "fit.stand"), _PLANK),
    "wrist_right": Help(("fit.thumb", "fit.turn", "fit.head_joint", "fit.stand"), _PLANK),
    "head_travel": Help(
        ("fit.strap", "fit.neck", "fit.cushion", "fit.chair"),
        Drill("Wall behind you", "Sit with the back of your head near a wall. Bring the instrument up; the head stays there.", 5),
    ),
    "raise_spread": Help(("fit.strap", "fit.cushion", "fit.chair"), _MIRROR),
    "not_full_early": Help(
        (), Drill("Lift", "Your hand rises from lap to chin through all counts. The air comes in only as fast as the hand.", 4)
    ),
    "with_count": Help((), _CLAP),
    "inhale_counts": Help((), _FINGERS),
    "pause": Help((), Drill("Flat eight", "Draw a lying eight in the air. One loop is in, the other is out, and it never stops.", 4)),
    "exhale_with_count": Help((), _TURN),
    "exhale_counts": Help(
        (), Drill("Empty on the last", "Blow on your palm for the asked counts, and stop on the last one.", 4),
        Drill("One count more", "Hiss softly for two counts, then for three, then for four. Rest before the next round.", 3),
    ),
    "even_intake": Help((), _FINGERS),
    "even_exhale": Help((), Drill("Soft hiss", "Hiss as evenly as a fan, with your own hand on the belly that comes home.", 3)),
    "both_sides": Help((), Drill("Once wrong, once right", "Once on purpose as it should not be, once as it should. Say what felt different.", 3)),
}  # fmt: skip


def drill(criterion: CriterionKey, side: str | None) -> Drill:
    """The drill for a fault. side: low where the value lies under its band."""
    known = HELP[criterion]
    return known.drill_low if side == "low" and known.drill_low else known.drill


def equipment(criterion: CriterionKey, side: str | None, instrument: Instrument, position: AskedPosition) -> list[str]:
    """The parts to look at first, in order, of those that this player has."""
    known = HELP[criterion]
    keys = known.parts_low if side == "low" and known.parts_low is not None else known.parts
    return [key for key in PARTS if key in keys and _has(PARTS[key], instrument, position)]


def _has(part: Part, instrument: Instrument, position: AskedPosition) -> bool:
    return (part.instruments is None or instrument in part.instruments) and not (part.seated and position in ("standing", "lying"))


def on_record(values: Values) -> list[tuple[str, Part, Fit, float]]:
    """What fits one student, in the order of the table. values: the student's own, by key; keys of anything else are left out."""
    return [(key, part, part.fit, values[key]) for key, part in PARTS.items() if part.fit is not None and key in values]


def may_be(key: str, value: float) -> bool:
    """Whether a value of a part can be kept."""
    part = PARTS.get(key)
    return part is not None and part.fit is not None and part.fit.low <= value <= part.fit.high
