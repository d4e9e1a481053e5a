"""The connection to MariaDB and the migrations. Rows never leave ``store``: its functions take and give the records of ``store.records``."""

from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import TypeVar

from peewee import DatabaseProxy, DateTimeField, Model, MySQLDatabase, OperationalError
from playhouse.migrations import Runner
from playhouse.pool import PooledMySQLDatabase
from playhouse.shortcuts import ReconnectMixin

MIGRATIONS = Path(__file__).parent / "migrations"
DEADLOCK, MOST_ENDED = 1213, 3  # MariaDB's number for it; and how often a change is begun anew
MIGRATE_LOCK, LOCK_WAIT_S = "brevin-migrate", 60

db = DatabaseProxy()
T = TypeVar("T")


class Pooled(ReconnectMixin, PooledMySQLDatabase):
    """A pool that takes a connection up again after the server went away."""


class MomentField(DateTimeField):
    """A time in UTC, to the microsecond."""

    field_type = "DATETIME(6)"

    def python_value(self, value: object) -> object:
        found = super().python_value(value)
        return found.replace(tzinfo=UTC) if isinstance(found, datetime) and found.tzinfo is None else found

    def db_value(self, value: object) -> object:
        if isinstance(value, datetime) and value.tzinfo is not None:
            value = value.astimezone(UTC).replace(tzinfo=None)
        return super().db_value(value)


def connect(*, socket: str, password: str, schema: str = "brevin", user: str = "brevin", connections: int = 16) -> MySQLDatabase:
    """Bind the models to a server over its socket, as the program's own account. Time zone UTC, strict mode."""
    database = Pooled(
        schema, max_connections=connections, stale_timeout=600, unix_socket=socket, user=user, password=password, charset="utf8mb4",
        init_command="SET time_zone='+00:00', sql_mode='STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION'",
    )  # fmt: skip
    if db.obj is not None:
        db.obj.close_all()
    db.initialize(database)
    return database


def migrate() -> list[str]:
    """Apply what is missing, one process at a time; returns the names applied. Each step may be repeated, since MariaDB undoes no change of tables."""
    with db.connection_context():
        locked = db.execute_sql("SELECT GET_LOCK(%s, %s)", (MIGRATE_LOCK, LOCK_WAIT_S)).fetchone()[0]
        if locked != 1:
            raise TimeoutError("another program is changing the tables; try again in a minute")
        try:
            return list(Runner(db.obj, str(MIGRATIONS)).up())
        finally:
            db.execute_sql("SELECT RELEASE_LOCK(%s)", (MIGRATE_LOCK,))


def migrations() -> list[str]:
    """Names of the migrations that the tables have gone through."""
    with db.connection_context():
        return sorted(row[0] for row in db.execute_sql("SELECT name FROM schema_migration"))


def untangled(change: Callable[[], T]) -> T:
    """Do a change, and do it anew where MariaDB ended its transaction because it and another waited for each other: nothing of it was done. change: one that
    may be repeated. Raises peewee.OperationalError where it is ended again and again."""
    for _ in range(MOST_ENDED):
        try:
            return change()
        except OperationalError as why:
            if why.args[0] != DEADLOCK:
                raise
    return change()


def now() -> datetime:
    """The present moment, UTC."""
    return datetime.now(UTC)


def insert_all(model: type[Model], rows: Sequence[Mapping[str, object]]) -> None:
    """Many rows of one kind in one statement, each with the same fields; none where there are none. Needs an open connection. Written by the driver: peewee
    makes an expression of every value, which for the numbers of one report took longer than all its queries."""
    if not rows:
        return
    fields = [model._meta.fields[name] for name in rows[0]]
    columns, places = ", ".join(f"`{field.column_name}`" for field in fields), ", ".join(["%s"] * len(fields))
    values = [[field.db_value(row[field.name]) for field in fields] for row in rows]
    with db.cursor() as cursor:
        cursor.executemany(f"INSERT INTO `{model._meta.table_name}` ({columns}) VALUES ({places})", values)
