"""The one command's second half: database, migrations, demo data, reader and web server; what dies is started again; a clean end for all of them."""

import argparse
import contextlib
import signal
import sys
import threading
import time
from pathlib import Path

from peewee import DatabaseError, InterfaceError

from brevin.edge.instrument_files import ContentFaults, content
from brevin.ops import demo
from brevin.ops import files as sweeping
from brevin.ops import settings as known
from brevin.ops.backing_up import Due
from brevin.ops.children import BEHIND
from brevin.ops.empty_database import DatabaseTrouble
from brevin.ops.listening import FRUGAL, certificate, claim_port, own_names, wait_for_page, web_command
from brevin.ops.logs import keep_small
from brevin.ops.mariadb import MariaDb
from brevin.ops.only_run import migrated, only_run
from brevin.ops.service import GivesUp, Service, reader_command
from brevin.ops.settings import ROOT, Settings
from brevin.ops.told import ENDS, Stop, Told
from brevin.store import readings
from brevin.store.scope import HOUSE

LOOK_EVERY_S = 0.3  # after processes that died
LOGS_EVERY_S = 60.0  # after logs that grow


def main(argv: list[str] | None = None) -> int:
    """Start everything, wait, end everything. 0 after a stop that was asked for, 1 where something did not come up."""
    asked = _parser().parse_args(argv)
    try:
        content(ROOT / "content")
        settings = known.load(asked.data)
        lock = only_run(settings)
    except ContentFaults as found:
        print("start: the instruments' files hold what cannot be right:", *found.faults, sep="\n  ", file=sys.stderr)
        return 1
    except (ValueError, OSError) as why:
        print(f"start: {why}", file=sys.stderr)
        return 1
    told = Told()
    told.listen()
    running = Running(settings, asked)
    code = 0
    try:
        running.up()
        running.watch(told)
    except Stop:
        pass
    except (DatabaseTrouble, GivesUp, OSError, RuntimeError, DatabaseError, InterfaceError) as why:
        if not told.stop:
            print(f"start: {why}", file=sys.stderr)
            code = 1
    finally:
        for kind in ENDS:
            signal.signal(kind, signal.SIG_IGN)  # the way down is not interrupted
        running.down()
        lock.close()
    return code


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./start", description="Starts Brevin with its database, readers and web page.")
    parser.add_argument("--port", type=int, help="port of the page (8760)")
    parser.add_argument("--data", type=Path, default=Path("var"), help="folder for everything it keeps (./var)")
    parser.add_argument("--no-demo", action="store_true", help="start empty, without the demo school")
    parser.add_argument("--lan", action="store_true", help="HTTPS on all addresses, for phones in the room")
    parser.add_argument("--workers", type=int, help="readings side by side (1)")
    return parser


def _free_leases() -> None:
    """What a dead reader held waits again at once; where the database is away too, the leases run out by themselves."""
    with contextlib.suppress(DatabaseError, InterfaceError):
        readings.readers_died(HOUSE)


class Running:
    """The processes of one run."""

    def __init__(self, settings: Settings, asked: argparse.Namespace) -> None:
        self.settings = settings
        self.port = asked.port or settings.number("port")
        self.with_demo, self.lan = not asked.no_demo, asked.lan
        self.mariadb, self.backups = MariaDb(settings), Due(settings)
        readers = asked.workers or settings.number("workers")
        self.reader = Service("reader", settings, reader_command(settings, readers), lan=self.lan, behind=BEHIND)
        self.web = Service("web", settings, web_command(settings, self.port, lan=self.lan), lan=self.lan, also=FRUGAL)

    def up(self) -> None:
        """Everything in order; prints the address once the page answers."""
        claim_port(self.port, lan=self.lan)
        if self.lan:
            certificate(self.settings)
        for folder in (self.settings.clips, self.settings.evidence):
            folder.mkdir(parents=True, exist_ok=True)
        self.mariadb.start()
        migrated(self.settings)
        sweeping.sweep(self.settings)
        readings.free_leases(HOUSE)
        if self.with_demo:
            demo.fill(self.settings)
        self.reader.start()
        self.web.start()
        self.backups.begin()
        wait_for_page(self.port, lan=self.lan, alive=self._all_alive)
        self._say()

    def _all_alive(self) -> None:
        for service in (self.reader, self.web):
            service.check()

    def _say(self) -> None:
        scheme = "https" if self.lan else "http"
        print(f"Brevin is ready: {scheme}://127.0.0.1:{self.port}/", flush=True)
        for name in own_names() if self.lan else []:
            print(f"For phones in the room: {scheme}://{name}:{self.port}/", flush=True)
        if self.lan and self.with_demo:
            print(f"The demo's password opens nothing to the room: ./brevin user password --login {demo.LOGIN} gives another.", flush=True)
        elif self.with_demo:
            print(f"Demo sign-in: {demo.LOGIN} / {demo.PASSWORD}", flush=True)
        print("Ctrl-C stops it.", flush=True)

    def watch(self, told: Told) -> None:
        """Until told to stop: whatever ended is started again. Raises GivesUp, DatabaseTrouble where that does not help."""
        logs_at = 0.0
        while not told.stop:
            time.sleep(LOOK_EVERY_S)
            if not self.mariadb.alive:
                print("start: the database ended; it is started again", file=sys.stderr, flush=True)
                self.mariadb.start_again()
            self.reader.revive(first=_free_leases)
            self.web.revive()
            if time.monotonic() > logs_at + LOGS_EVERY_S:
                logs_at = time.monotonic()
                keep_small(self.settings.data / "logs")

    def down(self) -> None:
        """End all processes, the database last."""
        self.backups.stop()
        threads = [threading.Thread(target=service.end) for service in (self.reader, self.web)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        try:
            self.mariadb.stop()
        except DatabaseTrouble as why:
            print(f"start: {why}", file=sys.stderr)


if __name__ == "__main__":
    sys.exit(main())
