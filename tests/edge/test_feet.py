"""The observer of feet: a drawn shoe that goes up is found as high as it was drawn, one that is not seen is nowhere."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import cv2
import numpy as np
import pytest

from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.edge import loop
from brevin.edge.observers.feet import Feet, _Patch
from brevin.edge.observers.people import FIRST_POSES_S, People
from tests.core.made import TRUNK_PX, body
from tests.edge.test_observers import Frame, Network

RATE_HZ = 10
SHOE = (90, 30)  # px, width and height
LEFT, RIGHT = (300, 430), (480, 430)  # heels
UP_PCT = 100.0 * 12 / TRUNK_PX


def shoe(luma: np.ndarray, heel: tuple[int, int], toes_up_px: float) -> None:
    """A dark shoe with a lighter band, its heel on the floor."""
    x, y = heel
    along = np.array([[x - 10, y + 4], [x + SHOE[0], y + 4 - toes_up_px], [x + SHOE[0] - 8, y - SHOE[1] + 8 - toes_up_px], [x - 6, y - SHOE[1]]])
    cv2.fillPoly(luma, [along.astype(np.int32)], 60)
    cv2.line(luma, (x, y - 12), (x + SHOE[0] - 14, int(y - 9 - toes_up_px)), 130, 4)


def frames(ups_px: list[float]) -> list[Frame]:
    made = []
    for number, up_px in enumerate(ups_px):
        luma = np.full((540, 960), 170, np.uint8)
        shoe(luma, LEFT, 0.0)
        shoe(luma, RIGHT, up_px)
        made.append(Frame(t_s=number / RATE_HZ, luma=luma, shrink=1.0, source=None))
    return made


def standing(*, seen: float = 1.0) -> Body:
    one = body()
    places, visibility = one.points_px.copy(), one.visibility.copy()
    for (heel, toe), (x, y) in (((lm.HEEL_L, lm.TOE_L), LEFT), ((lm.HEEL_R, lm.TOE_R), RIGHT)):
        places[heel], places[toe] = (x, y), (x + SHOE[0] - 10, y)
        visibility[[heel, toe]] = seen
    return replace(one, points_px=places, visibility=visibility)


def followed(player: Body, shown: list[Frame]) -> np.ndarray:
    with ThreadPoolExecutor(1) as pool:
        people = People(Network(player), pool, pool, most_players=1)
        feet = Feet(people)
        loop.run(shown, [people, feet])
        people.finish()
    return feet.up_pct(0, len(shown))


def test_toes_that_go_up_are_found_and_heel_and_the_other_foot_lie_still() -> None:
    first = int(FIRST_POSES_S * RATE_HZ)
    ups_px = [0.0] * (first + 3) + [4.0, 8.0, 12.0, 12.0, 6.0, 0.0, 0.0]
    up_pct = followed(standing(), frames(ups_px))
    assert up_pct.shape == (len(ups_px), 2, 2) and np.isnan(up_pct[:first]).all(), "nobody was known yet"
    left, heel, toes = up_pct[first:, 0], up_pct[first:, 1, 0], up_pct[first:, 1, 1]
    assert np.abs(left).max() < 0.2 and np.abs(heel).max() < 0.6
    assert toes == pytest.approx(100.0 * np.array(ups_px[first:]) / TRUNK_PX, abs=0.25 * UP_PCT)


@pytest.mark.parametrize("trunk_px", [60.0, 160.0, 240.0, 330.0])
def test_a_patch_that_goes_up_is_as_high_in_a_picture_of_any_size(trunk_px: float) -> None:
    grain = cv2.GaussianBlur(np.random.default_rng(2).normal(size=(400, 400)), (0, 0), 0.03 * trunk_px)
    texture = np.clip(128.0 + 40.0 * grain / grain.std(), 0, 255).astype(np.uint8)
    patch = _Patch(texture, np.array([200.0, 200.0]), trunk_px)
    for up_px in (0, round(0.03 * trunk_px), round(0.08 * trunk_px)):
        assert patch.up_pct(np.roll(texture, -up_px, axis=0)) == pytest.approx(100.0 * up_px / trunk_px, abs=0.5)
    assert np.isnan(patch.up_pct(np.full_like(texture, 128))), "nothing is there"


def test_feet_that_are_not_seen_or_stand_at_the_picture_s_edge_are_nowhere() -> None:
    shown = frames([0.0] * 25)
    assert np.isnan(followed(standing(seen=0.2), shown)).all()
    low = [replace(frame, luma=np.ascontiguousarray(frame.luma[:440])) for frame in shown]
    assert np.isnan(followed(standing(), low)).all()
