import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.breath.shape import Course, exhale_shape, stops
from brevin.core.plan.card import parse
from brevin.core.synth import Cycle, eased, fallen, signals


@given(st.floats(0.01, 0.33))
def test_an_eased_movement_is_monotone_from_nothing_to_all(ease: float) -> None:
    x = np.linspace(-0.5, 1.5, 400)
    values = eased(x, ease=ease)
    assert values[0] == 0 and values[-1] == pytest.approx(1) and (np.diff(values) >= -1e-12).all()


@pytest.mark.parametrize("shape", ["even", "collapsing", "kept back"])
def test_a_planted_exhale_is_named_as_it_was_planted(shape: str) -> None:
    x = np.linspace(0, 1, 200)
    gone = fallen(x, shape, ease=0.1)
    assert gone[0] == 0 and gone[-1] == pytest.approx(1)
    assert exhale_shape(Course(5 * x, gone)) == shape


def test_three_stops_are_pulsing() -> None:
    x = np.linspace(0, 1, 400)
    pulses = sum(0.25 * eased((x - 0.25 * k) / 0.12, ease=0.3) for k in range(4))
    assert stops(Course(6 * x, pulses)) >= 3 and exhale_shape(Course(6 * x, pulses)) == "pulsing"


def test_planted_truth_is_what_the_traces_do() -> None:
    t = np.arange(0, 20, 0.01)
    card = parse("4-1-4@60x2")
    made = signals(t, card, [Cycle(3.0, 1.0, 0.5), Cycle(2.0, 2.0, 0.0, late_s=0.3)], first_inhale_s=4.0)
    first, second = made.planted
    assert np.abs(made.abdomen[t < first.inhale_start_s]).max() == 0
    assert made.abdomen[np.searchsorted(t, first.inhale_end_s + 0.1)] == pytest.approx(3.0)
    assert second.inhale_start_s == pytest.approx(4.0 + 9.0 + 0.3)
    assert made.chest[np.searchsorted(t, second.half_s["chest"])] == pytest.approx(1.0, abs=0.05)


def test_an_open_exhale_cannot_be_planted() -> None:
    with pytest.raises(ValueError):
        signals(np.arange(0, 5, 0.04), parse("4-0-*@60x1"), [Cycle(1, 1, 1)], first_inhale_s=1.0)
