"""The mannequin's shape, worked out only where its pieces are."""

import numpy as np
import pytest

from brevin.standin import shapes
from brevin.standin.stance import Build, stance

SURFACE_M = 0.016  # two places of the grid


@pytest.mark.parametrize("position", ["seated", "standing"])
def test_a_piece_that_is_far_away_changes_no_surface(position: str, monkeypatch: pytest.MonkeyPatch) -> None:
    build = Build()
    pose = stance(build, position=position, lean_deg=4.0, hands={}, elbows_out=(0.3, 0.3))
    points = np.array(list(pose.joints.values()))
    axes = [np.arange(low - 0.2, high + 0.2, 0.02) for low, high in zip(points.min(axis=0), points.max(axis=0), strict=True)]
    near, part = shapes.shape(axes, build, pose, True)
    monkeypatch.setattr(shapes, "NEAR_M", shapes.FAR_M)
    whole, whole_part = shapes.shape(axes, build, pose, True)
    surface = np.abs(whole) < SURFACE_M
    assert surface.sum() > 1000 and {shapes.SHIRT, shapes.TROUSERS, shapes.SHOE, shapes.SKIN, shapes.HAIR} <= set(part[surface])
    assert np.abs(near[surface] - whole[surface]).max() < 1e-5 and np.array_equal(part[surface], whole_part[surface])
    assert np.array_equal(near < 0, whole < 0)
