"""A clip as the browser's camera and microphone: what headless Chromium is told to see and hear in place of a room."""

from fractions import Fraction
from pathlib import Path

import av

RATE_HZ = 48_000
CAMERA_HZ = 30  # whatever the file says, the browser takes its pictures at this rate
JPEG_QUALITY = {"qmin": "2", "qmax": "4"}


def as_camera(clip: Path, folder: Path, *, smaller: float = 1.0) -> list[str]:
    """Write a clip's pictures and sound as the browser wants them, and return its switches. It begins anew each time the camera is opened.

    smaller: by how much the camera's pictures are smaller than the clip's."""
    pictures, sound = folder / f"{clip.stem}.mjpeg", folder / f"{clip.stem}.wav"
    _pictures(clip, pictures, smaller)
    _sound(clip, sound)
    return [
        "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream", f"--use-file-for-fake-video-capture={pictures}",
        f"--use-file-for-fake-audio-capture={sound}", "--autoplay-policy=no-user-gesture-required",
    ]  # fmt: skip


def _pictures(clip: Path, target: Path, smaller: float) -> None:
    with av.open(str(clip)) as found, av.open(str(target), "w", format="mjpeg") as out:
        video = found.streams.video[0]
        written = out.add_stream("mjpeg", rate=CAMERA_HZ, options=JPEG_QUALITY)
        written.width, written.height = (2 * round(side / smaller / 2) for side in (video.width, video.height))
        written.pix_fmt = "yuvj420p"
        written.codec_context.time_base = Fraction(1, CAMERA_HZ)
        number = 0
        for frame in found.decode(video):
            picture = frame.reformat(written.width, written.height, "yuvj420p")
            while number / CAMERA_HZ <= float(frame.time or 0.0) + 0.5 / CAMERA_HZ:  # a slower clip shows some pictures twice
                picture.pts, picture.time_base = number, Fraction(1, CAMERA_HZ)
                out.mux(written.encode(picture))
                number += 1
        out.mux(written.encode(None))


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
