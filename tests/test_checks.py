"""The checks that read the whole code at once, as tests: so they run beside those that wait."""

import subprocess
import sys

import pytest

from brevin.ops.settings import ROOT


@pytest.mark.parametrize(
    ("command", "folder"),
    [
        ([sys.executable, "-m", "pyrefly", "check", "--summary=none", "--python-interpreter-path", sys.executable], "."),
        (["npm", "run", "--silent", "check"], "frontend"), (["npm", "run", "--silent", "test"], "frontend"),
    ],
    ids=["types", "page, written and typed", "page, tested"],
)  # fmt: skip
def test_the_code_as_a_whole(command: list[str], folder: str) -> None:
    done = subprocess.run(command, cwd=ROOT / folder, capture_output=True, text=True)
    assert done.returncode == 0, done.stdout[-4000:] + done.stderr[-1000:]
