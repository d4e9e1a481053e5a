"""The stand-in clips, whose truth is planted, read from the picture on."""

from pathlib import Path

import numpy as np
import pytest

from brevin.core.evidence import evidence, unpacked
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.core.verdict.reasons import reason_text
from brevin.edge import look as looking
from brevin.edge.look import look
from brevin.edge.observers.people import OFTEN_S, SELDOM_S
from brevin.ops.settings import ROOT, model_path
from tests import clips
from tests.sightings import saved, thinned

FOLDER = ROOT / "demo" / "clips"
MODEL = model_path(ROOT)


def report_of(path: Path) -> Report:
    return read(look(path, MODEL), Task())


def test_what_is_seen_of_a_clip_is_what_was_saved_of_it() -> None:
    """The saved sightings that most tests read, and the evidence that the demo ships, are what a look gives today."""
    name = "seated-chest-high"
    whole, kept = look(FOLDER / f"{name}.mp4", MODEL), saved(name)
    fresh, shipped = thinned(whole), unpacked((FOLDER / f"{name}.evidence").read_bytes())
    for lane in ("abdomen", "chest", "shoulder"):
        now = getattr(evidence(whole).players[0].traces, lane)
        assert getattr(shipped.players[0].traces, lane) == pytest.approx(now, abs=0.05), lane
    assert (fresh.clip, fresh.view, fresh.position, len(fresh.poses), fresh.player.others) == (
        kept.clip, kept.view, kept.position, len(kept.poses), kept.player.others,
    )  # fmt: skip
    assert fresh.t_s == pytest.approx(kept.t_s, abs=1e-4) and fresh.player.trunk_px == pytest.approx(kept.player.trunk_px, rel=0.01)
    for part in ("front", "back"):
        assert getattr(fresh, part).travel_pct == pytest.approx(getattr(kept, part).travel_pct, abs=0.05)
    moved = [np.median(s.points.move_pct[:, s.points.on_body], axis=1) for s in (fresh, kept)]
    assert moved[0] == pytest.approx(moved[1], abs=0.05)
    assert fresh.picture.clear == pytest.approx(kept.picture.clear, rel=0.05) and fresh.picture.room_pct == pytest.approx(kept.picture.room_pct, abs=0.05)
    times = [s.t_s for s in fresh.poses]
    assert max(np.diff(times)) <= SELDOM_S + OFTEN_S + 0.05, "dense enough for segments, which change only by movement"


AROUND = slice(230, 730)  # columns of the player
SLOW_HZ = 12  # every second picture of a demo clip, where it does not matter how one moves


def beginning(name: str, count: int = 45) -> list[np.ndarray]:
    """Every second of the first pictures of a demo clip."""
    return clips.pictures_of(FOLDER / f"{name}.mp4", count, step=2)


def test_a_second_person_is_followed_as_well_and_may_be_the_one_who_is_read(tmp_path: Path) -> None:
    import cv2

    beside = []
    for picture in beginning("standing-full-early", 50):
        large = picture[:, 360:760]
        small = cv2.resize(large, None, fx=0.8, fy=0.8)
        beside.append(np.concatenate([cv2.copyMakeBorder(small, 540 - len(small), 0, 0, 400 - small.shape[1], cv2.BORDER_REPLICATE), large], axis=1))
    seen = look(clips.write(tmp_path / "two.mp4", beside, rate=SLOW_HZ), MODEL)
    assert seen.player is not None and seen.player.others == 1 and seen.refused == ()
    [other] = seen.others
    assert other.player.trunk_px < seen.player.trunk_px and other.player.hip_px[0] < seen.player.hip_px[0]
    assert other.front is not None and len(other.t_s) == len(seen.t_s)


def test_an_empty_room_is_refused(tmp_path: Path) -> None:
    report = report_of(clips.write(tmp_path / "room.mp4", clips.room(50), rate=SLOW_HZ))
    assert not report.readable and [r.code for r in report.reasons] == ["no_person"]


def test_a_dark_room_is_told_from_an_empty_one(tmp_path: Path) -> None:
    dark = [(picture[:, AROUND] * 0.05).astype(np.uint8) for picture in beginning("seated-chest-high")]
    assert [r.code for r in report_of(clips.write(tmp_path / "dark.mp4", dark, rate=SLOW_HZ)).reasons] == ["too_dark"]


