"""How long a student rests before more counted breathing."""

from datetime import UTC, datetime, timedelta

import pytest

from brevin.core.plan.card import parse
from brevin.core.plan.limits import MOST_IN_A_ROW, REST_S, Run, rest_s

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
    assert rest_s(runs, wanted, at=NOW) == pytest.approx(rest)


def test_a_card_longer_than_the_limit_may_begin_a_row_but_not_go_on_with_one() -> None:
    assert rest_s([], MOST_IN_A_ROW + 2, at=NOW) == 0.0 and rest_s([run(1, 1)], MOST_IN_A_ROW + 2, at=NOW) == pytest.approx(REST_S - 1)


def test_a_run_lasts_from_its_count_in_to_its_last_beat() -> None:
    assert parse("4-0-4@60x3").lasts_s == pytest.approx(4 + 24) and parse("4-0-*@60x1").lasts_s == pytest.approx(4 + 4 + 64)
