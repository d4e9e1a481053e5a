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
    backup = jobs.add_parser("backup", help="bring a backup up to date, or make the first; while Brevin runs it does so itself once a day", parents=[data])
    backup.add_argument("folder", type=Path, help="a folder of its own, best on another disk")
    backup.add_argument("--replace", action="store_true", help="also where the folder holds the backup of another data folder, which is deleted")
    backup.add_argument("--forget", action="store_true", help="delete the backup in this folder; it is not brought up to date any more")
    backup.set_defaults(run=_backup)
    restore = jobs.add_parser("restore", help="put a backup back into a new data folder", parents=[data])
    restore.add_argument("folder", type=Path, help="the folder of the backup")
    restore.set_defaults(run=_restore)
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


def _backup(asked: argparse.Namespace) -> int:
    from brevin.ops import operate

    return operate.back_up(asked)


def _restore(asked: argparse.Namespace) -> int:
    from brevin.ops import operate

    return operate.restore(asked)


def _bench(asked: argparse.Namespace) -> int:
    from brevin.bench import run

    return run(asked.name, as_json=asked.json)
