"""Pictures kept of a clip: every moment that is looked at while it is read, and of these the few that a report shows."""

from pathlib import Path

import cv2
import numpy as np
import pytest

from brevin.edge.pictures import Pictures, milliseconds, pick, picture

GREY, RED = np.full((90, 160, 3), 120, np.uint8), np.full((90, 160, 3), (200, 30, 30), np.uint8)


@pytest.fixture
def seen(tmp_path: Path) -> Path:
    with Pictures(tmp_path / "a.seen.zip") as pictures:
        for t_s, rgb in ((0.0, GREY), (1.0 / 3.0, RED), (2.0345, GREY)):
            pictures.keep(t_s, rgb)
    return tmp_path / "a.seen.zip"


def test_what_was_seen_at_a_moment_comes_back_in_its_colours(seen: Path, tmp_path: Path) -> None:
    kept = tmp_path / "a.stills.zip"
    assert pick(seen, kept, [1.0 / 3.0])
    jpeg = picture(kept, 333)
    bgr = cv2.imdecode(np.frombuffer(jpeg, np.uint8), cv2.IMREAD_COLOR)
    assert bgr.shape == GREY.shape and np.abs(bgr[45, 80].astype(int) - (30, 30, 200)).max() < 12
    assert picture(kept, 0) is None and picture(kept, 334) is None, "only what is shown is kept"
    assert pick(seen, tmp_path / "again.zip", [1.0 / 3.0]) and (tmp_path / "again.zip").read_bytes() == kept.read_bytes()
    (tmp_path / "again.zip").unlink()
    assert [path.name for path in sorted(tmp_path.iterdir())] == ["a.seen.zip", "a.stills.zip"], "nothing half-written"


@pytest.mark.parametrize(("t_s", "ms"), [(0.0, 0), (0.0005, 1), (1.0125, 1013), (2.0344999, 2034), (33.3, 33300)])
def test_a_moment_is_named_as_the_page_rounds_it(t_s: float, ms: int) -> None:
    assert milliseconds(t_s) == ms


@pytest.mark.parametrize("moments", [[], [5.0]])
def test_where_no_moment_is_shown_nothing_is_kept(seen: Path, tmp_path: Path, moments: list[float]) -> None:
    assert not pick(seen, tmp_path / "b.stills.zip", moments) and not (tmp_path / "b.stills.zip").exists()


def test_a_disk_without_room_costs_the_pictures_and_ends_nothing(tmp_path: Path) -> None:
    full = Path("/dev/full")
    if not full.exists():
        pytest.skip("no such device here")
    with Pictures(full) as pictures:
        for i in range(40):
            pictures.keep(float(i), RED)
    with Pictures(tmp_path / "a.seen.zip") as pictures:
        pictures.keep(1.0, RED)
    assert not pick(tmp_path / "a.seen.zip", tmp_path / "no such folder" / "b.stills.zip", [1.0])


def test_a_file_that_is_gone_or_damaged_shows_nothing_and_ends_nothing(seen: Path, tmp_path: Path) -> None:
    assert not pick(tmp_path / "none.zip", tmp_path / "b.stills.zip", [0.0]) and picture(tmp_path / "none.zip", 0) is None
    seen.write_bytes(seen.read_bytes()[:400])
    assert not pick(seen, tmp_path / "b.stills.zip", [0.0]) and picture(seen, 0) is None
