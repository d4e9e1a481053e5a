"""What is taken out of a clip that is watched again: a trunk that sank is shown as it was at first, and a camera that turns is no trunk that leans."""

from dataclasses import replace

import cv2
import numpy as np
import pytest

from brevin.core.kinematics.sinking import sunk
from brevin.core.track import Body, Floats, PoseSample, Sighting
from brevin.edge.film import BACK_PCT, HEIGHT, PX_PER_PCT, TOP_PCT, WIDTH, BodyMap, body_map, column, row
from brevin.edge.steady import CameraMoves
from brevin.edge.undone import Undone, with_trunk
from tests.core.made import HIP_PX, sighting

PLACES_PCT = np.stack(np.meshgrid(np.arange(WIDTH) / PX_PER_PCT + BACK_PCT, TOP_PCT - np.arange(HEIGHT) / PX_PER_PCT), axis=-1)
SUNK = np.array([np.radians(9.0), 0.03, 0.96])
STILL = BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))


def cloth() -> np.ndarray:
    cloud = cv2.GaussianBlur(np.random.default_rng(4).uniform(0, 255, (HEIGHT, WIDTH)), (0, 0), 5)
    return np.clip(128 + 9 * (cloud - cloud.mean()), 0, 255).astype(np.uint8)


def sunk_picture(upright: np.ndarray) -> np.ndarray:
    """What a camera sees once the trunk has sunk: each place of the picture shows the place of the trunk that has come there, found by going back to it."""
    at = PLACES_PCT.copy()
    for _ in range(30):
        at += PLACES_PCT - sunk(SUNK, at)
    columns, rows = column(at[..., 0]).astype(np.float32), row(at[..., 1]).astype(np.float32)
    return cv2.remap(upright, columns, rows, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)


def test_a_trunk_that_sank_is_shown_as_it_was_at_first() -> None:
    upright = cloth()
    seen = sunk_picture(upright)
    at = Undone(None, np.stack([[0.0, 0.0, 1.0], SUNK])).maps(STILL)
    trunk = (slice(int(row(105.0)), int(row(0.0))), slice(int(column(-25.0)), int(column(35.0))))
    off = np.abs(seen[trunk].astype(int) - upright[trunk]).mean()
    assert np.abs(at(1).apply(seen)[trunk].astype(int) - upright[trunk]).mean() < 0.15 * off, "two looks between pixels blur it a little"
    assert np.abs(at(0).apply(upright).astype(int) - upright).max() <= 1, "one that has not sunk yet is left as it is"


def leaning(made: Sighting, deg: float, *, about_px: tuple[float, float] = HIP_PX, all_of_it: bool = False) -> list[PoseSample]:
    """Key points of a trunk that leans more and more to the picture's right; all_of_it: the whole picture turns."""

    def turned(body: Body, by: float) -> Body:
        cos, sin = np.cos(np.radians(by)), np.sin(np.radians(by))
        off = body.points_px - about_px
        points = about_px + off @ np.array([[cos, sin], [-sin, cos]])
        return replace(body, points_px=np.where((off[:, 1:] < 0) | all_of_it, points, body.points_px))

    ends_s = made.t_s[-1]
    return [replace(one, bodies=tuple(turned(body, deg * one.t_s / ends_s) for body in one.bodies)) for one in made.poses]


def turning(t_s: Floats, deg: float) -> CameraMoves:
    """A camera that turns evenly about the hips, as ``camera_moves`` tells it."""
    return CameraMoves(np.ones(len(t_s)), -np.radians(deg) * t_s / t_s[-1], np.zeros((len(t_s), 2)))


@pytest.mark.parametrize("view", ["side-right", "side-left"])
def test_a_trunk_that_leans_toward_its_front_has_sunk_forward(view: str) -> None:
    made, _, _ = sighting(view=view)
    assert made.player is not None
    ahead = 1.0 if view == "side-right" else -1.0
    found = with_trunk(Undone(None, None), made.player, leaning(made, 10.0 * ahead), made.t_s).trunk
    assert found is not None and np.degrees(found[-1, 0]) == pytest.approx(9.5, abs=0.8)
    back = with_trunk(Undone(None, None), made.player, leaning(made, -10.0 * ahead), made.t_s).trunk
    assert back is not None and found[-1, 0] * back[-1, 0] < 0.0


def test_a_camera_that_turns_is_no_trunk_that_leans() -> None:
    made, _, _ = sighting()
    assert made.player is not None
    whole = leaning(made, 8.0, all_of_it=True)
    camera = turning(made.t_s, 8.0)
    assert with_trunk(Undone(None, None), made.player, whole, made.t_s).trunk is not None, "without a word of the camera it would be taken for one"
    assert with_trunk(Undone(camera, None), made.player, whole, made.t_s).trunk is None
    both = Undone(camera, np.repeat(SUNK[None], len(made.t_s), axis=0)).maps(body_map(made.player))
    blank = np.zeros((540, 960), np.uint8)
    assert both(0).apply(blank).shape == (HEIGHT, WIDTH)


def test_who_lies_or_faces_the_camera_is_not_held_up() -> None:
    for how in ({"view": "front"}, {"position": "lying"}):
        made, _, _ = sighting(**how)
        assert made.player is not None
        assert with_trunk(Undone(None, None), made.player, leaning(made, 10.0), made.t_s).trunk is None
