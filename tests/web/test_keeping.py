"""How long clips are kept, over the wire: said before, done at once, and the readings stay."""

from datetime import timedelta

import pytest

from brevin.ops import backup
from brevin.ops.settings import Settings
from brevin.store import database, takes
from brevin.store.models import Take
from tests.store.test_takes import FOUND, new_take, read_once


def test_what_is_older_goes_at_once_with_its_file(page, scope, store: Settings, student, clip) -> None:
    take = new_take(scope, student, clip)
    read_once(take.id, FOUND)
    with database.db.connection_context():
        Take.update(made_at=database.now() - timedelta(days=10)).where(Take.id == take.id).execute()
    found = page("GET", "/api/keeping").json
    assert found["days"] is None and {one["days"]: one["older"] for one in found["offered"]} == {7: 1, 28: 0, 91: 0, 365: 0}
    assert page("PUT", "/api/keeping", json={"days": 28}).json == {"gone": 0} and list(store.clips.iterdir())
    assert page("PUT", "/api/keeping", json={"days": 7}).json == {"gone": 1} and not list(store.clips.iterdir())
    left = takes.take_record(scope, take.id)
    assert left.clip is None and left.state == "read" and page("GET", "/api/keeping").json["days"] == 7
    assert page("GET", f"/api/takes/{take.id}/report").status_code == 200
    assert page("PUT", "/api/keeping", json={"days": None}).json == {"gone": 0}


@pytest.mark.parametrize("days", [0, -1, 99999, "soon", 2.5])
def test_a_time_that_is_none_is_refused_and_changes_nothing(page, days: object) -> None:
    assert page("PUT", "/api/keeping", json={"days": days}).status_code == 422 and page("GET", "/api/keeping").json["days"] is None
    assert page("PUT", "/api/keeping", json={}).status_code == 422


def test_a_backup_is_shown_with_what_it_still_holds(page, scope, store: Settings, student, tmp_path) -> None:
    assert page("GET", "/api/keeping").json["backups"] == []
    backup.make(store, tmp_path / "stick" / "b")
    (shown,) = page("GET", "/api/keeping").json["backups"]
    assert (shown["path"], shown["behind"], shown["here"]) == (str(tmp_path / "stick" / "b"), False, True) and shown["made_at"]
    (tmp_path / "stick" / "b").rename(tmp_path / "away")
    page("DELETE", f"/api/students/{student.id}/consent")
    (shown,) = page("GET", "/api/keeping").json["backups"]
    assert shown["behind"] and not shown["here"]
