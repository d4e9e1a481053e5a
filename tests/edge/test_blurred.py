"""A clip as it is kept where others are in it: they are past knowing, and the player is as before; in the film and in its stills."""

from dataclasses import replace
from pathlib import Path
from types import SimpleNamespace

import cv2
import numpy as np
import pytest

from brevin.bench.blur import _fine
from brevin.bench.company import Head
from brevin.core.pose.others import Circle, KeptClear, Moment
from brevin.core.track import Body
from brevin.edge.blurred import Blur, blur_clip, blur_stills, with_faces
from brevin.edge.face_finder import FaceFinder, FacesSeen, beside
from brevin.edge.pictures import Pictures, picture
from brevin.edge.video import video_frames
from brevin.ops.settings import ROOT, model_path
from tests import clips
from tests.core.made import body
from tests.sightings import seen_of

SIZE = (480.0, 270.0)
ME: Body = body(at_px=(330.0, 200.0), trunk_px=70.0)
HEAD, MINE = Head(0.0, np.array([90.0, 80.0]), 18.0), Head(0.0, np.array([330.0, 165.0]), 18.0)
CLEAR = KeptClear((Moment(0.0, (ME.points_px,), (), (), ()),), (), 1.0, 28.0, 16.0)
FACE = cv2.imread(str(ROOT / "tests" / "pictures" / "face.jpg"))[40:150, 190:300, ::-1]


@pytest.fixture(scope="module")
def finder():
    made = FaceFinder(beside(model_path(ROOT)))
    yield made
    made.close()


def speckled(height: int = 270, width: int = 480) -> np.ndarray:
    return np.random.default_rng(3).integers(0, 255, (height, width, 3), np.uint8)


def with_face(size_px: int, at: tuple[int, int], *, height: int = 540, width: int = 960) -> np.ndarray:
    """A wall with a face whose picture is so large. at: left, top."""
    wall = np.full((height, width, 3), 150, np.uint8)
    wall[at[1] : at[1] + size_px, at[0] : at[0] + size_px] = cv2.resize(FACE, (size_px, size_px), interpolation=cv2.INTER_AREA)
    return wall


@pytest.mark.parametrize(("size_px", "at"), [(40, (900, 30)), (60, (20, 300)), (110, (430, 200)), (300, (600, 200))])
def test_a_face_is_found_wherever_it_is_and_however_small(finder: FaceFinder, size_px: int, at: tuple[int, int]) -> None:
    found = finder.see(1.5, with_face(size_px, at))
    middle = np.array(at) + size_px / 2.0
    assert found[0].t_s == 1.5 and [face for face in found[1:] if face.sure > 0.6] == []
    assert np.hypot(*(found[0].middle_px - middle)) < 0.3 * size_px and 0.2 < found[0].width_px / size_px < 0.9


def test_an_empty_room_has_no_face(finder: FaceFinder) -> None:
    wall = np.full((540, 960, 3), 150, np.uint8)
    wall[100:300, 200:350] = (120, 40, 30)
    assert finder.see(0.0, wall) == []


def test_two_faces_are_two(finder: FaceFinder) -> None:
    wall = np.minimum(with_face(80, (100, 100)), with_face(80, (700, 300)))
    assert len(finder.see(0.0, wall)) == 2


@pytest.mark.parametrize("colours", [True, False])
def test_all_but_the_player_is_past_knowing(colours: bool) -> None:
    before = speckled()
    after = before.copy()
    if colours:
        Blur(CLEAR, SIZE).still(after, 0.3)
    else:
        planes = np.concatenate([before[:, :, 0].reshape(-1), np.full(480 * 135, 90, np.uint8)]).reshape(405, 480)
        Blur(CLEAR, SIZE).film(planes, 0.3)
        before, after = before[:, :, :1], planes[:270, :, None]
        assert np.abs(planes[270:].astype(int) - 90).max() <= 1, "an even colour stays"
    grey, was = after.mean(axis=2), before.mean(axis=2)
    assert _fine(grey, HEAD) < 0.2 * _fine(was, HEAD)
    assert (after[150:180, 320:340] == before[150:180, 320:340]).all()


