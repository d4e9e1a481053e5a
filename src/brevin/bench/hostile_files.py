"""Files that nobody should send as a clip: not videos, broken ones, dear ones, and ones that mean harm. Made on the spot, the same each time."""

import io
import struct
import zipfile
import zlib
from collections.abc import Iterator
from dataclasses import dataclass

import av
import numpy as np

from brevin.ops.settings import ROOT

CLIP = ROOT / "demo" / "clips" / "seated-low-then-wide.mp4"
CUTS = (0.002, 0.02, 0.1, 0.25, 0.4, 0.6, 0.8, 0.9, 0.97)
FLIPS = 12
LONGEST_NAME = 4000


@dataclass(frozen=True)
class BadFile:
    """name: what it is; file_name: what its sender calls it; content: its bytes."""

    name: str
    content: bytes
    file_name: str = "clip.mp4"


def bad_files() -> Iterator[BadFile]:
    """All of them; those that are costly to hold come one at a time."""
    yield from _no_videos()
    yield from _scripts()
    yield from _names()
    yield from _broken()
    yield from _pictures()
    yield from _films()


def _no_videos() -> Iterator[BadFile]:
    yield BadFile("nothing", b"")
    yield BadFile("one byte", b"x")
    yield BadFile("a letter", b"Dear teacher, this is a letter.\n" * 200)
    yield BadFile("a page", b"<!doctype html><script>alert(1)</script>" * 20, "clip.html")
    yield BadFile("zeros", bytes(300_000))
    yield BadFile("noise", _noise(1, 300_000))
    yield BadFile("a program", b"\x7fELF" + _noise(2, 4000))
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr("zeros", bytes(20_000_000))
    yield BadFile("a bundle that grows", packed.getvalue(), "clip.zip")
    yield BadFile("a sound", _wave(), "clip.wav")
    yield BadFile("a box that says it is endless", struct.pack(">I4sQ", 1, b"ftyp", 2**62) + bytes(64))
    yield BadFile("boxes in boxes", b"".join(struct.pack(">I4s", 8 * (400 - i), b"moov") for i in range(400)))
    yield BadFile("only a head", struct.pack(">I4s4sI4s", 20, b"ftyp", b"isom", 512, b"isom"))


def _scripts() -> Iterator[BadFile]:
    """Texts that name other files or places: none may be opened."""
    yield BadFile("a list of neighbours", b"ffconcat version 1.0\nfile '/etc/passwd'\n", "clip.ffconcat")
    yield BadFile("a list of pieces", b"#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nfile:///etc/passwd\n#EXT-X-ENDLIST\n", "clip.m3u8")
    yield BadFile("a list of pieces elsewhere", b"#EXTM3U\n#EXTINF:1,\nhttp://127.0.0.1:1/x.ts\n#EXT-X-ENDLIST\n", "clip.mp4")
    yield BadFile("a manifest", b"<?xml version='1.0'?><MPD xmlns='urn:mpeg:dash:schema:mpd:2011' type='static'><Period/></MPD>", "clip.mpd")
    yield BadFile("a drawing that reads a file", b"<svg xmlns='http://www.w3.org/2000/svg'><image href='file:///etc/passwd'/></svg>", "clip.svg")
    yield BadFile("entities in entities", b"<!DOCTYPE a [<!ENTITY b 'bbbb'><!ENTITY c '&b;&b;&b;'>]><a>&c;</a>", "clip.xml")
    yield BadFile("subtitles", b"1\n00:00:00,000 --> 00:00:09,000\nhello\n", "clip.srt")
    yield BadFile("a session description", b"v=0\no=- 0 0 IN IP4 127.0.0.1\nc=IN IP4 127.0.0.1\nm=video 5000 RTP/AVP 96\n", "clip.sdp")


def _names() -> Iterator[BadFile]:
    for said in (
        "../../../etc/passwd",
        "..\\..\\x.mp4",
        "a\x00b.mp4",
        "\u202egpm.exe",
        "x" * LONGEST_NAME,
        "<img src=x>.mp4",
        "%2e%2e%2fx",
        " ",
        "💥.mp4",
        "CON",
    ):
        yield BadFile(f"named {said[:12]!r}", b"not a video at all", said)


