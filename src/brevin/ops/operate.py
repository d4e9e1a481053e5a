"""What the operator commands do to a data folder: people who sign in, a check of the installation. Loaded only where one of them runs."""

import argparse
import getpass
import sys

from peewee import IntegrityError, OperationalError

from brevin.ops import settings as known
from brevin.ops.commands import BadUse
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.store import people, takes
from brevin.store.database import connect
from brevin.store.records import NotThere


def _open(asked: argparse.Namespace) -> Settings:
    settings = known.load(asked.data)
    if not settings.socket.exists():
        raise BadUse(f"Brevin is not running on {settings.data}: start it with ./start --data {asked.data}")
    connect(socket=str(settings.socket), password=settings.values["db_password"], connections=2)
    return settings


def user(asked: argparse.Namespace) -> int:
    """Add a person, set a password, list everyone. Raises BadUse."""
    _open(asked)
    if asked.action == "list":
        for person in people.teachers():
            print(f"{person.login:20} {person.role:10} {person.name}")
        return 0
    if not asked.login:
        raise BadUse("--login is missing")
    password = getpass.getpass("Password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
    if len(password) < 10:
        raise BadUse("the password wants ten characters or more")
    try:
        if asked.action == "add":
            people.add_teacher(login=asked.login, name=asked.name or asked.login, role=asked.role, password=password)
        else:
            people.set_password(asked.login, password)
    except IntegrityError as why:
        raise BadUse(f"the login {asked.login} is taken") from why
    except NotThere as why:
        raise BadUse(f"nobody signs in as {asked.login}") from why
    return 0


def check(asked: argparse.Namespace) -> int:
    """Print settings, parts and files; 1 where something is missing."""
    settings = known.load(asked.data)
    for name, value, source in settings.masked():
        print(f"{name:16} {value:24} {source}")
    print(f"{'model':16} {'built' if model_path(ROOT).exists() else 'missing: run ./start once'}")
    if not settings.socket.exists():
        print(f"{'database':16} not running")
        return 0
    connect(socket=str(settings.socket), password=settings.values["db_password"], connections=2)
    try:
        wanted = takes.known_files()
    except OperationalError:
        print(f"{'database':16} does not answer")
        return 1
    there = {path.name for path in settings.clips.glob("*") if path.is_file()}
    print(f"{'clips':16} {len(wanted & there)} in place, {len(wanted - there)} missing, {len(there - wanted)} nobody's")
    return 1 if wanted - there else 0