def test_a_head_before_the_player_is_hidden_and_the_players_own_is_not() -> None:
    before = speckled()
    shown, hidden = Circle(np.array([330.0, 110.0]), 14.0), Circle(np.array([345.0, 130.0]), 22.0)
    both = KeptClear((Moment(0.0, (ME.points_px,), (), (shown,), (hidden,)),), (), 1.0, 28.0, 16.0)
    after = before.copy()
    Blur(both, SIZE).still(after, 0.0)
    assert (after[104:114, 324:334] == before[104:114, 324:334]).all()
    there = Head(0.0, np.array([352.0, 141.0]), 6.0)
    assert _fine(after.mean(axis=2), there) < 0.4 * _fine(before.mean(axis=2), there)


def test_a_film_keeps_its_moments_and_loses_only_what_is_to_go(tmp_path: Path) -> None:
    pictures = [speckled() if i == 0 else np.roll(speckled(), i, axis=1) for i in range(30)]
    times_ms = [40 * i + (7 if i % 3 else 0) for i in range(30)]
    source = clips.write(tmp_path / "a.mp4", pictures, times_ms=times_ms, sound=True)
    found = SimpleNamespace(picture_px=SIZE)
    blur_clip(source, tmp_path / "b.mp4", CLEAR, found, lambda stage, share: None)
    before, after = (list(video_frames(tmp_path / name, until_s=9.0, fastest_hz=60.0)) for name in ("a.mp4", "b.mp4"))
    assert [frame.t_s for frame in after] == pytest.approx([frame.t_s for frame in before], abs=1e-4)
    for was, now in zip(before, after, strict=True):
        assert _fine(now.luma, HEAD) < 0.25 * _fine(was.luma, HEAD) and _fine(now.luma, MINE) > 0.7 * _fine(was.luma, MINE)
    assert sorted(path.name for path in tmp_path.iterdir()) == ["a.mp4", "b.mp4"], "nothing half-written"


def test_a_film_that_cannot_be_written_leaves_nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    source = clips.write(tmp_path / "a.mp4", [speckled()] * 5)
    monkeypatch.setattr(Blur, "film", lambda *_: (_ for _ in ()).throw(OSError("no room")))
    with pytest.raises(OSError, match="no room"):
        blur_clip(source, tmp_path / "b.mp4", CLEAR, SimpleNamespace(picture_px=SIZE), lambda stage, share: None)
    assert [path.name for path in tmp_path.iterdir()] == ["a.mp4"]


def test_stills_are_blurred_in_place(tmp_path: Path) -> None:
    kept = tmp_path / "a.stills.zip"
    with Pictures(kept) as file:
        for t_s in (0.0, 0.4, 1.0):
            file.keep(t_s, speckled())
    before = {at: picture(kept, at) for at in (0, 400, 1000)}
    blur_stills(kept, CLEAR, SimpleNamespace(picture_px=SIZE))
    for at, jpeg in before.items():
        was, now = (cv2.imdecode(np.frombuffer(one, np.uint8), 0) for one in (jpeg, picture(kept, at)))
        assert _fine(now, HEAD) < 0.25 * _fine(was, HEAD) and _fine(now, MINE) > 0.8 * _fine(was, MINE)
    assert [path.name for path in tmp_path.iterdir()] == [kept.name]
    blur_stills(tmp_path / "none", CLEAR, SimpleNamespace(picture_px=SIZE))


def test_faces_are_looked_for_now_and_then_beside_the_reading() -> None:
    with FacesSeen(model_path(ROOT)) as faces:
        for i in range(60):
            faces.see(0.5 * i, with_face(110, (300, 60), height=270, width=480) if i != 10 else speckled())
        assert [face.t_s for face in faces.found()] == [0.0, 10.0, 15.0, 20.0, 25.0]


def test_evidence_of_an_older_release_gets_its_faces_from_the_clip(tmp_path: Path) -> None:
    source = clips.write(tmp_path / "a.mp4", [with_face(110, (300, 60), height=270, width=480)] * 20)
    old = seen_of("standing-full-early")
    assert old.faces is None and [round(face.t_s) for face in with_faces(old, source, model_path(ROOT)).faces] == [0]
    known = replace(old, faces=())
    assert with_faces(known, tmp_path / "none.mp4", model_path(ROOT)) is known
