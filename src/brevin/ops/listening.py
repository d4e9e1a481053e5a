"""Where the page listens: its port, the web server's command, the certificate for phones in the room, and waiting until it answers."""

import contextlib
import fcntl
import shutil
import socket
import ssl
import struct
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
SIOCGIFADDR = 0x8915  # asks the kernel for an interface's address
CERTIFICATE_DAYS, CERTIFICATE_ANEW_DAYS = 397, 360  # phones trust none that lasts longer
THREADS = 64  # each open page holds one for what it is told
FRUGAL = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "131072"}  # else each of these keeps what it once used, pictures among it


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
        str(Path(sys.executable).with_name("gunicorn")), "--worker-class", "brevin.web.worker.PatientWorker", "--workers", "1",
        "--threads", str(THREADS), "--timeout", "120",
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


def own_names() -> list[str]:
    """This machine's addresses in the room and its name: what a phone may ask for."""
    found = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        for _, name in socket.if_nameindex():
            with contextlib.suppress(OSError):  # an interface without an address
                asked = fcntl.ioctl(probe.fileno(), SIOCGIFADDR, struct.pack("256s", name.encode()[:15]))
                found.append(socket.inet_ntoa(asked[20:24]))
    return [*sorted(set(found) - {"127.0.0.1"}), socket.gethostname(), f"{socket.gethostname()}.local"]


def certificate(settings: Settings) -> None:
    """A certificate of our own for --lan, made with the machine's openssl for the names it has now, and anew when they change or a year is nearly over;
    phones ask once whether to trust it."""
    crt, key = _certificate_files(settings)
    names = ["localhost", "127.0.0.1", *own_names()]
    noted = crt.with_suffix(".names")
    fresh = crt.exists() and time.time() - crt.stat().st_mtime < CERTIFICATE_ANEW_DAYS * 86400
    if fresh and noted.exists() and noted.read_text().split() == names:
        return
    if shutil.which("openssl") is None:
        raise RuntimeError("--lan needs the openssl command: apt-get install openssl")
    crt.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    also = ",".join(f"{'IP' if name.replace('.', '').isdigit() else 'DNS'}:{name}" for name in names)
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", str(CERTIFICATE_DAYS), "-subj", "/CN=brevin", "-addext",
         f"subjectAltName={also}", "-keyout", str(key), "-out", str(crt)], check=True, capture_output=True,
    )  # fmt: skip
    key.chmod(0o600)
    noted.write_text("\n".join(names))
