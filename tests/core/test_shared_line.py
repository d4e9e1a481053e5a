"""The line that an instrument's edges share: a bell that flares, a hand that covers the middle, and what only looks like it."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.hold.instruments import HELD
from brevin.core.hold.shared_line import Edges, SharedLine, shared_line

HANDS = (0.42, 0.52)  # what they cover of the instrument, trunks from the mouth


def at(deg: float, along: float, beside: float = 0.0, side: float = 1.0) -> np.ndarray:
    """A place so far along an axis that points so far below level, and beside it, + = below; trunks from the mouth."""
    cosine, sine = math.cos(math.radians(deg)), math.sin(math.radians(deg))
    return np.array([side * (along * cosine - beside * sine), along * sine + beside * cosine])


def trumpet(deg: float, side: float = 1.0, below: float = 0.0) -> list[np.ndarray]:
    """Mouth pipe up to the hands, and both sides of a bell past them, each 10 deg off the axis."""
    bell = 0.3 * math.tan(math.radians(10.0))
    return [
        np.stack([at(deg, 0.05, below - 0.015, side), at(deg, HANDS[0], below - 0.015, side)]),
        np.stack([at(deg, 0.10, below + 0.015, side), at(deg, HANDS[0], below + 0.015, side)]),
        np.stack([at(deg, 0.75, below - 0.02, side), at(deg, 1.05, below - 0.02 - bell, side)]),
        np.stack([at(deg, 0.75, below + 0.02, side), at(deg, 1.05, below + 0.02 + bell, side)]),
    ]


def told(edges: list[np.ndarray], *, hands: np.ndarray | None = None, side: float = 1.0, instrument: str = "trumpet") -> SharedLine | None:
    hand = at(12.0, 0.45, side=side) if hands is None else hands
    return shared_line(Edges(np.array(edges).reshape(-1, 2, 2), hand, side), HELD[instrument])


def deg_of(line: SharedLine | None) -> float:
    assert line is not None
    return float(np.degrees(np.arctan2(line.way[1], abs(line.way[0]))))


@given(deg=st.floats(-30, 44), hands_off=st.floats(-0.2, 0.2), side=st.sampled_from([-1.0, 1.0]), below=st.floats(-0.1, 0.14))
def test_a_trumpet_is_found_where_it_points_however_far_the_hand_lies_beside_it(deg: float, hands_off: float, side: float, below: float) -> None:
    line = told(trumpet(deg, side, below), hands=at(deg, 0.45, hands_off, side), side=side)
    assert deg_of(line) == pytest.approx(deg, abs=0.6)
    assert line is not None and line.below == pytest.approx(below, abs=0.02)


@given(deg=st.floats(-20, 40))
def test_one_side_of_a_bell_turns_the_line_by_less_than_it_leans(deg: float) -> None:
    assert deg_of(told(trumpet(deg)[:3])) == pytest.approx(deg, abs=4.0)


def test_a_shelf_past_the_hands_is_one_side_only_however_long() -> None:
    flute = [np.stack([at(12.0, a, off, -1.0), at(12.0, b, off, -1.0)]) for a, b in ((-0.2, 0.15), (0.35, 0.65), (0.9, 1.1)) for off in (-0.02, 0.02)]
    shelf = [np.stack([at(1.5, 0.85, off, -1.0), at(1.5, 1.5, off, -1.0)]) for off in (0.10, 0.14)]
    assert deg_of(told([*flute, *shelf], hands=at(12.0, 0.75, side=-1.0), side=-1.0, instrument="flute")) == pytest.approx(12.0, abs=0.5)
    assert told(shelf, hands=at(12.0, 0.75, side=-1.0), side=-1.0, instrument="flute") is None


def test_a_slide_is_told_by_its_tubes_and_not_by_the_way_from_one_to_the_other() -> None:
    upper = [np.stack([at(14.0, 0.0, off), at(14.0, 0.6, off)]) for off in (-0.015, 0.015)]
    lower = [np.stack([at(14.0, 0.6, off), at(14.0, 1.8, off)]) for off in (0.065, 0.09)]
    assert deg_of(told([*upper, *lower], instrument="trombone")) == pytest.approx(14.0, abs=0.1)


@given(deg=st.floats(-5, 60), turn_deg=st.floats(0, 360))
def test_a_horn_s_leadpipe_ends_where_its_hand_is_and_its_coil_turns_nothing(deg: float, turn_deg: float) -> None:
    pipe = [np.stack([at(deg, 0.03, off), at(deg, 0.45, off)]) for off in (-0.02, 0.02)]
    middle = at(deg, 0.47, 0.26)
    around = np.radians(turn_deg + np.arange(0.0, 360.0, 60.0))
    coil = [middle + 0.26 * np.array([[math.cos(a), math.sin(a)], [math.cos(a + 0.3), math.sin(a + 0.3)]]) for a in around]
    assert deg_of(told([*pipe, *coil], hands=at(deg, 0.5, 0.05), instrument="horn")) == pytest.approx(deg, abs=2.5)
    assert told(pipe, hands=at(deg, 0.5, 0.05)) is None, "of a trumpet it would be a cut-off one"


@pytest.mark.parametrize("edges", [[], trumpet(12.0)[:2], trumpet(12.0)[2:], trumpet(12.0, below=0.3)])
def test_too_little_on_one_side_of_the_hands_or_past_the_mouth_is_none(edges: list[np.ndarray]) -> None:
    assert told(edges) is None


@given(first=st.floats(-85, 85), second=st.floats(-85, 85), off=st.floats(-0.4, 0.4))
def test_edges_that_share_no_line_make_none_up(first: float, second: float, off: float) -> None:
    """Whatever two short edges lie about, a line is told only where one leads along both."""
    pair = [np.stack([at(first, 0.1), at(first, 0.3)]), np.stack([at(0.0, 0.7, off), at(0.0, 0.7, off) + at(second, 0.2)])]
    line = told(pair)
    if line is not None:
        across = np.array([-line.way[1], line.way[0]])
        assert all(abs(float((edge.mean(axis=0) @ across) - pair[0].mean(axis=0) @ across)) < 0.1 for edge in pair)


def test_what_points_where_nobody_holds_it_is_told_so_that_the_instrument_can_be_asked_about() -> None:
    assert deg_of(told(trumpet(56.0), hands=at(56.0, 0.45))) == pytest.approx(56.0, abs=1.0)
    both = [*trumpet(56.0), *trumpet(10.0)]
    assert deg_of(told(both, hands=at(33.0, 0.45))) == pytest.approx(10.0, abs=1.0), "before anything else, what can be held so"
