"""Children with limits: what they may not do ends them, not us."""

import os
import pickle
import subprocess
import sys
import time
from dataclasses import replace
from pathlib import Path

import pytest

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.edge.clip_work import PROBE_LIMITS, looked_over
from brevin.edge.limited import Children, Died, Limits
from brevin.ops.settings import ROOT
from tests import clips
from tests.conftest import DEMO_CLIP
from tests.edge import works

SMALL = Limits(memory_mb=400, cpu_s=2, wall_s=8.0, file_mb=1, open_files=32)


@pytest.fixture(scope="module")
def children() -> Children:
    return Children(("tests.edge.works", "brevin.edge.clip_work"))


def test_work_is_done_with_its_progress_and_its_answer(children) -> None:
    child = children.start(works.counts, 3, limits=SMALL)
    said = []
    while (answer := child.answer(wait_s=1.0)) is None:
        said.append(child.progress)
    assert answer.value == [0, 1, 2] and said[-1] == ("counting 3", 1.0)


@pytest.mark.parametrize(
    ("work", "limits"),
    [
        (works.eats_memory, SMALL), (works.writes_much, SMALL), (works.never_ends, replace(SMALL, cpu_s=1)), (works.sleeps, replace(SMALL, wall_s=0.5)),
    ],
    ids=["memory", "file size", "cpu time", "wall time"],
)  # fmt: skip
def test_a_limit_that_is_reached_is_said_as_such(children, tmp_path: Path, work, limits: Limits) -> None:
    began = time.monotonic()
    with pytest.raises(ClipUnusable) as why:
        children.call(work, str(tmp_path / "x"), limits=limits)
    assert why.value.code == "too_costly" and time.monotonic() - began < 7.0
    assert not (tmp_path / "x").exists() or (tmp_path / "x").stat().st_size <= 1_000_000


def test_a_fault_of_its_own_is_told_from_a_limit(children) -> None:
    with pytest.raises(Died, match="ZeroDivisionError"):
        children.call(works.fails, limits=SMALL)
    with pytest.raises(Died, match="exit"):
        children.call(works.crashes, limits=SMALL)
    with pytest.raises(ClipUnusable) as why:
        children.call(works.refuses, limits=SMALL)
    assert (why.value.code, why.value.facts) == ("too_far", {"trunk_px": 12})


def test_a_child_holds_nothing_of_ours(children) -> None:
    os.environ["BREVIN_SECRET_OF_A_TEST"] = "x"
    secret = bytearray(b"a key that lies in our memory")
    assert children.call(works.sees, "a key that lies in our memory", limits=SMALL) == {"secret": False, "sockets": 1}
    del secret


def test_children_end_with_who_started_them(tmp_path: Path) -> None:
    script = """
import time
from brevin.edge.limited import Children, Limits
from tests.edge import works
child = Children(("tests.edge.works",)).start(works.sleeps, "x", limits=Limits(400, 60, 60.0, 1))
print(child.process.pid, flush=True)
time.sleep(60)
"""
    parent = subprocess.Popen(
        [sys.executable, "-c", script], stdout=subprocess.PIPE, text=True, cwd=ROOT, env=os.environ | {"PYTHONPATH": f"{ROOT / 'src'}:{ROOT}"}
    )
    child = int(parent.stdout.readline())
    assert Path(f"/proc/{child}").exists()
    parent.kill()
    parent.wait()
    until = time.monotonic() + 5.0
    while _runs(child) and time.monotonic() < until:
        time.sleep(0.05)
    assert not _runs(child)


def _runs(process: int) -> bool:
    try:
        return Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    except OSError:
        return False


HOSTILE = {
    "a letter": (b"dear teacher, this is a letter\n" * 50, "not_a_video"),
    "a list of neighbouring files": (b"ffconcat version 1.0\nfile /etc/passwd\n", "not_a_video"),
    "a playlist": (b"#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\n/etc/passwd\n", "not_a_video"),
    "a phone's clip without its end": ("half", "half_copied"),
    "a still picture": ("png", "not_a_video"),
    "nothing": (b"", "empty_file"),
    "a page": (b"<html><body>" + b"x" * 4000, "not_a_video"),
}


@pytest.mark.parametrize("name", sorted(HOSTILE))
def test_what_is_no_clip_is_told_apart(children, tmp_path: Path, name: str) -> None:
    content, code = HOSTILE[name]
    path = tmp_path / "sent.mp4"
    if content == "half":
        content = DEMO_CLIP.read_bytes()[:3000]
    if content == "png":
        import cv2

        content = cv2.imencode(".png", clips.room(1)[0])[1].tobytes()
    path.write_bytes(content)
    with pytest.raises(ClipUnusable) as why:
        children.call(looked_over, str(path), limits=PROBE_LIMITS)
    assert why.value.code == code


def test_pictures_larger_than_any_phones_are_refused_before_they_are_decoded(children, tmp_path: Path) -> None:
    import numpy as np

    huge = clips.write(tmp_path / "huge.mp4", [np.zeros((4320, 7680), np.uint8)] * 2, rate=10)
    with pytest.raises(ClipUnusable) as why:
        children.call(looked_over, str(huge), limits=PROBE_LIMITS)
    assert (why.value.code, why.value.facts["width_px"]) == ("too_many_pixels", 7680)


@pytest.mark.parametrize("why", [ClipUnusable("not_a_video"), InvalidInput("bad_days", wanted="a later day")])
def test_why_a_clip_is_none_is_the_same_on_the_other_side_of_a_process(why: ClipUnusable | InvalidInput) -> None:
    there = pickle.loads(pickle.dumps(why))
    assert (type(there), there.code, there.facts) == (type(why), why.code, why.facts)
