from fractions import Fraction
from pathlib import Path

import av
import numpy as np
import pytest

from brevin.core.errors import ClipUnusable
from brevin.edge import transcode
from brevin.edge.transcode import playable, played_as_is
from brevin.edge.video import WORK_SIDE_PX, probe, sound, video_frames
from tests import clips
from tests.conftest import DEMO_CLIP


def ladder(count: int, size: tuple[int, int] = (64, 96)) -> list[np.ndarray]:
    """Pictures whose grey says which one they are."""
    return [np.full(size, 20 + 3 * i, np.uint8) for i in range(count)]


def order(path: Path) -> list[int]:
    return [round((float(f.luma.mean()) - 20) / 3) for f in video_frames(path, until_s=99, fastest_hz=200)]


@pytest.mark.parametrize("codec", sorted(clips.CODECS))
def test_every_coding_is_decoded_in_order_with_its_facts(codec: str, tmp_path: Path) -> None:
    path = clips.write(tmp_path / f"clip.{clips.CODECS[codec][1]}", ladder(30), codec=codec)
    facts = probe(path)
    assert (facts.width_px, facts.height_px, facts.has_sound) == (96, 64, False)
    assert facts.frame_rate_hz == pytest.approx(25, rel=0.05) and facts.duration_s == pytest.approx(1.2, abs=0.1)
    seen = order(path)
    assert len(seen) == 30 and seen == sorted(seen) and abs(seen[-1] - 29) <= 2


def test_uneven_times_are_kept_exactly(tmp_path: Path) -> None:
    times = [0, 40, 75, 160, 200, 230, 400, 420, 500, 640]
    path = clips.write(tmp_path / "uneven.mp4", ladder(10), times_ms=times)
    seen = [round(1000 * f.t_s) for f in video_frames(path, until_s=9, fastest_hz=200)]
    assert seen == times


def test_time_starts_at_the_first_picture_and_ends_where_asked(tmp_path: Path) -> None:
    path = clips.write(tmp_path / "late.mp4", ladder(20), times_ms=[500 + 40 * i for i in range(20)])
    seen = [f.t_s for f in video_frames(path, until_s=0.4, fastest_hz=200)]
    assert seen[0] == 0 and seen[-1] <= 0.4 and len(seen) == 11


def test_stamps_that_jump_back_stand_still_or_leap_ahead_cost_only_their_own_picture(monkeypatch: pytest.MonkeyPatch) -> None:
    from brevin.edge.video import Stamps, _in_order

    class Frame:
        def __init__(self, time: float | None) -> None:
            self.time = time

    stamps = Stamps()
    given = [0.0, 0.04, 0.08, 0.02, 0.12, 0.12, 0.16, 90.0, 0.20, None, 0.24, 0.28]
    kept = [f.time for f in _in_order([Frame(t) for t in given], stamps)]
    assert kept == [0.0, 0.04, 0.08, 0.12, 0.16, 0.20, 0.24, 0.28] and stamps.left_out == 4


def test_faster_pictures_than_needed_are_left_out(tmp_path: Path) -> None:
    path = clips.write(tmp_path / "fast.mp4", ladder(60), rate=60)
    assert 29 <= len(list(video_frames(path, until_s=9, fastest_hz=30))) <= 31


def test_a_large_picture_is_worked_on_small(tmp_path: Path) -> None:
    path = clips.write(tmp_path / "large.mp4", ladder(3, (2160, 3840)))
    frame = next(video_frames(path, until_s=9, fastest_hz=30))
    assert max(frame.luma.shape) == WORK_SIDE_PX and frame.rgb().shape == (*frame.luma.shape, 3)
    assert probe(path).width_px == 3840


