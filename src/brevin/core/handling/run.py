"""A section's way through the steps: what was tapped, in order, and from it where the section stands. Nothing is kept but the taps.

A tap says what shall be, not what shall change ("help comes to 7", "step 3 is over"): two teachers who tap the same chair or the same button leave the
section as one of them would.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Literal, get_args

from brevin.core.errors import InvalidInput

Tap = Literal["begin", "next", "back", "again", "help", "right", "away", "here", "choose", "stop", "go_on"]
TAPS: tuple[Tap, ...] = get_args(Tap)
OF_A_STEP: tuple[Tap, ...] = ("next", "back", "again", "choose")  # mean the step that was shown when they were tapped
OF_A_CHAIR: tuple[Tap, ...] = ("help", "right", "away", "here")


@dataclass(frozen=True)
class Tapped:
    """One tap. step: the key of the step that was shown; student: whose chair; word: of a choice "choice=option"; order: of the steps where that option has
    its own; by: who tapped."""

    does: Tap
    at: datetime
    step: str = ""
    student: int | None = None
    word: str = ""
    order: tuple[str, ...] = ()
    by: int | None = None


@dataclass(frozen=True)
class Through:
    """A step that is behind a student: when, whether help came, who led it."""

    step: str
    student: int
    at: datetime
    helped: bool
    by: int | None


@dataclass(frozen=True)
class Standing:
    """Where a section stands. step: its place among the steps, as many as there are when all is done; spent_s: by step, without the pauses; since: from when
    the present step runs, None while stopped; helping: since when help is to come, by student; times: how often the class does this step by now."""

    steps: tuple[str, ...]
    step: int = 0
    spent_s: dict[str, float] = field(default_factory=dict)
    since: datetime | None = None
    helping: dict[int, datetime] = field(default_factory=dict)
    helped: frozenset[tuple[str, int]] = frozenset()
    away: frozenset[int] = frozenset()
    chosen: dict[str, str] = field(default_factory=dict)
    times: int = 1
    stopped: bool = False

    @property
    def key(self) -> str:
        """The present step's key, "" when all is done."""
        return self.steps[self.step] if self.step < len(self.steps) else ""

    @property
    def done(self) -> bool:
        """Whether every step is over."""
        return self.step >= len(self.steps)


def standing(steps: Sequence[str], taps: Sequence[Tapped]) -> Standing:
    """Where a section stands after its taps, the oldest first. Property: a tap that is repeated changes nothing."""
    now = Standing(tuple(steps))
    for tap in taps:
        now = after(now, tap)
    return now


def after(now: Standing, tap: Tapped) -> Standing:
    """Where the section stands after one more tap; one that means a step which is not shown any more changes nothing."""
    if tap.does in OF_A_STEP and (tap.step != now.key or now.done or now.stopped):
        return now
    if tap.does in OF_A_CHAIR:
        return _chair(now, tap)
    if tap.does == "choose":
        choice, _, option = tap.word.partition("=")
        chosen = replace(now, chosen=now.chosen | {choice: option})
        return reordered(chosen, tap.order) if tap.order else chosen
    if tap.does == "again":
        return replace(now, times=now.times + 1)
    if tap.does == "next":
        spent = _spent(now, tap.at)
        last = now.step + 1 >= len(now.steps)
        return replace(spent, step=now.step + 1, since=None if last else tap.at, helping={}, times=1)
    if tap.does == "back":
        return replace(_spent(now, tap.at), step=max(now.step - 1, 0), since=tap.at, helping={}, times=1)
    if tap.does == "stop":
        return replace(_spent(now, tap.at), since=None, stopped=True)
    return now if now.since is not None or now.done else replace(now, since=tap.at, stopped=False)  # begin, go_on


def _spent(now: Standing, at: datetime) -> Standing:
    if now.since is None:
        return now
    seconds = now.spent_s.get(now.key, 0.0) + max((at - now.since).total_seconds(), 0.0)
    return replace(now, spent_s=now.spent_s | {now.key: seconds})


def _chair(now: Standing, tap: Tapped) -> Standing:
    who = tap.student
    if who is None or (tap.step and tap.step != now.key) or now.done:
        return now
    if tap.does == "help":
        return replace(now, helping={who: tap.at} | now.helping, helped=now.helped | {(now.key, who)}, away=now.away - {who})
    rest = {one: since for one, since in now.helping.items() if one != who}
    if tap.does == "right":
        return replace(now, helping=rest)
    return replace(now, helping=rest, away=now.away | {who} if tap.does == "away" else now.away - {who})


def reordered(now: Standing, order: Sequence[str]) -> Standing:
    """The same section with its steps in another order: what was done stays done and stands in front. Raises InvalidInput(other_steps)."""
    if sorted(order) != sorted(now.steps):
        raise InvalidInput("other_steps")
    behind = now.steps[: now.step]
    return replace(now, steps=(*behind, *(key for key in order if key not in behind)))


def through(steps: Sequence[str], taps: Sequence[Tapped], students: Sequence[int]) -> list[Through]:
    """Who has which step behind them, in the order of the taps; who was away has not. A step that was gone back to is behind them once more."""
    now, found = Standing(tuple(steps)), dict[tuple[str, int], Through]()
    for tap in taps:
        later = after(now, tap)
        if tap.does == "next" and later.step > now.step:
            for student in students:
                if student not in now.away:
                    found[(now.key, student)] = Through(now.key, student, tap.at, (now.key, student) in now.helped, tap.by)
        now = later
    return list(found.values())
