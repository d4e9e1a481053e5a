"""Fingerings and positions as written, and what is pressed. Fingers count from the forefinger; T is the thumb; ``|`` stands between left and right."""

import re
from dataclasses import dataclass
from typing import Literal

from brevin.core.errors import InvalidInput
from brevin.core.handling.cards import InstrumentCard

System = Literal["holes", "valves", "levers", "slide"]
_HOLES = re.compile(r"(T?)([1-4·]*)")
_HAS_THUMB_KEY = ("flute", "clarinet")  # elsewhere the thumb rests, or works the octave alone
VALVES = 3  # that a beginner uses


@dataclass(frozen=True)
class Play:
    """fingers: of those that press, as L1 to L4, LT, R1 to R4; position: of a slide, 1 to 7, else None."""

    fingers: tuple[str, ...]
    position: int | None = None


def system_of(card: InstrumentCard) -> System:
    """How an instrument's notes are made."""
    if card.family != "brass":
        return "holes"
    if card.positions_cm:
        return "slide"
    return "levers" if "horn" in card.serves else "valves"


def play(card: InstrumentCard, written: str) -> Play:
    """What is pressed for a fingering as it is written: "T12|·4", "open", "1-3", or a position. Raises InvalidInput(bad_fingering) for what no hand can do on
    this instrument."""
    system = system_of(card)
    if system == "holes":
        return Play(_holes(written, thumb=card.name in _HAS_THUMB_KEY))
    if system == "slide":
        if not re.fullmatch(r"[1-7]", written) or int(written) > len(card.positions_cm):
            raise InvalidInput("bad_fingering", fingering=written)
        return Play((), int(written))
    return Play(_pressed(written, "L" if system == "levers" else "R"))


def _holes(written: str, *, thumb: bool) -> tuple[str, ...]:
    if written == "open":
        return ()
    halves = written.split("|")
    if len(halves) > 2:
        raise InvalidInput("bad_fingering", fingering=written)
    pressed: list[str] = []
    for hand, half in zip("LR", halves, strict=False):
        found = _HOLES.fullmatch(half)
        if found is None or (found[1] and (hand == "R" or not thumb)):
            raise InvalidInput("bad_fingering", fingering=written)
        fingers = found[1] + found[2].replace("·", "")
        if sorted(set(fingers)) != sorted(fingers) or not fingers.lstrip("T") == "".join(sorted(fingers.lstrip("T"))):
            raise InvalidInput("bad_fingering", fingering=written)
        pressed += [hand + finger for finger in fingers]
    if not pressed:
        raise InvalidInput("bad_fingering", fingering=written)
    return tuple(pressed)


def _pressed(written: str, hand: str) -> tuple[str, ...]:
    if written == "open":
        return ()
    valves = written.split("-")
    if any(valve not in {str(n) for n in range(1, VALVES + 1)} for valve in valves) or valves != sorted(set(valves)):
        raise InvalidInput("bad_fingering", fingering=written)
    return tuple(hand + valve for valve in valves)


def in_words(card: InstrumentCard, made: Play) -> str:
    """A fingering as it is said."""
    if made.position is not None:
        return f"{('first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh')[made.position - 1]} position"
    if not made.fingers:
        return "nothing pressed"
    if system_of(card) in ("valves", "levers"):
        word = "valve" if system_of(card) == "valves" else "lever"
        return f"{word}{'s' if len(made.fingers) > 1 else ''} {' and '.join(finger[1] for finger in made.fingers)}"
    hands = [("left", [f for f in made.fingers if f[0] == "L"]), ("right", [f for f in made.fingers if f[0] == "R"])]
    return ", ".join(f"{hand} {' '.join('thumb' if f[1] == 'T' else f[1] for f in fingers)}" for hand, fingers in hands if fingers)
