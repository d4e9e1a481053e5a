"""A gap between belly, arm and lap: the network's mask fills it, and the trunk's outline is found in it by the colours all the same."""

import cv2
import numpy as np
import pytest

from brevin.core.track import Floats, Strips
from brevin.edge import film
from brevin.edge.gaps import without_gaps
from brevin.edge.strips import Outline

WALL, SHIRT, TROUSERS = (150, 150, 145), (60, 90, 170), (45, 45, 50)
BELLY_PCT, LAP_PCT, ARM_PCT = 17.0, 2.0, (40.0, 50.0)  # how far it comes forward; how high the thighs go; between which heights a forearm is held out
NO_ARMS: Floats = np.zeros((0, 2, 2))
ALONG_THE_ARM: Floats = np.array([[[0.0, 45.0], [45.0, 45.0]]])


def seated(*, striped: bool = False, wall: tuple[int, int, int] = WALL, shirt: tuple[int, int, int] = SHIRT) -> tuple[np.ndarray, np.ndarray]:
    """A seated player with a forearm held out, and a mask that fills what lies between arm, belly and lap: [HEIGHT, WIDTH, 3], [HEIGHT, WIDTH]."""
    down, across = np.mgrid[0 : film.HEIGHT, 0 : film.WIDTH].astype(float)
    up, forward = film.TOP_PCT - down / film.PX_PER_PCT, across / film.PX_PER_PCT + film.BACK_PCT
    trunk = (np.abs(forward) < BELLY_PCT) & (up > -8.0) & (up < 104.0)
    arm = (forward > 0.0) & (forward < 50.0) & (up > ARM_PCT[0]) & (up < ARM_PCT[1])
    lap = (forward > -BELLY_PCT) & (forward < 60.0) & (up < LAP_PCT)
    rgb = np.full((film.HEIGHT, film.WIDTH, 3), wall, float)
    rgb[trunk | arm] = shirt
    if striped:
        rgb[(trunk | arm) & (np.mod(up, 6.0) < 3.0)] = (200, 60, 40)
    rgb[lap] = TROUSERS
    rgb += np.random.default_rng(2).normal(0.0, 3.0, (*rgb.shape[:2], 1))
    gap = (forward > 0.0) & (forward < 50.0) & (up > LAP_PCT) & (up < ARM_PCT[1])
    mask = (trunk | arm | lap | gap).astype(np.float32)
    return cv2.GaussianBlur(np.clip(rgb, 0, 255), (0, 0), 1.0).astype(np.uint8), mask


def strips(rgb: np.ndarray, mask: np.ndarray, cut: np.ndarray | None) -> Strips:
    reference = cv2.cvtColor(rgb, cv2.COLOR_RGB2GRAY)
    one = Outline(mask, reference.astype(float), outward=1, cut=cut)
    one.see(reference[None], np.zeros(1))
    return one.strips()


def on_the_belly(found: Strips) -> list[float]:
    """Heights at which a strip lies on the belly's edge, in the gap."""
    there = (np.abs(found.edge_pct - BELLY_PCT) < 1.0) & (found.up_pct > LAP_PCT) & (found.up_pct < ARM_PCT[0])
    return found.up_pct[there].round().tolist()


@pytest.mark.parametrize("striped", [False, True])
def test_the_belly_s_outline_is_found_in_a_gap_that_the_mask_fills(striped: bool) -> None:
    rgb, mask = seated(striped=striped)
    assert on_the_belly(strips(rgb, mask, None)) == [], "the mask alone has its border in the air"
    before, after = strips(rgb, mask, None), strips(rgb, mask, without_gaps(rgb, mask, ALONG_THE_ARM))
    found = on_the_belly(after)
    assert len(found) >= 7 and min(found) >= 3.0 and max(found) <= 36.0
    assert after.edge_pct[after.up_pct > 55.0] == pytest.approx(before.edge_pct[before.up_pct > 55.0]), "where the mask is right it stays"


def test_a_black_shirt_before_a_white_wall_has_nothing_of_the_wall_s_colour() -> None:
    rgb, mask = seated(wall=(250, 250, 250), shirt=(6, 6, 6))
    assert len(on_the_belly(strips(rgb, mask, without_gaps(rgb, mask, ALONG_THE_ARM)))) >= 7


def test_before_a_trunk_that_an_arm_covers_the_mask_stays_as_it_is() -> None:
    rgb, mask = seated()
    lies_there: Floats = np.array([[[BELLY_PCT, 0.0], [BELLY_PCT, 45.0]]])
    cut = without_gaps(rgb, mask, lies_there)
    assert cut is not None and on_the_belly(strips(rgb, mask, cut)) == []
    cut = without_gaps(rgb, mask, NO_ARMS)
    assert cut is not None and on_the_belly(strips(rgb, mask, cut)) != []


def test_a_shirt_of_the_wall_s_colour_and_a_mask_over_everything_tell_nothing() -> None:
    rgb, mask = seated()
    assert without_gaps(rgb, np.ones_like(mask), NO_ARMS) is None
    blank = np.full_like(rgb, 150)
    assert on_the_belly(strips(blank, mask, without_gaps(blank, mask, NO_ARMS))) == []
