"""The bench of what is blurred: its company is where it says, and its figures tell a head that was kept from one that is past knowing."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.bench.blur import BARS, Made, _fine, figures
from brevin.bench.company import COMPANY, Head, _set_in
from brevin.core.read import Task, judge
from tests.sightings import CHECKS, seen_of

NAME = "standing-full-early"
REPORT = judge(seen_of(NAME), Task(CHECKS[NAME])).report
ONE = Made("one", True, [0.1, 0.2], [0.95, 0.9], REPORT, REPORT, 20.0, 6.0)


def held(made: list[Made], blurred_alone: int = 0) -> set[str]:
    found = figures(made, blurred_alone, 40)
    return {key for key, (way, bound) in BARS.items() if (found[key] <= bound if way == "<=" else found[key] >= bound)}


def test_what_was_kept_as_it_should_be_holds_every_bar() -> None:
    assert held([ONE, ONE]) == set(BARS)


@pytest.mark.parametrize(("harm", "bar"), [
    ({"found": False}, "found"), ({"left": [0.1, 0.9]}, "heads_past_knowing"), ({"kept": [0.9, 0.3]}, "players_kept"), ({"took_s": 15.0}, "takes_of_length"),
    ({"again": replace(REPORT, breaths=REPORT.breaths[1:])}, "breaths_found_in_both"),
])  # fmt: skip
def test_each_fault_breaks_its_bar(harm: dict, bar: str) -> None:
    assert set(BARS) - held([replace(ONE, **harm)]) == {bar}


def test_walls_that_are_blurred_for_nothing_break_theirs() -> None:
    assert set(BARS) - held([ONE], blurred_alone=3) == {"nobody_there_but_blurred"}


def test_company_is_set_in_where_it_says_and_cut_at_the_border() -> None:
    room, cut = np.zeros((60, 100, 3), np.uint8), np.full((20, 30, 3), 200, np.uint8)
    seen = _set_in(room, cut, np.array([50, 10]))
    assert seen[20, 65, 0] == 200 and seen[20, 45, 0] == 0 and seen[35, 65, 0] == 0 and not room.any()
    assert _set_in(room, cut, np.array([-15, -10]))[5, 2, 0] == 200 and not _set_in(room, cut, np.array([300, 10])).any()


def test_who_passes_comes_and_goes() -> None:
    passing = next(one for one in COMPANY if one.name == "passing")
    there = [passing.at(t_s) for t_s in np.arange(0.0, 18.0, 0.5)]
    assert any(place is None for place in there) and max(place[0] for place in there if place) > 0.1 > min(place[0] for place in there if place)


def test_a_blurred_head_has_lost_its_detail() -> None:
    head, speckled = Head(0.0, np.array([50.0, 30.0]), 12.0), np.random.default_rng(1).integers(0, 255, (60, 100), np.uint8)
    assert _fine(np.full((60, 100), 128, np.uint8), head) == 0.0 and _fine(speckled, head) > 30.0
