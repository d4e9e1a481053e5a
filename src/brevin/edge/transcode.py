"""A copy that any browser plays, where the original is not one."""

import contextlib
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import av.error
import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.edge.limited import Told
from brevin.edge.opened import opened
from brevin.edge.video import first_picture

PLAYED_CODECS = {"h264", "vp8", "vp9", "av1"}
PLAYED_PIXELS = {"yuv420p", "yuvj420p"}
PLAYED_SOUND = {"aac", "mp3", "opus", "vorbis", None}
STARTS_WITHIN_S = 0.01  # of the first picture: what the reading says of a moment is to be seen at that moment
SOUND_RATE_HZ, AAC_SAMPLES = 44100, 1024  # AAC takes its sound in pieces of this size and no other
GAP_S = 0.1  # of missing sound that is heard as one
TICK = Fraction(1, 90_000)


@dataclass(frozen=True)
class Manner:
    """side_px: the longer side at most; rate_factor: of the coder, lower is finer."""

    side_px: int
    rate_factor: float


SHOWN = Manner(1280, 26.0)
Changed = Callable[[NDArray[np.uint8], float], None]
"""Changes a picture in place, with its moment. [height * 3 / 2, width]: light, below it the two of colour at half the size."""

TYPES = {"mp4": "video/mp4", "webm": "video/webm"}
SOUND_TYPE = "audio/mp4"
COPIES = {"mp4": ".play.mp4", "webm": ".play.webm"}
"""What a copy's name ends with, beside the clip's own."""


def played_as_is(path: Path) -> str | None:
    """Media type under which a browser plays the file as it is; None where it does not."""
    family, whole = _played(path)
    return TYPES[family] if family and whole else None


def _played(path: Path) -> tuple[str | None, bool]:
    """In which family of containers a browser plays the coded pictures and sound as they are, if it does; and whether it plays the file itself: its
    length is known, and its first picture stands at its beginning."""
    with opened(path) as container:
        video = container.streams.video[0]
        sound = container.streams.audio[0].codec_context.name if container.streams.audio else None
        family = "webm" if "webm" in container.format.name and video.codec_context.name != "h264" else "mp4" if "mp4" in container.format.name else None
        whole = bool(container.duration) and abs(float(first_picture(path).time or 0.0)) < STARTS_WITHIN_S
        fits = video.codec_context.name in PLAYED_CODECS and video.codec_context.pix_fmt in PLAYED_PIXELS and sound in PLAYED_SOUND
    return (family if fits else None), whole


def playable(path: Path, *, folder: Path, known: str = "", told: Told = lambda stage, share: None) -> tuple[str, str]:
    """Name of a file in ``folder`` that a browser plays, and its type: the original, or a copy beside it, made now where ``known`` is not there yet."""
    if known and known != path.name and (folder / known).exists():
        return known, TYPES[known.rpartition(".")[2]]
    family, whole = _played(path)
    if family and whole:
        return path.name, TYPES[family]
    if family == "webm" and not first_picture(path).rotation:
        with contextlib.suppress(av.error.FFmpegError):  # times that no container takes: it is coded anew after all
            return _made(path, folder, COPIES["webm"], _repack), TYPES["webm"]
    return _made(path, folder, COPIES["mp4"], lambda source, target: copied(source, target, told)), TYPES["mp4"]


def _made(path: Path, folder: Path, ending: str, make: Callable[[Path, Path], None]) -> str:
    """A copy beside the clip, whole or not at all: its name."""
    name = path.stem + ending
    unfinished = folder / f"{name}.part"
    try:
        make(path, unfinished)
        unfinished.replace(folder / name)
    finally:
        unfinished.unlink(missing_ok=True)
    return name


def _repack(source: Path, target: Path) -> None:
    """The same coded pictures and sound in a new container that tells its length, counted from the first picture: a browser's recording knows neither, and
    coding it anew costs as much time as reading it."""
    first_s = float(first_picture(source).time or 0.0)
    with opened(source) as found, av.open(str(target), "w", format="webm") as out:
        tracks = {stream.index: out.add_stream_from_template(stream) for stream in (found.streams.video[0], *found.streams.audio[:1])}
        for packet in _packets(found, [found.streams[index] for index in tracks]):
            if packet.pts is None or packet.time_base is None:
                continue
            ticks = packet.pts - round(first_s / float(packet.time_base))
            if ticks < 0:
                continue
            packet.pts = packet.dts = ticks
            packet.stream = tracks[packet.stream.index]
            out.mux(packet)


