"""How alike a clip and the same one in other pictures are counted to read."""

from types import SimpleNamespace

import cv2
import numpy as np
import pytest

from brevin.bench import Measured
from brevin.bench.alike import BARS, Pair, alike
from brevin.bench.other_pictures import CLOTH, CROSSES_S, CROSSING_S, POLE, POLE_AHEAD, ROLLS_HZ, SINKING, SINKS_DEG, STILL, TILT_DEG, WIDE_SHARE, ZOOM, way_of
from brevin.core.report import Breath, Report


def report(*breaths: Breath, readable: bool = True, lean_deg: float | None = 3.0) -> Report:
    lean = None if lean_deg is None else SimpleNamespace(value=lean_deg)
    return SimpleNamespace(breaths=list(breaths), readable_for=SimpleNamespace(breath=readable), posture=SimpleNamespace(trunk_inclination_deg=lean))


def breath(start_s: float, pattern: str = "low", pattern_or: str | None = None, *, share: float | None = 0.7) -> Breath:
    return Breath(inhale_start_s=start_s, exhale_start_s=start_s + 2.0, pattern=pattern, pattern_or=pattern_or, abdominal_share=share, uncertainty={})


def figures(*pairs: tuple[Report, Report]) -> dict[str, float]:
    return alike([Pair(f"clip-{i}", *pair) for i, pair in enumerate(pairs)], "mirror")


def test_what_reads_the_same_holds_every_bar() -> None:
    same = report(breath(3.0), breath(9.0))
    found = figures((same, report(breath(3.06), breath(9.02, share=None))))
    assert Measured("alike", found, BARS).held and found["breaths"] == 2.0 and found["onset_p90_s"] == pytest.approx(0.06, abs=0.01)
    assert found["share_median"] == 0.0, "a share that one of them does not tell is held against nothing"


def test_a_breath_that_only_one_of_them_shows_counts_against_both(capsys: pytest.CaptureFixture) -> None:
    lost = figures((report(breath(3.0), breath(9.0)), report(breath(3.0))))
    extra = figures((report(breath(3.0)), report(breath(3.0), breath(9.0))))
    moved = figures((report(breath(3.0)), report(breath(4.3))))
    assert lost["found_in_both"] == extra["found_in_both"] == 0.5 and moved["found_in_both"] == 0.0
    assert "clip-0 reads otherwise: mirror" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("names", "others", "contradicts"),
    [
        (("low",), ("chest_high",), True),
        (("low",), ("unclear",), False),
        (("low", "low_then_wide"), ("low_then_wide",), False),
        (("low_then_lifted", "chest_high"), ("low_then_wide", "low"), True),
    ],
)
def test_two_names_contradict_where_neither_leaves_room_for_the_other(names: tuple[str, ...], others: tuple[str, ...], contradicts: bool) -> None:
    assert figures((report(breath(3.0, *names)), report(breath(3.0, *others))))["named_otherwise"] == float(contradicts)


def test_a_clip_that_is_refused_in_one_of_them_is_counted_by_itself() -> None:
    found = figures((report(breath(3.0)), report(readable=False)), (report(readable=False), report(readable=False)))
    assert found["readable_in_one_alone"] == 1.0 and found["breaths"] == 0.0 and np.isinf(found["onset_p90_s"])


def test_a_lean_that_hangs_on_how_the_phone_stands_is_told() -> None:
    apart = figures((report(breath(3.0)), report(breath(3.0), lean_deg=8.0)), (report(breath(3.0), lean_deg=None), report(breath(3.0))))
    assert apart["lean_median_deg"] == 5.0 and not Measured("alike", apart, BARS).held


