"""Opening a video that somebody sent: only known containers, only known codecs, only the file itself, only pictures of a size that fits."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import av
import av.error

from brevin.core.errors import ClipUnusable
from brevin.edge.growing import Growing, Pieces

FORMATS = "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mpegts,mjpeg,flv,asf"
PROTOCOLS = "file"
VIDEO_CODECS = {"h264", "hevc", "vp8", "vp9", "av1", "libdav1d", "mjpeg", "mpeg4", "h263", "mpeg2video", "libvpx", "libvpx-vp9", "prores", "vc1", "wmv3"}
MOST_PIXELS = 4096 * 2304  # of one picture: 4K as phones film it
BOXES = (b"ftyp", b"mdat", b"free", b"wide", b"skip", b"pnot")
"""What a phone's clip begins with; one without its table of contents begins so as well, and cannot be opened."""


@contextmanager
def opened(clip: Path | Growing) -> Iterator[av.container.InputContainer]:
    """The container. Raises ClipUnusable: not_a_video, half_copied, too_many_pixels; of a growing clip, anywhere, upload_cut_off."""
    options = {"format_whitelist": FORMATS, "protocol_whitelist": PROTOCOLS}
    source = Pieces(clip) if isinstance(clip, Growing) else None
    try:
        try:
            container = av.open(source or str(clip), options=options, metadata_errors="replace")
        except (av.error.FFmpegError, UnicodeDecodeError, ValueError) as why:
            raise ClipUnusable("half_copied" if isinstance(clip, Path) and _half_copied(clip) else "not_a_video", detail=str(why)[:200]) from why
        with container:
            for stream in container.streams.video:
                _check(stream)
            yield container
    finally:
        if source is not None:
            source.close()


def _check(stream: av.VideoStream) -> None:
    codec = stream.codec_context
    if codec is None or codec.name not in VIDEO_CODECS:
        raise ClipUnusable("not_a_video", detail="codec")
    if codec.width * codec.height > MOST_PIXELS:
        raise ClipUnusable("too_many_pixels", width_px=codec.width, height_px=codec.height)


def _half_copied(path: Path) -> bool:
    """Whether this is a phone's clip whose end, with the table of contents, never arrived."""
    with path.open("rb") as file:
        head = file.read(8)
    return head[4:8] in BOXES
