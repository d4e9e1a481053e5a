import os
import signal
import socket
import time
from pathlib import Path

import pymysql
import pytest

from brevin.ops import empty_database, mariadb
from brevin.ops import settings as known
from brevin.ops.empty_database import DatabaseTrouble
from brevin.ops.mariadb import MariaDb, _is_ours, _pid, free_port


@pytest.fixture
def fresh(tmp_path: Path) -> known.Settings:
    return known.load(tmp_path / "data")


def rows(server: MariaDb) -> list[int]:
    with server.connection("brevin") as connection, connection.cursor() as cursor:
        cursor.execute("SELECT n FROM kept ORDER BY n")
        return [row[0] for row in cursor.fetchall()]


def test_a_killed_server_is_taken_up_again_with_all_it_had_promised(fresh: known.Settings) -> None:
    first = MariaDb(fresh)
    first.start()
    with first.connection("brevin") as connection, connection.cursor() as cursor:
        cursor.execute("CREATE TABLE kept (n INT PRIMARY KEY)")
        for n in range(20):
            cursor.execute("INSERT INTO kept VALUES (%s)", (n,))
            connection.commit()
    os.kill(first.process.pid, signal.SIGKILL)
    first.process.wait()
    second = MariaDb(fresh)
    second.start()
    assert rows(second) == list(range(20))
    # a stale server that still runs, as after a killed ./start, is ended and replaced
    third = MariaDb(fresh)
    third.start()
    assert second.process.wait(5) is not None and rows(third) == list(range(20))
    third.stop()
    assert third.process.returncode == 0 and not _is_ours(third.process.pid, third.folder)


def test_a_foreign_process_under_the_old_number_is_left_alone(fresh: known.Settings) -> None:
    server = MariaDb(fresh)
    fresh.data.mkdir(parents=True, exist_ok=True)
    server.pid_file.write_text(str(os.getpid()))
    began = time.monotonic()
    server._end_stale()
    assert time.monotonic() - began < 1
    server.pid_file.write_text("no number")
    assert _pid(server.pid_file) is None


def test_a_port_and_a_socket_of_its_own_on_loopback(settings: known.Settings) -> None:
    assert len(str(settings.socket)) < 107
    long = known.Settings(data=Path("/tmp/" + "x" * 120), values={})
    assert len(str(long.socket)) < 107
    with socket.socket() as probe, pytest.raises(OSError):
        probe.connect(("127.0.0.1", 1))


def test_secrets_are_made_once_and_for_their_owner_alone(fresh: known.Settings) -> None:
    again = known.load(fresh.data)
    assert again.values["session_key"] == fresh.values["session_key"] and len(fresh.values["db_password"]) > 30
    assert (fresh.data / "secrets" / "session_key").stat().st_mode & 0o077 == 0
    shown = {name: value for name, value, _ in fresh.masked()}
    assert shown["db_password"] == shown["session_key"] == "********"


def test_settings_come_from_environment_then_file_then_start(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "brevin.toml").write_text("workers = 3\nport = 9000\n")
    monkeypatch.setenv("BREVIN_PORT", "9100")
    found = known.load(tmp_path)
    assert (found.number("port"), found.number("workers"), found.number("most_upload_mb")) == (9100, 3, 600)
    assert (found.source["port"], found.source["workers"]) == ("BREVIN_PORT", "brevin.toml")
    monkeypatch.setenv("BREVIN_PORT", "many")
    with pytest.raises(ValueError, match="port"):
        known.load(tmp_path).number("port")
    (tmp_path / "brevin.toml").write_text("wrokers = 3\n")
    with pytest.raises(ValueError, match="wrokers"):
        known.load(tmp_path)


def test_a_database_that_cannot_start_says_where_to_look(fresh: known.Settings, monkeypatch: pytest.MonkeyPatch) -> None:
    server = MariaDb(fresh)
    monkeypatch.setattr(server, "_command", lambda: ["/bin/false"])
    with pytest.raises(DatabaseTrouble, match="mariadb.log"):
        server.start()


