"""A copy that any browser plays, where the original is not one."""

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import av
import av.error
import numpy as np

from brevin.edge.limited import Told
from brevin.edge.opened import opened
from brevin.edge.video import first_picture

PLAYED_CODECS = {"h264", "vp8", "vp9", "av1"}
PLAYED_PIXELS = {"yuv420p", "yuvj420p"}
PLAYED_SOUND = {"aac", "mp3", "opus", "vorbis", None}
COPY_SIDE_PX = 1280
STARTS_WITHIN_S = 0.01  # of the first picture: what the reading says of a moment is to be seen at that moment
SOUND_RATE_HZ, AAC_SAMPLES = 44100, 1024  # AAC takes its sound in pieces of this size and no other
GAP_S = 0.1  # of missing sound that is heard as one
TICK = Fraction(1, 90_000)
TYPES = {"mp4": "video/mp4", "webm": "video/webm"}


def played_as_is(path: Path) -> str | None:
    """Media type under which a browser plays the file as it is; None where it does not."""
    with opened(path) as container:
        video = container.streams.video[0]
        sound = container.streams.audio[0].codec_context.name if container.streams.audio else None
        family = "webm" if "webm" in container.format.name and video.codec_context.name != "h264" else "mp4" if "mp4" in container.format.name else None
        whole = bool(container.duration) and abs(float(first_picture(path).time or 0.0)) < STARTS_WITHIN_S
        fits = video.codec_context.name in PLAYED_CODECS and video.codec_context.pix_fmt in PLAYED_PIXELS and sound in PLAYED_SOUND
    return TYPES[family] if family and fits and whole else None


def playable(path: Path, *, folder: Path, known: str = "", told: Told = lambda stage, share: None) -> tuple[str, str]:
    """Name of a file in ``folder`` that a browser plays, and its type: the original, or a copy beside it, made now where ``known`` is not there yet."""
    if known and known != path.name and (folder / known).exists():
        return known, TYPES["mp4"]
    kind = played_as_is(path)
    if kind is not None:
        return path.name, kind
    name = f"{path.stem}.play.mp4"
    unfinished = folder / f"{name}.part"
    _copy(path, unfinished, told)
    unfinished.replace(folder / name)
    return name, TYPES["mp4"]


def _copy(source: Path, target: Path, told: Told) -> None:
    """H.264 and AAC, upright, the longer side at most ``COPY_SIDE_PX``, with the original's presentation times less that of its first picture."""
    with opened(source) as found, av.open(str(target), "w", format="mp4", options={"movflags": "faststart"}) as out:
        copy = _Copy(out, first_picture(source), has_sound=bool(found.streams.audio))
        found.streams.video[0].thread_type = "AUTO"
        for frame in _decoded(found):
            if isinstance(frame, av.VideoFrame):
                told("keeping the clip", 0.97)
                copy.see(frame)
            else:
                copy.hear(frame)
        copy.end()


def _decoded(container: av.container.InputContainer) -> Iterator[av.VideoFrame | av.AudioFrame]:
    try:
        yield from container.decode(container.streams.video[0], *container.streams.audio[:1])
    except av.error.FFmpegError:  # the file breaks off: what came before is copied
        return


class _Copy:
    """What is written of a clip. first: its first picture, from whose time everything is counted."""

    def __init__(self, out: av.container.OutputContainer, first: av.VideoFrame, *, has_sound: bool) -> None:
        self._out, self._first_s, self._turned = out, float(first.time or 0.0), first.rotation
        shrink = min(1.0, COPY_SIDE_PX / max(first.width, first.height))
        self._size = int(first.width * shrink) // 2 * 2, int(first.height * shrink) // 2 * 2
        self._seen = out.add_stream("libx264", rate=30, options={"crf": "26", "preset": "veryfast"})
        self._seen.width, self._seen.height = self._size[::-1] if self._turned % 180 else self._size
        self._seen.pix_fmt = "yuv420p"
        self._seen.codec_context.time_base = TICK
        self._heard = out.add_stream("aac", rate=SOUND_RATE_HZ, layout="mono") if has_sound else None
        self._resampler = av.AudioResampler(format="fltp", layout="mono", rate=SOUND_RATE_HZ, frame_size=AAC_SAMPLES)
        self._last, self._samples = -1, 0

    def see(self, frame: av.VideoFrame) -> None:
        """One picture; one whose time stands still or jumps back is left out."""
        ticks = round((float(frame.time or 0.0) - self._first_s) / TICK)
        if ticks <= self._last:
            return
        self._last = ticks
        width, height = self._size
        picture = frame.reformat(width=width, height=height, format="yuv420p")
        if self._turned:
            upright = np.rot90(picture.to_ndarray(format="rgb24"), k=self._turned // 90 % 4)
            picture = av.VideoFrame.from_ndarray(np.ascontiguousarray(upright), format="rgb24").reformat(format="yuv420p")
        picture.pts, picture.time_base = ticks, TICK
        self._out.mux(self._seen.encode(picture))

    def hear(self, frame: av.AudioFrame) -> None:
        """A piece of sound; what comes before the first picture is left out."""
        if self._heard is None or frame.pts is None or frame.time_base is None or (frame.time or 0.0) < self._first_s:
            return
        frame.pts -= round(self._first_s / float(frame.time_base))
        for piece in self._resampler.resample(frame):
            self._write(self._heard, piece)

    def _write(self, heard: av.AudioStream, piece: av.AudioFrame) -> None:
        """Sound is counted in samples, since times of pieces jitter; only a gap that is heard moves it on."""
        due = round(float(piece.time or 0.0) * SOUND_RATE_HZ)
        self._samples = due if due > self._samples + GAP_S * SOUND_RATE_HZ else self._samples
        piece.pts, piece.time_base = self._samples, Fraction(1, SOUND_RATE_HZ)
        self._samples += piece.samples
        self._out.mux(heard.encode(piece))

    def end(self) -> None:
        """What is still held back."""
        self._out.mux(self._seen.encode(None))
        if self._heard is not None:
            for piece in self._resampler.resample(None):
                self._write(self._heard, piece)
            self._out.mux(self._heard.encode(None))
