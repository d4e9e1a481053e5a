"""What of a trace comes again with the breath: an arm that moves beside it is not believed, and a child's own unevenness is."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.breath.around import around_of
from brevin.core.breath.breaths import breaths
from brevin.core.breath.cycles import swings
from brevin.core.breath.starts import LEAD_SLACK_S, as_in_the_others, first_of, starts_of
from brevin.core.breath.trust import clearest, middles_of, repeated, wander
from brevin.core.breath.turns import Turn
from brevin.core.filters import GRID_HZ, gaussian
from brevin.core.kinematics.traces import Traces

PERIOD_S, FIRST_S, COUNT = 6.0, 3.0, 3
T_S = np.arange(0.0, FIRST_S + COUNT * PERIOD_S + 2.0, 1.0 / GRID_HZ)


def breathing(size: float, *, sizes: tuple[float, ...] = (1.0, 1.0, 1.0), late_s: float = 0.0) -> np.ndarray:
    """A region over three breaths: in for 2 s, out for 4."""
    out = np.zeros(len(T_S))
    for i, own in enumerate(sizes):
        since = T_S - FIRST_S - i * PERIOD_S - late_s
        out += own * np.interp(since, [0.0, 2.0, 2.2, 5.8], [0.0, 1.0, 1.0, 0.0])
    return size * out


def arm(size: float) -> np.ndarray:
    """Something beside the breath that moves as it likes."""
    drawn = gaussian(np.random.default_rng(4).normal(size=len(T_S)), 0.8 * GRID_HZ)
    return size * drawn / float(np.abs(drawn).max())


def traces(abdomen: np.ndarray, chest: np.ndarray, shoulder: np.ndarray | None = None) -> Traces:
    still = np.zeros(len(T_S))
    return Traces(
        t_s=T_S, abdomen=abdomen, chest=chest, shoulder=still if shoulder is None else shoulder, width=still, confidence=still + 1.0,
        noise={"abdomen": 0.02, "chest": 0.02, "shoulder": 0.02, "width": 0.0}, model={"abdomen": 0.1, "chest": 0.1, "shoulder": 0.1, "leak": 0.0},
        seen={"abdomen": True, "chest": True, "shoulder": shoulder is not None}, sway_pct=0.0,
    )  # fmt: skip


def middles(values: np.ndarray) -> list[int]:
    return middles_of(values, swings(values, noise=0.02))


def test_a_breath_comes_again_and_an_arm_beside_it_does_not() -> None:
    abdomen = breathing(3.0)
    at = middles(abdomen)
    assert len(at) == COUNT and np.diff(at) / GRID_HZ == pytest.approx(PERIOD_S, abs=0.05)
    assert repeated(abdomen, at) > 0.97 and wander(abdomen, at) == 0.0
    assert repeated(arm(1.0), at) < 0.9 and wander(arm(1.0), at) > 0.08


@settings(deadline=None, max_examples=30)
@given(st.tuples(*[st.floats(0.6, 1.5)] * 3), st.floats(-0.2, 0.2), st.floats(-5.0, 5.0))
def test_a_childs_own_sizes_a_level_and_a_slow_slide_are_no_wander(sizes: tuple[float, ...], slide_pct_s: float, level_pct: float) -> None:
    values = breathing(3.0, sizes=sizes)
    at = middles(breathing(3.0))
    assert wander(values + slide_pct_s * T_S + level_pct, at) < 0.12  # of 3 % that come again


@pytest.mark.parametrize("found", [[], [200]])
def test_one_breath_says_nothing_of_what_comes_again(found: list[int]) -> None:
    assert wander(breathing(3.0), found) is None and repeated(breathing(3.0), found) is None


def test_two_regions_that_both_breathe_are_read_together_though_one_comes_again_more_exactly() -> None:
    chest = 2.0 * sum(np.interp(T_S - FIRST_S - i * PERIOD_S, [1.3, 2.0, 2.2, 4.4], [0.0, 1.0, 1.0, 0.0]) for i in range(COUNT))
    belly = breathing(2.0) + arm(0.12)
    signal = belly + chest
    found, _ = clearest({"abdomen": belly, "chest": chest}, {"abdomen": 1.0, "chest": 1.0}, signal, {"abdomen": 0.02, "chest": 0.02})
    assert found is signal, "the chest alone would begin 1.3 s late"
    starts_s = [one.inhale_start.t_s for one in breaths(traces(belly, chest)) if one.inhale_start]
    assert starts_s == pytest.approx([FIRST_S + i * PERIOD_S for i in range(COUNT)], abs=0.25)


def test_breaths_are_found_on_the_one_region_that_breathes_where_the_other_follows_an_arm() -> None:
    abdomen, chest = breathing(2.0), arm(1.5)
    signal, found = clearest(
        {"abdomen": abdomen, "chest": chest}, {"abdomen": 0.5, "chest": 0.85}, 0.5 * abdomen + 0.85 * chest, {"abdomen": 0.02, "chest": 0.02}
    )
    assert len(found) == COUNT and np.corrcoef(signal, abdomen)[0, 1] > 0.999
    read = breaths(traces(abdomen, chest))
    assert [turn.inhale_start.t_s for turn in read] == pytest.approx([FIRST_S + i * PERIOD_S for i in range(COUNT)], abs=0.25)
    assert [turn.exhale_start.t_s for turn in read] == pytest.approx([FIRST_S + i * PERIOD_S + 2.2 for i in range(COUNT)], abs=0.4)


def test_breaths_of_the_chest_alone_are_not_lost_beside_those_of_the_abdomen() -> None:
    """Two breaths high on purpose, then low ones: neither region has them all."""
    t_s = np.arange(0.0, 32.0, 1.0 / GRID_HZ)

    def those(which: tuple[int, ...]) -> np.ndarray:
        return np.sum([np.interp(t_s - FIRST_S - i * PERIOD_S, [0.0, 2.0, 2.2, 5.8], [0.0, 2.5, 2.5, 0.0]) for i in which], axis=0)

    regions = {"abdomen": those((2, 3)), "chest": those((0, 1))}
    _, found = clearest(regions, {"abdomen": 0.7, "chest": 0.7}, 0.7 * (regions["abdomen"] + regions["chest"]), {"abdomen": 0.02, "chest": 0.02})
    assert len(found) == 4


def test_where_both_breathe_they_are_read_together() -> None:
    abdomen, chest = breathing(2.0), breathing(1.5, late_s=0.6)
    both = 0.8 * abdomen + 0.6 * chest
    signal, found = clearest({"abdomen": abdomen, "chest": chest}, {"abdomen": 0.8, "chest": 0.6}, both, {"abdomen": 0.02, "chest": 0.02})
    assert len(found) == COUNT and signal is both


def test_shoulders_that_sway_beside_the_breath_do_not_move_its_exhale() -> None:
    quiet, swaying = (breaths(traces(breathing(3.0), breathing(1.0), shoulder)) for shoulder in (np.zeros(len(T_S)), arm(1.2)))
    assert [b.exhale_start.t_s for b in swaying] == pytest.approx([b.exhale_start.t_s for b in quiet], abs=0.1)
    assert [b.exhale_end.t_s for b in swaying] == pytest.approx([b.exhale_end.t_s for b in quiet], abs=0.15)


def first_starts(carriers: dict[str, np.ndarray], wander: dict[str, float]) -> dict[str, Turn]:
    """The starts of belly and chest in the first of the breaths."""
    signal = carriers["abdomen"] + carriers["chest"]
    first, second, *_ = swings(signal, noise=0.02)
    regions = {name: carriers[name] for name in ("abdomen", "chest")}
    return starts_of(regions, carriers, around_of(T_S, dict.fromkeys(carriers, 0.02), wander, signal, None, first, second))


@pytest.mark.parametrize(("wander_pct", "begins"), [(0.05, {"abdomen", "chest"}), (0.12, {"abdomen"})])
def test_a_chest_that_rises_little_more_than_it_wanders_begins_no_inhale(wander_pct: float, begins: set[str]) -> None:
    carriers = {"abdomen": breathing(2.5), "chest": breathing(0.9)}
    assert set(first_starts(carriers, {"abdomen": 0.12, "chest": wander_pct})) == begins
    as_far = {"abdomen": breathing(1.2), "chest": breathing(0.9)}
    assert "chest" in first_starts(as_far, {"abdomen": 0.12, "chest": 0.12}), "what goes nearly as far as the belly may"


def test_a_chest_begins_with_shoulders_that_tell_far_more_clearly() -> None:
    carriers = {"abdomen": breathing(0.3), "chest": breathing(2.0, late_s=0.8), "shoulder": breathing(5.0)}
    clear, unclear = (first_starts(carriers, {"abdomen": 0.05, "chest": 0.1, "shoulder": pct})["chest"].t_s for pct in (0.03, 0.3))
    assert clear == pytest.approx(FIRST_S, abs=0.15)
    assert unclear > FIRST_S + 0.45, "shoulders that wander more than the chest does say nothing of it"


def test_a_region_that_fidgets_before_one_breath_does_not_start_it() -> None:
    starts = [{"abdomen": Turn(4.2, 0.1), "chest": Turn(2.2, 0.3)}, {"abdomen": Turn(10.8, 0.1), "chest": Turn(10.9, 0.1)}, {"chest": Turn(17.4, 0.1)}]
    kept = as_in_the_others(starts, [5.3, 11.9, 18.5])
    assert kept[0]["abdomen"] == starts[0]["abdomen"] and kept[1:] == starts[1:]
    assert kept[0]["chest"].t_s == pytest.approx(5.3 - 1.1 - LEAD_SLACK_S) and kept[0]["chest"].half_width_s > 0.3
    assert starts[0]["chest"].t_s == 2.2, "what was read is not changed, only what is made of it"


def test_a_region_that_always_goes_first_goes_first() -> None:
    starts = [{"abdomen": Turn(t + 0.8, 0.1), "chest": Turn(t, 0.1)} for t in (3.0, 9.0, 15.0)]
    assert as_in_the_others(starts, [4.5, 10.5, 16.5]) == starts
    assert [first_of(one).t_s for one in starts] == [3.0, 9.0, 15.0]


def test_of_two_starts_an_unsure_one_does_not_go_before_a_sure_one() -> None:
    assert first_of({"abdomen": Turn(4.0, 0.1), "chest": Turn(3.8, 0.6)}).t_s == 4.0
    assert first_of({"abdomen": Turn(4.0, 0.1), "chest": Turn(3.8, 0.1)}).t_s == 3.8


def test_a_region_that_moves_in_one_breath_alone_starts_none_where_another_moves() -> None:
    starts = [{"abdomen": Turn(3.0, 0.1), "chest": Turn(0.5, 0.1)}, {"abdomen": Turn(9.0, 0.1)}, {"abdomen": Turn(15.0, 0.1)}]
    assert [list(one) for one in as_in_the_others(starts, [4.0, 10.0, 16.0])] == [["abdomen"]] * 3
    alone = [{"chest": Turn(0.5, 0.1)}, *starts[1:]]
    assert as_in_the_others(alone, [1.5, 10.0, 16.0])[0] == alone[0], "what moves at all is all there is"


@pytest.mark.parametrize(("before_s", "whole"), [(0.2, COUNT - 1), (0.6, COUNT)])
def test_a_breath_that_begins_with_the_film_may_have_begun_before_it(before_s: float, whole: int) -> None:
    from_i = int((FIRST_S - before_s) * GRID_HZ)
    seen = traces(breathing(2.0)[from_i:], breathing(1.5)[from_i:])
    found = breaths(replace(seen, t_s=T_S[: len(seen.abdomen)], shoulder=seen.shoulder[: len(seen.abdomen)]))
    assert len(found) == COUNT and sum(one.whole for one in found) == whole and (found[0].inhale_start is None) == (whole < COUNT)