def _packets(container: av.container.InputContainer, streams: list[av.stream.Stream]) -> Iterator[av.Packet]:
    try:
        yield from container.demux(streams)
    except av.error.FFmpegError:  # the file breaks off: what came before is kept
        return


def playable_sound(path: Path, *, folder: Path, longest_s: float) -> tuple[str, str]:
    """Name of a file in ``folder`` with the sound of ``path`` that any browser plays, and its type. Raises ClipUnusable: demonstration_long, not_a_video."""

    def make(source: Path, target: Path) -> None:
        with opened(source) as found, av.open(str(target), "w", format="mp4", options={"movflags": "faststart"}) as out:
            track = _Track(out)
            for frame in found.decode(found.streams.audio[0]):
                track.hear(frame)
                if track.length_s > longest_s:
                    raise ClipUnusable("demonstration_long", longest_s=longest_s)
            track.end()

    try:
        return _made(path, folder, ".play.m4a", make), SOUND_TYPE
    except av.error.FFmpegError as why:
        raise ClipUnusable("not_a_video", detail=str(why)) from why


def copied(source: Path, target: Path, told: Told, *, manner: Manner = SHOWN, changed: Changed | None = None) -> None:
    """H.264 and AAC, upright, with the original's presentation times less that of its first picture. changed: what becomes of each picture."""
    with opened(source) as found, av.open(str(target), "w", format="mp4", options={"movflags": "faststart"}) as out:
        copy = _Copy(out, first_picture(source), manner, changed, has_sound=bool(found.streams.audio))
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

    def __init__(self, out: av.container.OutputContainer, first: av.VideoFrame, manner: Manner, changed: Changed | None, *, has_sound: bool) -> None:
        self._out, self._first_s, self._turned, self._changed = out, float(first.time or 0.0), first.rotation, changed
        shrink = min(1.0, manner.side_px / max(first.width, first.height))
        self._size = int(first.width * shrink) // 2 * 2, int(first.height * shrink) // 2 * 2
        self._seen = out.add_stream("libx264", rate=30, options={"crf": f"{manner.rate_factor:g}", "preset": "veryfast"})
        self._seen.width, self._seen.height = self._size[::-1] if self._turned % 180 else self._size
        self._seen.pix_fmt = "yuv420p"
        self._seen.codec_context.time_base = TICK
        self._heard = _Track(out) if has_sound else None
        self._last = -1

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
        if self._changed is not None:
            planes = picture.to_ndarray()
            self._changed(planes, float(ticks * TICK))
            picture = av.VideoFrame.from_ndarray(planes, format="yuv420p")
        picture.pts, picture.time_base = ticks, TICK
        self._out.mux(self._seen.encode(picture))

    def hear(self, frame: av.AudioFrame) -> None:
        """A piece of sound; what comes before the first picture is left out."""
        if self._heard is None or frame.pts is None or frame.time_base is None or (frame.time or 0.0) < self._first_s:
            return
        frame.pts -= round(self._first_s / float(frame.time_base))
        self._heard.hear(frame)

    def end(self) -> None:
        """What is still held back."""
        self._out.mux(self._seen.encode(None))
        if self._heard is not None:
            self._heard.end()


class _Track:
    """The sound of a copy: AAC, mono."""

    def __init__(self, out: av.container.OutputContainer) -> None:
        self._out = out
        self._stream = out.add_stream("aac", rate=SOUND_RATE_HZ, layout="mono")
        self._resampler = av.AudioResampler(format="fltp", layout="mono", rate=SOUND_RATE_HZ, frame_size=AAC_SAMPLES)
        self._samples = 0

    @property
    def length_s(self) -> float:
        """How much was written."""
        return self._samples / SOUND_RATE_HZ

    def hear(self, frame: av.AudioFrame) -> None:
        """Write a piece of sound."""
        for piece in self._resampler.resample(frame):
            self._write(piece)

    def end(self) -> None:
        """What is still held back."""
        for piece in self._resampler.resample(None):
            self._write(piece)
        self._out.mux(self._stream.encode(None))

    def _write(self, piece: av.AudioFrame) -> None:
        """Sound is counted in samples, since times of pieces jitter; only a gap that is heard moves it on."""
        due = round(float(piece.time or 0.0) * SOUND_RATE_HZ)
        self._samples = due if due > self._samples + GAP_S * SOUND_RATE_HZ else self._samples
        piece.pts, piece.time_base = self._samples, Fraction(1, SOUND_RATE_HZ)
        self._samples += piece.samples
        self._out.mux(self._stream.encode(piece))
