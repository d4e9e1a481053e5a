"""MariaDB of Debian's packages, on loopback, with its data in the data folder: started, stopped, and taken up again after a kill."""

import os
import signal
import socket
import subprocess
import time
from pathlib import Path

import pymysql

from brevin.ops.children import spawn
from brevin.ops.empty_database import DatabaseTrouble, empty_folder, program
from brevin.ops.settings import Settings

SCHEMAS = ("brevin",)
PROGRAM = "brevin"  # the account of the program itself: its schemas and nothing else
UP_WITHIN_S, DOWN_WITHIN_S = 60.0, 30.0
START_TRIES = 3
ISOLATION = "READ-COMMITTED"  # who waited for a row then sees what was made meanwhile; MariaDB's own way shows the tables as they were before the wait
MOST_DEATHS, WITHIN_S = 5, 60.0  # so often in so long, and starting again does not mend it


class MariaDb:
    """One server process. ``start`` returns once it answers; ``stop`` once it is gone."""

    def __init__(self, settings: Settings) -> None:
        self.settings = settings
        self.folder = settings.data / "mariadb"
        self.log = settings.data / "logs" / "mariadb.log"
        self.pid_file = settings.data / "mariadb.pid"
        self.port = 0
        self.process: subprocess.Popen[bytes] | None = None
        self._died_at: list[float] = []

    def start(self) -> None:
        """Install the data folder if new, end a stale server of a killed run, start, and make schemas and password."""
        self.log.parent.mkdir(parents=True, exist_ok=True)
        self._end_stale()
        if not (self.folder / "mysql").exists():
            empty_folder(self.folder, user=self._user(), environment=self._environment())
        for tries_left in reversed(range(START_TRIES)):
            self.port = free_port()
            self.process = spawn(self._command(), self.log, environment=self._environment())
            try:
                self._wait()
                break
            except DatabaseTrouble:
                if self.alive or not tries_left:
                    raise  # it ended at once: another program may have taken the port between the asking and the binding
        self._secure()

    @property
    def alive(self) -> bool:
        """Whether the server runs."""
        return self.process is not None and self.process.poll() is None

    def start_again(self) -> None:
        """After the server died. Raises DatabaseTrouble where it dies over and over."""
        now = time.monotonic()
        self._died_at = [at for at in self._died_at if now - at < WITHIN_S] + [now]
        if len(self._died_at) > MOST_DEATHS:
            raise DatabaseTrouble(f"the database ends over and over; see {self.log}")
        self.start()

    def stop(self) -> None:
        """Ask the server to end and wait for it. Raises DatabaseTrouble if it stays."""
        if self.process is None or self.process.poll() is not None:
            return
        self.process.send_signal(signal.SIGTERM)
        try:
            self.process.wait(DOWN_WITHIN_S)
        except subprocess.TimeoutExpired as why:
            raise DatabaseTrouble(f"the database did not stop within {DOWN_WITHIN_S:.0f} s; see {self.log}") from why

    def _environment(self) -> dict[str, str]:
        """A folder of its own for temporary tables: a server that starts clears those of every other in a shared one, and what they hold is the children's."""
        folder = self.settings.data / "mariadb.tmp"
        folder.mkdir(exist_ok=True)
        return {**os.environ, "TMPDIR": str(folder)}

    def _user(self) -> list[str]:
        return ["--user=root"] if os.geteuid() == 0 else []

    def _command(self) -> list[str]:
        return [
            program("mariadbd", "/usr/sbin/mariadbd"), "--no-defaults", f"--datadir={self.folder}", f"--socket={self.settings.socket}",
            f"--pid-file={self.pid_file}", "--bind-address=127.0.0.1", f"--port={self.port}", "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_unicode_ci", "--skip-name-resolve", "--innodb-buffer-pool-size=96M", "--performance-schema=OFF",
            "--max-allowed-packet=64M", f"--transaction-isolation={ISOLATION}", *self._user(),
        ]  # fmt: skip

    def _wait(self) -> None:
        assert self.process is not None
        until = time.monotonic() + UP_WITHIN_S
        while time.monotonic() < until:
            if self.process.poll() is not None:
                raise DatabaseTrouble(f"the database ended at once (exit {self.process.returncode}); its last words are in {self.log}")
            try:
                self.connection().close()
                return
            except pymysql.err.OperationalError as why:
                if why.args[0] == 1045:  # password from an earlier run is set and ours is refused
                    raise DatabaseTrouble(f"the database in {self.folder} has another password than {self.settings.data / 'secrets'}") from why
                time.sleep(0.05)
        raise DatabaseTrouble(f"the database did not answer within {UP_WITHIN_S:.0f} s; see {self.log}")

    def connection(self, schema: str | None = None) -> "pymysql.connections.Connection[pymysql.cursors.Cursor]":
        """A plain connection over the socket; on a new folder without password."""
        common = {"unix_socket": str(self.settings.socket), "user": "root", "database": schema, "charset": "utf8mb4"}
        try:
            return pymysql.connect(password=self.settings.values["db_password"], **common)
        except pymysql.err.OperationalError as why:
            if why.args[0] != 1045:
                raise
            return pymysql.connect(password="", **common)

    def _secure(self) -> None:
        """Two accounts, each with a password and over the socket alone: root, who starts and stops, and the program's own, who may use its schemas."""
        password = self.settings.values["db_password"]
        with self.connection() as connection, connection.cursor() as cursor:
            cursor.execute("ALTER USER 'root'@'localhost' IDENTIFIED BY %s", (password,))
            cursor.execute("SELECT User, Host FROM mysql.global_priv WHERE Host <> 'localhost' OR User NOT IN ('root', 'mariadb.sys', %s)", (PROGRAM,))
            for user, host in cursor.fetchall():
                cursor.execute("DROP USER %s@%s", (user, host))
            cursor.execute("CREATE USER IF NOT EXISTS %s@'localhost'", (PROGRAM,))
            cursor.execute("ALTER USER %s@'localhost' IDENTIFIED BY %s", (PROGRAM, password))
            for schema in SCHEMAS:
                cursor.execute(f"CREATE DATABASE IF NOT EXISTS {schema} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
                cursor.execute(f"GRANT ALL PRIVILEGES ON {schema}.* TO %s@'localhost'", (PROGRAM,))

    def _end_stale(self) -> None:
        """A server left by a killed run holds the folder: end it as politely as it lets us."""
        pid = _pid(self.pid_file)
        if pid is None or not _is_ours(pid, self.folder):
            return
        for kind, patience in ((signal.SIGTERM, DOWN_WITHIN_S), (signal.SIGKILL, 5.0)):
            os.kill(pid, kind)
            until = time.monotonic() + patience
            while time.monotonic() < until:
                if not _is_ours(pid, self.folder):
                    return
                time.sleep(0.05)
        raise DatabaseTrouble(f"an older database (process {pid}) holds {self.folder} and does not end; end it by hand")


def _pid(path: Path) -> int | None:
    try:
        return int(path.read_text().strip())
    except (OSError, ValueError):
        return None


def _is_ours(pid: int, folder: Path) -> bool:
    """Whether the process is a MariaDB on this folder: its number may have gone to another program. A zombie is gone."""
    try:
        command = Path(f"/proc/{pid}/cmdline").read_bytes().split(b"\0")
        state = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0]
    except OSError:
        return False
    return state != "Z" and f"--datadir={folder}".encode() in command


def free_port() -> int:
    """A port of loopback that nobody holds."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])
