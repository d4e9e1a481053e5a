"""Raised hands in a picture: their joints are found, turn with the picture, and are not found where there are none."""

from dataclasses import replace
from pathlib import Path

import cv2
import numpy as np
import pytest

from brevin.core.hold.wrists import BEND_DEG, bent_px, hands_of
from brevin.core.measure import NORMAL_90
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.edge.closer import Closer
from brevin.edge.hand_model import HandModel, beside
from brevin.edge.pose_model import PoseModel
from brevin.edge.video import Stamps, video_frames
from brevin.ops import demo
from brevin.ops.settings import ROOT, model_path

FLUTIST = Path(__file__).parents[1] / "pictures" / "flutist.jpg"
PLANTED = (45.3, 0.2)  # bends of the left and the right wrist, as the stand-in's camera sees them


@pytest.fixture(scope="module")
def hands():
    model = HandModel(beside(model_path(ROOT)))
    yield model
    model.close()


@pytest.fixture(scope="module")
def seen() -> dict[str, tuple[np.ndarray, Body]]:
    """The stand-in's flutist, and somebody whose hands lie in the lap."""
    network = PoseModel(model_path(ROOT), masks=False)
    lap = next(iter(video_frames(demo.CLIPS / "seated-low-then-wide.mp4", until_s=1.0, fastest_hz=30.0, stamps=Stamps()))).rgb()
    pictures = {"flutist": cv2.cvtColor(cv2.imread(str(FLUTIST)), cv2.COLOR_BGR2RGB), "lap": lap}
    found = {name: (rgb, max(network.see(rgb, with_masks=False).bodies, key=lm.trunk_px)) for name, rgb in pictures.items()}
    network.close()
    return found


def bends(hands: HandModel, rgb: np.ndarray, body: Body) -> tuple[float | None, float | None]:
    left, right = hands_of(replace(body, hands=hands.see(rgb, body)))
    return left and left[0], right and right[0]


def test_the_bends_are_what_was_planted(hands: HandModel, seen) -> None:
    for read, planted in zip(bends(hands, *seen["flutist"]), PLANTED, strict=True):
        assert read == pytest.approx(planted, abs=NORMAL_90 * BEND_DEG)


@pytest.mark.parametrize("deg", [-20.0, 20.0])
def test_a_picture_that_is_turned_turns_the_hands_and_not_their_bends(hands: HandModel, seen, deg: float) -> None:
    rgb, body = seen["flutist"]
    way = cv2.getRotationMatrix2D((rgb.shape[1] / 2, rgb.shape[0] / 2), deg, 1.0)
    turned = cv2.warpAffine(rgb, way, rgb.shape[1::-1], borderMode=cv2.BORDER_REPLICATE)
    other = replace(body, points_px=body.points_px @ way[:, :2].T + way[:, 2])
    assert bends(hands, turned, other) == (pytest.approx(bends(hands, rgb, body)[0], abs=8.0), pytest.approx(bends(hands, rgb, body)[1], abs=8.0))
    for side, line in bent_px(replace(body, hands=hands.see(rgb, body))).items():
        moved = bent_px(replace(other, hands=hands.see(turned, other)))[side]
        assert np.hypot(*(line @ way[:, :2].T + way[:, 2] - moved)[-1]) < 0.03 * lm.trunk_px(body)


def test_what_lies_in_the_lap_is_not_looked_at_and_what_is_hidden_is_not_found(hands: HandModel, seen) -> None:
    assert hands.see(*seen["lap"]) is None
    rgb, body = seen["flutist"]
    covered = rgb.copy()
    x, y = (int(v) for v in body.points_px[lm.WRIST_R])
    cv2.circle(covered, (x, y - 12), 45, (200, 180, 90), -1)  # a stand before the right hand
    left, right = bends(hands, covered, body)
    assert left is not None and right is None
    assert bends(hands, np.full_like(rgb, 120), body) == (None, None)
    far = replace(body, points_px=body.points_px * 0.2)
    assert hands.see(rgb, far) is None, "a hand of a dozen pixels is none"


def test_an_installation_without_the_hand_s_model_looks_at_none(seen, tmp_path: Path) -> None:
    closer = Closer(tmp_path / "pose_full.task")
    rgb, body = seen["flutist"]
    assert (closer.see(rgb, body).hands, closer.see(rgb, body).features) == (None, None)
    closer.close()
