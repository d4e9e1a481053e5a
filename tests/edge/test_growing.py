"""A clip that is looked at while its pieces still come."""

import threading
import time
from pathlib import Path

import pytest

from brevin.core.errors import ClipUnusable
from brevin.core.evidence import evidence, packed
from brevin.edge import growing as grown
from brevin.edge.growing import Growing, begun, growing
from brevin.edge.look import look
from brevin.edge.video import probe
from brevin.ops.settings import ROOT, model_path
from tests import clips

MODEL = model_path(ROOT)
KEY = "0a1b2c3d-0000-4000-8000-000000000001"


def appended(one: Growing, content: bytes, pieces: int, every_s: float) -> None:
    size = len(content) // pieces + 1
    for at in range(0, len(content), size):
        with one.path.open("ab") as file:
            file.write(content[at : at + size])
        time.sleep(every_s)


def test_what_is_seen_of_a_growing_clip_is_what_is_seen_of_the_whole(tmp_path: Path) -> None:
    near = [picture[:, 230:730] for picture in clips.pictures_of(ROOT / "demo/clips/seated-chest-high.mp4", 80)]
    whole = clips.write(tmp_path / "whole.webm", near, codec="vp8")
    one = begun(tmp_path, 1, 2, KEY, "auto")
    one.path.touch()
    content = whole.read_bytes()
    appended(one, content[:60_000], 1, 0.0)

    def goes_on() -> None:
        appended(one, content[60_000:], 8, 0.3)
        one.end(whole)

    sender = threading.Thread(target=goes_on)
    sender.start()
    seen = look(one, MODEL)
    sender.join()
    assert one.whole() == whole and seen.clip.file == "whole.webm" and len(seen.t_s) == 80
    assert packed(evidence(seen)) == packed(evidence(look(whole, MODEL)))


@pytest.mark.parametrize("why", ["nothing more comes", "it is dropped"])
def test_a_clip_that_stops_growing_is_given_up(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, why: str) -> None:
    monkeypatch.setattr(grown, "STALLED_S", 0.3 if why == "nothing more comes" else 30.0)
    whole = clips.write(tmp_path / "whole.webm", clips.room(60), codec="vp8")
    one = begun(tmp_path, 1, 2, KEY, "auto")
    one.path.write_bytes(whole.read_bytes()[:4000])
    if why == "it is dropped":
        threading.Timer(0.3, one.drop).start()
    with pytest.raises(ClipUnusable) as told:
        probe(one)
        one.whole()
    assert told.value.code == "upload_cut_off"


def test_its_name_says_whose_it_is_and_its_end_stands_only_where_somebody_reads_it(tmp_path: Path) -> None:
    one, other = begun(tmp_path, 1, 22, KEY, "front"), begun(tmp_path, 2, 22, KEY.replace("0a", "0b"), "auto")
    for each in (one, other):
        each.path.touch()
    assert (one.key, one.view) == (KEY, "front") and growing(tmp_path) == [one, other]
    assert growing(tmp_path, programme_id=1) == growing(tmp_path, key=KEY) == [one] and growing(tmp_path, student_id=22) == [one, other]
    assert growing(tmp_path, student_id=2) == [] == growing(tmp_path / "not there")
    one.drop()
    one.end(tmp_path / "whole.webm")
    assert list(tmp_path.iterdir()) == [other.path]
