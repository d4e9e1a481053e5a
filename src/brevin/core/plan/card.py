"""Count cards: how long in, pause, out and still, at what tempo, how often."""

import re
from dataclasses import dataclass

from brevin.core.errors import InvalidInput

_NUMBER = r"\d+(?:\.\d+)?"
_TEXT = re.compile(
    rf"^(?P<inhale>{_NUMBER})-(?P<pause>{_NUMBER})-(?P<exhale>{_NUMBER}|\*)(?:-(?P<empty>{_NUMBER}))?"
    rf"@(?P<bpm>{_NUMBER})x(?P<cycles>\d+)(?:\+(?P<countin>{_NUMBER}))?$"
)
SLOWEST_BPM, FASTEST_BPM = 30.0, 200.0
MOST_CYCLES = 20  # breaths a card may ask for in a row
LONGEST_BEATS = 64.0


@dataclass(frozen=True)
class CountCard:
    """What was asked. Lengths in beats; exhale_beats None = as long as it lasts; countin_beats: beats before the first inhale."""

    inhale_beats: float
    pause_beats: float
    exhale_beats: float | None
    empty_beats: float
    tempo_bpm: float
    cycles: int
    countin_beats: float = 4.0

    @property
    def beat_s(self) -> float:
        """Length of a beat, seconds."""
        return 60.0 / self.tempo_bpm

    @property
    def cycle_beats(self) -> float | None:
        """From one inhale to the next, beats; None where the exhale is open."""
        if self.exhale_beats is None:
            return None
        return self.inhale_beats + self.pause_beats + self.exhale_beats + self.empty_beats

    @property
    def lasts_s(self) -> float:
        """The whole run with its count-in, seconds; an open exhale counts as the longest length there is."""
        open_beats = self.inhale_beats + self.pause_beats + LONGEST_BEATS + self.empty_beats
        return self.beat_s * (self.countin_beats + self.cycles * (self.cycle_beats if self.cycle_beats is not None else open_beats))

    def inhale_due_beats(self, index: int) -> float | None:
        """Beat, counted from the first inhale, on which inhale ``index`` is due."""
        return 0.0 if index == 0 else None if self.cycle_beats is None else index * self.cycle_beats

    def exhale_due_beats(self, index: int) -> float | None:
        """The same for the exhale."""
        start = self.inhale_due_beats(index)
        return None if start is None else start + self.inhale_beats + self.pause_beats


def parse(text: str) -> CountCard:
    """Read ``INHALE-PAUSE-EXHALE[-EMPTY]@BPMxCYCLES[+COUNTIN]``. Raises InvalidInput(bad_card)."""
    found = _TEXT.match(text.strip())
    if not found:
        raise InvalidInput("bad_card", text=text, wanted="such as 3-0-7@72x4: in, pause, out, tempo, how often")
    part = found.groupdict()
    card = CountCard(
        inhale_beats=float(part["inhale"]),
        pause_beats=float(part["pause"]),
        exhale_beats=None if part["exhale"] == "*" else float(part["exhale"]),
        empty_beats=float(part["empty"] or 0),
        tempo_bpm=float(part["bpm"]),
        cycles=int(part["cycles"]),
        countin_beats=float(part["countin"] or 4),
    )
    _check(card, text)
    return card


def _check(card: CountCard, text: str) -> None:
    lengths = [card.inhale_beats, card.pause_beats, card.exhale_beats or 1.0, card.empty_beats, card.countin_beats]
    fits = (
        SLOWEST_BPM <= card.tempo_bpm <= FASTEST_BPM
        and 1 <= card.cycles <= MOST_CYCLES
        and card.inhale_beats > 0
        and (card.exhale_beats is None or card.exhale_beats > 0)
        and max(lengths) <= LONGEST_BEATS
    )
    if not fits:
        raise InvalidInput("bad_card", text=text, wanted=f"a tempo of {SLOWEST_BPM:.0f} to {FASTEST_BPM:.0f}, 1 to {MOST_CYCLES} breaths")


def short_name(card: CountCard) -> str:
    """The card's text form; ``parse(short_name(card)) == card``."""

    def number(value: float) -> str:
        return f"{value:g}"

    exhale = "*" if card.exhale_beats is None else number(card.exhale_beats)
    empty = f"-{number(card.empty_beats)}" if card.empty_beats else ""
    countin = "" if card.countin_beats == 4.0 else f"+{number(card.countin_beats)}"
    return f"{number(card.inhale_beats)}-{number(card.pause_beats)}-{exhale}{empty}@{number(card.tempo_bpm)}x{card.cycles}{countin}"
