"""Where the page listens: its port, the web server's command, the certificate for phones in the room, and waiting until it answers."""

import shutil
import socket
import ssl
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from pathlib import Path

from brevin.ops.settings import Settings

ANSWERS_WITHIN_S = 30.0
PORT_FREE_WITHIN_S = 5.0  # a killed run's server needs a moment to end
THREADS = 64  # each open page holds one for what it is told


def claim_port(port: int, *, lan: bool) -> None:
    """Raises OSError where another program holds the port: its page must not be taken for ours. A moment's patience for one that is ending."""
    until = time.monotonic() + PORT_FREE_WITHIN_S
    while True:
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((_host(lan), port))
                return
            except OSError as why:
                if time.monotonic() > until:
                    raise OSError(f"port {port} is in use by another program; choose another with --port") from why
        time.sleep(0.2)


def _host(lan: bool) -> str:
    return "0.0.0.0" if lan else "127.0.0.1"  # noqa: S104 (asked for by --lan)


def web_command(settings: Settings, port: int, *, lan: bool) -> list[str]:
    """The web server."""
    command = [
        str(Path(sys.executable).with_name("gunicorn")), "--worker-class", "gthread", "--workers", "1", "--threads", str(THREADS), "--timeout", "120",
        "--graceful-timeout", "2", "--bind", f"{_host(lan)}:{port}", "--no-control-socket",
        "--worker-tmp-dir", "/dev/shm" if Path("/dev/shm").is_dir() else "/tmp", "brevin.web.server:app",
    ]  # fmt: skip
    if lan:
        files = _certificate_files(settings)
        command[1:1] = ["--certfile", str(files[0]), "--keyfile", str(files[1])]
    return command


def wait_for_page(port: int, *, lan: bool, alive: Callable[[], None]) -> None:
    """Until the page answers. alive: raises where there is no use in waiting. Raises RuntimeError where it does not answer in time."""
    until = time.monotonic() + ANSWERS_WITHIN_S
    address = f"{'https' if lan else 'http'}://127.0.0.1:{port}/"
    while time.monotonic() < until:
        alive()
        try:
            urllib.request.urlopen(address, timeout=2, context=_any_certificate() if lan else None).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise RuntimeError(f"the page did not answer at {address} within {ANSWERS_WITHIN_S:.0f} s")


def _any_certificate() -> ssl.SSLContext:
    return ssl._create_unverified_context()  # noqa: S323 (our own certificate on our own address)


def _certificate_files(settings: Settings) -> tuple[Path, Path]:
    folder = settings.data / "secrets"
    return folder / "lan.crt", folder / "lan.key"


def certificate(settings: Settings) -> None:
    """A certificate of our own for --lan, made once with the machine's openssl; phones ask once whether to trust it."""
    crt, key = _certificate_files(settings)
    if crt.exists():
        return
    if shutil.which("openssl") is None:
        raise RuntimeError("--lan needs the openssl command: apt-get install openssl")
    crt.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "3650", "-subj", "/CN=brevin", "-keyout", str(key), "-out", str(crt)],
        check=True, capture_output=True,
    )  # fmt: skip
    key.chmod(0o600)
