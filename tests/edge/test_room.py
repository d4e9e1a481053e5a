"""The observer of the room: what the camera does is told from what stands behind the player, and nothing else is."""

from concurrent.futures import ThreadPoolExecutor

import cv2
import numpy as np
import pytest

from brevin.core.track import Player
from brevin.edge import loop
from brevin.edge.film import body_map
from brevin.edge.observers import room as room_pictures
from brevin.edge.observers.people import People
from brevin.edge.observers.room import Room
from brevin.edge.pose_model import Seen
from brevin.edge.similar import similarities
from brevin.edge.steady import CameraMoves, undone
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


def moved(luma: np.ndarray, zoom: float, turn_rad: float = 0.0, shift_px: tuple[float, float] = (0.0, 0.0)) -> np.ndarray:
    """The picture as a camera sees it that zooms and turns about its middle, and is shifted."""
    return cv2.warpAffine(luma, camera_map(zoom, turn_rad, shift_px), SIZE_PX, borderMode=cv2.BORDER_REPLICATE)


def camera_map(zoom: float, turn_rad: float, shift_px: tuple[float, float]) -> np.ndarray:
    """Where it shows each place of the room: [2, 3]."""
    middle = np.array(SIZE_PX) / 2.0
    cos, sin = (1.0 + zoom) * np.cos(turn_rad), (1.0 + zoom) * np.sin(turn_rad)
    linear = np.array([[cos, -sin], [sin, cos]])
    return np.column_stack([linear, middle - linear @ middle + shift_px])


def watched(pictures: list[np.ndarray]) -> tuple[Room, Player]:
    with ThreadPoolExecutor(1) as pool, ThreadPoolExecutor(1) as beside:
        people = People(Before(body()), pool, beside, most_players=1)
        room = Room(people)
        loop.run([Frame(t_s=float(t_s), luma=luma, shrink=1.0, source=None) for t_s, luma in zip(T_S, pictures, strict=True)], [people, room])
    return room, people.players[0]


def told(pictures: list[np.ndarray]) -> tuple[CameraMoves | None, Player]:
    room, player = watched(pictures)
    return room.moves(player), player


def fidgeting(picture: np.ndarray, t_s: float, children: int = 7) -> np.ndarray:
    """The picture with so many striped children who sit there and sway, each in his own way."""
    random, shown = np.random.default_rng(3), picture.copy()
    stripes = (120 + 70 * np.sign(np.sin(0.35 * np.arange(220)))).astype(np.uint8)[:, None]
    for number in range(children):
        rate, phase, far = random.uniform([1.5, 0.0, 10.0], [4.0, 6.0, 25.0])
        left = int(120 * number + 60 + far * np.sin(rate * t_s + phase))
        shown[280:500, left : left + 100] = stripes
    return shown


def test_a_room_in_which_others_fidget_is_no_camera_that_moves_and_that_they_do_is_told() -> None:
    room, player = watched([fidgeting(wall(seed=6), t_s) for t_s in T_S])
    assert room.standing() == (True, True) and room.moves(player) is None
    alone, _ = watched([wall(seed=6) for _ in T_S])
    assert alone.standing() == (True, False)
    one, _ = watched([fidgeting(wall(seed=6), t_s, children=1) for t_s in T_S])
    assert one.standing() == (True, False), "a child in a corner is no class"


def test_nothing_that_stands_still_is_seen_before_a_camera_in_a_hand_but_what_is_written_on_its_picture() -> None:
    held = [moved(wall(seed=3), 0.0, shift_px=(9.0 * np.sin(1.3 * t_s), 4.0 * np.sin(2.1 * t_s))) for t_s in T_S]
    assert watched(held)[0].standing() == (False, False)
    logo = cv2.resize(np.random.default_rng(5).integers(100, 190, (2, 4)).astype(np.uint8), (120, 60), interpolation=cv2.INTER_NEAREST)
    for picture in held:
        picture[20:80, 20:140] = logo
    assert not watched(held)[0].standing().still


