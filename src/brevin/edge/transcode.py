"""A copy that any browser plays, where the original is not one."""

from pathlib import Path

import av
import av.error

from brevin.edge.limited import Told
from brevin.edge.opened import opened

PLAYED_CODECS = {"h264", "vp8", "vp9", "av1"}
PLAYED_PIXELS = {"yuv420p", "yuvj420p"}
PLAYED_SOUND = {"aac", "mp3", "opus", "vorbis", None}
COPY_SIDE_PX = 1280
TYPES = {"mp4": "video/mp4", "webm": "video/webm"}


def played_as_is(path: Path) -> str | None:
    """Media type under which a browser plays the file as it is; None where it does not."""
    with opened(path) as container:
        video = container.streams.video[0]
        sound = container.streams.audio[0].codec_context.name if container.streams.audio else None
        family = "webm" if "webm" in container.format.name and video.codec_context.name != "h264" else "mp4" if "mp4" in container.format.name else None
        whole = bool(container.duration)
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
    """H.264 and AAC with the original's presentation times, upright, the longer side at most ``COPY_SIDE_PX``."""
    with opened(source) as found, av.open(str(target), "w", format="mp4", options={"movflags": "faststart"}) as out:
        video = found.streams.video[0]
        video.thread_type = "AUTO"
        sound = found.streams.audio[0] if found.streams.audio else None
        width, height = _size(video)
        written = out.add_stream("libx264", rate=30, options={"crf": "26", "preset": "veryfast"})
        written.width, written.height, written.pix_fmt = width, height, "yuv420p"
        written.codec_context.time_base = video.time_base
        heard = out.add_stream("aac", rate=44100, layout="mono") if sound else None
        resampler = av.AudioResampler(format="fltp", layout="mono", rate=44100)
        try:
            for frame in found.decode(*[s for s in (video, sound) if s]):
                if isinstance(frame, av.VideoFrame):
                    told("keeping the clip", 0.97)
                    picture = frame.reformat(width=width, height=height, format="yuv420p")
                    picture.pts, picture.time_base = frame.pts, frame.time_base
                    out.mux(written.encode(picture))
                elif heard is not None:
                    for piece in resampler.resample(frame):
                        out.mux(heard.encode(piece))
        except av.error.FFmpegError:  # the file breaks off: what came before is copied
            pass
        out.mux(written.encode(None))
        if heard is not None:
            out.mux(heard.encode(None))


def _size(video: av.VideoStream) -> tuple[int, int]:
    shrink = min(1.0, COPY_SIDE_PX / max(video.width, video.height))
    return int(video.width * shrink) // 2 * 2, int(video.height * shrink) // 2 * 2
