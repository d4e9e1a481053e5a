"""Things drawn into the picture of a hold: each is where it is said to be, and the page tells what became of every row."""

import json
from pathlib import Path

import av
import numpy as np
import pytest

from brevin.bench.in_the_way import CUT_OFF, THINGS, Beside, Scene, cut_off, put_in, section, shares, teachers_hand, words_of
from brevin.ops import demo
from tests.clips import beginning
from tests.test_bench_hold import verdict

POINTS = {
    "nose": (200.0, 100.0), "shoulder": (190.0, 150.0), "hip": (180.0, 290.0), "wrist_l": (250.0, 130.0), "wrist_r": (260.0, 135.0),
    "elbow_l": (230.0, 190.0), "elbow_r": (235.0, 195.0),
}  # fmt: skip


def scene(*, ahead: float = 1.0, t_s: float = 0.0) -> Scene:
    turned = {name: np.array(at if ahead > 0 else (520.0 - at[0], at[1])) for name, at in POINTS.items()}
    return Scene(np.full((420, 520, 3), 150, np.uint8), turned, ahead, (205, 160, 70), t_s)


@pytest.mark.parametrize("thing", THINGS)
def test_a_thing_is_drawn_before_the_player_whichever_way_they_face(thing: str) -> None:
    seen = [scene(ahead=ahead) for ahead in (1.0, -1.0)]
    for one in seen:
        THINGS[thing](one)
    right, left = ((one.rgb != 150).any(axis=2) for one in seen)
    assert right.any() and right[:, :170].sum() == 0, "nothing of it is behind the player"
    assert left.sum() == pytest.approx(right.sum(), rel=0.05) and left[:, 350:].sum() == 0


def test_a_teachers_hand_comes_and_goes_and_a_cut_off_picture_ends_before_the_instrument() -> None:
    there, gone = scene(t_s=1.0), scene(t_s=3.0)
    teachers_hand(there)
    teachers_hand(gone)
    assert (there.rgb != 150).any() and not (gone.rgb != 150).any()
    ends_at = 200 + 0.45 * there.trunk_px
    for ahead in (1.0, -1.0):
        left = cut_off(scene(ahead=ahead))
        assert left.shape[0] == 420 and left.shape[1] == pytest.approx(ends_at, abs=2) and left.shape[1] % 2 == 0


def test_a_clip_with_a_thing_in_it_keeps_its_length_and_its_sound(tmp_path: Path) -> None:
    clip = beginning(demo.CLIPS / "seated-trumpet-raised.mp4", tmp_path / "clip.mp4", to_s=0.6)
    truth = json.loads((demo.CLIPS / "seated-trumpet-raised.json").read_text())
    put_in(clip, truth, tmp_path / "other.mp4", "a music stand before it")
    pictures = []
    for path in (clip, tmp_path / "other.mp4"):
        with av.open(str(path)) as opened:
            assert opened.streams.audio
            pictures.append([frame.to_ndarray(format="gray").astype(int) for frame in opened.decode(video=0)])
    before, after = pictures
    assert len(before) == len(after) and np.abs(before[3] - after[3]).max() > 60 and np.median(np.abs(before[3] - after[3])) < 6
    put_in(clip, truth, tmp_path / "cut.mp4", CUT_OFF)
    with av.open(str(tmp_path / "cut.mp4")) as opened:
        assert opened.streams.video[0].width < 0.8 * before[0].shape[1] and opened.streams.video[0].height == before[0].shape[0]


def test_a_row_says_the_same_or_nothing_or_another_word() -> None:
    report = type(
        "Report", (), {"verdicts": [verdict("axis_level", side="low"), verdict("head_forward", outside=False), verdict("body_still", "unreadable")]}
    )()
    without = words_of(report, ("axis_level", "head_forward", "body_still"))  # pyrefly: ignore[bad-argument-type]
    assert without == {"axis_level": ("marked", "low"), "head_forward": ("not marked", ""), "body_still": ("not readable", "")}
    assert words_of(report, ("axis_level",)) == {"axis_level": ("marked", "low")}  # pyrefly: ignore[bad-argument-type]
    turned = Beside("hold-00", "gloves", without, {"axis_level": ("marked", "high"), "head_forward": ("not marked", "")})
    assert turned.rows == [("axis_level", "another word"), ("head_forward", "kept")], "what could not be told without it is not counted"
    gone = Beside("hold-01", "gloves", without, {"head_forward": ("not readable", "")})
    assert gone.rows == [("axis_level", "not readable"), ("head_forward", "not readable")]
    assert shares([turned, gone]) == {"kept": 0.25, "not readable": 0.5, "another word": 0.25}
    assert "| gloves | 4 | 1 | 2 | axis_level of hold-00 |" in section([turned, gone])
