"""How long a reading takes and how much memory: a 30 s clip of 1280 x 720 at 30 a second, made from a stand-in clip, best of three."""

import contextlib
import os
import subprocess
import sys
import tempfile
import time
from fractions import Fraction
from pathlib import Path

import av

from brevin.bench import Measured
from brevin.ops.settings import ROOT

SOURCE = ROOT / "demo" / "clips" / "standing-full-early.mp4"
LENGTH_S, RATE_HZ = 30, 30
RUNS = 3
LONG_TIMES = 40  # half minutes in a recording left running, of which the first two minutes are read
MEGABYTE = 2**20


def measure() -> Measured:
    """Time and peak memory of ``./brevin analyse`` over all its processes, at 720p and at 1080p, and on a recording of twenty minutes."""
    figures: dict[str, float] = {}
    for name, size in (("720p", (1280, 720)), ("1080p", (1920, 1080))):
        with tempfile.TemporaryDirectory() as scratch:
            clip = Path(scratch) / "half-minute.mp4"
            stretched(SOURCE, clip, size=size, length_s=LENGTH_S)
            runs = [_analyse(clip) for _ in range(RUNS)]
        figures[f"{name}_wall_s"] = min(wall for wall, _ in runs)
        figures[f"{name}_x_clip_length"] = figures[f"{name}_wall_s"] / LENGTH_S
        figures[f"{name}_peak_mb"] = max(peak for _, peak in runs)
    with tempfile.TemporaryDirectory() as scratch:
        clip, long = Path(scratch) / "half-minute.mp4", Path(scratch) / "twenty-minutes.mp4"
        stretched(SOURCE, clip, size=(1280, 720), length_s=LENGTH_S)
        repeated(clip, long, times=LONG_TIMES)
        figures["20min_wall_s"], figures["20min_peak_mb"] = _analyse(long)
    bars = {
        "720p_x_clip_length": ("<=", 0.2),
        "1080p_x_clip_length": ("<=", 0.4),
        "720p_wall_s": ("<=", 30.0),
        "720p_peak_mb": ("<=", 700.0),
        "1080p_peak_mb": ("<=", 700.0),
        "20min_peak_mb": ("<=", 700.0),
    }
    return Measured("reading", figures, bars)


def stretched(source: Path, target: Path, *, size: tuple[int, int], length_s: float) -> None:
    """The source at another size and rate, played again from the start until the length is full; H.264 at 4 Mbit/s, no sound."""
    with av.open(str(target), "w") as out:
        stream = out.add_stream("libx264", rate=RATE_HZ, options={"preset": "veryfast", "b": "4M"})
        stream.width, stream.height, stream.pix_fmt = *size, "yuv420p"
        stream.codec_context.time_base = Fraction(1, RATE_HZ)
        written, wanted = 0, int(length_s * RATE_HZ)
        while written < wanted:
            with av.open(str(source)) as found:
                for frame in found.decode(video=0):
                    picture = frame.reformat(width=size[0], height=size[1])
                    picture.pts, picture.time_base = written, Fraction(1, RATE_HZ)
                    out.mux(stream.encode(picture))
                    written += 1
                    if written >= wanted:
                        break
        out.mux(stream.encode(None))


def repeated(source: Path, target: Path, *, times: int) -> None:
    """The source's pictures again and again, copied as they are coded."""
    with av.open(str(target), "w") as out:
        stream = None
        ahead = 0
        for _ in range(times):
            with av.open(str(source)) as found:
                video = found.streams.video[0]
                stream = stream or out.add_stream_from_template(video)
                for packet in found.demux(video):
                    if packet.dts is not None and packet.pts is not None:
                        packet.dts, packet.pts = packet.dts + ahead, packet.pts + ahead
                        packet.stream = stream
                        out.mux(packet)
                ahead += int(video.duration or 0)


def _analyse(clip: Path) -> tuple[float, float]:
    """Wall time in seconds and peak memory in MB."""
    began = time.monotonic()
    process = subprocess.Popen(
        [sys.executable, "-m", "brevin.cli", "analyse", str(clip), "--count", "4-0-6@84x3", "--out", str(clip.with_suffix(".json"))],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        env=os.environ | {"PYTHONPATH": str(ROOT / "src")},
    )
    peak_mb = peak_of(process)
    took = time.monotonic() - began
    if process.returncode not in (0, 3):
        raise RuntimeError(f"the reading ended with exit code {process.returncode}")
    return took, peak_mb


def peak_of(process: "subprocess.Popen[bytes]") -> float:
    """The most memory that a process and its children held until it ended, MB."""
    peak_mb = 0.0
    while process.poll() is None:
        peak_mb = max(peak_mb, _resident_mb(process.pid))
        with contextlib.suppress(subprocess.TimeoutExpired):
            process.wait(0.1)
    return peak_mb


def _resident_mb(pid: int) -> float:
    """Resident memory of a process and its children, MB."""
    total = 0.0
    for one in [pid, *_children(pid)]:
        try:
            pages = int(Path(f"/proc/{one}/statm").read_text().split()[1])
        except (OSError, IndexError, ValueError):
            continue
        total += pages * os.sysconf("SC_PAGE_SIZE") / MEGABYTE
    return total


def _children(pid: int) -> list[int]:
    try:
        return [int(child) for child in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]
    except OSError:
        return []
