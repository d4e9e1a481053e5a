"""A clip as the browser's camera and microphone: what headless Chromium is told to see and hear in place of a room."""

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import av

from brevin.standin import numbered

RATE_HZ = 48_000
CODED_HZ = 30  # the rate at which the browser takes pictures that are coded, whatever the file says
JPEG_QUALITY = {"qmin": "2", "qmax": "4"}


def as_camera(clip: Path, folder: Path, *, smaller: float = 1.0, plain_hz: int = 0, number: bool = False) -> list[str]:
    """Write a clip's pictures and sound as the browser wants them, and return its switches. It begins anew each time the camera is opened.

    smaller: by how much the camera's pictures are smaller than the clip's; plain_hz: so many a second, and not coded, which costs the browser less and the
    disk more (a megabyte a picture); number: each of those says which it is (numbered.py), for who must know when the camera showed what."""
    pictures, sound = folder / f"{clip.stem}.{'y4m' if plain_hz else 'mjpeg'}", folder / f"{clip.stem}.wav"
    if plain_hz:
        _plain_pictures(clip, pictures, smaller, plain_hz, number)
    else:
        _pictures(clip, pictures, smaller)
    _sound(clip, sound)
    return [
        "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream", f"--use-file-for-fake-video-capture={pictures}",
        f"--use-file-for-fake-audio-capture={sound}", "--autoplay-policy=no-user-gesture-required",
    ]  # fmt: skip


def _pictures(clip: Path, target: Path, smaller: float) -> None:
    with av.open(str(target), "w", format="mjpeg") as out:
        written = out.add_stream("mjpeg", rate=CODED_HZ, options=JPEG_QUALITY)
        written.pix_fmt = "yuvj420p"
        written.codec_context.time_base = Fraction(1, CODED_HZ)
        for i, picture in enumerate(_shown(clip, smaller, CODED_HZ, written.pix_fmt)):
            if i == 0:
                written.width, written.height = picture.width, picture.height
            picture.pts, picture.time_base = i, Fraction(1, CODED_HZ)
            out.mux(written.encode(picture))
        out.mux(written.encode(None))


def _plain_pictures(clip: Path, target: Path, smaller: float, rate_hz: int, number: bool) -> None:
    with target.open("wb") as out:
        for i, picture in enumerate(_shown(clip, smaller, rate_hz, "yuv420p")):
            if i == 0:
                out.write(f"YUV4MPEG2 W{picture.width} H{picture.height} F{rate_hz}:1 Ip A1:1 C420jpeg\n".encode())
            planes = picture.to_ndarray(format="yuv420p")
            if number:
                numbered.write(planes[: picture.height], i)
            out.write(b"FRAME\n" + planes.tobytes())


def _shown(clip: Path, smaller: float, rate_hz: int, form: str) -> Iterator[av.VideoFrame]:
    """The clip's pictures at an even rate: a slower clip shows some twice."""
    with av.open(str(clip)) as found:
        video = found.streams.video[0]
        width, height = (2 * round(side / smaller / 2) for side in (video.width, video.height))
        number = 0
        for frame in found.decode(video):
            picture = frame.reformat(width, height, form)
            while number / rate_hz <= float(frame.time or 0.0) + 0.5 / rate_hz:
                yield picture
                number += 1


def _sound(clip: Path, target: Path) -> None:
    with av.open(str(clip)) as found, av.open(str(target), "w", format="wav") as out:
        written = out.add_stream("pcm_s16le", rate=RATE_HZ, layout="mono")
        resampler = av.AudioResampler(format="s16", layout="mono", rate=RATE_HZ)
        samples = 0
        for frame in found.decode(found.streams.audio[0]):
            for piece in resampler.resample(frame):
                piece.pts, piece.time_base = samples, Fraction(1, RATE_HZ)
                samples += piece.samples
                out.mux(written.encode(piece))
        out.mux(written.encode(None))