def test_each_way_changes_the_picture_as_it_says_and_comes_back() -> None:
    random = np.random.default_rng(0)
    rgb = cv2.GaussianBlur(random.integers(60, 190, (90, 160, 3)).astype(np.uint8), (0, 0), 3)
    assert (STILL["mirror"](STILL["mirror"](rgb, 0.0), 0.0) == rgb).all() and (STILL["mirror"](rgb, 0.0) != rgb).any()
    lit, rolled = (STILL["bands"](rgb, t_s) / rgb for t_s in (0.0, 0.5 / ROLLS_HZ))
    assert lit.max() == pytest.approx(1.06, abs=0.02) and np.abs(lit.mean(axis=(1, 2)) + rolled.mean(axis=(1, 2)) - 2.0).max() < 0.03, "half a round later"
    assert np.abs(STILL["lens"](rgb, 0.0).astype(int) - rgb).max() <= 1 and np.abs(STILL["lens"](rgb, 9.5).astype(int) - rgb).max() <= 1
    larger = cv2.resize(rgb, None, fx=1.0 + ZOOM, fy=1.0 + ZOOM)[:90, :160]
    assert np.abs(STILL["lens"](rgb, 4.0).astype(int)[40:50, 70:90] - rgb[40:50, 70:90]).max() < np.abs(larger.astype(int) - rgb).max(), "about the middle"
    assert (STILL["lens"](rgb, 4.0) != rgb).any()
    held = [STILL["hand"](rgb, t_s).astype(int) for t_s in (1.0, 1.4)]
    assert np.abs(held[0] - held[1])[20:70, 30:130].mean() > 0.3, "no two pictures from the same place"
    back = cv2.warpAffine(STILL["tilted"](rgb, 0.0), cv2.getRotationMatrix2D((80, 45), -TILT_DEG, 1.0), (160, 90))
    assert np.abs(back.astype(int) - rgb)[30:60, 50:110].max() <= 3 and (STILL["tilted"](rgb, 0.0) != rgb).any()
    crossing = STILL["crossed"](rgb, CROSSES_S[0] + CROSSING_S / 2.0)
    hidden = (crossing != rgb).any(axis=(0, 2))
    assert hidden.sum() == pytest.approx(WIDE_SHARE * 160, abs=2) and hidden[80] and np.abs(crossing[:, 80].mean(axis=0) - CLOTH).max() < 8
    assert (STILL["crossed"](rgb, CROSSES_S[0] - 0.1) == rgb).all() and (STILL["crossed"](rgb, CROSSES_S[1] + CROSSING_S + 0.1) == rgb).all(), "and is gone"


def test_a_pole_stands_before_the_belly_s_edge_and_hides_a_line_of_the_picture() -> None:
    at = {"shoulder_l": [[80, 20]], "shoulder_r": [[80, 20]], "hip_l": [[80, 70]], "hip_r": [[80, 70]]}
    rgb = np.full((90, 160, 3), 200, np.uint8)
    for view, side in (("side_right", 1.0), ("side_left", -1.0)):
        seen = way_of(POLE, {"per_frame": {"keypoints_px": at}, "label": {"view": view}})(rgb, 3.0)
        hidden = (seen != rgb).any(axis=2)
        assert hidden.all(axis=1).sum() == 0 and hidden.any(axis=1).all(), "from the upper to the lower end"
        assert np.flatnonzero(hidden.any(axis=0)).mean() == pytest.approx(80 + side * POLE_AHEAD * 50, abs=1.0)
    assert (rgb == 200).all(), "the picture that was given stays as it was"


def test_a_trunk_that_sinks_takes_head_and_back_along_and_leaves_lap_and_room() -> None:
    at = {"shoulder_l": [[80, 20]], "shoulder_r": [[80, 20]], "hip_l": [[80, 70]], "hip_r": [[80, 70]]}
    truth = {
        "per_frame": {"keypoints_px": at}, "cycles": [{"inhale_start": 4.0}], "duration_s": 20.0, "label": {"view": "side_right"}, "width": 160, "height": 90,
    }  # fmt: skip
    rgb = np.zeros((90, 160, 3), np.uint8)
    for row, column in ((20, 80), (45, 80), (80, 80), (45, 10)):
        cv2.circle(rgb, (column, row), 3, (255, 255, 255), -1)
    sinks = way_of(SINKING, truth)
    assert (sinks(rgb, 3.9) == rgb).all(), "not before the first breath"

    def moved(seen: np.ndarray, row: int, column: int) -> np.ndarray:
        part = seen[row - 9 : row + 10, column - 9 : column + 10, 0].astype(float)
        rows, columns = np.mgrid[-9:10, -9:10]
        return np.array([(columns * part).sum(), (rows * part).sum()]) / part.sum()

    whole, half = sinks(rgb, 20.0), sinks(rgb, 12.0)
    assert moved(whole, 20, 80) == pytest.approx((50 * np.tan(np.radians(SINKS_DEG)), 50 * 0.005 * SINKS_DEG), abs=0.7)
    assert moved(half, 20, 80)[0] == pytest.approx(0.5 * moved(whole, 20, 80)[0], abs=0.4)
    assert 0.5 < moved(whole, 45, 80)[0] < 0.5 * moved(whole, 20, 80)[0], "it bends"
    assert (whole[72:] == rgb[72:]).all() and (whole[:, :14] == rgb[:, :14]).all()
