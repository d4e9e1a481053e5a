"""The names of the field as literal types, from the core to the page: a word that is not one of these does not pass the type checker."""

from typing import Literal, get_args

State = Literal["steady", "watch", "work", "unreadable"]
View = Literal["side-left", "side-right", "front", "three-quarter", "back"]
AskedView = Literal["side", "front", "three-quarter", "auto"]
Position = Literal["seated", "standing", "lying"]
AskedPosition = Literal["seated", "standing", "lying", "auto"]
Region = Literal["abdomen", "chest", "shoulder"]
Lane = Literal["count", "shoulder", "chest", "abdomen"]
Pattern = Literal["low", "low_then_wide", "chest_high", "paradoxical", "low_then_lifted", "shallow", "pushed", "unclear"]
ExhaleShape = Literal["even", "collapsing", "pulsing", "kept back"]
SegmentKind = Literal["instrument_down", "raising", "inhale", "pause", "exhale", "playing"]
TurnKind = Literal["inhale_start", "inhale_end", "exhale_start", "exhale_end"]
CheckKind = Literal["counted_breathing", "hold", "posture", "drill", "tone"]
Importance = Literal["seat", "breath", "hold", "count"]  # what a fault belongs to, for which is spoken of first
CheckArea = Literal["all", "breath", "posture", "hold", "sound"]
GridSource = Literal["clicks", "recorded", "fitted"]
Side = Literal["low", "high"]
Purpose = Literal["filming", "keeping", "showing", "lying"]  # of a consent: to film, to keep the clip, to show it in class, to lie down for drills
Contrast = Literal["none", "high_low", "slumped_tall", "pinched_open", "slack_slow"]  # wrong on purpose, then right
Dynamic = Literal["any", "soft", "medium", "loud", "swell", "fade"]  # asked of what is played
Articulation = Literal["any", "air", "tongued", "slurred", "short"]  # air: begun by the breath alone
FeltQuestion = Literal["where", "easier", "air"]
Felt = Literal["", "low", "high", "easier", "same", "harder", "enough", "not_enough", "unsure"]
Instrument = Literal[
    "none", "flute", "oboe", "clarinet", "alto_sax", "tenor_sax", "trumpet", "cornet", "horn", "trombone", "euphonium", "baritone", "tuba",
]  # fmt: skip

IMPORTANCE: tuple[Importance, ...] = get_args(Importance)
"""The usual order: what lies beneath comes first."""
INSTRUMENTS: tuple[Instrument, ...] = get_args(Instrument)
FELT: dict[FeltQuestion, tuple[Felt, ...]] = {
    "where": ("low", "high", "unsure"), "easier": ("easier", "same", "harder"), "air": ("enough", "not_enough", "unsure"),
}  # fmt: skip
"""What may be answered to what a student is asked before the reading is there."""
PURPOSES: tuple[Purpose, ...] = get_args(Purpose)
REGIONS: tuple[Region, ...] = get_args(Region)
TURN_KINDS: tuple[TurnKind, ...] = get_args(TurnKind)
SIDE_VIEWS: tuple[View, ...] = ("side-left", "side-right")
