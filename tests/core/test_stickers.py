"""Stickers on ear, shoulder and hip: when they are believed, and what they make surer."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.evidence import evidence, packed, unpacked
from brevin.core.kinematics.posture import Stance, posture
from brevin.core.kinematics.stickers import APART_PCT, NONE, Worn, rings_px, worn
from brevin.core.measure import Amount, NotMeasured
from brevin.core.plain import to_json
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.read import Task, judge
from brevin.core.track import Body
from brevin.core.verdict.wording import with_sentences
from tests.core.made import TRUNK_PX, body, marked, player, sighting

EAR, SHOULDER, HIP = (lm.STICKERS.index(place) for place in (lm.EAR_R, lm.SHOULDER_R, lm.HIP_R))
LEFT, RIGHT = lm.STICKERS.index(lm.SHOULDER_L), SHOULDER
MOVED_PX = {EAR: (6.0, 0.0), SHOULDER: (0.0, 2.0), HIP: (-3.0, 0.0)}  # of the stickers from the network's points


def seen(moved_px: dict[int, tuple[float, float]] = MOVED_PX, *, looks: int = 10, view: str = "side-right", **kwargs) -> list[tuple[float, Body]]:
    return [(float(t_s), marked(body(view=view), moved_px, **kwargs)) for t_s in range(looks)]


def test_the_key_points_of_both_sides_go_to_the_stickers_that_the_camera_sees() -> None:
    found = worn(seen(), "side-right")
    assert found.places == {"ear", "shoulder", "hip"} and found.at == (EAR, SHOULDER, HIP) and len(found.bodies) == 10
    _, own, moved = found.bodies[0]
    assert lm.hips(moved) == pytest.approx(own.points_px[lm.HIP_R] + MOVED_PX[HIP]), "the far hip lies behind the near one"
    assert worn(seen(), "side-left") == NONE, "they are on the other side"
    assert worn(seen(), "three-quarter") == NONE


@pytest.mark.parametrize(
    ("looked", "why"),
    [
        (seen({SHOULDER: (0.0, 0.0)}), "one alone: a badge"),
        (seen(hues={SHOULDER: 260.0, HIP: 20.0}), "of three colours: no sheet of stickers"),
        (seen(looks=3), "seen too seldom"),
        ([(t_s, replace(one, stickers=None)) for t_s, one in seen()], "nobody looked"),
        ([(t_s, one if t_s % 2 else replace(one, stickers=None)) for t_s, one in seen()], "at half of the looks"),
        ([(t_s, marked(body(), {at: (x + 25.0 * (t_s % 3), y) for at, (x, y) in MOVED_PX.items()})) for t_s, _ in seen()], "they wander over the body"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_what_is_not_worn_is_not_believed(looked: list, why: str) -> None:
    assert worn(looked, "side-right") == NONE, why


def test_the_one_of_another_colour_is_left_out_and_red_goes_round() -> None:
    assert worn(seen(hues={EAR: 20.0}), "side-right").places == {"shoulder", "hip"}
    assert worn(seen(hues={EAR: 352.0, SHOULDER: 358.0, HIP: 6.0}), "side-right").places == {"ear", "shoulder", "hip"}


def test_one_that_both_shoulders_are_near_is_not_two() -> None:
    turned = seen({LEFT: (0.0, 0.0), RIGHT: (0.0, 0.0)}, view="front")
    assert worn(turned, "front").places == {"shoulder"}
    for _, one in turned:
        one.stickers.at_px[RIGHT] = one.stickers.at_px[LEFT]
        one.points_px[lm.SHOULDER_R] = one.points_px[lm.SHOULDER_L]
    assert worn(turned, "front") == NONE, "a line from a place to itself would be level"


def measured(looked: list, view: str, *, stickers: bool = True, **kwargs) -> dict:
    stance = Stance(view, "seated", worn=worn(looked, view) if stickers else NONE, **kwargs)
    return {m.key: m.value for m in posture(looked, player(len(looked), view=view), stance) if m.segment is None}


def test_what_stickers_say_is_taken_with_the_rest_each_by_how_sure_it_is() -> None:
    off_px = {EAR: (0.10 * TRUNK_PX, 0.0), SHOULDER: (0.0, 0.0), HIP: (0.0, 0.0)}
    with_them, without = (measured(seen(off_px), "side-right", stickers=stickers) for stickers in (True, False))
    plain, surer = without["head_forward_pct"], with_them["head_forward_pct"]
    flat = measured(seen(MOVED_PX | {EAR: (0.0, 0.0), SHOULDER: (0.0, 0.0)}), "side-right")["head_forward_pct"]
    share = 4.5**2 / (4.5**2 + APART_PCT**2)
    assert surer.value - flat.value == pytest.approx(share * 10.0, abs=0.5), "of the ten percent that the sticker is further ahead"
    assert surer.half_width < 0.6 * plain.half_width
    assert with_them["shoulder_height_pct"].half_width < 0.4 * without["shoulder_height_pct"].half_width
    assert with_them["trunk_inclination_deg"].half_width < 0.6 * without["trunk_inclination_deg"].half_width


def test_where_the_hip_has_none_the_trunk_leans_as_the_key_points_say() -> None:
    only = seen({EAR: (6.0, 0.0), SHOULDER: (12.0, 0.0)})
    assert measured(only, "side-right")["trunk_inclination_deg"] == measured(only, "side-right", stickers=False)["trunk_inclination_deg"]


@pytest.mark.parametrize(("higher_px", "deg"), [(0.0, 0.0), (20.0, None)])
def test_both_shoulders_make_the_line_from_the_front_where_arms_hide_the_outline(higher_px: float, deg: float | None) -> None:
    looked = [(t_s, replace(one, shape=None)) for t_s, one in seen({LEFT: (0.0, -higher_px), RIGHT: (0.0, 0.0)}, view="front")]
    line = measured(looked, "front")["shoulder_tilt_deg"]
    apart = abs(float(np.diff(looked[0][1].points_px[[lm.SHOULDER_L, lm.SHOULDER_R], 0])[0]))
    assert isinstance(line, Amount) and line.value == pytest.approx(np.degrees(np.arctan2(higher_px, apart)) if deg is None else deg, abs=0.1)
    assert isinstance(measured(looked, "front", stickers=False)["shoulder_tilt_deg"], NotMeasured)


def reported(moved_px: dict[int, tuple[float, float]] | None):
    made, _, card = sighting()
    poses = [replace(one, bodies=tuple(marked(own, moved_px) for own in one.bodies)) for one in made.poses] if moved_px else made.poses
    found = unpacked(packed(evidence(replace(made, poses=tuple(poses)))))
    return judge(found, Task(Check(card=card))).report


def test_a_report_says_where_they_are_worn_draws_rings_about_them_and_the_rows_say_what_they_told() -> None:
    report = reported(MOVED_PX)
    assert report.player is not None and report.player.stickers == ["ear", "hip", "shoulder"]
    rings = [line for one in report.player.outlines for line in one.lines_px if line[0] == line[-1]]
    assert len(rings) == 3 * len({one.t_s for one in report.player.outlines})
    shown = {v["criterion"]: v["why"] for v in with_sentences(to_json(report))["verdicts"]}
    assert "The stickers on shoulder and hip were used." in shown["trunk_inclination"] and "sticker" not in shown["abdomen_leads"]
    without = reported(None)
    assert without.player is not None and without.player.stickers == []
    assert not any("were used" in v["why"] for v in with_sentences(to_json(without))["verdicts"])


def test_a_near_thing_says_that_stickers_make_it_surer() -> None:
    document = to_json(reported(None))
    near = [v | {"state": "watch", "outside": False, "side": "high"} if v["criterion"] == "trunk_inclination" else v for v in document["verdicts"]]
    why = {v["criterion"]: v["why"] for v in with_sentences(document | {"verdicts": near})["verdicts"]}["trunk_inclination"]
    assert why.endswith("of a colour the clothes lack, makes it surer.")


def test_a_ring_goes_round_its_sticker() -> None:
    found = worn(seen(), "side-right")
    rings = rings_px(found)
    assert len(rings) == 30 and np.mean(rings[0][1][:-1], axis=0) == pytest.approx(seen()[0][1].stickers.at_px[EAR])
    assert rings_px(Worn()) == []
