"""How much in a row: after so many deep breaths a rest of ordinary breathing, after so many longest tries a minute, whoever asks for them and wherever.
A longest try is an exhale that is as long as it goes, or the mouthpiece, reed or head joint alone. Source: own starting values."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from brevin.core.errors import InvalidInput
from brevin.core.kinds import AskedPosition
from brevin.core.plan.card import CountCard

MOST_IN_A_ROW = 6  # counted breaths
REST_S = 30.0  # of ordinary breathing after them; as much in between begins the row anew
MOST_EFFORTS = 3  # longest tries
EFFORT_REST_S = 60.0  # after them, and as much in between begins the row anew


def check_limits(card: CountCard, *, empty_allowed: bool, position: AskedPosition = "seated") -> None:
    """Raises InvalidInput: too_many_in_a_row, too_many_efforts, empty_off (staying empty is switched off unless the programme switched it on), only_seated
    (a longest try or staying empty in another position, from which somebody dizzy may fall)."""
    if card.cycles > MOST_IN_A_ROW:
        raise InvalidInput("too_many_in_a_row", most=MOST_IN_A_ROW)
    if card.exhale_beats is None and card.cycles > MOST_EFFORTS:
        raise InvalidInput("too_many_efforts", most=MOST_EFFORTS)
    if card.empty_beats and not empty_allowed:
        raise InvalidInput("empty_off")
    if position != "seated" and (card.empty_beats or card.exhale_beats is None):
        raise InvalidInput("only_seated")


@dataclass(frozen=True)
class Run:
    """Counted breaths without a rest in between. ended_at: when the last of them was out; efforts: how many of them were longest tries."""

    ended_at: datetime
    breaths: int
    lasted_s: float
    efforts: int = 0


def of_card(card: CountCard, ended_at: datetime) -> Run:
    """A card breathed to its end."""
    return Run(ended_at, card.cycles, card.lasts_s, efforts_of(card))


def efforts_of(card: CountCard) -> int:
    """How many longest tries a card asks for."""
    return card.cycles if card.exhale_beats is None else 0


def joined(before: Run | None, run: Run) -> Run:
    """Two runs as one where there was no rest between them, else the later one."""
    if before is None or run.ended_at - timedelta(seconds=run.lasted_s) - before.ended_at >= timedelta(seconds=REST_S):
        return run
    return Run(run.ended_at, before.breaths + run.breaths, (run.ended_at - before.ended_at).total_seconds() + before.lasted_s)


def rest_s(runs: Sequence[Run], *, breaths: int, efforts: int = 0, at: datetime) -> float:
    """Seconds that a student still rests before so many more breaths, of which some are longest tries. runs: what the student did lately, in any order."""
    counted, longest = ([(run, run.breaths) for run in runs if run.breaths], [(run, run.efforts) for run in runs if run.efforts])
    return max(_wait_s(counted, breaths, most=MOST_IN_A_ROW, rest_s=REST_S, at=at), _wait_s(longest, efforts, most=MOST_EFFORTS, rest_s=EFFORT_REST_S, at=at))


def _wait_s(done: Sequence[tuple[Run, int]], wanted: int, *, most: int, rest_s: float, at: datetime) -> float:
    """What is left of the rest where the latest row, with what is wanted, would be too long."""
    newest_first = sorted(done, key=lambda one: one[0].ended_at, reverse=True)
    in_a_row, later_begin = 0, at
    for run, count in newest_first:
        if later_begin - run.ended_at >= timedelta(seconds=rest_s):
            break
        in_a_row += count
        later_begin = run.ended_at - timedelta(seconds=run.lasted_s)
    if not wanted or not in_a_row or in_a_row + wanted <= most:
        return 0.0
    return max(rest_s - (at - newest_first[0][0].ended_at).total_seconds(), 0.0)
