"""Whether planted faults of posture and hold are found, and good ones left alone: ``docs/hold.md`` is made from it.

The clips are made once with requirements/standin.txt installed: ``python -m brevin.standin.holds .build/holds`` (an hour on two cores, in two halves).
"""

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from statistics import median

from brevin.bench import Measured, accuracy_hold, hold_breath, in_the_way
from brevin.bench.tally import Tally, add, together
from brevin.core.plan.card import parse
from brevin.core.plan.check import Check
from brevin.core.read import Task, read
from brevin.core.report import Report, Verdict
from brevin.core.verdict.rules import CriterionKey
from brevin.edge.look import look
from brevin.ops.settings import ROOT, model_path
from brevin.standin.hold_cases import COUNT, Case
from brevin.standin.holds import drawn

CLIPS = ROOT / ".build" / "holds"
PAGE = ROOT / "docs" / "hold.md"
JUDGED: tuple[CriterionKey, ...] = (
    "feet_flat", "trunk_inclination", "keeps_tall", "back_rounding", "head_forward", "shoulder_tilt", "head_level", "head_with_flute",
    "body_still", "axis_level", "axis_to_trunk", "arms_stay_up", "hands_in_order", "elbow_left", "elbow_right", "wrist_left", "wrist_right",
)  # fmt: skip
"""The rows that can be planted one by one."""
BARS = {"found": (">=", 0.9), "alarms": ("<=", 0.05), "another": ("<=", 0.05), "breath_f1": (">=", 0.98), "named_wrong": ("<=", 0.03)}
GOES_ALONG: dict[CriterionKey, tuple[CriterionKey, ...]] = {
    "keeps_tall": ("trunk_inclination", "axis_to_trunk"), "arms_stay_up": ("axis_level",),
    "hands_in_order": ("elbow_left", "elbow_right"), "axis_level": ("head_with_flute",),
}  # fmt: skip
"""What a planted fault brings with it: a trunk that sinks leans in the end, arms that cross before the body are close to it, and from a flute that sags alone
the head is turned."""


@dataclass(frozen=True)
class Outcome:
    """One clip. found: its fault was marked on the right side, None of a good clip; withheld: it was said not to be readable; alarms: other rows that were
    marked though nothing was planted there."""

    name: str
    case: Case
    unseen: bool
    found: bool | None
    withheld: bool
    alarms: tuple[str, ...]
    seen: tuple[accuracy_hold.Seen, ...]
    breath: Tally


def outcome(number: int, report: Report, breath: Tally) -> Outcome:
    """What a reading made of a clip of the set. breath: its breaths and angles beside the planted ones."""
    hold = drawn(number)
    rows = {v.criterion: v for v in report.verdicts if v.criterion in JUDGED}
    own = [rows[key] for key in hold.case.faults if key in rows]
    marked = [v for v in own if v.outside and (v.side == "low") == (hold.case.side == "low")]
    along = {key for fault in hold.case.faults for key in GOES_ALONG.get(fault, ())}
    alarms = tuple(key for key, v in rows.items() if _alarm(v) and key not in hold.case.faults and key not in along)
    found = bool(marked) if hold.case.faults else None
    return Outcome(hold.script.name, hold.case, hold.unseen, found, bool(own) and all(v.state == "unreadable" for v in own), alarms, tuple(breath.held), breath)


def _alarm(verdict: Verdict) -> bool:
    return verdict.outside and verdict.state in ("watch", "work")


def measure() -> Measured:
    """Read every clip of the set that was made, write the page, and give its figures."""
    clips = [number for number in range(COUNT) if (CLIPS / f"{drawn(number).script.name}.json").exists()]  # written last: one that was broken off has none
    if not clips:
        print("brevin: make the clips first: python -m brevin.standin.holds .build/holds, with requirements/standin.txt installed", file=sys.stderr)
        return Measured("hold", {"clips": 0.0}, {"clips": (">=", 1.0)})
    with ProcessPoolExecutor(2) as pool:
        outcomes = list(pool.map(_read, clips))
        beside = in_the_way.measure(pool, CLIPS, JUDGED)
    PAGE.write_text(page(outcomes, beside))
    figures = {"clips": float(len(outcomes))} | {
        f"{key}_{name}": value
        for name, part in _parts(outcomes).items()
        if part
        for key, value in (figures_of(part) | hold_breath.figures_of(together(name, [one.breath for one in part]))).items()
    }
    if beside:
        figures["another_word_in_the_way"] = in_the_way.shares(beside)["another word"]
    bars = {key: bar for key in figures for start, bar in BARS.items() if key.startswith(start)}
    return Measured("hold", figures, bars)


def _parts(outcomes: list[Outcome]) -> dict[str, list[Outcome]]:
    """Tuned and unseen bodies apart; those that wear stickers apart from both, whose figures they would flatter."""
    parts: dict[str, list[Outcome]] = {"tuned": [], "unseen": [], "with_stickers": []}
    for one in outcomes:
        parts["with_stickers" if "stickers_m" in one.case.planted else "unseen" if one.unseen else "tuned"].append(one)
    return parts


