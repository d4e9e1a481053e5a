"""What the operator commands do to a data folder: people who sign in, a check of the installation. Loaded only where one of them runs."""

import argparse
import contextlib
import getpass
import signal
import sys
from collections.abc import Iterator

from peewee import DatabaseError, IntegrityError, InterfaceError, OperationalError

from brevin.edge.growing import growing
from brevin.ops import backup, held
from brevin.ops import files as sweeping
from brevin.ops import restore as restoring
from brevin.ops import settings as known
from brevin.ops.backup_folder import BackupTrouble
from brevin.ops.commands import BadUse
from brevin.ops.empty_database import DatabaseTrouble
from brevin.ops.only_run import connect, database_of
from brevin.ops.settings import ROOT, Settings, model_path
from brevin.store import backups, files, programmes, whole
from brevin.store.records import NotThere, StudentRecord
from brevin.store.scope import HOUSE, Scope

BEHIND = "; it still holds what was deleted or withdrawn since, until its folder is there"


def _open(asked: argparse.Namespace) -> Settings:
    settings = known.load(asked.data)
    if not settings.socket.exists():
        raise BadUse(f"Brevin is not running on {settings.data}: start it with ./start --data {asked.data}")
    connect(settings)
    return settings


def _programme(asked: argparse.Namespace) -> Scope:
    """The programme an operator speaks of: the only one, or the one named by its number."""
    found = {programme.id: programme for programme in programmes.all_programmes(HOUSE)}
    if asked.programme is None and len(found) == 1:
        return Scope(next(iter(found)))
    if asked.programme not in found:
        raise BadUse("which programme? --programme takes one of " + ", ".join(f"{p.id} ({p.name})" for p in found.values()))
    return Scope(asked.programme)


def user(asked: argparse.Namespace) -> int:
    """Add a person, set a password, list everyone. Raises BadUse."""
    _open(asked)
    if asked.action == "list":
        for member in programmes.members(HOUSE):
            print(f"{member.person.login:20} {member.role:10} {member.person.name:30} {member.programme.name}")
        return 0
    if not asked.login:
        raise BadUse("--login is missing")
    scope = _programme(asked) if asked.action == "add" else HOUSE
    password = getpass.getpass("Password: ") if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
    if len(password) < 10:
        raise BadUse("the password wants ten characters or more")
    try:
        if asked.action == "add":
            programmes.add_person(scope, login=asked.login, name=asked.name or asked.login, role=asked.role, password=password)
        else:
            programmes.set_password(HOUSE, asked.login, password)
    except IntegrityError as why:
        raise BadUse(f"the login {asked.login} is taken") from why
    except NotThere as why:
        raise BadUse(f"nobody signs in as {asked.login}") from why
    return 0


def _student(asked: argparse.Namespace) -> tuple[Scope, StudentRecord]:
    scope = _programme(asked)
    try:
        return scope, whole.named(scope, asked.student)
    except NotThere as why:
        raise BadUse(f"nobody, or more than one, is called {asked.student}: give the whole name as the class list has it, or the number") from why


def export(asked: argparse.Namespace) -> int:
    """Write everything that is held about one student. Raises BadUse."""
    settings = _open(asked)
    scope, student = _student(asked)
    try:
        count = held.write(scope, student.id, settings, asked.out)
    except OSError as why:
        raise BadUse(f"{asked.out} cannot be written: {why.strerror}") from why
    print(f"{student.name}: {count} takes in {asked.out}")
    return 0


def erase(asked: argparse.Namespace) -> int:
    """Delete one student with everything that is held about them. Raises BadUse where it is not confirmed."""
    settings = _open(asked)
    scope, student = _student(asked)
    if not asked.yes:
        print(f"Every take, clip and reading of {student.name} is deleted. This cannot be taken back. Type the name to go on: ", end="", flush=True)
        if sys.stdin.readline().strip() != student.name:
            raise BadUse("nothing was deleted")
    gone = whole.erase(scope, student.id)
    sweeping.work_off(settings)
    for one in growing(settings.filming, student_id=student.id):
        one.drop()  # what is being filmed at this moment, too
    print(f"{student.name}: {gone.takes} takes and {gone.clips} clips were deleted.")
    print("Backups follow when their folder is there; other copies of the data folder still hold them.")
    return 0