def _broken() -> Iterator[BadFile]:
    whole = CLIP.read_bytes()
    for share in CUTS:
        yield BadFile(f"the first {share:.1%} of a clip", whole[: int(share * len(whole))])
    yield BadFile("a clip without its beginning", whole[4096:])
    yield BadFile("a clip twice", whole + whole)
    for seed in range(FLIPS):
        changed, chance, wrong = bytearray(whole), np.random.default_rng(seed), 10 * 2**seed
        for place, value in zip(chance.integers(0, len(whole), wrong), _noise(seed, wrong), strict=True):
            changed[place] = value
        yield BadFile(f"a clip with {wrong} wrong bytes", bytes(changed))


def _pictures() -> Iterator[BadFile]:
    for side in (64, 8192, 16000):
        yield BadFile(f"a picture of {side} x {side}", _png(side), "clip.png")
    small = io.BytesIO()
    with av.open(small, "w", format="mjpeg") as out:
        stream = out.add_stream("mjpeg", rate=25)
        stream.width, stream.height, stream.pix_fmt = 320, 240, "yuvj420p"
        out.mux(stream.encode(av.VideoFrame(320, 240, "yuvj420p")))
    yield BadFile("a single photograph", small.getvalue(), "clip.jpg")


def _films() -> Iterator[BadFile]:
    yield BadFile("pictures of 8192 x 8192", _film(4, 8192, 8192))
    yield BadFile("pictures of 4096 x 4096, 60 of them", _film(60, 4096, 4096))
    yield BadFile("a film of one line", _film(100, 4096, 16))
    yield BadFile("a film of 2 x 2", _film(100, 2, 2))
    yield BadFile("a tenth of a second", _film(3, 320, 240))
    yield BadFile("one picture a second", _film(20, 320, 240, rate=1))
    yield BadFile("sixty thousand black pictures", _film(60_000, 64, 64))
    yield BadFile("a thousand pictures a second", _film(3000, 160, 120, rate=1000))
    yield BadFile("black for ten seconds", _film(250, 640, 360))
    yield BadFile("noise for four seconds", _film(100, 640, 360, noisy=True))
    yield BadFile("tags that are no letters", _film(50, 320, 240, tag=b"\xff\xfe\x80"), "clip.avi")


def _film(pictures: int, width: int, height: int, *, rate: int = 25, noisy: bool = False, tag: bytes = b"") -> bytes:
    held = io.BytesIO()
    chance = np.random.default_rng(3)
    with av.open(held, "w", format="avi" if tag else "mp4") as out:
        if tag:
            out.metadata["title"] = "TAG"
        stream = out.add_stream("mpeg4" if tag else "libx264", rate=rate, options={} if tag else {"preset": "ultrafast"})
        stream.width, stream.height, stream.pix_fmt = width, height, "yuv420p"
        black = np.zeros((height * 3 // 2, width), np.uint8)
        for index in range(pictures):
            content = chance.integers(0, 255, black.shape, np.uint8) if noisy else black
            picture = av.VideoFrame.from_ndarray(content, format="yuv420p")
            picture.pts = index
            out.mux(stream.encode(picture))
        out.mux(stream.encode(None))
    return held.getvalue().replace(b"TAG", tag, 1) if tag else held.getvalue()


def _noise(seed: int, size: int) -> bytes:
    return np.random.default_rng(seed).integers(0, 256, size, np.uint8).tobytes()


def _png(side: int) -> bytes:
    """A black picture that is a few kilobytes long however large it is."""
    squeeze = zlib.compressobj(9)
    rows = b"".join(squeeze.compress(bytes(1 + (side + 7) // 8)) for _ in range(side)) + squeeze.flush()

    def part(kind: bytes, content: bytes) -> bytes:
        return struct.pack(">I", len(content)) + kind + content + struct.pack(">I", zlib.crc32(kind + content))

    head = part(b"IHDR", struct.pack(">IIBBBBB", side, side, 1, 0, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + head + part(b"IDAT", rows) + part(b"IEND", b"")


def _wave() -> bytes:
    samples = bytes(2 * 22050)
    return b"RIFF" + struct.pack("<I4s4sIHHIIHH4sI", 36 + len(samples), b"WAVE", b"fmt ", 16, 1, 1, 22050, 44100, 2, 16, b"data", len(samples)) + samples
