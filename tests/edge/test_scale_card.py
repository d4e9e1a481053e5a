from dataclasses import replace
from xml.etree import ElementTree

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.track import CardSeen
from brevin.edge import scale_card
from brevin.ops.settings import ROOT
from tests.core.made import sighting


def room_with_card(side_px: float, *, turned_deg: float = 0.0, slant: float = 1.0, noise: float = 4.0) -> np.ndarray:
    """A grey room with the card in it, turned in the picture and narrowed by a slant."""
    card = scale_card.drawn(120)
    size = side_px / 120
    matrix = cv2.getRotationMatrix2D((90, 90), turned_deg, size)
    matrix = np.diag([slant, 1.0]) @ matrix
    matrix[:, 2] += (300 - slant * 90, 160)
    room = cv2.warpAffine(card, matrix, (640, 480), borderValue=150, flags=cv2.INTER_AREA)
    return np.clip(room + np.random.default_rng(2).normal(0, noise, room.shape), 0, 255).astype(np.uint8)


def mm_per_px(room: np.ndarray) -> float | None:
    corners = scale_card.corners_px(room)
    return None if corners is None else scale_card.mm_per_px(corners)


@settings(max_examples=15, deadline=None)
@given(st.floats(28, 120), st.floats(-40, 40))
def test_the_card_gives_its_own_size(side_px: float, turned_deg: float) -> None:
    assert mm_per_px(room_with_card(side_px, turned_deg=turned_deg)) == pytest.approx(scale_card.SIDE_MM / side_px, rel=0.05)


def test_a_slight_slant_is_read_along_the_longer_side_and_a_large_one_is_not() -> None:
    assert mm_per_px(room_with_card(80, slant=0.85)) == pytest.approx(scale_card.SIDE_MM / 80, rel=0.05)
    assert mm_per_px(room_with_card(80, slant=0.55)) is None


def test_a_room_without_the_card_gives_none() -> None:
    assert mm_per_px(np.random.default_rng(1).integers(0, 255, (480, 640)).astype(np.uint8)) is None


def test_the_card_that_is_printed_is_the_one_that_is_looked_for() -> None:
    printed = (ROOT / "docs" / "scale-card.svg").read_text()
    assert printed == scale_card.svg()
    black = {
        (round((float(r["x"]) - 15) / 10), round((float(r["y"]) - 15) / 10))
        for r in (e.attrib for e in ElementTree.fromstring(printed).iter())
        if r.get("x") and "height" in r
    }
    square = scale_card.drawn(60)[15:-15, 15:-15][5::10, 5::10]
    assert black == {(x, y) for y, line in enumerate(square) for x, grey in enumerate(line) if grey == 0}


def test_the_report_says_where_its_millimetres_come_from() -> None:
    made, _, card = sighting()
    seen = (CardSeen(0.2, np.zeros((4, 2)), 2.0), CardSeen(0.4, np.zeros((4, 2)), None))
    with_card, without = (read(replace(made, cards=cards), Task(Check(card=card))).scale for cards in (seen, ()))
    assert with_card is not None and (with_card.source, with_card.mm_per_px) == ("card", pytest.approx(2.0))
    assert without is not None and (without.source, without.mm_per_px) == ("key points", None)
