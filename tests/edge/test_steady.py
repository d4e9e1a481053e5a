from dataclasses import replace

import cv2
import numpy as np
import pytest

from brevin.core.track import Points
from brevin.edge import film, steady
from tests.edge.test_following import body_film, texture_of

STEP_AT = 30


def moved_points(zoom: np.ndarray, shift_pct: np.ndarray, *, wander_pct: float = 0.02, seed: int = 1) -> Points:
    """Points of body and room under a camera that zooms about the hips and shifts: [n] each."""
    random = np.random.default_rng(seed)
    at = random.uniform((-60, -20), (70, 120), (80, 2))
    move = (zoom[:, None, None] - 1) * at[None] + shift_pct[:, None] + random.normal(0, wander_pct, (len(zoom), 80, 2))
    return Points(at_pct=at, move_pct=move, error=np.full((len(zoom), 80), 2.0), on_body=np.arange(80) < 55, unsure_pct=np.zeros((80, 2)))


def step(to: float, n: int = 60) -> np.ndarray:
    return np.where(np.arange(n) >= STEP_AT, to, 0.0)


@pytest.mark.parametrize(("zoom", "shift"), [(0.06, (0.0, 0.0)), (-0.05, (0.0, 0.0)), (0.0, (4.0, -2.5)), (0.03, (-3.0, 1.0))])
def test_a_step_is_found_where_it_was_drawn(zoom: float, shift: tuple[float, float]) -> None:
    found = steady.camera_moves(moved_points(1 + step(zoom), np.column_stack([step(shift[0]), step(shift[1])])))
    assert found is not None and found.stepped
    assert found.zoom[STEP_AT - 3] == 1.0 and found.zoom[STEP_AT + 3] == pytest.approx(1 + zoom, abs=0.003)
    assert found.shift_pct[STEP_AT + 3] == pytest.approx(shift, abs=0.1)
    assert np.flatnonzero(found.zoom != 1.0)[0] == pytest.approx(STEP_AT, abs=1)


def test_a_breath_a_sway_and_a_tremor_are_no_steps() -> None:
    t = np.arange(150) / 25
    breathing = moved_points(1 + 0.02 * np.sin(t), np.column_stack([3 * np.sin(0.9 * t), 0.4 * np.sin(9 * t)]))
    found = steady.camera_moves(breathing)
    assert found is not None and not found.stepped


def test_a_player_who_jerks_before_a_still_room_is_no_camera() -> None:
    made = moved_points(np.ones(60), np.zeros((60, 2)))
    made.move_pct[STEP_AT:, made.on_body] += (5.0, 0.0)
    found = steady.camera_moves(made)
    assert found is not None and not found.stepped


def test_too_few_points_say_nothing() -> None:
    made = moved_points(1 + step(0.06), np.zeros((60, 2)))
    made.error[:, 8:] = 200.0
    assert steady.camera_moves(made) is None


def test_a_zoomed_film_is_turned_back() -> None:
    cloud = cv2.GaussianBlur(np.random.default_rng(4).uniform(0, 255, (film.HEIGHT, film.WIDTH)), (0, 0), 5)
    still = np.clip(128 + 9 * (cloud - cloud.mean()), 0, 255).astype(np.uint8)
    mask = body_film(np.zeros(3))[1]
    origin = (float(film.column(0.0)), float(film.row(0.0)))
    zoom = cv2.getRotationMatrix2D(origin, 0.0, 1.05)
    zoomed = [cv2.warpAffine(still, zoom, (film.WIDTH, film.HEIGHT), borderMode=cv2.BORDER_REPLICATE) for _ in range(30)]
    pictures = np.array([*([still] * 30), *zoomed], np.uint8)
    camera = steady.camera_moves(texture_of(pictures, mask))
    assert camera is not None and camera.facts()["zoom_pct"] == 5
    identity = film.BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))
    back = steady.undone(identity, camera, len(pictures) - 1).apply(pictures[-1])
    inner = (slice(20, -20), slice(20, -20))
    assert np.abs(back[inner].astype(int) - pictures[0][inner]).mean() < 3.0
    assert (steady.undone(identity, camera, 0).apply(pictures[0]) == pictures[0]).all()


def test_two_steps_add_up() -> None:
    zoom = 1 + step(0.04, n=120)
    zoom[80:] += 0.03
    found = steady.camera_moves(moved_points(zoom, np.zeros((120, 2))))
    assert found is not None
    assert [found.zoom[i] for i in (10, 50, 110)] == pytest.approx([1.0, 1.04, 1.07], abs=0.004)


def test_a_camera_that_is_turned_is_turned_back() -> None:
    angle = step(0.03)
    made = moved_points(np.ones(60), np.zeros((60, 2)))
    turned = np.stack([made.at_pct @ np.array([[np.cos(a), np.sin(a)], [-np.sin(a), np.cos(a)]]) - made.at_pct for a in angle])
    made.move_pct[:] += turned
    found = steady.camera_moves(made)
    assert found is not None and found.stepped and found.rotation[-1] == pytest.approx(0.03, abs=0.002) and found.zoom[-1] == pytest.approx(1.0, abs=0.002)
    assert found.facts() == {"zoom_pct": 0, "rotation_deg": 1.7, "shift_pct": 0}


def test_a_step_that_most_points_lost_is_found_by_those_that_are_left() -> None:
    made = moved_points(1 + step(0.05), np.zeros((60, 2)))
    made.error[STEP_AT:, ~made.on_body] = 255.0
    found = steady.camera_moves(made)
    assert found is not None and found.zoom[-1] == pytest.approx(1.05, abs=0.004)


def test_who_walks_past_moves_no_room_and_a_bump_does() -> None:
    points = moved_points(np.ones(60), np.column_stack([step(9.0), np.zeros(60)]))
    hidden = np.zeros((60, 80), bool)
    hidden[20:28, 55:75] = True  # twenty of twenty-five points of the room, for eight pictures
    seen = replace(points, move_pct=np.where(hidden[..., None], 45.0, points.move_pct), error=np.where(hidden, 50.0, points.error))
    assert steady.room_pct(points)[STEP_AT + 3] == pytest.approx((9.0, 0.0), abs=0.1), "the camera was bumped, and all is found again"
    assert np.abs(steady.room_pct(seen) - steady.room_pct(points)).max() < 0.1
    some = replace(points, error=np.where(hidden & (np.arange(80) < 60), 50.0, points.error))
    assert np.abs(steady.room_pct(some) - steady.room_pct(points)).max() < 0.1, "the others still tell"
    assert not steady.room_pct(replace(points, on_body=np.ones(80, bool))).any()
    assert not steady.room_pct(points, elsewhere=True).any(), "the whole room says otherwise"
    little = replace(points, move_pct=0.05 * points.move_pct)
    assert np.array_equal(steady.room_pct(little, elsewhere=True), steady.room_pct(little)) and little.move_pct.any()