def figures_of(outcomes: list[Outcome]) -> dict[str, float]:
    """found: share of the planted faults that were marked; withheld: that were said not to be readable; alarms: share of all clips with a mark where nothing
    was planted."""
    planted = [one for one in outcomes if one.found is not None]
    most = max(len(planted), 1)
    return {
        "found": sum(one.found is True for one in planted) / most, "withheld": sum(one.withheld for one in planted) / most,
        "alarms": sum(bool(one.alarms) for one in outcomes) / max(len(outcomes), 1),
    }  # fmt: skip


def _read(number: int) -> Outcome:
    hold = drawn(number)
    clip = CLIPS / f"{hold.script.name}.mp4"
    report = read(
        look(clip, model_path(ROOT)), Task(Check(card=parse(hold.case.card), instrument=hold.case.instrument, with_instrument=hold.case.instrument != "none"))
    )
    breath = Tally(hold.script.name)
    add(breath, json.loads(clip.with_suffix(".json").read_text()), report, hold.script.name)
    return outcome(number, report, breath)


def page(outcomes: list[Outcome], beside: list[in_the_way.Beside]) -> str:
    """docs/hold.md. beside: the same with something in the way."""
    lines = [
        "# Posture and hold: planted faults",
        "",
        "Made by `./brevin bench hold` from clips of the stand-in player (`standin/holds.py`): good ones, and each with one fault; bodies, clothes and rooms"
        " drawn at random. The second body of each case is unseen: nothing was changed for it, but how wide and how"
        " large a rise of the shoulders is told from the front, which was chosen over both. Of those with stickers all were in sight when stickers were built,"
        " and where a horn's leadpipe ends was chosen over both bodies. Where armpits tell the shoulder line (core/pose/armpits.py) was tried on the front"
        " views of both; nine clips filmed after it agree (method.md). That an elbow inside its shoulder is close in was looked at on the front views of both.",
    ]
    for name, part in _parts(outcomes).items():
        if not part:
            continue
        figures = figures_of(part)
        lines += ["", f"## {name.capitalize().replace('_', ' ')}", ""]
        lines += [
            f"{len(part)} clips. Planted faults found: {100 * figures['found']:.0f} % (bar 90), said not to be readable: {100 * figures['withheld']:.0f} %."
            f" Clips with a mark where nothing was planted: {100 * figures['alarms']:.0f} % (bar 5).",
            "", "| clip | planted | found | other marks |", "|---|---|---|---|",
        ]  # fmt: skip
        lines += [_row(one) for one in part]
        lines += ["", "| row | planted | found | not readable | missed |", "|---|---|---|---|---|", *_by_row(part)]
        lines += ["", "| measure | bar | median error | in the 90 % interval | measured |", "|---|---|---|---|---|"]
        lines += [row for key, bar in accuracy_hold.BARS.items() if (row := _errors(part, key, bar))]
    lines += hold_breath.section({name: _by_instrument(part) for name, part in _parts(outcomes).items() if part})
    lines += hold_breath.lost([(f"{one.name} ({one.case.name})", one.breath) for one in outcomes])
    return "\n".join([*lines, *in_the_way.section(beside)] if beside else lines) + "\n"


def _by_instrument(outcomes: list[Outcome]) -> dict[str, Tally]:
    instruments = sorted({one.case.instrument for one in outcomes})
    return {name: together(name, [one.breath for one in outcomes if one.case.instrument == name]) for name in instruments}


def _row(one: Outcome) -> str:
    found = {None: "", True: "yes", False: "not readable" if one.withheld else "**no**"}[one.found]
    return f"| {one.name} | {one.case.name} | {found} | {', '.join(one.alarms)} |"


def _by_row(part: list[Outcome]) -> list[str]:
    """Where planted faults go missing, by the row that is to find them."""
    planted = [one for one in part if one.found is not None]
    lines = []
    for row in dict.fromkeys(" or ".join(one.case.faults) for one in planted):
        own = [one for one in planted if " or ".join(one.case.faults) == row]
        found, withheld = sum(one.found is True for one in own), sum(one.withheld for one in own)
        lines.append(f"| {row} | {len(own)} | {found} | {withheld} | {len(own) - found - withheld} |")
    return lines


def _errors(part: list[Outcome], key: str, bar: float) -> str:
    own = [seen for one in part for seen in one.seen if seen.key == key]
    kept = [(abs(seen.error), seen.half or 0.0) for seen in own if seen.error is not None]
    if not kept:
        return ""
    inside = sum(error <= half for error, half in kept) / len(kept)
    return f"| {accuracy_hold.NAMES[key]} | {bar} | {median(error for error, _ in kept):.2f} | {100 * inside:.0f} % | {len(kept)} of {len(own)} |"
