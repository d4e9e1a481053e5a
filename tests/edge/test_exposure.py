"""Light that changes while it is filmed moves nothing: a camera that sets its exposure anew, bands of lamps on the mains, a shade from one side."""

import numpy as np
import pytest

from brevin.edge import film
from brevin.edge.exposure import LET_BE, Exposure, Light
from brevin.edge.observers.trunks import Trunk
from brevin.edge.video import VideoFrame
from tests.edge.test_following import body_film

T_S = np.arange(0, 9, 0.04)
IDENTITY = film.BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))


def lit(pictures: np.ndarray, light: np.ndarray) -> np.ndarray:
    """The same pictures, each so many times as light. light: [n], or [n, HEIGHT, WIDTH] place by place."""
    return np.clip(pictures * light.reshape(len(light), *(light.shape[1:] or (1, 1))), 0, 255).astype(np.uint8)


def followed(pictures: np.ndarray, mask: np.ndarray) -> Trunk:
    trunk = Trunk(mask, np.zeros((0, 2, 2)), lambda _: IDENTITY)
    for t_s, picture in zip(T_S, pictures, strict=True):
        trunk.see(VideoFrame(t_s=float(t_s), luma=picture, shrink=1.0, source=None))
    trunk.finish()
    return trunk


@pytest.mark.parametrize("to", [0.7, 1.3])
def test_an_outline_and_a_shirt_that_grow_lighter_or_darker_are_followed_as_before(to: float) -> None:
    travel_px = 4.0 * np.sin(np.pi * np.clip(T_S - 3.0, 0.0, 5.0) / 5.0) ** 2
    pictures, mask, _ = body_film(travel_px, texture=True)
    plain, changed = (followed(seen, mask) for seen in (pictures, lit(pictures, np.interp(T_S, [4.0, 6.0], [1.0, to]))))
    for one, other in ((plain.front.strips(), changed.front.strips()), (plain.back.strips(), changed.back.strips())):
        middle = (one.up_pct > 5) & (one.up_pct < 90)
        assert np.abs(np.median((one.travel_pct - other.travel_pct)[:, middle], axis=1)).max() < 0.06, "percent of trunk"
    points = changed.texture.points()
    lost = np.mean(points.error[T_S > 6.0][:, points.on_body] > 100.0)
    assert lost < 0.05 and np.abs(np.median((points.move_pct - plain.texture.points().move_pct)[:, points.on_body], axis=1)).max() < 0.06
    assert changed.light[-1] == pytest.approx(to * plain.light[-1], rel=0.1), "how light it was is told as it was"


def test_what_moves_before_the_camera_and_a_camera_s_noise_change_no_picture() -> None:
    pictures, _, reference = body_film(np.zeros(4), texture=True)
    exposure, last = Exposure(reference), pictures[3]
    raised = last.copy()
    raised[:, 200:] = 20  # a dark sleeve before a third of the wall
    light = exposure.light(np.stack([last, raised]))
    assert light.even and light.ways[:, 0] == pytest.approx(1.0, abs=0.01)


def test_a_picture_that_hardly_differs_is_left_as_it_is() -> None:
    pictures, _, _ = body_film(np.zeros(2), texture=True)
    even = np.array([1.0 + 0.5 * LET_BE, 1.0 + 2.0 * LET_BE])[:, None] * np.eye(12)[0]
    near, lighter = Light(even).evened(pictures)
    assert (near == pictures[0]).all()
    assert lighter.mean() == pytest.approx(pictures[1].mean() / even[1, 0], abs=0.5)


def test_a_picture_that_went_black_or_burnt_out_is_left_as_it_is() -> None:
    pictures, _, reference = body_film(np.zeros(4), texture=True)
    for grey in (0, 255):
        blank = np.full_like(pictures[0], grey)
        assert Exposure(reference).light(blank[None]).ways[0].tolist() == [1.0, *[0.0] * 11]
    assert Exposure(np.zeros_like(reference)).light(pictures[:1]).even


ROWS, COLUMNS = np.arange(film.HEIGHT)[:, None] / film.HEIGHT, np.arange(film.WIDTH) / film.WIDTH


def bands(of: float, share: float, along: np.ndarray = ROWS) -> np.ndarray:
    """Bands of lamps on the mains that roll through the pictures: so many over the film, so much lighter and darker, once in 4 s."""
    rolled = of * along[None] - T_S[:, None, None] / 4.0
    return np.broadcast_to(1.0 + share * np.sin(2.0 * np.pi * rolled), (len(T_S), film.HEIGHT, film.WIDTH))


def shade(share: float) -> np.ndarray:
    """A shade that comes from one side and goes again."""
    comes = np.clip(np.minimum(T_S - 4.0, 7.0 - T_S), 0.0, 1.0)[:, None, None]
    return np.broadcast_to(1.0 - share * comes * COLUMNS, (len(T_S), film.HEIGHT, film.WIDTH))


@pytest.mark.parametrize(
    "light", [bands(0.8, 0.06), bands(1.3, 0.1), shade(0.25)], ids=["a lamp's bands", "more of them, and stronger", "a shade from one side"]
)
def test_light_that_differs_from_place_to_place_moves_nothing(light: np.ndarray) -> None:
    travel_px = 4.0 * np.sin(np.pi * np.clip(T_S - 3.0, 0.0, 5.0) / 5.0) ** 2
    pictures, mask, _ = body_film(travel_px, texture=True)
    plain, changed = (followed(seen, mask) for seen in (pictures, lit(pictures, light)))
    middle = (plain.front.strips().up_pct > 5) & (plain.front.strips().up_pct < 90)
    for one, other in ((plain.front, changed.front), (plain.back, changed.back)):
        assert np.abs((one.strips().travel_pct - other.strips().travel_pct)[:, middle]).mean() < 0.08, "percent of trunk"
    points, as_before = changed.texture.points(), plain.texture.points()
    assert np.mean(points.error[:, points.on_body] > 100.0) < 0.05
    usual, before = (np.median(one.move_pct[:, one.on_body], axis=1) for one in (points, as_before))
    assert np.abs(usual - before).max() < 0.1


def test_bands_run_along_who_lies_and_are_told_there_too() -> None:
    pictures, _, reference = body_film(np.zeros(4), texture=True)
    along = bands(1.0, 0.08, COLUMNS)[:4]
    told = Exposure(reference, across=True).light(lit(pictures, along))
    found = told.at(np.full((1, 1), 150.0), np.arange(film.WIDTH))
    assert not told.even and np.abs(found - along[:, 150]).mean() < 0.01