def back_up(asked: argparse.Namespace) -> int:
    """Bring a backup up to date, or delete it. Raises BadUse."""
    if not (asked.data / "mariadb").is_dir():
        raise BadUse(f"there is nothing to back up in {asked.data}: --data names the data folder")
    path = asked.folder.absolute()
    with _said_in_a_line(f"the backup in {path} cannot be written", "What was there last stands"):
        settings = known.load(asked.data)
        with database_of(settings):
            if asked.forget:
                backup.forget(settings, path)
                print(f"The backup in {path} is deleted.")
                return 0
            made = backup.make(settings, path, replace=asked.replace)
    print(f"{path}: the database and {len(made.files)} files, {made.size / 1e6:.1f} MB, as of {made.made_at:%Y-%m-%d %H:%M} UTC.")
    return 0


def restore(asked: argparse.Namespace) -> int:
    """Put a backup back into a new data folder. Raises BadUse."""
    with _said_in_a_line(f"{asked.data} cannot be written", "Nothing was put back"):
        found = restoring.restore(asked.folder.absolute(), asked.data.absolute())
    print(f"{asked.data} holds {found.students} students and {found.files} files as of {found.made_at:%Y-%m-%d %H:%M} UTC.")
    if found.missing:
        print(f"{found.missing} files were not in the backup: their takes keep their readings, and show no clip.")
    print("What families withdrew or had deleted after that moment is here again: do it again before anybody is filmed. Everybody signs in anew.")
    print(f"No backup is made of it yet: ./brevin backup FOLDER --data {asked.data}, with --replace where it is to be the same folder.")
    return 0


@contextlib.contextmanager
def _said_in_a_line(cannot: str, stands: str) -> Iterator[None]:
    """What goes wrong on the way, and being told to stop, which leaves nothing half made. stands: what is there then. Raises BadUse."""
    before = signal.signal(signal.SIGTERM, signal.default_int_handler)
    try:
        yield
    except (BackupTrouble, DatabaseTrouble, DatabaseError, InterfaceError, ValueError) as why:
        raise BadUse(str(why)) from why
    except OSError as why:
        raise BadUse(f"{cannot}: {why.strerror}. {stands}") from why
    except KeyboardInterrupt as why:
        raise BadUse(f"stopped. {stands}") from why
    finally:
        signal.signal(signal.SIGTERM, before)


def check(asked: argparse.Namespace) -> int:
    """Print settings, parts and files; 1 where something is missing."""
    settings = known.load(asked.data)
    for name, value, source in settings.masked():
        print(f"{name:16} {value:24} {source}")
    print(f"{'model':16} {'built' if model_path(ROOT).exists() else 'missing: run ./start once'}")
    if not settings.socket.exists():
        print(f"{'database':16} not running")
        return 0
    connect(settings)
    try:
        owned, missing = files.owned(HOUSE), sweeping.missing(settings)
        orphans, to_go = sweeping.orphans(settings), files.to_go(HOUSE)
        places = backups.places(HOUSE)
    except OperationalError:
        print(f"{'database':16} does not answer")
        return 1
    print(f"{'files':16} {len(owned) - len(missing)} in place, {len(missing)} missing, {len(orphans)} nobody's, {len(to_go)} still to be deleted")
    for what, listed in (("missing", missing), ("nobody's", orphans), ("to go", to_go)):
        for file in listed:
            print(f"  {what:14} {file.folder}/{file.name}")
    for place in places:
        made = "never whole" if place.made_at is None else f"as of {place.made_at:%Y-%m-%d %H:%M} UTC"
        print(f"{'backup':16} {place.path}, {made}{BEHIND if place.behind else ''}")
    return 1 if missing or to_go else 0
