"""The same clips coded anew, harder each time, as a messenger does it: how late the reading gets, and where ``coded_hard`` says so.

A part of ``./brevin bench accuracy``. What is refused is measured all the same, so that the page shows what the limit keeps away.
"""

import json
from collections.abc import Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory

import av

from brevin.bench.accuracy import Tally, add
from brevin.core.evidence import evidence
from brevin.core.gate import STALE_MOST_S, STALE_NOTED_S
from brevin.core.read import judge
from brevin.core.report import Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.truth import task_of

RATE_FACTORS = (30, 34, 38, 42)  # of the coder; a phone's own clips are at 20 to 28
BANDS_S = (0.0, 0.02, 0.04, STALE_NOTED_S, 0.16, STALE_MOST_S, 0.5, 99.0)  # of the picture's age while the trunk moves
TURNS = ("inhale_start_s", "exhale_start_s")


@dataclass(frozen=True)
class Squeezed:
    """One clip coded anew. stale_s: how old its picture is while the trunk moves; refused: for the breath."""

    truth_file: Path
    stale_s: float
    refused: bool
    report: Report


def measure(pool: ProcessPoolExecutor, truths: Iterable[Path]) -> list[Squeezed]:
    """Every side clip at every rate."""
    sides = [file for file in truths if str(json.loads(file.read_text())["label"]["view"]).startswith("side")]
    seen = pool.map(_read, *zip(*((file, factor) for file in sides for factor in RATE_FACTORS), strict=True)) if sides else []
    return [one for one in seen if one is not None]


def section(found: Sequence[Squeezed]) -> list[str]:
    """The page's part: errors and intervals by the age of the picture."""
    lines = [
        "", "## Coded anew", "", f"Side views of the first two sets, each coded anew at {len(RATE_FACTORS)} rates, as a messenger does it; by how old the",
        "picture is while the trunk moves. What is refused (`coded_hard`) is measured here all the same.", "",
        "| age of the picture, s | clips | refused | breaths | inhale onset: median error, s | in the interval | exhale onset, s | in the interval |",
        "|---|---|---|---|---|---|---|---|",
    ]  # fmt: skip
    for from_s, to_s in zip(BANDS_S, BANDS_S[1:], strict=False):
        inside = [one for one in found if from_s <= one.stale_s < to_s]
        if inside:
            name = f"{from_s:g} to {to_s:g}" if to_s < BANDS_S[-1] else f"over {from_s:g}"
            lines.append(f"| {name} | {len(inside)} | {sum(one.refused for one in inside)} | {_errors(inside)} |")
    return lines


def coded_anew(clip: Path, made: Path, factor: int) -> None:
    """The clip's pictures at a coder's rate factor, its sound as it was."""
    with av.open(str(clip)) as source, av.open(str(made), "w") as target:
        video, sound = source.streams.video[0], next(iter(source.streams.audio), None)
        pictures = target.add_stream("libx264", rate=video.average_rate, options={"crf": str(factor), "preset": "veryfast"})
        pictures.width, pictures.height, pictures.pix_fmt, pictures.time_base = video.width, video.height, "yuv420p", video.time_base
        tones = None if sound is None else target.add_stream_from_template(sound)
        for packet in source.demux():
            if packet.stream is video:
                for frame in packet.decode():
                    frame.pict_type = av.video.frame.PictureType.NONE
                    target.mux(pictures.encode(frame))
            elif tones is not None and packet.dts is not None:
                packet.stream = tones
                target.mux(packet)
        target.mux(pictures.encode())


def _read(truth_file: Path, factor: int) -> Squeezed | None:
    with TemporaryDirectory() as scratch:
        made = Path(scratch) / "anew.mp4"
        coded_anew(truth_file.with_suffix(".mp4"), made, factor)
        seen = evidence(look(made, model_path(ROOT)))
    if not seen.players:
        return None
    report = judge(seen, task_of(json.loads(truth_file.read_text()))).report
    return Squeezed(truth_file, seen.players[0].traces.stale_s, not report.readable_for.breath, report)


def _errors(inside: Sequence[Squeezed]) -> str:
    tally = Tally("one age")
    for one in inside:
        told = replace(one.report, readable_for=replace(one.report.readable_for, breath=True))
        add(tally, json.loads(one.truth_file.read_text()), told, one.truth_file.stem)
    cells = [f"{median(tally.errors(key)):.3f} | {100 * (tally.covered(key) or 0.0):.0f} %" if tally.errors(key) else "- | -" for key in TURNS]
    return " | ".join([f"{len(tally.found)} of {tally.planted}", *cells])