def test_a_clip_of_one_second_is_refused(tmp_path: Path) -> None:
    short = clips.pictures_of(FOLDER / "seated-chest-high.mp4", 25)
    report = report_of(clips.write(tmp_path / "short.mp4", short))
    assert not report.readable and [r.code for r in report.reasons] == ["too_short"]


def test_two_people_who_overlap_are_refused(tmp_path: Path) -> None:
    pictures = beginning("standing-full-early")
    beside = [np.concatenate([p[:, 300:520], p[:, 380:660]], axis=1)[:, :480] for p in pictures]
    report = report_of(clips.write(tmp_path / "two.mp4", beside, rate=SLOW_HZ))
    assert not report.readable and report.reasons[0].code in ("people_overlap", "player_unclear")


def test_a_close_up_is_refused_for_its_trunk(tmp_path: Path) -> None:
    pictures = [p[:200, 330:690] for p in beginning("seated-chest-high")]
    report = report_of(clips.write(tmp_path / "close.mp4", pictures, rate=SLOW_HZ))
    assert not report.readable and report.reasons[0].code in ("trunk_cut_off", "no_person")


def test_a_long_recording_is_read_from_its_start_in_bounded_memory(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(looking, "LONGEST_S", 6.0)
    sighting = look(FOLDER / "standing-full-early.mp4", MODEL)
    assert sighting.t_s[-1] <= 6.0 and [code for code, _ in sighting.notes] == ["long_clip"]


def test_a_4k_clip_is_read_with_a_word_of_advice(tmp_path: Path) -> None:
    import cv2

    large = [cv2.resize(p, (3840, 2160)) for p in clips.pictures_of(FOLDER / "seated-chest-high.mp4", 14, step=6)]
    report = report_of(clips.write(tmp_path / "large.mp4", large, rate=4))
    assert "large_picture" in [r.code for r in report.reasons] and report.clip.width_px == 3840
    assert report.player is not None and report.scale.trunk_px > 500, "in pixels of the clip, not of the picture worked on"


def test_a_clip_that_was_not_copied_whole_is_read_as_far_as_it_goes_and_says_so(tmp_path: Path) -> None:
    whole = clips.write(tmp_path / "whole.mp4", (picture[:, AROUND] for picture in beginning("seated-chest-high", 84)), rate=SLOW_HZ, fast=True)
    part = tmp_path / "part.mp4"
    part.write_bytes(whole.read_bytes()[: int(0.55 * whole.stat().st_size)])
    [(code, facts)] = [note for note in look(part, MODEL).notes if note[0] == "breaks_off"]
    assert facts["duration_s"] == 7 and 3 <= facts["read_s"] <= 5
    assert "copy it again" in reason_text(code, facts).lower()
    assert look(whole, MODEL).notes == ()


@pytest.mark.parametrize("width", [530, 854])
def test_any_width_of_picture_is_read(width: int, tmp_path: Path) -> None:
    """Rows that are not aligned once ended the whole program."""
    pictures = [p[:, 480 - width // 2 : 480 + width // 2] for p in beginning("seated-chest-high")]
    report = report_of(clips.write(tmp_path / "odd.mp4", pictures, rate=SLOW_HZ))
    assert report.view == "side-right" and report.player is not None


def test_progress_grows_to_the_end(tmp_path: Path) -> None:
    said: list[tuple[str, float]] = []
    look(clips.beginning(FOLDER / "seated-chest-high.mp4", tmp_path / "short.mp4", 5.0), MODEL, progress=lambda stage, share: said.append((stage, share)))
    shares = [share for _, share in said]
    assert min(np.diff(shares)) > -1e-9 and shares[0] == 0 and shares[-1] > 0.9 and len({stage for stage, _ in said}) >= 4


def test_the_rate_of_a_browsers_recording_is_that_of_the_whole_and_not_of_its_first_pictures(tmp_path: Path) -> None:
    times_ms = [0, 170, 340, 510, 680, *range(720, 4200, 40)]  # a camera that is slow to begin
    recording = clips.write(tmp_path / "c.webm", clips.room(len(times_ms)), codec="vp8", times_ms=times_ms, live=True)
    assert look(recording, MODEL).clip.frame_rate_hz == pytest.approx(25.0, abs=0.5)
