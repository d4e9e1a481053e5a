import json
import os
import subprocess
from pathlib import Path

import pytest

from brevin.cli import main
from brevin.ops.settings import ROOT
from tests import clips
from tests.conftest import DEMO_CLIP


def brevin(*arguments: str | Path) -> subprocess.CompletedProcess[str]:
    return subprocess.run([str(ROOT / "brevin"), *map(str, arguments)], capture_output=True, text=True, timeout=120, cwd="/")


def test_a_clip_is_analysed_without_server_and_database(tmp_path: Path, tmp_path_factory: pytest.TempPathFactory) -> None:
    out = tmp_path / "report.json"
    one_breath = clips.lighter(DEMO_CLIP, tmp_path_factory.mktemp("beginning") / DEMO_CLIP.name, 12.0, slice(230, 730))
    done = brevin("analyse", one_breath, "--count", "4-0-6@84x1", "--instrument", "trumpet", "--out", out)
    report = json.loads(out.read_text())
    assert done.returncode == 0 and report["readable"] is True and report["hold"]["instrument"] == "trumpet"
    assert done.stdout == "" and "%" in done.stderr and list(tmp_path.iterdir()) == [out]


def test_a_reading_loads_neither_the_database_nor_the_server() -> None:
    said = subprocess.run(
        [str(ROOT / ".venv/bin/python"), "-c", "import sys, brevin.cli, brevin.core.read, brevin.edge.look; print(' '.join(sys.modules))"],
        capture_output=True, text=True, check=True, env={"PYTHONPATH": str(ROOT / "src")},
    )  # fmt: skip
    loaded = set(said.stdout.split())
    assert "brevin.core.read" in loaded and not loaded & {"peewee", "flask", "mediapipe", "brevin.store"}


def test_not_readable_is_exit_3_with_the_report_on_standard_output(tmp_path: Path) -> None:
    done = brevin("analyse", clips.write(tmp_path / "room.mp4", clips.room(80)))
    assert done.returncode == 3 and json.loads(done.stdout)["reasons"][0]["code"] == "no_person"


def last_line(done: subprocess.CompletedProcess[str]) -> str:
    return done.stderr.strip().splitlines()[-1]


def here(*arguments: str | Path) -> int:
    """The same command in this process: what it says is the tests' to read."""
    try:
        return main([str(one) for one in arguments])
    except SystemExit as ended:
        return int(ended.code or 0)


def test_bad_use_is_exit_2_with_one_line_that_says_why(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    letter = tmp_path / "letter.mp4"
    letter.write_text("dear teacher")
    done = brevin("analyse", letter)
    assert done.returncode == 2 and "not a video" in last_line(done) and done.stdout == ""
    profile = tmp_path / "profile.json"
    profile.write_text('{"limits": {"no.such": 1}}')
    for arguments, word in (
        ((tmp_path / "missing.mp4",), "no file"), ((DEMO_CLIP, "--count", "lots"), "count card"),
        ((DEMO_CLIP, "--profile", profile), "profile"), ((DEMO_CLIP, "--view", "above"), "invalid choice"),
    ):  # fmt: skip
        assert here("analyse", *arguments) == 2, arguments
        said = capsys.readouterr()
        assert word in said.err.strip().splitlines()[-1] and said.out == "", arguments


def test_an_unknown_instrument_warns_and_is_read_as_none(tmp_path: Path) -> None:
    done = brevin("analyse", clips.write(tmp_path / "room.mp4", clips.room(80)), "--instrument", "lyre")
    assert "lyre" in done.stderr and json.loads(done.stdout)["hold"] is None


@pytest.mark.skipif(os.geteuid() != 0, reason="only root can be told apart")
def test_operator_commands_say_when_nothing_runs(tmp_path: Path) -> None:
    done = brevin("user", "list", "--data", tmp_path)
    assert done.returncode == 2 and "not running" in last_line(done)
    check = brevin("check", "--data", tmp_path)
    assert check.returncode == 0 and "********" in check.stdout and "starting value" in check.stdout
    assert brevin("bench", "no-such").returncode == 2
