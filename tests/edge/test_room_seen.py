"""Upright edges of the room are found in the picture, and those of the player are not among them; the live view looks at them as well."""

import cv2
import numpy as np
import pytest

from brevin.core.kinematics.tilt import tilt
from brevin.edge.live import Now
from brevin.edge.room_seen import outside, uprights
from tests.core.made import body
from tests.edge.test_observers import Network

SIZE_PX = (960, 540)
SOMEBODY = body()


def room(deg: float, *, noise: float = 2.0) -> np.ndarray:
    """A wall with two boards, a door and a shelf, all leaning so far to the right, and a striped shirt that stands straight."""
    luma = np.full(SIZE_PX[::-1], 190, np.uint8)
    for left, top, wide, tall, grey in ((40, 60, 150, 260, 90), (250, 90, 60, 320, 130), (640, 40, 110, 380, 70), (820, 120, 90, 200, 220)):
        cv2.rectangle(luma, (left, top), (left + wide, top + tall), grey, -1)
    luma = cv2.warpAffine(luma, cv2.getRotationMatrix2D((480, 270), -deg, 1.0), SIZE_PX, borderMode=cv2.BORDER_REPLICATE)
    luma[150:330, 440:520:8] = 40
    grain = np.random.default_rng(1).normal(0.0, noise, luma.shape)
    return np.clip(luma + grain, 0, 255).astype(np.uint8)


@pytest.mark.parametrize("deg", [0.0, 5.0, -8.0])
def test_the_tilt_of_a_room_is_told_from_its_picture(deg: float) -> None:
    edges = uprights(room(deg), (SOMEBODY,))
    found = tilt(edges, SIZE_PX, 480.0)
    assert found is not None and found.deg == pytest.approx(deg, abs=0.3)
    free = outside(room(deg), (SOMEBODY,))
    assert free[270, 480] == 0 and all(free[int(y), int(x)] for x, y in np.concatenate([edges[:, :2], edges[:, 2:]])), "none of the player's own"
    assert len(uprights(room(deg), ())) > len(edges)


def test_a_plain_wall_has_none() -> None:
    plain = np.full(SIZE_PX[::-1], 150, np.uint8)
    assert uprights(plain, ()).shape == uprights(plain[:1], ()).shape == (0, 4)


def test_before_filming_it_is_said_from_the_same_edges() -> None:
    colour = [np.repeat(room(deg)[::2, ::2, None], 3, axis=2) for deg in (5.0, 0.0)]
    now = Now(Network(body(at_px=(240.0, 160.0), trunk_px=80.0)))
    now.see(colour[0], 0.0)
    seen = now.stretch().tilt
    assert seen is not None and seen.told and seen.deg == pytest.approx(5.0, abs=0.5)
    now.see(colour[1], 0.4)
    assert now.stretch().tilt == seen, "it is not looked for in every picture"
    now.see(colour[1], 1.4)
    straight = now.stretch().tilt
    assert straight is not None and not straight.told, "the phone was set straight"
