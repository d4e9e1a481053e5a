"""What the camera itself did is known of each place of the body, and is nobody's sway."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from tests.core.made import TRUNK_PX, picture, sighting


def test_a_place_goes_with_zoom_turn_and_shift_about_the_hips() -> None:
    plain = replace(picture(2), room_pct=np.array([[0.0, 0.0], [0.2, -0.1]]))
    moved = replace(plain, camera=np.array([[0.0, 0.0, 0.0, 0.0], [0.02, 0.01, 1.5, -0.5]]))
    assert moved.camera_pct(0.0, 0.0)[1] == pytest.approx([1.7, -0.6]), "what was undone, and what the room shows of it still"
    assert moved.camera_pct(0.0, 100.0)[1] == pytest.approx([1.7 - 1.02, -0.6 + 2.0], abs=0.02)
    assert moved.camera_pct(50.0, 0.0)[1] == pytest.approx([1.7 + 1.0, -0.6 + 0.51], abs=0.02)
    assert replace(plain, camera=np.zeros((0, 4))).camera_pct(20.0, 30.0) == pytest.approx(plain.room_pct), "where nothing was undone"


def test_a_hand_that_holds_the_camera_makes_nobody_sway() -> None:
    made, _, card = sighting("4-0-6@60x3")
    by_pct = 2.5 * np.sin(2.0 * np.pi * 0.4 * made.t_s)
    shaken = []
    for sample in made.poses:
        off_px = np.array([np.interp(sample.t_s, made.t_s, by_pct) * TRUNK_PX / 100.0, 0.0])
        shaken.append(replace(sample, bodies=tuple(replace(body, points_px=body.points_px + off_px) for body in sample.bodies)))
    held = replace(made, poses=tuple(shaken))
    known = replace(held, picture=replace(made.picture, camera=np.column_stack([np.zeros((len(by_pct), 2)), by_pct, np.zeros(len(by_pct))])))
    still, swaying, undone = (read(one, Task(Check(card=card))).posture.sway_pct.value for one in (made, held, known))
    assert swaying > 1.2 and undone == pytest.approx(still, abs=0.15)
