"""What no camera sees: where to look on the still, what is right there, and the usual wrong place. Ticked by the teacher, never guessed.

One list an instrument: the mouth by its family, then the home of each finger, then where it rests. Source: own, after what beginners' teachers look for.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from brevin.core.kinds import Instrument

Near = Literal["mouth", "left_hand", "right_hand", "back", "rest"]
TickState = Literal["fine", "not_yet"]


@dataclass(frozen=True)
class Tick:
    """near: on which part of the still it is looked at (back: seated, from the side), or the still at rest;
    title: what; fine: how it should be; wrong: the usual wrong place."""

    key: str
    near: Near
    title: str
    fine: str
    wrong: str


@dataclass(frozen=True)
class Spot:
    """Where an item is looked at, trunk lengths from the key point of mouth or hand, or from the middle of the hips:
    ahead of it from the side, beside it from the front, above it."""

    ahead: float
    beside: float
    up: float


LIPS, HAND = Spot(0.08, 0.0, 0.0), Spot(0.12, 0.0, 0.0)  # lips and fingertips are ahead of what the network calls mouth and hand
BACK = Spot(-0.2, 0.0, 0.45)  # from the middle of the hips
_FACE = {"corners": Spot(0.03, 0.06, 0.0), "cheeks": Spot(-0.03, 0.1, 0.05), "chin": Spot(0.05, 0.0, -0.09)}


def spot_of(tick: Tick) -> Spot:
    """Where on the still to look. Which finger of a hand it is no key point tells."""
    if tick.near == "back":
        return BACK
    return _FACE.get(tick.key, LIPS) if tick.near == "mouth" else HAND


_CHIN = Tick("chin", "mouth", "Chin", "flat and smooth", "bunched")
_CHEEKS = Tick("cheeks", "mouth", "Cheeks", "in", "puffed")
_BRASS_MOUTH = (
    Tick("lips", "mouth", "Lips", "together as in mmm", "pressed, pinched"),
    Tick("corners", "mouth", "Corners", "firm and still", "smiling or drawn down"), _CHEEKS, _CHIN,
)  # fmt: skip
_BRASS = (Tick("rim", "mouth", "Rim", "in the middle of the lips", "off the middle, pressed"), *_BRASS_MOUTH)
_SINGLE_REED = (
    Tick("teeth", "mouth", "Upper teeth", "on the beak", "lifted off it"),
    Tick("lips", "mouth", "Lower lip", "a cushion, a little over the teeth", "rolled far in, or biting"),
    Tick("corners", "mouth", "Corners", "firm from the sides", "slack, air leaks"), _CHIN, _CHEEKS,
)  # fmt: skip
_DOUBLE_REED = (
    Tick("lips", "mouth", "Lips", "both over the teeth, the reed's tip in the middle", "biting, or over the whole reed"),
    Tick("corners", "mouth", "Corners", "round", "pulled into a smile"), _CHIN, _CHEEKS,
)  # fmt: skip
_FLUTE = (
    Tick("plate", "mouth", "Lip plate", "lower lip over a quarter to a third of the hole", "over half of it, or too low"),
    Tick("corners", "mouth", "Corners", "easy", "smiling"),
    Tick("slit", "mouth", "Opening", "small, in the middle", "wide, or to one side"),
)
_VALVES = (
    Tick("fingertips", "right_hand", "Right fingertips", "on the buttons, curved", "flat, joints on them"),
    Tick("right_thumb", "right_hand", "Right thumb", "under the leadpipe, by the first two valves", "hooked over it"),
)

_BACK = Tick("backrest", "back", "Back", "clear of the backrest while playing", "leaning on it")
_REACH = Tick("reach", "mouth", "Reach", "the mouthpiece comes to the mouth: seat, lap or stand set for it", "stretching or hunching to it")

_UP: dict[Instrument, tuple[Tick, ...]] = {  # pyrefly: ignore[bad-assignment]
    "flute": (
        *_FLUTE,
        Tick("left_base", "left_hand", "Left forefinger's base", "against the tube, it carries", "away from it"),
        Tick("left_little", "left_hand", "Left little finger", "over the G sharp key", "tucked under"),
        Tick("right_thumb", "right_hand", "Right thumb", "under the forefinger", "poking through, hooked"),
        Tick("right_fingers", "right_hand", "Right fingers", "like a C on the main keys", "flat, on the trill keys"),
        Tick("right_little", "right_hand", "Right little finger", "on the E flat key", "in the air"),
    ),
    "oboe": (
        *_DOUBLE_REED,
        Tick("left_thumb", "left_hand", "Left thumb", "beside the octave key", "on it"),
        Tick("left_fingers", "left_hand", "Left fingers", "pads in the middle of the plates", "half off the vent"),
        Tick("right_thumb", "right_hand", "Right thumb", "under its rest, near the nail", "pushed through to the knuckle"),
        Tick("right_fingers", "right_hand", "Right fingers", "curved on the lower plates", "flat, their base on a side key"),
        Tick("right_little", "right_hand", "Right little finger", "over its keys", "in the air"),
    ),
    "clarinet": (
        *_SINGLE_REED,
        Tick("left_thumb", "left_hand", "Left thumb", "aslant on its hole, tip by the register key", "straight, the hole open"),
        Tick("left_fingers", "left_hand", "Left fingers", "close the upper holes", "leaning on the A or G sharp key"),
        Tick("left_little", "left_hand", "Left little finger", "over its keys", "tucked under"),
        Tick("right_thumb", "right_hand", "Right thumb", "under its rest, between nail and first joint", "at the knuckle"),
        Tick("right_fingers", "right_hand", "Right fingers", "close the lower holes", "their base on the side keys"),
        Tick("right_little", "right_hand", "Right little finger", "over its keys", "under a rod"),
    ),
    **dict.fromkeys(("alto_sax", "tenor_sax"), (
        *_SINGLE_REED,
        Tick("face", "mouth", "Face to mouthpiece", "about a right angle, by the strap's length", "chin dropped, or head back"),
        Tick("left_thumb", "left_hand", "Left thumb", "on the round rest, tip by the octave key", "on the octave key"),
        Tick("left_fingers", "left_hand", "Left hand", "like a C, palm off the palm keys", "squeezing them"),
        Tick("left_little", "left_hand", "Left little finger", "on its table", "in the air"),
        Tick("right_thumb", "right_hand", "Right thumb", "under its hook, pushes forward", "lifts the weight"),
        Tick("right_fingers", "right_hand", "Right fingers", "on the main keys, base off the side keys", "on the side keys"),
    )),
    **dict.fromkeys(("trumpet", "cornet"), (
        *_BRASS, *_VALVES,
        Tick("right_little", "right_hand", "Right little finger", "in the hook, easy", "pulling"),
        Tick("left_hand", "left_hand", "Left hand", "carries the weight, round the casings", "on a slide"),
        Tick("left_ring", "left_hand", "Third slide's ring", "left ring finger in it", "no finger in it"),
    )),
    "horn": (
        Tick("rim", "mouth", "Rim", "two thirds on the upper lip", "low on it, pressed"), *_BRASS_MOUTH,
        Tick("left_fingers", "left_hand", "Left fingertips", "on the levers", "middle joints on them"),
        Tick("left_little", "left_hand", "Left little finger", "in its hook", "free, or gripping"),
        Tick("bell_hand", "right_hand", "Hand in the bell", "a flat cup on the far wall, thumb along it", "spread across, or only at the edge"),
        Tick("bell", "right_hand", "Bell", "off the body, its mouth not facing the trunk", "against the body"),
    ),
    "trombone": (
        *_BRASS,
        Tick("left_thumb", "left_hand", "Left thumb", "on the bell's brace", "on the slide"),
        Tick("left_fingers", "left_hand", "Left fingers", "round the slide's upper brace", "round an outer tube"),
        Tick("right_hand", "right_hand", "Right hand", "fingertips on the lower brace, palm to you", "a fist, palm down"),
        Tick("wrist", "right_hand", "Right wrist", "loose", "stiff"),
    ),
    **dict.fromkeys(("euphonium", "baritone", "tuba"), (
        *_BRASS, _REACH,
        Tick("left_hand", "left_hand", "Left hand", "on a strong tube", "on a slide or the bell"),
        Tick("right_thumb", "right_hand", "Right thumb", "in its ring, easy", "pulling"),
        Tick("fingertips", "right_hand", "Right fingertips", "on the valves, curved", "flat, joints on them"),
    )),
}  # fmt: skip
_RESTS: dict[str, tuple[str, str]] = {
    "flute": ("across the thighs, keys up, both hands on", "on a chair or a stand"),
    "oboe": ("across the thighs, keys up, or upright on the right thigh", "leaned, or on a chair"),
    "clarinet": ("across the thighs, cap on, or upright on the right thigh", "leaned, or on a chair"),
    **dict.fromkeys(("alto_sax", "tenor_sax"), ("on the lap, hook on, a hand on it", "on a chair")),
    **dict.fromkeys(("trumpet", "cornet"), ("bell down on the thigh, hand round the valves", "on the floor or a chair")),
    "horn": ("on its side in the lap, right hand at the bell", "on the floor or a chair"),
    "trombone": ("slide locked and clear of the floor", "slide open, or its tip on the floor"),
    **dict.fromkeys(("euphonium", "baritone"), ("upright on the lap, arms round it", "standing on its bell")),
    "tuba": ("held upright at strong parts, or lying, valves up", "standing on its bell"),
}
TICKS: dict[Instrument, tuple[Tick, ...]] = {one: (*ticks, _BACK, Tick("at_rest", "rest", "At rest", *_RESTS[one])) for one, ticks in _UP.items()}
"""What is looked at, in the order of the list beside the still; the last of each on the still at rest."""


def as_taught(instrument: Instrument, looks: Mapping[str, tuple[str, str]]) -> tuple[Tick, ...]:
    """The list of an instrument. looks: how it should be and the usual wrong place, by key, where mouth or hands are taught otherwise than is usual."""
    return tuple(replace(one, fine=looks[one.key][0], wrong=looks[one.key][1]) if one.key in looks else one for one in TICKS.get(instrument, ()))
