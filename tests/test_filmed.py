"""Readings of one clip, sent and filmed, laid over each other wherever in the clip the filming began."""

import pytest

from brevin.bench.filmed import pairs_of

LENGTH_S = 26.0
STARTS_S = (3.7, 10.9, 18.0)


def reading(starts_s: list[float], **clip: float) -> dict:
    return {"clip": clip, "breaths": [{"inhale_start_s": s, "exhale_start_s": s + 2.0, "pattern": "low"} for s in starts_s]}


@pytest.mark.parametrize(("began_s", "last_s"), [(0.0, 26.0), (5.2, 26.0), (5.2, 40.0), (20.1, 45.0)])
def test_every_breath_that_both_hold_is_paired_also_where_the_camera_began_anew(began_s: float, last_s: float) -> None:
    shown = [s + turn * LENGTH_S for turn in (0, 1) for s in STARTS_S]
    filmed = [s - began_s + 0.02 * (-1) ** i for i, s in enumerate(shown) if began_s < s < last_s]
    pairs = pairs_of(reading(list(STARTS_S), duration_s=LENGTH_S), reading(filmed))
    assert [there["inhale_start_s"] for _, there in pairs] == filmed
    apart = [there["inhale_start_s"] - here["inhale_start_s"] for here, there in pairs]
    assert max(apart) - min(apart) == pytest.approx(0.04 if len(apart) > 1 else 0.0, abs=1e-6)


def test_a_breath_too_many_and_one_that_is_cut_are_paired_with_none() -> None:
    filmed = reading([3.7, 7.0, 10.9, 18.0])
    filmed["breaths"].append({"inhale_start_s": None, "exhale_start_s": 25.0, "pattern": "unclear"})
    assert len(pairs_of(reading(list(STARTS_S), duration_s=LENGTH_S), filmed)) == 3
    assert pairs_of(reading([], duration_s=LENGTH_S), filmed) == []
