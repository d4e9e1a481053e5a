"""The same clips made worse, step by step: how far the reading of the breath carries, and where the gate ends it. A part of ``./brevin bench accuracy``.

What is refused is measured all the same where breaths were found, so that the page shows what each limit keeps away.
"""

import json
from collections.abc import Callable, Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory
from typing import cast

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.bench.accuracy import Tally, add
from brevin.core.evidence import Evidence, Followed, evidence
from brevin.core.read import judge
from brevin.core.report import Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

Rgb = NDArray[np.uint8]
CLEAN = 22.0  # rate factor of a coder that hardly changes a picture
NOISE_GREY = 2.0  # of a sensor, whatever light it has
TURNS = ("inhale_start_s", "exhale_start_s")


@dataclass(frozen=True)
class Way:
    """One way of making a clip worse. levels: mildest first; gauge: what the gate sees of it, with its name; picture: what becomes of one; coder: the rate
    factor at a level; every: of how many pictures one is kept."""

    name: str
    level: str
    levels: tuple[float, ...]
    seen_as: str
    gauge: Callable[[Evidence, Followed], float]
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
    Way("Coded harder, as a messenger does it", "rate factor", (30, 34, 38), "age of the picture, s", lambda _, who: who.traces.stale_s, coder=float),
    Way("Farther away", "size", (0.8, 0.6, 0.4), "trunk, px", lambda _, who: who.player.trunk_px, farther),
    Way("Darker", "light", (0.5, 0.25, 0.12), "grey of the trunk", lambda _, who: float(np.median(who.picture.light)), darker),
    Way("Softer", "blur, px", (2.0, 4.0, 7.0), "contrast of the outline, grey levels", lambda _, who: float(np.median(who.picture.clear)), softer),
    Way(
        "Fewer pictures", "of so many one", (2, 3, 4), "pictures a second", lambda seen, _: 1.0 / float(np.median(np.diff(seen.t_s))), every=int
    ),
)  # fmt: skip


@dataclass(frozen=True)
class Made:
    """One clip at one level of one way. seen: what the gate saw of it, None where nobody was found in it; refused: for the breath."""

    truth_file: Path
    way: int
    level: float
    seen: float | None
    refused: bool
    report: Report


def measure(pool: ProcessPoolExecutor, truths: Iterable[Path]) -> list[Made]:
    """Every side clip made worse in every way."""
    sides = [file for file in truths if str(json.loads(file.read_text())["label"]["view"]).startswith("side")]
    return list(pool.map(_read, *zip(*((file, i, level) for i, way in enumerate(WAYS) for level in way.levels for file in sides), strict=True)))


def section(found: Sequence[Made]) -> list[str]:
    """The page's part: a table for each way."""
    lines = [
        "", "## Made worse, step by step", "", "Side views of the first two sets, each made worse in one way at a time. What the gate refuses is",
        "measured all the same where breaths were found, so that the tables show what its limits keep away (their values: [method.md](method.md)).",
    ]  # fmt: skip
    for i, way in enumerate(WAYS):
        lines += [
            "", f"### {way.name}", "",
            f"| {way.level} | {way.seen_as} | clips | refused | breaths found | inhale onset, s | in the interval | exhale onset, s | in the interval |",
            "|" + "---|" * 9,
        ]  # fmt: skip
        for level in way.levels:
            at = [one for one in found if (one.way, one.level) == (i, level)]
            if at:
                seen = [one.seen for one in at if one.seen is not None]
                cells = [f"{level:g}", f"{median(seen):.3g}" if seen else "-", str(len(at)), str(sum(one.refused for one in at)), *_errors(at)]
                lines.append(f"| {' | '.join(cells)} |")
    return lines


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


def _read(truth_file: Path, number: int, level: float) -> Made:
    way = WAYS[number]
    with TemporaryDirectory() as scratch:
        worse = Path(scratch) / "worse.mp4"
        made_worse(truth_file.with_suffix(".mp4"), worse, way, level)
        seen = evidence(look(worse, model_path(ROOT)))
    report = judge(seen, task_of(json.loads(truth_file.read_text()))).report
    return Made(truth_file, number, level, way.gauge(seen, seen.players[0]) if seen.players else None, not report.readable_for.breath, report)


def _errors(at: Sequence[Made]) -> list[str]:
    """Breaths found of those planted, then of each start the median error and how many lie in their intervals."""
    tally = Tally("one level")
    for one in at:
        told = replace(one.report, readable_for=replace(one.report.readable_for, breath=True))
        add(tally, json.loads(one.truth_file.read_text()), told, one.truth_file.stem)
    known = [(tally.errors(key), tally.covered(key)) for key in TURNS]
    cells = [(f"{median(errors):.3f}", f"{100 * (covered or 0.0):.0f} %") if errors else ("-", "-") for errors, covered in known]
    return [f"{len(tally.found)} of {tally.planted}", *(cell for pair in cells for cell in pair)]
