"""What a clip shows when: the instrument down, raised and up, and the breaths in one line with it."""

from collections.abc import Sequence

from brevin.core.hold.raising import Hands
from brevin.core.kinds import SegmentKind
from brevin.core.report import Segment


def segments(hands: Hands) -> list[Segment]:
    """Down, raising and up in turn over the whole clip; nothing where nothing was raised."""
    found: list[Segment] = []
    at_s = float(hands.t_s[0]) if len(hands.t_s) else 0.0
    for one in hands.raises:
        found += [Segment("instrument_down", at_s, one.from_s), Segment("raising", one.from_s, one.to_s), Segment("playing", one.to_s, one.until_s)]
        at_s = one.until_s
    if hands.raises and hands.t_s[-1] > at_s:
        found.append(Segment("instrument_down", at_s, float(hands.t_s[-1])))
    return [one for one in found if one.to_s > one.from_s]


def with_breaths(held: Sequence[Segment], breaths: Sequence[Segment]) -> list[Segment]:
    """One line of segments: a way up goes before a breath, and a breath before what is held meanwhile."""
    breathed = _all_without(breaths, [one for one in held if one.kind == "raising"])
    return sorted([*_all_without(held, breathed), *breathed], key=lambda one: one.from_s)


def _all_without(segments: Sequence[Segment], others: Sequence[Segment]) -> list[Segment]:
    left = list(segments)
    for other in others:
        left = [part for one in left for part in _without(one, other)]
    return left


def _without(one: Segment, other: Segment) -> list[Segment]:
    if other.to_s <= one.from_s or other.from_s >= one.to_s:
        return [one]
    parts: list[tuple[SegmentKind, float, float]] = [(one.kind, one.from_s, other.from_s), (one.kind, other.to_s, one.to_s)]
    return [Segment(kind, from_s, to_s) for kind, from_s, to_s in parts if to_s > from_s]
