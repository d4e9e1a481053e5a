"""The one command's second half: database, migrations, demo data, readers and web server, and a clean end for all of them."""

import argparse
import fcntl
import os
import shutil
import signal
import socket
import ssl
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType
from typing import IO

from brevin.jobs.queue import put_back, queue_on
from brevin.ops import demo
from brevin.ops import settings as known
from brevin.ops.children import spawn
from brevin.ops.mariadb import DatabaseTrouble, MariaDb
from brevin.ops.settings import ROOT, Settings
from brevin.store import database, takes

ANSWERS_WITHIN_S = 30.0
ENDS_WITHIN_S = 6.0
PORT_FREE_WITHIN_S = 5.0  # a killed run's server needs a moment to end


class Stop(Exception):
    """Told to stop."""


def main(argv: list[str] | None = None) -> int:
    """Start everything, wait, end everything. 0 after a stop that was asked for, 1 where something did not come up."""
    asked = _parser().parse_args(argv)
    try:
        settings = known.load(asked.data)
        lock = _lock(settings)
    except (ValueError, OSError) as why:
        print(f"start: {why}", file=sys.stderr)
        return 1
    for kind in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(kind, _told)
    running = Running(settings, asked)
    code = 0
    try:
        running.up()
        running.watch()
    except Stop:
        pass
    except (DatabaseTrouble, OSError, RuntimeError) as why:
        print(f"start: {why}", file=sys.stderr)
        code = 1
    finally:
        for kind in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
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


def _told(kind: int, frame: FrameType | None) -> None:
    raise Stop


def _lock(settings: Settings) -> IO[str]:
    """One run a data folder. Raises OSError where another holds it."""
    settings.data.mkdir(parents=True, exist_ok=True)
    file = (settings.data / "start.lock").open("w")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError as why:
        raise OSError(f"Brevin is already running on {settings.data}; stop it first, or choose another folder with --data") from why
    return file


