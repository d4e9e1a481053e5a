"""The page's types are made from the server: the files in the repository are what would be made now."""

import shutil
import subprocess
import sys
from pathlib import Path

from brevin.ops.settings import ROOT

FRONTEND = ROOT / "frontend"


def test_the_description_is_the_servers(tmp_path: Path) -> None:
    made = tmp_path / "api.json"
    subprocess.run([sys.executable, "-m", "brevin.web.describe", str(made)], check=True)
    assert (FRONTEND / "api.json").read_text() == made.read_text(), "run: python -m brevin.web.describe frontend/api.json && npm run types"


def test_the_types_are_made_from_the_description(tmp_path: Path) -> None:
    made = tmp_path / "schema.d.ts"
    tool = FRONTEND / "node_modules" / ".bin" / "openapi-typescript"
    assert shutil.which("node")
    subprocess.run([str(tool), "api.json", "-o", str(made), "--alphabetize"], cwd=FRONTEND, check=True, capture_output=True)
    assert made.read_text() == (FRONTEND / "src" / "api" / "gen" / "schema.d.ts").read_text()
