"""What gunicorn loads: ``brevin.web.server:app`` with the data folder in BREVIN_DATA."""

import os
from pathlib import Path

from brevin.ops import settings as known
from brevin.store.database import connect
from brevin.web.app import create_app

_settings = known.load(Path(os.environ["BREVIN_DATA"]))
connect(socket=str(_settings.socket), password=_settings.values["db_password"], connections=40)
app = create_app(_settings, lan=os.environ.get("BREVIN_HTTPS") == "1")
app.config["CHILDREN"].warm()
