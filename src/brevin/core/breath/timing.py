"""The times of one breath: its turns on the clip's clock, their lengths in beats, and how far they lie off the card."""

import math
from collections.abc import Callable

from brevin.core.breath.one import OneBreath
from brevin.core.breath.turns import Turn
from brevin.core.kinds import TurnKind
from brevin.core.measure import Amount, NotMeasured, Value
from brevin.core.plan.card import CountCard

NEAREST_CYCLES = 0.5  # a breath belongs to the card's cycle whose start is nearest, within this many cycles
OPEN_CARD_BEATS = 2.0  # beats past the inhale's length within which a breath belongs to a card with an open exhale


def turn_s(breath: OneBreath, kind: TurnKind) -> Value:
    """Moment of one turn, s from the first video frame (core/breath/turns.py)."""
    turn: Turn | None = getattr(breath.turns, kind)
    return NotMeasured("cut_by_clip") if turn is None else Amount(turn.t_s, turn.half_width_s)


def length_beats(breath: OneBreath, start: Turn | None, end: Turn | None) -> Value:
    """Time between two turns over the beat; 0 where they crossed. Half width: both turns' together."""
    if breath.beats.beat_s is None:
        return NotMeasured("no_beats")
    if start is None or end is None:
        return NotMeasured("cut_by_clip")
    spread_s = math.hypot(start.half_width_s, end.half_width_s)
    return Amount(max(end.t_s - start.t_s, 0.0) / breath.beats.beat_s, spread_s / breath.beats.beat_s)


def offset_beats(breath: OneBreath, turn: Turn | None, due_beats: Callable[[CountCard, int], float | None]) -> Value:
    """A turn less the card's own beat, + = late. The grid's residual goes into the half width."""
    if breath.card is None:
        return NotMeasured("no_card")
    beat_s, first_s = breath.beats.beat_s, breath.beats.first_inhale_s
    if beat_s is None or first_s is None:
        return NotMeasured("no_beats")
    index = card_index(breath)
    if index is None:
        return NotMeasured("off_the_card")
    due = due_beats(breath.card, index)
    if due is None:
        return NotMeasured("open_exhale")
    if turn is None:
        return NotMeasured("cut_by_clip")
    spread_s = math.hypot(turn.half_width_s, breath.beats.residual_s or 0.0)
    return Amount((turn.t_s - first_s) / beat_s - due, spread_s / beat_s)


def next_offset_beats(breath: OneBreath) -> Value:
    """How late the breath after this one begins against the card's own beat: only then was a long exhale too long."""
    index = card_index(breath)
    if breath.card is None or index is None or breath.beats.beat_s is None or breath.beats.first_inhale_s is None:
        return NotMeasured("no_card" if breath.card is None else "off_the_card")
    due = breath.card.inhale_due_beats(index + 1)
    if due is None or breath.next_start is None or index + 1 >= breath.card.cycles:
        return NotMeasured("off_the_card")
    late_beats = (breath.next_start.t_s - breath.beats.first_inhale_s) / breath.beats.beat_s - due
    return Amount(late_beats, breath.next_start.half_width_s / breath.beats.beat_s)


def card_index(breath: OneBreath) -> int | None:
    """Which of the card's breaths this is; None without a grid, or where no cycle is near."""
    card, beats, start = breath.card, breath.beats, breath.turns.inhale_start
    if card is None or beats.first_inhale_s is None or beats.beat_s is None or start is None:
        return None
    at_beats = (start.t_s - beats.first_inhale_s) / beats.beat_s
    if card.cycle_beats is None:
        return 0 if abs(at_beats) < card.inhale_beats + OPEN_CARD_BEATS else None
    index = round(at_beats / card.cycle_beats)
    near = abs(at_beats - index * card.cycle_beats) <= NEAREST_CYCLES * card.cycle_beats
    return index if near and 0 <= index < card.cycles else None
