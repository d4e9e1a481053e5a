"""A clip that a camera showed, late and over and over, held against the clip itself by the numbers in its pictures."""

from pathlib import Path

import av
import numpy as np
import pytest

from brevin.bench.filmed import pairs_of, shown_in
from brevin.bench.filming import CAMERA_HZ
from brevin.edge.video import probe
from brevin.standin import numbered
from brevin.standin.device import as_camera
from tests.conftest import DEMO_CLIP

LENGTH_S = 26.0
STARTS_S = (3.7, 10.9, 18.0)


def reading(starts_s: list[float], **clip: float) -> dict:
    return {"clip": clip, "breaths": [{"inhale_start_s": s, "exhale_start_s": s + 2.0, "pattern": "low"} for s in starts_s]}


def camera(from_s: float, to_s: float, *, slower: float = 1.0, began_s: float = 0.0) -> np.ndarray:
    """What a camera that shows everything so many times slower shows between two moments of its clip, filmed from began_s on."""
    shown_s = np.arange(from_s, to_s, 0.05)
    return np.column_stack([began_s + (shown_s - from_s) * slower, shown_s])


@pytest.mark.parametrize(("from_s", "to_s"), [(0.0, 26.0), (5.2, 26.0), (5.2, 40.0), (20.1, 45.0)])
@pytest.mark.parametrize("slower", [1.0, 1.05])
def test_every_breath_that_is_shown_whole_is_looked_for_where_it_is_due(from_s: float, to_s: float, slower: float) -> None:
    shown = [s + turn * LENGTH_S for turn in (0, 1) for s in STARTS_S]
    there = [s for s in shown if from_s + 0.5 < s and s + 2.5 < to_s]
    filmed = reading([(s - from_s) * slower + 0.02 for s in there])
    pairs = pairs_of(reading(list(STARTS_S), duration_s=LENGTH_S), filmed, camera(from_s, to_s, slower=slower))
    assert [found["inhale_start_s"] - due["inhale_start_s"] for due, found in pairs] == pytest.approx([0.02] * len(there), abs=1e-6)
    late = [found["exhale_start_s"] - due["exhale_start_s"] for due, found in pairs]
    assert late == pytest.approx([0.02 - 2.0 * (slower - 1.0)] * len(there), abs=1e-6), "what the reading has wrong is told apart from a late camera"


def test_a_breath_that_is_not_read_is_said_and_one_too_many_is_none_of_them() -> None:
    filmed = reading([3.7, 7.0, 18.0])
    filmed["breaths"].append({"inhale_start_s": None, "exhale_start_s": 25.0, "pattern": "unclear"})
    pairs = pairs_of(reading(list(STARTS_S), duration_s=LENGTH_S), filmed, camera(0.0, 26.0))
    assert [found and found["inhale_start_s"] for _, found in pairs] == [3.7, None, 18.0]
    assert pairs_of(reading([], duration_s=LENGTH_S), filmed, camera(0.0, 26.0)) == []


@pytest.mark.parametrize("number", [0, 1, 2, 255, 256, 788, 4095])
def test_a_number_is_read_from_a_smaller_picture_with_noise_on_it(number: int) -> None:
    picture = np.full((540, 960), 128, np.uint8)
    assert numbered.read(picture) is None
    numbered.write(picture, number)
    worse = picture[::2, ::2] + np.random.default_rng(number).normal(0.0, 12.0, (270, 480))
    assert numbered.read(np.clip(worse, 0, 255).astype(np.uint8)) == number


def test_what_a_filmed_clip_shows_is_read_picture_by_picture_over_where_it_began_anew(tmp_path: Path) -> None:
    clip = tmp_path / "filmed.webm"
    numbers = [*range(50, 60), *range(20)]  # a clip of 60 pictures, from the fiftieth on
    with av.open(str(clip), "w") as out:
        written = out.add_stream("libvpx", rate=CAMERA_HZ)
        written.width, written.height, written.pix_fmt, written.bit_rate = 320, 240, "yuv420p", 2_000_000
        for number in numbers:
            planes = np.full((360, 320), 128, np.uint8)
            numbered.write(planes[:240], number)
            out.mux(written.encode(av.VideoFrame.from_ndarray(planes, format="yuv420p")))
        out.mux(written.encode(None))
    shown = shown_in(clip, 60 / CAMERA_HZ)
    assert shown[:, 1] == pytest.approx(np.arange(50, 80) / CAMERA_HZ) and shown[:, 0] == pytest.approx(np.arange(30) / CAMERA_HZ, abs=0.002)


def test_the_camera_shows_each_picture_plain_and_with_its_number(tmp_path: Path) -> None:
    as_camera(DEMO_CLIP, tmp_path, smaller=3.0, plain_hz=CAMERA_HZ, number=True)
    head, *pictures = (tmp_path / f"{DEMO_CLIP.stem}.y4m").read_bytes().split(b"FRAME\n")
    assert head.startswith(b"YUV4MPEG2 W320 H180 F25:1")
    lumas = [np.frombuffer(picture, np.uint8)[: 320 * 180].reshape(180, 320) for picture in pictures]
    assert [numbered.read(luma) for luma in lumas] == list(range(len(lumas))) and len(lumas) / CAMERA_HZ == pytest.approx(probe(DEMO_CLIP).duration_s, abs=0.1)
