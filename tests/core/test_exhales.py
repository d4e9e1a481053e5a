"""When an exhale begins: two of three that agree are believed, and one that sinks in a held breath is not; and when it ends, where a rest follows."""

import numpy as np
import pytest

from brevin.core.breath.breaths import BreathTurns, breaths
from brevin.core.filters import GRID_HZ, smooth
from brevin.core.kinematics.traces import Traces
from brevin.core.synth import eased

PERIOD_S, FIRST_S, COUNT = 9.0, 3.0, 3
FULL_S, LEAVES_S, EMPTY_S = 2.5, 4.0, 7.5  # after an inhale's start, with a breath that is held between
EASE = 0.2
T_S = np.arange(0.0, FIRST_S + COUNT * PERIOD_S + 2.0, 1.0 / GRID_HZ)


def held(size: float, *, leaves_s: float = LEAVES_S, in_breath: int | None = None) -> np.ndarray:
    """A region over three held breaths, which it leaves earlier in one of them, or in all."""
    out = np.zeros(len(T_S))
    for i in range(COUNT):
        leaves = leaves_s if in_breath in (None, i) else LEAVES_S
        since = T_S - FIRST_S - i * PERIOD_S
        out += eased(since / FULL_S, ease=EASE) - eased((since - leaves) / (EMPTY_S - leaves), ease=EASE)
    return size * smooth(out)


def turns_of(abdomen: np.ndarray, chest: np.ndarray, shoulder: np.ndarray | None) -> list[BreathTurns]:
    still = np.zeros(len(T_S))
    return breaths(
        Traces(
            t_s=T_S, abdomen=abdomen, chest=chest, shoulder=still if shoulder is None else shoulder, width=still, confidence=still + 1.0,
            noise={"abdomen": 0.02, "chest": 0.02, "shoulder": 0.02, "width": 0.0}, model={"abdomen": 0.1, "chest": 0.1, "shoulder": 0.1, "leak": 0.0},
            seen={"abdomen": True, "chest": True, "shoulder": shoulder is not None}, sway_pct=0.0,
        )
    )  # fmt: skip


def left_at(abdomen: np.ndarray, chest: np.ndarray, shoulder: np.ndarray | None) -> list[float]:
    """Seconds after each inhale's start at which the exhale is read to begin."""
    return [one.exhale_start.t_s - FIRST_S - i * PERIOD_S for i, one in enumerate(turns_of(abdomen, chest, shoulder)) if one.exhale_start]


def empty_at(values: np.ndarray) -> list[float]:
    """Seconds after each inhale's start at which the exhale is read to end, of all but the last, after which nothing is known to follow."""
    return [one.exhale_end.t_s - FIRST_S - i * PERIOD_S for i, one in enumerate(turns_of(values, 0.6 * values, None)[:-1]) if one.exhale_end]


def test_an_exhale_that_a_rest_follows_ends_where_the_rest_begins() -> None:
    assert empty_at(held(2.5)) == pytest.approx([EMPTY_S] * (COUNT - 1), abs=0.1)


def test_an_exhale_that_fades_until_the_next_inhale_does_not_end_before() -> None:
    """The last fifth of it goes ever slower, as of one who lets the breath go, and no rest is there."""
    fading = held(2.5)
    for i in range(COUNT):
        since = T_S - FIRST_S - i * PERIOD_S
        fading += (since > LEAVES_S) * (since < PERIOD_S) * 0.6 * np.clip((since - LEAVES_S) / 3.0, 0.0, 1.0) * np.clip((PERIOD_S - since) / 2.0, 0.0, 1.0)
    assert min(empty_at(smooth(fading))) > EMPTY_S + 0.3


@pytest.mark.parametrize("sunk", range(3))
def test_a_region_that_sinks_in_a_held_breath_is_outvoted_by_two_that_agree(sunk: int) -> None:
    regions = [held(1.7), held(3.0), held(0.9)]
    regions[sunk] = held((1.7, 3.0, 0.9)[sunk], leaves_s=FULL_S + 0.1, in_breath=1)
    assert left_at(*regions) == pytest.approx([LEAVES_S] * COUNT, abs=0.15)


def test_of_two_that_contradict_each_other_none_is_outvoted() -> None:
    found = left_at(held(1.7), held(3.0, leaves_s=FULL_S + 0.1, in_breath=1), None)
    assert found[0] == pytest.approx(LEAVES_S, abs=0.15) and found[1] < LEAVES_S - 0.5


def test_three_that_agree_are_read_as_one() -> None:
    assert left_at(held(1.7), held(3.0), held(0.9)) == pytest.approx([LEAVES_S] * COUNT, abs=0.1)
