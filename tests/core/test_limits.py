"""How long a student rests before more counted breathing."""

from datetime import UTC, datetime, timedelta

import pytest

from brevin.core.plan.card import parse
from brevin.core.plan.limits import EFFORT_REST_S, MOST_IN_A_ROW, REST_S, Run, of_card, rest_s

NOW = datetime(2026, 11, 2, 9, 0, tzinfo=UTC)


def run(ended_s_ago: float, breaths: int, lasted_s: float = 20.0) -> Run:
    return Run(NOW - timedelta(seconds=ended_s_ago), breaths, lasted_s)


@pytest.mark.parametrize(
    ("runs", "wanted", "rest"),
    [
        ([], 6, 0.0),  # nothing done yet: a card of six may begin
        ([run(5, 3)], 3, 0.0),  # three and three are six
        ([run(5, 3)], 4, REST_S - 5),  # seven in a row are one too many
        ([run(40, 6)], 6, 0.0),  # rested meanwhile
        ([run(5, 2), run(30, 3)], 2, REST_S - 5),  # the earlier run ended five seconds before the later began: one row
        ([run(5, 2), run(60, 3)], 4, 0.0),  # thirty-five seconds between them: the row began anew
    ],
)
def test_after_six_in_a_row_thirty_seconds_of_ordinary_breathing(runs: list[Run], wanted: int, rest: float) -> None:
    assert rest_s(runs, breaths=wanted, at=NOW) == pytest.approx(rest)


def efforts(*seconds_ago: float) -> list[Run]:
    """Longest tries with the mouthpiece alone."""
    return [Run(NOW - timedelta(seconds=ago), 0, 0.0, efforts=1) for ago in seconds_ago]


@pytest.mark.parametrize(
    ("runs", "rest"),
    [
        (efforts(40, 20), 0.0),
        (efforts(40, 20, 5), EFFORT_REST_S - 5),
        (efforts(200, 20, 5), 0.0),  # between the first two there was a rest
        (efforts(140, 90, 70), 0.0),  # rested meanwhile
        ([of_card(parse("4-0-*@60x2"), NOW - timedelta(seconds=10)), *efforts(2)], EFFORT_REST_S - 2),  # filmed or at the bench, it is the same child
        ([run(5, 6), *efforts(40, 20)], 0.0),  # counted breaths are no longest tries
    ],
)
def test_three_longest_tries_in_a_row_and_then_a_minute(runs: list[Run], rest: float) -> None:
    assert rest_s(runs, breaths=0, efforts=1, at=NOW) == pytest.approx(rest)
    assert rest_s(efforts(9, 6, 3), breaths=3, at=NOW) == 0.0, "an ordinary card is no longest try"


def test_a_row_of_counted_breaths_rests_who_wants_to_try_the_mouthpiece_too() -> None:
    assert rest_s([run(5, 6)], breaths=1, efforts=1, at=NOW) == pytest.approx(REST_S - 5)


def test_a_card_longer_than_the_limit_may_begin_a_row_but_not_go_on_with_one() -> None:
    assert rest_s([], breaths=MOST_IN_A_ROW + 2, at=NOW) == 0.0 and rest_s([run(1, 1)], breaths=MOST_IN_A_ROW + 2, at=NOW) == pytest.approx(REST_S - 1)


def test_a_run_lasts_from_its_count_in_to_its_last_beat() -> None:
    assert parse("4-0-4@60x3").lasts_s == pytest.approx(4 + 24) and parse("4-0-*@60x1").lasts_s == pytest.approx(4 + 4 + 64)
