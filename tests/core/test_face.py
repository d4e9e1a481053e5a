"""The middle line of a face: found where somebody looks into the camera, withheld where a face is turned or guessed."""

import numpy as np
import pytest

from brevin.core.pose import landmarks as lm
from brevin.core.pose.face import face_of, steadied
from brevin.core.track import Body


def body(*, nose: float = 0.5, apart_px: float = 40.0, tilt_deg: float = 0.0, sure: float = 0.9) -> Body:
    """A face of 60 px from the eyes to the mouth; nose: share of the way from the player's right eye to the left."""
    points = np.zeros((33, 2))
    points[lm.EYE_R], points[lm.EYE_L] = (100.0, 100.0), (100.0 + apart_px, 100.0)
    points[lm.NOSE] = (100.0 + nose * apart_px, 130.0)
    points[lm.MOUTH_R], points[lm.MOUTH_L] = (100.0 + apart_px / 2 - 10, 160.0), (100.0 + apart_px / 2 + 10, 160.0)
    turn = np.radians(tilt_deg)
    points = (points - 100.0) @ np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]]) + 100.0
    return Body(points_px=points, visibility=np.full(33, sure), world=np.zeros((33, 3)))


@pytest.mark.parametrize("tilt_deg", [-20.0, 0.0, 12.0])
def test_the_middle_line_tilts_with_the_head(tilt_deg: float) -> None:
    face = face_of(body(tilt_deg=tilt_deg))
    assert face is not None
    down = face.mouth_px - face.eyes_px
    assert np.degrees(np.arctan2(face.across_px[1], face.across_px[0])) == pytest.approx(tilt_deg)
    assert down @ face.across_px == pytest.approx(0.0, abs=1e-6) and np.hypot(*down) == pytest.approx(60.0)


@pytest.mark.parametrize("seen", [{"nose": 0.1}, {"nose": 0.9}, {"apart_px": 12.0}, {"apart_px": 0.0}, {"sure": 0.3}])
def test_a_face_that_is_turned_or_guessed_has_no_middle_line(seen: dict[str, float]) -> None:
    assert face_of(body(**seen)) is None


def test_one_picture_that_jumps_does_not_move_the_line() -> None:
    faces = [face_of(body()) for _ in range(3)] + [face_of(body(apart_px=80.0))]
    assert all(faces)
    assert steadied(faces).across_px == pytest.approx([40.0, 0.0])
