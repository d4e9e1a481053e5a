"""The queue: readings wait in a schema of their own. The take's row carries the truth; the queue only says what to look at next."""

from collections.abc import Callable
from dataclasses import dataclass

from huey import crontab
from huey.contrib.sql_huey import SqlHuey
from peewee import MySQLDatabase

from brevin.core.verdict.words import reason_text
from brevin.ops.settings import Settings
from brevin.store import takes


@dataclass(frozen=True)
class Readings:
    """The queue and how to put a take into it."""

    huey: SqlHuey
    send: Callable[[str], object]


def queue_on(settings: Settings) -> Readings:
    """The queue of a data folder with its tasks: ``read``, and a look after dead workers every minute."""
    database = MySQLDatabase("brevin_queue", unix_socket=str(settings.socket), user="root", password=settings.values["db_password"], charset="utf8mb4")
    huey = SqlHuey(name="readings", database=database, results=False)

    @huey.task(name="read")
    def read(take_id: str) -> None:
        from brevin.jobs.reading import read_take  # the networks: only where clips are read

        read_take(take_id, settings)

    @huey.periodic_task(crontab(minute="*"), name="look_after")
    def look_after() -> None:
        put_back(read)

    return Readings(huey=huey, send=read)


def put_back(send: Callable[[str], object]) -> int:
    """Send every take that waits; a take that is already in the queue is claimed once and ignored the second time. Returns how many."""
    waiting = takes.put_back_expired(code="reading_failed", text=reason_text("reading_failed", {}))
    for take_id in waiting:
        send(take_id)
    return len(waiting)
