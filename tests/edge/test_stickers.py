"""Round spots of a colour of their own beside ears, shoulders and hips; what only looks like one is none."""

from dataclasses import replace

import cv2
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brevin.core.pose import landmarks as lm
from brevin.edge.live import larger
from brevin.edge.stickers import stickers_of
from tests.core.made import TRUNK_PX, body

GREEN, BLUE, PINK, SKIN, BRASS = (54, 201, 94), (41, 107, 237), (242, 69, 158), (217, 171, 134), (216, 178, 74)
SHIRT, WALL = (96, 92, 100), (200, 196, 188)
RADIUS_PX = 0.028 * TRUNK_PX
EXACT = 4  # bits below a pixel that a disc is drawn to
EAR, SHOULDER, HIP = (lm.STICKERS.index(place) for place in (lm.EAR_R, lm.SHOULDER_R, lm.HIP_R))


def player() -> np.ndarray:
    """A picture of somebody in one colour: [540, 960, 3]."""
    picture = np.full((540, 960, 3), WALL, np.uint8)
    middle = lm.hips(body()) + [0.0, -80.0]
    cv2.ellipse(picture, tuple(int(v) for v in middle), (45, 150), 0.0, 0.0, 360.0, SHIRT, -1)
    return picture


def stuck(picture: np.ndarray, at_px: np.ndarray, colour: tuple[int, int, int] = GREEN, radius_px: float = RADIUS_PX) -> np.ndarray:
    cv2.circle(picture, tuple(round(float(v) * 2**EXACT) for v in at_px), round(radius_px * 2**EXACT), colour, -1, cv2.LINE_AA, EXACT)
    return picture


def noisy(picture: np.ndarray) -> np.ndarray:
    """As a camera has it: with noise, and its colours at half the size."""
    grainy = np.clip(picture + np.random.default_rng(1).normal(0.0, 2.0, picture.shape), 0, 255).astype(np.uint8)
    luma, *chroma = cv2.split(cv2.cvtColor(grainy, cv2.COLOR_RGB2YCrCb))
    half = [cv2.resize(cv2.resize(one, None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA), one.shape[::-1]) for one in chroma]
    return cv2.cvtColor(cv2.merge([luma, *half]), cv2.COLOR_YCrCb2RGB)


@given(st.floats(-0.2, 0.2), st.floats(-0.2, 0.2), st.sampled_from([GREEN, BLUE, PINK]))
def test_one_is_found_to_a_third_of_a_pixel_wherever_it_lies_beside_its_place(right: float, down: float, colour: tuple[int, int, int]) -> None:
    at_px = body().points_px[lm.SHOULDER_R] + TRUNK_PX * np.array([right, down])
    found = stickers_of(noisy(stuck(player(), at_px, colour)), body())
    assert found is not None and found.at_px[SHOULDER] == pytest.approx(at_px, abs=0.35)
    assert np.isnan(found.at_px[HIP]).all() and np.isnan(found.hue_deg[HIP]), "nothing is there"


def test_all_of_one_sheet_have_one_colour_and_each_its_place() -> None:
    picture, own = player(), body()
    for place in (lm.EAR_R, lm.SHOULDER_R, lm.HIP_R):
        stuck(picture, own.points_px[place], BLUE)
    found = stickers_of(noisy(picture), own)
    assert found is not None
    for at, place in ((EAR, lm.EAR_R), (SHOULDER, lm.SHOULDER_R), (HIP, lm.HIP_R)):
        assert found.at_px[at] == pytest.approx(own.points_px[place], abs=0.35)
    assert np.ptp(found.hue_deg[[EAR, SHOULDER, HIP]]) < 6.0


@pytest.mark.parametrize("colour", [SKIN, BRASS, (120, 116, 124), WALL], ids=["skin", "brass", "a button", "a hole"])
def test_what_has_no_sticker_s_colour_is_none(colour: tuple[int, int, int]) -> None:
    assert stickers_of(noisy(stuck(player(), body().points_px[lm.SHOULDER_R], colour)), body()) is None


@pytest.mark.parametrize("radius", [0.005, 0.075], ids=["a speck", "a badge"])
def test_what_is_much_smaller_or_larger_is_none(radius: float) -> None:
    assert stickers_of(noisy(stuck(player(), body().points_px[lm.SHOULDER_R], GREEN, radius * TRUNK_PX)), body()) is None


def test_a_stripe_is_none_nor_are_spots_of_one_colour_but_one_among_dots_of_another_is() -> None:
    shoulder = body().points_px[lm.SHOULDER_R]
    striped = player()
    cv2.line(striped, (int(shoulder[0]) - 30, int(shoulder[1])), (int(shoulder[0]) + 30, int(shoulder[1])), GREEN, 7)
    assert stickers_of(noisy(striped), body()) is None
    dotted = player()
    for right in range(-36, 37, 18):
        for down in range(-36, 37, 18):
            stuck(dotted, shoulder + [right, down], PINK, 4.0)
    assert stickers_of(noisy(dotted), body()) is None
    found = stickers_of(noisy(stuck(dotted, shoulder + [9.0, 9.0], GREEN)), body())
    assert found is not None and found.at_px[SHOULDER] == pytest.approx(shoulder + [9.0, 9.0], abs=0.35)


@given(st.floats(-400.0, 1400.0), st.floats(-400.0, 900.0))
def test_places_outside_the_picture_have_none(x: float, y: float) -> None:
    own = body()
    own.points_px[list(lm.STICKERS)] = (x, y)
    assert stickers_of(player(), own) is None, "and nothing fails on the way"


def test_a_live_picture_s_stickers_are_told_in_the_size_that_clips_are_worked_on() -> None:
    own = replace(body(), stickers=stickers_of(stuck(player(), body().points_px[lm.SHOULDER_R]), body()))
    twice = larger(own, 2.0)
    assert own.stickers is not None and twice.stickers is not None
    assert twice.stickers.at_px[SHOULDER] == pytest.approx(2.0 * own.stickers.at_px[SHOULDER])
    assert twice.stickers.hue_deg[SHOULDER] == own.stickers.hue_deg[SHOULDER] and larger(body(), 2.0).stickers is None