def test_nobody_of_this_machine_comes_in_over_loopback_or_without_a_password(settings: known.Settings) -> None:
    server = MariaDb(settings)
    with server.connection() as connection, connection.cursor() as cursor:
        cursor.execute("SELECT User, Host, Priv FROM mysql.global_priv")
        accounts = cursor.fetchall()
        cursor.execute("SELECT @@port")
        port = cursor.fetchone()[0]
    assert {host for _, host, _ in accounts} == {"localhost"}
    assert all("authentication_string" in priv and '"authentication_string":""' not in priv for user, _, priv in accounts if user != "mariadb.sys")
    for user in ("root", "brevin", ""):
        for password in ("", settings.values["db_password"]):
            with pytest.raises(pymysql.err.OperationalError):
                pymysql.connect(host="127.0.0.1", port=port, user=user, password=password)
    own = {"unix_socket": str(settings.socket), "user": "brevin", "password": settings.values["db_password"]}
    with pymysql.connect(**own) as program, program.cursor() as cursor, pytest.raises(pymysql.err.OperationalError):
        cursor.execute("SELECT * FROM mysql.global_priv")


def test_a_port_taken_between_the_asking_and_the_binding_is_asked_for_again(fresh: known.Settings, monkeypatch: pytest.MonkeyPatch) -> None:
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        offered = [other.getsockname()[1]]
        monkeypatch.setattr(mariadb, "free_port", lambda: offered.pop() if offered else free_port())
        server = MariaDb(fresh)
        server.start()
        assert server.port != other.getsockname()[1] and server.alive
        server.stop()


def test_an_empty_folder_is_made_once_and_copied_from_then_on(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(empty_database, "KEPT", tmp_path / "kept")
    made: list[Path] = []
    make = empty_database._make
    monkeypatch.setattr(empty_database, "_make", lambda folder, *rest: (made.append(folder), make(folder, *rest)))
    first, second = (known.load(tmp_path / name) for name in ("one", "two"))
    for settings in (first, second):
        server = MariaDb(settings)
        server.start()
        with server.connection("brevin") as connection, connection.cursor() as cursor:
            cursor.execute("CREATE TABLE kept (n INT PRIMARY KEY)")  # what one holds is not in the next
        server.stop()
    assert len(made) == 1 and first.values["db_password"] != second.values["db_password"]
    assert [one.name for one in (tmp_path / "kept").iterdir()] == [empty_database.known_empty().name], "no half copy beside it"
    assert not (tmp_path / "one" / "mariadb.part").exists() and not (empty_database.known_empty() / "brevin").exists()


def test_where_no_copy_can_be_kept_or_it_is_of_another_version_the_folder_is_made_anew(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    made: list[Path] = []
    monkeypatch.setattr(empty_database, "_make", lambda folder, *rest: (made.append(folder), folder.mkdir(parents=True)))
    (tmp_path / "a file").write_text("no folder")
    monkeypatch.setattr(empty_database, "KEPT", tmp_path / "a file")
    for name in ("one", "two"):
        empty_database.empty_folder(tmp_path / name, user=(), environment={})
    assert len(made) == 2 and (tmp_path / "two").is_dir()
    monkeypatch.setattr(empty_database, "KEPT", tmp_path / "kept")
    empty_database.empty_folder(tmp_path / "three", user=(), environment={})
    before = empty_database.known_empty()
    monkeypatch.setattr(empty_database, "program", lambda name, usual: "/bin/echo")
    assert empty_database.known_empty() != before, "another server, another copy"
    empty_database.empty_folder(tmp_path / "four", user=(), environment={})
    assert len(made) == 4


def test_a_copy_that_fails_is_told_and_leaves_nothing_half_made(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(empty_database, "KEPT", tmp_path)
    empty_database.known_empty().mkdir()
    nowhere = tmp_path / "no" / "such" / "mariadb"
    with pytest.raises(DatabaseTrouble, match="could not be made"):
        empty_database.empty_folder(nowhere, user=(), environment={})
    assert not nowhere.exists()
