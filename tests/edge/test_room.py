"""The observer of the room: a lens that zooms while it looks for its focus is told from what stands behind the player, and nothing else is."""

from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np
import pytest

from brevin.edge import loop
from brevin.edge.observers.people import FIRST_POSES_S, People
from brevin.edge.observers.room import LEAST, MOST, Room, larger
from brevin.edge.pose_model import Seen
from tests.core.made import body
from tests.edge.test_observers import Frame, Network

RATE_HZ, SIZE_PX = 10, (960, 540)
T_S = np.arange(0.0, 9.0, 1.0 / RATE_HZ)
FOCUS = np.interp(T_S, [3.0, 3.5, 6.0, 6.4], [0.0, 0.01, 0.01, -0.004])


class Before(Network):
    """Somebody in the middle of the picture."""

    def see(self, rgb: np.ndarray, *, with_masks: bool) -> Seen:
        mask = np.zeros(rgb.shape[:2], np.float32)
        mask[100:500, 400:560] = 1.0
        return Seen(self.bodies, (mask,) if with_masks else ())


def wall(*, seed: int = 0, plain: bool = False) -> np.ndarray:
    random = np.random.default_rng(seed)
    luma = np.full(SIZE_PX[::-1], 150, np.uint8)
    for _ in range(0 if plain else 24):
        x, y, size = random.integers([20, 20, 20], [900, 500, 60])
        cv2.rectangle(luma, (int(x), int(y)), (int(x + size), int(y + 0.7 * size)), int(random.integers(40, 240)), -1)
    return luma


def zoomed(luma: np.ndarray, zoom: float, shift_px: tuple[float, float] = (0.0, 0.0)) -> np.ndarray:
    middle = np.array(SIZE_PX) / 2.0
    move = np.array(shift_px) - zoom * middle
    return cv2.warpAffine(luma, np.column_stack([(1.0 + zoom) * np.eye(2), move]), SIZE_PX, borderMode=cv2.BORDER_REPLICATE)


def told(pictures: list[np.ndarray]) -> np.ndarray:
    with ThreadPoolExecutor(1) as pool, ThreadPoolExecutor(1) as beside:
        people = People(Before(body()), pool, beside, most_players=1)
        room = Room(people)
        loop.run([Frame(t_s=float(t_s), luma=luma, shrink=1.0, source=None) for t_s, luma in zip(T_S, pictures, strict=True)], [people, room])
    return room.zoom(len(T_S))


def test_a_lens_that_looks_for_its_focus_is_told_however_the_camera_is_held_and_whoever_moves_before_it() -> None:
    shaken = np.column_stack([np.sin(5.0 * T_S), np.cos(4.0 * T_S)]) * 2.0
    pictures = [zoomed(wall(), zoom, tuple(shift)) for zoom, shift in zip(FOCUS, shaken, strict=True)]
    for number, picture in enumerate(pictures):
        cv2.circle(picture, (480 + 2 * number, 300), 70, 30, -1)  # the player goes aside, and before the room
    found = told(pictures)
    later = T_S > FIRST_POSES_S + 0.5
    assert np.abs(found - FOCUS)[later].max() < 0.004, "while it zooms"
    assert np.abs(found - FOCUS)[later & (np.abs(np.gradient(FOCUS)) == 0.0)].max() < 0.0005


@pytest.mark.parametrize("zoom", [0.0, 0.4 * LEAST, 3.0 * MOST])
def test_a_lens_that_does_not_and_what_is_no_lens_are_not_told(zoom: float) -> None:
    assert not told([zoomed(wall(seed=2), zoom * max(0.0, min(1.0, t_s - 3.0)), (np.sin(t_s), 0.0)) for t_s in T_S]).any()


def test_a_plain_wall_tells_nothing() -> None:
    assert not told([zoomed(wall(plain=True), zoom) for zoom in FOCUS]).any()


def test_points_that_go_their_own_way_have_no_say() -> None:
    random = np.random.default_rng(1)
    at = random.uniform(0.0, 480.0, (20, 2))
    move = 0.01 * (at - 200.0)[None] + random.normal(0.0, 0.03, (5, 20, 2))
    move[:, :5] += np.linspace(0.0, 30.0, 5)[:, None, None]
    zoom, error = larger(at, move, np.ones((5, 20), bool))
    assert zoom == pytest.approx(0.01, abs=0.0005) and (error < 0.0005).all()
    assert np.isfinite(larger(at, move, np.zeros((5, 20), bool))[0]).all(), "where none was found"
