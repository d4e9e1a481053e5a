"""Writes the API's description for the front end: ``python -m brevin.web.describe frontend/api.json``; ``npm run types`` makes types of it."""

import json
import os
import sys
from pathlib import Path

from brevin.ops.settings import Settings
from brevin.web.routes import DESCRIBED


def description() -> str:
    """The description as text. Needs neither data folder nor database, and a program in which the server was not loaded before."""
    os.environ[DESCRIBED] = "1"
    from brevin.web.app import create_app, spec_of  # its routes are described where they are made

    settings = Settings(data=Path("/nonexistent"), values={"session_key": "none", "most_upload_mb": "1"})
    return json.dumps(spec_of(create_app(settings)), indent=1, sort_keys=True) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(description())
