"""A phone that stands tilted is told by the room's upright edges, and lean and hold stand against those."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest

from brevin.core.hold.levelled import levelled
from brevin.core.kinematics.tilt import ALIKE_DEG, TOLD_FROM_DEG, Tilt, tilt
from brevin.core.measure import Amount, Measure, NotMeasured
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.core.track import Body, Sighting
from tests.core.made import sighting

SIZE_PX = (960.0, 540.0)
PLACES = (60.0, 200.0, 330.0, 620.0, 780.0, 900.0)


def edges(deg: float, *, places: tuple[float, ...] = PLACES, together_deg: float = 0.0, long_px: float = 200.0, at_px: float = 480.0) -> np.ndarray:
    """Edges that lean so far to the right at a column; together_deg: how much less so a picture's width further to the right."""
    lean = np.radians(deg - together_deg * (np.array(places) - at_px) / SIZE_PX[0])
    middle = np.column_stack([places, np.full(len(places), 200.0)])
    half = 0.5 * long_px * np.column_stack([np.sin(lean), -np.cos(lean)])
    return np.concatenate([middle - half, middle + half], axis=1)


@pytest.mark.parametrize("deg", [-9.0, -2.5, 0.0, 4.0])
def test_edges_that_lean_toward_each_other_tell_how_upright_the_player_s_place_is(deg: float) -> None:
    ends = edges(deg, together_deg=8.0, at_px=300.0)
    upside = np.concatenate([ends[::2][:, [2, 3, 0, 1]], ends[1::2]])  # whichever end an edge begins at
    for seen in (ends, upside):
        found = tilt(seen, SIZE_PX, 300.0)
        assert found is not None and found.deg == pytest.approx(deg, abs=0.01) and found.told == (abs(deg) >= TOLD_FROM_DEG)
    beside = tilt(ends[3:], SIZE_PX, 20.0)
    assert beside is not None and found is not None and beside.half_width > 1.5 * found.half_width, "told from far aside it is less sure"


def test_a_thing_that_leans_is_outvoted_and_a_room_that_tells_too_little_tells_nothing() -> None:
    stand = edges(-14.0, places=(500.0, 505.0), long_px=100.0)
    outvoted = tilt(np.concatenate([edges(5.0), stand]), SIZE_PX, 480.0)
    assert outvoted is not None and outvoted.deg == pytest.approx(5.0, abs=0.05)
    crooked = edges(5.0) + np.random.default_rng(3).uniform(-20.0, 20.0, (len(PLACES), 4))
    for few in (np.zeros((0, 4)), edges(5.0)[:2], edges(5.0, long_px=60.0), edges(5.0, places=(200.0, 205.0, 210.0, 212.0), long_px=300.0), crooked):
        assert tilt(few, SIZE_PX, 480.0) is None
    nearly = edges(5.0) + np.random.default_rng(3).normal(0.0, 0.4, (len(PLACES), 4))
    found = tilt(nearly, SIZE_PX, 480.0)
    assert found is not None and found.deg == pytest.approx(5.0, abs=ALIKE_DEG / 2)


def turned(made: Sighting, deg: float, *, room: bool = True) -> Sighting:
    """The same as a phone sees it that stands so far tilted that all leans to the right."""
    turn = np.radians(deg)
    about, into = np.array([480.0, 270.0]), np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])

    def place(at_px: np.ndarray) -> np.ndarray:
        return about + (at_px - about) @ into.T

    def moved(body: Body) -> Body:
        return replace(body, points_px=place(body.points_px))

    assert made.player is not None
    player = replace(made.player, hip_px=tuple(place(np.array(made.player.hip_px))), up=tuple(into @ made.player.up), forward=tuple(into @ made.player.forward))
    poses = tuple(replace(sample, bodies=tuple(moved(body) for body in sample.bodies)) for sample in made.poses)
    upright = np.concatenate([place(edges(0.0)[:, :2]), place(edges(0.0)[:, 2:])], axis=1)
    return replace(made, player=player, poses=poses, uprights_px=upright if room else made.uprights_px)


@pytest.mark.parametrize("view", ["side-right", "side-left"])
def test_who_sits_tall_sits_tall_before_a_phone_that_stands_tilted(view: str) -> None:
    made, _, card = sighting("4-0-4@72x2", view=view, lean_deg=3.0)

    def posture(seen: Sighting) -> tuple[Report, Callable[[str], float]]:
        report = read(seen, Task(Check(card=card)))
        return report, lambda key: getattr(report.posture, key).value

    (level, straight), (tilted, seen), (alone, unknown) = (posture(one) for one in (made, turned(made, 6.0), turned(made, 6.0, room=False)))
    for key, within in (("trunk_inclination_deg", 0.1), ("head_forward_pct", 0.5), ("sag_deg", 0.1)):
        assert seen(key) == pytest.approx(straight(key), abs=within), key
    way = 1.0 if view == "side-right" else -1.0
    assert unknown("trunk_inclination_deg") == pytest.approx(straight("trunk_inclination_deg") + 6.0 * way, abs=0.1), "nobody knows where no room is seen"
    assert [(r.code, r.facts) for r in tilted.reasons if r.code == "camera_tilted"] == [("camera_tilted", {"tilt_deg": 6})]
    assert tilted.player is not None and tilted.player.tilt_deg == pytest.approx(6.0, abs=0.1)
    for one in (level, alone):
        assert "camera_tilted" not in [r.code for r in one.reasons] and one.player is not None and one.player.tilt_deg is None
    assert tilted.posture.trunk_inclination_deg is not None and level.posture.trunk_inclination_deg is not None
    assert tilted.posture.trunk_inclination_deg.uncertainty > level.posture.trunk_inclination_deg.uncertainty, "it is as sure as both together"
    assert [breath.pattern for breath in tilted.breaths] == [breath.pattern for breath in level.breaths]


def test_from_the_front_what_hangs_to_the_right_of_the_picture_is_set_straight() -> None:
    told = [Measure(key, Amount(1.0, 2.0)) for key in ("shoulder_tilt_deg", "head_tilt_deg", "instrument_axis_deg", "axis_to_trunk_deg")]
    unseen = Measure("trunk_inclination_deg", NotMeasured("view_unserved"))
    found = {one.key: one for one in levelled([*told, unseen], Tilt(5.0, 0.5), -1.0)}
    for key in ("shoulder_tilt_deg", "head_tilt_deg", "instrument_axis_deg"):
        assert found[key].amount == Amount(pytest.approx(6.0), pytest.approx(np.hypot(2.0, 0.5))), key
    assert found["axis_to_trunk_deg"] == told[-1] and found["trunk_inclination_deg"] == unseen
    assert levelled(told, Tilt(TOLD_FROM_DEG - 0.1, 0.5), -1.0) == told == levelled(told, None, -1.0), "a level phone's angles are the picture's"
