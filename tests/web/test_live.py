"""The live view over the wire: a picture in, three lines out, nothing kept."""

import uuid

import av
import cv2
import pytest

from brevin.ops.settings import Settings
from tests.conftest import DEMO_CLIP

CAMERA = str(uuid.uuid4())


def picture(at: int = 10) -> bytes:
    """A picture of the stand-in as a page sends it."""
    with av.open(str(DEMO_CLIP)) as clip:
        frame = next(f for i, f in enumerate(clip.decode(video=0)) if i == at).to_ndarray(format="bgr24")
    small = cv2.resize(frame, (640, 640 * frame.shape[0] // frame.shape[1]), interpolation=cv2.INTER_AREA)
    return cv2.imencode(".jpg", small)[1].tobytes()


def ask(page, content: bytes, wanted: str = "side-right", t_s: float = 0.0, *, held: bool = False):
    query = {"camera": CAMERA, "wanted": wanted, "t_s": t_s, "held": str(held).lower()}
    return page("POST", "/api/live/ready", query_string=query, data=content, headers={"Content-Type": "image/jpeg"})


def test_a_picture_is_answered_by_light_player_and_camera_and_leaves_nothing(page, store: Settings) -> None:
    ask(page, picture())
    lines = {line["about"]: line for line in ask(page, picture(), t_s=0.4).json["lines"]}
    assert [lines[about]["state"] for about in ("light", "player", "camera")] == ["steady"] * 3
    assert lines["player"]["title"] == "right side to the camera"
    with_it = {line["about"]: line for line in ask(page, picture(), t_s=0.6, held=True).json["lines"]}["player"]
    assert (with_it["state"], with_it["title"]) == ("watch", "the arms cover the chest"), "as the reading of this clip says as well"
    other = {line["about"]: line for line in ask(page, picture(), wanted="side-left", t_s=0.8).json["lines"]}
    assert other["player"]["code"] == "turn_round_side-left" and "left side" in other["player"]["do"]
    assert not list(store.clips.iterdir()) and not list(store.evidence.iterdir())


@pytest.mark.parametrize(("content", "code", "status"), [(b"no picture", "no_picture", 422), (b"", "no_picture", 422), (b"x" * 500_000, "too_large", 413)])
def test_what_is_no_picture_is_refused_and_the_next_is_answered(page, content: bytes, code: str, status: int) -> None:
    refused = ask(page, content)
    assert (refused.status_code, refused.json["code"]) == (status, code)
    assert ask(page, picture(), t_s=5.0).status_code == 200


def test_a_watcher_that_dies_once_is_begun_again_and_one_that_keeps_dying_is_told(app, page, monkeypatch: pytest.MonkeyPatch) -> None:
    def end_it() -> None:
        app.config["WATCHER"]._talk._child.process.kill()

    assert len(ask(page, picture()).json["lines"]) == 3
    end_it()
    assert (ask(page, picture(), t_s=1.0).status_code, ask(page, picture(), t_s=2.0).status_code) == (200, 200)
    end_it()
    assert ask(page, picture(), t_s=3.0).json == {"lines": []}
    monkeypatch.setattr("brevin.web.live.BEGINS_WITHIN_S", 0.0)
    told = ask(page, picture(), t_s=4.0)
    assert (told.status_code, told.json["code"]) == (503, "live_busy")
    monkeypatch.undo()
    assert len(ask(page, picture(), t_s=5.0).json["lines"]) == 3


def test_who_asks_while_the_watcher_answers_somebody_else_is_told_not_yet(app, page, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("brevin.web.live.TURN_WITHIN_S", 0.01)
    with app.config["WATCHER"]._turn:
        answered = ask(page, picture())
    assert (answered.status_code, answered.json) == (200, {"lines": []})
    assert len(ask(page, picture(), t_s=1.0).json["lines"]) == 3


def test_the_face_is_asked_to_turn_to_the_camera_and_nothing_of_it_is_kept(page, store: Settings) -> None:
    query = {"camera": CAMERA, "t_s": 0.0}
    found = page("POST", "/api/live/face", query_string=query, data=picture(), headers={"Content-Type": "image/jpeg"}).json
    assert (found["state"], found["do"], found["eyes"]) == ("wait", "look into the camera", [])
    assert not list(store.clips.iterdir()) and not list(store.evidence.iterdir())
