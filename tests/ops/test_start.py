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
    data, port = tmp_path / "data", free_port()
    first = up(data, port)
    (data / "clips" / "half.mp4.part").write_bytes(b"half a clip")
    os.kill(first.pid, signal.SIGKILL)
    first.wait()
    assert gone(data, 15), left(data)  # its children end with it
    second = up(data, port)
    assert not (data / "clips" / "half.mp4.part").exists()
    second.send_signal(signal.SIGTERM)
    assert second.wait(20) == 0 and gone(data, 2)


def test_a_second_start_on_the_same_folder_says_so_and_ctrl_c_ends_the_first_cleanly(tmp_path: Path) -> None:
    data = tmp_path / "data"
    first = up(data, free_port())
    try:
        second = subprocess.run([str(ROOT / "start"), "--data", str(data), "--no-demo"], capture_output=True, text=True, timeout=30)
        assert second.returncode == 1 and "already running" in second.stderr and len(second.stderr.strip().splitlines()) == 1
    finally:
        first.send_signal(signal.SIGINT)
        assert first.wait(20) == 0 and gone(data, 2)


def test_a_port_that_is_taken_is_an_error_with_its_reason(tmp_path: Path) -> None:
    import socket

    with socket.socket() as holder:
        holder.bind(("127.0.0.1", 0))
        holder.listen()
        done = subprocess.run(
            [str(ROOT / "start"), "--data", str(tmp_path / "data"), "--no-demo", "--port", str(holder.getsockname()[1])],
            capture_output=True, text=True, timeout=60,
        )  # fmt: skip
    assert done.returncode == 1 and "in use" in done.stderr.lower() and gone(tmp_path / "data", 2)
