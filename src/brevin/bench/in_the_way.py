"""What stands, lies or reaches into the picture of a hold: gloves, a second instrument, a stand, a hand, a picture that ends too early. Drawn on clips
of the stand-in player; each row is to say what it said without it, or that it is not readable. A part of ``./brevin bench hold``.
"""

import json
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from brevin.bench.worse import Rgb, remade
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.holds import drawn

BLACK, BRASS, SILVER = (28, 26, 26), (205, 160, 70), (212, 206, 200)
COLOURS = {"clarinet": BLACK, "oboe": BLACK, "flute": SILVER}
WOOL, CLOTH, SKIN, STEEL = (50, 40, 60), (60, 90, 150), (215, 165, 140), (38, 36, 36)
COMES_S = 2.0  # a teacher's hand comes and goes in spans of so long


@dataclass(frozen=True)
class Scene:
    """One picture with its player. points: key points, px; ahead: -1 where the player faces the picture's left; colour: of the instrument; t_s: since the
    clip's start."""

    rgb: Rgb
    points: dict[str, NDArray[np.float64]]
    ahead: float
    colour: tuple[int, int, int]
    t_s: float

    @property
    def trunk_px(self) -> float:
        """Hips to shoulders."""
        return float(np.hypot(*(self.points["shoulder"] - self.points["hip"])))

    def at(self, name: str, ahead: float, down: float) -> NDArray[np.float64]:
        """A place off a key point, in trunks."""
        return self.points[name] + self.trunk_px * np.array([self.ahead * ahead, down])

    def line(self, start: NDArray[np.float64], end: NDArray[np.float64], wide: float, colour: tuple[int, int, int]) -> None:
        """Draw a bar so many trunks wide."""
        ends = [(int(x), int(y)) for x, y in (start, end)]
        cv2.line(self.rgb, *ends, colour, max(3, int(wide * self.trunk_px)), cv2.LINE_AA)


def gloves(scene: Scene) -> None:
    """Both hands in dark wool."""
    for side in "lr":
        wrist, elbow = scene.points[f"wrist_{side}"], scene.points[f"elbow_{side}"]
        scene.line(wrist, wrist + 0.3 * (wrist - elbow), 0.19, WOOL)


def on_the_lap(scene: Scene) -> None:
    """A second instrument lies on the thighs."""
    scene.line(scene.at("hip", 0.15, -0.22), scene.at("hip", 1.15, -0.35), 0.06, scene.colour)


def beside(scene: Scene) -> None:
    """A second instrument leans on something in front of the player."""
    scene.line(scene.at("nose", 1.45, -0.3), scene.at("nose", 1.75, 1.3), 0.06, scene.colour)


def stand(scene: Scene) -> None:
    """A music stand covers the instrument's far end."""
    middle = scene.at("nose", 1.0, 0.35)
    scene.line(middle, middle + [0.0, 2.0 * scene.trunk_px], 0.05, STEEL)
    desk = middle + scene.trunk_px * np.array([[-0.3, -0.28], [0.3, -0.28], [0.26, 0.22], [-0.26, 0.22]])
    cv2.fillPoly(scene.rgb, [desk.astype(np.int32)], STEEL, cv2.LINE_AA)


def teachers_hand(scene: Scene) -> None:
    """A hand comes in from the side and takes hold of the instrument, now and again."""
    if scene.t_s % (2.0 * COMES_S) > COMES_S:
        return
    tip = scene.at("nose", 0.75, 0.25)
    start = np.array([scene.rgb.shape[1] - 1.0 if scene.ahead > 0 else 0.0, tip[1] + 0.5 * scene.trunk_px])
    wrist = tip - 0.22 * scene.trunk_px * (tip - start) / np.hypot(*(tip - start))
    scene.line(start, wrist, 0.16, CLOTH)
    scene.line(wrist, tip, 0.11, SKIN)


