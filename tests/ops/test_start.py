"""./start as a person uses it, as a power cut leaves it, and open to the room."""

import json
import os
import shutil
import signal
import ssl
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from http.cookiejar import CookieJar
from pathlib import Path

import pytest

from brevin.ops import demo, supervise
from brevin.ops.listening import own_names
from brevin.ops.mariadb import free_port
from brevin.ops.settings import ROOT

PASSWORD = "only-for-this-test"

UP_WITHIN_S = 240.0  # a machine that is shared by others has taken over a minute
ANY_CERTIFICATE = ssl._create_unverified_context()  # open to the room the page has one of its own making


def said(data: Path) -> Path:
    """What the run of this folder says: a file, since a pipe that nobody reads holds up who writes."""
    return data.parent / "start.log"


def up(data: Path, port: int, *args: str, page: str = "http") -> "subprocess.Popen[bytes]":
    with said(data).open("w") as log:
        process = subprocess.Popen([str(ROOT / "start"), "--data", str(data), "--port", str(port), *args], stdout=log, stderr=subprocess.STDOUT)
    until = time.monotonic() + UP_WITHIN_S
    while time.monotonic() < until and process.poll() is None:
        try:
            urllib.request.urlopen(f"{page}://127.0.0.1:{port}/", timeout=5, context=ANY_CERTIFICATE).close()
            return process
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    process.kill()
    process.wait(10)
    raise AssertionError(said(data).read_text())


def test_a_start_beside_the_tests_finds_all_installed_and_two_at_once_wait_for_each_other() -> None:
    both = [subprocess.Popen([str(ROOT / "install"), "run"], stderr=subprocess.PIPE, text=True) for _ in range(2)]
    heard = "".join(one.communicate(timeout=UP_WITHIN_S)[1] for one in both)
    assert [one.returncode for one in both] == [0, 0] and "Python environment" not in heard


def test_an_instrument_s_file_that_cannot_be_right_is_told_with_its_line_before_anything_starts(tmp_path: Path, monkeypatch, capsys) -> None:
    shutil.copytree(ROOT / "content", tmp_path / "content")
    flute = tmp_path / "content" / "instruments" / "flute.yaml"
    flute.write_text(flute.read_text().replace("clef: treble", "clef: bass"))
    monkeypatch.setattr(supervise, "ROOT", tmp_path)
    assert supervise.main(["--data", str(tmp_path / "data"), "--port", "1"]) == 1
    assert "flute.yaml:5: clef: flute is not read in the bass clef" in capsys.readouterr().err
    assert not (tmp_path / "data").exists()


def left(data: Path) -> str:
    return subprocess.run(["pgrep", "-af", str(data)], capture_output=True, text=True).stdout


def gone(data: Path, within_s: float) -> bool:
    until = time.monotonic() + within_s
    while left(data) and time.monotonic() < until:
        time.sleep(0.1)
    return not left(data)


@pytest.fixture(scope="module")
def fallen(tmp_path_factory: pytest.TempPathFactory) -> tuple[Path, int]:
    """The folder and port of a run that was killed in the middle of a clip's coming."""
    data, port = tmp_path_factory.mktemp("fallen") / "data", free_port()
    first = up(data, port)
    (data / "clips" / "half.mp4.part").write_bytes(b"half a clip")
    os.kill(first.pid, signal.SIGKILL)
    first.wait(10)
    return data, port


def test_after_a_kill_nothing_stays(fallen: tuple[Path, int]) -> None:
    assert gone(fallen[0], 15), left(fallen[0])  # its children end with it


@pytest.fixture(scope="module")
def in_the_room(fallen: tuple[Path, int]) -> Iterator[tuple[Path, int]]:
    """The same folder started again, open to the room, and ended by Ctrl-C."""
    data, port = fallen
    second = up(data, port, "--lan", page="https")
    try:
        yield fallen
    finally:
        second.send_signal(signal.SIGINT)
        second.wait(UP_WITHIN_S)  # the database may take long on a busy machine
    assert second.returncode == 0 and gone(data, 2)
    assert any(line.startswith("For phones in the room: https://") for line in said(data).read_text().splitlines())


def test_the_next_start_sweeps_what_was_half_there_and_lets_no_other_run_beside_it(in_the_room: tuple[Path, int], tmp_path: Path) -> None:
    data, port = in_the_room
    assert not (data / "clips" / "half.mp4.part").exists()
    same_folder, same_port = refused("--data", str(data)), refused("--data", str(tmp_path / "other"), "--port", str(port))
    assert "already running" in same_folder and len(same_folder.strip().splitlines()) == 1
    assert "in use" in same_port.lower() and gone(tmp_path / "other", 2)


def refused(*args: str) -> str:
    """What ./start says that ends at once."""
    done = subprocess.run([str(ROOT / "start"), "--no-demo", *args], capture_output=True, text=True, timeout=60)
    assert done.returncode == 1
    return done.stderr


def test_signing_in_over_the_rooms_https(in_the_room: tuple[Path, int]) -> None:
    data, port = in_the_room
    browser = Visitor(f"https://127.0.0.1:{port}")
    assert browser("/api/me")["name"] is None
    with pytest.raises(urllib.error.HTTPError) as why:
        browser("/api/sign-in", {"login": demo.LOGIN, "password": demo.PASSWORD})
    assert json.load(why.value)["code"] == "demo_password"
    command = [str(ROOT / "brevin"), "user", "password", "--login", demo.LOGIN, "--data", str(data)]
    subprocess.run(command, input=PASSWORD + "\n", text=True, check=True, capture_output=True, cwd=ROOT)
    name = browser("/api/sign-in", {"login": demo.LOGIN, "password": PASSWORD})["name"]
    assert name is not None and browser("/api/me")["name"] == name
    phone = next((name for name in own_names() if name[0].isdigit()), None)
    if phone:
        assert Visitor(f"https://{phone}:{port}")("/api/me")["name"] is None


class Visitor:
    """Cookies, the page's token, and the Referer a browser sends to its own origin."""

    def __init__(self, origin: str) -> None:
        self.origin, self.token = origin, ""
        secured = urllib.request.HTTPSHandler(context=ANY_CERTIFICATE)
        self.opener = urllib.request.build_opener(secured, urllib.request.HTTPCookieProcessor(CookieJar()))

    def __call__(self, path: str, body: dict | None = None) -> dict:
        request = urllib.request.Request(self.origin + path, data=None if body is None else json.dumps(body).encode(), headers={"Referer": self.origin + "/"})
        request.add_header("Content-Type", "application/json")
        request.add_header("X-CSRFToken", self.token)
        answer = json.load(self.opener.open(request, timeout=10))
        self.token = answer.get("csrf", self.token)
        return answer
