"""Decoding by presentation time: facts of a clip, its video frames in order, its sound."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import av.error
import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.errors import ClipUnusable
from brevin.core.track import WORK_SIDE_PX, ClipFacts, Sound
from brevin.edge.growing import Growing
from brevin.edge.opened import opened

AREA_BELOW = 0.6  # shrink below which straight lines between pixels leave some out; above it they are as good, and ten times as fast
SOUND_RATE_HZ = 22050  # clicks and tones lie below 8 kHz
FASTEST_CAMERA_HZ = 240.0  # where a container says more it tells its clock's rate and not its pictures'
PROBE_FRAMES = 8  # decoded to see that the picture is real and how it is turned

Luma = NDArray[np.uint8]


@dataclass(frozen=True)
class VideoFrame:
    """One decoded frame. luma: [height, width] at working size, turned upright; shrink: working over displayed size."""

    t_s: float
    luma: Luma
    shrink: float
    source: av.VideoFrame

    def rgb(self) -> NDArray[np.uint8]:
        """The frame in colour, same size and turn as ``luma``."""
        height, width = self.luma.shape
        if self.source.rotation % 180:
            width, height = height, width
        picture = self.source.to_ndarray(format="rgb24", width=width, height=height)
        return np.ascontiguousarray(_upright(picture, self.source.rotation))


def probe(clip: Path | Growing) -> ClipFacts:
    """Facts of a clip. Raises ClipUnusable: empty_file, not_a_video, half_copied, too_many_pixels, sound_only, cut_off, still_picture."""
    path = clip.path if isinstance(clip, Growing) else clip
    if path.stat().st_size == 0:
        raise ClipUnusable("empty_file")
    try:
        with opened(clip) as container:
            return _facts(path, container)
    except av.error.FFmpegError as error:
        raise ClipUnusable("not_a_video", detail=str(error.strerror)) from error


def _facts(path: Path, container: av.container.InputContainer) -> ClipFacts:
    if not container.streams.video:
        raise ClipUnusable("sound_only" if container.streams.audio else "not_a_video")
    stream = container.streams.video[0]
    frames = [frame for _, frame in zip(range(PROBE_FRAMES), container.decode(stream), strict=False)]
    if not frames:
        raise ClipUnusable("cut_off")
    if len(frames) == 1:
        raise ClipUnusable("still_picture")
    upright = _upright(frames[0].to_ndarray(format="gray"), frames[0].rotation)
    told_hz = float(stream.average_rate or stream.guessed_rate or 0)
    rate_hz = told_hz if 0.0 < told_hz <= FASTEST_CAMERA_HZ else _rate(frames)
    return ClipFacts(
        file=path.name, duration_s=_duration_s(container, stream), frame_rate_hz=rate_hz, width_px=int(upright.shape[1]), height_px=int(upright.shape[0]),
        rotation_deg=int(frames[0].rotation) % 360, has_sound=bool(container.streams.audio),
    )  # fmt: skip


def first_picture(path: Path) -> av.VideoFrame:
    """The first picture of a clip, as it is decoded. Raises ClipUnusable(cut_off)."""
    with opened(path) as container:
        for frame in _decoded(container, container.streams.video[0]):
            return frame
    raise ClipUnusable("cut_off")


def _rate(frames: list[av.VideoFrame]) -> float:
    steps = np.diff([frame.time for frame in frames])
    return float(1 / np.median(steps)) if len(steps) else 0.0


def _duration_s(container: av.container.InputContainer, stream: av.VideoStream) -> float:
    if stream.duration and stream.time_base:
        return float(stream.duration * Fraction(stream.time_base))
    return float(container.duration or 0) / av.time_base


@dataclass
class Stamps:
    """What was wrong with a clip's times. left_out: pictures whose time stands still, jumps back, or jumps ahead of those after it."""

    left_out: int = 0