class Running:
    """The processes of one run."""

    def __init__(self, settings: Settings, asked: argparse.Namespace) -> None:
        self.settings = settings
        self.port = asked.port or settings.number("port")
        self.workers = asked.workers or settings.number("workers")
        self.with_demo, self.lan = not asked.no_demo, asked.lan
        self.mariadb = MariaDb(settings)
        self.processes: list[tuple[str, subprocess.Popen[bytes]]] = []

    def up(self) -> None:
        """Everything in order; prints the address once the page answers."""
        self._claim_port()
        self._sweep()
        self.mariadb.start()
        database.connect(socket=str(self.settings.socket), password=self.settings.values["db_password"])
        database.migrate()
        takes.free_leases()
        if self.with_demo:
            demo.fill(self.settings)
        readings = queue_on(self.settings)
        put_back(readings.send)
        readings.huey.storage.close()
        self._run("worker", [sys.executable, "-m", "brevin.jobs.worker", str(self.settings.data), str(self.workers)])
        self._run("web", self._web())
        self._wait_for_page()
        self._say()

    def _claim_port(self) -> None:
        """Raises OSError where another program holds the port: its page must not be taken for ours. A moment's patience for one that is ending."""
        until = time.monotonic() + PORT_FREE_WITHIN_S
        while True:
            with socket.socket() as probe:
                probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
                try:
                    probe.bind(("0.0.0.0" if self.lan else "127.0.0.1", self.port))  # noqa: S104
                    return
                except OSError as why:
                    if time.monotonic() > until:
                        raise OSError(f"port {self.port} is in use by another program; choose another with --port") from why
            time.sleep(0.2)

    def _sweep(self) -> None:
        """Files that an interrupted upload or copy left."""
        self.settings.clips.mkdir(parents=True, exist_ok=True)
        for left in self.settings.clips.glob("*.part"):
            left.unlink(missing_ok=True)

    def _web(self) -> list[str]:
        gunicorn = Path(sys.executable).with_name("gunicorn")
        host = "0.0.0.0" if self.lan else "127.0.0.1"  # noqa: S104 (asked for by --lan)
        command = [
            str(gunicorn), "--worker-class", "gthread", "--workers", "1", "--threads", "16", "--timeout", "120", "--graceful-timeout", "3",
            "--bind", f"{host}:{self.port}", "--no-control-socket", "--worker-tmp-dir", "/dev/shm" if Path("/dev/shm").is_dir() else "/tmp",
            "brevin.web.server:app",
        ]  # fmt: skip
        if self.lan:
            certificate, key = _certificate(self.settings)
            command[1:1] = ["--certfile", str(certificate), "--keyfile", str(key)]
        return command

    def _run(self, name: str, command: list[str]) -> None:
        environment = os.environ | {
            "BREVIN_DATA": str(self.settings.data), "PYTHONPATH": str(ROOT / "src"), "BREVIN_HTTPS": "1" if self.lan else "0",
            "GLOG_minloglevel": "2", "TF_CPP_MIN_LOG_LEVEL": "2",
        }  # fmt: skip
        self.processes.append((name, spawn(command, self.settings.data / "logs" / f"{name}.log", environment=environment)))

    def _wait_for_page(self) -> None:
        until = time.monotonic() + ANSWERS_WITHIN_S
        address = f"{'https' if self.lan else 'http'}://127.0.0.1:{self.port}/"
        while time.monotonic() < until:
            self._all_alive()
            try:
                urllib.request.urlopen(address, timeout=2, context=_any_certificate() if self.lan else None).close()
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.1)
        raise RuntimeError(f"the page did not answer at {address}; see {self.settings.data / 'logs'}")

    def _all_alive(self) -> None:
        for name, process in self.processes:
            if process.poll() is not None:
                log = self.settings.data / "logs" / f"{name}.log"
                raise RuntimeError(f"the {name} process ended (exit {process.returncode}): {_last_line(log)} (more in {log})")

    def _say(self) -> None:
        scheme = "https" if self.lan else "http"
        print(f"Brevin is ready: {scheme}://127.0.0.1:{self.port}/", flush=True)
        if self.with_demo:
            print(f"Demo sign-in: {demo.LOGIN} / {demo.PASSWORD}", flush=True)
        print("Ctrl-C stops it.", flush=True)

    def watch(self) -> None:
        """Wait until told to stop; a process that ends is an error, except the reader, which is started again."""
        while True:
            time.sleep(0.5)
            for index, (name, process) in enumerate(self.processes):
                if process.poll() is None:
                    continue
                if name != "worker":
                    self._all_alive()
                del self.processes[index]
                self._run("worker", [sys.executable, "-m", "brevin.jobs.worker", str(self.settings.data), str(self.workers)])
                break
            if self.mariadb.process is not None and self.mariadb.process.poll() is not None:
                raise DatabaseTrouble(f"the database ended; see {self.mariadb.log}")

    def down(self) -> None:
        """End all processes, the database last."""
        threads = [threading.Thread(target=_end, args=(process,)) for _, process in self.processes]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        try:
            self.mariadb.stop()
        except DatabaseTrouble as why:
            print(f"start: {why}", file=sys.stderr)


def _end(process: "subprocess.Popen[bytes]") -> None:
    """Ask a process group to end; after a while end it."""
    for kind, patience in ((signal.SIGTERM, ENDS_WITHIN_S), (signal.SIGKILL, 3.0)):
        try:
            os.killpg(process.pid, kind)
        except ProcessLookupError:
            break
        try:
            process.wait(patience)
        except subprocess.TimeoutExpired:
            continue
        if _group_gone(process.pid):
            return
    process.poll()


def _group_gone(group: int) -> bool:
    until = time.monotonic() + 2.0
    while time.monotonic() < until:
        try:
            os.killpg(group, 0)
        except (ProcessLookupError, PermissionError):
            return True
        time.sleep(0.05)
    return False


def _last_line(path: Path) -> str:
    lines = path.read_text(errors="replace").strip().splitlines() if path.exists() else []
    return lines[-1][-300:] if lines else ""


def _any_certificate() -> ssl.SSLContext:
    return ssl._create_unverified_context()  # noqa: S323 (our own certificate on our own address)


def _certificate(settings: Settings) -> tuple[Path, Path]:
    """A certificate of our own for --lan, made once with the machine's openssl; phones ask once whether to trust it."""
    folder = settings.data / "secrets"
    certificate, key = folder / "lan.crt", folder / "lan.key"
    if not certificate.exists():
        if shutil.which("openssl") is None:
            raise RuntimeError("--lan needs the openssl command: apt-get install openssl")
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        subprocess.run(
            ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "3650", "-subj", "/CN=brevin", "-keyout", str(key), "-out", str(certificate)],
            check=True, capture_output=True,
        )  # fmt: skip
        key.chmod(0o600)
    return certificate, key


if __name__ == "__main__":
    sys.exit(main())
