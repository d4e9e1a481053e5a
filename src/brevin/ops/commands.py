"""Operator commands on a data folder: people who sign in, a check of the installation, figures."""

import argparse
from pathlib import Path

from brevin.ops.settings import ROOT


class BadUse(Exception):
    """One line for the person at the keyboard."""


def add_to(jobs: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """The commands' parsers."""
    data = argparse.ArgumentParser(add_help=False)
    data.add_argument("--data", type=Path, default=ROOT / "var", help="data folder (./var)")
    user = jobs.add_parser("user", help="add a person who signs in, or set a password", parents=[data])
    user.add_argument("action", choices=["add", "password", "list"])
    user.add_argument("--login")
    user.add_argument("--name", default="")
    user.add_argument("--role", choices=["owner", "teacher", "assistant"], default="teacher")
    user.add_argument("--programme", type=int, help="number of the programme, where there are several")
    user.set_defaults(run=_user)
    check = jobs.add_parser("check", help="settings with their source, parts of the installation, files against the database", parents=[data])
    check.set_defaults(run=_check)
    one = argparse.ArgumentParser(add_help=False)
    one.add_argument("student", help="number, or whole name")
    one.add_argument("--programme", type=int, help="number of the programme, where there are several")
    export = jobs.add_parser("export", help="everything that is held about one student, as one ZIP", parents=[data, one])
    export.add_argument("--out", type=Path, required=True, help="the ZIP to write")
    export.set_defaults(run=_export)
    erase = jobs.add_parser("erase", help="delete one student with everything that is held about them", parents=[data, one])
    erase.add_argument("--yes", action="store_true", help="do not ask")
    erase.set_defaults(run=_erase)
    bench = jobs.add_parser("bench", help="one figure set, measured on this machine")
    bench.add_argument("name", help="accuracy, reading, recompute, take-page, today")
    bench.add_argument("--json", action="store_true")
    bench.set_defaults(run=_bench)


def _user(asked: argparse.Namespace) -> int:
    from brevin.ops import operate  # brings the database's packages, which a reading does without

    return operate.user(asked)


def _check(asked: argparse.Namespace) -> int:
    from brevin.ops import operate

    return operate.check(asked)


def _export(asked: argparse.Namespace) -> int:
    from brevin.ops import operate

    return operate.export(asked)


def _erase(asked: argparse.Namespace) -> int:
    from brevin.ops import operate

    return operate.erase(asked)


def _bench(asked: argparse.Namespace) -> int:
    from brevin.bench import run

    return run(asked.name, as_json=asked.json)