def video_frames(clip: Path | Growing, *, until_s: float, fastest_hz: float, stamps: Stamps | None = None) -> Iterator[VideoFrame]:
    """Frames in order of presentation, from the first one's time = 0 s.

    Frames whose time is wrong are left out and counted in ``stamps``, and those closer together than ``fastest_hz`` allows are skipped.
    A file that breaks off ends the sequence where it breaks.
    """
    with opened(clip) as container:
        stream = container.streams.video[0]
        stream.thread_type = "AUTO"
        first_s: float | None = None
        last_s = -1.0
        closest_s = 0.75 / fastest_hz
        for frame in _in_order(_decoded(container, stream), stamps or Stamps()):
            first_s = frame.time if first_s is None else first_s
            t_s = frame.time - first_s
            if t_s - last_s < closest_s:
                continue
            if t_s > until_s:
                return
            last_s = t_s
            yield _worked(frame, t_s)


def _in_order(frames: Iterable[av.VideoFrame], stamps: Stamps) -> Iterator[av.VideoFrame]:
    """Frames whose times advance. One is held back, so that a single stamp far ahead does not cost all frames up to it."""
    held: av.VideoFrame | None = None
    last_s = -math.inf
    for frame in frames:
        if frame.time is None or frame.time <= last_s:
            stamps.left_out += 1
        elif held is None or frame.time <= held.time:
            stamps.left_out += held is not None
            held = frame
        else:
            last_s = held.time
            yield held
            held = frame
    if held is not None:
        yield held


def _decoded(container: av.container.InputContainer, stream: av.VideoStream) -> Iterator[av.VideoFrame]:
    try:
        yield from container.decode(stream)
    except av.error.FFmpegError:  # the file breaks off: what was decoded stays
        return


def _worked(frame: av.VideoFrame, t_s: float) -> VideoFrame:
    luma = _upright(_luma(frame), frame.rotation)
    longer = max(luma.shape)
    shrink = min(1.0, WORK_SIDE_PX / longer)
    if shrink < 1.0:
        size = (round(luma.shape[1] * shrink), round(luma.shape[0] * shrink))
        way = cv2.INTER_AREA if shrink < AREA_BELOW else cv2.INTER_LINEAR
        luma = cv2.resize(luma, size, interpolation=way).astype(np.uint8)
    return VideoFrame(t_s=t_s, luma=np.ascontiguousarray(luma), shrink=shrink, source=frame)


def _luma(frame: av.VideoFrame) -> Luma:
    """The first plane where it is plain luma (nearly free), else a conversion."""
    if frame.format.name in ("yuv420p", "yuvj420p", "nv12", "yuv422p", "yuvj422p"):
        plane = frame.planes[0]
        rows = np.frombuffer(plane, np.uint8).reshape(-1, plane.line_size)
        return rows[: frame.height, : frame.width]
    return frame.to_ndarray(format="gray")


def _upright(picture: Luma, rotation_deg: int) -> Luma:
    return np.rot90(picture, k=int(rotation_deg) // 90 % 4) if rotation_deg else picture


def sound(path: Path, *, until_s: float) -> Sound | None:
    """The clip's sound as mono samples on the clock of the first video frame; None where there is none."""
    with opened(path) as container:
        if not container.streams.audio:
            return None
        video = container.streams.video[0]
        video_starts_s = float((video.start_time or 0) * Fraction(video.time_base or 1))
        pieces, starts_s = _mono(container, until_s=until_s + video_starts_s)
    if not pieces:
        return None
    return Sound(samples=np.concatenate(pieces), rate_hz=SOUND_RATE_HZ, starts_s=starts_s - video_starts_s)


def _mono(container: av.container.InputContainer, *, until_s: float) -> tuple[list[NDArray[np.float32]], float]:
    resampler = av.AudioResampler(format="flt", layout="mono", rate=SOUND_RATE_HZ)
    pieces: list[NDArray[np.float32]] = []
    starts_s = 0.0
    try:
        for frame in container.decode(container.streams.audio[0]):
            if not pieces:
                starts_s = frame.time or 0.0
            if (frame.time or 0.0) > until_s:
                break
            pieces += [piece.to_ndarray()[0] for piece in resampler.resample(frame)]
    except av.error.FFmpegError:  # broken sound: what was decoded stays
        pass
    return pieces, starts_s
