"""Where on the trunk was looked: the places stand where they were followed, and a region is followed where one of its places was believed."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.evidence import evidence
from brevin.core.kinds import Instrument
from brevin.core.plan.check import Check
from brevin.core.pose import landmarks as lm
from brevin.core.read import Task, judge, read
from brevin.core.report import PlayerSeen, Report
from brevin.core.verdict.rules import CriterionKey, Layer, resolve
from tests.core.made import sighting
from tests.sightings import CHECKS, saved, seen_of


def report_of(**how) -> Report:
    made, _, card = sighting(**how)
    return read(made, Task(Check(card=card)))


def in_body(seen: PlayerSeen, trunk_px: float, region: str) -> np.ndarray:
    """The places back from the clip's pixels: forward and up, percent of trunk."""
    away = np.array([[place.x_px, place.y_px] for place in seen.looked[region]]) - seen.hip_px
    return 100 * away @ np.array([seen.forward, seen.up]).T / trunk_px


@pytest.mark.parametrize("name", [name for name in CHECKS if not name.startswith("front")])
def test_places_on_the_edge_stand_where_its_strips_were(name: str) -> None:
    whole = saved(name)
    assert whole.front is not None
    report = judge(seen_of(name), Task(CHECKS[name])).report
    assert report.player is not None and report.scale is not None and report.scale.trunk_px is not None
    strips = np.column_stack([whole.front.edge_pct, whole.front.up_pct])
    found = 0
    for region in ("abdomen", "chest"):
        places, at = report.player.looked[region], in_body(report.player, report.scale.trunk_px, region)
        for place, (forward, up) in zip(places, at, strict=True):
            if place.outline:
                found += 1
                assert np.hypot(*(strips - (forward, up)).T).min() < 0.2, (region, forward, up)
    assert found > 2


@pytest.mark.parametrize("name", CHECKS)
def test_a_region_is_followed_where_a_place_of_it_is_believed(name: str) -> None:
    report = judge(seen_of(name), Task(CHECKS[name])).report
    assert report.player is not None
    for region, places in report.player.looked.items():
        assert any(place.believed for place in places) == bool(getattr(report.trace, region)), region


def test_abdomen_lies_below_the_chest_and_shoulders_above_both() -> None:
    seen = report_of().player
    assert seen is not None
    middle = {region: float(np.median([place.y_px for place in places if place.believed])) for region, places in seen.looked.items()}
    assert middle["abdomen"] > middle["chest"] > middle["shoulder"], "y goes down"


def test_from_the_front_only_the_shoulders_are_looked_for() -> None:
    seen = report_of(view="front").player
    assert seen is not None and set(seen.looked) == {"shoulder"}


def test_a_place_that_goes_its_own_way_is_set_aside() -> None:
    made, _, card = sighting()
    assert made.front is not None
    travel = made.front.travel_pct.copy()
    odd = int(np.argmin(np.abs(made.front.up_pct - 26.0)))
    travel[:, odd] = 1.5 * np.sin(2 * np.pi * 0.9 * made.t_s)  # a sleeve that swings
    seen = read(replace(made, front=replace(made.front, travel_pct=travel)), Task(Check(card=card))).player
    assert seen is not None
    aside = [place for place in seen.looked["abdomen"] if not place.believed]
    up = [float((np.array([p.x_px, p.y_px]) - seen.hip_px) @ seen.up) for p in aside]
    assert made.player is not None
    assert any(100 * one / made.player.trunk_px == pytest.approx(made.front.up_pct[odd], abs=0.5) for one in up)


def test_shoulders_of_whom_they_are_not_measured_are_not_drawn() -> None:
    made, _, card = sighting()
    rules = resolve([Layer(name="student", exempt=frozenset({"shoulders_still"}))])
    seen = judge(evidence(made), Task(Check(card=card)), rules).report.player
    assert seen is not None and set(seen.looked) == {"abdomen", "chest"}


@pytest.mark.parametrize(("name", "instrument", "arms"), [("standing-full-early", "trumpet", 1), ("front-flute-sags", "flute", 2)])
def test_a_still_is_drawn_with_the_trunk_and_the_arms_that_the_camera_sees(name: str, instrument: Instrument, arms: int) -> None:
    whole = saved(name)
    report = judge(seen_of(name), Task(replace(CHECKS[name], instrument=instrument, with_instrument=True))).report
    assert report.hold is not None and report.hold.hands is not None and report.stills_s == tuple(one.t_s for one in report.hold.hands.stills)
    for still in report.hold.hands.stills:
        trunk, *seen = still.lines_px
        places = 4 if instrument == "flute" else 3  # whose hands have fingers: to the knuckles
        assert len(trunk) == 2 and [len(arm) for arm in seen] == [places] * arms and trunk[0][1] > trunk[1][1], "from the hips up"
        body = next(sample.bodies[i] for sample, i in zip(whole.poses, whole.player.chosen, strict=True) if sample.t_s == still.t_s)
        wrists = body.points_px[[lm.WRIST_L, lm.WRIST_R]]
        assert all(np.abs(wrists - arm[2]).sum(axis=1).min() < 0.1 for arm in seen), "from the shoulder over the wrist"
    near = report.hold.hands.stills[0].lines_px[1][0]
    if arms == 1:
        shoulder = lm.SHOULDER_L if report.view == "side-left" else lm.SHOULDER_R
        assert np.allclose(near, body.points_px[shoulder], atol=0.1), "the arm that is nearer to the camera"


def test_the_face_s_line_and_the_hands_are_drawn_where_they_are_measured_and_not_for_who_is_exempt() -> None:
    check = replace(CHECKS["front-flute-sags"], instrument="flute", with_instrument=True)
    found = seen_of("front-flute-sags")

    def drawn(check: Check, *exempt: CriterionKey) -> list[list[list[list[float]]]]:
        player = judge(found, Task(check), resolve([Layer(name="student", exempt=frozenset(exempt))])).report.player
        assert player is not None
        return [one.lines_px for one in player.outlines]

    face, *hands = drawn(check)[0]
    (x, y), (chin_x, chin_y) = face
    assert y < chin_y and x < chin_x, "from the forehead down, tilted to the player's right, the picture's left"
    assert [len(hand) for hand in hands] == [3, 3] and all(elbow[1] > knuckles[1] for elbow, _, knuckles in hands), "from the elbow up to the knuckles"
    assert {len(lines) for lines in drawn(check, "wrist_left", "head_with_flute")} == {1}, "the right hand alone"
    assert drawn(check, "wrist_left", "wrist_right", "head_with_flute") == []
    one_handed = judge(found, Task(check), resolve([Layer(name="student", exempt=frozenset({"wrist_left"}))])).report.hold
    assert one_handed is not None and one_handed.wrist_deg is not None and one_handed.finger_curl_deg is not None
    assert [bool(of[side]) for of in (one_handed.wrist_deg, one_handed.finger_curl_deg) for side in ("left", "right")] == [False, True] * 2, "nor fingers"
    without = drawn(CHECKS["front-flute-sags"])
    assert without and {len(line) for lines in without for line in lines} == {2}, "no hands where nothing is held in them"
