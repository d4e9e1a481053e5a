"""What gunicorn loads: ``brevin.web.server:app`` with the data folder in BREVIN_DATA."""

import os
from pathlib import Path

from brevin.jobs.queue import queue_on
from brevin.ops import settings as known
from brevin.store.database import connect
from brevin.web.app import create_app

_settings = known.load(Path(os.environ["BREVIN_DATA"]))
connect(socket=str(_settings.socket), password=_settings.values["db_password"])
app = create_app(_settings, send=queue_on(_settings).send, secure_cookie=os.environ.get("BREVIN_HTTPS") == "1")