def test_grain_moves_nothing() -> None:
    random, smeared, pictures = np.random.default_rng(8), np.zeros(SIZE_PX[::-1]), []
    for _ in T_S:
        smeared = 0.55 * smeared + 0.45 * random.normal(0.0, 16.0, smeared.shape)
        pictures.append(np.clip(wall(seed=6) + smeared, 0, 255).astype(np.uint8))
    assert watched(pictures)[0].standing() == (True, False)


def test_a_room_that_is_lost_after_its_first_picture_ends_no_reading() -> None:
    room, player = watched([wall(seed=3), *(wall(plain=True) for _ in T_S[1:])])
    assert not room.standing().still and room.moves(player) is None


def test_of_a_plain_wall_nothing_is_known() -> None:
    assert watched([wall(plain=True) for _ in T_S])[0].standing() == (False, False)


def test_a_lens_that_looks_for_its_focus_is_told_however_the_camera_is_held_and_whoever_moves_before_it() -> None:
    shaken = np.column_stack([np.sin(5.0 * T_S), np.cos(4.0 * T_S)]) * 2.0
    pictures = [moved(wall(), zoom, shift_px=tuple(shift)) for zoom, shift in zip(FOCUS, shaken, strict=True)]
    for number, picture in enumerate(pictures):
        cv2.circle(picture, (480 + 2 * number, 300), 70, 30, -1)  # the player goes aside, and before the room
    found, _ = told(pictures)
    assert found is not None and np.abs(found.zoom - 1.0 - FOCUS).max() < 0.0005


def test_a_lens_that_makes_the_trunk_longer_is_undone_where_a_shift_as_far_is_left_to_back_and_pelvis() -> None:
    found, player = told([moved(wall(seed=4), zoom) for zoom in 0.6 * FOCUS])
    assert found is not None and np.abs(found.zoom - 1.0 - 0.6 * FOCUS).max() < 0.0005
    goes_pct = max(float(np.ptp(room_pictures.moved_pct(found.each, *place), axis=0).max()) for place in room_pictures.PLACES)
    assert goes_pct < room_pictures.LEAST_PCT, "it is the zoom that counts"
    aside_px = 0.01 * goes_pct * player.trunk_px * 0.6 * FOCUS / np.ptp(0.6 * FOCUS)
    assert told([moved(wall(seed=4), 0.0, shift_px=(float(by), 0.0)) for by in aside_px])[0] is None


def test_what_a_hand_does_that_holds_the_camera_is_undone_to_a_fraction_of_a_pixel() -> None:
    turns, aside = 0.012 * np.sin(2.0 * T_S), 9.0 * np.sin(1.3 * T_S)
    pictures = [moved(wall(seed=3), 0.0, turn, (by, -0.5 * by)) for turn, by in zip(turns, aside, strict=True)]
    found, player = told(pictures)
    assert found is not None
    corners = np.array([[20.0, 20.0, 1.0], [270.0, 30.0, 1.0], [150.0, 290.0, 1.0]])  # of the film
    shown = []
    for number, (turn, by) in enumerate(zip(turns, aside, strict=True)):
        camera, seen_at = camera_map(0.0, turn, (by, -0.5 * by)), corners @ undone(body_map(player), found, number).matrix.T
        shown.append((seen_at - camera[:, 2]) @ np.linalg.inv(camera[:, :2]).T)
    assert np.ptp(shown, axis=0).max() < 0.8, "px of the picture, of ways of 9"
    assert np.std(shown, axis=0).max() < 0.2


@pytest.mark.parametrize("by_px", [0.0, 0.15])
def test_a_camera_that_stands_is_left_alone(by_px: float) -> None:
    assert told([moved(wall(seed=2), 0.0, shift_px=(by_px * np.sin(t_s), 0.0)) for t_s in T_S])[0] is None


