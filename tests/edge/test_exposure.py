"""A camera that sets its exposure anew while it films moves nothing."""

import numpy as np
import pytest

from brevin.edge import film
from brevin.edge.exposure import LET_BE, Exposure, evened
from brevin.edge.observers.trunks import Trunk
from brevin.edge.video import VideoFrame
from tests.edge.test_following import body_film

T_S = np.arange(0, 9, 0.04)
IDENTITY = film.BodyMap(matrix=np.array([[1.0, 0.0, 0.0], [0.0, 1.0, 0.0]]))


def lit(pictures: np.ndarray, light: np.ndarray) -> np.ndarray:
    """The same pictures, each so many times as light."""
    return np.clip(pictures * light[:, None, None], 0, 255).astype(np.uint8)


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
    assert exposure.lighter(last) == pytest.approx(1.0, abs=0.01)
    raised = last.copy()
    raised[:, 200:] = 20  # a dark sleeve before a third of the wall
    assert exposure.lighter(raised) == pytest.approx(1.0, abs=0.01)
    assert evened(last, 1.0 + 0.5 * LET_BE) is last and evened(last, 1.0 + 2.0 * LET_BE).mean() == pytest.approx(last.mean() / (1.0 + 2.0 * LET_BE), abs=0.5)


def test_a_picture_that_went_black_or_burnt_out_is_left_as_it_is() -> None:
    pictures, _, reference = body_film(np.zeros(4), texture=True)
    for grey in (0, 255):
        blank = np.full_like(pictures[0], grey)
        assert Exposure(reference).lighter(blank) == 1.0
    assert Exposure(np.zeros_like(reference)).lighter(pictures[0]) == 1.0
