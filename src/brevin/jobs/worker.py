"""The process that reads clips: ``python -m brevin.jobs.worker DATA WORKERS``."""

import logging
import sys
from pathlib import Path

from huey.consumer import Consumer

from brevin.jobs.queue import queue_on
from brevin.ops import settings as known
from brevin.store.database import connect


def main(argv: list[str]) -> int:
    """Read until told to stop."""
    settings = known.load(Path(argv[0]))
    logging.basicConfig(level=logging.INFO, format="%(asctime)s %(name)s %(levelname)s %(message)s")
    connect(socket=str(settings.socket), password=settings.values["db_password"], connections=4)
    readings = queue_on(settings)
    consumer = Consumer(readings.huey, workers=int(argv[1]), worker_type="process", max_delay=0.5, health_check_interval=3)
    consumer.run()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
