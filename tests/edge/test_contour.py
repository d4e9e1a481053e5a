"""The outline over shoulders and armpits is cut where the colours change, though the network's mask lies over it; elsewhere the mask stays what it is."""

from dataclasses import replace

import cv2
import numpy as np
import pytest

from brevin.core.kinematics.shapes import pits_of, tops_of
from brevin.core.pose import landmarks as lm
from brevin.core.pose.armpits import armpits_of
from brevin.core.pose.shape import shape_of
from brevin.core.track import Body
from brevin.edge.contour import outlined, sharper
from tests.core.made import body
from tests.core.made_arms import drawn, raised

SIZE = (480, 640)  # height, width
SHIRTS = {"plain": ((60, 90, 170), (60, 90, 170)), "striped": ((200, 60, 40), (40, 60, 160))}


def pictured(seen: Body, tilt_deg: float, shirt: str, *, swollen_trunks: float = 0.08) -> tuple[np.ndarray, np.ndarray]:
    """A shirt before a wall, its top sloping by so much, and a mask that lies over it, more at the picture's left: [height, width, 3], [height, width]."""
    down, across = np.mgrid[0 : SIZE[0], 0 : SIZE[1]].astype(float)
    trunk_px, middle = lm.trunk_px(seen), lm.shoulders(seen)
    top = middle[1] - 0.05 * trunk_px - (across - middle[0]) * np.tan(np.radians(tilt_deg))
    wide = np.abs(across - middle[0]) < 0.42 * trunk_px
    own = wide & (down > top) & (down < middle[1] + 1.1 * trunk_px)
    colours = [np.array(one, float) for one in SHIRTS[shirt]]
    stripes = ((down // 7).astype(int) % 2)[..., None]
    noise = np.random.default_rng(3).normal(0.0, 4.0, (*SIZE, 1))
    rgb = np.where(own[..., None], np.where(stripes == 0, colours[0], colours[1]), np.array([150.0, 150.0, 145.0])) + noise
    over = swollen_trunks * trunk_px * np.clip(0.5 - (across - middle[0]) / trunk_px, 0.0, 1.0)
    mask = (wide & (down > top - over) & (down < middle[1] + 1.1 * trunk_px)).astype(np.float32)
    return cv2.GaussianBlur(np.clip(rgb, 0, 255), (0, 0), 0.8).astype(np.uint8), cv2.GaussianBlur(mask, (0, 0), 2.0)


def line_deg(seen: Body, mask: np.ndarray, over: np.ndarray | None = None) -> float:
    tops = tops_of(replace(seen, shape=shape_of(mask, seen, over)))
    assert tops is not None
    return tops.line_deg


@pytest.mark.parametrize("shirt", SHIRTS)
@pytest.mark.parametrize("tilt_deg", [-9.0, 0.0, 9.0])
def test_the_line_over_the_shoulders_is_the_pictures_and_not_the_masks(shirt: str, tilt_deg: float) -> None:
    seen = body(view="front", lean_deg=0.0, at_px=(320.0, 400.0), trunk_px=170.0)
    rgb, mask = pictured(seen, tilt_deg, shirt)
    assert abs(line_deg(seen, mask) - tilt_deg) > 2.0, "the mask alone is off"
    assert line_deg(seen, mask, sharper(mask, rgb, seen)) == pytest.approx(tilt_deg, abs=0.7)
    assert np.array_equal(sharper(mask, rgb, seen), sharper(mask, rgb, seen)), "read twice, it is the same"


def test_away_from_the_shoulders_the_mask_stays_and_from_the_side_all_of_it() -> None:
    seen = body(view="front", lean_deg=0.0, at_px=(320.0, 400.0), trunk_px=170.0)
    rgb, mask = pictured(seen, 5.0, "plain")
    cut = sharper(mask, rgb, seen)
    low = int(lm.shoulders(seen)[1] + 0.35 * 170.0)
    assert np.array_equal(cut[low:], mask[low:]) and not np.array_equal(cut, mask)
    aside = body(view="side-right", lean_deg=0.0, at_px=(320.0, 400.0), trunk_px=170.0)
    assert sharper(mask, rgb, aside) is mask


@pytest.mark.parametrize("at_px", [(5.0, 400.0), (320.0, 170.0), (320.0, 900.0)])
def test_shoulders_at_the_edge_of_the_picture_or_past_it_are_cut_as_far_as_they_are_in_it(at_px: tuple[float, float]) -> None:
    seen = body(view="front", lean_deg=0.0, at_px=at_px, trunk_px=170.0)
    rgb, mask = pictured(seen, 0.0, "plain")
    assert sharper(mask, rgb, seen).shape == mask.shape


def test_a_mask_that_says_nothing_is_left_alone() -> None:
    seen = body(view="front", lean_deg=0.0, at_px=(320.0, 400.0), trunk_px=170.0)
    rgb, _ = pictured(seen, 0.0, "plain")
    for empty in (np.zeros(SIZE, np.float32), np.ones(SIZE, np.float32)):
        assert np.array_equal(sharper(empty, rgb, seen), empty)


@pytest.mark.parametrize("tilt_deg", [-9.0, 0.0, 9.0])
def test_armpits_are_those_of_the_picture_where_the_arms_stand_out(tilt_deg: float) -> None:
    seen = raised(tilt_deg=tilt_deg)
    own = drawn(seen)
    noise = np.random.default_rng(3).normal(0.0, 4.0, (*own.shape, 1))
    rgb = np.clip(np.where(own[..., None] > 0.5, [60.0, 90.0, 170.0], [150.0, 150.0, 145.0]) + noise, 0, 255).astype(np.uint8)
    swollen = np.where(np.arange(own.shape[1]) < own.shape[1] / 2, cv2.dilate(own, np.ones((25, 25))), own).astype(np.float32)
    uncut = replace(shape_of(swollen, seen), pits_pct=armpits_of(swollen, seen))
    assert abs(pits_of(replace(seen, shape=uncut)).line_deg - tilt_deg) > 5.0, "the mask alone is off"
    assert pits_of(replace(seen, shape=outlined(swollen, rgb, seen))).line_deg == pytest.approx(tilt_deg, abs=2.0)
    hanging = raised(falls=(1.6, 0.2), reach=0.3)
    assert outlined(drawn(hanging), rgb, hanging).pits_pct is None
