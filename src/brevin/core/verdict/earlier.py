"""A reading beside the same check on earlier days: what it was then, whether the same fault runs on, and whether the ladder's next card has come."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from itertools import takewhile
from typing import Literal

from brevin.core.kinds import State
from brevin.core.verdict.headline import Headline

MOST_SHOWN = 4  # earlier days
UP_AFTER, BACK_AFTER = 3, 2  # steady, and to work on, in a row; own
Move = Literal["stay", "up", "back"]


@dataclass(frozen=True)
class Reading:
    """One read take of a check. day: of the programme; line: as it stands in a list, the teacher's own word in it."""

    take_id: str
    made_at: datetime
    day: date
    line: Headline


@dataclass(frozen=True)
class Mark:
    """What an earlier day's last reading came to."""

    take_id: str
    day: date
    state: State


@dataclass(frozen=True)
class Earlier:
    """marks: of the days before, the oldest first; running: days in a row with the same first fault, this one among them, 0 where it is new or there is none;
    steady_since: the first of all days in a row that were steady, None where only this one is; move: along the ladder."""

    marks: tuple[Mark, ...] = ()
    running: int = 0
    steady_since: date | None = None
    move: Move = "stay"


def earlier(now: Reading, before: Sequence[Reading]) -> Earlier:
    """What stands before a reading. before: of the same student and check, in any order. A day counts by its last reading; what could not be read neither
    goes on nor breaks off a row. Source: own."""
    sooner = sorted((one for one in before if one.made_at < now.made_at), key=lambda one: one.made_at, reverse=True)
    days = _last_of_each([one for one in sooner if one.day != now.day])
    read = [one for one in days if one.line.state != "unreadable"]
    again = _running(now.line, [one.line for one in read])
    steady = list(takewhile(lambda one: one.line.state == "steady", read)) if now.line.state == "steady" else []
    return Earlier(
        marks=tuple(Mark(one.take_id, one.day, one.line.state) for one in reversed(days[:MOST_SHOWN])),
        running=again + 1 if again else 0,
        steady_since=steady[-1].day if steady else None,
        move=_move([one.line.state for one in (now, *sooner) if one.line.state != "unreadable"]) if now.line.state != "unreadable" else "stay",
    )


def _last_of_each(newest_first: Sequence[Reading]) -> list[Reading]:
    return list({one.day: one for one in reversed(newest_first)}.values())[::-1]


def _running(now: Headline, before: Sequence[Headline]) -> int:
    """On how many days before, one after the other, the first fault stood as well."""
    if not now.faults:
        return 0
    return len(list(takewhile(lambda line: now.faults[0] in line.faults, before)))


def _move(newest_first: Sequence[State]) -> Move:
    if len(newest_first) >= UP_AFTER and set(newest_first[:UP_AFTER]) == {"steady"}:
        return "up"
    if len(newest_first) >= BACK_AFTER and set(newest_first[:BACK_AFTER]) == {"work"}:
        return "back"
    return "stay"