def test_somebody_who_crosses_draws_no_point_along_and_a_camera_that_stands_is_left_alone() -> None:
    stripes = (110 + 60 * np.sin(0.2 * np.arange(SIZE_PX[1]))).astype(np.uint8)[:, None]
    pictures = [wall(seed=6) for _ in T_S]
    for number, t_s in enumerate(T_S):
        left = int(np.interp(t_s, [2.5, 5.5], [-200.0, SIZE_PX[0]]))
        pictures[number][:, max(left, 0) : max(left + 160, 0)] = stripes
    assert told(pictures)[0] is None
    found, _ = told([moved(picture, zoom) for picture, zoom in zip(pictures, FOCUS, strict=True)])
    still = np.flatnonzero((T_S < 2.5) | (T_S > 6.5))
    assert found is not None and np.abs(found.zoom - 1.0 - FOCUS)[still].max() < 0.001, "and what it does is told behind them"


def test_a_plain_wall_tells_nothing() -> None:
    assert told([moved(wall(plain=True), zoom) for zoom in FOCUS])[0] is None


def test_points_that_go_their_own_way_have_no_say() -> None:
    random = np.random.default_rng(1)
    at = random.uniform(0.0, 480.0, (20, 2))
    planted = np.array([0.01, -0.004, 1.5, -0.7])
    move = planted[0] * at + planted[1] * np.column_stack([-at[:, 1], at[:, 0]]) + planted[2:] + random.normal(0.0, 0.03, (5, 20, 2))
    move[:, :5] += np.linspace(0.0, 30.0, 5)[:, None, None]
    found = similarities(at, move, np.ones((5, 20), bool))
    assert np.abs(found.ways - planted)[:, :2].max() < 0.0005 and np.abs(found.ways - planted)[:, 2:].max() < 0.15
    assert (found.error_px(at.mean(axis=0)) < 0.03).all() and (found.error_px(at.mean(axis=0) + 2000.0) > 0.1).all(), "far from them they say little"
    assert np.isfinite(similarities(at, move, np.zeros((5, 20), bool)).ways).all(), "where none was found"


def test_a_small_poster_far_aside_does_not_make_a_player_jump() -> None:
    bare = np.full(SIZE_PX[::-1], 150, np.uint8)
    random = np.random.default_rng(5)
    bare[10:70, 866:950] = cv2.resize(random.integers(60, 240, (5, 7)).astype(np.uint8), (84, 60), interpolation=cv2.INTER_NEAREST)
    noisy = [np.clip(moved(bare, 0.0, shift_px=(8.0 * np.sin(t_s), 0.0)) + random.normal(0.0, 9.0, bare.shape), 0, 255).astype(np.uint8) for t_s in T_S]
    assert told(noisy)[0] is None


@pytest.mark.parametrize("size_px", [(1280, 720), (720, 1280), (1279, 717), (1000, 562), (960, 540), (481, 270), (320, 180)])
def test_a_place_lies_in_the_small_picture_where_it_lies_in_the_large_one(size_px: tuple[int, int]):
    large = np.zeros(size_px[::-1], np.uint8)
    x, y = int(0.3 * size_px[0]), int(0.7 * size_px[1])
    large[y - 10 : y + 11, x - 10 : x + 11] = 200
    small = room_pictures._small(large)
    smaller = max(max(size_px) / room_pictures.SIDE_PX, 1.0)
    assert max(small.shape) == min(max(size_px), room_pictures.SIDE_PX)
    rows, columns = np.indices(small.shape)
    middle = np.array([(place * small).sum() / small.sum() for place in (columns, rows)]) + 0.5
    assert np.abs(middle * smaller - [x + 0.5, y + 0.5]).max() < 0.002 * max(size_px)
    assert small.sum() * smaller**2 == pytest.approx(large.sum(), rel=0.05)  # nearly as much of each pixel is in it
