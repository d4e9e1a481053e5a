"""./start as a person uses it, and as a power cut leaves it."""

import os
import shutil
import signal
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

from brevin.ops import supervise
from brevin.ops.mariadb import free_port
from brevin.ops.settings import ROOT

UP_WITHIN_S = 60.0


def up(data: Path, port: int) -> "subprocess.Popen[str]":
    process = subprocess.Popen(
        [str(ROOT / "start"), "--data", str(data), "--port", str(port), "--no-demo"], stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
    )
    until = time.monotonic() + UP_WITHIN_S
    while time.monotonic() < until and process.poll() is None:
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/", timeout=1).close()
            return process
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise AssertionError(process.communicate()[0])


def test_a_start_beside_the_tests_finds_all_installed_and_two_at_once_wait_for_each_other() -> None:
    both = [subprocess.Popen([str(ROOT / "install"), "run"], stderr=subprocess.PIPE, text=True) for _ in range(2)]
    said = "".join(one.communicate(timeout=60)[1] for one in both)
    assert [one.returncode for one in both] == [0, 0] and "Python environment" not in said


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


def test_after_a_kill_nothing_stays_and_the_next_start_goes_on_until_it_is_told_to_stop(tmp_path: Path) -> None:
    """What a kill leaves, what a second start beside the running one says, with its folder or its port, and a clean end by Ctrl-C."""
    data, port = tmp_path / "data", free_port()
    first = up(data, port)
    (data / "clips" / "half.mp4.part").write_bytes(b"half a clip")
    os.kill(first.pid, signal.SIGKILL)
    first.wait()
    assert gone(data, 15), left(data)  # its children end with it
    second = up(data, port)
    try:
        assert not (data / "clips" / "half.mp4.part").exists()
        same_folder, same_port = refused("--data", str(data)), refused("--data", str(tmp_path / "other"), "--port", str(port))
        assert "already running" in same_folder and len(same_folder.strip().splitlines()) == 1
        assert "in use" in same_port.lower() and gone(tmp_path / "other", 2)
    finally:
        second.send_signal(signal.SIGINT)
        assert second.wait(20) == 0 and gone(data, 2)


def refused(*args: str) -> str:
    """What ./start says that ends at once."""
    done = subprocess.run([str(ROOT / "start"), "--no-demo", *args], capture_output=True, text=True, timeout=60)
    assert done.returncode == 1
    return done.stderr
