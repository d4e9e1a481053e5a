"""Clips for tests, made on the spot: small, of any coding, with pictures given as arrays."""

from collections.abc import Iterable
from fractions import Fraction
from pathlib import Path

import av
import numpy as np

CODECS = {"h264": ("libx264", "mp4"), "hevc": ("libx265", "mp4"), "vp8": ("libvpx", "webm"), "vp9": ("libvpx-vp9", "webm"), "mjpeg": ("mjpeg", "avi")}

QUICK = {
    "libx264": {"preset": "ultrafast"},
    "libvpx": {"deadline": "realtime", "cpu-used": "-8", "b": "1M"},  # at a fixed effort and rate: else a quick machine writes fewer bytes than a slow one
    "libx265": {"preset": "ultrafast"},
    "libvpx-vp9": {"deadline": "realtime", "cpu-used": "8"},
}


def write(
    path: Path, pictures: Iterable[np.ndarray], *, codec: str = "h264", times_ms: list[int] | None = None, rate: int = 25, sound: bool = False,
    fast: bool = False, live: bool = False,
) -> Path:  # fmt: skip
    """Grey or RGB pictures as a clip. times_ms: presentation times, else even; fast: the table of contents comes first; live: as a browser writes it, which
    tells neither length nor rate."""
    encoder, container = CODECS[codec]
    with av.open(str(path), "w", format=container, options=({"movflags": "faststart"} if fast else {}) | ({"live": "1"} if live else {})) as out:
        stream = None
        audio = out.add_stream("aac" if container == "mp4" else "libopus", rate=48000, layout="mono") if sound else None
        for i, picture in enumerate(pictures):
            kind = "rgb24" if picture.ndim == 3 else "gray"
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(picture), format=kind).reformat(format="yuvj420p" if codec == "mjpeg" else "yuv420p")
            if stream is None:
                stream = out.add_stream(encoder, rate=rate, options=QUICK.get(encoder, {}))
                stream.width, stream.height, stream.pix_fmt = frame.width, frame.height, frame.format.name
                stream.codec_context.time_base = Fraction(1, rate) if times_ms is None else Fraction(1, 1000)
            frame.pts = i if times_ms is None else times_ms[i]
            frame.time_base = stream.codec_context.time_base
            out.mux(stream.encode(frame))
        if stream is not None:
            out.mux(stream.encode(None))
        if audio is not None:
            _hush(out, audio)
    return path


def _hush(out: av.container.OutputContainer, audio: av.AudioStream) -> None:
    for i in range(20):
        frame = av.AudioFrame.from_ndarray(np.zeros((1, 960), np.float32), format="fltp", layout="mono")
        frame.sample_rate, frame.pts = 48000, 960 * i
        out.mux(audio.encode(frame))
    out.mux(audio.encode(None))


def sound_only(path: Path) -> Path:
    with av.open(str(path), "w", format="mp4") as out:
        _hush(out, out.add_stream("aac", rate=48000, layout="mono"))
    return path


def room(count: int, *, height: int = 180, width: int = 320) -> list[np.ndarray]:
    """An empty room with a little noise."""
    random = np.random.default_rng(1)
    wall = np.full((height, width), 150.0) + 20 * np.sin(np.arange(width) / 40)[None]
    return [np.clip(wall + random.normal(0, 2, wall.shape), 0, 255).astype(np.uint8) for _ in range(count)]


def pictures_of(path: Path, count: int, *, step: int = 1) -> list[np.ndarray]:
    """The first pictures of a clip in colour."""
    found = []
    with av.open(str(path)) as container:
        for i, frame in enumerate(container.decode(video=0)):
            if i % step == 0:
                found.append(frame.to_ndarray(format="rgb24"))
            if len(found) == count:
                break
    return found


def without_sound(source: Path, target: Path) -> Path:
    """The same pictures, copied as they are coded."""
    return _copied(source, target, sound=False)


def beginning(source: Path, target: Path, to_s: float) -> Path:
    """The first seconds, copied as they are coded: for tests that need a clip read and not what is in it."""
    return _copied(source, target, to_s=to_s)


def lighter(source: Path, target: Path, to_s: float, columns: slice) -> Path:
    """The first seconds with every second picture, of those columns alone, and the sound as it is: for tests that need a breath read, and often."""
    with av.open(str(source)) as found, av.open(str(target), "w") as out:
        film, sound = found.streams.video[0], found.streams.audio[0]
        picture, heard = out.add_stream("libx264", rate=film.average_rate / 2, options=QUICK["libx264"] | {"crf": "20"}), out.add_stream_from_template(sound)
        picture.width, picture.height = columns.stop - columns.start, film.height
        for packet in found.demux(film, sound):
            if packet.dts is None or float(packet.dts * packet.time_base) >= to_s:
                continue
            if packet.stream is sound:
                packet.stream = heard
                out.mux(packet)
                continue
            for frame in packet.decode():
                if round(frame.time * float(film.average_rate)) % 2 == 0:
                    half = av.VideoFrame.from_ndarray(np.ascontiguousarray(frame.to_ndarray(format="rgb24")[:, columns]), format="rgb24")
                    half.pts, half.time_base = frame.pts, frame.time_base
                    out.mux(picture.encode(half.reformat(format="yuv420p")))
        out.mux(picture.encode(None))
    return target


def _copied(source: Path, target: Path, *, sound: bool = True, to_s: float | None = None) -> Path:
    with av.open(str(source)) as found, av.open(str(target), "w") as out:
        wanted = [stream for stream in found.streams if stream.type == "video" or (sound and stream.type == "audio")]
        copies = {stream.index: out.add_stream_from_template(stream) for stream in wanted}
        for packet in found.demux(wanted):
            if packet.dts is not None and (to_s is None or float(packet.dts * packet.time_base) < to_s):
                packet.stream = copies[packet.stream.index]
                out.mux(packet)
    return target
