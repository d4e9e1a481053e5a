"""How high up the belly moves: told by its own outline, never farther off than bodies differ, and said how sure."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics.belly import LEAST_PLACES, TRIED_PCT, USUAL, belly_height
from brevin.core.kinematics.profile import abdomen_share
from brevin.core.kinematics.regions import MODEL_ERROR_OUTLINE, NEIGHBOURS_ALIKE
from brevin.core.kinematics.traces import traces
from tests.core.made import gain, sighting

T_S = np.arange(0.0, 20.0, 0.04)
BREATHS = 3.0 * np.sin(2.0 * np.pi * T_S / 5.0)
ALL = np.arange(9.0, 46.0, 3.0)


def found(heights: np.ndarray, higher: float, *, noise: float = 0.02, still: tuple[int, ...] = (), seed: int = 1):
    moves = BREATHS[:, None] * abdomen_share(heights - higher) + noise * np.random.default_rng(seed).normal(size=(len(T_S), len(heights)))
    moves[:, list(still)] = 0.3 * BREATHS[:, None]
    return belly_height(heights, moves, BREATHS, alike_in=NEIGHBOURS_ALIKE)


@pytest.mark.parametrize("higher", [-4.0, -2.0, 0.0, 2.0, 4.0])
def test_a_belly_that_shows_from_end_to_end_tells_most_of_its_height(higher: float) -> None:
    one = found(ALL, higher)
    assert 0.6 * abs(higher) - 0.1 <= one.higher_pct * np.sign(higher or 1.0) <= abs(higher) + 0.1 and one.size_off < 0.02


def test_half_a_belly_tells_less_and_says_so() -> None:
    half = found(ALL[ALL > 30.0], -4.0)
    assert -4.0 < half.higher_pct < -0.5 and half.size_off > 3.0 * found(ALL, -4.0).size_off


def test_an_arm_before_some_of_it_moves_it_by_little() -> None:
    assert found(ALL, 2.0, still=(10, 11)).higher_pct == pytest.approx(found(ALL, 2.0).higher_pct, abs=1.5)


def test_too_few_places_and_places_that_go_their_own_way_say_nothing() -> None:
    assert found(ALL[: LEAST_PLACES - 1], 4.0) == USUAL
    own_ways = np.random.default_rng(2).normal(size=(len(T_S), len(ALL)))
    assert belly_height(ALL, own_ways, BREATHS, alike_in=NEIGHBOURS_ALIKE) == USUAL
    assert belly_height(ALL, np.zeros_like(own_ways), np.zeros(len(T_S)), alike_in=NEIGHBOURS_ALIKE) == USUAL


@given(st.floats(-30.0, 30.0), st.integers(0, 100))
def test_it_is_never_farther_off_than_was_tried(higher: float, seed: int) -> None:
    one = found(ALL, higher, noise=0.2, seed=seed)
    assert abs(one.higher_pct) <= TRIED_PCT[-1] and 0.0 <= one.size_off < 1.0


@pytest.mark.parametrize("higher", [-4.0, 4.0])
def test_a_seated_player_s_upper_half_of_a_belly_is_nearer_to_its_size_than_by_the_profile_alone(higher: float) -> None:
    made, planted, _ = sighting()
    heights = made.front.up_pct + higher
    front = replace(made.front, up_pct=heights, misfit=np.where(heights[None] < 24.0, 0.9, made.front.misfit))  # a thigh before the rest
    read = traces(replace(made, front=front))
    shown = heights[(heights > 24.0) & (heights < 45.0)]
    as_assumed = float(np.average(abdomen_share(shown - higher) / abdomen_share(shown), weights=abdomen_share(shown) ** 2))
    size = gain(read.abdomen, planted.abdomen, read.t_s, planted.t_s)
    assert abs(size - 1.0) < 0.8 * abs(as_assumed - 1.0) and read.model["abdomen"] > MODEL_ERROR_OUTLINE
