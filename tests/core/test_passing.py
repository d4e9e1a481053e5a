"""Somebody who walks past behind the player draws the outline along and is gone again: the breath is the same, and less sure there."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.kinematics.passing import BESIDE_S, passings
from brevin.core.kinematics.traces import traces
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.core.track import Sighting, Strips
from tests.core.made import sighting

CARD = "4-0-4@72x3"


def past(made: Sighting, *spans: tuple[float, float], share: float = 1.0) -> Sighting:
    """The same with something behind the outline from when to when: strips go along with it, and look like nothing that was there."""
    assert made.front is not None and made.back is not None and made.points is not None
    random = np.random.default_rng(5)
    inside = np.any([(made.t_s >= start) & (made.t_s <= end) for start, end in spans], axis=0)

    def drawn(strips: Strips) -> Strips:
        some = inside[:, None] & (np.arange(len(strips.up_pct)) < share * len(strips.up_pct))
        away = random.uniform(-3.0, 12.0, strips.travel_pct.shape)
        return replace(strips, travel_pct=np.where(some, away, strips.travel_pct), misfit=np.where(some, 0.8, strips.misfit))

    near = inside[:, None] & (made.points.at_pct[:, 0] > made.points.at_pct[:, 0].mean())
    points = replace(made.points, move_pct=np.where(near[..., None], 40.0, made.points.move_pct), error=np.where(near, 60.0, made.points.error))
    return replace(made, front=drawn(made.front), back=drawn(made.back), points=points)


def reading(seen: Sighting) -> Report:
    _, _, card = sighting(CARD)
    return read(seen, Task(Check(card=card)))


def said(report: Report) -> list[str]:
    return [one.code for one in report.reasons]


def test_who_walks_past_changes_no_breath() -> None:
    made, _, _ = sighting(CARD)
    alone, passed = reading(made), reading(past(made, (6.0, 6.5), (13.2, 13.6)))
    assert len(passed.breaths) == len(alone.breaths) == 3
    for one, other in zip(alone.breaths, passed.breaths, strict=True):
        assert one.pattern == other.pattern
        for key, within in (("inhale_start_s", 0.08), ("exhale_start_s", 0.1), ("abdominal_share", 0.03), ("abdomen_amp", 0.15), ("shoulder_rise", 0.15)):
            assert getattr(other, key) == pytest.approx(getattr(one, key), abs=within), key
    told = [(one.code, one.facts["at_s"], one.from_s) for one in passed.reasons if one.code == "passed_by"]
    assert told == [("passed_by", pytest.approx(6.0 - BESIDE_S, abs=0.06), pytest.approx(6.0 - BESIDE_S, abs=0.05))], "once, where it was first"
    assert "passed_by" not in said(alone) and traces(made).passed == () == traces(made).holes


def test_a_turn_behind_which_somebody_stood_is_as_unsure_as_that_lasted_and_a_long_one_is_not_told() -> None:
    made, _, _ = sighting(CARD)
    first = reading(made).breaths[0]
    assert first.exhale_start_s is not None
    short = reading(past(made, (first.exhale_start_s - 0.25, first.exhale_start_s + 0.25)))
    assert short.breaths[0].uncertainty["pause_beats"] > 1.5 * first.uncertainty["pause_beats"]
    long = reading(past(made, (first.exhale_start_s - 0.8, first.exhale_start_s + 0.8)))
    assert len(long.breaths) == 2 and long.breaths[0].inhale_start_s == pytest.approx(reading(made).breaths[1].inhale_start_s, abs=0.1)
    assert long.readable_for.breath


def test_where_somebody_stands_for_long_the_breath_is_not_read() -> None:
    made, _, _ = sighting(CARD)
    report = reading(past(made, (5.0, 9.0), (12.0, 14.0)))
    assert not report.readable_for.breath and said(report)[0] == "passed_by" and not any(one.pattern != "unclear" for one in report.breaths)


def test_a_fold_or_a_finger_is_nobody_who_passes() -> None:
    made, _, _ = sighting(CARD)
    few = past(made, (6.0, 6.5), share=0.2)
    seen, spans = passings(few)
    assert spans == () and seen is few and "passed_by" not in said(reading(few))
    front = passings(past(made, (6.0, 6.3), (6.5, 6.9)))[1]
    assert len(front) == 1 and front[0] == pytest.approx((6.0 - BESIDE_S, 6.9 + BESIDE_S), abs=0.05), "two so near each other are one"


def test_one_blurred_picture_alone_is_a_coder_that_begins_anew_and_nobody_who_passes() -> None:
    made, _, _ = sighting(CARD)
    at_s = made.t_s[[100, 200, 300]]
    blurred = past(made, *((float(one), float(one)) for one in at_s))
    led, spans = passings(blurred)
    assert led.front is not None and made.front is not None
    assert spans == () and np.abs(led.front.travel_pct - made.front.travel_pct).max() < 1.0, "and it is led over"
    longer = past(made, (float(made.t_s[100]), float(made.t_s[101])))
    assert len(passings(longer)[1]) == 1


@pytest.mark.filterwarnings("error")
def test_a_side_of_which_nothing_is_followed_is_passed_by_nobody() -> None:
    made, _, _ = sighting(CARD)
    seen = past(made, (6.0, 6.5))
    assert seen.back is not None
    blind = replace(seen, back=replace(seen.back, misfit=np.full_like(seen.back.misfit, 0.9)))
    led, spans = passings(blind)
    assert len(spans) == 1 and led.back is not None and np.array_equal(led.back.travel_pct, blind.back.travel_pct)
