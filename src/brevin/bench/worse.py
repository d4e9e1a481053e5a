"""The same clips made worse, step by step, in one way at a time; ``gate.py`` measures how far the reading of the breath carries."""

import json
from collections.abc import Callable, Iterable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import cast

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.core.breath.breaths import breaths, inhales_of
from brevin.core.breath.unrest import unrest
from brevin.core.evidence import Evidence, Followed, evidence
from brevin.core.read import judge
from brevin.core.report import Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

Rgb = NDArray[np.uint8]
CLEAN = 22.0  # rate factor of a coder that hardly changes a picture
NOISE_GREY = 2.0  # of a sensor, whatever light it has


@dataclass(frozen=True)
class Way:
    """One way of making a clip worse. code: the gate's reason; gauge: what the gate sees of it, with its name; levels: mildest first; worse_by: -1 where less
    of it is worse; picture: what becomes of one; coder: the rate factor at a level; every: of how many pictures one is kept."""

    name: str
    code: str
    seen_as: str
    levels: tuple[float, ...]
    gauge: Callable[[Evidence, Followed], float]
    worse_by: float = -1.0
    picture: Callable[[Rgb, float], Rgb] = lambda rgb, _: rgb
    coder: Callable[[float], float] = lambda _: CLEAN
    every: Callable[[float], int] = lambda _: 1


def farther(rgb: Rgb, share: float) -> Rgb:
    """The same scene from further away: smaller, its border drawn on."""
    height, width = rgb.shape[:2]
    small = cv2.resize(rgb, None, fx=share, fy=share, interpolation=cv2.INTER_AREA)
    top, left = (height - small.shape[0]) // 2, (width - small.shape[1]) // 2
    edges = (top, height - small.shape[0] - top, left, width - small.shape[1] - left)
    return cast(Rgb, cv2.copyMakeBorder(small, *edges, borderType=cv2.BORDER_REPLICATE))


def darker(rgb: Rgb, share: float) -> Rgb:
    """Less light on the same sensor: its noise stays."""
    random = np.random.default_rng(int(rgb[::16, ::16].sum()))
    noise = NOISE_GREY * random.standard_normal((*rgb.shape[:2], 1), dtype=np.float32)
    return np.clip(rgb * np.float32(share) + noise, 0, 255).astype(np.uint8)


def softer(rgb: Rgb, sigma_px: float) -> Rgb:
    """Out of focus."""
    return cast(Rgb, cv2.GaussianBlur(rgb, (0, 0), sigma_px))


WAYS = (
    Way("Coded harder, as a messenger does it", "coded_hard", "age of the picture, s", (30, 34, 38), lambda _, who: who.traces.stale_s, 1.0, coder=float),
    Way("Farther away", "too_far", "trunk, px", (0.6, 0.45, 0.36), lambda _, who: who.player.trunk_px, picture=farther),
    Way("Darker", "too_dark", "grey of the trunk", (0.35, 0.25, 0.18), lambda _, who: float(np.median(who.picture.light)), picture=darker),
    Way(
        "Softer",
        "too_blurred",
        "contrast of the outline, grey levels",
        (3.0, 6.0, 9.0),
        lambda _, who: float(np.median(who.picture.clear)),
        picture=softer,
    ),
    Way("Fewer pictures", "low_frame_rate", "pictures a second", (2, 3, 4), lambda seen, _: 1.0 / float(np.median(np.diff(seen.t_s))), every=int),
)


@dataclass(frozen=True)
class Made:
    """One clip at one level of one way of ``WAYS``, 0 as it was. seen: what the gate saw of it, unrest: as a share of an
    inhale (core/breath/unrest.py), None where nobody was found in it, or no breath; refused: the gate's codes, where it was refused for the breath."""

    truth_file: Path
    way: int
    level: float
    seen: float | None
    unrest: float | None
    refused: frozenset[str]
    report: Report


def measure(pool: ProcessPoolExecutor, truths: Iterable[Path]) -> list[Made]:
    """Every side clip as it is and made worse in every way; those that are refused as they are left out."""
    sides = [file for file in truths if str(json.loads(file.read_text())["label"]["view"]).startswith("side")]
    plain = [one for made in pool.map(_as_it_was, sides) for one in made if not one.refused]
    read = [file for file in sides if any(one.truth_file == file for one in plain)]
    return plain + list(pool.map(_made, *zip(*((file, i, level) for i, way in enumerate(WAYS) for level in way.levels for file in read), strict=True)))


def _as_it_was(truth_file: Path) -> list[Made]:
    seen = evidence(look(truth_file.with_suffix(".mp4"), model_path(ROOT)))
    return [_judged(truth_file, number, 0.0, seen) for number in range(len(WAYS))]


def _made(truth_file: Path, number: int, level: float) -> Made:
    with TemporaryDirectory() as scratch:
        worse = Path(scratch) / "worse.mp4"
        made_worse(truth_file.with_suffix(".mp4"), worse, WAYS[number], level)
        return _judged(truth_file, number, level, evidence(look(worse, model_path(ROOT))))


def _judged(truth_file: Path, number: int, level: float, seen: Evidence) -> Made:
    report = judge(seen, task_of(json.loads(truth_file.read_text()))).report
    refused = frozenset() if report.readable_for.breath else frozenset(one.code for one in report.reasons)
    if not seen.players:
        return Made(truth_file, number, level, None, None, refused, report)
    traces = seen.players[0].traces
    return Made(truth_file, number, level, WAYS[number].gauge(seen, seen.players[0]), unrest(traces, inhales_of(breaths(traces))), refused, report)


def made_worse(clip: Path, target: Path, way: Way, level: float) -> None:
    """The clip's pictures at a level of a way, its sound as it was."""
    remade(clip, target, lambda rgb, _: way.picture(rgb, level), coder=way.coder(level), every=way.every(level))


def remade(clip: Path, target: Path, picture: Callable[[Rgb, int], Rgb], *, coder: float = CLEAN, every: int = 1) -> None:
    """A clip with other pictures and its own sound. picture: what becomes of each, with its number; coder: rate factor; every: of how many one is kept."""
    with av.open(str(clip)) as source:
        height, width = picture(next(source.decode(video=0)).to_ndarray(format="rgb24"), 0).shape[:2]
    with av.open(str(clip)) as source, av.open(str(target), "w") as out:
        video, sound = source.streams.video[0], next(iter(source.streams.audio), None)
        pictures = out.add_stream("libx264", rate=video.average_rate, options={"crf": f"{coder:g}", "preset": "veryfast"})
        tones = None if sound is None else out.add_stream_from_template(sound)
        pictures.width, pictures.height, pictures.pix_fmt, pictures.time_base = width, height, "yuv420p", video.time_base
        number = 0
        for packet in source.demux():
            if packet.stream is video:
                for frame in packet.decode():
                    if number % every == 0:
                        other = av.VideoFrame.from_ndarray(picture(frame.to_ndarray(format="rgb24"), number), format="rgb24")
                        other.pts, other.time_base = frame.pts, frame.time_base
                        out.mux(pictures.encode(other))
                    number += 1
            elif tones is not None and packet.dts is not None:
                packet.stream = tones
                out.mux(packet)
        out.mux(pictures.encode())
