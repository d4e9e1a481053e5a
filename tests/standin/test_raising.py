"""The stand-in's raises: where the instrument is at each moment, and what is written down of it. Nothing is drawn here."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.standin.raising import LAP_DEG, LAP_M, STAGES, Stage, stages, truth
from brevin.standin.scripts import SCRIPTS, Script
from brevin.standin.stance import HEAD, stance

SCRIPT_TIMES = np.arange(0.0, 16.0, 0.04)


@pytest.fixture(scope="module")
def script() -> Script:
    """The demo's own script; what draws it is not needed to read it."""
    return next(one for one in SCRIPTS if one.raises)


def test_it_lies_in_the_lap_before_a_raise_is_up_after_it_and_goes_back(script) -> None:
    each, shown = stages(script, SCRIPT_TIMES)
    up = np.array([each[i].up for i in shown])
    first, second = script.raises[0], script.raises[1]
    at = lambda t_s: up[int(round(t_s / 0.04))]  # noqa: E731
    assert at(first - 0.1) == 0.0 and at(first + 1.0) == 1.0 and at(second - 0.1) == 0.0 and at(15.9) == 1.0
    assert len(each) == STAGES * len(script.raises) and np.abs(np.diff(up)).max() <= 2.0 / (STAGES - 1), "no jump between two pictures"


def test_each_raise_lands_where_it_was_planted(script) -> None:
    each, shown = stages(script, SCRIPT_TIMES)
    lands = [each[shown[int(round((from_s + 1.5) / 0.04))]].mouthpiece_m()[2] for from_s in script.raises]
    assert lands == pytest.approx(script.lands_m)
    assert Stage(0.0).mouthpiece_m() == pytest.approx(LAP_M) and Stage(0.0).axis_deg(script) == LAP_DEG and Stage(1.0).axis_deg(script) == script.axis_deg


def test_what_is_not_raised_is_one_stage(script) -> None:
    each, shown = stages(replace(script, raises=()), SCRIPT_TIMES)
    assert each == [Stage(1.0)] and not shown.any()


def test_the_truth_says_how_far_the_head_goes_and_how_far_apart_the_landings_are(script) -> None:
    each, shown = stages(script, SCRIPT_TIMES)
    said = truth(script, each, shown, trunk_mm=440.0)
    assert said["head_travel_pct"] == pytest.approx(100 * script.head_out_m * 1000 / 440, abs=0.01)
    assert said["raise_spread_pct"] == pytest.approx(100 * (max(script.lands_m) - min(script.lands_m)) * 1000 / 440, abs=0.01)
    assert len(said["up"]) == len(SCRIPT_TIMES) and [one[0] for one in said["raises_s"]] == list(script.raises)


def test_a_head_that_goes_to_meet_it_takes_its_features_along_and_leaves_the_shoulders(script) -> None:
    still, out = (stance(script.build, position="seated", lean_deg=3.0, hands={}, elbows_out=(0.5, 0.5), head_out_m=way) for way in (0.0, 0.02))
    for name, place in still.joints.items():
        assert out.joints[name] - place == pytest.approx([0.02, 0.0, 0.0] if name in HEAD else [0.0, 0.0, 0.0]), name