def test_a_turned_clip_is_shown_upright(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    from brevin.edge import video

    picture = np.zeros((40, 60), np.uint8)
    picture[:10] = 200
    assert video._upright(picture, 0).shape == (40, 60)
    turned = video._upright(picture, 90)
    assert turned.shape == (60, 40) and turned[:, :10].mean() == pytest.approx(200)
    assert video._upright(picture, -90).shape == (60, 40)


@pytest.mark.parametrize(("name", "content", "code"), [("text.mp4", b"dear teacher, this is a letter\n" * 40, "not_a_video"), ("empty.mp4", b"", "empty_file")])
def test_what_is_no_video_is_refused_by_its_reason(name: str, content: bytes, code: str, tmp_path: Path) -> None:
    path = tmp_path / name
    path.write_bytes(content)
    with pytest.raises(ClipUnusable) as why:
        probe(path)
    assert why.value.code == code


def test_sound_without_picture_is_told_apart(tmp_path: Path) -> None:
    with pytest.raises(ClipUnusable) as why:
        probe(clips.sound_only(tmp_path / "song.mp4"))
    assert why.value.code == "sound_only"


def test_a_file_that_breaks_off_gives_what_it_holds(tmp_path: Path) -> None:
    whole = clips.write(tmp_path / "whole.webm", clips.room(60), codec="vp8")
    cut = tmp_path / "cut.webm"
    cut.write_bytes(whole.read_bytes()[: whole.stat().st_size * 4 // 5])
    count = len(list(video_frames(cut, until_s=9, fastest_hz=60)))
    assert 5 < count < 60


def test_sound_lies_on_the_clock_of_the_picture() -> None:
    heard = sound(DEMO_CLIP, until_s=60)
    assert heard is not None and abs(heard.starts_s) < 0.1
    assert len(heard.samples) / heard.rate_hz == pytest.approx(probe(DEMO_CLIP).duration_s, abs=0.3)
    assert sound(DEMO_CLIP, until_s=2.0) is not None


def test_the_original_is_played_where_a_browser_can(tmp_path: Path) -> None:
    assert played_as_is(DEMO_CLIP) == "video/mp4"
    assert playable(DEMO_CLIP, folder=tmp_path) == (DEMO_CLIP.name, "video/mp4")


@pytest.mark.parametrize("codec", ["hevc", "mjpeg"])
def test_a_copy_is_made_where_it_cannot_with_the_same_times(codec: str, tmp_path: Path) -> None:
    times = [0, 40, 80, 200, 240, 320, 360, 400] if codec == "hevc" else None
    path = clips.write(tmp_path / f"odd.{clips.CODECS[codec][1]}", clips.room(8), codec=codec, times_ms=times)
    assert played_as_is(path) is None
    name, kind = playable(path, folder=tmp_path)
    assert kind == "video/mp4" and played_as_is(tmp_path / name) == "video/mp4" and not list(tmp_path.glob("*.part"))
    copied = [round(1000 * f.t_s) for f in video_frames(tmp_path / name, until_s=9, fastest_hz=200)]
    assert len(copied) == 8 and (times is None or copied == pytest.approx(times, abs=2))


def filmed(path: Path, *, form: str, video: str, audio: str, late_s: float = 0.0, length_s: float = 4.0, live: bool = False) -> Path:
    """A clip with a tone, whose pictures begin late. live: written as it is filmed, without a length."""
    rate_hz = 48000 if audio == "libopus" else 44100
    with av.open(str(path), "w", format=form, options={"live": "1"} if live else {}) as out:
        quick = {"deadline": "realtime", "cpu-used": "8"} if video == "libvpx" else {}
        seen, heard = out.add_stream(video, rate=25, options=quick), out.add_stream(audio, rate=rate_hz, layout="mono")
        seen.width, seen.height, seen.pix_fmt = 320, 240, "yuv420p"
        seen.codec_context.time_base = Fraction(1, 1000)
        samples, kind = {"aac": (1024, "fltp"), "libopus": (960, "flt")}.get(audio, (1152, "fltp"))
        for i in range(int(length_s * rate_hz / samples)):
            frame = av.AudioFrame.from_ndarray((0.2 * np.sin(np.arange(samples) / 9)).astype(np.float32)[None], format=kind, layout="mono")
            frame.sample_rate, frame.pts, frame.time_base = rate_hz, i * samples, Fraction(1, rate_hz)
            out.mux(heard.encode(frame))
        out.mux(heard.encode(None))
        for i in range(int(25 * (length_s - late_s))):
            picture = av.VideoFrame.from_ndarray(np.full((240, 320, 3), 40 + i, np.uint8), format="rgb24").reformat(format="yuv420p")
            picture.pts, picture.time_base = round(1000 * late_s) + 40 * i, Fraction(1, 1000)
            out.mux(seen.encode(picture))
        out.mux(seen.encode(None))
    return path


@pytest.mark.parametrize(
    ("form", "video", "audio", "late_s"), [("avi", "mpeg4", "libmp3lame", 0.0), ("mpegts", "libx264", "aac", 0.0), ("mp4", "libx264", "aac", 0.6)]
)
def test_a_copy_has_all_pictures_and_sound_and_begins_with_the_first_picture(form: str, video: str, audio: str, late_s: float, tmp_path: Path) -> None:
    source = filmed(tmp_path / f"c.{form}", form=form, video=video, audio=audio, late_s=late_s)
    name, kind = playable(source, folder=tmp_path)
    assert (name, kind) == ("c.play.mp4", "video/mp4"), "as it is, its moments would not be those of the reading"
    with av.open(str(tmp_path / name)) as copy:
        assert float(copy.streams.video[0].start_time * copy.streams.video[0].time_base) == pytest.approx(0.0, abs=0.005)
        assert float(copy.streams.video[0].duration * copy.streams.video[0].time_base) == pytest.approx(4.0 - late_s, abs=0.1)
        assert float(copy.streams.audio[0].duration * copy.streams.audio[0].time_base) == pytest.approx(4.0 - late_s, abs=0.15)
    read, played = ([f.t_s for f in video_frames(path, until_s=9, fastest_hz=60)] for path in (source, tmp_path / name))
    assert played == pytest.approx(read, abs=0.005)


@pytest.mark.parametrize("late_s", [0.0, 0.6])
def test_a_browsers_recording_is_packed_anew_with_its_length_and_not_coded_anew(late_s: float, tmp_path: Path) -> None:
    source = filmed(tmp_path / "c.webm", form="webm", video="libvpx", audio="libopus", late_s=late_s, live=True)
    with av.open(str(source)) as recording:
        assert recording.duration is None or recording.duration < 0
        coded = [bytes(packet) for packet in recording.demux(video=0) if packet.pts is not None]
    assert played_as_is(source) is None
    name, kind = playable(source, folder=tmp_path)
    assert (name, kind) == ("c.play.webm", "video/webm") and played_as_is(tmp_path / name) == kind and not list(tmp_path.glob("*.part"))
    assert playable(source, folder=tmp_path, known=name) == (name, kind)
    with av.open(str(tmp_path / name)) as copy:
        assert copy.duration / av.time_base == pytest.approx(4.0 - late_s, abs=0.1)
        assert [bytes(packet) for packet in copy.demux(video=0) if packet.pts is not None] == coded
    heard = sound(tmp_path / name, until_s=9)
    assert heard is not None and heard.starts_s == pytest.approx(0.0, abs=0.05) and len(heard.samples) / heard.rate_hz == pytest.approx(4.0 - late_s, abs=0.1)
    read, played = ([f.t_s for f in video_frames(path, until_s=9, fastest_hz=60)] for path in (source, tmp_path / name))
    assert played == pytest.approx(read, abs=0.002)


def test_a_recording_that_cannot_be_packed_anew_is_coded_anew(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(source: Path, target: Path) -> None:
        target.write_bytes(b"half")
        raise av.error.InvalidDataError(1, "times")

    source = filmed(tmp_path / "c.webm", form="webm", video="libvpx", audio="libopus", live=True, length_s=1.0)
    monkeypatch.setattr(transcode, "_repack", broken)
    name, kind = playable(source, folder=tmp_path)
    assert (name, kind) == ("c.play.mp4", "video/mp4") and played_as_is(tmp_path / name) == kind
    assert sorted(path.name for path in tmp_path.iterdir()) == ["c.play.mp4", "c.webm"], "nothing half-written stays"


def test_a_copy_of_a_turned_clip_stands_upright(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = clips.write(tmp_path / "turned.mp4", clips.room(6), codec="hevc")
    first = transcode.first_picture(path)

    class Turned:
        """The first picture as a phone that lay on its side tells of it."""

        rotation, time, width, height = 90, first.time, first.width, first.height

    monkeypatch.setattr(transcode, "first_picture", lambda _: Turned)
    monkeypatch.setattr(transcode, "_played", lambda _: (None, False))
    name, _ = playable(path, folder=tmp_path)
    with av.open(str(tmp_path / name)) as copy:
        shown = next(copy.decode(video=0))
        assert (shown.width, shown.height) == (first.height, first.width)
        upright = np.rot90(first.to_ndarray(format="gray"), k=1)
        assert np.corrcoef(shown.to_ndarray(format="gray").ravel(), upright.ravel())[0, 1] > 0.8


def test_a_single_picture_is_no_film(tmp_path: Path) -> None:
    with pytest.raises(ClipUnusable, match="still_picture"):
        probe(clips.write(tmp_path / "one.avi", clips.room(1), codec="mjpeg"))
