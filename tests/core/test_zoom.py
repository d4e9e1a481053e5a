"""What a lens that zooms does to what was followed is taken away again."""

from dataclasses import replace

import numpy as np
import pytest

from brevin.core.kinematics.traces import traces
from brevin.core.kinematics.zoom import unzoomed
from brevin.core.track import Sighting
from tests.core.made import gain, sighting


def seen_by_a_lens(seen: Sighting, zoom: np.ndarray, about_pct: tuple[float, float]) -> Sighting:
    """The same through a lens that zooms about a place of the picture."""
    off = np.array(about_pct)
    points = replace(seen.points, move_pct=seen.points.move_pct + zoom[:, None, None] * (seen.points.at_pct - off))
    front, back = (
        replace(strips, travel_pct=strips.travel_pct + outward * zoom[:, None] * (strips.edge_pct - off[0]))
        for strips, outward in ((seen.front, 1.0), (seen.back, -1.0))
    )
    return replace(seen, points=points, front=front, back=back, picture=replace(seen.picture, zoom=zoom))


def test_without_a_zoom_nothing_is_touched() -> None:
    seen, _, _ = sighting()
    assert unzoomed(seen) is seen
    still = replace(seen, picture=replace(seen.picture, zoom=np.zeros(len(seen.t_s))))
    assert unzoomed(still) is still


@pytest.mark.parametrize("about_pct", [(0.0, 0.0), (40.0, -60.0)])
def test_a_breath_is_read_as_by_a_lens_that_stood_still(about_pct: tuple[float, float]) -> None:
    seen, planted, _ = sighting()
    zoom = 0.012 * np.clip(np.sin(0.9 * seen.t_s), 0.0, 1.0)
    plain, known = traces(seen), traces(seen_by_a_lens(seen, zoom, about_pct))
    for name in ("abdomen", "chest", "shoulder"):
        assert np.abs(getattr(known, name) - getattr(plain, name)).max() < 0.12, name
    unknown = replace(seen_by_a_lens(seen, zoom, about_pct), picture=seen.picture)
    assert np.abs(traces(unknown).shoulder - plain.shoulder).max() > 0.4, "the lens that is not known of lifts the shoulders"
    assert gain(known.shoulder, planted.shoulder, known.t_s, planted.t_s) == pytest.approx(
        gain(plain.shoulder, planted.shoulder, plain.t_s, planted.t_s), abs=0.1
    )


def test_a_slanted_edge_is_seen_to_come_up_as_well() -> None:
    seen, _, _ = sighting()
    heights = seen.front.up_pct
    slanted = replace(seen.front, edge_pct=10.0 + 0.3 * heights, travel_pct=np.zeros_like(seen.front.travel_pct))
    zoom = np.full(len(seen.t_s), 0.01)
    gone = (1.01 * 10.0 + 0.3 * heights) - slanted.edge_pct  # where the picture of a line through (0, 10) that is one percent larger crosses each height
    through = replace(seen, front=replace(slanted, travel_pct=slanted.travel_pct + gone), picture=replace(seen.picture, zoom=zoom))
    assert np.abs(unzoomed(through).front.travel_pct).max() < 1e-9
