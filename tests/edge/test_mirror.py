"""The live mirror on a stand-in clip: picture by picture, the lanes follow what was planted, and nobody is followed who is not there."""

from collections.abc import Iterator

import av
import cv2
import numpy as np
import pytest

from brevin.core.errors import InvalidInput
from brevin.edge import mirror as mirroring
from brevin.edge.face_mirror import FaceMirror
from brevin.edge.limited import Children, Died
from brevin.edge.live import Now, picture_of
from brevin.edge.live_work import LIVE_LIMITS, watch
from brevin.edge.mirror import Mirror
from brevin.edge.pose_model import PoseModel
from brevin.edge.talk import begin
from brevin.ops.settings import ROOT, model_path
from tests.conftest import DEMO_CLIP
from tests.sightings import saved

HZ = 10.0


@pytest.fixture(scope="module")
def network() -> Iterator[PoseModel]:
    made = PoseModel(model_path(ROOT))
    yield made
    made.close()


def pictures(until_s: float) -> list[tuple[float, np.ndarray]]:
    """The demo clip as a page sends it: small, so many a second."""
    found, due = [], 0.0
    with av.open(str(DEMO_CLIP)) as clip:
        for frame in clip.decode(video=0):
            if frame.time > until_s:
                break
            if frame.time >= due - 1e-6:
                due += 1.0 / HZ
                found.append((float(frame.time), cv2.resize(frame.to_ndarray(format="rgb24"), (640, 360), interpolation=cv2.INTER_AREA)))
    return found


def test_the_lanes_follow_the_breath_that_the_reading_finds(network: PoseModel) -> None:
    mirror = Mirror(network)
    answers = [mirror.see(picture, t_s) for t_s, picture in pictures(11.0)]
    last = answers[-1]
    assert [a["state"] for a in answers[:3]] == ["looking"] * 3 and last["state"] == "seen"
    assert last["t_s"][-1] == pytest.approx(10.9, abs=0.2) and last["t_s"][-1] - last["t_s"][0] == pytest.approx(8.0, abs=0.1)
    from brevin.core.kinematics.traces import traces

    whole = traces(saved("standing-full-early"))
    for lane in ("abdomen", "chest"):
        read = np.interp(last["t_s"], whole.t_s, getattr(whole, lane))
        assert np.corrcoef(read, last[lane])[0, 1] > 0.95, lane
        assert np.ptp(last[lane]) == pytest.approx(np.ptp(read), rel=0.25)
    assert all(0.0 < share < 1.0 for place in last["at"].values() for share in place)


def test_it_begins_anew_when_the_player_has_gone_and_remembers_no_more_than_it_shows(network: PoseModel, monkeypatch: pytest.MonkeyPatch) -> None:
    mirror = Mirror(network)
    for t_s, picture in pictures(2.5):
        mirror.see(picture, t_s)
    empty = np.full((360, 640, 3), 120, np.uint8)
    assert mirror.see(empty, 4.0)["state"] == "looking"
    assert mirror.see(empty, 4.1)["state"] == "no_person"
    monkeypatch.setattr(mirroring, "MOST_FRAMES", 25)
    long = Mirror(network)
    shots = pictures(2.5)
    for number in range(40):
        long.see(shots[number % len(shots)][1], number / HZ)
    assert long._followed is not None and len(long._followed.t_s) <= 25 and len(long._followed.texture._place) <= 26


def test_pictures_of_a_camera_that_slept_are_forgotten(network: PoseModel) -> None:
    now = Now(network)
    (_, first), *_ = pictures(0.2)
    for t_s in (0.0, 0.4, 0.8):
        now.see(first, t_s)
    assert len(now.stretch().t_s) == 3
    now.see(first, 60.0)
    assert list(now.stretch().t_s) == [60.0]


def test_a_room_that_shifts_is_a_camera_that_moves(network: PoseModel) -> None:
    now = Now(network)
    (_, first), *_ = pictures(0.2)
    for number in range(6):
        now.see(np.roll(first, 9 * (number % 2), axis=1), 0.4 * number)
    assert np.ptp(now.stretch().picture.room_pct[:, 0]) > 3.0


def test_others_who_fidget_before_a_camera_that_stands_are_told_and_move_no_room(network: PoseModel) -> None:
    now, random = Now(network), np.random.default_rng(4)
    shirts = cv2.resize(random.integers(0, 255, (36, 80, 3)).astype(np.uint8), (640, 288), interpolation=cv2.INTER_NEAREST)
    (_, first), *_ = pictures(0.2)
    for edge in (40, 600):  # what stands still: a pattern along either side
        first[40:330, edge - 20 : edge + 20] = cv2.resize(random.integers(0, 255, (29, 4, 3)).astype(np.uint8), (40, 290), interpolation=cv2.INTER_NEAREST)
    for number in range(8):
        picture = first.copy()
        picture[60:348, 65:225] = np.roll(shirts, 3 * number, axis=1)[:, :160]
        picture[60:348, 415:575] = np.roll(shirts, -4 * number, axis=1)[:, :160]
        now.see(picture, 0.1 * number)
    found = now.stretch()
    assert found.restless and np.ptp(found.picture.room_pct, axis=0).max() < 0.5
    assert not found.between(0.0, 0.05).samples[1:] and found.between(0.0, 0.05).restless


@pytest.mark.parametrize("content", [b"", b"GIF89a", b"\xff\xd8\xff\xe0 cut off"])
def test_what_is_no_picture_is_refused(content: bytes) -> None:
    with pytest.raises(InvalidInput, match="no_picture"):
        picture_of(content)


def test_a_child_that_stays_answers_in_turn_and_its_end_is_noticed() -> None:
    talk = begin(Children(), watch, str(model_path(ROOT)), limits=LIVE_LIMITS)
    question = b'{"kind": "ready", "camera": "a", "t_s": 0, "wanted": "side-right", "held": false}'
    assert b"no_picture" in talk.ask(question, b"none", within_s=30)
    assert b"no_picture" in talk.ask(question, b"none", within_s=5)
    talk.end()
    with pytest.raises(Died):
        talk.ask(question, b"none", within_s=1)


def test_the_face_is_found_where_it_looks_into_the_camera_and_asked_to_turn_where_it_does_not(network: PoseModel) -> None:
    front = cv2.cvtColor(cv2.imread(str(ROOT / "tests" / "pictures" / "face.jpg")), cv2.COLOR_BGR2RGB)
    seen = FaceMirror(network).see(front, 0.0)
    assert seen["state"] == "seen"
    eyes, mouth, across = (np.array(seen[name]) for name in ("eyes", "mouth", "across"))
    assert mouth[1] > eyes[1] and abs(mouth[0] - eyes[0]) < abs(across[0]) / 2 and across[0] > 0.0  # the player's left is the picture's right
    brighter = FaceMirror(network).see(np.minimum(front.astype(int) + 20, 255).astype(np.uint8), 0.0)
    assert np.abs(np.array(brighter["eyes"]) - eyes).max() < 0.01
    aside = FaceMirror(network)
    assert aside.see(pictures(0.1)[0][1], 0.0)["state"] == "turn_face"
    assert aside.see(np.zeros((360, 640, 3), np.uint8), 0.1)["state"] == "no_person"
