"""A face in a picture: its middle line is found, turns with the picture, and is not found where there is none."""

import json
from dataclasses import replace

import cv2
import numpy as np
import pytest

from brevin.core.kinematics.heads import LINE_DEG, SURE, tilt_deg
from brevin.core.measure import NORMAL_90
from brevin.core.pose import landmarks as lm
from brevin.core.track import Body
from brevin.edge.face_model import FaceModel, beside
from brevin.edge.pose_model import PoseModel
from brevin.edge.video import Stamps, video_frames
from brevin.ops import demo
from brevin.ops.settings import ROOT, model_path

FRONT, SIDE = "front-flute-sags", "seated-low-then-wide"


@pytest.fixture(scope="module")
def faces() -> FaceModel:
    return FaceModel(beside(model_path(ROOT)))


@pytest.fixture(scope="module")
def seen() -> dict[str, tuple[np.ndarray, Body]]:
    """The first picture of a clip from the front and of one from the side, each with its player."""
    network, found = PoseModel(model_path(ROOT), masks=False), {}
    for name in (FRONT, SIDE):
        rgb = next(iter(video_frames(demo.CLIPS / f"{name}.mp4", until_s=1.0, fastest_hz=30.0, stamps=Stamps()))).rgb()
        found[name] = rgb, max(network.see(rgb, with_masks=False).bodies, key=lm.trunk_px)
    network.close()
    return found


def turned(rgb: np.ndarray, body: Body, deg: float) -> tuple[np.ndarray, Body]:
    """The whole picture turned about the player's mouth, + = the head goes to the picture's left."""
    way = cv2.getRotationMatrix2D(tuple(lm.mouth(body)), deg, 1.0)
    points = body.points_px @ way[:, :2].T + way[:, 2]
    return cv2.warpAffine(rgb, way, rgb.shape[1::-1], borderMode=cv2.BORDER_REPLICATE), replace(body, points_px=points)


def tilt(faces: FaceModel, rgb: np.ndarray, body: Body) -> float | None:
    return tilt_deg(replace(body, features=faces.see(rgb, body)))


def test_the_head_s_tilt_is_what_was_planted(faces: FaceModel, seen) -> None:
    joints = json.loads((demo.CLIPS / f"{FRONT}.json").read_text())["per_frame"]["joints_px"]
    right, left = (np.array(joints[f"eye_{side}"][0]) for side in "rl")
    planted = -np.degrees(np.arctan2(left[1] - right[1], left[0] - right[0]))
    assert tilt(faces, *seen[FRONT]) == pytest.approx(planted, abs=NORMAL_90 * LINE_DEG)


@pytest.mark.parametrize("deg", [-25.0, -10.0, 10.0, 25.0])
def test_a_picture_that_is_turned_turns_the_tilt_by_as_much(faces: FaceModel, seen, deg: float) -> None:
    assert tilt(faces, *turned(*seen[FRONT], deg)) == pytest.approx(tilt(faces, *seen[FRONT]) + deg, abs=2.0)


def test_no_face_is_found_in_profile_behind_something_or_where_nobody_is(faces: FaceModel, seen) -> None:
    rgb, body = seen[FRONT]
    covered = rgb.copy()
    x, y = lm.mouth(body).astype(int)
    cv2.circle(covered, (int(x), int(y) - 12), 26, (200, 180, 90), -1)  # a bell before the face
    for picture, whose in ((seen[SIDE][0], seen[SIDE][1]), (covered, body), (np.full_like(rgb, 120), body)):
        assert faces.see(picture, whose).sure < SURE and tilt(faces, picture, whose) is None
    away = replace(body, points_px=body.points_px - [5000.0, 0.0])
    assert faces.see(rgb, away).sure < SURE, "outside the picture"
