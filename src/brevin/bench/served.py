"""A server of its own for a measurement, with the demo data, and what a page does with it over the wire."""

import http.cookiejar
import json
import os
import signal
import subprocess
import tempfile
import time
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from brevin.ops import demo
from brevin.ops import settings as known
from brevin.ops.mariadb import free_port
from brevin.ops.settings import ROOT, Settings

UP_WITHIN_S, READ_WITHIN_S = 120.0, 180.0


@dataclass(frozen=True)
class Served:
    """address: of the page; data: its folder."""

    address: str
    data: Path

    @property
    def settings(self) -> Settings:
        """Settings of the folder, for whoever looks into its database."""
        return known.load(self.data)


@contextmanager
def served(*, empty: bool = False) -> Iterator[Served]:
    """The server, for as long as it is needed. empty: without the demo school."""
    port = free_port()
    with tempfile.TemporaryDirectory(prefix="brevin-bench-") as data:
        command = [str(ROOT / "start"), "--port", str(port), "--data", data, *(["--no-demo"] if empty else [])]
        server = subprocess.Popen(command, stdout=subprocess.DEVNULL, start_new_session=True)
        try:
            _wait(f"http://127.0.0.1:{port}/")
            yield Served(f"http://127.0.0.1:{port}", Path(data))
        finally:
            os.kill(server.pid, signal.SIGTERM)
            server.wait(30)


def _wait(address: str) -> None:
    until = time.monotonic() + UP_WITHIN_S
    while time.monotonic() < until:
        try:
            urllib.request.urlopen(address, timeout=2).close()
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.2)
    raise RuntimeError("the server for the measurement did not come up")


class Client:
    """A signed-in page's worth of requests."""

    def __init__(self, address: str) -> None:
        self.address = address
        self._jar = http.cookiejar.CookieJar()
        self._open = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self._jar)).open
        self._csrf = self("GET", "/api/me")["csrf"]
        self._csrf = self("POST", "/api/sign-in", {"login": demo.LOGIN, "password": demo.PASSWORD})["csrf"]

    def __call__(self, method: str, path: str, body: object = None) -> Any:
        """The answer's JSON. Raises urllib.error.HTTPError."""
        headers = {"Content-Type": "application/json", "Referer": self.address + "/"}
        headers |= {"X-CSRFToken": self._csrf} if method != "GET" else {}
        asked = urllib.request.Request(self.address + path, json.dumps(body).encode() if body is not None else None, headers, method=method)
        with self._open(asked, timeout=30) as answer:
            return json.loads(answer.read())

    def send(self, clip: Path, **asked: str | int) -> str:
        """A clip as a file; returns its take. asked: whose it is, and for what."""
        path = f"{self.address}/api/takes?{urllib.parse.urlencode({'file_name': clip.name} | asked)}"
        sent = urllib.request.Request(path, clip.read_bytes(), self.headers | {"Content-Type": "application/octet-stream"})
        with self._open(sent, timeout=120) as answer:
            return str(json.loads(answer.read())["id"])

    def clip(self, take: str, folder: Path) -> Path:
        """A take's clip as the page plays it, put into a folder."""
        held = folder / take
        with self._open(f"{self.address}/api/takes/{take}/clip", timeout=30) as answer:
            held.write_bytes(answer.read())
        return held

    @property
    def headers(self) -> dict[str, str]:
        """What this page sends with a request, for one that is made by hand."""
        cookies = "; ".join(f"{one.name}={one.value}" for one in self._jar)
        return {"Cookie": cookies, "X-CSRFToken": self._csrf, "Referer": self.address + "/"}

    def all_read(self) -> list[dict[str, Any]]:
        """The takes, once none of them waits any more."""
        until = time.monotonic() + READ_WITHIN_S
        while True:
            takes: list[dict[str, Any]] = self("GET", "/api/takes")["takes"]
            if all(take["state"] in ("read", "failed") for take in takes):
                return takes
            if time.monotonic() > until:
                raise RuntimeError("the demo clips were not read in time")
            time.sleep(0.5)