def cut_off(scene: Scene) -> Rgb:
    """The part of a picture that ends where the instrument has hardly begun, of even width."""
    last = int(scene.at("nose", 0.45, 0.0)[0])
    kept = scene.rgb[:, :last] if scene.ahead > 0 else scene.rgb[:, last:]
    return np.ascontiguousarray(kept[:, : kept.shape[1] // 2 * 2])


THINGS: dict[str, Callable[[Scene], None]] = {
    "gloves": gloves, "a second instrument on the lap": on_the_lap, "a second instrument leaning in front": beside, "a music stand before it": stand,
    "a teacher's hand that comes and goes": teachers_hand,
}  # fmt: skip
CUT_OFF = "the picture ends before its far end"
ALL = (*THINGS, CUT_OFF)
CASES = (0, 2, 8, 11, 13, 15, 16, 21, 24)
"""Of the set of holds: good ones of each instrument, from the side and from the front, and two faults of its angle."""
Word = tuple[str, str]
"""What a row says: "marked" with the side of its fault, "not marked", or "not readable"."""


@dataclass(frozen=True)
class Beside:
    """What became of the rows of one clip with one thing in its picture. without, with_it: what each row said."""

    clip: str
    thing: str
    without: dict[str, Word]
    with_it: dict[str, Word]

    @property
    def rows(self) -> list[tuple[str, str]]:
        """Every row that could be told without it: kept, not readable, or another word."""
        told = [(key, word, self.with_it.get(key, ("not readable", ""))) for key, word in self.without.items() if word[0] != "not readable"]
        return [(key, "not readable" if now[0] == "not readable" else "kept" if now == word else "another word") for key, word, now in told]


def words_of(report: Report, keys: Sequence[str]) -> dict[str, Word]:
    """What a report's rows of the hold say."""
    rows = [verdict for verdict in report.verdicts if verdict.criterion in keys]
    return {verdict.criterion: _word(verdict.state, verdict.outside, verdict.side) for verdict in rows}


def _word(state: str, outside: bool, side: str | None) -> Word:
    if state == "unreadable":
        return "not readable", ""
    return ("marked", side or "") if outside and state in ("watch", "work") else ("not marked", "")


def put_in(clip: Path, truth: dict[str, Any], target: Path, thing: str) -> None:
    """The clip with a thing in its pictures."""
    frames = truth["per_frame"]
    places = {name: np.array(at, float) for name, at in {**frames["joints_px"], **frames["keypoints_px"]}.items()}
    middles = {name: (places[f"{name}_l"] + places[f"{name}_r"]) / 2 for name in ("shoulder", "hip", "wrist")}
    colour = COLOURS.get(truth["label"]["instrument"], BRASS)
    before = places["nose"][:, 0] - middles["shoulder"][:, 0]
    ahead = 1.0 if truth["label"]["view"] == "front" or float(np.median(before)) > 0.0 else -1.0

    def changed(rgb: Rgb, number: int) -> Rgb:
        at = 0 if thing == CUT_OFF else number  # the picture ends at one place throughout
        scene = Scene(rgb.copy(), {name: way[min(at, len(way) - 1)] for name, way in (places | middles).items()}, ahead, colour, number / truth["fps"])
        if thing == CUT_OFF:
            return cut_off(scene)
        THINGS[thing](scene)
        return scene.rgb

    remade(clip, target, changed)


def measure(pool: ProcessPoolExecutor, folder: Path, keys: Sequence[str]) -> list[Beside]:
    """Every case with every thing, read as it is and with it."""
    numbers = [number for number in CASES if (folder / f"{drawn(number).script.name}.mp4").exists()]
    asked = [(number, thing, folder, tuple(keys)) for number in numbers for thing in ("", *ALL)]
    said = dict(zip([one[:2] for one in asked], pool.map(_read, *zip(*asked, strict=True)), strict=True)) if asked else {}
    return [Beside(drawn(n).script.name, thing, said[n, ""], said[n, thing]) for n in numbers for thing in ALL]


def _read(number: int, thing: str, folder: Path, keys: tuple[str, ...]) -> dict[str, Word]:
    case, clip = drawn(number).case, folder / f"{drawn(number).script.name}.mp4"
    task = Task(Check(card=parse(case.card), instrument=case.instrument, with_instrument=True))
    if not thing:
        return words_of(read(look(clip, model_path(ROOT)), task), keys)
    with TemporaryDirectory() as scratch:
        other = Path(scratch) / clip.name
        put_in(clip, json.loads(clip.with_suffix(".json").read_text()), other, thing)
        return words_of(read(look(other, model_path(ROOT)), task), keys)


def shares(found: Sequence[Beside]) -> dict[str, float]:
    """Of all rows that could be told without it: share kept, not readable, and with another word."""
    told = [became for one in found for _, became in one.rows]
    return {became: told.count(became) / max(len(told), 1) for became in ("kept", "not readable", "another word")}


def section(found: Sequence[Beside]) -> list[str]:
    """The page's part."""
    lines = [
        "", "## Something in the way", "",
        f"{len(found)} readings of {len({one.clip for one in found})} of the clips with a thing drawn into the picture. Each row that could be told without it"
        " is to say the same with it, or that it is not readable.",
        "", "| in the picture | rows | as without it | not readable | another word |", "|---|---|---|---|---|",
    ]  # fmt: skip
    for thing in ALL:
        own = [(one.clip, *row) for one in found if one.thing == thing for row in one.rows]
        became = [row[2] for row in own]
        others = ", ".join(f"{key} of {clip}" for clip, key, word in own if word == "another word")
        lines.append(f"| {thing} | {len(own)} | {became.count('kept')} | {became.count('not readable')} | {others} |")
    return lines
