"""First notes: what came out, what to check and in which order, and when the next note opens."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from brevin.core.handling.cards import GROUPS, Ask, Gate, Group, InstrumentCard, Outcome

ALONE = "alone"
"""The rung below the first note: mouthpiece, reed or head joint by itself."""
LIPS_TRIES = 10  # tries after which the lips rest
LIPS_REST_S = 120.0  # of not playing, after which the count begins anew


@dataclass(frozen=True)
class Try:
    """One try at a rung: the written note, or ``ALONE``."""

    rung: str
    outcome: Outcome
    at: datetime


@dataclass(frozen=True)
class Checked:
    """One thing to look at. times: how often it was the reason in this class."""

    group: Group
    name: str
    ask: str
    times: int


def checks_after(card: InstrumentCard, outcome: Outcome, times: Mapping[str, int]) -> list[Checked]:
    """What to look at after such a sound: the instrument before the child, and in each group first what most often was the reason here."""
    found: list[Checked] = []
    for group in GROUPS:
        asks: Sequence[Ask] = card.checks.get(outcome, {}).get(group, ())
        found += sorted((Checked(group, one.name, one.ask, times.get(one.name, 0)) for one in asks), key=lambda one: -one.times)
    return found


@dataclass(frozen=True)
class GateNow:
    """good: of the last ``of`` tries; opened: once there were enough at some time, or no gate stands."""

    good: int
    needs: int
    of: int
    opened: bool
    stands: bool


def gate_now(gate: Gate, outcomes: Sequence[Outcome]) -> GateNow:
    """How far a gate is, from the tries at its rung, the oldest first. Once it was open it stays so."""
    counts = [sum(one == "note" for one in outcomes[max(0, i - gate.of) : i]) for i in range(1, len(outcomes) + 1)]
    return GateNow(counts[-1] if counts else 0, gate.good, gate.of, not gate.on or any(count >= gate.good for count in counts), gate.on)


def rungs(card: InstrumentCard, *, alone: bool) -> tuple[str, ...]:
    """The rungs in order; notes that count as the first one stand together at the start, as the card has them."""
    return (*((ALONE,) if alone and card.alone is not None else ()), *(one.written for one in card.notes))


def opened(keys: Sequence[str], accepts: Sequence[str], gates: Mapping[str, GateNow]) -> dict[str, bool]:
    """Which rungs may be tried: what counts as the first note after the part alone, every other note after any of those and after the one before it."""
    found: dict[str, bool] = {}
    below = gates[ALONE].opened if ALONE in keys else True
    spoke = any(gates[key].opened for key in keys if key in accepts)
    for key in keys:
        if key == ALONE:
            found[key] = True
        elif key in accepts:
            found[key] = below
        else:
            found[key] = below and spoke
            spoke = spoke and gates[key].opened
    return found


def lips_rest_s(tries: Sequence[Try], *, at: datetime) -> float:
    """Seconds that the lips still rest before the next try: two minutes after ten tries of any kind. Longest tries have a rest of their own
    (``core/plan/limits.py``). Source: own starting values."""
    row: list[datetime] = []
    for moment in sorted((one.at for one in tries), reverse=True):
        if row and row[-1] - moment >= timedelta(seconds=LIPS_REST_S):
            break
        row.append(moment)
    return max(LIPS_REST_S - (at - row[0]).total_seconds(), 0.0) if len(row) >= LIPS_TRIES else 0.0
