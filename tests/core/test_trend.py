"""The slow change of a number over a time: a planted line comes back, what shakes is less sure, and a moment is no trend."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.kinematics import trend
from brevin.core.measure import NORMAL_90

TIMES = np.arange(0.0, 24.0, 1.5)


@given(by=st.floats(-30, 30), start=st.floats(-10, 10), least=st.floats(0.1, 3.0))
def test_a_planted_line_comes_back_whole_and_no_surer_than_one_look_can_be(by: float, start: float, least: float) -> None:
    found = trend.change(TIMES, start + by * (TIMES - TIMES[0]) / (TIMES[-1] - TIMES[0]), least)
    assert found.value == pytest.approx(by, abs=1e-6)
    assert found.half_width > NORMAL_90 * least * np.sqrt(2.0 / len(TIMES)), "a line is less sure at its ends than a mean is"


@given(by=st.floats(-10, 10), shakes=st.floats(0.5, 3.0))
def test_what_shakes_about_the_line_is_less_sure_in_proportion(by: float, shakes: float) -> None:
    line = by * TIMES / TIMES[-1]
    wide, twice = (trend.change(TIMES, line + times * shakes * (-1.0) ** np.arange(len(TIMES)), 0.1) for times in (1.0, 2.0))
    assert twice.half_width == pytest.approx(2.0 * wide.half_width, rel=1e-3)


def test_nine_of_ten_intervals_cover_the_truth() -> None:
    random = np.random.default_rng(5)
    found = [(by, trend.change(TIMES, by * TIMES / TIMES[-1] + random.normal(0.0, 1.0, len(TIMES)), 0.2)) for by in random.uniform(-10, 10, 400)]
    covered = np.mean([abs(one.value - by) <= one.half_width for by, one in found])
    assert 0.85 < covered < 0.94


@given(st.floats(0.0, 1000.0))
def test_it_does_not_matter_when_the_clip_began(later_s: float) -> None:
    values = np.sin(TIMES)
    one, other = trend.change(TIMES, values, 0.5), trend.change(TIMES + later_s, values, 0.5)
    assert (other.value, other.half_width) == pytest.approx((one.value, one.half_width), rel=1e-4, abs=1e-6)


@pytest.mark.parametrize(
    ("times", "enough"),
    [((0.0, 3.0, 6.0, 9.0), True), ((0.0, 3.0, 9.0), False), ((0.0, 2.0, 4.0, 6.0, 7.9), False), ((), False), ((5.0,), False), ((1.0, 1.1, 1.2, 9.0), True)],
)
def test_fewer_than_four_looks_or_less_than_eight_seconds_are_no_trend(times: tuple[float, ...], enough: bool) -> None:
    assert trend.enough(np.array(times)) is enough
