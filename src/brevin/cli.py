"""The commands of an operator: ``./brevin analyse`` and the others."""

import argparse
import json
import sys
import tempfile
from pathlib import Path
from typing import get_args

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.kinds import INSTRUMENTS, AskedPosition, AskedView, Instrument
from brevin.core.plan.card import CountCard, parse
from brevin.core.plan.check import Check
from brevin.core.verdict.reasons import reason_text
from brevin.core.verdict.rules import Rules, layer_from, resolve
from brevin.edge.clip_work import READ_LIMITS, see_clip
from brevin.edge.limited import Child, Children, Died
from brevin.ops import commands
from brevin.ops.commands import BadUse
from brevin.ops.settings import ROOT, model_path

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
    analyse.add_argument("--view", choices=get_args(AskedView), default="auto")
    analyse.add_argument("--position", choices=get_args(AskedPosition), default="auto")
    analyse.add_argument("--instrument", default="none", help=", ".join(INSTRUMENTS))
    analyse.add_argument("--profile", type=Path, help="method profile, a JSON file")
    analyse.add_argument("--out", type=Path, help="file for the report; standard output without it")
    analyse.set_defaults(run=_analyse)
    commands.add_to(jobs)
    return parser


def _analyse(asked: argparse.Namespace) -> int:
    held = _instrument(asked.instrument)
    check = Check(card=_card(asked.count), view=asked.view, position=asked.position, instrument=held, with_instrument=held != "none")
    rules = _rules(asked.profile)
    if not asked.clip.is_file():
        raise BadUse(f"there is no file {asked.clip}")
    if not model_path(ROOT).exists():
        raise BadUse("the pose model is not built yet: run ./start once")
    with tempfile.TemporaryDirectory(prefix="brevin-") as scratch:
        kept = Path(scratch) / "clip.evidence"
        child = Children(straight=True).start(see_clip, str(asked.clip.absolute()), str(model_path(ROOT)), str(kept), asked.view, limits=READ_LIMITS)
        from brevin.core.evidence import unpacked  # what judges is loaded while the child looks
        from brevin.core.plain import to_json
        from brevin.core.read import Task, judge
        from brevin.core.verdict.wording import with_sentences

        _until_seen(child, asked.clip.name)
        found = unpacked(kept.read_bytes())
    report = judge(found, Task(check), rules).report
    _write(json.dumps(with_sentences(to_json(report)), allow_nan=False), asked.out)
    return READ if report.readable else NOT_READABLE


def _until_seen(child: Child, name: str) -> None:
    """Wait for the child that looks at a clip. Raises BadUse."""
    say = _Say()
    try:
        while child.answer(wait_s=1.0) is None:
            if child.progress is not None:
                say(*child.progress)
    except ClipUnusable as why:
        raise BadUse(f"{name}: {reason_text(why.code, why.facts)}") from why
    except Died as why:
        raise BadUse(f"{name}: the reading ended by itself ({why})") from why
    finally:
        child.kill()


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


def _instrument(name: str) -> Instrument:
    known = next((one for one in INSTRUMENTS if one == name), None)
    if known is not None:
        return known
    print(f"brevin: {name!r} is no instrument known here, read as none; known are {', '.join(INSTRUMENTS)}", file=sys.stderr)
    return "none"


def _rules(path: Path | None) -> Rules:
    if path is None:
        return Rules()
    try:
        document = json.loads(path.read_text())
        if not isinstance(document, dict):
            raise BadUse(f"{path} is no method profile: wanted an object with limits and off")
        return resolve([layer_from(document)])
    except (OSError, ValueError, RecursionError) as why:
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
