"""The commands of an operator: ``./brevin analyse`` and the others."""

import argparse
import json
import sys
from pathlib import Path

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.plan.card import CountCard, parse
from brevin.core.read import Task, read
from brevin.core.report import to_json
from brevin.core.verdict.profile import MethodProfile, from_json
from brevin.core.verdict.words import reason_text
from brevin.ops import commands
from brevin.ops.commands import BadUse

ROOT = Path(__file__).resolve().parents[2]
INSTRUMENTS = (
    "none", "flute", "oboe", "clarinet", "alto_sax", "tenor_sax", "trumpet", "cornet", "horn", "trombone", "euphonium", "baritone", "tuba",
)  # fmt: skip
READ, BAD_USE, NOT_READABLE = 0, 2, 3


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns its exit code."""
    parser = _parser()
    asked = parser.parse_args(argv)
    try:
        return int(asked.run(asked))
    except BadUse as why:
        print(f"brevin: {why}", file=sys.stderr)
        return BAD_USE


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="brevin", description="Reads a beginner's breath, posture and hold from half a minute of film.")
    jobs = parser.add_subparsers(required=True, metavar="COMMAND")
    analyse = jobs.add_parser("analyse", help="read one clip: report as JSON, no server, no database")
    analyse.add_argument("clip", type=Path)
    analyse.add_argument("--count", help="count card, such as 3-0-7@72x4")
    analyse.add_argument("--view", choices=["side", "front", "three-quarter", "auto"], default="auto")
    analyse.add_argument("--position", choices=["seated", "standing", "lying", "auto"], default="auto")
    analyse.add_argument("--instrument", default="none", help=", ".join(INSTRUMENTS))
    analyse.add_argument("--profile", type=Path, help="method profile, a JSON file")
    analyse.add_argument("--out", type=Path, help="file for the report; standard output without it")
    analyse.set_defaults(run=_analyse)
    commands.add_to(jobs)
    return parser


def _analyse(asked: argparse.Namespace) -> int:
    from brevin.edge.look import look  # loads the networks: only where a clip is read
    from brevin.ops.settings import model_path

    task = Task(
        card=_card(asked.count),
        instrument=_instrument(asked.instrument),
        rules=_rules(asked.profile),
        position=None if asked.position == "auto" else asked.position,
    )
    if not asked.clip.is_file():
        raise BadUse(f"there is no file {asked.clip}")
    if not model_path(ROOT).exists():
        raise BadUse("the pose model is not built yet: run ./start once")
    try:
        sighting = look(asked.clip, model_path(ROOT), progress=_Say(), view=None if asked.view == "auto" else asked.view)
    except ClipUnusable as why:
        raise BadUse(f"{asked.clip.name}: {reason_text(why.code, why.facts)}") from why
    report = read(sighting, task)
    _write(json.dumps(to_json(report), allow_nan=False), asked.out)
    return READ if report.readable else NOT_READABLE


class _Say:
    """Progress on standard error, one line for each tenth."""

    def __init__(self) -> None:
        self.said = -1

    def __call__(self, stage: str, share: float) -> None:
        tenth = int(10 * share)
        if tenth > self.said:
            self.said = tenth
            print(f"{10 * tenth:3d} % {stage}", file=sys.stderr, flush=True)


def _card(text: str | None) -> CountCard | None:
    try:
        return parse(text) if text else None
    except InvalidInput as why:
        raise BadUse(f"{text!r} is no count card; wanted {why.facts['wanted']}") from why


def _instrument(name: str) -> str:
    if name in INSTRUMENTS:
        return name
    print(f"brevin: {name!r} is no instrument known here, read as none; known are {', '.join(INSTRUMENTS)}", file=sys.stderr)
    return "none"


def _rules(path: Path | None) -> MethodProfile:
    if path is None:
        return MethodProfile()
    try:
        return from_json(json.loads(path.read_text()))
    except (OSError, ValueError, AttributeError) as why:
        raise BadUse(f"{path} is no method profile: {why}") from why
    except InvalidInput as why:
        raise BadUse(f"{path} is no method profile: {why.facts}") from why


def _write(text: str, out: Path | None) -> None:
    if out is None:
        print(text)
        return
    unfinished = out.with_name(out.name + ".part")
    try:
        unfinished.write_text(text)
        unfinished.replace(out)
    except OSError as why:
        raise BadUse(f"the report cannot be written to {out}: {why.strerror}") from why


if __name__ == "__main__":
    sys.exit(main())
